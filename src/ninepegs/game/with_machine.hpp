// Runs a body on a machine of the program's width. Internal to SheetGame.
#pragma once

#include <fmt/format.h>

#include "ninepegs/game/game.hpp"
#include "ninepegs/sheet/machine/machine.hpp"

namespace ninepegs {

[[noreturn]] inline void refuseLongLoop(const sheet::Program& program, int statement,
                                        bool choices) {
  int line = statement < static_cast<int>(program.statementLines.size())
                 ? program.statementLines[statement]
                 : 0;
  if (choices)
    throw RunawayRules(
        Place{program.source, line, 0, 1, {}},
        fmt::format("a move makes more than {} choices here, the limit; every round of a "
                    "`repeat` is one",
                    limits::choices),
        "does every round bring the end of the `repeat` nearer?");
  throw RunawayRules(
      Place{program.source, line, 0, 1, {}},
      fmt::format("this takes more than {} steps in one position, the limit", limits::loopSteps),
      "pick from smaller sets, or nest fewer loops");
}

// Throws BadInput if the body ran into the limit of steps.
template <int W, class Body>
decltype(auto) onMachine(const sheet::Program& program, Body& body) {
  sheet::Machine<W> machine(program);
  struct Check {  // after the body, whatever it returns
    const sheet::Program& program;
    const sheet::Machine<W>& machine;
    ~Check() noexcept(false) {
      if (machine.exhaustedAt() >= 0)
        refuseLongLoop(program, machine.exhaustedAt(), machine.tooManyChoices());
    }
  } check{program, machine};
  return body(machine);
}

// Calls the body with the width of the program's sets as a template argument.
template <class Body>
decltype(auto) withWidth(const sheet::Program& program, Body&& body) {
  switch (program.words) {
    case 1:
      return body.template operator()<1>();
    case 2:
      return body.template operator()<2>();
    case 4:
      return body.template operator()<4>();
    default:
      return body.template operator()<8>();
  }
}

template <class Body>
decltype(auto) withMachine(const sheet::Program& program, Body&& body) {
  return withWidth(program, [&]<int W>() -> decltype(auto) { return onMachine<W>(program, body); });
}

}  // namespace ninepegs
