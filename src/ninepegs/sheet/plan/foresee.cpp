// Attacks that can be foreseen: what a move uncovers is seen before it is made.
#include <algorithm>

#include "ninepegs/sheet/plan/plan.hpp"

namespace ninepegs::sheet {

using namespace rules;

// One forbidden attack on pieces of some kinds can be foreseen.
std::vector<int> guardedKinds(const Rules& rules, Shortcuts without) {
  if (rules.forbids.size() != 1 || !takes(without, Shortcut::foreseen)) return {};
  const Any* any = as<Any>(*rules.forbids[0].condition);
  std::optional<Attack> attack;
  if (any != nullptr) attack = attackOf(*any->what, 0);
  if (!attack || attack->attacker == 0 || attack->targets.size() != 1) return {};
  const Pieces* guarded = as<Pieces>(*attack->targets[0]);
  if (guarded == nullptr || guarded->whose != Whose::mine) return {};
  // Round joined edges a piece may attack its own cell, and one cell along two lines.
  if (rules.layered() || !takes(without, Shortcut::rays) || !runsStraight(rules.board)) return {};
  std::vector<Slides> slides;
  if (!slidesOf(rules, 0, slides) || !slidesOf(rules, 1, slides)) return {};
  return rules.kindsOf(guarded->noun);
}

// Recognises: take there, shift here to there, and perhaps a further choice on some cells.
void foresee(const Rules& rules, MovePlan& plan) {
  std::vector<NameId> picks;
  const Clause* last = nullptr;
  for (const Clause* one : plan.head) {
    if (!isChoice(*one)) continue;
    bool cell = as<PickCell>(*one) != nullptr;
    picks.push_back(cell || as<PickLine>(*one) != nullptr ? madeName(*one) : -1);
    last = one;
  }
  if (picks.size() < 2) return;
  // A piece goes to another cell than its own, and nothing can go wrong on the way: what goes wrong
  // is legal, attacked or not.
  const PickCell* lastPick = as<PickCell>(*last);
  if (lastPick == nullptr || !noneOfMine(*lastPick->from)) return;
  NameId from = -1, to = picks.back();
  const Term* choiceOn = nullptr;
  bool free = onlyEmpty(*lastPick->from);
  for (const Clause* one : plan.all) {
    if (as<Maximise>(*one) != nullptr) return;
    if (plan.inHead(*one) || as<Let>(*one) != nullptr || isDropped(*one)) continue;
    if (!isEffect(*one)) return;  // what decides behind an effect is settled on trial
    const Take* take = as<Take>(*one);
    if (take != nullptr && from < 0 && nameIn(*take->where) == to) {
      free = true;
      continue;
    }
    const Shift* shift = as<Shift>(*one);
    if (shift != nullptr && from < 0 && free && nameIn(*shift->to) == to &&
        nameIn(*shift->from) >= 0 &&
        std::find(picks.begin(), picks.end() - 1, nameIn(*shift->from)) != picks.end() - 1) {
      from = nameIn(*shift->from);
      continue;
    }
    // when there in CELLS: choose a kind, change there into it
    const When* when = as<When>(*one);
    const Inside* test =
        when != nullptr && when->otherwise.empty() ? as<Inside>(*when->condition) : nullptr;
    bool fits = test != nullptr && choiceOn == nullptr && from >= 0 && nameIn(*test->cell) == to &&
                rules.constantSet(*test->in, 0).has_value();
    for (std::size_t i = 0; fits && i < when->then.size(); ++i) {
      const Change* change = as<Change>(when->then[i]);
      fits = as<ChooseKind>(when->then[i]) != nullptr ||
             (change != nullptr && nameIn(*change->where) == to);
    }
    if (!fits) return;
    choiceOn = test->in.get();
  }
  if (from < 0) return;
  for (const Clause* one : plan.head) {
    if (madeName(*one) != from) continue;
    const PickCell* pick = as<PickCell>(*one);
    if (pick == nullptr || knownOf(rules, *pick->from, 0).owner != 0) return;
  }
  plan.from = from;
  plan.choiceOn = choiceOn;
}

}  // namespace ninepegs::sheet
