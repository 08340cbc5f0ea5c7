// Runs a body on a machine of the program's width. Internal to SheetGame.
#pragma once

#include "ninepegs/sheet/machine.hpp"

namespace ninepegs {

template <class Body>
decltype(auto) withMachine(const sheet::Program& program, Body&& body) {
  switch (program.words) {
    case 1: {
      sheet::Machine<1> machine(program);
      return body(machine);
    }
    case 2: {
      sheet::Machine<2> machine(program);
      return body(machine);
    }
    case 4: {
      sheet::Machine<4> machine(program);
      return body(machine);
    }
    default: {
      sheet::Machine<8> machine(program);
      return body(machine);
    }
  }
}

}  // namespace ninepegs
