// What a step of an example asks for: the one list of sheets and of games.
#pragma once

namespace ninepegs {

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
  condition,  // a condition of the sheet holds
  told,       // the last move announced this, or nothing
  seenBy,     // a side saw this of a move
  sees,       // a side sees this of the position
  edges       // these numbers stand on the sides of a kind of piece
};

}  // namespace ninepegs
