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
  std::vector<Finding> findings;  // the first leak, if any
  bool broken = false;            // stopped, or some were given up because they take too long
};
struct ViewOptions {
  std::uint64_t seed = 1;
  int threads = 1;
  const StopFlag* stop = nullptr;
};

// Plays `games` pairs of games for each side as the one that looks. Most end where the two no
// longer look the same; one in a hundred is followed further, by moves that keep them alike. The
// same for the same seed, on any number of threads.
ViewTest testViews(const Game& game, std::uint64_t games, const ViewOptions& options);

}  // namespace ninepegs::verify
