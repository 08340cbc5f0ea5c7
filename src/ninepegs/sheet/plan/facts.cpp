#include "ninepegs/sheet/plan/facts.hpp"

#include <algorithm>
#include <map>

namespace ninepegs::sheet {

using rules::as;
using rules::Whose;

NameId nameIn(const Term& term) {
  if (const rules::Name* name = as<rules::Name>(term)) return name->name;
  if (const rules::CellAsSet* one = as<rules::CellAsSet>(term)) return nameIn(*one->cell);
  return -1;
}

bool mentions(const Term& term, NameId name) {
  return rules::anyInside(term, [&](const Term& part) {
    const rules::Name* one = as<rules::Name>(part);
    return one != nullptr && one->name == name;
  });
}

bool reads(const rules::Clause& clause, NameId name) {
  bool found = false;
  rules::eachTerm(clause, [&](const Term& term) { found = found || mentions(term, name); });
  for (const rules::Clauses* list : rules::inner(clause))
    for (const rules::Clause& one : *list) found = found || reads(one, name);
  return found;
}

// What a side named outright has is not followed up.
Known knownOf(const rules::Rules& rules, const Term& term, int side) {
  auto owner = [&](Whose whose) {
    return whose == Whose::mine || whose == Whose::theirs ? sideOf(whose, side) : -1;
  };
  if (const rules::Side* pieces = as<rules::Side>(term)) return {owner(pieces->whose), {}};
  if (const rules::Pieces* pieces = as<rules::Pieces>(term)) {
    bool named = pieces->whose == Whose::first || pieces->whose == Whose::second;
    return {owner(pieces->whose), named ? std::vector<int>{} : rules.kindsOf(pieces->noun)};
  }
  if (const rules::Both* both = as<rules::Both>(term)) {
    Known a = knownOf(rules, *both->left, side), b = knownOf(rules, *both->right, side);
    return {a.owner >= 0 ? a.owner : b.owner, a.kinds.empty() ? b.kinds : a.kinds};
  }
  if (const rules::Except* except = as<rules::Except>(term))
    return knownOf(rules, *except->left, side);
  return {};
}

namespace {

// Is every cell of the set one of which `test` is true? Only where its form shows it.
template <class Test>
bool allOf(const Term& term, const Test& test) {
  if (test(term)) return true;
  if (const rules::Both* both = as<rules::Both>(term))
    return allOf(*both->left, test) || allOf(*both->right, test);
  if (const rules::Either* either = as<rules::Either>(term))
    return allOf(*either->left, test) && allOf(*either->right, test);
  if (const rules::Except* except = as<rules::Except>(term)) return allOf(*except->left, test);
  return false;
}

}  // namespace

bool onlyEmpty(const Term& set) {
  return allOf(set, [](const Term& term) { return as<rules::Empty>(term) != nullptr; });
}

bool noneOfMine(const Term& set) {
  return allOf(set, [](const Term& term) {
    const rules::Side* side = as<rules::Side>(term);
    const rules::Pieces* pieces = as<rules::Pieces>(term);
    const rules::Except* except = as<rules::Except>(term);
    const rules::Side* without = except == nullptr ? nullptr : as<rules::Side>(*except->right);
    return as<rules::Empty>(term) != nullptr || (side != nullptr && side->whose == Whose::theirs) ||
           (pieces != nullptr && pieces->whose == Whose::theirs) ||
           (without != nullptr && without->whose == Whose::mine);
  });
}

bool isPlainReach(const Term& term) {
  if (const rules::Either* joint = as<rules::Either>(term))
    return isPlainReach(*joint->left) && isPlainReach(*joint->right);
  if (const rules::Step* step = as<rules::Step>(term)) return !step->from;
  if (const rules::Leap* leap = as<rules::Leap>(term)) return !leap->from;
  const rules::Slide* slide = as<rules::Slide>(term);
  return slide != nullptr && !slide->from && !slide->through;
}

std::optional<Attack> attackOf(const Term& term, int side) {
  Attack out;
  int reaches = 0;
  std::vector<const Term*> open = {&term};
  while (!open.empty()) {
    const Term& one = *open.back();
    open.pop_back();
    const rules::SideReach* reach = as<rules::SideReach>(one);
    if (const rules::Both* both = as<rules::Both>(one)) {
      open.push_back(both->left.get());
      open.push_back(both->right.get());
    } else if (reach != nullptr && (reach->whose == Whose::mine || reach->whose == Whose::theirs)) {
      ++reaches;
      out.attacker = sideOf(reach->whose, side);
    } else {
      out.targets.push_back(&one);
    }
  }
  if (reaches != 1 || out.targets.empty()) return std::nullopt;
  return out;
}

bool slidesOf(const rules::Rules& rules, int side, std::vector<Slides>& slides) {
  std::map<int, std::vector<int>> kindsAlong;  // by direction
  for (std::size_t kind = 0; kind < rules.kinds.size(); ++kind) {
    const rules::TermPtr& reach = rules.kinds[kind].reach;
    if (!reach) continue;
    if (!isPlainReach(*reach)) return false;
    std::vector<const Term*> all;
    rules::partsOf<rules::Either>(*reach, all);
    for (const Term* part : all)
      if (const rules::Slide* slide = as<rules::Slide>(*part))
        for (int direction : rules.ways[slide->ways].directions[side])
          kindsAlong[direction].push_back(static_cast<int>(kind));
  }
  for (const auto& [direction, kinds] : kindsAlong) {
    auto it = std::find_if(slides.begin(), slides.end(),
                           [&all = kinds](const Slides& one) { return one.kinds == all; });
    if (it == slides.end()) it = slides.insert(slides.end(), {{}, kinds});
    it->directions.push_back(direction);
  }
  return true;
}

std::vector<int> reversed(const Geometry& board, std::vector<int> directions) {
  for (int& direction : directions) direction = board.opposite(direction);
  return directions;
}

bool runsStraight(const Geometry& board) {
  for (const Direction& direction : board.directions()) {
    int up = 0, down = 0;
    for (Cell cell = 0; cell < board.size(); ++cell)
      if (direction.next[cell] >= 0) ++(direction.next[cell] > cell ? up : down);
    if (up > 0 && down > 0) return false;
  }
  return true;
}

}  // namespace ninepegs::sheet
