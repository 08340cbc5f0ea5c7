#include "ninepegs/game/move_text.hpp"

#include "support/games.hpp"

namespace ninepegs {
namespace move_text_test {

TEST(MoveText, MatchesExactlyThenLoosely) {
  std::shared_ptr<const Game> game = test::shipped("hut-pass");
  Position start = game->start();
  for (const char* typed : {"c2-a4", "c2a4", "C2 A4", " c2 - a4 ", "c2=a4"})
    EXPECT_EQ(matchingMoves(*game, start, typed).size(), 1u) << typed;
  for (const char* typed : {"", " ", "c2", "c2-a5", "c2--", "a4-c2", "c2,a4"})
    EXPECT_TRUE(matchingMoves(*game, start, typed).empty()) << typed;
}

struct Reason {
  const char* game;
  const char* played;
  const char* typed;
  const char* why;
};
class WhyNot : public testing::TestWithParam<Reason> {};

TEST_P(WhyNot, SaysTheReason) {
  const Reason& reason = GetParam();
  std::shared_ptr<const Game> game = test::shipped(reason.game);
  Position position = test::after(*game, reason.played);
  ASSERT_TRUE(matchingMoves(*game, position, reason.typed).empty());
  std::string why = whyNot(*game, position, reason.typed);
  EXPECT_NE(why.find(reason.why), std::string::npos) << why;
  EXPECT_LT(why.size(), 300u);
}

INSTANTIATE_TEST_SUITE_P(
    Moves, WhyNot,
    testing::Values(
        Reason{"tic-tac-toe", "5", "5", "5 is taken: a peg of Cross stands there"},
        Reason{"tic-tac-toe", "5", "0", "there is no cell \"0\"; cells run from 1 to 9"},
        Reason{"tic-tac-toe", "5", "10", "there is no cell \"10\""},
        Reason{"tic-tac-toe", "5", "-1", "is negative"},
        Reason{"tic-tac-toe", "5", " - 1", "is negative"},
        Reason{"tic-tac-toe", "5", "a1", "is no legal move here"},
        Reason{"tic-tac-toe", "1, 4, 2, 5, 3", "6",
               "the game is over (Cross wins: three in a line)"},
        Reason{"tic-tac-toe", "", "", "no move was given"},
        Reason{"connect-four", "d, d, d, d, d, d", "d", "column d is full"},
        Reason{"connect-four", "", "h", "there is no column \"h\"; columns run from a to g"},
        Reason{"connect-four", "", "dd", "no column \"dd\""},
        Reason{"connect-four", "", "\xff\xfe", "is no legal move"},
        Reason{"hut-pass", "", "b3-b4", "nothing stands on b3"},
        Reason{"hut-pass", "", "a6-a5", "a6 holds a walker of Slate, but it is Amber's turn"},
        Reason{"hut-pass", "", "c2-c3", "the guide on c2 cannot do that; it can go: c2-a4"},
        Reason{"hut-pass", "", "z9-a1", "there is no cell \"z9\""},
        Reason{"hut-pass", "", "2c-4a", "no legal move"}));

TEST(MoveText, APlayedListPointsAtTheMoveThatFails) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  EXPECT_EQ(game->positionText(playMoves(*game, game->start(), "  ", "--after")),
            "3/3/3; Cross to move");
  try {
    playMoves(*game, game->start(), "5, 1, 5, 9", "--after");
    FAIL();
  } catch (const BadInput& error) {
    const Diagnostic& one = error.diagnostics().front();
    EXPECT_EQ(one.place.column, 7);
    EXPECT_NE(one.message.find("move 3: 5 is taken"), std::string::npos);
  }
  EXPECT_THROW(playMoves(*game, game->start(), "5,,1", "--after"), BadInput);
  EXPECT_THROW(playMoves(*game, game->start(), "5,", "--after"), BadInput);
}

TEST(Library, FindsGamesByNameAndPath) {
  Library library = test::shippedLibrary();
  EXPECT_EQ(library.open("tic-tac-toe")->info().title, "Tic-tac-toe");
  EXPECT_EQ(library.open(test::shippedSheet("connect-four"))->info().id, "connect-four");
  auto message = [&](const std::string& name) {
    try {
      library.open(name);
    } catch (const BadInput& error) {
      return std::string(error.what());
    }
    return std::string("opened");
  };
  EXPECT_NE(message("tic-tac-to").find("did you mean \"tic-tac-toe\"?"), std::string::npos);
  EXPECT_NE(message("").find("no shipped game"), std::string::npos);
  EXPECT_NE(message("./none.pegs").find("no such file"), std::string::npos);
  EXPECT_NE(message("/").find("folder"), std::string::npos);
  EXPECT_NE(message("../sheets/tic-tac-toe").find("no such file"), std::string::npos);
}

}  // namespace move_text_test
}  // namespace ninepegs
