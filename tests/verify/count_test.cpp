#include "ninepegs/verify/count.hpp"

#include "support/games.hpp"
#include "support/live.hpp"
#include "support/many.hpp"
#include "support/plain_boards.hpp"
#include "support/plain_chess.hpp"
#include "support/plain_games.hpp"

namespace ninepegs::verify {
namespace count_test {

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

std::uint64_t sequencesAt(const Game& game, const std::string& position, int depth) {
  CountOptions options;
  options.depth = depth;
  options.threads = 2;
  return count(game, game.readPosition(position, "test"), options).sequences;
}

// The usual tables of move sequences in chess and draughts.
TEST(Count, PublishedFiguresOfChess) {
  std::shared_ptr<const Game> game = test::shipped("chess");
  struct Table {
    const char* fen;
    std::vector<std::uint64_t> counts;
  };
  for (const Table& table :
       {Table{"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq - 0 1",
              {20, 400, 8902, 197281, 4865609}},
        {"r3k2r/p1ppqpb1/bn2pnp1/3PN3/1p2P3/2N2Q1p/PPPBBPPP/R3K2R w KQkq - 0 1",
         {48, 2039, 97862, 4085603}},
        {"8/2p5/3p4/KP5r/1R3p1k/8/4P1P1/8 w - - 0 1", {14, 191, 2812, 43238, 674624}},
        {"r3k2r/Pppp1ppp/1b3nbN/nP6/BBP1P3/q4N2/Pp1P2PP/R2Q1RK1 w kq - 0 1",
         {6, 264, 9467, 422333}},
        {"rnbq1k1r/pp1Pbppp/2p5/8/2B5/8/PPP1NnPP/RNBQK2R w KQ - 1 8", {44, 1486, 62379, 2103487}},
        {"r4rk1/1pp1qppp/p1np1n2/2b1p1B1/2B1P1b1/P1NP1N2/1PP1QPPP/R4RK1 w - - 0 10",
         {46, 2079, 89890, 3894594}}})
    for (std::size_t depth = 1; depth <= table.counts.size(); ++depth)
      EXPECT_EQ(sequencesAt(*game, table.fen, static_cast<int>(depth)), table.counts[depth - 1])
          << table.fen << " depth " << depth;
}

TEST(Count, PublishedFiguresOfDraughts) {
  std::shared_ptr<const Game> game = test::shipped("draughts");
  const std::uint64_t men[] = {7, 49, 302, 1469, 7361, 36768, 179740, 845931};
  for (int depth = 1; depth <= 8; ++depth) EXPECT_EQ(sequences(*game, depth), men[depth - 1]);
}

// The last ply is counted, not made.
template <class Plain>
std::uint64_t counted(const Plain& game, int depth) {
  if constexpr (requires { game.count(); })
    if (depth == 1) return game.count();
  if (depth == 1) return game.moves().size();
  std::uint64_t total = 0;
  for (const std::string& move : game.moves()) {
    Plain next = game;
    next.play(move);
    total += counted(next, depth - 1);
  }
  return total;
}

TEST(Count, AgreesWithThePlainProgramsOfLargerGames) {
  Library library = test::shippedLibrary();
  for (int depth = 1; depth <= 4; ++depth) {
    EXPECT_EQ(sequences(*library.open("nim"), depth), plain::sequences(plain::Nim<false>{}, depth));
    EXPECT_EQ(sequences(*library.open("nim", "single"), depth + 3),
              plain::sequences(plain::Nim<true>{}, depth + 3));
    EXPECT_EQ(sequences(*library.open("draughts"), depth),
              plain::sequences(plain::Draughts{}, depth));
  }
  for (int depth = 1; depth <= 4; ++depth) {
    EXPECT_EQ(sequences(*library.open("morris"), depth), counted(plain::Morris{}, depth));
    EXPECT_EQ(sequences(*library.open("chess"), depth), counted(plain::Chess{}, depth));
  }
}

TEST(Count, AgreesWithThePlainProgramsOnLargeBoards) {
  Library library = test::shippedLibrary();
  int deep = test::many(3, 4);
  EXPECT_EQ(sequences(*library.open("hex"), deep), counted(plain::Hex<11>{}, deep));
  for (int depth = 1; depth < deep; ++depth)
    EXPECT_EQ(sequences(*library.open("five-in-a-row"), depth),
              counted(plain::FiveInARow{}, depth));
  for (int depth = 1; depth < deep; ++depth)
    EXPECT_EQ(sequences(*library.open("hex-tiles"), depth), counted(plain::HexTiles{}, depth));
  // Nine tiles a side, eighteen cells, and nothing ends before they are laid.
  EXPECT_EQ(sequences(*library.open("hex-tiles"), 4), 9u * 18 * (9 * 17) * (8 * 16) * (8 * 15));
  // Nobody can have five in a row after four stones.
  EXPECT_EQ(sequences(*library.open("five-in-a-row"), 4), 225u * 224 * 223 * 222);
}

// Deep enough by playing on: counts behind moves that lead to the middle of a game.
template <class Plain>
void expectCountsBehind(const std::string& name, const std::string& variant, Plain plain,
                        const std::vector<std::string>& moves, int depth) {
  std::shared_ptr<const Game> game = test::shippedLibrary().open(name, variant);
  Position position = game->start();
  for (const std::string& move : moves) {
    position = playMoves(*game, position, move, "test");
    plain.play(move);
  }
  CountOptions options;
  options.threads = 2;
  for (options.depth = 1; options.depth <= depth; ++options.depth)
    EXPECT_EQ(count(*game, position, options).sequences, counted(plain, options.depth))
        << name << " " << variant << " " << options.depth;
}

TEST(Count, AgreesWithThePlainProgramsInTheMiddleOfGames) {
  // Two tiles a side are left, six cells are free.
  expectCountsBehind("hex-tiles", "", plain::HexTiles{},
                     {"ash a1", "ash b1", "birch c1", "birch a2", "cedar b2", "cedar c2", "elm d2",
                      "elm a3", "fir b3", "fir d3", "hazel e3", "hazel a4", "larch b4", "larch c4"},
                     5);
  expectCountsBehind(
      "morris", "", plain::Morris{},
      {"a1", "b2", "d1", "b4", "g7", "f2", "a7", "f6", "c3", "e5", "d5", "e3", "a4xb2"}, 4);
  // Twelve full rows without five of a colour; in the first four a fifth stone closes one.
  std::vector<std::string> colours[2], stones;
  for (int row = 1; row <= 12; ++row)
    for (int column = 0; column < 15; ++column) {
      if (row <= 4 && column % 5 == 4) continue;
      int length = row <= 4 ? 5 : 4;
      colours[(column / length + row) % 2].push_back(
          std::string(1, static_cast<char>('a' + column)) + std::to_string(row));
    }
  for (std::size_t i = 0; i < std::min(colours[0].size(), colours[1].size()); ++i)
    stones.insert(stones.end(), {colours[0][i], colours[1][i]});
  expectCountsBehind("five-in-a-row", "", plain::FiveInARow{}, stones, 4);
}

TEST(Count, AgreesWithThePlainProgramOfBattleship) {
  plain::Battleship plain, apart, salvo;
  apart.apart = salvo.salvo = true;
  expectCountsBehind("battleship", "", plain, {}, 2);
  expectCountsBehind("battleship", "no-touch", apart, {}, 2);
  // What one side lays leaves the other's waters as they are: the second ship of a side can lie in
  // as many ways whatever was laid between.
  std::uint64_t pairs = 0;
  for (const std::string& move : plain.moves()) {
    plain::Battleship laid = plain;
    laid.play(move);
    laid.mover = 0;
    pairs += laid.count();
  }
  EXPECT_EQ(sequences(*test::shipped("battleship"), 3), pairs * plain.count());
  std::vector<std::string> berths = {"ferry a1-e1",  "ferry a10-e10", "barge a3-d3",  "barge j1-j4",
                                     "cutter a5-c5", "cutter f7-h7",  "trawler g1-g3"};
  // The last ship but one of a side, the last two, and the first shot.
  expectCountsBehind("battleship", "no-touch", apart, berths, 3);
  berths.insert(berths.end(), {"trawler j6-j8", "skiff a7-b7"});
  expectCountsBehind("battleship", "", plain, berths, 3);
  berths.insert(berths.end(), {"skiff a1-a2"});
  expectCountsBehind("battleship", "salvo", salvo, berths, 3);
  // Shots, down to where the next one may end the game.
  for (int row = 1; row <= 10; ++row)
    for (char column = 'a'; column <= 'j'; ++column) {
      std::string cell = column + std::to_string(row);
      if (cell == "a10" || row == 9 || (column == 'b' && row >= 4 && row < 7)) continue;
      berths.insert(berths.end(), {cell, cell});
    }
  expectCountsBehind("battleship", "", plain, berths, 4);
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
  std::unique_ptr<LivePosition> live = game->live();
  EXPECT_EQ(test::playOut(*live, stream, 100).plies, 3);
  EXPECT_TRUE(live->outcome().claim);
  EXPECT_EQ(live->moveCount(), 17u);
  EXPECT_EQ(game->countMoves(live->position()), 17u);
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

// The fault that is told is the first in the order of moves, whichever thread comes to one first.
TEST(Count, TellsTheSameFaultOnAnyNumberOfThreads) {
  std::shared_ptr<const Game> game = test::faulty("taken-cell");
  CountOptions options;
  options.depth = 5;
  options.threads = 1;
  std::vector<std::string> alone = count(*game, game->start(), options).faults;
  ASSERT_FALSE(alone.empty());
  for (int round = 0; round < 10; ++round)
    for (int threads : {2, 3, 7}) {
      options.threads = threads;
      EXPECT_EQ(count(*game, game->start(), options).faults, alone) << threads;
    }
}

}  // namespace count_test
}  // namespace ninepegs::verify
