// Can two ways of a move come to the same? Where they cannot, nobody needs to compare them.
#include <algorithm>
#include <map>
#include <string>

#include "ninepegs/sheet/plan/plan.hpp"

namespace ninepegs::sheet {

using namespace rules;

namespace {

using ClauseList = std::vector<const Clause*>;

ClauseList pointers(const Clauses& list) {
  ClauseList out;
  for (const Clause& one : list) out.push_back(&one);
  return out;
}

// False if two picks have one name.
bool collectPicks(const ClauseList& list, std::set<NameId>& out) {
  bool once = true;
  for (const Clause* one : list) {
    if (isChoice(*one)) once = out.insert(madeName(*one)).second && once;
    for (const Clauses* deeper : inner(*one)) once = collectPicks(pointers(*deeper), out) && once;
  }
  return once;
}

bool writes(const Clause& one) {
  return as<Write>(one) != nullptr || as<WrittenAs>(one) != nullptr;
}

// A name that a text shows as it is, not its row or column.
NameId shownName(const TextPart& part) {
  const Shown* value = std::get_if<Shown>(&part);
  const Name* name = value == nullptr ? nullptr : as<Name>(*value->value);
  return name == nullptr ? -1 : name->name;
}

void collectWritten(const ClauseList& list, std::set<NameId>& out, bool& any) {
  for (const Clause* one : list) {
    if (writes(*one)) {
      any = true;
      for (const TextPart& part : *textParts(*one))
        if (NameId name = shownName(part); name >= 0) out.insert(name);
    }
    for (const Clauses* deeper : inner(*one)) collectWritten(pointers(*deeper), out, any);
  }
}

// A part of a text: a quoted one, or what a name stands for.
struct Part {
  enum class Sort { quoted, cell, line, number, kind, other } sort = Sort::other;
  std::string text;  // of a quoted one
};
// Parts that are written one behind the other, and the `repeat` around them.
struct Stretch {
  std::vector<Part> parts;
  const Clause* round = nullptr;
};

class Stretches {
 public:
  explicit Stretches(const ClauseList& list) { names(list); }

  std::vector<Stretch> all;

  void add(const ClauseList& list, const Clause* round) {
    for (const Clause* one : list) {
      if (writes(*one)) {
        all.push_back({{}, round});
        for (const TextPart& part : *textParts(*one)) all.back().parts.push_back(partOf(part));
      }
      const Clause* around = round == nullptr && as<Repeat>(*one) != nullptr ? one : round;
      for (const Clauses* deeper : inner(*one)) add(pointers(*deeper), around);
    }
  }

  // Without a text of its own, a move is what was picked, joined by dashes.
  void addPicks(const ClauseList& list) {
    for (const Clause* one : list) {
      if (isChoice(*one)) {
        if (all.empty()) all.emplace_back();
        if (!all.back().parts.empty()) all.back().parts.push_back({Part::Sort::quoted, "-"});
        all.back().parts.push_back({sorts_[madeName(*one)], ""});
      }
      for (const Clauses* deeper : inner(*one)) addPicks(pointers(*deeper));
    }
  }

 private:
  void names(const ClauseList& list) {
    for (const Clause* one : list) {
      if (isChoice(*one))
        sorts_[madeName(*one)] = as<PickLine>(*one) != nullptr       ? Part::Sort::line
                                 : as<PickCell>(*one) != nullptr     ? Part::Sort::cell
                                 : as<ChooseNumber>(*one) != nullptr ? Part::Sort::number
                                                                     : Part::Sort::kind;
      for (const Clauses* deeper : inner(*one)) names(pointers(*deeper));
    }
  }
  Part partOf(const TextPart& part) {
    if (const Quoted* quoted = std::get_if<Quoted>(&part))
      return {Part::Sort::quoted, quoted->text};
    if (auto it = sorts_.find(shownName(part)); it != sorts_.end()) return {it->second, ""};
    const Shown* value = std::get_if<Shown>(&part);
    bool number = std::holds_alternative<RowOf>(part) ||
                  (value != nullptr && value->value->type == Type::number);
    return {number ? Part::Sort::number : Part::Sort::other, ""};
  }

