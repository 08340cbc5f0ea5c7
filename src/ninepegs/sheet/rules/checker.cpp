#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <utility>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/parts.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {

void Checker::declare(const Name& name, SymbolKind kind, int index) {
  if (name.text.empty()) return;
  auto [it, added] = rules_.symbols.insert({name.text, {kind, index}});
  if (added) return;
  note(name.span,
       it->second.kind == SymbolKind::cell
           ? fmt::format("\"{}\" is the label of a cell and cannot be a name", name.text)
           : fmt::format("\"{}\" is declared a second time", name.text),
       "choose another name");
}

void Checker::declareAll() {
  for (int side = 0; side < 2; ++side) declare(tree_.sides[side], SymbolKind::side, side);
  auto all = [&](const auto& list, SymbolKind kind) {
    for (std::size_t i = 0; i < list.size(); ++i) declare(list[i].name, kind, static_cast<int>(i));
  };
  all(tree_.pieces, SymbolKind::kind);
  all(tree_.groups, SymbolKind::group);
  all(tree_.zones, SymbolKind::zone);
  all(tree_.marks, SymbolKind::mark);
  all(tree_.numbers, SymbolKind::number);
  all(tree_.cells, SymbolKind::remembered);
  all(tree_.tracks, SymbolKind::track);
  all(tree_.defines, SymbolKind::define);
  all(tree_.moves, SymbolKind::move);
  rules_.game = tree_.game.text;
  rules_.title = tree_.title;
  rules_.variant = tree_.variant;
  rules_.about = tree_.about;
  rules_.start = tree_.start;
  rules_.sides = {tree_.sides[0].text, tree_.sides[1].text};
  rules_.sidesSpan = tree_.sides[0].span;
  rules_.facingGiven = !tree_.facing.empty();
  for (const auto& [name, says] : tree_.variants) rules_.variants.emplace_back(name.text, says);
  for (const PieceDecl& one : tree_.pieces) {
    rules::PieceKind kind;
    kind.name = one.name.text;
    kind.span = one.name.span;
    kind.neutral = one.neutral;
    kind.secret = one.secret;
    rules_.kinds.push_back(std::move(kind));
  }
  for (const StateDecl& one : tree_.marks)
    rules_.marks.push_back({one.name.text, one.name.span, one.each});
  for (const StateDecl& one : tree_.numbers)
    rules_.numbers.push_back(
        {one.name.text, one.name.span, one.each, one.onCells, !one.start.empty(), {0, 0}});
  for (const StateDecl& one : tree_.cells)
    rules_.remembered.push_back({one.name.text, one.name.span, one.each, one.lastsOneMove});
  for (const DefineDecl& one : tree_.defines) {
    rules_.definitions.push_back({one.name.text, one.name.span, {}, nullptr});
    for (const Name& parameter : one.parameters)
      rules_.definitions.back().parameters.push_back(parameter.text);
  }
}

// The kind of that name; 0, with a message, if there is none.
int Checker::kindName(const Name& name) {
  if (int kind = rules_.kind(name.text); kind >= 0) return kind;
  std::vector<std::string> kinds;
  for (const PieceDecl& piece : tree_.pieces) kinds.push_back(piece.name.text);
  note(name.span, fmt::format("there is no kind of piece called \"{}\"", name.text),
       didYouMean(name.text, kinds,
                  kinds.empty() ? "declare it: piece " + name.text + " o x"
                                : "there are: " + joined(kinds, ", ")));
  return -1;
}

void Checker::groups() {
  for (const SetDecl& group : tree_.groups) {
    rules::Group rule{group.name.text, group.name.span, {}};
    std::set<std::string> members;
    for (const Name& member : group.members) {
      rule.kinds.push_back(kindName(member));
      if (!members.insert(member.text).second)
        note(member.span, fmt::format("\"{}\" stands twice in this group", member.text));
    }
    rules_.groups.push_back(std::move(rule));
  }
}

void Checker::zones() {
  for (const SetDecl& zone : tree_.zones) {
    auto rule = begunBySide<rules::ZoneRule>(zone.name, zone.sets);
    std::array<bool, 2> given = {false, false};
    for (const auto& [side, expr] : zone.sets) {
      if (side.has_value() != rule.bySide) {
        note(expr.span, "a zone is one set for all or one set for each side", "");
        continue;
      }
      int index = side ? rules_.side(side->text) : 0;
      if (index < 0) {
        note(side->span, fmt::format("\"{}\" is no side", side->text),
             didYouMean(side->text, {tree_.sides[0].text, tree_.sides[1].text}));
        continue;
      }
      TermPtr term = Types(draft_, Context::constant).want(expr, Type::set);
      if (!term) continue;
      std::optional<CellSet> set = rules_.constantSet(*term, index);
      // Which way is forward differs by side.
      if (set && !rule.bySide && rules_.constantSet(*term, 1) != set)
        note(expr.span, "this set differs by side",
             "say it for each: CELLS for " + tree_.sides[0].text + ", CELLS for " +
                 tree_.sides[1].text);
      else if (!set)
        note(expr.span, "a zone must not depend on pieces", "use `define` for that");
      else if (set->none())
        note(expr.span, "this set has no cells");
      else
        rule.cells[index] = *set, rule.says[index] = term, given[index] = true;
    }
    if (!rule.bySide)
      rule.cells[1] = rule.cells[0];
    else if (!given[0] || !given[1])
      note(zone.name.span,
           fmt::format("the zone \"{}\" is not given for both sides", zone.name.text));
    rules_.zones.push_back(std::move(rule));
  }
}

