// The chart of a check: how long the games were and how they ended. Drawn by gnuplot.
#pragma once

#include <string>

#include "ninepegs/draw/chart_options.hpp"
#include "ninepegs/verify/check.hpp"

namespace ninepegs::draw {

// The chart as the bytes of a file. Throws SystemFailure if gnuplot is missing, fails, takes too
// long or is stopped. There must be at least one playout.
std::string checkChart(const Game& game, const verify::Evidence& evidence,
                       const ChartOptions& options = {});

// What gnuplot is given to draw. Texts of the sheet stand in it as plain texts in single quotes,
// which gnuplot never interprets.
std::string chartScript(const Game& game, const verify::Evidence& evidence,
                        ChartForm form = ChartForm::png);

}  // namespace ninepegs::draw
