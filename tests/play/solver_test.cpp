#include "ninepegs/play/solver.hpp"

#include "ninepegs/verify/every.hpp"
#include "support/games.hpp"

namespace ninepegs::play {
namespace {

// Forwards by alpha-beta, and backwards through all positions: the same winner after the same
// plies.
TEST(Solver, AgreesWithEveryPosition) {
  std::string small = std::string(NINEPEGS_SOURCE) + "/examples/small/";
  for (const auto& [name, variant] :
       std::vector<std::pair<std::string, std::string>>{{"tic-tac-toe", ""},
                                                        {"nim", ""},
                                                        {"nim", "normal"},
                                                        {"nim", "single"},
                                                        {"connect-four", "four"},
                                                        {"othello", "four"},
                                                        {small + "gate.pegs", ""},
                                                        {small + "three-pegs.pegs", ""}}) {
    std::shared_ptr<const Game> game = test::shippedLibrary().open(name, variant);
    verify::EveryReport every = verify::everyPosition(*game, {});
    ASSERT_TRUE(every.solved) << name;
    Solved solved = solve(*game, game->start(), {.nodes = 2'000'000});
    if (every.winner < 0 && !every.longest) continue;  // positions come again: it is never settled
    ASSERT_TRUE(solved.known) << name << variant;
    EXPECT_EQ(solved.winner, every.winner) << name << variant;
    if (solved.winner >= 0) {
      EXPECT_EQ(solved.plies, static_cast<int>(every.plies)) << name << variant;
      EXPECT_EQ(solved.line.size(), every.plies) << name << variant;
    }
    // The line ends as it was said.
    Position position = game->start();
    for (const Move& move : solved.line) game->apply(position, move);
    ASSERT_TRUE(game->ended(position)) << name;
    EXPECT_EQ(game->result(position).kind == ResultKind::win ? game->result(position).winner : -1,
              solved.winner);
    // The best move comes first, and it is as good as the position.
    EXPECT_EQ(solved.moves.front().winner, solved.winner);
    if (solved.winner >= 0) {
      EXPECT_EQ(solved.moves.front().plies, solved.plies);
    }
  }
}

// In positions of random games, each move's result is that of the position behind it.
TEST(Solver, EveryMoveIsSolved) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  for (std::uint64_t number = 0; number < 12; ++number) {
    Stream stream(4, number);
    Position position = game->start();
    MoveList moves;
    for (int ply = 0; ply < 4; ++ply) {
      game->listMoves(position, moves);
      game->apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
    }
    if (game->ended(position)) continue;
    Solved solved = solve(*game, position, {.megabytes = 2});
    ASSERT_TRUE(solved.known);
    for (const Solved::RootMove& one : solved.moves) {
      Position after = position;
      game->apply(after, one.move);
      ASSERT_TRUE(one.known);
      if (game->ended(after)) continue;
      Solved behind = solve(*game, after, {.megabytes = 2});
      EXPECT_EQ(behind.winner, one.winner);
      if (one.winner >= 0) {
        EXPECT_EQ(behind.plies + 1, one.plies);
      }
    }
  }
}

TEST(Solver, SaysWhatItKnowsWhenItIsBrokenOff) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  Solved solved = solve(*game, game->start(), {.nodes = 5000, .megabytes = 1});
  EXPECT_FALSE(solved.known);
  EXPECT_TRUE(solved.brokenOff);
  EXPECT_GT(solved.depth, 4);
  EXPECT_EQ(solved.moves.size(), 7u);
}

}  // namespace
}  // namespace ninepegs::play
