// Sections that declare: name, sides, board, pieces, sets, state.
#include <fmt/format.h>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/syntax/sections.hpp"

namespace ninepegs::sheet {

void Parser::game(const Block& block, Cursor& in) {
  once(!tree_.game.text.empty(), block, in);
  tree_.game = in.word("the game's name");
  nothingFollows(block, in);
}

void Parser::title(const Block& block, Cursor& in) {
  once(!tree_.title.empty(), block, in);
  tree_.title = in.text("the game's title");
  nothingFollows(block, in);
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
  nothingFollows(block, in);
}

void Parser::facing(const Block& block, Cursor& in) {
  once(!tree_.facing.empty(), block, in);
  do {
    const Token way = in.next();
    in.expect("for", "say: facing south for Black, north for White");
    tree_.facing.push_back({Name{way.text, way.span}, in.name("a side")});
  } while (in.accept(","));
  nothingFollows(block, in);
}

void Parser::group(const Block& block, Cursor& in) {
  SetDecl group;
  group.name = in.name("a name for the group");
  in.expect("=", "say: group officer = knight, bishop");
  do group.members.push_back(in.name("a kind of piece"));
  while (in.accept(","));
  nothingFollows(block, in);
  tree_.groups.push_back(std::move(group));
}

void Parser::zone(const Block& block, Cursor& in) {
  SetDecl zone;
  zone.name = in.name("a name for the zone");
  in.expect("=", "say: zone goal = row 6 for Amber, row 1 for Slate");
  do {
    Expr cells = expression(in);
    std::optional<Name> side = forSide(in);
    zone.sets.push_back({std::move(side), std::move(cells)});
  } while (in.accept(","));
  nothingFollows(block, in);
  tree_.zones.push_back(std::move(zone));
}

void Parser::mark(const Block& block, Cursor& in) {
  StateDecl mark;
  mark.name = in.name("a name for the mark");
  mark.each = in.accept("each");
  nothingFollows(block, in);
  tree_.marks.push_back(std::move(mark));
}

void Parser::number(const Block& block, Cursor& in) {
  StateDecl number;
  number.name = in.name("a name for the number");
  if (in.accept("on")) {
    in.expect("cells", "say: number seeds on cells");
    number.onCells = true;
  } else {
    number.each = in.accept("each");
  }
  if (in.accept("=")) {
    if (number.onCells)
      in.refuse(in.span(), "numbers on cells are set out in `start`", "say there: seeds 4 4 4 4");
    do {
      long long value = in.number("the number at the start");
      std::optional<Name> side = forSide(in);
      number.each = number.each || side.has_value();
      number.start.emplace_back(std::move(side), value);
    } while (in.accept(","));
  }
  nothingFollows(block, in);
  tree_.numbers.push_back(std::move(number));
}

void Parser::cell(const Block& block, Cursor& in) {
  StateDecl cell;
  cell.name = in.name("a name for the cell that is remembered");
  cell.each = in.accept("each");
  cell.lastsOneMove =
      acceptPhrase(in, ",", {"lasts", "one", "move"}, "say: cell passed, lasts one move");
  nothingFollows(block, in);
  tree_.cells.push_back(std::move(cell));
}

void Parser::track(const Block& block, Cursor& in) {
  TrackDecl track;
  track.name = in.name("a name for the track");
  in.expect("=", "say: track round = a1 b1 c1 c2 b2 a2");
  do {
    std::vector<Name> cells;
    while (!in.atEnd() && !in.sees("for") && !in.sees(","))
      cells.push_back(Name{in.peek().text, in.next().span});
    std::optional<Name> side = forSide(in);
    if (cells.size() < 2) in.refuse(track.name.span, "a track has two cells or more");
    track.cells.emplace_back(std::move(side), std::move(cells));
  } while (in.accept(","));
  nothingFollows(block, in);
  tree_.tracks.push_back(std::move(track));
}

}  // namespace ninepegs::sheet
