// One realistic slip at a time: what a set of rules could have been by mistake.
//
//   auto sheet = SheetGame::fromText("mine.pegs", text);
//   for (const rules::Mutation& one : rules::mutationsOf(sheet->rules()))
//     texts.push_back(rules::toText(rules::mutated(sheet->rules(), one)));
//
// Plain values; safe to use from several threads once made.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ninepegs/sheet/mutation/alternatives.hpp"
#include "ninepegs/sheet/rules/printer.hpp"

namespace ninepegs::rules {

struct Mutation {
  Slip slip = Slip::effect;
  int line = 0;          // of the sheet
  std::string was, now;  // what stands there, and what would; `now` is empty if nothing
  std::function<void(Rules&)> make;
};

// All of them, in the order of the sheet's lines; none is in `worth`, `always`, cases, notations
// and texts, which are no rules. A change may come to the same rules.
std::vector<Mutation> mutationsOf(const Rules& rules);

// The rules with that change. `change` must come from the same rules.
Rules mutated(const Rules& rules, const Mutation& mutation);

// A change in words: "`edge` for `corner`", "without `take over`".
std::string toText(const Mutation& mutation);

}  // namespace ninepegs::rules
