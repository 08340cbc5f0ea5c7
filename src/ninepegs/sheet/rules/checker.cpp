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
  auto [it, added] = out_.symbols.insert({name.text, {kind, index}});
  if (added) return;
  note(name.span,
       it->second.kind == SymbolKind::cell
           ? fmt::format("\"{}\" is the label of a cell and cannot be a name", name.text)
           : fmt::format("\"{}\" is declared a second time", name.text),
       "choose another name");
}

void Checker::declareAll() {
  Tree& tree = out_.tree;
  for (int side = 0; side < 2; ++side) declare(tree.sides[side], SymbolKind::side, side);
  auto all = [&](const auto& list, SymbolKind kind) {
    for (std::size_t i = 0; i < list.size(); ++i) declare(list[i].name, kind, static_cast<int>(i));
  };
  all(tree.pieces, SymbolKind::kind);
  all(tree.groups, SymbolKind::group);
  all(tree.zones, SymbolKind::zone);
  all(tree.marks, SymbolKind::mark);
  all(tree.numbers, SymbolKind::number);
  all(tree.cells, SymbolKind::remembered);
  all(tree.tracks, SymbolKind::track);
  all(tree.defines, SymbolKind::define);
  all(tree.moves, SymbolKind::move);
}

void Checker::kindName(const Name& name) {
  if (out_.kind(name.text) >= 0) return;
  std::vector<std::string> kinds;
  for (const PieceDecl& piece : out_.tree.pieces) kinds.push_back(piece.name.text);
  note(name.span, fmt::format("there is no kind of piece called \"{}\"", name.text),
       didYouMean(name.text, kinds,
                  kinds.empty() ? "declare it: piece " + name.text + " o x"
                                : "there are: " + joined(kinds, ", ")));
}

void Checker::groups() {
  for (SetDecl& group : out_.tree.groups) {
    std::set<std::string> members;
    for (const Name& member : group.members) {
      kindName(member);
      if (!members.insert(member.text).second)
        note(member.span, fmt::format("\"{}\" stands twice in this group", member.text));
    }
  }
}

void Checker::zones() {
  for (SetDecl& zone : out_.tree.zones) {
    std::array<CellSet, 2> cells;
    bool bySide = zone.sets.front().first.has_value();
    std::array<bool, 2> given = {false, false};
    for (auto& [side, expr] : zone.sets) {
      if (side.has_value() != bySide) {
        note(expr.span, "a zone is one set for all or one set for each side", "");
        continue;
      }
      int index = side ? out_.side(side->text) : 0;
      if (index < 0) {
        note(side->span, fmt::format("\"{}\" is no side", side->text),
             didYouMean(side->text, {out_.tree.sides[0].text, out_.tree.sides[1].text}));
        continue;
      }
      Types types(out_, source_, found_, Context::constant);
      if (!types.want(expr, Type::set)) continue;
      std::optional<CellSet> set = out_.constantSet(expr, index);
      // Which way is forward differs by side.
      if (set && !bySide && out_.constantSet(expr, 1) != set)
        note(expr.span, "this set differs by side",
             "say it for each: CELLS for " + out_.tree.sides[0].text + ", CELLS for " +
                 out_.tree.sides[1].text);
      else if (!set)
        note(expr.span, "a zone must not depend on pieces", "use `define` for that");
      else if (set->none())
        note(expr.span, "this set has no cells");
      else
        cells[index] = *set, given[index] = true;
    }
    if (!bySide)
      cells[1] = cells[0];
    else if (!given[0] || !given[1])
      note(zone.name.span,
           fmt::format("the zone \"{}\" is not given for both sides", zone.name.text));
    out_.zones.push_back(cells);
    out_.zoneBySide.push_back(bySide);
  }
}

void Checker::turn() {
  if (!out_.tree.turn) return;
  std::vector<std::string> names = {"pass"};
  for (const MoveDecl& move : out_.tree.moves) names.push_back(move.name.text);
  std::set<std::string> used;
  for (const auto& tier : out_.tree.turn->tiers) {
    for (const Name& name : tier) {
      if (std::find(names.begin(), names.end(), name.text) == names.end())
        note(name.span, fmt::format("there is no move \"{}\"", name.text),
             didYouMean(name.text, names, "there are: " + joined(names, ", ")));
      else if (!used.insert(name.text).second)
        note(name.span, fmt::format("\"{}\" stands twice in `turn`", name.text));
    }
  }
  for (const MoveDecl& move : out_.tree.moves)
    if (used.count(move.name.text) == 0)
      note(move.name.span, fmt::format("the move \"{}\" is not named in `turn`", move.name.text),
           "with a `turn` section, only the moves it names can be made");
}

