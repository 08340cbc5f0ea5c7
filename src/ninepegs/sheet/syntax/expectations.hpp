// What the tree and the resolved rules share of positions and cases.
#pragma once

#include <vector>

#include "ninepegs/sheet/text/blocks.hpp"

namespace ninepegs::sheet {

// Lines that set up a position: a picture and the rest.
struct PositionDecl {
  std::vector<Block> lines;
  Span span;
};

enum class ExpectKind {
  ongoing,
  end,
  legal,
  notLegal,
  moves,
  moveCount,
  sequences,
  turn,
  leaves,
  play,
  condition,
  told,
  seenBy
};

enum class EndKind { moverWins, moverLoses, sideWins, draw, leader };

}  // namespace ninepegs::sheet
