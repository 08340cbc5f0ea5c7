#include "ninepegs/sheet/checker.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <set>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/parser.hpp"
#include "ninepegs/sheet/types.hpp"

namespace ninepegs::sheet {
namespace {

class Checker {
 public:
  Checker(Tree tree, const Source& source, std::vector<Diagnostic>& found)
      : source_(source), found_(found) {
    out_.tree = std::move(tree);
  }
  Checked run();

 private:
  void note(Span span, const std::string& message, const std::string& hint = {}) {
    found_.push_back({source_.place(span), message, hint});
  }
  void declare(const Name& name, SymbolKind kind, int index);
  void declareAll();
  void board();
  void facing();
  void pieces();
  void zones();
  void groups();
  void moves();
  void turn();
  void ends();
  void rest();
  void statements(std::vector<Statement>& list, StatementInfo::Role role, Types& types,
                  bool& effectSeen, std::vector<std::string>& picks, bool insideWhen);
  void lineOf(Statement& statement, StatementInfo::Role role);
  void kindName(const Name& name);
  int number(Span span, StatementInfo::Role role);

  const Source& source_;
  std::vector<Diagnostic>& found_;
  Checked out_;
};

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

void Checker::board() {
  const BoardDecl& decl = out_.tree.board;
  if (decl.columns == 0) return;
  SquareShape shape{decl.columns,     decl.rows,          decl.numbered,
                    decl.rowsFromTop, decl.joinLeftRight, decl.joinTopBottom};
  out_.board = Geometry::square(shape);
  auto addCells = [&] {
    std::erase_if(out_.symbols, [](const auto& s) { return s.second.kind == SymbolKind::cell; });
    for (Cell cell = 0; cell < out_.board.size(); ++cell)
      if (out_.board.has(cell)) out_.symbols[out_.board.label(cell)] = {SymbolKind::cell, cell};
  };
  for (const char* word : {"edge", "corner", "dark", "light"})
    out_.symbols[word] = {SymbolKind::builtin, 0};
  addCells();
  if (!decl.without) return;
  std::optional<CellSet> gone = out_.constantSet(*decl.without, 0);
  if (!gone) {
    note(decl.without->span, "what a board leaves out must not depend on pieces",
         "such as: without light, or: without a1 or h1");
  } else if (gone->none()) {
    note(decl.without->span, "this set has no cells");
  } else if ((out_.board.all() & ~*gone).none()) {
    note(decl.without->span, "this leaves the board without any cell");
  } else {
    out_.board.leaveOut(*gone);
    addCells();
  }
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
  all(tree.defines, SymbolKind::define);
  all(tree.moves, SymbolKind::move);
}

void Checker::facing() {
  for (const auto& [way, sideName] : out_.tree.facing) {
    std::optional<int> direction = out_.board.direction(way.text);
    int side = out_.side(sideName.text);
    if (!direction || *direction % 2 != 0)
      note(way.span, fmt::format("\"{}\" is no direction to face", way.text),
           "there are: north, east, south, west");
    else if (side < 0)
      note(sideName.span, fmt::format("\"{}\" is no side", sideName.text),
           didYouMean(sideName.text, {out_.tree.sides[0].text, out_.tree.sides[1].text}));
    else
      out_.facing[side] = *direction;
  }
}

void Checker::pieces() {
  std::set<std::string> letters;
  if (static_cast<int>(out_.tree.pieces.size()) > limits::kinds)
    note(out_.tree.pieces.back().name.span,
         fmt::format("there are more than {} kinds of piece, the limit", limits::kinds));
  for (PieceDecl& piece : out_.tree.pieces) {
    for (const std::string& letter : piece.letters)
      if (!letter.empty() && !letters.insert(letter).second)
        note(piece.name.span, fmt::format("the letter \"{}\" stands for two pieces", letter),
             "every kind has a letter of its own for each side");
    for (const auto& [property, value] : piece.values) {
      const Symbol* symbol = out_.find(property.text);
      if (symbol == nullptr) {
        out_.symbols[property.text] = {SymbolKind::property,
                                       static_cast<int>(out_.properties.size())};
        out_.properties.push_back(property.text);
      } else if (symbol->kind != SymbolKind::property) {
        note(property.span, fmt::format("\"{}\" is the name of something else", property.text));
      }
    }
    if (piece.reach) {
      Types types(out_, source_, found_, Context::reach);
      types.want(*piece.reach, Type::set);
    }
  }
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
  for (SetDecl& group : out_.tree.groups)
    for (const Name& member : group.members) kindName(member);
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
      if (!set)
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

int Checker::number(Span span, StatementInfo::Role role) {
  std::string text = source_.line(span.line);
  std::size_t comment = text.find('#');
  out_.statements.push_back({role, span.line, std::string(trimmed(text.substr(0, comment)))});
  return static_cast<int>(out_.statements.size()) - 1;
}

void Checker::statements(std::vector<Statement>& list, StatementInfo::Role role, Types& types,
                         bool& effectSeen, std::vector<std::string>& picks, bool insideWhen) {
  std::size_t scope = types.scope();
  for (Statement& one : list) {
    one.id = number(one.span, role);
    auto late = [&](const char* word) {
      if (effectSeen)
        note(one.span,
             fmt::format("`{}` behind a line that changes the position belongs to the "
                         "language, but this version cannot run it yet",
                         word),
             "put it above the first put, shift, take, flip or change");
      if (insideWhen)
        note(one.span, fmt::format("`{}` inside `when` belongs to the language, but this version "
                                   "cannot run it yet",
                                   word));
      if (role == StatementInfo::Role::after)
        note(one.span, fmt::format("`{}` in an `after` block belongs to the language, but this "
                                   "version cannot run it yet",
                                   word));
    };
    auto addPick = [&] {
      picks.push_back(one.name.text);
      if (static_cast<int>(picks.size()) > limits::choices)
        note(one.span,
             fmt::format("this move makes more than {} choices, the limit", limits::choices));
    };
    switch (one.kind) {
      case StatementKind::pick:
        late("pick");
        types.want(one.args[0], Type::set);
        types.local(one.name, Type::cell);
        addPick();
        break;
      case StatementKind::choose:
        late("choose");
        for (const Name& kind : one.names) kindName(kind);
        types.local(one.name, Type::kind);
        addPick();
        break;
      case StatementKind::let:
        types.local(one.name, types.valueOf(one.args[0]));
        break;
      case StatementKind::set: {
        effectSeen = true;
        types.want(one.args[0], Type::number);
        const Symbol* symbol = out_.find(one.name.text);
        if (symbol == nullptr || symbol->kind != SymbolKind::number)
          note(one.name.span, fmt::format("\"{}\" is no number of this sheet", one.name.text),
               "declare it: number " + one.name.text);
        else if (out_.tree.numbers[symbol->index].each == one.names.empty())
          note(one.name.span, one.names.empty() ? "say whose: my " + one.name.text
                                                : "this number is one for both sides");
        break;
      }
      case StatementKind::need:
        late("need");
        types.want(one.args[0], Type::truth);
        break;
      case StatementKind::put:
      case StatementKind::change: {
        effectSeen = true;
        types.want(one.args[0], Type::set);
        if (types.localType(one.name.text) != Type::kind) kindName(one.name);
        break;
      }
      case StatementKind::shift:
        effectSeen = true;
        types.want(one.args[0], Type::cell);
        types.want(one.args[1], Type::cell);
        break;
      case StatementKind::take:
      case StatementKind::flip:
        effectSeen = true;
        types.want(one.args[0], Type::set);
        break;
      case StatementKind::addTo:
      case StatementKind::removeFrom: {
        effectSeen = true;
        types.want(one.args[0], Type::set);
        const Symbol* symbol = out_.find(one.name.text);
        if (symbol == nullptr || symbol->kind != SymbolKind::mark)
          note(one.name.span, fmt::format("\"{}\" is no mark of this sheet", one.name.text),
               "declare it: mark " + one.name.text);
        else if (out_.tree.marks[symbol->index].each == one.names.empty())
          note(one.name.span, one.names.empty() ? "say whose: my " + one.name.text
                                                : "this mark is one for both sides");
        break;
      }
      case StatementKind::when:
        effectSeen = true;
        types.want(one.args[0], Type::truth);
        statements(one.body, role, types, effectSeen, picks, true);
        statements(one.otherwise, role, types, effectSeen, picks, true);
        break;
      case StatementKind::again:
        effectSeen = true;
        break;
      case StatementKind::writtenAs:
        if (insideWhen) note(one.span, "`written as` stands in the move itself, not inside `when`");
        for (Expr& part : one.args) {
          if (part.kind == ExprKind::name && part.plural) continue;
          const Expr& name = part.kind == ExprKind::ofName ? part.args[0] : part;
          Type type = types.localType(name.word);
          if (type == Type::unknown)
            note(name.span, fmt::format("this move has no name \"{}\"", name.word),
                 didYouMean(name.word, types.localNames(),
                            "texts are made of this move's own names"));
          else if (type == Type::truth)
            note(name.span, fmt::format("\"{}\" is a condition and has no text", name.word));
        }
        break;
    }
  }
  types.endScope(scope);
}

void Checker::moves() {
  if (static_cast<int>(out_.tree.moves.size()) > limits::moveGroups)
    note(out_.tree.moves.back().name.span,
         fmt::format("there are more than {} moves, the limit", limits::moveGroups));
  for (MoveDecl& move : out_.tree.moves) {
    Types types(out_, source_, found_, Context::move);
    bool effectSeen = false;
    std::vector<std::string> picks;
    statements(move.body, StatementInfo::Role::move, types, effectSeen, picks, false);
  }
  for (AfterDecl& after : out_.tree.afters) {
    for (const Name& name : after.moves) {
      const Symbol* symbol = out_.find(name.text);
      if (symbol == nullptr || symbol->kind != SymbolKind::move)
        note(name.span, fmt::format("there is no move \"{}\"", name.text));
    }
    Types types(out_, source_, found_, Context::move);
    bool effectSeen = true;
    std::vector<std::string> picks;
    statements(after.body, StatementInfo::Role::after, types, effectSeen, picks, false);
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
    types.want(end.condition, Type::truth);
    if (end.showing) types.want(*end.showing, Type::set);
    end.id = number(end.span, StatementInfo::Role::end);
  }
}

void Checker::rest() {
  for (DefineDecl& define : out_.tree.defines) {
    if (!define.parameters.empty()) continue;  // checked where it is used
    Types types(out_, source_, found_, Context::move);
    types.any(define.body);
  }
  if (out_.tree.worth) {
    Types types(out_, source_, found_, Context::worth);
    types.want(*out_.tree.worth, Type::number);
  }
  for (AlwaysDecl& always : out_.tree.always) {
    Types types(out_, source_, found_, Context::always);
    types.want(always.expr, always.change == 0 ? Type::truth : Type::number);
  }
  for (const SymmetryDecl& symmetry : out_.tree.symmetries)
    if (out_.board.symmetries(symmetry.name).empty())
      note(symmetry.span, fmt::format("this board has no \"{}\"", symmetry.name),
           "a quarter turn and a transposition need as many columns as rows");
}

Checked Checker::run() {
  board();
  declareAll();
  facing();
  groups();
  zones();
  pieces();
  moves();
  turn();
  ends();
  rest();
  return std::move(out_);
}

}  // namespace

Checked check(Tree tree, const Source& source, std::vector<Diagnostic>& found) {
  return Checker(std::move(tree), source, found).run();
}

}  // namespace ninepegs::sheet
