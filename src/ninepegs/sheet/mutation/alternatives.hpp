// What a term is easily mistaken for: one small slip at a time.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "ninepegs/sheet/mutation/rewrite.hpp"

namespace ninepegs::rules {

// The sort of a slip, as reports group them.
enum class Slip {
  direction,   // one forgotten, another, a group for a group
  number,      // by one
  range,       // a row, column or number too few, or one too many
  comparison,  // turned, or with or without what is equal
  joint,       // `and` for `or`, `on` for `or`
  leftOut,     // a part of a condition or of a set
  whose,       // mine for theirs
  negation,    // any for no, a `not` too many
  kind,        // another piece
  place,       // a row, an edge, a cell
  oneSide,     // as it should be for one side, not for the other
  effect,      // a statement left out, or out of order
  block,       // a `when` or `repeat` that runs when it should not
  turn,
  end,
  memory,
  board,
};
std::string slipName(Slip slip);

// The other side's; nothing where it is nobody's in particular.
std::optional<Whose> exchanged(Whose whose);
// May the same sides have both?
bool alike(const PieceKind& one, const PieceKind& other);

struct Alternative {
  Slip slip;
  Exchange make;
};

// `rules` may gain directions (`Rules::ways`). `sided`: it may depend on who moves.
std::vector<Alternative> alternatives(Rules& rules, const Term& term, bool sided);

// Other directions for those: one forgotten, turned round, a group for a group.
struct OtherWays {
  Slip slip;
  int ways;
};
std::vector<OtherWays> otherWays(Rules& rules, int ways);
// The same for the axes that lines run along: each left out once, a group for a group.
std::vector<int> otherAxes(Rules& rules, int ways);

}  // namespace ninepegs::rules
