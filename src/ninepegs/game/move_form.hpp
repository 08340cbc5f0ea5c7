// Could a text be a move of the game at all, legal or not? A case that expects a move not to be
// legal means one that could be made in some position, not a slip of the pen.
#pragma once

#include <string>
#include <string_view>

#include "ninepegs/sheet/program/program.hpp"
#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs {

// Read as loosely as typed moves are: without case, blanks, `-` and `=`.
bool readsAsMove(const rules::Rules& rules, const sheet::Program& program, std::string_view text);

// A move's text without case, blanks, and the `-` and `=` between parts. A `-` in front is kept: it
// would make a number negative, which is never meant as the number itself.
std::string plainMove(std::string_view text);

}  // namespace ninepegs
