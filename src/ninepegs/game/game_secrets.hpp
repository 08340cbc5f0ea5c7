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
  // The lines of the rules that say what a side is shown; none if they do not say it line by line.
  virtual std::vector<RuleLine> viewLines() const { return {}; }
};

}  // namespace ninepegs
