// A program in any language that answers JSON-RPC 2.0, one object a line, on its standard input and
// output: docs/programs.md.
#pragma once

#include <memory>
#include <string>

#include "ninepegs/base/child.hpp"
#include "ninepegs/compare/bridge.hpp"
#include "ninepegs/compare/counterpart.hpp"

namespace ninepegs::compare {

// The program is started at the first question. What it names is read through the bridge; game and
// bridge must outlive it. Throws BadInput, at the first question, if there is no such program.
std::unique_ptr<Counterpart> makeProgram(const Game& game, const Bridge& bridge,
                                         const std::string& command, const ChildLimits& limits);

}  // namespace ninepegs::compare
