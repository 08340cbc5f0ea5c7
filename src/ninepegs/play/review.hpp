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
    costs,      // no result is settled, but chances to win went down by more than costsFrom
  };
  Move move, best;
  int side = 0;
  // For the side that moved: of the best move that was found, and of the one that was played.
  std::int64_t score = 0, played = 0;
  // Chances to win, from 0 to 1, at these scores.
  double chance = 0.5, chancePlayed = 0.5;
  bool lookedAgain = false;  // a later ply showed that the first look was wrong
  Verdict verdict = Verdict::plain;
};
inline constexpr double costsFrom = 0.2;

struct ReviewOptions {
  std::uint64_t nodes = 50'000;  // for each position
  std::uint64_t seed = 1;
  const StopFlag* stop = nullptr;
  std::function<void(std::uint64_t done)> progress = {};  // plies
};

// One for each move, in order; fewer if it is stopped. Requires that the moves are legal, one after
// the other. What it says holds as far as the search sees. Where a later ply shows that a side wins
// though an earlier look did not see it, it is looked again, backwards, with more positions: so far
// back as the result was still settled.
std::vector<ReviewedPly> review(const Game& game, const Position& from,
                                const std::vector<Move>& moves, const ReviewOptions& options);

}  // namespace ninepegs::play
