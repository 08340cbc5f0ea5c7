// Rules as they are while nobody claims an end.
//
//   auto sheet = SheetGame::fromText("game.pegs", text);
//   rules::Unclaimed on = rules::unclaimed(sheet->rules());
//   auto endless = SheetGame::fromRules(on.rules);
#pragma once

#include <string>
#include <vector>

#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::rules {

struct Unclaimed {
  Rules rules;                    // without worth, invariants and cases, which are no rules
  std::vector<std::string> ends;  // the claims that were left out ...
  std::vector<std::string>
      numbers;  // ... and numbers that nothing else reads: these stay as they are
};

// A thread-safe pure function.
Unclaimed unclaimed(const Rules& rules);

}  // namespace ninepegs::rules
