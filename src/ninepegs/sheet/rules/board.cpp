// The board, its facing, tracks, and the pieces.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/parts.hpp"

namespace ninepegs::sheet {

void Checker::boardRule() {
  const BoardDecl& decl = tree_.board;
  rules::BoardRule& rule = rules_.boardRule;
  static_cast<BoardShape&>(rule) = decl;
  rule.oneEach = decl.oneEach;
  rule.span = decl.span;
  for (const auto& line : decl.lines) {
    rule.lines.emplace_back();
    for (const Name& point : line) rule.lines.back().push_back(point.text);
  }
}

bool Checker::board() {
  const BoardDecl& decl = tree_.board;
  if (decl.columns == 0) return false;
  boardRule();
  Geometry& board = rules_.board;
  switch (decl.kind) {
    case Shape::square:
      board = Geometry::square(decl);
      break;
    case Shape::hexagon:
      board = Geometry::hexagon(decl.columns);
      break;
    case Shape::rhombus:
      board = Geometry::rhombus(decl.columns, decl.rows);
      break;
    case Shape::points:
      if (decl.lines.empty()) return false;
      board = Geometry::points(rules_.boardRule.lines);
      if (board.size() > limits::cells) {
        note(decl.span, fmt::format("the grid on which these points stand has more than {} places, "
                                    "the limit",
                                    limits::cells));
        return false;
      }
      break;
  }
  for (Cell cell = 0; cell < board.size(); ++cell)
    rules_.boardRule.labels.push_back(board.label(cell));
  if (!board.direction("north")) rules_.facing = {-1, -1};
  for (const char* word : {"edge", "corner"}) rules_.symbols[word] = {SymbolKind::builtin, 0};
  if (decl.kind == Shape::square)
    for (const char* word : {"dark", "light"}) rules_.symbols[word] = {SymbolKind::builtin, 0};
  auto addCells = [&] {
    std::erase_if(rules_.symbols, [](const auto& s) { return s.second.kind == SymbolKind::cell; });
    for (Cell cell = 0; cell < board.size(); ++cell)
      if (board.has(cell)) rules_.symbols[board.label(cell)] = {SymbolKind::cell, cell};
  };
  addCells();
  if (decl.without) {
    leaveOut(*decl.without);
    addCells();
  }
  return true;
}

void Checker::leaveOut(const Expr& without) {
  // Which way sides face is not known yet, and what was refused has one message.
  std::vector<Diagnostic> unsaid;
  Draft draft{tree_, draft_.source, unsaid, rules_, {}, {}, 0};
  TermPtr term = Types(draft, Context::constant).want(without, Type::set);
  rules_.ways = draft.rules.ways;
  draft_.ways = draft.ways;
  std::optional<CellSet> gone;
  if (term) gone = rules_.constantSet(*term, 0);
  if (!gone) {
    note(without.span, "what a board leaves out must not depend on pieces",
         "such as: without light, or: without a1 or h1");
  } else if (gone->none()) {
    note(without.span, "this set has no cells");
  } else if ((rules_.board.all() & ~*gone).none()) {
    note(without.span, "this leaves the board without any cell");
  } else {
    rules_.boardRule.without = term;
    rules_.board.leaveOut(*gone);
  }
}

void Checker::sideName(const Name& name) {
  if (rules_.side(name.text) < 0)
    note(name.span, fmt::format("\"{}\" is no side", name.text),
         didYouMean(name.text, {tree_.sides[0].text, tree_.sides[1].text}));
}

void Checker::facing() {
  bool square = tree_.board.kind == Shape::square;
  const Geometry& board = rules_.board;
  for (const auto& [way, name] : tree_.facing) {
    std::optional<int> direction = board.direction(way.text);
    bool fits = direction && board.turned(*direction, 0) >= 0 && (!square || *direction % 2 == 0);
    sideName(name);
    if (!fits)
      note(way.span, fmt::format("\"{}\" is no direction to face", way.text),
           square            ? "there are: north, east, south, west"
           : board.isHexes() ? "there are: northeast, east, southeast, southwest, west, northwest"
                             : "on a board of points there is none");
    else if (int side = rules_.side(name.text); side >= 0)
      rules_.facing[side] = *direction;
  }
  // What was worked out for the cells that are left out saw no side face anywhere.
  for (rules::Ways& ways : rules_.ways)
    ways.directions = {draft_.directions(ways.word, 0), draft_.directions(ways.word, 1)};
}

void Checker::pieceLetters(const PieceDecl& piece, rules::PieceKind& kind,
                           std::set<std::string>& letters) {
  bool shared = tree_.board.oneEach;
  bool oneLetter = piece.neutral || !piece.only.text.empty() || shared;
  if (piece.letters[1].empty() && !oneLetter)
    note(piece.name.span, "a piece has two letters, one for each side",
         "such as: piece disc o x; or: piece fox F for Amber; or: piece stone * neutral");
  for (int side = 0; side < 2; ++side) kind.letters[side] = piece.letters[shared ? 0 : side];
  for (int side = 0; side < (shared ? 1 : 2); ++side)
    if (const std::string& letter = kind.letters[side];
        !letter.empty() && !letters.insert(letter).second)
      note(piece.name.span, fmt::format("the letter \"{}\" stands for two pieces", letter),
           "every kind has a letter of its own for each side");
}

void Checker::pieces() {
  std::set<std::string> letters;
  if (static_cast<int>(tree_.pieces.size()) > limits::kinds)
    note(tree_.pieces.back().name.span,
         fmt::format("there are more than {} kinds of piece, the limit", limits::kinds));
  std::size_t ways = rules_.board.directions().size();
  bool points = tree_.board.kind == Shape::points;
  for (std::size_t i = 0; i < tree_.pieces.size(); ++i) {
    const PieceDecl& piece = tree_.pieces[i];
    rules::PieceKind& kind = rules_.kinds[i];
    pieceLetters(piece, kind, letters);
    for (const auto& [property, value] : piece.values) {
      int number = static_cast<int>(rules_.properties.size());
      auto [it, added] = rules_.symbols.insert({property.text, {SymbolKind::property, number}});
      if (added)
        rules_.properties.push_back(property.text);
      else if (it->second.kind != SymbolKind::property)
        note(property.span, fmt::format("\"{}\" is the name of something else", property.text));
      kind.values.push_back({it->second.index, value, property.span});
    }
    if (!piece.only.text.empty()) {
      sideName(piece.only);
      kind.only = rules_.side(piece.only.text);
      if (kind.only == 1) std::swap(kind.letters[0], kind.letters[1]);
    }
    if (piece.neutral && tree_.board.oneEach)
      note(piece.name.span, "on a board of one each every piece belongs to a side");
    kind.edges = piece.edges;
    if (!piece.edges.empty() && (points || piece.edges.size() != ways))
      note(piece.edgesSpan,
           points ? "pieces on points have no edges"
                  : fmt::format("there are {} numbers, but a cell of this board has {} sides",
                                piece.edges.size(), ways),
           points ? ""
                  : "they stand in the board's order of directions, clockwise from " +
                        rules_.board.directions().front().name);
    rules_.hasEdges = rules_.hasEdges || !piece.edges.empty();
    if (piece.reach) kind.reach = Types(draft_, Context::reach).want(*piece.reach, Type::set);
  }
}

void Checker::tracks() {
  for (const TrackDecl& track : tree_.tracks) {
    auto rule = begunBySide<rules::TrackRule>(track.name, track.cells);
    for (const auto& [side, cells] : track.cells) {
      if (side.has_value() != rule.bySide)
        note(track.name.span, "a track is one for all or one for each side");
      if (side) sideName(*side);
      int index = side ? std::max(0, rules_.side(side->text)) : 0;
      std::vector<Cell> order;
      for (const Name& name : cells) {
        std::optional<Cell> cell = rules_.board.find(name.text);
        if (!cell)
          note(name.span, fmt::format("there is no cell \"{}\"", name.text),
               didYouMean(name.text, rules_.board.labels()));
        else if (std::find(order.begin(), order.end(), *cell) != order.end())
          note(name.span, fmt::format("{} stands twice on this track", name.text));
        else
          order.push_back(*cell);
      }
      rule.cells[index] = std::move(order);
    }
    if (!rule.bySide) rule.cells[1] = rule.cells[0];
    if (rule.cells[0].empty() || rule.cells[1].empty())
      note(track.name.span,
           fmt::format("the track \"{}\" is not given for both sides", track.name.text));
    rules_.tracks.push_back(std::move(rule));
  }
}

}  // namespace ninepegs::sheet
