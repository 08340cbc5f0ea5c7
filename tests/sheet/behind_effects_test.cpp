// What decides on a move behind its first effect decides, whatever shortcut the sheet invites.
#include "support/games.hpp"

#include "support/checked.hpp"

namespace ninepegs {
namespace behind_effects_test {

using Texts = std::vector<std::string>;

// A peg that steps, a king of each side far away, and a forbidden attack on the own king.
std::shared_ptr<const SheetGame> guarded(const std::string& behind, const std::string& other = "") {
  return test::fromText(
      "game t\nsides A and B\nboard square 5 x 4\npiece peg o x reach step any\n"
      "piece king k K reach step any\nstart\n  K . . . .\n  . . . . .\n  o . . . .\n  k . . . .\n"
      "move go\n  pick here in my peg\n  pick there in empty on step any from here\n"
      "  shift here to there\n" +
      behind + other +
      "forbid \"attacked\" when any my king on their reach\n"
      "ends\n  mover wins \"mate\" when no their king\n");
}
Texts moves(const Game& game) {
  return moveTexts(game, game.start());
}

TEST(BehindEffects, NeedsHoldWithAForbiddenAttack) {
  EXPECT_EQ(moves(*guarded("  need count all = 0\n  written as here there\n")), Texts{});
  EXPECT_EQ(moves(*guarded("  let free = count all\n  need free = 0\n  written as here there\n")),
            Texts{});
  EXPECT_EQ(moves(*guarded("  need there in a3\n  written as here there\n")), Texts{"a2a3"});
}

TEST(BehindEffects, PicksHoldWithAForbiddenAttack) {
  EXPECT_EQ(moves(*guarded("  pick x in corner on row 2\n  written as here there\n")), Texts{});
  EXPECT_EQ(moves(*guarded("  pick x in step any from there on row 4\n")),
            (Texts{"a2-a3-a4", "a2-a3-b4", "a2-b3-a4", "a2-b3-b4", "a2-b3-c4"}));
  EXPECT_EQ(moves(*guarded("  pick x in lines of 4 in row 1\n  written as here there\n")),
            (Texts{"a2a3", "a2b1", "a2b2", "a2b3"}));
  EXPECT_EQ(moves(*guarded("  choose n from 1 to 2\n")).size(), 8u);
}

TEST(BehindEffects, LinesOfAfterBlocksHold) {
  EXPECT_EQ(moves(*guarded("", "after go\n  need no (there on row 3)\n")),
            (Texts{"a2-b1", "a2-b2"}));
}

TEST(BehindEffects, NeedsInChessHold) {
  std::string chess = readFile(test::shippedSheet("chess"), 1 << 20);
  std::size_t at = chess.find("  shift here to there\n");
  ASSERT_NE(at, std::string::npos);
  std::shared_ptr<const SheetGame> none =
      test::fromText(chess.substr(0, chess.find("case ")).insert(at + 22, "  need 1 > 2\n"));
  EXPECT_LT(moves(*none).size(), 20u);
}

// A piece of the other side that is moved may come to attack.
TEST(BehindEffects, AMovedPieceOfTheOtherSideIsTried) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 4 x 3\npiece peg o x reach step any\n"
      "piece king k K reach step any\nstart\n  . . . x\n  . . . .\n  k . . .\n"
      "move push\n  pick here in theirs\n  pick there in empty\n  shift here to there\n"
      "forbid \"attacked\" when any my king on their reach\nends\n  draw \"no\" when no all\n");
  for (const std::string& text : moves(*game))
    EXPECT_TRUE(text != "d3-a2" && text != "d3-b1" && text != "d3-b2") << text;
  EXPECT_EQ(moves(*game).size(), 7u);
}

