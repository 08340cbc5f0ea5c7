// One small game for each part of the language that the shipped games do not show alone.
#include <algorithm>
#include <set>

#include "ninepegs/verify/count.hpp"
#include "support/games.hpp"

namespace ninepegs::sheet {
namespace language_test {

// A sheet on a board with pegs and saws, around the given lines; it ends when Amber holds a1 no
// more and nothing else.
std::shared_ptr<const SheetGame> around(const std::string& lines,
                                        const std::string& board = "square 4 x 4") {
  return test::fromText("game trial\nsides Amber and Slate\nboard " + board +
                        "\npiece peg o x reach step any\npiece saw s z reach slide orthogonal\n" +
                        lines + "\nends\n  draw \"never\" when plies > 900\n");
}

std::vector<std::string> moves(const Game& game, const std::string& position) {
  return moveTexts(game, game.readPosition(position, "test"));
}

using Texts = std::vector<std::string>;

TEST(Language, LevelsHaveStepsAndLinesBetweenThem) {
  std::shared_ptr<const SheetGame> cube = test::fromText(
      "game cube\nsides Amber and Slate\nboard square 4 x 4 x 4\npiece peg o x\n"
      "move place\n  pick there in empty\n  put peg on there\n"
      "ends\n  mover wins \"four\" when any line of 4 in mine\n  draw \"full\" when no empty\n");
  EXPECT_EQ(cube->board().all().count(), 64u);
  // The 76 lines of four in a cube of four: 48 straight, 24 in a plane's diagonal, 4 in space.
  EXPECT_EQ(cube->board().lines(4, cube->board().axes(cube->board().directionGroup("any"))).size(),
            76u);
  Position won = test::after(*cube, "a1.1, a2.1, b2.2, a3.1, c3.3, a4.2, d4.4");
  EXPECT_EQ(cube->result(won).name, "four");
  EXPECT_EQ(cube->result(won).winner, 0);
}

TEST(Language, HexagonAndRhombusHaveSixDirections) {
  Geometry hexagon = Geometry::hexagon(3);
  EXPECT_EQ(hexagon.all().count(), 19u);
  EXPECT_EQ(hexagon.edge().count(), 12u);
  EXPECT_EQ(hexagon.corner().count(), 6u);
  auto neighbours = [](const Geometry& board, const char* label) {
    std::set<std::string> out;
    for (std::size_t way = 0; way < board.directions().size(); ++way)
      if (std::optional<Cell> cell = board.step(*board.find(label), static_cast<int>(way)))
        out.insert(board.label(*cell));
    return out;
  };
  EXPECT_EQ(neighbours(hexagon, "c3"), (std::set<std::string>{"b2", "c2", "b3", "d3", "b4", "c4"}));
  EXPECT_EQ(neighbours(hexagon, "a1"), (std::set<std::string>{"b1", "a2", "b2"}));
  EXPECT_EQ(neighbours(Geometry::rhombus(3, 3), "b2"),
            (std::set<std::string>{"b3", "c2", "c1", "b1", "a2", "a3"}));
  for (const Symmetry& one : hexagon.symmetries("all"))
    EXPECT_EQ(std::set<Cell>(one.image.begin(), one.image.end()).size(), one.image.size())
        << one.name;
  EXPECT_EQ(hexagon.symmetries("all").size(), 4u);  // two reflections, half and sixth turn
  EXPECT_TRUE(hexagon.symmetries("quarter turn").empty());
}

TEST(Language, PointsKnowOnlyTheirLines) {
  Geometry board = Geometry::points({{"a1", "b1", "c1"}, {"a1", "b2", "c3"}, {"c1", "b2", "a3"}});
  EXPECT_EQ(board.all().count(), 6u);
  EXPECT_EQ(board.lines(3, board.axes(board.directionGroup("any"))).size(), 3u);
  EXPECT_FALSE(board.directionGroup("orthogonal").size() > 0);
}

TEST(Language, RepeatWhilePossibleFollowsEveryWayToItsEnd) {
  const char* jump =
      "move jump\n  pick here in my peg\n  write here\n  repeat while possible\n"
      "    pick over in theirs on reach of here\n    let there = beyond over from here\n"
      "    need there in empty\n    take over\n    shift here to there\n    write \"x\" there\n"
      "    set here to there\n";
  std::shared_ptr<const SheetGame> game = around(jump);
  EXPECT_EQ(moves(*game, "o3/4/4/3x"), Texts{});
  // Over b3 to c2 and on over c3 to c4, and there is no stopping at c2.
  EXPECT_EQ(moves(*game, "o3/1xx1/4/4"), (Texts{"a4xc2xc4"}));
  // Up over b3, then down over c3.
  EXPECT_EQ(moves(*game, "4/1xx1/o3/4"), (Texts{"a2xc4xc2"}));
  // Two ways, each to its end.
  EXPECT_EQ(moves(*game, "4/1x2/o3/1x2"), (Texts{"a2xc4"}));
  EXPECT_EQ(moves(*game, "4/xx2/o3/4"), (Texts{"a2xa4xc2", "a2xc4"}));
  Position taken = playMoves(*game, game->readPosition("o3/1xx1/4/4", "test"), "a4xc2xc4", "test");
  EXPECT_EQ(game->positionText(taken), "2o1/4/4/4; Slate to move");
}

TEST(Language, RepeatAnyTimesMayStopAndUpToMayMakeNone) {
  const char* walk =
      "move walk\n  pick here in my peg\n  write here\n  repeat any times\n"
      "    let there = east of here on empty\n    need any there\n    shift here to there\n"
      "    set here to there\n    write \">\" here\n";
  EXPECT_EQ(moves(*around(walk), "4/4/4/o3"), (Texts{"a1>b1", "a1>b1>c1", "a1>b1>c1>d1"}));
  const char* some =
      "move walk\n  pick here in my peg\n  write here\n  repeat up to 2 times\n"
      "    let there = east of here on empty\n    need any there\n    shift here to there\n"
      "    set here to there\n    write \">\" here\n";
  EXPECT_EQ(moves(*around(some), "4/4/4/o3"), (Texts{"a1", "a1>b1", "a1>b1>c1"}));
  const char* exact =
      "move walk\n  pick here in my peg\n  write here\n  repeat 2 times\n"
      "    pick there in empty on step orthogonal from here\n    shift here to there\n"
      "    set here to there\n    write \">\" here\n";
  // There and back counts, too: it leaves the position as it was.
  EXPECT_EQ(moves(*around(exact), "4/4/4/o3"),
            (Texts{"a1>a2>a1", "a1>a2>a3", "a1>a2>b2", "a1>b1>a1", "a1>b1>b2", "a1>b1>c1"}));
}

TEST(Language, MaximiseKeepsOnlyTheGreatest) {
  const char* grab =
      "move grab\n  pick there in empty\n  put peg on there\n  take theirs on step orthogonal from "
      "there\n"
      "  must maximise count was theirs - count theirs\n";
  EXPECT_EQ(moves(*around(grab), "4/1x2/x1x1/4"), (Texts{"b2"}));
  EXPECT_EQ(moves(*around(grab), "4/4/4/x3"), (Texts{"a2", "b1"}));
}

TEST(Language, SowingGoesRoundATrack) {
  const char* sow =
      "number seeds on cells\ntrack round = a1 b1 b2 a2\n"
      "move sow\n  pick house in cells c in all where seeds of c > 0\n  let hold = seeds of house\n"
      "  let at = house\n  set seeds of house to 0\n  repeat hold times\n"
      "    set at to next along round from at\n    set seeds of at to seeds of at + 1\n"
      "  written as house\n";
  std::shared_ptr<const SheetGame> game = around(sow, "square 2 x 2");
  Position start = game->readPosition("2/2; seeds 5 0 0 1", "test");
  EXPECT_EQ(moveTexts(*game, start), (Texts{"a1", "b2"}));
  // From a1: b1, b2, a2, a1 again, b1 again.
  EXPECT_EQ(game->positionText(playMoves(*game, start, "a1", "test")),
            "2/2; seeds 1 2 1 2; Slate to move");
  EXPECT_EQ(game->positionText(playMoves(*game, start, "b2", "test")),
            "2/2; seeds 5 0 1 0; Slate to move");
}

TEST(Language, GroupsWithoutAFreeNeighbourAreTaken) {
  const char* place =
      "move place\n  pick there in empty\n  put peg on there\n"
      "  take groups g in theirs along orthogonal where no (step orthogonal from g on empty)\n";
  std::shared_ptr<const SheetGame> game = around(place);
  Position start = game->readPosition("4/4/oo2/xx2", "test");
  EXPECT_EQ(game->positionText(playMoves(*game, start, "c1", "test")),
            "4/4/oo2/2o1; Slate to move");
  EXPECT_EQ(game->positionText(playMoves(*game, start, "d4", "test")),
            "3o/4/oo2/xx2; Slate to move");
}

TEST(Language, ExactLinesDoNotGoOn) {
  std::shared_ptr<const SheetGame> game = around(
      "define three = lines of exactly 3 in mine along east\nmove mark-them\n"
      "  pick there in three\n  take there\n",
      "square 5 x 2");
  EXPECT_EQ(moves(*game, "ooo2/5"), (Texts{"a2", "b2", "c2"}));
  EXPECT_EQ(moves(*game, "oooo1/2ooo"), (Texts{"c1", "d1", "e1"}));
  std::shared_ptr<const SheetGame> exact =
      SheetGame::fromText("five", readFile(test::shippedSheet("five-in-a-row"), 100'000), "exact");
  EXPECT_EQ(exact->result(test::after(*exact, "a1, a3, b1, b3, c1, c3, e1, e3, f1, f3, d1")).kind,
            ResultKind::ongoing);
  EXPECT_EQ(exact->result(test::after(*exact, "a1, a3, b1, b3, c1, c3, e1, e3, d1")).winner, 0);
}

TEST(Language, PicksBehindEffectsAndIfAny) {
  const char* place =
      "move place\n  pick there in empty\n  put peg on there\n"
      "after place\n  pick victim in theirs on step orthogonal from there, if any\n  take victim\n"
      "  write there\n  write \"x\" victim\n";
  std::shared_ptr<const SheetGame> game = around(place, "square 3 x 1");
  EXPECT_EQ(moves(*game, "x2"), (Texts{"b1xa1", "c1"}));
  EXPECT_EQ(moves(*game, "x1x"), (Texts{"b1xa1", "b1xc1"}));
}

TEST(Language, ChecksBehindEffectsAndForbiddenMoves) {
  const char* go =
      "move go\n  pick here in my peg\n  pick there in empty on reach of here\n  shift here to "
      "there\n"
      "  need no (mine on their reach)\n";
  EXPECT_EQ(moves(*around(go), "4/4/o3/2z1"), (Texts{"a2-a3", "a2-b2", "a2-b3"}));
  const char* forbidden =
      "move go\n  pick here in my peg\n  pick there in empty on reach of here\n  shift here to "
      "there\n"
      "forbid \"attacked\" when any mine on their reach\n";
  EXPECT_EQ(moves(*around(forbidden), "4/4/o3/2z1"), (Texts{"a2-a3", "a2-b2", "a2-b3"}));
}

TEST(Language, NeutralPiecesAndPiecesOfOneSide) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game barrier\nsides Amber and Slate\nboard square 3 x 2\npiece rock * neutral\n"
      "piece fox F for Amber\npiece hen h for Slate\n"
      "move roll\n  pick there in empty\n  put rock on there\n"
      "ends\n  draw \"full\" when no empty\n");
  Position start = game->readPosition("F*1/2h", "test");
  EXPECT_EQ(moveTexts(*game, start), (Texts{"a1", "b1", "c2"}));
  EXPECT_EQ(game->positionText(playMoves(*game, start, "b1", "test")), "F*1/1*h; Slate to move");
  EXPECT_EQ(game->pieceAt(start, *game->board().find("b2"), 0)->side, -1);
  EXPECT_EQ(game->pieceAt(start, *game->board().find("a2"), 0)->side, 0);
  EXPECT_EQ(game->pieceAt(start, *game->board().find("c1"), 0)->side, 1);
  EXPECT_THROW(game->readPosition("f2/3", "test"), BadInput);
}

TEST(Language, ShiftByMovesAllAtOnce) {
  std::shared_ptr<const SheetGame> game = around("move slip\n  shift mine by north\n");
  Position start = game->readPosition("o3/4/oo2/os2", "test");
  // What stands at the edge stays; a column closes up behind it.
  EXPECT_EQ(game->positionText(playMoves(*game, start, "slip", "test")),
            "o3/oo2/os2/4; Slate to move");
}

TEST(Language, HandsLimitWhatIsPut) {
  std::shared_ptr<const SheetGame> game = around(
      "start\n  hand of Amber 2 peg, saw\n  hand of Slate peg\n"
      "move lay\n  choose k from my hand\n  pick there in empty\n  put k on there from my hand\n"
      "  written as k \" \" there\nturn lay else pass",
      "square 2 x 1");
  EXPECT_EQ(moveTexts(*game, game->start()), (Texts{"peg a1", "peg b1", "saw a1", "saw b1"}));
  Position after = test::after(*game, "peg a1, peg b1");
  EXPECT_EQ(game->positionText(after), "ox; hand of Amber peg, saw; Amber to move");
  EXPECT_EQ(moveTexts(*game, after), Texts{"pass"});
}

TEST(Language, RememberedCellsLastOneMove) {
  std::shared_ptr<const SheetGame> game = around(
      "cell last, lasts one move\nmove place\n  pick there in empty\n  put peg on there\n"
      "  set last to there\nmove wait\n  pick there in mine\n");
  Position after = test::after(*game, "a1");
  EXPECT_EQ(game->positionText(after), "4/4/4/o3; last a1; Slate to move");
  after = playMoves(*game, after, "b2", "test");
  EXPECT_EQ(game->positionText(after), "4/4/1x2/o3; last b2; Amber to move");
  EXPECT_EQ(game->positionText(playMoves(*game, after, "a1", "test")), "4/4/1x2/o3; Slate to move");
}

TEST(Language, PassesAndSetOutNumbersCount) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game quiet\nsides Amber and Slate\nboard square 2 x 1\npiece peg o x\n"
      "number komi = 0 for Amber, 2 for Slate\nmove place\n  pick there in empty\n  put peg on "
      "there\n"
      "turn place or pass\n"
      "ends\n  leader in count mine + my komi wins \"more\" or draw \"level\" when passes = 2\n");
  EXPECT_EQ(game->result(test::after(*game, "pass")).kind, ResultKind::ongoing);
  EXPECT_EQ(game->result(test::after(*game, "a1, pass, pass")).winner, 1);
  EXPECT_EQ(game->result(test::after(*game, "a1, pass, b1, pass, pass")).kind, ResultKind::draw);
}

