// The chart of how an opponent thought: positions and time against depth, or how playouts went.
// Drawn by gnuplot.
#pragma once

#include <string>

#include "ninepegs/draw/chart_options.hpp"
#include "ninepegs/play/thinking.hpp"

namespace ninepegs::draw {

// The bytes of a file. Throws SystemFailure if gnuplot is missing, fails, takes too long or is
// stopped. Requires one step at least.
std::string thinkingChart(const Game& game, const play::Thinking& thought,
                          const ChartOptions& options = {});

}  // namespace ninepegs::draw
