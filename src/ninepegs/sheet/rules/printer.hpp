// Rules -> a sheet: what was understood, written down again. Reading it gives the same rules.
#pragma once

#include <string>

#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::rules {

// The whole sheet, without variants and comments, every operand in brackets. Definitions that
// nothing uses are left out.
std::string toText(const Rules& rules);

// One term, as it may stand in a sheet.
std::string toText(const Rules& rules, const Term& term);

// Clauses as lines, indented by two blanks a level.
std::string toText(const Rules& rules, const Clauses& list, int depth);

}  // namespace ninepegs::rules
