#include "ninepegs/sheet/mutation/unclaimed.hpp"

#include <algorithm>

#include "ninepegs/sheet/mutation/rewrite.hpp"

namespace ninepegs::rules {
namespace {

const SetVariable* setOf(const Clause& clause, int number) {
  const SetVariable* set = std::get_if<SetVariable>(&clause.form);
  return set != nullptr && set->number == number ? set : nullptr;
}

// Takes away every `set` of that number; were there any?
bool withoutSetting(Clauses& list, int number) {
  std::size_t before = list.size();
  list.erase(std::remove_if(list.begin(), list.end(),
                            [&](const Clause& one) { return setOf(one, number) != nullptr; }),
             list.end());
  bool any = list.size() < before;
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

bool reads(const TermPtr& term, int number);

bool readsWithin(const Term& term, int number) {
  if (const Variable* variable = as<Variable>(term)) return variable->number == number;
  if (const Use* use = as<Use>(term)) return reads(use->body, number);
  bool found = false;
  std::visit(
      [&](const auto& form) {
        if constexpr (requires { form.parts([](const TermPtr&) {}); })
          form.parts([&](const TermPtr& part) { found = found || reads(part, number); });
      },
      term.form);
  return found;
}

bool reads(const TermPtr& term, int number) {
  return term && readsWithin(*term, number);
}

bool textReads(const Clauses& list, int number) {
  for (const Clause& one : list) {
    bool found = false;
    std::visit(
        [&](const auto& form) {
          if constexpr (requires { form.parts; })
            for (const TextPart& part : form.parts)
              if (const Shown* shown = std::get_if<Shown>(&part))
                found = found || reads(shown->value, number);
        },
        one.form);
    if (found) return true;
    for (const Clauses* deeper : inner(one))
      if (textReads(*deeper, number)) return true;
  }
  return false;
}

// Does anything read that number, the values that it is set to aside?
bool isRead(const Rules& rules, int number) {
  bool found = false;
  eachSpot(rules, [&](const Seen& seen) {
    const Variable* variable = as<Variable>(*seen.term);
    found = found || (variable != nullptr && variable->number == number);
  });
  for (const MoveRule& move : rules.moves) found = found || textReads(move.body, number);
  for (const AfterRule& after : rules.afters) found = found || textReads(after.body, number);
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
  kept.ends.erase(std::remove_if(kept.ends.begin(), kept.ends.end(),
                                 [](const EndRule& end) { return end.claim; }),
                  kept.ends.end());
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
