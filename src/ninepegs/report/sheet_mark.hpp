// Tells whether a file that goes on was begun with the same sheet.
#pragma once

#include <string>

#include "ninepegs/game/game.hpp"

namespace ninepegs::report {

// What the rules are, as a number of sixteen hexadecimal digits: of the lines of the sheet and of
// its cases. All digits are 0 for a game written in C++.
std::string sheetMark(const Game& game);

}  // namespace ninepegs::report
