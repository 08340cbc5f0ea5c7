// The makers of mutations, by what they change. Internal to the room.
#pragma once

#include "ninepegs/sheet/mutation/mutations.hpp"

namespace ninepegs::rules {

// Terms: see alternatives.hpp.
void mutationsOfTerms(const Rules& rules, std::vector<Mutation>& out);
// Statements of moves and of what comes after them.
void mutationsOfClauses(const Rules& rules, std::vector<Mutation>& out);
// Turn, ends, `forbid`, `after`, and what is remembered.
void mutationsOfSections(const Rules& rules, std::vector<Mutation>& out);
// The start, the board's edges, pieces.
void mutationsOfSetUp(const Rules& rules, std::vector<Mutation>& out);

}  // namespace ninepegs::rules
