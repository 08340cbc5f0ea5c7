#include "ninepegs/verify/endings.hpp"

#include "ninepegs/sheet/mutation/unclaimed.hpp"
#include "ninepegs/sheet/rules/printer.hpp"
#include "support/games.hpp"
#include "support/many.hpp"

namespace ninepegs::verify {
namespace endings_test {

const SheetGame& sheetGame(const Game& game) {
  return dynamic_cast<const SheetGame&>(game);
}

Ending backwards(const Game& game, const Position& position, int threads = 1) {
  EveryOptions options;
  options.threads = threads;
  return solveBackwards(sheetGame(game), position, options);
}

// Published: mate with a queen takes 10 moves at most, whoever is to move.
TEST(Endings, QueenAgainstKing) {
  if (!test::looksAtAll()) GTEST_SKIP() << "all 300,000 positions: ./run long";
  std::shared_ptr<const Game> game = test::shipped("chess");
  Position position = game->readPosition("8/8/8/4k3/8/8/8/4K2Q w - - 0 1", "position");
  Ending ending = backwards(*game, position, 2);
  ASSERT_TRUE(ending.every.solved);
  EXPECT_EQ(ending.every.longestWin, 20u);
  EXPECT_EQ(ending.every.won[1], 0u);
  EXPECT_EQ(ending.solved.winner, 0);
  EXPECT_EQ(ending.solved.line.size(), static_cast<std::size_t>(ending.solved.plies));
  EXPECT_EQ(ending.ends, (std::vector<std::string>{"too little material", "bishops of one colour",
                                                   "threefold repetition", "fifty moves"}));
  EXPECT_EQ(ending.numbers, std::vector<std::string>{"quiet"});
  // Best play ends in mate by the whole rules, too.
  for (const Move& move : ending.solved.line) {
    std::string text = ending.game->moveText(ending.position, move);
    ending.game->apply(ending.position, move);
    std::vector<Move> same = matchingMoves(*game, position, text);
    ASSERT_EQ(same.size(), 1u) << text;
    game->apply(position, same.front());
  }
  EXPECT_EQ(game->result(position).name, "checkmate");
}

// Backwards as forwards, move by move, in positions of random games.
TEST(Endings, AgreeWithTheSolver) {
  for (const char* name : {"tic-tac-toe", "nim", "hut-pass"}) {
    std::shared_ptr<const Game> game = test::shipped(name);
    int held = 0;
    // Nearer to its start this one has more positions than there is room for.
    std::uint32_t behind = name == std::string("hut-pass") ? 16 : 0;
    for (std::uint64_t number = 0; held < test::many(3, 5) && number < 100; ++number) {
      Stream stream(11, number);
      std::unique_ptr<LivePosition> live = game->live();
      live->setUp(game->start());
      for (std::uint32_t ply = behind + stream.below(40); ply > 0 && !live->ended(); --ply)
        if (!live->playDrawn(stream)) break;
      Position position = live->position();
      if (game->ended(position) || game->countMoves(position) == 0) continue;
      EveryOptions few;
      few.memory = 4 << 20;
      Ending ending = solveBackwards(sheetGame(*game), position, few);
      if (!ending.every.solved) continue;
      play::Solved solved = play::solve(*game, position, {.nodes = 20'000, .megabytes = 1});
      if (!solved.known || (solved.winner < 0 && !ending.every.longest)) continue;
      ++held;
      EXPECT_EQ(ending.solved.winner, solved.winner) << name << number;
      if (solved.winner >= 0) {
        EXPECT_EQ(ending.solved.plies, solved.plies) << name << number;
      }
      ASSERT_EQ(ending.solved.moves.size(), solved.moves.size());
      for (const play::Solved::RootMove& one : solved.moves) {
        auto same = std::find_if(ending.solved.moves.begin(), ending.solved.moves.end(),
                                 [&](const auto& two) {
                                   return ending.game->moveText(ending.position, two.move) ==
                                          game->moveText(position, one.move);
                                 });
        ASSERT_NE(same, ending.solved.moves.end());
        if (!one.known) continue;
        EXPECT_EQ(same->winner, one.winner) << name << number;
        if (one.winner >= 0) {
          EXPECT_EQ(same->plies, one.plies) << name << number;
        }
      }
    }
    EXPECT_GE(held, 3) << name;
  }
}

TEST(Endings, SayWhenThereAreTooMany) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  EveryOptions few;
  few.memory = 1 << 20;
  Ending ending = solveBackwards(sheetGame(*game), game->start(), few);
  EXPECT_FALSE(ending.solved.known);
  EXPECT_TRUE(ending.solved.brokenOff);
  EXPECT_TRUE(ending.solved.moves.empty());
}

const std::string walk = R"(game walk
sides Amber and Slate
board square 3 x 3
piece peg o x
number quiet
number loud
start
  peg of Amber a1
  peg of Slate c3
move go
  pick here in mine
  pick there in empty on step orthogonal from here
  shift here to there
  set quiet to quiet + 1
  set loud to loud + 1
  when there in b2
    set quiet to 0
)";

TEST(Endings, KeepNumbersThatAnythingElseReads) {
  auto numbersOf = [](const std::string& rest) {
    return rules::unclaimed(test::fromText(walk + rest)->rules()).numbers;
  };
  std::vector<std::string> quiet = {"quiet"}, both = {"quiet", "loud"};
  std::string claim = "ends\n  claim draw \"long\" when quiet >= 9 or loud > 20\n";
  EXPECT_EQ(numbersOf(claim), both);
  EXPECT_EQ(numbersOf(claim + "  draw \"loud\" when loud > 30\n"), quiet);
  EXPECT_EQ(numbersOf("forbid \"so\" when loud > 30\n" + claim), quiet);
  EXPECT_EQ(numbersOf("  written as there \" \" loud\n" + claim), quiet);
  EXPECT_EQ(numbersOf("  written as there \" \" twice(loud)\ndefine twice(n) = n + n\n" + claim),
            quiet);
  EXPECT_EQ(numbersOf("define much = loud\nforbid \"so\" when much > 30\n" + claim), quiet);
  EXPECT_EQ(numbersOf("after go\n  when loud > 3\n    again\n" + claim), quiet);
  EXPECT_EQ(numbersOf("ends\n  draw \"full\" when no empty\n"), both);
  // What a claim alone remembers is forgotten; what the rules remember is refused.
  std::string times = "ends\n  claim draw \"again\" when times seen >= 3\n";
  auto claimed = test::fromText(walk + times);
  EXPECT_TRUE(backwards(*claimed, claimed->start()).every.complete());
  auto decided = test::fromText(walk + "forbid \"again\" when times seen >= 2\n" + times);
  EXPECT_THROW(backwards(*decided, decided->start()), BadInput);
}

// Pegs that walk for ever: nobody wins, and that is found.
TEST(Endings, WhereNobodyCanForceAWin) {
  auto game = test::fromText(walk + "ends\n  mover wins \"there\" when any (mine on c1)\n");
  Ending ending = backwards(*game, game->start());
  ASSERT_TRUE(ending.every.solved);
  play::Solved forward = play::solve(*game, game->start(), {.nodes = 100'000, .megabytes = 2});
  EXPECT_EQ(ending.solved.winner, forward.known ? forward.winner : -1);
  EXPECT_EQ(ending.every.won[0] + ending.every.won[1] + ending.every.won[2],
            ending.every.positions);
}

}  // namespace endings_test
}  // namespace ninepegs::verify
