// Is a program sound? A second look at what the compiler made, for tests and for whoever changes
// it: every operand lies where it may, every number behind an instruction means something, every
// jump goes to code, and nothing is read from scratch that was not written on every way to it.
//
//   for (const std::string& fault : sheet::unsound(program)) texts.push_back(fault);
#pragma once

#include <string>
#include <vector>

#include "ninepegs/sheet/program/program.hpp"

namespace ninepegs::sheet {

// What is wrong with the program, a sentence each; empty: nothing. Does not run it.
std::vector<std::string> unsound(const Program& program);

}  // namespace ninepegs::sheet
