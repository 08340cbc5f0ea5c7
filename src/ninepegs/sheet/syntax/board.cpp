// The board and the pieces.
#include <fmt/format.h>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/syntax/sections.hpp"

namespace ninepegs::sheet {
namespace {

// Columns x rows, and levels where the shape has them.
void size(Cursor& in, BoardDecl& board) {
  Span at = in.span();
  bool square = board.kind == Shape::square;
  const char* hint =
      square ? "say: board square 7 x 6 (columns x rows)" : "say: board rhombus 9 x 9";
  long long columns = in.number("the number of columns");
  in.expect("x", hint);
  long long rows = in.number("the number of rows");
  long long levels = 1;
  if (in.accept("x")) {
    if (!square) in.refuse(at, "only a square board has several levels");
    levels = in.number("the number of levels");
  }
  if (columns < 1 || rows < 1 || levels < 1)
    in.refuse(at, "a board has at least one column and one row");
  bool over = columns > limits::cells || rows > limits::cells || levels > limits::cells ||
              columns * rows * levels > limits::cells;
  if (over) {
    std::string text = fmt::format("{} x {}", columns, rows);
    if (levels > 1) text += fmt::format(" x {}", levels);
    in.refuse(at, fmt::format("{} is more than {} cells, the limit", text, limits::cells));
  }
  board.columns = static_cast<int>(columns);
  board.rows = static_cast<int>(rows);
  board.levels = static_cast<int>(levels);
}

}  // namespace

void Parser::board(const Block& block, Cursor& in) {
  once(tree_.board.columns > 0 || !tree_.board.lines.empty(), block, in);
  BoardDecl& board = tree_.board;
  board.span = block.span;
  if (in.accept("hexagon")) {
    board.kind = Shape::hexagon;
    Span at = in.span();
    long long side = in.number("the number of cells on a side");
    if (side < 1) in.refuse(at, "a hexagon has at least one cell on a side");
    // The grid that holds it counts.
    if (side > limits::cells || (2 * side - 1) * (2 * side - 1) > limits::cells)
      in.refuse(at,
                fmt::format("a hexagon with {} cells on a side does not fit in {} cells, the limit",
                            side, limits::cells));
    board.columns = static_cast<int>(side);
  } else if (in.accept("rhombus")) {
    board.kind = Shape::rhombus;
    size(in, board);
  } else if (in.accept("points")) {
    board.kind = Shape::points;
    board.columns = 1;
  } else {
    in.expect("square", "there are: board square 7 x 6, hexagon 4, rhombus 9 x 9, points");
    size(in, board);
  }
  bool square = board.kind == Shape::square;
  while (in.accept(",")) {
    if (in.accept("without")) {
      board.without = expression(in);
    } else if (acceptPhrase(in, "one", {"each"}, "say: board square 10 x 10, one each")) {
      board.oneEach = true;
    } else if (square && in.accept("labels")) {
      in.expect("numbered");
      board.numbered = true;
    } else if (square && in.accept("rows")) {
      in.expect("from");
      in.expect("top");
      board.rowsFromTop = true;
    } else if (square && in.accept("joined")) {
      bool sideways = in.accept("left");
      if (!sideways) in.expect("top", "say: joined left to right, or joined top to bottom");
      in.expect("to");
      in.expect(sideways ? "right" : "bottom");
      (sideways ? board.joinLeftRight : board.joinTopBottom) = true;
    } else if (square) {
      in.refuse(in.span(), fmt::format("\"{}\" is no option of a board", in.peek().text),
                didYouMean(in.peek().text, {"labels", "rows", "joined", "without", "one"},
                           "there are: labels numbered, rows from top, joined left to right, "
                           "joined top to bottom, without CELLS, one each"));
    } else {
      in.refuse(in.span(), fmt::format("\"{}\" is no option of such a board", in.peek().text),
                "there are: without CELLS, one each");
    }
  }
  in.end();
  if (board.kind != Shape::points) return refuseChildren(block, in);
  for (const Block& line : block.children) {
    guarded(line, [&](Cursor& cursor) {
      cursor.expect("line", "say: line a7 d7 g7");
      std::vector<Name> points;
      while (!cursor.atEnd()) {
        Name point{cursor.peek().text, cursor.next().span};
        if (!Geometry::isPointLabel(point.text))
          cursor.refuse(point.span, fmt::format("\"{}\" is no point", point.text),
                        "a point is named like a7: its column and its row say where it stands");
        for (const Name& other : points)
          if (other.text == point.text)
            cursor.refuse(point.span, fmt::format("{} stands twice in this line", point.text));
        points.push_back(std::move(point));
      }
      if (points.size() < 2) cursor.refuse(line.span, "a line joins two points or more");
      refuseChildren(line, cursor);
      tree_.board.lines.push_back(std::move(points));
    });
  }
  if (block.children.empty())
    in.refuse(block.span, "this board has no points", "indent its lines below it: line a7 d7 g7");
}

void Parser::piece(const Block& block, Cursor& in) {
  PieceDecl piece;
  piece.name = in.name("a name for the piece");
  auto letter = [&]() -> std::string {
    const Token& token = in.peek();
    if (in.atEnd() || utf8Symbols(token.text).size() != 1 || token.kind == TokenKind::number) {
      std::string line = source_.line(block.span.line);
      if (in.atEnd() && line.find('#') != std::string::npos)
        in.refuse(in.span(), "the piece's letter should follow, but a comment begins here",
                  "`#` begins a comment and is no letter for a piece");
      in.refuse(in.span(),
                in.atEnd() ? "the piece's letter should follow"
                           : fmt::format("\"{}\" is no letter for a piece", token.text),
                "one character for each side, such as: piece disc o x");
    }
    if (token.text == "." || token.text == "_" || token.text == "/" || token.text == ";")
      in.refuse(token.span, fmt::format("\"{}\" has a meaning of its own in pictures", token.text));
    return in.next().text;
  };
  piece.letters[0] = letter();
  if (!in.atEnd() && utf8Symbols(in.peek().text).size() == 1) piece.letters[1] = letter();
  bool both = !piece.letters[1].empty();
  while (!in.atEnd()) {
    Span at = in.span();
    if (in.accept("reach")) {
      piece.reach = expression(in);
    } else if (in.sees("neutral") || in.sees("for")) {
      bool neutral = in.next().text == "neutral";
      if (both)
        in.refuse(at, neutral ? "a neutral piece belongs to nobody and has one letter"
                              : "a piece of one side has one letter");
      piece.neutral = neutral;
      if (!neutral) piece.only = in.name("a side");
    } else if (in.sees("secret") && in.peek(1).kind != TokenKind::number) {
      in.next();
      piece.secret = true;
    } else if (in.accept("edges")) {
      piece.edgesSpan = at;
      while (in.peek().kind == TokenKind::number && !in.atEnd())
        piece.edges.push_back(in.next().number);
      if (piece.edges.empty())
        in.refuse(in.span(), "a number for each side should follow", "such as: edges 2 7 2 7 2 1");
    } else {
      Name property = in.name("a word with a number");
      piece.values.push_back({property, in.number("the value of " + property.text)});
    }
  }
  refuseChildren(block, in);
  tree_.pieces.push_back(std::move(piece));
}

}  // namespace ninepegs::sheet
