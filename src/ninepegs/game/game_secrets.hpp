// What each side knows of a game in which something is hidden.
//
//   if (const GameSecrets* secrets = game->secrets())
//     texts = secrets->viewOf(position, 0).words;
#pragma once

#include "ninepegs/game/values.hpp"

namespace ninepegs {

class GameSecrets {
 public:
  virtual ~GameSecrets() = default;

  // What a side (0 or 1) sees of a position, and knows in words.
  virtual View viewOf(const Position& position, int side) const = 0;
};

}  // namespace ninepegs
