// How the board is drawn: nothing here changes a rule.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/parts.hpp"
#include "ninepegs/sheet/rules/types.hpp"

namespace ninepegs::sheet {
namespace {

int placeIn(const std::vector<std::string>& words, const std::string& word) {
  auto found = std::find(words.begin(), words.end(), word);
  return found == words.end() ? -1 : static_cast<int>(found - words.begin());
}

}  // namespace

// The cells of a set that no position changes, the same for both sides.
std::optional<CellSet> Checker::fixedCells(const Expr& expr, TermPtr& term) {
  term = Types(draft_, Context::constant).want(expr, Type::set);
  if (!term) return std::nullopt;
  std::optional<CellSet> set = rules_.constantSet(*term, 0);
  if (!set)
    note(expr.span, "what is drawn so must not depend on pieces");
  else if (rules_.constantSet(*term, 1) != set)
    note(expr.span, "this set differs by side");
  else if (set->none())
    note(expr.span, "this set has no cells");
  else
    return set;
  return std::nullopt;
}

void Checker::look(const LookDecl& look, rules::PictureRule& rule) {
  auto chosen = [&](const std::vector<std::string>& words, const std::string& what) {
    int at = placeIn(words, look.look.text);
    if (at < 0)
      note(look.look.span, fmt::format("{} cannot be drawn as \"{}\"", what, look.look.text),
           didYouMean(look.look.text, words, "it can be: " + joined(words, ", ")));
    return at;
  };
  const Symbol* symbol = look.what.kind == ExprKind::name ? rules_.find(look.what.word) : nullptr;
  const std::string& name = look.what.word;
  if (symbol != nullptr && symbol->kind == SymbolKind::kind) {
    int at = chosen(pieceLooks, "a piece");
    rule.looks.pieces.resize(rules_.kinds.size());
    if (at >= 0)
      rule.looks.pieces[static_cast<std::size_t>(symbol->index)] = static_cast<PieceLook>(at);
  } else if (symbol != nullptr && symbol->kind == SymbolKind::mark) {
    int at = chosen(markLooks, "a mark");
    if (at >= 0 && !rule.looks.marks.emplace(name, static_cast<MarkLook>(at)).second)
      note(look.what.span, fmt::format("\"{}\" stands here a second time", name));
  } else if (symbol != nullptr && symbol->kind == SymbolKind::number &&
             rules_.numbers[static_cast<std::size_t>(symbol->index)].onCells) {
    if (chosen({"pips"}, "a number on cells") >= 0) rule.looks.pips.insert(name);
  } else {
    int at = chosen({"edges", "corners"}, "a set of cells");
    TermPtr term;
    std::optional<CellSet> cells = fixedCells(look.what, term);
    if (at < 0 || !cells) return;
    if (!squares()) note(look.what.span, "only a square board of one level has edges and corners");
    (at == 0 ? rule.edges : rule.corners).push_back(term);
    (at == 0 ? rule.looks.edges : rule.looks.corners) |= *cells;
  }
}

bool Checker::squares() const {
  return tree_.board.kind == Shape::square && tree_.board.levels <= 1;
}

void Checker::picture() {
  if (!tree_.picture) return;
  rules::PictureRule rule;
  for (const Expr& border : tree_.picture->borders) {
    TermPtr term;
    std::optional<CellSet> cells = fixedCells(border, term);
    if (!cells) continue;
    if (!squares()) note(border.span, "a border is drawn on a square board of one level only");
    rule.borders.push_back(term);
    rule.looks.borders.push_back(*cells);
  }
  for (const LookDecl& one : tree_.picture->looks) look(one, rule);
  if ((rule.looks.edges & rule.looks.corners).any())
    note(tree_.picture->span, "a cell cannot be an edge and a corner");
  if (rule.looks.edges.any() && rule.looks.corners.none())
    note(tree_.picture->span, "edges lie between corners, and none are named",
         "say which cells are drawn as corners, too");
  rules_.picture = std::move(rule);
}

}  // namespace ninepegs::sheet