TEST(Language, SameTextAndSamePositionAreOneMove) {
  // Which of the two cells is picked first makes no difference.
  std::shared_ptr<const SheetGame> game = around(
      "move pair\n  pick one in empty\n  pick two in empty except one\n  put peg on (one or two)\n"
      "  written as \"pair\"\n",
      "square 2 x 1");
  EXPECT_EQ(moveTexts(*game, game->start()), Texts{"pair"});
  EXPECT_EQ(game->countMoves(game->start()), 1u);
}

TEST(Language, RepetitionCountsTheStart) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game turn-about\nsides Amber and Slate\nboard square 3 x 2\npiece peg o x\nstart\n  x . .\n "
      " o . .\n"
      "move go\n  pick here in mine\n  pick there in empty on step orthogonal from here\n"
      "  shift here to there\nends\n  draw \"third time\" when times seen >= 3\n");
  EXPECT_EQ(
      game->result(test::after(*game, "a1-b1, a2-b2, b1-a1, b2-a2, a1-b1, a2-b2, b1-a1")).kind,
      ResultKind::ongoing);
  EXPECT_EQ(
      game->result(test::after(*game, "a1-b1, a2-b2, b1-a1, b2-a2, a1-b1, a2-b2, b1-a1, b2-a2"))
          .name,
      "third time");
}

}  // namespace language_test
}  // namespace ninepegs::sheet
