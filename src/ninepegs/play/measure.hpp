// What a position is worth where a search stops. Internal to the room.
#pragma once

#include <algorithm>

#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

inline constexpr std::int64_t worthLimit = winScore / 2;

// For the side to move: the sheet's measure; without one, how many moves it has. `measured`: the
// game has a measure.
inline std::int64_t leafScore(LivePosition& live, bool measured) {
  if (!measured) return static_cast<std::int64_t>(std::min<std::uint32_t>(live.moveCount(), 1000));
  return std::clamp(live.worth(live.toMove()), -worthLimit, worthLimit);
}

// Is the game over here, so many plies behind the root? Then `score` is that of the side to move.
inline bool endsWith(const LivePosition& live, int ply, std::int64_t& score) {
  Outcome outcome = live.outcome();
  if (outcome.kind == ResultKind::ongoing) return false;
  score = outcome.kind != ResultKind::win   ? 0
          : outcome.winner == live.toMove() ? winScore - ply
                                            : ply - winScore;
  return true;
}

// Is a side to move that wins with one move? `moves` is room to list them in; adds the positions
// that were looked at to `nodes`.
inline bool winsAtOnce(LivePosition& live, int side, MoveList& moves, std::uint64_t& nodes) {
  if (live.ended() || live.toMove() != side) return false;
  live.listMoves(moves);
  for (const Move& move : moves) {
    live.play(move);
    ++nodes;
    Outcome outcome = live.outcome();
    live.takeBack();
    if (outcome.kind == ResultKind::win && outcome.winner == side) return true;
  }
  return false;
}

// What a move is worth for who makes it, from the score of the position behind it; `again`: the
// same side moves there, too. A win is one ply further off, seen from before the move.
inline std::int64_t beforeMove(std::int64_t behind, bool again) {
  std::int64_t score = again ? behind : -behind;
  if (!decides(score)) return score;
  return score > 0 ? score - 1 : score + 1;
}

}  // namespace ninepegs::play
