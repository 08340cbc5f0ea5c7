// Boards as rows of fields.
#include "ninepegs/report/board_csv.hpp"

#include <gtest/gtest.h>

#include "support/games.hpp"

namespace ninepegs::report {
namespace board_csv_test {

// What a board that somebody hands over comes to.
std::string judged(const Game& game, const std::string& text) {
  CsvBoard board = readBoardCsv(game, text, "board.csv");
  return resultText(game, game.result(board.position));
}
std::vector<Diagnostic> refusal(const Game& game, const std::string& text) {
  try {
    readBoardCsv(game, text, "board.csv");
  } catch (const BadInput& error) {
    return error.diagnostics();
  }
  return {};
}

TEST(BoardCsv, ComesBackAsItWas) {
  for (const char* name : {"tic-tac-toe", "connect-four", "othello", "chess", "draughts", "hex",
                           "hex-tiles", "morris", "five-in-a-row", "hut-pass"}) {
    auto game = test::shipped(name);
    std::unique_ptr<LivePosition> live = game->live();
    Stream stream(3, 1);
    for (int ply = 0; ply < 20 && !live->ended(); ++ply) {
      Position position = live->position();
      CsvBoard again = readBoardCsv(*game, boardCsv(*game, position), "again");
      EXPECT_TRUE(again.turnSaid);
      EXPECT_EQ(game->toMove(again.position), game->toMove(position)) << name;
      EXPECT_EQ(boardCsv(*game, again.position), boardCsv(*game, position)) << name;
      if (!live->playDrawn(stream)) break;
    }
  }
}

TEST(BoardCsv, IsJudged) {
  auto game = test::shipped("tic-tac-toe");
  const std::string x = game->info().kinds[0].letters[0], o = game->info().kinds[0].letters[1];
  auto board = [&](const std::string& pattern) {
    std::string out;
    for (char c : pattern) out += c == 'X' ? x : c == 'O' ? o : std::string(1, c);
    return out;
  };
  const std::string &first = game->info().sides[0], &second = game->info().sides[1];
  EXPECT_EQ(judged(*game, board("X,X,X\nO,O,\n,,\n")), first + " wins: three in a line");
  EXPECT_EQ(judged(*game, board("O,X,X\nX,O,\nX,,O\n")), second + " wins: three in a line");
  EXPECT_EQ(judged(*game, board("O,X,X\nX,O,O\nX,O,X\n")).substr(0, 4), "draw");
  EXPECT_EQ(judged(*game, board("X,,\n,,\n,,\n")), "the game goes on");
  EXPECT_EQ(judged(*game, board(",,\n,,\n,,\n")), "the game goes on");
  // Other dividers, quotes, dots, blank lines, carriage returns.
  EXPECT_EQ(judged(*game, board("\n\"X\";\"X\";X\r\n\r\nO;O;.\n.;.;.\n")),
            first + " wins: three in a line");
  EXPECT_EQ(judged(*game, board("X\tX\tX\nO\tO\t\n.\t\t\n")), first + " wins: three in a line");
  EXPECT_EQ(judged(*game, board("\t\t\nX\tX\tX\nO\tO\t\n")), first + " wins: three in a line");
  // Whose turn it is, said or worked out.
  EXPECT_EQ(game->toMove(readBoardCsv(*game, board("X,,\n,,\n,,\n"), "x").position), 1);
  EXPECT_EQ(game->toMove(readBoardCsv(*game, board("X,,\n,O,\n,,\n"), "x").position), 0);
  CsvBoard said = readBoardCsv(*game, board("X,,\n,O,\n,,\n") + second + " to move\n", "x");
  EXPECT_TRUE(said.turnSaid);
  EXPECT_EQ(game->toMove(said.position), 1);
}

TEST(BoardCsv, IsRefusedWithItsPlace) {
  auto game = test::shipped("connect-four");
  const std::string empty = ",,,,,,\n";
  struct Wrong {
    std::string text;
    int line, column;
    const char* says;
  };
  for (const Wrong& wrong : std::vector<Wrong>{
           {"", 0, 0, "6 rows"},
           {empty + empty, 2, 0, "6 rows should stand here, but there are 2"},
           {empty + ",,,,,\n", 2, 1, "this row has 6 fields, the board has 7 cells"},
           {empty + ",,,,,,,,\n", 2, 1, "this row has 9 fields"},
           {empty + ",,q,,,,\n", 2, 3, "no piece is written \"q\""},
           {empty + empty + empty + empty + empty + empty + "Red to move\n", 7, 1,
            "only the side to move"},
           {empty + empty + empty + empty + empty + empty + "Amber to move\nmore\n", 8, 1,
            "nothing may stand behind"},
       }) {
    std::vector<Diagnostic> said = refusal(*game, wrong.text);
    ASSERT_EQ(said.size(), 1u) << wrong.text;
    EXPECT_NE(said[0].message.find(wrong.says), std::string::npos) << said[0].message;
    EXPECT_EQ(said[0].place.line, wrong.line == 0 ? said[0].place.line : wrong.line);
    EXPECT_EQ(said[0].place.column, wrong.column) << wrong.text;
  }
  EXPECT_FALSE(refusal(*game, "\xff\xfe,,").empty());
  EXPECT_FALSE(refusal(*game, std::string(200'000, ',')).empty());
  EXPECT_THROW(boardCsv(*test::shipped("battleship"), test::shipped("battleship")->start()),
               BadInput);
}

}  // namespace board_csv_test
}  // namespace ninepegs::report
