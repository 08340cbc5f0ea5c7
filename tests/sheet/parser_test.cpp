#include "ninepegs/sheet/syntax/parser.hpp"

#include <gtest/gtest.h>

#include <algorithm>

#include "ninepegs/sheet/rules/checker.hpp"
#include "support/games.hpp"

namespace ninepegs::sheet {
namespace parser_test {

const char* const everything = R"(game box
title "A box"
about
  First line.
  Second line.
sides Amber and Slate
facing south for Amber, north for Slate
board square 6 x 5, rows from top, joined left to right, without a1 or f5
piece walker w m  weight 3  toll -2  reach step forward-any
piece guide  g u
group folk = walker, guide
zone home = row 1 for Amber, row 5 for Slate
zone middle = rows 2 to 4
mark met
mark shot each
number quiet
number left each
define free(s) = step orthogonal from s on empty
start
  _ w w w w w
  . . g . . .
  . . . . . .
  . . . u . .
  m m m m m _
  shot of Slate b2 c3
  quiet 7
  Slate to move
move go
  pick here in my folk
  pick there in free(here)
  let rest = empty except there
  need any rest
  shift here to there
  when there in middle
    add there to my shot
    set my left to 1
  otherwise
    again
  written as here "-" there
move carve
  choose what from guide, walker
  pick there in empty
  put what on there
after go
  set quiet to quiet + 1
turn go or carve else pass
ends
  claim draw "long" when quiet > 50
  mover wins "all home" when my folk within my home
  Slate loses "bare" when no folk of Slate
  leader in count mine wins "more" or draw "level" when nobody can move
worth count mine
always
  count walker never grows
  quiet >= 0
symmetric under reflection of columns, half turn
variant short "without guides"
  move carve
    pick there in empty
    put walker on there
case "one"
  in variant short
  position 6/6/6/6/6; Slate to move
  play a2, b3
  expect ongoing
  expect moves from a2 = a2-b2
  expect sequences 1 to 2 = 3 4
)";

Tree parsed(const std::string& text, const std::string& variant = {}) {
  Source source("test.pegs", text);
  std::vector<Diagnostic> found;
  Tree tree = parse(source, variant, found);
  for (const Diagnostic& one : found) ADD_FAILURE() << toText(one);
  return tree;
}

TEST(Parser, ReadsEverySection) {
  Tree tree = parsed(everything);
  EXPECT_EQ(tree.game.text, "box");
  EXPECT_EQ(tree.title, "A box");
  EXPECT_EQ(tree.about, (std::vector<std::string>{"First line.", "Second line."}));
  EXPECT_EQ(tree.sides[1].text, "Slate");
  ASSERT_EQ(tree.facing.size(), 2u);
  EXPECT_EQ(tree.facing[0].first.text, "south");
  EXPECT_EQ(tree.board.columns, 6);
  EXPECT_EQ(tree.board.rows, 5);
  EXPECT_TRUE(tree.board.rowsFromTop && tree.board.joinLeftRight && tree.board.without);
  EXPECT_FALSE(tree.board.numbered || tree.board.joinTopBottom);
  ASSERT_EQ(tree.pieces.size(), 2u);
  EXPECT_EQ(tree.pieces[0].letters[1], "m");
  ASSERT_EQ(tree.pieces[0].values.size(), 2u);
  EXPECT_EQ(tree.pieces[0].values[1].second, -2);
  EXPECT_TRUE(tree.pieces[0].reach.has_value());
  EXPECT_EQ(tree.groups[0].members.size(), 2u);
  ASSERT_EQ(tree.zones.size(), 2u);
  EXPECT_EQ(tree.zones[0].sets.size(), 2u);
  EXPECT_FALSE(tree.zones[1].sets[0].first.has_value());
  EXPECT_TRUE(tree.marks[1].each && !tree.marks[0].each);
  EXPECT_TRUE(tree.numbers[1].each && !tree.numbers[0].each);
  EXPECT_EQ(tree.defines[0].parameters.size(), 1u);
  EXPECT_EQ(tree.start->lines.size(), 8u);
  ASSERT_EQ(tree.turn->tiers.size(), 2u);
  EXPECT_EQ(tree.turn->tiers[0].size(), 2u);
  EXPECT_EQ(tree.turn->tiers[1][0].text, "pass");
  EXPECT_EQ(tree.always[0].change, -1);
  EXPECT_EQ(tree.always[1].change, 0);
  EXPECT_EQ(tree.symmetries[1].name, "half turn");
  EXPECT_EQ(tree.variants[0].second, "without guides");
}

TEST(Parser, ReadsMoves) {
  Tree tree = parsed(everything);
  ASSERT_EQ(tree.moves.size(), 2u);
  std::vector<StatementKind> kinds;
  for (const Statement& one : tree.moves[0].body) kinds.push_back(one.kind);
  using Kind = StatementKind;
  EXPECT_EQ(kinds, (std::vector<Kind>{Kind::pick, Kind::pick, Kind::let, Kind::need, Kind::shift,
                                      Kind::when, Kind::writtenAs}));
  const Statement& when = tree.moves[0].body[5];
  ASSERT_EQ(when.body.size(), 2u);
  EXPECT_EQ(when.body[0].names[0].text, "my");
  EXPECT_EQ(when.otherwise[0].kind, Kind::again);
  EXPECT_EQ(tree.moves[1].body[0].names.size(), 2u);
  EXPECT_EQ(tree.afters[0].moves[0].text, "go");
}

TEST(Parser, ReadsEnds) {
  Tree tree = parsed(everything);
  ASSERT_EQ(tree.ends.size(), 4u);
  EXPECT_TRUE(tree.ends[0].claim);
  EXPECT_EQ(tree.ends[0].kind, EndKind::draw);
  EXPECT_EQ(tree.ends[1].kind, EndKind::moverWins);
  EXPECT_EQ(tree.ends[2].kind, EndKind::sideWins);
  EXPECT_TRUE(tree.ends[2].sideLoses);
  EXPECT_EQ(tree.ends[3].kind, EndKind::leader);
  EXPECT_EQ(tree.ends[3].drawName, "level");
  EXPECT_EQ(toText(tree.ends[1].condition), "(my folk within my home)");
}

TEST(Parser, ReadsCases) {
  Tree tree = parsed(everything);
  ASSERT_EQ(tree.cases.size(), 1u);
  const CaseDecl& one = tree.cases[0];
  EXPECT_EQ(one.variant.text, "short");
  ASSERT_TRUE(one.position.has_value());
  EXPECT_EQ(one.position->lines[0].raw, "6/6/6/6/6; Slate to move");
  ASSERT_EQ(one.steps.size(), 4u);
  EXPECT_EQ(one.steps[0].kind, ExpectKind::play);
  EXPECT_EQ(one.steps[0].raw, "a2, b3");
  EXPECT_EQ(one.steps[2].subject.text, "a2");
  EXPECT_EQ(one.steps[2].raw, "a2-b2");
  EXPECT_EQ(one.steps[3].first, 1);
  EXPECT_EQ(one.steps[3].numbers, (std::vector<unsigned long long>{3, 4}));
}

TEST(Parser, AVariantReplacesTheSectionOfThatWordAndName) {
  Tree tree = parsed(everything, "short");
  ASSERT_EQ(tree.moves.size(), 2u);
  EXPECT_EQ(tree.moves[1].name.text, "carve");
  EXPECT_EQ(tree.moves[1].body.size(), 2u);
  EXPECT_EQ(tree.moves[0].body.size(), 7u);  // the other move stays
}

TEST(Parser, ErrorsInOneSectionDoNotHideThoseOfOthers) {
  Source source("test.pegs",
                "game x\nsides A\nboard square 3\nmove m\n  pick\n  put\nends\n  draw\n");
  std::vector<Diagnostic> found;
  parse(source, "", found);
  std::vector<int> lines;
  for (const Diagnostic& one : found) lines.push_back(one.place.line);
  for (int line : {2, 3, 5, 6, 8})
    EXPECT_NE(std::find(lines.begin(), lines.end(), line), lines.end()) << line;
}

TEST(Parser, ReservedWordsAreSortedIntoNoTwoUses) {
  std::vector<std::string> words = reservedWords();
  std::sort(words.begin(), words.end());
  EXPECT_EQ(std::adjacent_find(words.begin(), words.end()), words.end());
}

// --- The rules.

rules::Rules rulesOf(const std::string& lines, const std::string& board = "square 5 x 4") {
  std::string text = test::sheetWith(lines, board);
  auto source = std::make_shared<const Source>("test.pegs", text);
  std::vector<Diagnostic> found;
  rules::Rules out = check(parse(*source, "", found), source, found);
  for (const Diagnostic& one : found) ADD_FAILURE() << toText(one);
  return out;
}

std::vector<std::string> labels(const rules::Rules& sheet, const CellSet& cells) {
  std::vector<std::string> out;
  for (Cell cell = 0; cell < sheet.board.size(); ++cell)
    if (cells[cell]) out.push_back(sheet.board.label(cell));
  return out;
}

TEST(Checker, DirectionsAreSeenBySide) {
  rules::Rules sheet = rulesOf("");
  auto names = [&](const rules::Rules& s, const char* group, int side) {
    std::vector<std::string> out;
    for (int direction : rules::directionsOf(s.board, s.facing[side], group))
      out.push_back(s.board.directions()[direction].name);
    std::sort(out.begin(), out.end());
    return out;
  };
  using Names = std::vector<std::string>;
  EXPECT_EQ(names(sheet, "forward", 0), Names{"north"});
  EXPECT_EQ(names(sheet, "forward", 1), Names{"south"});
  EXPECT_EQ(names(sheet, "forward-diagonal", 1), (Names{"southeast", "southwest"}));
  EXPECT_EQ(names(sheet, "backward-diagonal", 0), (Names{"southeast", "southwest"}));
  EXPECT_EQ(names(sheet, "forward-any", 0), (Names{"north", "northeast", "northwest"}));
  rules::Rules east = rulesOf("facing east for Amber, west for Slate\n");
  EXPECT_EQ(names(east, "forward-diagonal", 0), (Names{"northeast", "southeast"}));
  EXPECT_EQ(names(east, "backward", 1), Names{"east"});
}

TEST(Checker, ConstantSetsAreWorkedOutOnce) {
  rules::Rules sheet = rulesOf(
      "zone a = (corner or c2) except a1\nzone b = north of row 1 on column c\n"
      "zone c = step diagonal from a1\nzone d = dark on row 1\n"
      "zone e = forward of row 2 for Amber, forward of row 2 for Slate\n");
  using Names = std::vector<std::string>;
  EXPECT_EQ(labels(sheet, sheet.zones[0].cells[0]), (Names{"e1", "c2", "a4", "e4"}));
  EXPECT_EQ(labels(sheet, sheet.zones[1].cells[1]), Names{"c2"});
  EXPECT_EQ(labels(sheet, sheet.zones[2].cells[0]), Names{"b2"});
  EXPECT_EQ(labels(sheet, sheet.zones[3].cells[0]), (Names{"a1", "c1", "e1"}));
  EXPECT_EQ(labels(sheet, sheet.zones[4].cells[0]), (Names{"a3", "b3", "c3", "d3", "e3"}));
  EXPECT_EQ(labels(sheet, sheet.zones[4].cells[1]), (Names{"a1", "b1", "c1", "d1", "e1"}));
}

TEST(Checker, EveryStatementHasItsLine) {
  rules::Rules sheet = rulesOf("after place   # a remark\n  take corner on mine\n");
  ASSERT_EQ(sheet.statements.size(), 4u);  // two of the move, one behind it, one end
  EXPECT_EQ(sheet.statements[0].text, "pick there in empty");
  EXPECT_EQ(sheet.statements[0].line, 10);
  EXPECT_EQ(sheet.statements[2].text, "take corner on mine");
  EXPECT_EQ(sheet.statements[2].role, rules::StatementInfo::Role::after);
  EXPECT_EQ(sheet.statements[3].role, rules::StatementInfo::Role::end);
}

}  // namespace parser_test
}  // namespace ninepegs::sheet
