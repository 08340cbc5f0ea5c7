#include "ninepegs/verify/count.hpp"

#include "support/games.hpp"
#include "support/plain_games.hpp"

namespace ninepegs::verify {
namespace {

std::uint64_t sequences(const Game& game, int depth, int threads = 2) {
  CountOptions options;
  options.depth = depth;
  options.threads = threads;
  return count(game, game.start(), options).sequences;
}

// OEIS and the usual tables of move counts.
TEST(Count, PublishedFigures) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  const std::uint64_t small[] = {9, 72, 504, 3024, 15120, 54720, 148176, 200448, 127872};
  for (int depth = 1; depth <= 9; ++depth) EXPECT_EQ(sequences(*game, depth), small[depth - 1]);
  EXPECT_EQ(sequences(*game, 10), 0u);
  game = test::shipped("connect-four");
  const std::uint64_t four[] = {7, 49, 343, 2401, 16807, 117649, 823536, 5673234};
  for (int depth = 1; depth <= 8; ++depth) EXPECT_EQ(sequences(*game, depth), four[depth - 1]);
  game = test::shipped("othello");
  const std::uint64_t discs[] = {4, 12, 56, 244, 1396, 8200, 55092, 390216, 3005288};
  for (int depth = 1; depth <= 9; ++depth) EXPECT_EQ(sequences(*game, depth), discs[depth - 1]);
}

TEST(Count, PublishedGamesAndPositionsOfTicTacToe) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  CountOptions options;
  options.depth = 9;
  options.ends = options.positions = true;
  options.threads = 2;
  Counts counts = count(*game, game->start(), options);
  EXPECT_EQ(counts.sequences, 127872u);
  EXPECT_EQ(counts.ended["Cross wins: three in a line"], 131184u);
  EXPECT_EQ(counts.ended["Nought wins: three in a line"], 77904u);
  EXPECT_EQ(counts.ended["draw: board full"], 46080u);
  EXPECT_EQ(counts.ended.size(), 3u);
  EXPECT_EQ(counts.allPositions, 5478u);
  EXPECT_EQ(counts.positions,
            (std::vector<std::uint64_t>{1, 9, 72, 252, 756, 1260, 1520, 1140, 390, 78}));
}

TEST(Count, AgreesWithThePlainPrograms) {
  for (int depth = 1; depth <= 6; ++depth) {
    EXPECT_EQ(sequences(*test::shipped("tic-tac-toe"), depth),
              plain::sequences(plain::TicTacToe{}, depth));
    EXPECT_EQ(sequences(*test::shipped("connect-four"), depth),
              plain::sequences(plain::ConnectFour{}, depth));
  }
  for (int depth = 1; depth <= 4; ++depth)
    EXPECT_EQ(sequences(*test::shipped("hut-pass"), depth),
              plain::sequences(plain::HutPass{}, depth));
  for (int depth = 1; depth <= 6; ++depth) {
    Library library = test::shippedLibrary();
    EXPECT_EQ(sequences(*library.open("othello"), depth),
              plain::sequences(plain::Othello<8>{}, depth));
    EXPECT_EQ(sequences(*library.open("othello", "six"), depth),
              plain::sequences(plain::Othello<6>{}, depth));
    EXPECT_EQ(sequences(*library.open("othello", "four"), depth),
              plain::sequences(plain::Othello<4>{}, depth));
  }
}

TEST(Count, ByFirstMoveAddsUp) {
  std::shared_ptr<const Game> game = test::shipped("hut-pass");
  CountOptions options;
  options.depth = 3;
  Counts counts = count(*game, game->start(), options);
  std::uint64_t total = 0;
  for (const auto& [move, number] : counts.byFirstMove) {
    total += number;
    options.depth = 2;
    EXPECT_EQ(number, count(*game, test::after(*game, move), options).sequences) << move;
  }
  EXPECT_EQ(total, counts.sequences);
}

TEST(Count, NothingChangesWithThreadsOrOptions) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  std::uint64_t expected = sequences(*game, 6, 1);
  for (int threads : {2, 3, 8}) EXPECT_EQ(sequences(*game, 6, threads), expected);
  CountOptions options;
  options.depth = 6;
  options.ends = options.positions = true;
  EXPECT_EQ(count(*game, game->start(), options).sequences, expected);
}

TEST(Count, EndedGamesHaveNoSequences) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  CountOptions options;
  options.positions = true;
  Counts counts = count(*game, test::after(*game, "1, 4, 2, 5, 3"), options);
  EXPECT_EQ(counts.sequences, 0u);
  EXPECT_EQ(counts.allPositions, 1u);
}

TEST(Count, GoesOnBehindAnEndThatIsOnlyClaimed) {
  std::string text = test::sheetWith("");
  text.replace(text.find("  draw \"full\""), 0,
               "  claim draw \"three is enough\" when count occupied >= 3\n");
  std::shared_ptr<const SheetGame> game = test::fromText(text);
  EXPECT_EQ(sequences(*game, 5), 20u * 19 * 18 * 17 * 16);
  CountOptions options;
  options.depth = 4;
  options.ends = true;
  Counts counts = count(*game, game->start(), options);
  EXPECT_EQ(counts.sequences, 20u * 19 * 18 * 17);
  EXPECT_TRUE(counts.ended.empty());
  // Playouts end there.
  Stream stream(1, 1);
  Position position = game->start();
  PlayoutEnd end = game->playOut(position, stream, 100);
  EXPECT_EQ(end.plies, 3);
  EXPECT_TRUE(end.result.claim);
  EXPECT_EQ(game->countMoves(position), 17u);
}

TEST(Count, StopsWhenAsked) {
  StopFlag stop{true};
  CountOptions options;
  options.depth = 40;
  options.stop = &stop;
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  EXPECT_TRUE(count(*game, game->start(), options).stopped);
}

TEST(Count, TellsOfFaultyRules) {
  std::shared_ptr<const Game> game = test::faulty("taken-cell");
  CountOptions options;
  options.depth = 3;
  Counts counts = count(*game, game->start(), options);
  ASSERT_EQ(counts.faults.size(), 1u);
  EXPECT_NE(counts.faults[0].find("where one stands already"), std::string::npos);
}

}  // namespace
}  // namespace ninepegs::verify
