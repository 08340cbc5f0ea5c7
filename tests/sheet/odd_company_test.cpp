// Names, kinds, definitions and forms in company that shipped sheets do not keep them in.
#include "support/games.hpp"

#include "ninepegs/verify/count.hpp"
#include "support/checked.hpp"

namespace ninepegs {
namespace odd_company_test {

using Texts = std::vector<std::string>;

verify::Counts counted(const Game& game, int depth) {
  verify::CountOptions options;
  options.depth = depth;
  return verify::count(game, game.start(), options);
}

std::string sheet(const std::string& names, const std::string& lines, const std::string& more = "",
                  const std::string& board = "square 3 x 3") {
  return "game t\nsides A and B\nboard " + board + "\npiece peg o x\n" + names + "move place\n" +
         lines + more + "ends\n  draw \"full\" when no empty\n";
}
std::string firstMessage(const std::string& text) {
  std::vector<Diagnostic> found = test::messages(text);
  return found.empty() ? "" : found.front().message;
}
const std::string place = "  pick there in empty\n  put peg on there\n";

TEST(OddCompany, AZoneMayUseOnlyTheZonesAboveIt) {
  EXPECT_NE(firstMessage(sheet("zone one = two\nzone two = row 1\n", place)).find("not known yet"),
            std::string::npos);
  EXPECT_NE(firstMessage(sheet("zone one = one\n", place)).find("not known yet"),
            std::string::npos);
  EXPECT_NE(firstMessage(sheet("zone one = two of A\nzone two = row 1 for A, row 2 for B\n", place))
                .find("not known yet"),
            std::string::npos);
  EXPECT_EQ(firstMessage(sheet("zone two = row 1\nzone one = two\n", place)), "");
  EXPECT_NE(
      firstMessage(sheet("zone one = step forward from row 1\n", place)).find("differs by side"),
      std::string::npos);
}

TEST(OddCompany, WhoseIsAskedOnlyOfWhatBelongsToASide) {
  for (const char* line :
       {"  need no (my there)\n", "  need any (there of A)\n", "  let n = 3\n  need my n > 2\n"})
    EXPECT_NE(firstMessage(
                  sheet("", "  pick there in empty\n" + std::string(line) + "  put peg on there\n"))
                  .find("belongs to no side"),
              std::string::npos);
  EXPECT_NE(firstMessage(sheet("define free(s) = my s\n",
                               "  pick there in free(empty)\n  put peg on there\n"))
                .find("belongs to no side"),
            std::string::npos);
  EXPECT_NE(
      firstMessage(sheet("mark won each\n", "  pick there in empty\n  need no (my won of A)\n"))
          .find("both say whose"),
      std::string::npos);
}

TEST(OddCompany, ADefinitionMeansWhatItsArgumentsAre) {
  // The same body on cells, on sets and on numbers.
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\ndefine same(a, b) = a = b\n"
      "move place\n  pick there in empty\n  need same((mine or theirs), occupied)\n  put peg on "
      "there\n"
      "ends\n  draw \"full\" when same(a1, c3) or same(count empty, 0)\n");
  EXPECT_EQ(moveTexts(*game, game->start()).size(), 9u);
  EXPECT_EQ(counted(*game, 3).sequences, 504u);
  std::shared_ptr<const SheetGame> kinds = test::fromText(
      "game t\nsides A and B\nboard square 3 x 3\npiece cutter c C\npiece peg o x\n"
      "define some(k) = any their k\nstart\n  . . .\n  . C .\n  . . .\nmove place\n  pick there in "
      "empty\n"
      "  need some(cutter)\n  need not some(peg)\n  put peg on there\nends\n  draw \"full\" when "
      "no empty\n");
  EXPECT_EQ(moveTexts(*kinds, kinds->start()).size(), 8u);
}

TEST(OddCompany, ATextHoldsOnlyWhatWasMadeAboveIt) {
  EXPECT_NE(firstMessage(sheet("", "  tell over\n" + place + "  choose over from 3 to 5\n"))
                .find("further down"),
            std::string::npos);
  EXPECT_NE(firstMessage(sheet("", "  write many\n" + place + "  pick many in empty\n"))
                .find("further down"),
            std::string::npos);
  EXPECT_EQ(firstMessage(sheet("", place + "  pick many in empty\n  written as there many\n")), "");
}

// A block that was not run leaves its names without a value.
TEST(OddCompany, NamesOfBlocksThatWereNotRunHaveNoValue) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 3 x 1\npiece peg o x\nmark met\nnumber tally\nmove "
      "place\n"
      "  pick there in empty\n  put peg on there\n  when there in b1\n    let found = row 1\n"
      "    let many = 7\n    pick other in empty\n  written as there \"/\" other\n"
      "after place\n  add found to met\n  set tally to tally + many\n  take other\n"
      "ends\n  draw \"full\" when no empty\n");
  EXPECT_EQ(moveTexts(*game, game->start()), (Texts{"a1", "b1/a1", "b1/c1", "c1"}));
  EXPECT_EQ(game->positionText(test::after(*game, "a1")), "o2; B to move");
  EXPECT_EQ(game->positionText(test::after(*game, "b1/c1")),
            "1o1; met a1 b1 c1; tally 7; B to move");
  EXPECT_EQ(game->positionText(test::after(*game, "b1/a1, c1")),
            "1ox; met a1 b1 c1; tally 7; A to move");
}

