// Rules and the plan of their moves -> program.
#pragma once

#include "ninepegs/sheet/plan/shortcuts.hpp"
#include "ninepegs/sheet/program/program.hpp"
#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::sheet {

struct CompileOptions {
  bool coverage = false;  // count how often each statement is used
  bool parts = false;     // ... and how often each part of a condition holds; takes no shortcut
  Shortcuts without = 0;  // shortcuts that are not taken: the program is slower, and does the same
};

// Throws BadInput if the sheet needs more memory than limits::memoryWords.
Program compile(const rules::Rules& rules, CompileOptions options);

}  // namespace ninepegs::sheet
