// What the tree and the resolved rules share of positions and cases.
#pragma once

#include <string>
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

// What an end and a step of a case say without naming anything.
struct EndHead {
  EndKind kind = EndKind::draw;
  bool sideLoses = false;  // `SIDE loses`: the other side wins
  bool claim = false;
  std::string name, drawName;  // drawName: of a leader's tie
  Span span;
};
struct CaseStepHead {
  ExpectKind kind = ExpectKind::ongoing;
  std::string raw;  // of play, legal, not legal, moves: the moves as written
  std::string endName;
  std::vector<unsigned long long> numbers;  // moveCount: one; sequences: from depth `first`; edges
  int first = 0;
  std::vector<Block> lines;  // of leaves
  Span span;
};

}  // namespace ninepegs::sheet
