// Runs gnuplot. Internal to the room.
#pragma once

#include <string>
#include <string_view>

#include "ninepegs/base/stop.hpp"

namespace ninepegs::draw {

// As a gnuplot text in single quotes, which it never interprets.
std::string plotText(std::string_view text);

// How every chart begins: a picture of so many dots, with axes in the colours of the board.
std::string plotHead(int width, int height);

// The picture that the script draws, as the bytes of a .png file. Throws BadInput if gnuplot is
// missing, fails, takes longer than `seconds` or is stopped.
std::string plotted(const std::string& script, const StopFlag* stop, double seconds);

}  // namespace ninepegs::draw
