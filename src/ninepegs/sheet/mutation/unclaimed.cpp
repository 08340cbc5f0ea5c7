#include "ninepegs/sheet/mutation/unclaimed.hpp"

#include <vector>

#include "ninepegs/sheet/mutation/rewrite.hpp"

namespace ninepegs::rules {
namespace {

// Takes away every `set` of that number; were there any?
bool withoutSetting(Clauses& list, int number) {
  bool any = std::erase_if(list, [&](const Clause& one) {
               const SetVariable* set = as<SetVariable>(one);
               return set != nullptr && set->number == number;
             }) > 0;
  for (Clause& one : list) {
    if (When* when = std::get_if<When>(&one.form)) {
      any = withoutSetting(when->then, number) || any;
      any = withoutSetting(when->otherwise, number) || any;
    }
    if (Repeat* repeat = std::get_if<Repeat>(&one.form))
      any = withoutSetting(repeat->body, number) || any;
  }
  return any;
}

bool reads(const Term& term, int number) {
  return anyInside(term, [&](const Term& one) {
    if (const Variable* variable = as<Variable>(one)) return variable->number == number;
    const Use* use = as<Use>(one);
    return use != nullptr && reads(*use->body, number);
  });
}

bool reads(const Clauses& list, int number) {
  return anyClause(list, [&](const Clause& one) {
    bool found = false;
    eachTerm(one, [&](const Term& term) { found = found || reads(term, number); });
    return found;
  });
}

// Does anything read that number? Requires that it is never set.
bool isRead(const Rules& rules, int number) {
  bool found = false;
  eachSpot(rules, [&](const Seen& seen) {
    const Variable* variable = as<Variable>(*seen.term);
    found = found || (variable != nullptr && variable->number == number);
  });
  // ... and texts, where there are no such places.
  for (const MoveRule& move : rules.moves) found = found || reads(move.body, number);
  for (const AfterRule& after : rules.afters) found = found || reads(after.body, number);
  if (rules.repetition && rules.timesDecide)
    for (const Compared& one : rules.repetition->compares)
      found = found || (one.what == Compared::What::number && one.index == number);
  return found;
}

}  // namespace

Unclaimed unclaimed(const Rules& rules) {
  Unclaimed out{rules, {}, {}};
  Rules& kept = out.rules;
  kept.worth = nullptr;
  kept.always.clear();
  kept.cases.clear();
  for (const EndRule& end : kept.ends)
    if (end.claim) out.ends.push_back(end.name);
  std::erase_if(kept.ends, [](const EndRule& end) { return end.claim; });
  kept.readsTimes = kept.timesDecide;
  for (std::size_t i = 0; i < kept.numbers.size(); ++i) {
    auto number = static_cast<int>(i);
    Rules without = kept;
    bool any = false;
    for (MoveRule& move : without.moves) any = withoutSetting(move.body, number) || any;
    for (AfterRule& after : without.afters) any = withoutSetting(after.body, number) || any;
    if (!any || isRead(without, number)) continue;
    kept = std::move(without);
    out.numbers.push_back(kept.numbers[i].name);
  }
  return out;
}

}  // namespace ninepegs::rules
