// Charts of played games: how the score went, and how opponents stand to each other. Drawn by
// gnuplot.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/draw/chart_options.hpp"
#include "ninepegs/play/review.hpp"
#include "ninepegs/play/series.hpp"

namespace ninepegs::draw {

// Both give the bytes of a file. They throw SystemFailure if gnuplot is missing, fails, takes too
// long or is stopped.

// The score after each ply, up for the first side, with the moves that gave a result away.
// Requires one ply at least.
std::string reviewChart(const Game& game, const Position& from,
                        const std::vector<play::ReviewedPly>& plies,
                        const ChartOptions& options = {});

// Won, drawn and lost games of each pairing, with the rating difference and its interval; of more
// than two opponents the best comes first. `who` are their names. Requires a game of each pairing.
std::string seriesChart(const Game& game, const std::vector<std::string>& who,
                        const play::Series& series, const ChartOptions& options = {});

}  // namespace ninepegs::draw