  std::map<NameId, Part::Sort> sorts_;
};

// Written one behind the other, two parts may read like two others: 11 and 3 like 1 and 13. So they
// do not if it can be told where each ends.
bool endsBefore(const Rules& rules, const Part& part, const Part& next) {
  bool text = next.sort == Part::Sort::quoted;
  if (text && next.text.empty()) return false;
  char first = text ? next.text.front() : 'a';
  bool digit = first >= '0' && first <= '9';
  bool letter = (first >= 'a' && first <= 'z') || (first >= 'A' && first <= 'Z');
  bool dashes = std::any_of(rules.kinds.begin(), rules.kinds.end(), [](const PieceKind& piece) {
    return piece.name.find('-') != std::string::npos;
  });
  switch (part.sort) {
    case Part::Sort::quoted:
      return true;
    case Part::Sort::cell:  // a label ends in a digit, and begins with a letter
      return text ? !digit && first != '.'
                  : !rules.boardRule.numbered && next.sort == Part::Sort::cell;
    case Part::Sort::number:
      return text && !digit;
    case Part::Sort::line:  // one label, or two with a dash between them
      return text && !digit && first != '.' && first != '-';
    case Part::Sort::kind:
      return text && !digit && !letter && first != '_' && !(first == '-' && dashes) &&
             static_cast<unsigned char>(first) < 0x80;
    case Part::Sort::other:
      return false;
  }
  return false;
}

bool textsRunTogether(const Rules& rules, const MovePlan& plan, const MoveRule& move) {
  Stretches texts(plan.all);
  texts.add(plan.all, nullptr);
  if (texts.all.empty()) texts.addPicks(pointers(move.body));
  for (std::size_t i = 0; i < texts.all.size(); ++i) {
    const std::vector<Part>& parts = texts.all[i].parts;
    for (std::size_t k = 0; k + 1 < parts.size(); ++k)
      if (!endsBefore(rules, parts[k], parts[k + 1])) return true;
    // What may be written next: any that stands below, and in a repeat all of its own.
    for (std::size_t k = 0; k < texts.all.size(); ++k) {
      bool again = texts.all[i].round != nullptr && texts.all[i].round == texts.all[k].round;
      if ((k > i || again) && !parts.empty() && !texts.all[k].parts.empty() &&
          !endsBefore(rules, parts.back(), texts.all[k].parts.front()))
        return true;
    }
  }
  return false;
}

// Names that are written whenever they are made: in their block, or in one around it.
void surelyWritten(const ClauseList& list, std::set<NameId> around, std::set<NameId>& shown) {
  bool any = false;
  for (const Clause* one : list)
    if (as<Write>(*one) != nullptr) collectWritten({one}, around, any);
  for (const Clause* one : list) {
    if (isChoice(*one) && around.count(madeName(*one)) > 0) shown.insert(madeName(*one));
    for (const Clauses* deeper : inner(*one)) surelyWritten(pointers(*deeper), around, shown);
  }
}

// Is there a `repeat` whose rounds are not told apart by what they write?
bool roundsRunTogether(const ClauseList& list) {
  return std::any_of(list.begin(), list.end(), [&](const Clause* one) {
    if (const Repeat* repeat = as<Repeat>(*one)) {
      std::set<NameId> made, here;
      bool any = repeat->rounds == Rounds::times;  // else each round is told by what it writes
      collectPicks(pointers(repeat->body), made);
      for (const Clause& line : repeat->body)  // in every round, so not inside a `when`
        if (as<Write>(line) != nullptr) collectWritten({&line}, here, any);
      if (!any || !std::includes(here.begin(), here.end(), made.begin(), made.end())) return true;
    }
    for (const Clauses* deeper : inner(*one))
      if (roundsRunTogether(pointers(*deeper))) return true;
    return false;
  });
}

// Which choices of the head these are; empty if not all of them are made there.
std::vector<int> inHead(const MovePlan& plan, const std::set<NameId>& picks) {
  std::vector<int> out;
  int choice = 0;
  for (const Clause* one : plan.head) {
    if (!isChoice(*one)) continue;
    if (picks.count(madeName(*one)) > 0) out.push_back(choice);
    ++choice;
  }
  if (out.size() != picks.size()) out.clear();
  return out;
}

// Is there no effect on the board but this name's piece that is put on it?
bool putsOnly(const MovePlan& plan, NameId pick) {
  const Put* found = nullptr;
  for (const Clause* one : plan.all) {
    const Put* put = as<Put>(*one);
    if (put != nullptr && found == nullptr && nameIn(*put->where) == pick) {
      found = put;
      continue;
    }
    if (put != nullptr || as<Shift>(*one) != nullptr || as<ShiftAll>(*one) != nullptr ||
        as<Take>(*one) != nullptr || as<Flip>(*one) != nullptr || as<Change>(*one) != nullptr ||
        holdsClauses(*one))
      return false;
  }
  return found != nullptr && plan.assigned.count(pick) == 0;
}

}  // namespace

// Two ways differ if every choice is written in their texts, or all but one, on whose cell the only
// effect on the board puts a piece; or if they agree in all that is not written. What is picked in
// a `repeat` must be written in each round.
void planRepeats(const Rules& rules, MovePlan& plan, const MoveRule& move, Shortcuts without) {
  plan.mayRepeat = true;
  plan.unwritten.clear();
  std::set<NameId> picks, shown;
  bool own = false;
  if (!collectPicks(plan.all, picks)) return;  // a text shows one of them
  // The whole text, or without one the move's own picks, shows a pick wherever it was made; what is
  // written shows it if it is written whenever it was made.
  for (const Clause& one : move.body)
    if (as<WrittenAs>(one) != nullptr) collectWritten({&one}, shown, own);
  std::set<NameId> texts;
  own = false;
  collectWritten(plan.all, texts, own);  // in `after`, too
  if (!own) collectPicks(pointers(move.body), shown);
  surelyWritten(plan.all, {}, shown);
  if (roundsRunTogether(plan.all)) return;
  // A line is written by its ends, which others may have, too, where lines can bend.
  bool straight = takes(without, Shortcut::rays) && runsStraight(rules.board) &&
                  rules.boardRule.kind != Shape::points;
  if (!straight)
    for (const Clause* top : plan.all) {
      auto bent = [&](const Clause& one) {
        if (const PickLine* line = as<PickLine>(one)) shown.erase(line->name);
      };
      bent(*top);
      for (const Clauses* deeper : inner(*top)) eachClause(*deeper, bent);
    }
  // A part that was changed on the way no longer tells what was picked.
  std::erase_if(
      picks, [&](NameId pick) { return shown.count(pick) > 0 && plan.assigned.count(pick) == 0; });
  if (textsRunTogether(rules, plan, move)) return;
  plan.mayRepeat = !picks.empty() && !(picks.size() == 1 && putsOnly(plan, *picks.begin()));
  if (plan.mayRepeat) plan.unwritten = inHead(plan, picks);
}

}  // namespace ninepegs::sheet
