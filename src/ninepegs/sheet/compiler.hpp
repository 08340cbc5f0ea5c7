// Checked tree -> program.
#pragma once

#include "ninepegs/sheet/checker.hpp"
#include "ninepegs/sheet/program.hpp"

namespace ninepegs::sheet {

struct CompileOptions {
  bool coverage = false;  // count how often each statement is used
};

// Throws BadInput if the sheet needs more memory than limits::memoryWords.
Program compile(const Checked& sheet, const Source& source, CompileOptions options);

}  // namespace ninepegs::sheet