void Checker::turn() {
  if (!tree_.turn) return;
  std::vector<std::string> names = {"pass"};
  for (const MoveDecl& move : tree_.moves) names.push_back(move.name.text);
  std::set<std::string> used;
  rules::TurnRule rule;
  rule.span = tree_.turn->span;
  for (const auto& tier : tree_.turn->tiers) {
    rule.tiers.emplace_back();
    for (const Name& name : tier) {
      auto it = std::find(names.begin(), names.end(), name.text);
      if (it == names.end())
        note(name.span, fmt::format("there is no move \"{}\"", name.text),
             didYouMean(name.text, names, "there are: " + joined(names, ", ")));
      else if (!used.insert(name.text).second)
        note(name.span, fmt::format("\"{}\" stands twice in `turn`", name.text));
      rule.tiers.back().push_back(static_cast<int>(it - names.begin()) - 1);
    }
  }
  rules_.turn = std::move(rule);
  for (const MoveDecl& move : tree_.moves)
    if (used.count(move.name.text) == 0)
      note(move.name.span, fmt::format("the move \"{}\" is not named in `turn`", move.name.text),
           "with a `turn` section, only the moves it names can be made");
}

rules::Rules Checker::run() {
  if (!board()) return std::move(rules_);
  declareAll();
  facing();
  groups();
  zones();
  tracks();
  pieces();
  state();
  moves();
  turn();
  forbids();
  ends();
  repetition();
  views();
  notation();
  picture();
  rest();
  cases();
  return std::move(rules_);
}

rules::Rules check(const Tree& tree, std::shared_ptr<const Source> source,
                   std::vector<Diagnostic>& found) {
  Checker checker(tree, std::move(source), found);
  try {
    return checker.run();
  } catch (const TooManyMessages&) {
    return {};
  }
}

// Messages that only follow from others: a name is told once, and not where the line that would
// have made it has a message itself.
void dropFollowOns(std::vector<Diagnostic>& found) {
  static const std::string unknown = "nothing here is called \"";
  std::set<std::string> told, unmade;
  auto noteLine = [&](const std::string& line) {
    std::vector<std::string> words = splitTrimmed(line, ' ');
    std::erase(words, "");
    static const std::set<std::string> makers = {"let",    "pick",  "choose", "mark",
                                                 "number", "zone",  "cell",   "track",
                                                 "group",  "piece", "define", "set"};
    if (words.size() < 2 || makers.count(words[0]) == 0) return;
    unmade.insert(words[1].substr(0, words[1].find_first_of("(,")));
  };
  std::erase_if(found, [&](const Diagnostic& one) {
    bool drops = false;
    if (one.message.rfind(unknown, 0) == 0) {
      std::string name = one.message.substr(unknown.size());
      name = name.substr(0, name.rfind('"'));
      drops = unmade.count(name) > 0 || !told.insert(name).second;
    }
    noteLine(one.place.text);
    return drops;
  });
}

void addLikelySlips(const Tree& tree, const std::shared_ptr<const Source>& source,
                    std::vector<Diagnostic>& found) {
  bool whole =
      !tree.game.text.empty() && !tree.sides[1].text.empty() && !tree.moves.empty() &&
      (tree.board.columns > 0 && (tree.board.kind != Shape::points || !tree.board.lines.empty()));
  if (!whole || found.size() >= limits::diagnosticsKept) return;
  // What stands on a refused line may be what it would have declared.
  std::set<std::string> doubtful;
  auto doubt = [&](const Diagnostic& one) {
    std::string word;
    for (char c : one.place.text + " ") {
      bool inside =
          std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '-' || c == '_' || c < 0;
      if (inside) word += c;
      if (!inside && !word.empty()) doubtful.insert(std::exchange(word, {}));
    }
  };
  for (const Diagnostic& one : found) doubt(one);
  std::vector<Diagnostic> more;
  check(tree, source, more);
  for (const Diagnostic& one : more) {
    std::size_t from = one.message.find('"'), to = one.message.rfind('"');
    if (to == one.message.npos || to <= from + 1) continue;
    if (doubtful.count(one.message.substr(from + 1, to - from - 1)) > 0) {
      doubt(one);  // nor does what this line would have made
      continue;
    }
    if (one.hint.rfind("did you mean", 0) != 0) continue;
    if (found.size() + 1 >= limits::diagnosticsKept) return;
    addMessage(found, one);
  }
}

}  // namespace ninepegs::sheet
