// A played game looked at again: what each move did to the result.
//
//   std::vector<Move> played = {moves.front()};
//   for (const play::ReviewedPly& one : play::review(*game, game->start(), played, {}))
//     score = one.played;
#pragma once

#include <cstdint>
#include <functional>
#include <vector>

#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

struct ReviewedPly {
  enum class Verdict {
    plain,
    missedWin,  // there was a win, and the move gives it away
    letsWin,    // the other side can win now, and could not have been able to
  };
  Move move, best;
  int side = 0;
  // For the side that moved: of the best move that was found, and of the one that was played.
  std::int64_t score = 0, played = 0;
  Verdict verdict = Verdict::plain;
};

struct ReviewOptions {
  std::uint64_t nodes = 50'000;  // for each position
  std::uint64_t seed = 1;
  const StopFlag* stop = nullptr;
  std::function<void(std::uint64_t done)> progress = {};  // plies
};

// One for each move, in order; fewer if it is stopped. Requires that the moves are legal, one after
// the other. What it says holds as far as the search sees.
std::vector<ReviewedPly> review(const Game& game, const Position& from,
                                const std::vector<Move>& moves, const ReviewOptions& options);

}  // namespace ninepegs::play
