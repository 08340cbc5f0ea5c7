// The chart of a check: how long the games were and how they ended. Drawn by gnuplot.
#pragma once

#include <filesystem>

#include "ninepegs/verify/check.hpp"

namespace ninepegs::draw {

// Is there a gnuplot to be run?
bool canChart();

// Writes a .png file, whole or not at all. Throws BadInput if gnuplot is missing or fails, or the
// file cannot be written. There must be at least one playout.
void drawCheckChart(const Game& game, const verify::Evidence& evidence,
                    const std::filesystem::path& path);

}  // namespace ninepegs::draw
