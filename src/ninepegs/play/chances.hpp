// How likely a side is to win at a score of the search: a curve through the results of random
// games.
//
//   play::Chances chances(*game, position, 1);
//   double share = chances.of(score);
#pragma once

#include <cstdint>

#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

class Chances {
 public:
  // Plays games at random from the position, where the game has a measure; else the scores of the
  // search are learned from random games, and their scale is known. The same for the same seed.
  Chances(const Game& game, const Position& from, std::uint64_t seed);
  // From 0 to 1, draws being half won, for whom the score is.
  double of(std::int64_t score) const;

 private:
  double scale_ = 1000;
};

}  // namespace ninepegs::play
