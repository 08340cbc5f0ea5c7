// Games from sheets against the same games written with plain loops, and what a Game promises.
#include "ninepegs/game/sheet_game.hpp"

#include <algorithm>
#include <functional>

#include "support/games.hpp"
#include "support/live.hpp"
#include "support/plain_boards.hpp"
#include "support/plain_chess.hpp"
#include "support/plain_games.hpp"

namespace ninepegs {
namespace sheet_game_test {

std::vector<std::string> sorted(std::vector<std::string> texts) {
  std::sort(texts.begin(), texts.end());
  return texts;
}

// Random games played on both: the same moves at every ply, the same end.
template <class Plain>
void sameGames(const std::string& name, int games,
               const std::function<bool(const Plain&)>& firstWon, const std::string& variant = {}) {
  std::shared_ptr<const Game> game = test::shippedLibrary().open(name, variant);
  for (int number = 0; number < games; ++number) {
    Stream stream(17, static_cast<std::uint64_t>(number));
    Plain plain;
    Position position = game->start();
    std::string played;
    while (true) {
      if (game->result(position).claim) return;
      std::vector<std::string> moves = moveTexts(*game, position);
      ASSERT_EQ(sorted(moves), sorted(plain.moves())) << name << " after " << played;
      ASSERT_EQ(game->countMoves(position), moves.size());
      ASSERT_EQ(game->ended(position), plain.over()) << played;
      if (moves.empty() || game->ended(position)) break;
      std::string move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
      position = playMoves(*game, position, move, "test");
      plain.play(move);
      played += move + ", ";
    }
    Result result = game->result(position);
    EXPECT_EQ(result.kind == ResultKind::win && result.winner == 0, firstWon(plain)) << played;
  }
}

TEST(SheetGame, PlaysAsThePlainPrograms) {
  sameGames<plain::TicTacToe>("tic-tac-toe", 300, [](const auto& g) { return g.winner == 1; });
  sameGames<plain::ConnectFour>("connect-four", 200, [](const auto& g) { return g.winner == 1; });
  sameGames<plain::HutPass>("hut-pass", 200, [](const auto& g) { return g.winner == 0; });
  sameGames<plain::Othello<8>>("othello", 40, [](const auto& g) { return g.lead() > 0; });
  sameGames<plain::Othello<6>>(
      "othello", 100, [](const auto& g) { return g.lead() > 0; }, "six");
  sameGames<plain::Othello<4>>(
      "othello", 100, [](const auto& g) { return g.lead() > 0; }, "four");
}

TEST(SheetGame, PlaysLargerGamesAsThePlainProgramsToo) {
  auto first = [](const auto& g) { return g.winner == 1; };
  sameGames<plain::Nim<false>>("nim", 50, first);
  sameGames<plain::Nim<true>>("nim", 50, first, "single");
  sameGames<plain::Hex<11>>("hex", 5, first);
  sameGames<plain::FiveInARow>("five-in-a-row", 5, first);
  sameGames<plain::Morris>("morris", 20, first);
  sameGames<plain::HexTiles>("hex-tiles", 30, [](const auto& g) { return g.lead() > 0; });
  sameGames<plain::Battleship>("battleship", 3, [](const auto& g) { return g.winner == 0; });
  sameGames<plain::Draughts>("draughts", 30, [](const auto& g) { return !g.black && g.over(); });
  sameGames<plain::Chess>("chess", 15, [](const auto& g) { return g.firstWon(); });
}

TEST(SheetGame, LivePositionsEqualThePlainOnesOfAnyGame) {
  for (const std::string& name : test::shippedLibrary().names()) {
    std::shared_ptr<const Game> game = test::shipped(name);
    for (std::uint64_t number = 0; number < 4; ++number)
      ASSERT_EQ(test::liveParted(*game, Stream(4, number), 150), "") << name << " " << number;
  }
}

TEST(SheetGame, LivePositionsOfCasesEqualThePlainOnesToo) {
  for (const std::string& name : test::shippedLibrary().names()) {
    std::shared_ptr<const Game> game = test::shipped(name);
    std::unique_ptr<LivePosition> live = game->live();
    for (const Example& example : game->checks()->examples()) {
      live->setUp(example.position);
      EXPECT_EQ(live->position(), example.position) << name << ": " << example.name;
      EXPECT_EQ(live->plies(), 0);
      MoveList moves, plain;
      live->listMoves(moves);
      game->listMoves(example.position, plain);
      EXPECT_EQ(moves, plain) << name << ": " << example.name;
      EXPECT_EQ(live->hash(), game->hash(example.position));
    }
  }
}

TEST(SheetGame, PlayoutsWithManyBundlesOfMovesAreThePlainOnesToo) {
  // 100 pieces with a bundle of moves each: more than the fast way keeps aside.
  std::string picture;
  for (int y = 0; y < 11; ++y)
    picture += y % 2 == 0 ? "  o o o o o o o o o o o\n" : "  . . . . . . . . . . .\n";
  std::string text =
      "game many\nsides Amber and Slate\nboard square 11 x 11\npiece peg o x\nstart\n" + picture +
      "move go\n  pick here in occupied\n  pick there in empty on step any from here\n"
      "  shift here to there\nends\n  draw \"alone\" when count occupied = 1\n";
  std::shared_ptr<const SheetGame> game = test::fromText(text);
  for (std::uint64_t number = 0; number < 5; ++number) {
    ASSERT_EQ(test::liveParted(*game, Stream(4, number), 30), "");
  }
}

TEST(SheetGame, PlayoutsWithPassesAndStuckEndsAreThePlainOnesToo) {
  // The moves that `stuck` finds are kept for the next draw, but a pass may stand beside them.
  for (const char* turn :
       {"turn place or corner-in or pass\n", "turn place else corner-in else pass\n",
        "turn pass else place or corner-in\n", "turn corner-in else place or pass\n", ""}) {
    for (const char* end : {"  mover wins \"stuck\" when stuck and count mine > 2\n",
                            "  draw \"nobody\" when nobody can move\n", ""}) {
      std::shared_ptr<const SheetGame> game = test::fromText(
          std::string("game passing\nsides Amber and Slate\nboard square 3 x 3\npiece peg o x\n") +
          "move place\n  pick there in empty except step any from theirs\n  put peg on there\n"
          "move corner-in\n  pick there in empty on corner\n  put peg on there\n"
          "  written as \"corner \" there\n" +
          turn + "ends\n" + end + "  draw \"long\" when plies > 30\n");
      for (std::uint64_t number = 0; number < 40; ++number) {
        ASSERT_EQ(test::liveParted(*game, Stream(5, number), 60), "") << turn << end << number;
      }
    }
  }
}

TEST(SheetGame, TranspositionsAreEqualAndHashEqual) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Position one = test::after(*game, "1, 2, 3"), two = test::after(*game, "3, 2, 1");
  EXPECT_EQ(game->identity(one), game->identity(two));
  EXPECT_EQ(game->hash(one), game->hash(two));
  EXPECT_NE(game->hash(one), game->hash(test::after(*game, "1, 3, 2")));
}

TEST(SheetGame, MovesComeInAStableOrder) {
  std::shared_ptr<const Game> game = test::shipped("hut-pass");
  MoveList one, two;
  game->listMoves(game->start(), one);
  game->listMoves(game->start(), two);
  EXPECT_EQ(one, two);
}

TEST(SheetGame, ResultsNameTheirEndAndShowTheirCells) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  Position won = test::after(*game, "a, b, b, c, d, c, c, d, e, d, d");
  Result result = game->result(won);
  EXPECT_EQ(result.kind, ResultKind::win);
  EXPECT_EQ(result.winner, 0);
  EXPECT_EQ(result.name, "four in a line");
  EXPECT_EQ(resultText(*game, result), "Amber wins: four in a line");
  CellSet expected;
  for (const char* cell : {"a1", "b2", "c3", "d4"}) expected.set(*game->board().find(cell));
  EXPECT_EQ(game->shownCells(won), expected);
  EXPECT_TRUE(game->shownCells(game->start()).none());
}