void Checker::ends() {
  for (EndDecl& end : out_.tree.ends) {
    Types types(out_, source_, found_, Context::ends);
    if (end.kind == EndKind::sideWins && out_.side(end.side.text) < 0)
      note(end.side.span, fmt::format("\"{}\" is no side", end.side.text),
           didYouMean(end.side.text,
                      {out_.tree.sides[0].text, out_.tree.sides[1].text, "mover", "opponent",
                       "leader", "draw"},
                      "an end begins with mover, opponent, leader, draw or a side's name"));
    if (end.measure) types.want(*end.measure, Type::number);
    bool before = std::exchange(out_.readsTimes, false);
    types.want(end.condition, Type::truth);
    if (out_.readsTimes && !end.claim) out_.timesDecide = true;
    out_.readsTimes = out_.readsTimes || before;
    if (end.showing) types.want(*end.showing, Type::set);
    end.id = number(end.span, StatementInfo::Role::end);
  }
}

void Checker::rest() {
  for (DefineDecl& define : out_.tree.defines) {
    if (!define.parameters.empty()) continue;  // checked where it is used
    Types types(out_, source_, found_, Context::define);
    types.any(define.body);
  }
  worthPicture();
  if (out_.tree.worth) {
    Types types(out_, source_, found_, Context::worth);
    types.want(*out_.tree.worth, Type::number);
  }
  for (AlwaysDecl& always : out_.tree.always) {
    Types types(out_, source_, found_, Context::always);
    types.want(always.expr, always.change == 0 ? Type::truth : Type::number);
  }
  std::set<std::string> named;
  for (const SymmetryDecl& symmetry : out_.tree.symmetries)
    if (!named.insert(symmetry.name).second)
      note(symmetry.span, fmt::format("\"{}\" is named a second time", symmetry.name));
    else if (out_.board.symmetries(symmetry.name).empty())
      note(symmetry.span, fmt::format("this board has no \"{}\"", symmetry.name),
           "a quarter turn and a transposition need as many columns as rows");
}

// Puts the total of the weights on a side's cells in the place of the picture.
void Checker::worthPicture() {
  if (out_.tree.worthPicture.empty()) return;
  const std::vector<PictureRow>& rows = out_.board.picture();
  Span span = out_.tree.worth->span;
  out_.weights.assign(out_.board.size(), 0);
  bool fits = rows.size() == out_.tree.worthPicture.size();
  for (std::size_t y = 0; fits && y < rows.size(); ++y) {
    fits = rows[y].cells.size() == out_.tree.worthPicture[y].size();
    for (std::size_t x = 0; fits && x < rows[y].cells.size(); ++x)
      out_.weights[rows[y].cells[x]] = out_.tree.worthPicture[y][x];
  }
  if (!fits)
    note(span, "the picture of weights does not fit the board",
         fmt::format("the board has {} rows; every cell has a number, one that is left out, too",
                     rows.size()));
  auto name = [&](const char* word) {
    Expr expr;
    expr.kind = ExprKind::name;
    expr.word = word;
    expr.span = span;
    return expr;
  };
  Expr weight;
  weight.kind = ExprKind::ofName;
  weight.word = weightsName;
  weight.span = span;
  weight.args = {name(weightsName), name("@cell")};
  Expr total;
  total.kind = ExprKind::total;
  total.word = "@cell";
  total.span = span;
  total.args = {std::move(weight), name("mine")};
  out_.tree.worth = std::move(total);
}

void Checker::state() {
  for (StateDecl& number : out_.tree.numbers) {
    bool bySide = false;
    for (const auto& [side, value] : number.start) {
      if (side) sideName(*side);
      bySide = bySide || side.has_value();
    }
    if (bySide && number.start.size() != 2)
      note(number.name.span,
           fmt::format("the number \"{}\" is not given for both sides", number.name.text));
    if (!bySide && number.start.size() > 1)
      note(number.name.span, "one value, or one for each side",
           "such as: number komi = 0 for Amber, 5 for Slate");
  }
}

void Checker::repetition() {
  if (!out_.tree.repetition) return;
  for (const Name& name : out_.tree.repetition->compares) {
    if (name.text == "pieces" || name.text == "turn") continue;
    const Symbol* symbol = out_.find(name.text);
    bool known = symbol != nullptr &&
                 (symbol->kind == SymbolKind::mark || symbol->kind == SymbolKind::number ||
                  symbol->kind == SymbolKind::remembered || symbol->kind == SymbolKind::move);
    if (!known)
      note(name.span, fmt::format("\"{}\" cannot be compared", name.text),
           "there are: pieces, turn, and the names of marks, numbers, cells and moves");
    else if (symbol->kind == SymbolKind::move && out_.timesForbid)
      note(name.span, "moves cannot be compared where `forbid` asks for `times seen`",
           "which moves are legal would depend on itself");
  }
}

