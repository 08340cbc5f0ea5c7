// What a generator works out of a move's head.
#include "ninepegs/sheet/plan/plan.hpp"

namespace ninepegs::sheet {

using namespace rules;

namespace {

// `pick X in S`, with `need any R` where R is a run bracketed from X: the cells for which such a
// run is there come from the other end, all at once, and the need is settled.
std::optional<RunPick> runPick(const std::vector<const Clause*>& head, std::size_t pick) {
  NameId name = madeName(*head[pick]);
  for (std::size_t i = pick + 1; i < head.size() && !isChoice(*head[i]); ++i) {
    const Need* need = as<Need>(*head[i]);
    const Any* any = need == nullptr ? nullptr : as<Any>(*need->condition);
    if (any == nullptr) continue;
    const Term* tested = any->what.get();
    if (const Name* named = as<Name>(*tested))
      for (std::size_t k = pick + 1; k < i; ++k)
        if (const Let* let = as<Let>(*head[k]); let != nullptr && let->name == named->name)
          tested = let->value.get();
    const Bracketed* run = as<Bracketed>(*tested);
    if (run == nullptr) continue;
    bool fits = nameIn(*run->from) == name;
    for (std::size_t k = pick; k < head.size(); ++k)
      if (NameId made = madeName(*head[k]); made >= 0)
        fits = fits && !mentions(*run->run, made) && !mentions(*run->by, made);
    if (fits) return RunPick{pick, i, run};
  }
  return std::nullopt;
}

// The names given by `let` that are read, directly or through each other, by what decides.
std::set<NameId> neededLets(const MovePlan& plan) {
  std::set<NameId> needed;
  for (std::size_t k = plan.head.size(); k-- > 0;) {
    const Let* let = as<Let>(*plan.head[k]);
    if (let == nullptr) continue;
    for (std::size_t i = 0; i < plan.head.size(); ++i) {
      const Clause& other = *plan.head[i];
      if (i == k || plan.settled(i) || !reads(other, let->name)) continue;
      bool decides = isChoice(other) || as<Need>(other) != nullptr;
      if (const Let* later = as<Let>(other)) decides = needed.count(later->name) > 0;
      if (decides) needed.insert(let->name);
    }
  }
  return needed;
}

}  // namespace

void planHead(MovePlan& plan, Shortcuts without) {
  bool runs = takes(without, Shortcut::bracketed);
  for (std::size_t i = 0; runs && i < plan.head.size(); ++i)
    if (as<PickCell>(*plan.head[i]) != nullptr)
      if (std::optional<RunPick> run = runPick(plan.head, i)) plan.runs.push_back(*run);
  plan.lets = neededLets(plan);
  // Names that checks on trial read are worked out there.
  plan.last = plan.head.size();
  for (std::size_t i = 0; i < plan.head.size(); ++i)
    if ((isChoice(*plan.head[i]) || as<Need>(*plan.head[i]) != nullptr) && !plan.settled(i))
      plan.last = i;
}

}  // namespace ninepegs::sheet
