// Runs a body on a machine of the program's width. Internal to SheetGame.
#pragma once

#include <type_traits>

#include "ninepegs/game/game.hpp"
#include "ninepegs/sheet/machine/machine.hpp"

namespace ninepegs {

// Refuses rules that came to no end within their limits. `words`: the position, for the reason.
[[noreturn]] void refuseLongLoop(const sheet::Program& program, int statement, bool choices,
                                 const std::uint64_t* words);

// What was run ended early, on this thread: Stopped or TooMuchWork, whichever it was.
[[noreturn]] void throwBrokenOff(const sheet::Program& program, const std::uint64_t* words);

// Throws BadInput if the body ran into the limit of steps.
template <int W, class Body>
decltype(auto) onMachine(const sheet::Program& program, Body& body) {
  sheet::Machine<W> machine(program);
  struct Counted {  // its steps, even if the body throws
    sheet::Machine<W>& machine;
    ~Counted() { machine.settle(); }
  } counted{machine};
  auto check = [&] {
    if (machine.brokenOff() || machine.settle()) throwBrokenOff(program, machine.words());
    if (machine.exhaustedAt() >= 0)
      refuseLongLoop(program, machine.exhaustedAt(), machine.tooManyChoices(), machine.words());
  };
  if constexpr (std::is_void_v<decltype(body(machine))>) {
    body(machine);
    check();
  } else {
    decltype(auto) out = body(machine);
    check();
    return out;
  }
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
