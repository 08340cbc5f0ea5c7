// The board, its facing, tracks, and the pieces.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/parts.hpp"

namespace ninepegs::sheet {

bool Checker::board() {
  const BoardDecl& decl = out_.tree.board;
  if (decl.columns == 0) return false;
  BoardShape shape;
  shape.columns = decl.columns;
  shape.rows = decl.rows;
  shape.numbered = decl.numbered;
  shape.rowsFromTop = decl.rowsFromTop;
  shape.joinLeftRight = decl.joinLeftRight;
  shape.joinTopBottom = decl.joinTopBottom;
  shape.levels = decl.levels;
  std::vector<std::vector<std::string>> lines;
  for (const auto& line : decl.lines) {
    lines.emplace_back();
    for (const Name& point : line) lines.back().push_back(point.text);
  }
  switch (decl.shape) {
    case Shape::square:
      out_.board = Geometry::square(shape);
      break;
    case Shape::hexagon:
      out_.board = Geometry::hexagon(decl.columns);
      break;
    case Shape::rhombus:
      out_.board = Geometry::rhombus(decl.columns, decl.rows);
      break;
    case Shape::points:
      if (lines.empty()) return false;
      out_.board = Geometry::points(lines);
      if (out_.board.size() > limits::cells) {
        note(decl.span, fmt::format("the grid on which these points stand has more than {} places, "
                                    "the limit",
                                    limits::cells));
        return false;
      }
      break;
  }
  if (!out_.board.direction("north")) out_.facing = {-1, -1};
  auto addCells = [&] {
    std::erase_if(out_.symbols, [](const auto& s) { return s.second.kind == SymbolKind::cell; });
    for (Cell cell = 0; cell < out_.board.size(); ++cell)
      if (out_.board.has(cell)) out_.symbols[out_.board.label(cell)] = {SymbolKind::cell, cell};
  };
  for (const char* word : {"edge", "corner"}) out_.symbols[word] = {SymbolKind::builtin, 0};
  if (decl.shape == Shape::square)
    for (const char* word : {"dark", "light"}) out_.symbols[word] = {SymbolKind::builtin, 0};
  addCells();
  if (!decl.without) return true;
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
  return true;
}

void Checker::sideName(const Name& name) {
  if (out_.side(name.text) < 0)
    note(name.span, fmt::format("\"{}\" is no side", name.text),
         didYouMean(name.text, {out_.tree.sides[0].text, out_.tree.sides[1].text}));
}

void Checker::facing() {
  bool square = out_.tree.board.shape == Shape::square;
  for (const auto& [way, name] : out_.tree.facing) {
    std::optional<int> direction = out_.board.direction(way.text);
    bool fits =
        direction && out_.board.turned(*direction, 0) >= 0 && (!square || *direction % 2 == 0);
    sideName(name);
    if (!fits)
      note(way.span, fmt::format("\"{}\" is no direction to face", way.text),
           square ? "there are: north, east, south, west"
           : out_.board.isHexes()
               ? "there are: northeast, east, southeast, southwest, west, northwest"
               : "on a board of points there is none");
    else if (int side = out_.side(name.text); side >= 0)
      out_.facing[side] = *direction;
  }
}

void Checker::pieces() {
  std::set<std::string> letters;
  if (static_cast<int>(out_.tree.pieces.size()) > limits::kinds)
    note(out_.tree.pieces.back().name.span,
         fmt::format("there are more than {} kinds of piece, the limit", limits::kinds));
  for (PieceDecl& piece : out_.tree.pieces) {
    bool shared = out_.tree.board.oneEach;
    bool oneLetter = piece.neutral || !piece.only.text.empty() || shared;
    if (piece.letters[1].empty() && !oneLetter)
      note(piece.name.span, "a piece has two letters, one for each side",
           "such as: piece disc o x; or: piece fox F for Amber; or: piece stone * neutral");
    if (shared) piece.letters[1] = piece.letters[0];
    for (int side = 0; side < (shared ? 1 : 2); ++side)
      if (const std::string& letter = piece.letters[side];
          !letter.empty() && !letters.insert(letter).second)
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
    if (!piece.only.text.empty()) {
      sideName(piece.only);
      if (out_.side(piece.only.text) == 1) std::swap(piece.letters[0], piece.letters[1]);
    }
    if (piece.neutral && out_.tree.board.oneEach)
      note(piece.name.span, "on a board of one each every piece belongs to a side");
    std::size_t ways = out_.board.directions().size();
    bool points = out_.tree.board.shape == Shape::points;
    if (!piece.edges.empty() && (points || piece.edges.size() != ways))
      note(piece.edgesSpan,
           points ? "pieces on points have no edges"
                  : fmt::format("there are {} numbers, but a cell of this board has {} sides",
                                piece.edges.size(), ways),
           points ? ""
                  : "they stand in the board's order of directions, clockwise from " +
                        out_.board.directions().front().name);
    out_.hasEdges = out_.hasEdges || !piece.edges.empty();
    if (piece.reach) {
      Types types(out_, source_, found_, Context::reach);
      types.want(*piece.reach, Type::set);
    }
  }
}

void Checker::tracks() {
  for (const TrackDecl& track : out_.tree.tracks) {
    std::array<std::vector<Cell>, 2> next;
    bool bySide = track.cells.front().first.has_value();
    for (const auto& [side, cells] : track.cells) {
      if (side.has_value() != bySide)
        note(track.name.span, "a track is one for all or one for each side");
      if (side) sideName(*side);
      int index = side ? std::max(0, out_.side(side->text)) : 0;
      std::vector<Cell> order;
      for (const Name& name : cells) {
        std::optional<Cell> cell = out_.board.find(name.text);
        if (!cell)
          note(name.span, fmt::format("there is no cell \"{}\"", name.text),
               didYouMean(name.text, out_.board.labels()));
        else if (std::find(order.begin(), order.end(), *cell) != order.end())
          note(name.span, fmt::format("{} stands twice on this track", name.text));
        else
          order.push_back(*cell);
      }
      next[index] = std::move(order);
    }
    if (!bySide) next[1] = next[0];
    if (next[0].empty() || next[1].empty())
      note(track.name.span,
           fmt::format("the track \"{}\" is not given for both sides", track.name.text));
    out_.tracks.push_back(std::move(next));
    out_.trackBySide.push_back(bySide);
  }
}

}  // namespace ninepegs::sheet
