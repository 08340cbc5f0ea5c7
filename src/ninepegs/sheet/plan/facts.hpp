// What terms tell before anything is played: names in them, whose pieces stand on a set, attacks,
// ways to slide. Every function reads rules only.
#pragma once

#include <optional>
#include <vector>

#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::sheet {

using rules::NameId;
using rules::Term;
using rules::Type;

// The name that a term is, or whose cell a set is; -1: it is no name.
NameId nameIn(const Term& term);
bool mentions(const Term& term, NameId name);
// Is the name read by a clause, or inside it?
bool reads(const rules::Clause& clause, NameId name);

// What is known of the pieces on the cells of a set, as `side` sees it.
struct Known {
  int owner = -1;          // -1: not known
  std::vector<int> kinds;  // which they may be; none: not known
};
Known knownOf(const rules::Rules& rules, const Term& set, int side);

// Sets in which only empty cells can be, and those in which no cell with a piece of the side that
// moves can be.
bool onlyEmpty(const Term& set);
bool noneOfMine(const Term& set);

// A step, leap or slide from the piece itself, or several: what can be followed backwards.
bool isPlainReach(const Term& reach);

// The cells of `on`, `reach` and so on that make up an attack: A of `any A on their reach`.
struct Attack {
  std::vector<const Term*> targets;
  int attacker = 0;
};
std::optional<Attack> attackOf(const Term& set, int side);

// Directions along which kinds of a side slide, with those kinds; false if a reach is of another
// form.
struct Slides {
  std::vector<int> directions, kinds;
};
bool slidesOf(const rules::Rules& rules, int side, std::vector<Slides>& slides);

// Each direction the other way round.
std::vector<int> reversed(const Geometry& board, std::vector<int> directions);

// Do cell numbers grow or shrink all the way along every direction? Round joined edges and on
// points they need not.
bool runsStraight(const Geometry& board);

}  // namespace ninepegs::sheet