TEST(OddCompany, OneNameHasOneMeaningInAMove) {
  EXPECT_NE(
      firstMessage(
          sheet("", place + "  when there in a1\n    let x = 3\n  otherwise\n    let x = b1\n"))
          .find("in another block"),
      std::string::npos);
}

std::string faultAfter(const std::string& text, const std::string& moves) {
  std::shared_ptr<const SheetGame> game = test::fromText(text);
  Result result = game->result(test::after(*game, moves));
  return result.kind == ResultKind::fault ? std::to_string(result.line) + ": " + result.name : "";
}

TEST(OddCompany, AKindThatIsNoneIsAFaultOfTheSheet) {
  std::string none = "  pick there in empty\n  let k = kind on there\n";
  EXPECT_NE(faultAfter(sheet("", none + "  put k on there\n"), "a1")
                .find("8: `put k on there` names no kind"),
            std::string::npos);
  EXPECT_NE(
      faultAfter(sheet("", none + "  put peg on there\n  change there into k\n"), "a1").find("9: "),
      std::string::npos);
  EXPECT_NE(faultAfter(sheet("", none + "  put k on there from my hand\n"), "a1").find("8: "),
            std::string::npos);
}

TEST(OddCompany, KindsStayWhoseTheyCanBe) {
  std::string stone =
      sheet("piece stone * neutral\n",
            "  choose what from peg, stone\n  pick there in empty\n  put what on there\n");
  std::shared_ptr<const SheetGame> game = test::fromText(stone);
  EXPECT_EQ(game->positionText(test::after(*game, "stone-a1, stone-b1")), "3/3/**1; A to move");
  EXPECT_EQ(game->pieceAt(test::after(*game, "stone-a1"), 0, 0)->side, -1);
  std::string fox =
      sheet("piece fox f for A\n",
            "  choose what from peg, fox\n  pick there in empty\n  put what on there\n");
  EXPECT_NE(faultAfter(fox, "peg-a1, fox-b1").find("9: "), std::string::npos);
  EXPECT_EQ(faultAfter(fox, "fox-a1, peg-b1"), "");
  EXPECT_NE(faultAfter(sheet("piece fox f for A\nstart\n  f . .\n  . . .\n  . . .\n",
                             place + "  flip fox\n"),
                       "a1")
                .find("on a3"),
            std::string::npos);
  EXPECT_NE(faultAfter(sheet("piece stone * neutral\nstart\n  * . .\n  . . .\n  . . .\n",
                             place + "  change a3 into peg\n"),
                       "a1")
                .find("13: "),
            std::string::npos);
}

TEST(OddCompany, OneLetterOneThingWhereverTheBoardIsDeclared) {
  EXPECT_NE(
      firstMessage(
          "game t\nsides A and B\npiece saw s S\nboard square 3 x 3, one each\npiece skiff s\n"
          "move place\n  pick there in my empty\n  put saw on there\nends\n"
          "  draw \"full\" when plies > 5\n")
          .find("stands for two pieces"),
      std::string::npos);
}

