// Inputs that are no legal moves, of the sorts that programs take by mistake.
#pragma once

#include <set>
#include <string>
#include <vector>

#include "ninepegs/compare/bridge.hpp"

namespace ninepegs::compare {

struct Probe {
  std::string text;  // in the program's notation
  std::string what;  // "a move that was legal before", "a number below zero" ...
};

// All probes for a position, in a fixed order, without those that say a legal move. `legal` are the
// texts of its legal moves and `before` those of earlier ones, all in the program's notation.
std::vector<Probe> probesOf(const Game& game, const Position& position,
                            const std::vector<std::string>& legal,
                            const std::vector<std::string>& before, const Bridge& bridge);

}  // namespace ninepegs::compare