TEST(SheetGame, AFaultOfTheRulesBecomesAResult) {
  std::shared_ptr<const Game> game = test::faulty("taken-cell");
  Position position = test::after(*game, "5, 5");
  Result result = game->result(position);
  EXPECT_EQ(result.kind, ResultKind::fault);
  EXPECT_EQ(result.line, 12);
  EXPECT_NE(result.name.find("on 5"), std::string::npos);
  EXPECT_EQ(game->countMoves(position), 0u);
}

// One move with every effect, an `after` block, a turn with a pass: what it leaves.
TEST(SheetGame, EffectsAndTurns) {
  std::shared_ptr<const SheetGame> game = test::fromText(R"(game effects
sides Amber and Slate
board square 4 x 4
piece man o x
piece king O X
mark met
mark held each
number tally
number own each
start
  . . . .
  x x . .
  o . . .
  o o . .
move turn-over
  pick here in my man
  need any (their man on north of here)
  flip north of here
  change here into king
  add here to met
  add here to my held
  when any king
    set tally to tally + 1
    set their own to 5
  otherwise
    set tally to 99
  again
move hop
  pick here in my man
  pick there in their man on step diagonal from here
  take there
  shift here to there
after every move
  set my own to my own + 1
after hop
  remove all from met
  set tally to 0 - 3
turn hop or turn-over else pass
ends
  draw "bare" when no man
)");
  Position position = game->start();
  EXPECT_EQ(moveTexts(*game, position), (std::vector<std::string>{"a2", "a2-b3"}));
  Position over = playMoves(*game, position, "a2", "test");
  EXPECT_EQ(game->positionText(over),
            "4/ox2/O3/oo2; met a2; held of Amber a2; tally 1; own of Amber 1; own of Slate 5; "
            "Amber moved last; Amber to move");
  Position hop = playMoves(*game, position, "a2-b3", "test");
  EXPECT_EQ(game->positionText(hop), "4/xo2/4/oo2; tally -3; own of Amber 1; Slate to move");
  EXPECT_EQ(moveTexts(*game, hop), std::vector<std::string>{"pass"});
  EXPECT_EQ(game->positionText(playMoves(*game, hop, "pass", "test")),
            "4/xo2/4/oo2; tally -3; own of Amber 1; Amber to move");
}

