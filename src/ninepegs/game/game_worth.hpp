// What a position is worth, in the game's own measure: for opponents.
//
//   if (const GameWorth* measure = game->measure()) score = measure->worth(position, 0);
#pragma once

#include <cstdint>

#include "ninepegs/game/values.hpp"

namespace ninepegs {

class GameWorth {
 public:
  virtual ~GameWorth() = default;

  // For a side (0 or 1): what it has, less what the other has, so that the two sum to 0.
  virtual std::int64_t worth(const Position& position, int side) const = 0;
};

}  // namespace ninepegs
