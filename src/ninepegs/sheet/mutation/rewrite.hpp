// Rules with one term exchanged for another, wherever it stands.
#pragma once

#include <functional>
#include <vector>

#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::rules {

// Where a term stands: outside of definitions, that very term; inside of one, the part of its body
// that these steps lead to, in each of its uses.
struct Spot {
  const Term* term = nullptr;
  int define = -1;
  std::vector<int> path;
};

// The part of the rules that a term stands in.
enum class Region { reach, zone, move, after, forbid, end, sees };

// What a term becomes; null: it stays. It may add to the rules' lists, such as `ways`.
using Exchange = std::function<TermPtr(Rules&, const TermPtr&)>;

struct Seen {
  Spot spot;
  TermPtr term;
  Region region = Region::move;
  int line = 0;  // of the sheet: where what holds the term begins
};

// Every term of the rules but for those of `worth`, `always`, cases and notations, in written
// order. A definition's body is seen once, where it is used first.
void eachSpot(const Rules& rules, const std::function<void(const Seen&)>& look);

// Exchanges what stands there; zones are worked out anew. `spot` must come from the same rules, or
// from those that these are a copy of.
void exchange(Rules& rules, const Spot& spot, const Exchange& with);

// Works out the cells of all zones from what the sheet says of them.
void workOutZones(Rules& rules);

}  // namespace ninepegs::rules
