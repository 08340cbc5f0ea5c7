// Does anything leak from one side's secrets into what the other side can do or is told?
//
// Two games are played side by side. One side makes the same moves in both; the other side makes
// moves that look the same to it, but may differ in what they hide. While what the first side knows
// is the same in both, it must have the same moves, and be told the same.
#pragma once

#include <cstdint>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/verify/evidence.hpp"

namespace ninepegs::verify {

struct ViewTest {
  std::uint64_t pairs = 0;        // different positions that looked the same, compared
  std::vector<Finding> findings;  // at most one for each kind of leak
};

// Plays `games` pairs of games for each side as the one that looks. The same for the same seed.
ViewTest testViews(const Game& game, std::uint64_t games, std::uint64_t seed, const StopFlag* stop);

}  // namespace ninepegs::verify
