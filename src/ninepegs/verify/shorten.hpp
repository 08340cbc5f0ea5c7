// From a game that shows a fault to the shortest one that does.
#pragma once

#include <optional>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/verify/evidence.hpp"

namespace ninepegs::verify {

struct Shortened {
  std::vector<Move> moves;
  bool shortest = false;  // every shorter game was tried
};

// The fault is named by kind and line. First every game is tried, from the shortest up, as long as
// `budget` different positions allow; if that does not reach the fault, parts of the given game are
// left out while the fault stays.
Shortened shorten(const Game& game, FindingKind kind, int line, const std::vector<Move>& moves,
                  std::size_t budget, const StopFlag* stop);

}  // namespace ninepegs::verify
