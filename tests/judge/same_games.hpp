// Plays two games that must be the same in step, such as one with shortcuts and one without.
#pragma once

#include <string>

#include "judge/compare.hpp"

namespace ninepegs::judge {

// Where they part, empty: nowhere. Compared are legal moves with their texts, what is told, the
// positions after them, results, ends that hold and worth. `lines`: the lines of faults, too.
std::string parted(const SheetGame& one, const SheetGame& other, const CompareOptions& options,
                   bool lines);

// A result in words, such as "win of 0 by end 1 three in a line".
std::string outcomeText(const Result& result);

}  // namespace ninepegs::judge
