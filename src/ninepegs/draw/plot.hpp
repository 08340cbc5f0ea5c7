// Runs gnuplot. Internal to the room.
#pragma once

#include <string>
#include <string_view>

#include "ninepegs/draw/chart_options.hpp"

namespace ninepegs::draw {

// As a gnuplot text in single quotes, which it never interprets.
std::string plotText(std::string_view text);

// How every chart begins: a picture of so many dots, with axes in the colours of the board.
std::string plotHead(int width, int height, ChartForm form);

// The picture that the script draws, as the bytes of a file of that form, which its head must have
// named. Throws SystemFailure if gnuplot is missing, fails, takes too long or is stopped.
std::string plotted(const std::string& script, const ChartOptions& options);

}  // namespace ninepegs::draw