TEST(SheetGame, ChoicesOfKinds) {
  std::shared_ptr<const SheetGame> game =
      test::fromText(test::sheetWith("move carve\n  pick there in corner on empty\n  choose what "
                                     "from saw, peg\n  put what on there\n"
                                     "  written as what \"@\" there\n"));
  std::vector<std::string> texts = moveTexts(*game, game->start());
  EXPECT_NE(std::find(texts.begin(), texts.end(), "saw@a1"), texts.end());
  Position position = playMoves(*game, game->start(), "saw@e4, peg@a1", "test");
  EXPECT_EQ(game->positionText(position), "4s/5/5/x4; Amber to move");
}

TEST(SheetGame, AllMembersOfAnEndAreTold) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Position both = game->readPosition("XOX/OXO/XOX; Nought to move", "test");
  std::vector<Result> ends = game->checks()->endsThatHold(both);
  ASSERT_EQ(ends.size(), 2u);
  EXPECT_EQ(ends[0].kind, ResultKind::win);
  EXPECT_EQ(ends[1].kind, ResultKind::draw);
}

TEST(SheetGame, LeadersAndLosers) {
  std::string text =
      "game count-up\nsides Amber and Slate\nboard square 2 x 2\npiece peg o x\n"
      "move place\n  pick there in empty\n  put peg on there\n"
      "ends\n  Slate loses \"corner\" when a1 in peg of Slate\n"
      "  leader in count mine wins \"more\" or draw \"level\" when no empty\n";
  std::shared_ptr<const SheetGame> game = test::fromText(text);
  auto ending = [&](const char* position) {
    return resultText(*game, game->result(game->readPosition(position, "test")));
  };
  EXPECT_EQ(ending("ox/ox; Amber to move"), "draw: level");
  EXPECT_EQ(ending("oo/ox; Amber to move"), "Amber wins: more");
  EXPECT_EQ(ending("xx/ox; Amber to move"), "Slate wins: more");
  EXPECT_EQ(ending("2/x1; Amber to move"), "Amber wins: corner");
}

TEST(SheetGame, VariantsReplaceSections) {
  std::string text =
      test::sheetWith("") +
      "variant small \"on four cells\"\n  board square 2 x 2\n  ends\n    draw \"half\" when count "
      "occupied = 2\n";
  EXPECT_EQ(test::fromText(text)->board().size(), 20);
  std::shared_ptr<const Game> small = test::fromText(text)->variant("small");
  EXPECT_EQ(small->board().size(), 4);
  EXPECT_EQ(small->info().variant, "small");
  EXPECT_EQ(resultText(*small, small->result(test::after(*small, "a1, b2"))), "draw: half");
}

// `was KIND` is where its pieces stood, also where the kind has a name, through `if` and through a
// definition. By hand: a peg went from a2 to b1, and pegs had stood on a2 and c2.
TEST(SheetGame, WasAKindIsWhereItsPiecesStood) {
  for (const char* former : {"was k", "if k = peg then was k else saw", "former(k)"}) {
    auto game = test::fromText(
        "game t\nsides Amber and Slate\nboard square 3 x 2\npiece peg o x\npiece saw s z\n"
        "define former(k) = was k\nstart\n  o . x\n  . . .\nmove go\n  pick here in mine\n"
        "  choose k from peg, saw\n  pick there in empty\n  shift here to there\n"
        "  pick v in (" +
        std::string(former) +
        ")\n  written as here there k v\nends\n  draw \"long\" when plies > 4\n");
    std::vector<std::string> moves = moveTexts(*game, game->start());
    std::vector<std::string> wanted;
    for (const char* there : {"a1", "b1", "b2", "c1"})
      for (const char* v : {"a2", "c2"}) wanted.push_back(std::string("a2") + there + "peg" + v);
    EXPECT_EQ(moves, wanted) << former;
  }
}

}  // namespace sheet_game_test
}  // namespace ninepegs