TEST(OddCompany, ASetMayBePartOfThePositionThatItChanges) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 3 x 1\npiece peg o x\npiece saw s z\nmove fill\n"
      "  pick there in empty\n  put saw on empty\nends\n  draw \"full\" when no empty\n");
  EXPECT_EQ(game->positionText(test::after(*game, "a1")), "sss; B to move");
}

TEST(OddCompany, LinesThroughACellAreCountedAndTotalled) {
  auto text = [](const std::string& condition) {
    return "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\nmove place\n  pick there in "
           "empty\n"
           "  need " +
           condition + "\n  put peg on there\nends\n  draw \"full\" when no empty\n";
  };
  auto many = [&](const std::string& condition) {
    std::shared_ptr<const SheetGame> game = test::fromText(text(condition));
    return moveTexts(*game, game->start()).size();
  };
  EXPECT_EQ(many("count lines of 3 in all through there = 4"), 1u);  // the middle
  EXPECT_EQ(many("count lines of 3 in all through there = 3"), 4u);  // the corners
  EXPECT_EQ(many("(total 1 for L in lines of 3 in all through there) = 3"), 4u);
  EXPECT_NE(
      firstMessage(sheet("", "  pick x in lines of exactly 3 in all\n" + place)).find("exactly"),
      std::string::npos);
}

TEST(OddCompany, LongLinesAreFoundOnLongBoards) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 100 x 1\npiece peg o x\nmove place\n  pick n in lines "
      "of (89 + 1) in empty\n"
      "  put peg on n\nends\n  mover wins \"long\" when any line of 64 in mine\n");
  EXPECT_EQ(moveTexts(*game, game->start()).size(), 11u);
  EXPECT_EQ(game->result(test::after(*game, "a1-cl1")).name, "long");
}

TEST(OddCompany, LinesOfAnyLengthAreAsLongAsTheBoard) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard points\n  line a1 b1 b2 a2\npiece peg o x\nmove place\n"
      "  pick n in lines of (4 + count mine) in empty\n  put peg on n\nends\n  draw \"full\" when "
      "no empty\n");
  EXPECT_EQ(moveTexts(*game, game->start()).size(), 1u);
}

// What a piece attacks is looked at from each piece by itself.
TEST(OddCompany, AReachOfSeveralPartsIsEachPiecesOwn) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 3 x 3\npiece peg o x reach (step north) on (step any "
      "from row 1)\n"
      "piece saw s z reach (step orthogonal) except (step east)\nstart\n  . . .\n  s . s\n  o . o\n"
      "move place\n  pick there in my reach on empty\n  put peg on there\nends\n  draw \"full\" "
      "when no empty\n");
  EXPECT_EQ(moveTexts(*game, game->start()), (Texts{"a3", "b2", "c3"}));
  EXPECT_NE(firstMessage("game t\nsides A and B\nboard square 3 x 3\npiece peg o x reach their "
                         "reach\nmove place\n" +
                         place + "ends\n  draw \"full\" when no empty\n")
                .find("cannot ask for a reach"),
            std::string::npos);
}

TEST(OddCompany, ARunIsBracketedAlongOneWayOnly) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 1 x 5\npiece peg o x\nstart\n  .\n  o\n  x\n  .\n  .\n"
      "move place\n  pick there in empty\n  need any (bracketed theirs from there by mine along "
      "north)\n"
      "  put peg on there\nturn place else pass\nends\n  draw \"full\" when no empty\n");
  EXPECT_EQ(moveTexts(*game, game->start()), Texts{"a2"});
}

TEST(OddCompany, WasAsksWhatStoodWhereThen) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 3 x 1\npiece peg o x value 2\nstart\n  o . .\nnumber "
      "tally\n"
      "move go\n  pick here in mine\n  pick there in empty\n  shift here to there\n"
      "  set tally to (was (value of here)) * 10 + value of here\nturn go else pass\n"
      "ends\n  draw \"full\" when no empty\n");
  EXPECT_EQ(game->positionText(test::after(*game, "a1-c1")), "2o; tally 20; B to move");
  EXPECT_NE(firstMessage(sheet("", place, "", "square 3 x 3") + "  draw \"x\" when was (stuck)\n")
                .find("cannot ask"),
            std::string::npos);
}

