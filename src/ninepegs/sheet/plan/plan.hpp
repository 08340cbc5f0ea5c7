// Fourth stage: how moves are generated and made, worked out from the rules before any instruction
// is. A Plan points into the rules that it was made of, which must outlive it.
#pragma once

#include <optional>
#include <set>
#include <vector>

#include "ninepegs/sheet/plan/facts.hpp"
#include "ninepegs/sheet/plan/shortcuts.hpp"
#include "ninepegs/sheet/program/move_class.hpp"
#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::sheet {

// A pick of the head whose cells all come at once, from the other end of a run that a `need` behind
// it asks for.
struct RunPick {
  std::size_t pick = 0, need = 0;  // places in the head; the need is settled by the pick
  const rules::Bracketed* run = nullptr;
};

struct MovePlan {
  std::vector<const rules::Clause*> head;  // up to the first effect, block or optional pick
  std::vector<const rules::Clause*> all;   // the move's own clauses and those of its `after` blocks
  std::vector<const rules::AfterRule*> afters;
  const rules::Maximise* maximise = nullptr;
  std::set<NameId> assigned;  // names of the move that are set
  std::set<int> remembered;   // cells of the sheet that are set
  bool sets = false;          // anything at all is set
  bool latePicks = false, lateNeeds = false;
  bool handSettled = true;  // what is put from the hand can be looked for before the first effect
  // The last pick moves what stands on `from`, for which a forbidden attack can be foreseen; -1: it
  // cannot.
  NameId from = -1;
  const Term* choiceOn = nullptr;  // cells of the last pick where a further choice is made
  MoveClass moveClass = MoveClass::mask;
  int classLine = 0;      // of the sheet: what makes it so
  bool mayRepeat = true;  // two ways of it may come to the same
  // ... only if one of these choices of the head differs; empty: whatever differs.
  std::vector<int> unwritten;
  // Of the generator: what of the head it works out.
  std::vector<RunPick> runs;
  std::set<NameId> lets;  // that what decides reads
  std::size_t last = 0;   // the last place that decides; the size of the head: none does

  bool inHead(const rules::Clause& clause) const;
  bool settled(std::size_t place) const;  // a need that a run pick settles
};

struct Plan {
  std::vector<MovePlan> moves;
  bool pruned = false;  // moves on trial leave out what no check reads
  // Of the one forbidden attack that is foreseen: the attacked kinds; none: no attack is.
  std::vector<int> guardedKinds;
};

// Takes no shortcut that `without` names.
Plan planMoves(const rules::Rules& rules, Shortcuts without);

// Does the clause change the position, or hold clauses that may?
bool isEffect(const rules::Clause& clause);
// What changes nothing on the board and decides on no move: trials may leave it out.
bool isDropped(const rules::Clause& clause);
// Are there clauses inside?
bool holdsClauses(const rules::Clause& clause);
// Are there choices, needs or rounds inside?
bool holdsChoices(const rules::Clause& clause);

// The parts of planMoves(): attacks that can be foreseen (foresee.cpp), ways that may come to the
// same (distinct.cpp), what generators work out (heads.cpp).
std::vector<int> guardedKinds(const rules::Rules& rules, Shortcuts without);
void foresee(const rules::Rules& rules, MovePlan& plan);
void planRepeats(const rules::Rules& rules, MovePlan& plan, const rules::MoveRule& move,
                 Shortcuts without);
void planHead(MovePlan& plan, Shortcuts without);

}  // namespace ninepegs::sheet