void Checker::views() {
  for (const PieceDecl& piece : out_.tree.pieces) out_.hasSecrets = out_.hasSecrets || piece.secret;
  for (SeesDecl& sees : out_.tree.sees) {
    Types types(out_, source_, found_, Context::sees);
    if (sees.what.kind == ExprKind::kindsWhere)
      types.any(sees.what);
    else
      types.want(sees.what, Type::set);
    if (!out_.layered() && sees.theirBoard)
      note(sees.span, "this board is one for both sides", "say: as X");
    if (sees.what.kind == ExprKind::kindsWhere && !sees.letter.empty())
      note(sees.span, "kinds of piece have no cell to be shown on", "leave out `as ...`");
  }
}

void Checker::notation() {
  if (!out_.tree.notation) return;
  NotationDecl& fen = *out_.tree.notation;
  auto wants = [&](const Name& name, SymbolKind kind, const char* what) {
    if (name.text.empty()) return;
    const Symbol* symbol = out_.find(name.text);
    if (symbol == nullptr || symbol->kind != kind)
      note(name.span, fmt::format("\"{}\" is no {} of this sheet", name.text, what));
  };
  wants(fen.mark, SymbolKind::mark, "mark");
  wants(fen.target, SymbolKind::remembered, "remembered cell");
  wants(fen.clock, SymbolKind::number, "number");
  wants(fen.pawn, SymbolKind::kind, "kind of piece");
  wants(fen.castle, SymbolKind::move, "move");
  for (const auto& [letter, cell] : fen.rights)
    if (!out_.board.find(cell.text))
      note(cell.span, fmt::format("there is no cell \"{}\"", cell.text));
  if (fen.check) {
    Types types(out_, source_, found_, Context::ends);
    types.want(*fen.check, Type::truth);
  }
  if (out_.tree.board.shape != Shape::square || out_.layered() || out_.tree.board.levels > 1)
    note(fen.span, "this notation is for one square board");
}

void Checker::cases() {
  for (CaseDecl& one : out_.tree.cases) {
    if (one.variant.text != out_.tree.variant) continue;
    for (CaseStep& step : one.steps) {
      if (step.kind == ExpectKind::condition) {
        Types types(out_, source_, found_, Context::example);
        types.want(step.condition, Type::truth);
      }
      if (step.kind == ExpectKind::seenBy) sideName(step.subject);
    }
  }
}

Checked Checker::run() {
  if (!board()) return std::move(out_);
  declareAll();
  facing();
  groups();
  zones();
  tracks();
  pieces();
  state();
  moves();
  turn();
  for (ForbidDecl& forbid : out_.tree.forbids) {
    Types types(out_, source_, found_, Context::forbid);
    bool before = std::exchange(out_.readsTimes, false);
    types.want(forbid.condition, Type::truth);
    if (out_.readsTimes) out_.timesDecide = out_.timesForbid = true;
    out_.readsTimes = out_.readsTimes || before;
    forbid.id = number(forbid.span, StatementInfo::Role::forbid);
  }
  ends();
  repetition();
  views();
  notation();
  rest();
  cases();
  return std::move(out_);
}

Checked check(Tree tree, const Source& source, std::vector<Diagnostic>& found) {
  Checker checker(std::move(tree), source, found);
  try {
    return checker.run();
  } catch (const TooManyMessages&) {
    return {};
  }
}

void addLikelySlips(Tree tree, const Source& source, std::vector<Diagnostic>& found) {
  bool whole =
      !tree.game.text.empty() && !tree.sides[1].text.empty() && !tree.moves.empty() &&
      (tree.board.columns > 0 && (tree.board.shape != Shape::points || !tree.board.lines.empty()));
  if (!whole || found.size() >= limits::diagnosticsKept) return;
  // What stands on a refused line may be what it would have declared.
  std::set<std::string> doubtful;
  for (const Diagnostic& one : found) {
    std::string word;
    for (char c : one.place.text + " ") {
      bool inside =
          std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '-' || c == '_' || c < 0;
      if (inside) word += c;
      if (!inside && !word.empty()) doubtful.insert(std::exchange(word, {}));
    }
  }
  std::vector<Diagnostic> more;
  check(std::move(tree), source, more);
  for (const Diagnostic& one : more) {
    std::size_t from = one.message.find('"'), to = one.message.rfind('"');
    if (one.hint.rfind("did you mean", 0) != 0 || to <= from + 1) continue;
    if (doubtful.count(one.message.substr(from + 1, to - from - 1)) > 0) continue;
    if (found.size() + 1 >= limits::diagnosticsKept) return;
    addMessage(found, one);
  }
}

}  // namespace ninepegs::sheet
