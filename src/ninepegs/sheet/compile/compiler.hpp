// Checked tree -> program.
#pragma once

#include "ninepegs/sheet/compile/shortcuts.hpp"
#include "ninepegs/sheet/program/program.hpp"
#include "ninepegs/sheet/rules/checker.hpp"

namespace ninepegs::sheet {

struct CompileOptions {
  bool coverage = false;  // count how often each statement is used
  Shortcuts without = 0;  // shortcuts that are not taken: the program is slower, and does the same
};

// Throws BadInput if the sheet needs more memory than limits::memoryWords.
Program compile(const Checked& sheet, const Source& source, CompileOptions options);

}  // namespace ninepegs::sheet
