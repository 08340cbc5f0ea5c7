// The chart of how a search thought: positions and time against depth. Drawn by gnuplot.
#pragma once

#include <string>

#include "ninepegs/play/thinking.hpp"

namespace ninepegs::draw {

// The bytes of a .png file. Throws BadInput if gnuplot is missing, fails, takes longer than
// `seconds` or is stopped. Requires that the search came to depth 1 at least.
std::string thinkingChart(const Game& game, const play::Thinking& thought,
                          const StopFlag* stop = nullptr, double seconds = 20);

}  // namespace ninepegs::draw
