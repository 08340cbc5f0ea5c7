// Sections that declare: name, sides, board, pieces, sets, state.
#include <fmt/format.h>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/parser_sections.hpp"

namespace ninepegs::sheet {

void Parser::game(const Block& block, Cursor& in) {
  once(!tree_.game.text.empty(), block, in);
  tree_.game = in.word("the game's name");
  in.end();
  refuseChildren(block, in);
}

void Parser::title(const Block& block, Cursor& in) {
  once(!tree_.title.empty(), block, in);
  tree_.title = in.text("the game's title");
  in.end();
  refuseChildren(block, in);
}

void Parser::about(const Block& block, Cursor& in) {
  once(!tree_.about.empty(), block, in);
  in.end();
  for (const Block& line : block.children) tree_.about.push_back(line.raw);
  if (tree_.about.empty())
    in.refuse(block.span, "`about` holds no lines", "say in words how the game is played");
}

void Parser::sides(const Block& block, Cursor& in) {
  once(!tree_.sides[0].text.empty(), block, in);
  tree_.sides[0] = in.name("the side that moves first");
  in.expect("and", "say: sides Amber and Slate");
  tree_.sides[1] = in.name("the other side");
  if (in.sees(",") || in.sees("and"))
    in.refuse(in.span(), "there are two sides; more are out of this language's reach");
  in.end();
  refuseChildren(block, in);
}

void Parser::facing(const Block& block, Cursor& in) {
  once(!tree_.facing.empty(), block, in);
  do {
    const Token way = in.next();
    in.expect("for", "say: facing south for Black, north for White");
    tree_.facing.push_back({Name{way.text, way.span}, in.name("a side")});
  } while (in.accept(","));
  in.end();
  refuseChildren(block, in);
}

void Parser::board(const Block& block, Cursor& in) {
  once(tree_.board.columns > 0, block, in);
  BoardDecl& board = tree_.board;
  board.span = block.span;
  if (in.sees("hexagon") || in.sees("rhombus") || in.sees("points"))
    in.refuse(in.span(),
              fmt::format("a board of the shape `{}` belongs to the language, but this "
                          "version cannot build it yet",
                          in.peek().text),
              "this version knows: board square 7 x 6");
  in.expect("square", "say: board square 7 x 6");
  Span size = in.span();
  long long columns = in.number("the number of columns");
  in.expect("x", "say: board square 7 x 6 (columns x rows)");
  long long rows = in.number("the number of rows");
  if (in.sees("x"))
    in.refuse(in.span(),
              "boards of several levels belong to the language, but this version cannot "
              "build them yet");
  if (columns < 1 || rows < 1) in.refuse(size, "a board has at least one column and one row");
  if (columns > limits::cells || rows > limits::cells || columns * rows > limits::cells)
    in.refuse(size, fmt::format("{} x {} is more than {} cells, the limit", columns, rows,
                                limits::cells));
  board.columns = static_cast<int>(columns);
  board.rows = static_cast<int>(rows);
  while (in.accept(",")) {
    if (in.accept("labels")) {
      in.expect("numbered");
      board.numbered = true;
    } else if (in.accept("rows")) {
      in.expect("from");
      in.expect("top");
      board.rowsFromTop = true;
    } else if (in.accept("joined")) {
      if (in.accept("left")) {
        in.expect("to");
        in.expect("right");
        board.joinLeftRight = true;
      } else {
        in.expect("top", "say: joined left to right, or joined top to bottom");
        in.expect("to");
        in.expect("bottom");
        board.joinTopBottom = true;
      }
    } else if (in.accept("without")) {
      board.without = expression(in);
    } else if (in.sees("one")) {
      in.refuse(in.span(),
                "a board of its own for each side belongs to the language, but this "
                "version cannot build it yet");
    } else {
      in.refuse(in.span(), fmt::format("\"{}\" is no option of a board", in.peek().text),
                didYouMean(in.peek().text, {"labels", "rows", "joined", "without"},
                           "there are: labels numbered, rows from top, joined left to right, "
                           "joined top to bottom, without CELLS"));
    }
  }
  in.end();
  refuseChildren(block, in);
}

void Parser::piece(const Block& block, Cursor& in) {
  PieceDecl piece;
  piece.name = in.name("a name for the piece");
  auto letter = [&]() -> std::string {
    const Token& token = in.peek();
    if (in.atEnd() || utf8Symbols(token.text).size() != 1 || token.kind == TokenKind::number)
      in.refuse(in.span(),
                in.atEnd() ? "the piece's letter should follow"
                           : fmt::format("\"{}\" is no letter for a piece", token.text),
                "one character for each side, such as: piece disc o x");
    if (token.text == "." || token.text == "_" || token.text == "/" || token.text == ";")
      in.refuse(token.span, fmt::format("\"{}\" has a meaning of its own in pictures", token.text));
    return in.next().text;
  };
  piece.letters[0] = letter();
  if (!in.atEnd() && utf8Symbols(in.peek().text).size() == 1) piece.letters[1] = letter();
  if (in.accept("for"))
    in.refuse(in.span(),
              "pieces of one side only belong to the language, but this version cannot "
              "build them yet");
  while (!in.atEnd()) {
    if (in.accept("reach")) {
      piece.reach = expression(in);
      continue;
    }
    if (in.sees("neutral") || in.sees("secret") || in.sees("edges"))
      in.refuse(in.span(), fmt::format("`{}` belongs to the language, but this version cannot run "
                                       "it yet",
                                       in.peek().text));
    Name property = in.name("a word with a number");
    piece.values.push_back({property, in.number("the value of " + property.text)});
  }
  if (piece.letters[1].empty())
    in.refuse(block.span, "a piece has two letters, one for each side", "such as: piece disc o x");
  refuseChildren(block, in);
  tree_.pieces.push_back(std::move(piece));
}

void Parser::group(const Block& block, Cursor& in) {
  SetDecl group;
  group.name = in.name("a name for the group");
  in.expect("=", "say: group officer = knight, bishop");
  do group.members.push_back(in.name("a kind of piece"));
  while (in.accept(","));
  in.end();
  refuseChildren(block, in);
  tree_.groups.push_back(std::move(group));
}

void Parser::zone(const Block& block, Cursor& in) {
  SetDecl zone;
  zone.name = in.name("a name for the zone");
  in.expect("=", "say: zone goal = row 6 for Amber, row 1 for Slate");
  do {
    Expr cells = expression(in);
    std::optional<Name> side;
    if (in.accept("for")) side = in.name("a side");
    zone.sets.push_back({std::move(side), std::move(cells)});
  } while (in.accept(","));
  in.end();
  refuseChildren(block, in);
  tree_.zones.push_back(std::move(zone));
}

void Parser::mark(const Block& block, Cursor& in) {
  StateDecl mark{in.name("a name for the mark"), false};
  mark.each = in.accept("each");
  in.end();
  refuseChildren(block, in);
  tree_.marks.push_back(std::move(mark));
}

void Parser::number(const Block& block, Cursor& in) {
  StateDecl number{in.name("a name for the number"), false};
  number.each = in.accept("each");
  if (in.sees("on") || in.sees("="))
    in.refuse(in.span(),
              "numbers on cells and set-out values belong to the language, but this "
              "version cannot run them yet");
  in.end();
  refuseChildren(block, in);
  tree_.numbers.push_back(std::move(number));
}

}  // namespace ninepegs::sheet
