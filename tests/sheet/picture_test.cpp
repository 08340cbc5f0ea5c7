// The section `picture`: what it may say, and that it changes no rule.
#include <gtest/gtest.h>

#include "ninepegs/sheet/rules/printer.hpp"
#include "ninepegs/verify/check.hpp"
#include "support/games.hpp"

namespace ninepegs {
namespace picture_test {

const std::string sheet =
    "game odd\nsides Amber and Slate\nboard square 5 x 5\npiece peg o x\npiece saw s t\n"
    "mark won each\nnumber seeds on cells\nnumber left\nzone home = row 1 for Amber, row 5 for "
    "Slate\nmove place\n  pick there in empty\n  put peg on there\n"
    "ends\n  draw \"full\" when no empty\n";

std::string refused(const std::string& lines) {
  std::vector<Diagnostic> found = test::messages(sheet + "picture\n" + lines);
  return found.empty() ? "" : found.front().message;
}

TEST(Picture, SaysHowThingsAreDrawn) {
  auto game = test::fromText(sheet +
                             "picture\n  saw as bar\n  won as cross\n  seeds as pips\n"
                             "  border round row 1, column a\n  odd rows on odd columns as "
                             "corners\n  even rows on odd columns as edges\n");
  const Looks& looks = game->looks();
  EXPECT_EQ(looks.ofKind(0), PieceLook::peg);
  EXPECT_EQ(looks.ofKind(1), PieceLook::bar);
  EXPECT_EQ(looks.ofMark("won of Slate"), MarkLook::cross);
  EXPECT_EQ(looks.ofMark("other"), MarkLook::corner);
  EXPECT_EQ(looks.pips, std::set<std::string>{"seeds"});
  ASSERT_EQ(looks.borders.size(), 2u);
  EXPECT_EQ(looks.borders[0].count(), 5u);
  EXPECT_EQ(looks.corners.count(), 9u);
  EXPECT_EQ(looks.edges.count(), 6u);
  Cell a2 = *game->board().find("a2");
  EXPECT_FALSE(runsAcross(looks, game->board(), a2));
}

TEST(Picture, IsPrintedAndReadAgain) {
  for (const char* name : {"nine-boards", "fences", "hollows"}) {
    auto game = std::dynamic_pointer_cast<const SheetGame>(test::drawn(name));
    auto again = test::fromText(rules::toText(game->rules()));
    EXPECT_EQ(again->looks().borders, game->looks().borders) << name;
    EXPECT_EQ(again->looks().pieces, game->looks().pieces) << name;
    EXPECT_EQ(again->looks().marks, game->looks().marks) << name;
    EXPECT_EQ(again->looks().pips, game->looks().pips) << name;
    EXPECT_EQ(again->looks().edges, game->looks().edges) << name;
    EXPECT_EQ(again->looks().corners, game->looks().corners) << name;
  }
}

TEST(Picture, IsReplacedByAVariant) {
  std::string text = sheet +
                     "picture\n  saw as bar\n"
                     "variant other\n  picture\n    saw as tile\n";
  EXPECT_EQ(test::fromText(text)->looks().ofKind(1), PieceLook::bar);
  EXPECT_EQ(test::fromText(text, "other")->looks().ofKind(1), PieceLook::tile);
}

TEST(Picture, RefusesWhatCannotBe) {
  EXPECT_EQ(refused("  saw as barr\n"), "a piece cannot be drawn as \"barr\"");
  EXPECT_EQ(refused("  won as pips\n"), "a mark cannot be drawn as \"pips\"");
  EXPECT_EQ(refused("  seeds as ring\n"), "a number on cells cannot be drawn as \"ring\"");
  EXPECT_EQ(refused("  row 1 as ring\n"), "a set of cells cannot be drawn as \"ring\"");
  EXPECT_EQ(refused("  border round empty\n"),
            "`empty` depends on the pieces and has no place here");
  EXPECT_EQ(refused("  border round my home\n"), "`my` has no place here: no side is meant");
  EXPECT_EQ(refused("  border round forward of row 1\n"), "this set differs by side");
  EXPECT_EQ(refused("  border round row 1 except row 1\n"), "this set has no cells");
  EXPECT_EQ(refused("  row 1 as edges\n"), "edges lie between corners, and none are named");
  EXPECT_EQ(refused("  row 1 as edges\n  column a as corners\n"),
            "a cell cannot be an edge and a corner");
  EXPECT_EQ(refused("  won as dot\n  won as ring\n"), "\"won\" stands here a second time");
  EXPECT_NE(refused("  border rows 1 to 2\n"), "");
  EXPECT_NE(refused("  saw\n"), "");
  EXPECT_NE(refused("  left as pips\n"), "");
  EXPECT_NE(refused(""), "");
  std::string hexes = sheet;
  hexes.replace(hexes.find("square 5 x 5"), 12, "rhombus 5 x 5");
  std::vector<Diagnostic> found = test::messages(hexes + "picture\n  border round row 1\n");
  ASSERT_FALSE(found.empty());
  EXPECT_EQ(found.front().message, "a border is drawn on a square board of one level only");
}

// Three games that have one: nothing is wrong with their rules.
TEST(Picture, ExamplesHoldNoFault) {
  for (const char* name : {"nine-boards", "fences", "hollows"}) {
    verify::CheckOptions options;
    options.playouts = 300;
    verify::CheckReport report = verify::check(*test::drawn(name), options);
    for (const verify::Finding& one : report.findings) ADD_FAILURE() << name << one.message;
    EXPECT_GE(report.examples.size(), 2u) << name;
  }
}

}  // namespace picture_test
}  // namespace ninepegs
