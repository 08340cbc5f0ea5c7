// What is known of a move before code is made for it: its head, its class, what a trial may leave
// out.
#include <algorithm>

#include "ninepegs/sheet/plan/plan.hpp"

namespace ninepegs::sheet {

using namespace rules;

bool MovePlan::inHead(const Clause& clause) const {
  return std::find(head.begin(), head.end(), &clause) != head.end();
}

bool MovePlan::settled(std::size_t place) const {
  return std::any_of(runs.begin(), runs.end(),
                     [&](const RunPick& run) { return run.need == place; });
}

bool isEffect(const Clause& clause) {
  return !isChoice(clause) && textParts(clause) == nullptr && as<Let>(clause) == nullptr &&
         as<Need>(clause) == nullptr && as<Maximise>(clause) == nullptr;
}

namespace {

bool chooses(const Clause& one) {
  return isChoice(one) || as<Need>(one) != nullptr || as<Repeat>(one) != nullptr;
}

// A name that it makes may be read behind it.
bool touchesBoard(const Clauses& list) {
  return std::any_of(list.begin(), list.end(), [](const Clause& one) { return !isDropped(one); });
}

}  // namespace

bool holdsClauses(const Clause& clause) {
  for (const Clauses* list : inner(clause))
    if (!list->empty()) return true;
  return false;
}

bool holdsChoices(const Clause& clause) {
  for (const Clauses* list : inner(clause))
    if (anyClause(*list, [](const Clause& one) { return chooses(one); })) return true;
  return false;
}

bool isDropped(const Clause& clause) {
  if (const When* when = as<When>(clause))
    return !touchesBoard(when->then) && !touchesBoard(when->otherwise);
  return textParts(clause) != nullptr || as<AddTo>(clause) != nullptr ||
         as<RemoveFrom>(clause) != nullptr || as<Again>(clause) != nullptr ||
         as<SetVariable>(clause) != nullptr || as<SetCellNumber>(clause) != nullptr ||
         as<SetRemembered>(clause) != nullptr || as<SetMark>(clause) != nullptr;
}

namespace {

void noteSet(const Clauses& list, MovePlan& plan) {
  eachClause(list, [&](const Clause& one) {
    if (const SetName* set = as<SetName>(one)) plan.assigned.insert(set->name);
    if (const SetRemembered* set = as<SetRemembered>(one)) plan.remembered.insert(set->cell);
    plan.sets = plan.sets || as<SetName>(one) != nullptr || as<SetVariable>(one) != nullptr ||
                as<SetCellNumber>(one) != nullptr || as<SetRemembered>(one) != nullptr ||
                as<SetMark>(one) != nullptr;
  });
}

// Is it known before the first effect that the hand holds what the move puts? So it is for one
// piece of a kind that is named, or that is chosen in the head, if nothing can go wrong before it
// is put.
bool handSettled(const MovePlan& plan) {
  auto fromHand = [](auto&& self, const Clause& one) -> int {
    const Put* put = as<Put>(one);
    int total = put != nullptr && put->fromHand ? 1 : 0;
    for (const Clauses* list : inner(one))
      for (const Clause& deeper : *list) total += self(self, deeper);
    return total;
  };
  int total = 0;
  const Put* found = nullptr;
  bool mayFail = false;
  for (const Clause* one : plan.all) {
    int here = fromHand(fromHand, *one);
    if (here > 0 && mayFail) return false;
    total += here;
    const Put* put = as<Put>(*one);
    if (put != nullptr && put->fromHand) found = put;
    mayFail = mayFail || put != nullptr || as<Shift>(*one) != nullptr ||
              as<ShiftAll>(*one) != nullptr || as<Flip>(*one) != nullptr ||
              as<Change>(*one) != nullptr || holdsClauses(*one);
  }
  if (total == 0) return true;
  if (total > 1 || found == nullptr) return false;
  if (as<Kind>(*found->kind) != nullptr) return true;
  NameId name = nameIn(*found->kind);
  return plan.assigned.count(name) == 0 &&
         std::any_of(plan.head.begin(), plan.head.end(), [&](const Clause* one) {
           bool kind = as<ChooseKind>(*one) != nullptr || as<ChooseFromHand>(*one) != nullptr;
           return kind && madeName(*one) == name;
         });
}

MovePlan shapeOf(const Rules& rules, int index) {
  MovePlan plan;
  const MoveRule& move = rules.moves[index];
  for (const AfterRule& after : rules.afters)
    if (after.moves.empty() ||
        std::find(after.moves.begin(), after.moves.end(), index) != after.moves.end())
      plan.afters.push_back(&after);
  auto note = [&](const Clause& one) {
    plan.latePicks =
        plan.latePicks || isChoice(one) || as<Repeat>(one) != nullptr || holdsChoices(one);
    plan.lateNeeds = plan.lateNeeds || as<Need>(one) != nullptr;
  };
  bool head = true;
  for (const Clause& one : move.body) {
    plan.all.push_back(&one);
    if (const Maximise* maximise = as<Maximise>(one)) plan.maximise = maximise;
    const PickCell* pick = as<PickCell>(one);
    head = head && !isEffect(one) && !(pick != nullptr && pick->ifAny);
    if (head)
      plan.head.push_back(&one);
    else
      note(one);
  }
  for (const AfterRule* after : plan.afters) {
    for (const Clause& one : after->body) {
      plan.all.push_back(&one);
      note(one);
    }
    noteSet(after->body, plan);
  }
  noteSet(move.body, plan);
  plan.handSettled = handSettled(plan);
  plan.lateNeeds = plan.lateNeeds || !plan.handSettled;
  return plan;
}

// Does it read anything but what stands on the board and names of the move?
bool readsState(const Rules& rules, const Term& term) {
  return anyInside(term, [&](const Term& part) {
    const IsSide* is = as<IsSide>(part);
    const Use* use = as<Use>(part);
    bool state = as<Was>(part) != nullptr || as<Hand>(part) != nullptr ||
                 as<HandOf>(part) != nullptr || as<MovesOf>(part) != nullptr ||
                 as<Touched>(part) != nullptr || as<Plies>(part) != nullptr ||
                 as<Passes>(part) != nullptr || as<TimesSeen>(part) != nullptr ||
                 as<Mark>(part) != nullptr || as<Variable>(part) != nullptr ||
                 as<CellNumber>(part) != nullptr || as<Remembered>(part) != nullptr ||
                 (is != nullptr && is->role == Role::next);
    if (state || (use != nullptr && readsState(rules, *use->body))) return true;
    // What a piece reaches may depend on more than what stands where.
    bool reach = as<ReachOf>(part) != nullptr || as<SideReach>(part) != nullptr;
    return reach && std::any_of(rules.kinds.begin(), rules.kinds.end(), [&](const PieceKind& one) {
             return one.reach && readsState(rules, *one.reach);
           });
  });
}

bool readsState(const Rules& rules, const Clause& clause) {
  const Put* put = as<Put>(clause);
  if ((put != nullptr && put->fromHand) || as<ChooseFromHand>(clause) != nullptr) return true;
  bool found = false;
  eachTerm(clause, [&](const Term& term) { found = found || readsState(rules, term); });
  for (const Clauses* list : inner(clause))
    for (const Clause& one : *list) found = found || readsState(rules, one);
  return found;
}

// Trials leave out what no check reads, if none reads what it would change.
bool mayPrune(const Rules& rules, const std::vector<MovePlan>& moves) {
  for (const ForbidRule& forbid : rules.forbids)
    if (readsState(rules, *forbid.condition)) return false;
  for (const MovePlan& plan : moves) {
    if (plan.maximise != nullptr && readsState(rules, *plan.maximise->value)) return false;
    for (const Clause* one : plan.all)
      if (!plan.inHead(*one) && !isDropped(*one) && readsState(rules, *one)) return false;
  }
  return true;
}

void classify(const Rules& rules, int index, MovePlan& plan) {
  auto lineOf = [&](auto&& test) {
    for (const Clause* one : plan.all)
      if (test(*one)) return one->span.line;
    return rules.moves[index].span.line;
  };
  auto isNeed = [](const Clause& one) { return as<Need>(one) != nullptr; };
  if (plan.latePicks) {
    plan.moveClass = MoveClass::walked;
    plan.classLine = lineOf([&](const Clause& one) {
      return !plan.inHead(one) &&
             (isChoice(one) || as<Repeat>(one) != nullptr || holdsChoices(one));
    });
  } else if (plan.lateNeeds || plan.maximise != nullptr || !rules.forbids.empty()) {
    plan.moveClass = MoveClass::tested;
    plan.classLine = lineOf([&](const Clause& one) {
      return (!plan.inHead(one) && isNeed(one)) || as<Maximise>(one) != nullptr;
    });
    if (!plan.lateNeeds && plan.maximise == nullptr)
      plan.classLine = rules.forbids.front().span.line;
  } else {
    bool needBehindPick = false, picked = false;
    int choices = 0;
    for (const Clause* one : plan.head) {
      needBehindPick = needBehindPick || (picked && isNeed(*one));
      picked = picked || isChoice(*one);
      choices += isChoice(*one) ? 1 : 0;
    }
    bool mask = choices == 1 && !needBehindPick;
    plan.moveClass = mask ? MoveClass::mask : MoveClass::flat;
    plan.classLine = lineOf(
        [&](const Clause& one) { return !mask && needBehindPick ? isNeed(one) : isChoice(one); });
  }
}

}  // namespace

Plan planMoves(const Rules& rules, Shortcuts without) {
  Plan plan;
  int moves = static_cast<int>(rules.moves.size());
  for (int index = 0; index < moves; ++index) plan.moves.push_back(shapeOf(rules, index));
  plan.pruned = takes(without, Shortcut::pruned) && mayPrune(rules, plan.moves);
  if (plan.pruned) plan.guardedKinds = guardedKinds(rules, without);
  for (int index = 0; index < moves; ++index) {
    MovePlan& one = plan.moves[index];
    if (!plan.guardedKinds.empty()) foresee(rules, one);
    classify(rules, index, one);
    planHead(one, without);
    if (takes(without, Shortcut::distinct)) planRepeats(rules, one, rules.moves[index], without);
  }
  return plan;
}

}  // namespace ninepegs::sheet
