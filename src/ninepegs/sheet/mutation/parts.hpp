// The makers of mutations, by what they change. Internal to the room.
#pragma once

#include <utility>

#include "ninepegs/sheet/mutation/mutations.hpp"

namespace ninepegs::rules {

inline Mutation mutationOf(Slip slip, int line, std::string was, std::string now,
                           std::function<void(Rules&)> make) {
  Mutation out;
  out.slip = slip;
  out.line = line;
  out.was = std::move(was);
  out.now = std::move(now);
  out.make = std::move(make);
  return out;
}

// Terms: see alternatives.hpp.
void mutationsOfTerms(const Rules& rules, std::vector<Mutation>& out);
// Statements of moves and of what comes after them.
void mutationsOfClauses(const Rules& rules, std::vector<Mutation>& out);
// Turn, ends, `forbid`, `after`, and what is remembered.
void mutationsOfSections(const Rules& rules, std::vector<Mutation>& out);
// The start, the board's edges, pieces.
void mutationsOfSetUp(const Rules& rules, std::vector<Mutation>& out);

}  // namespace ninepegs::rules