TEST(OddCompany, AnnouncementsAreLinesOfTheirOwn) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 2 x 1\npiece peg o x\nmove place\n  pick there in "
      "empty\n  tell \"one\"\n"
      "  pick more in mine, if any\n  put peg on there\n  tell more \"two\"\nends\n  draw \"full\" "
      "when no empty\n");
  MoveList list;
  game->listMoves(game->start(), list);
  EXPECT_EQ(game->textsOf(game->start(), list[0]).told, (Texts{"one", "two"}));
}

TEST(OddCompany, WaysThatComeToTheSameAreOneMove) {
  // Rounds that a text does not show, lines with the same ends, a pick that changes nothing.
  auto many = [](const std::string& board, const std::string& lines) {
    std::shared_ptr<const SheetGame> game = test::fromText(
        "game t\nsides A and B\nboard " + board + "\npiece peg o x\nmark met\nmove place\n" +
        lines + "ends\n  draw \"full\" when no empty\n");
    return moveTexts(*game, game->start()).size();
  };
  EXPECT_EQ(many("square 3 x 1",
                 "  pick there in empty\n  put peg on there\n  repeat up to 2 times\n    add there "
                 "to met\n"),
            6u);
  EXPECT_EQ(many("square 4 x 1, joined left to right",
                 "  pick n in lines of 3 in all\n  add all to met\n"),
            3u);
  EXPECT_EQ(many("square 3 x 1", "  pick there in all\n  take there\n  written as \"m\"\n"), 1u);
}

TEST(OddCompany, NumbersOfAnySizeReadBack) {
  std::shared_ptr<const SheetGame> game =
      test::fromText(sheet("number n\n", place + "  set n to n * 3000000000 + 4000000000\n"));
  Position position = test::after(*game, "a1, b1, c1");
  std::string text = game->positionText(position);
  EXPECT_NE(text.find("2295315174222669824"), std::string::npos) << text;
  EXPECT_EQ(game->positionText(game->readPosition(text, "test")), text);
}

TEST(OddCompany, AClockBelowZeroIsAFaultAndItsFenReadsBack) {
  std::string text = sheet("number n\n", place + "  set n to n - 5\n", "notation fen\n  clock n\n");
  EXPECT_NE(faultAfter(text, "a1").find("below 0"), std::string::npos);
  std::shared_ptr<const SheetGame> game = test::fromText(text);
  std::string fen = game->notation(test::after(*game, "a1"));
  EXPECT_EQ(game->notation(game->readPosition(fen, "test")), fen);
  std::shared_ptr<const SheetGame> row =
      test::fromText(sheet("", place, "notation fen\n  unnamed peg\n", "square 4 x 1"));
  EXPECT_EQ(row->notation(row->readPosition(row->notation(row->start()), "test")),
            row->notation(row->start()));
  EXPECT_FALSE(
      test::messages(sheet("mark m\n", place, "notation fen\n  castling KK a1 in m\n")).empty());
}

// The side that moves twice running is the one that won.
TEST(OddCompany, AWinWithAnotherMoveIsTheMoversAndShown) {
  std::string head =
      "game t\nsides Cross and Nought\nboard square 3 x 3, labels numbered\npiece peg X O\nmove "
      "place\n"
      "  pick there in empty\n  put peg on there\n  again\nends\n";
  std::shared_ptr<const SheetGame> game =
      test::fromText(head + "  mover wins \"three\" when any line of 3 in mine\n");
  Position won = test::after(*game, "1, 2, 3");
  EXPECT_EQ(game->shownCells(won).count(), 3u);
  Position again = game->readPosition(game->positionText(won), "test");
  EXPECT_EQ(game->result(again), game->result(won));
  std::shared_ptr<const SheetGame> draw =
      test::fromText(head +
                     "  draw \"pegs\" when count occupied >= 3\n  mover wins \"three\" when any "
                     "line of 3 in mine\n");
  verify::CheckReport report = test::checked(*draw, 200);
  ASSERT_EQ(report.findings.size(), 1u);
  EXPECT_EQ(report.findings[0].kind, verify::FindingKind::drawOverWin);
  EXPECT_EQ(report.findings[0].moves.size(), 3u);
}

}  // namespace odd_company_test
}  // namespace ninepegs