TEST(BehindEffects, WhatGoesWrongOnTrialIsAFaultAndNoIllegalMove) {
  std::string sheet =
      "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\n"
      "move place\n  pick there in all\n  put peg on there\n";
  for (const char* forbid : {"", "forbid \"never\" when 1 > 2\n"}) {
    std::shared_ptr<const SheetGame> game =
        test::fromText(sheet + forbid + "ends\n  draw \"full\" when no empty\n");
    EXPECT_EQ(moveTexts(*game, test::after(*game, "a1")).size(), 9u) << forbid;
    verify::CheckReport report = test::checked(*game, 100);
    ASSERT_EQ(report.findings.size(), 1u);
    EXPECT_EQ(report.findings[0].kind, verify::FindingKind::overwrite);
    EXPECT_EQ(report.findings[0].line, 7);
    EXPECT_EQ(report.findings[0].moves, (Texts{"a1", "a1"}));
  }
}

// One of two pieces from a hand that holds one, and a shift that goes wrong before the hand is
// asked.
TEST(BehindEffects, EveryPieceFromTheHandMustBeThere) {
  auto game = [](const std::string& lines) {
    return test::fromText(
        "game t\nsides A and B\nboard square 3 x 1\npiece peg o x\npiece saw s z\n"
        "start\n  . . .\n  hand of each peg\nmove place\n" +
        lines + "ends\n  draw \"full\" when no empty\n");
  };
  EXPECT_EQ(moves(*game("  pick there in empty\n  put peg on there from my hand\n")).size(), 3u);
  EXPECT_EQ(
      moves(*game("  pick there in empty\n  put peg on there from my hand\n  pick more in empty\n"
                  "  put peg on more from my hand\n")),
      Texts{});
  EXPECT_EQ(
      moves(*game("  choose k from peg, saw\n  pick there in empty\n  set k to kind on there\n"
                  "  put peg on there from my hand\n"))
          .size(),
      3u);  // whatever was chosen, it is none
  EXPECT_EQ(
      moves(*game("  pick there in empty\n  put saw on there\n  put saw on there from my hand\n")),
      Texts{});
}

TEST(BehindEffects, PassesInARowAreOverWhenAMoveIsTried) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 2 x 1\npiece peg o x\nmove place\n  pick there in "
      "empty\n"
      "  put peg on there\nforbid \"passed\" when passes > 0\nturn place or pass\n"
      "ends\n  draw \"two passes\" when passes >= 2\n");
  EXPECT_EQ(moveTexts(*game, test::after(*game, "pass")), (Texts{"a1", "b1", "pass"}));
}

TEST(BehindEffects, APositionMayNotComeUpAgain) {
  std::string sheet =
      "game t\nsides A and B\nboard square 3 x 1\npiece peg o x\nstart\n  o . x\n"
      "move go\n  pick here in mine\n  pick there in empty on step any from here\n"
      "  shift here to there\n";
  std::string ends = "turn go else pass\nends\n  draw \"long\" when plies > 30\n";
  std::string back = "a1-b1, pass, b1-a1";
  EXPECT_EQ(moveTexts(*test::fromText(sheet + ends),
                      test::after(*test::fromText(sheet + ends), "a1-b1, pass")),
            Texts{"b1-a1"});
  std::shared_ptr<const SheetGame> game = test::fromText(
      sheet + "forbid \"again\" when times seen >= 2\nrepetition compares pieces\n" + ends);
  EXPECT_EQ(moveTexts(*game, test::after(*game, "a1-b1, pass")), Texts{"pass"});
  // What was not yet seen is allowed.
  EXPECT_EQ(moves(*game), Texts{"a1-b1"});
  EXPECT_FALSE(
      test::messages(sheet + "forbid \"x\" when times seen >= 2\nrepetition compares pieces, go\n" +
                     ends)
          .empty());
}

TEST(BehindEffects, MeasuresAreNotMixedUpByWhatIsAskedOnTheWay) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 3 x 1\npiece peg o x\nmove place\n  pick there in "
      "empty\n"
      "  put peg on there\n  must maximise column-no of there\n"
      "forbid \"again\" when times seen >= 2\nends\n  draw \"full\" when no empty\n");
  EXPECT_EQ(moves(*game), Texts{"c1"});
}

}  // namespace behind_effects_test
}  // namespace ninepegs
