// What the tree and the resolved rules share of positions and cases.
#pragma once

#include <vector>

#include "ninepegs/base/expectation.hpp"
#include "ninepegs/sheet/text/blocks.hpp"

namespace ninepegs::sheet {

// Lines that set up a position: a picture and the rest.
struct PositionDecl {
  std::vector<Block> lines;
  Span span;
};

using ninepegs::ExpectKind;

enum class EndKind { moverWins, moverLoses, sideWins, draw, leader };

}  // namespace ninepegs::sheet
