#include "ninepegs/sheet/mutation/mutations.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>
#include <tuple>

#include "ninepegs/sheet/mutation/parts.hpp"
#include "ninepegs/sheet/rules/printer.hpp"

namespace ninepegs::rules {
namespace {

bool maySee(Region region) {
  return region == Region::move || region == Region::after || region == Region::forbid ||
         region == Region::end;
}

// Without the brackets round all of it.
std::string bare(const std::string& text) {
  if (text.size() < 2 || text.front() != '(' || text.back() != ')') return text;
  int depth = 0;
  for (std::size_t i = 0; i + 1 < text.size(); ++i) {
    depth += text[i] == '(' ? 1 : text[i] == ')' ? -1 : 0;
    if (depth == 0) return text;
  }
  return text.substr(1, text.size() - 2);
}

// What is otherwise for one side alone: what it says for that side, and whose it is.
std::string ofOneSide(const Rules& rules, const Term& now) {
  const Term *condition = nullptr, *says = nullptr;
  if (const If* choice = as<If>(now)) {
    condition = choice->condition.get();
    says = choice->then.get();
  } else if (const Or* either = as<Or>(now)) {
    const And* both = as<And>(*either->left);
    if (both != nullptr) condition = both->left.get(), says = both->right.get();
  }
  const IsSide* side = condition == nullptr ? nullptr : as<IsSide>(*condition);
  if (side == nullptr) return bare(toText(rules, now));
  return fmt::format("{} for {}", bare(toText(rules, *says)), rules.sides[side->side]);
}

}  // namespace

void mutationsOfTerms(const Rules& rules, std::vector<Mutation>& out) {
  Rules draft = rules;  // gains directions
  std::vector<Seen> all;
  std::set<std::tuple<const Term*, int, std::vector<int>>> met;  // a term may stand in two places
  eachSpot(rules, [&](const Seen& seen) {
    if (met.insert({seen.spot.term, seen.spot.define, seen.spot.path}).second) all.push_back(seen);
  });
  for (const Seen& seen : all) {
    bool sided = maySee(seen.region) && seen.spot.define < 0;
    for (const Alternative& one : alternatives(draft, *seen.term, sided)) {
      TermPtr now = one.make(draft, seen.term);
      if (!now) continue;
      Mutation mutation;
      mutation.slip = one.slip;
      mutation.line = seen.line;
      mutation.was = bare(toText(draft, *seen.term));
      mutation.now = one.slip == Slip::oneSide ? ofOneSide(draft, *now) : bare(toText(draft, *now));
      if (mutation.was == mutation.now) continue;
      mutation.make = [spot = seen.spot, make = one.make, hold = seen.term](Rules& to) {
        exchange(to, spot, make);
      };
      out.push_back(std::move(mutation));
    }
  }
  // The directions that the changes speak of are places in a longer list.
  for (Mutation& mutation : out)
    mutation.make = [make = std::move(mutation.make), ways = draft.ways](Rules& to) {
      to.ways = ways;
      make(to);
    };
}

std::vector<Mutation> mutationsOf(const Rules& rules) {
  std::vector<Mutation> out;
  mutationsOfTerms(rules, out);
  mutationsOfClauses(rules, out);
  mutationsOfSections(rules, out);
  mutationsOfSetUp(rules, out);
  std::stable_sort(out.begin(), out.end(),
                   [](const Mutation& a, const Mutation& b) { return a.line < b.line; });
  return out;
}

Rules mutated(const Rules& rules, const Mutation& mutation) {
  Rules out = rules;
  mutation.make(out);
  return out;
}

std::string toText(const Mutation& mutation) {
  if (mutation.was.empty()) return fmt::format("`{}` too many", mutation.now);
  if (mutation.now.empty()) return fmt::format("without `{}`", mutation.was);
  return fmt::format("`{}` where it says `{}`", mutation.now, mutation.was);
}

}  // namespace ninepegs::rules
