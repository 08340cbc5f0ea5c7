#include "support/games.hpp"

namespace ninepegs {
namespace position_text_test {

TEST(PositionText, RoundTripsThroughRandomGames) {
  for (const std::string& name : test::shippedLibrary().names()) {
    std::shared_ptr<const Game> game = test::shipped(name);
    for (std::uint64_t number = 0; number < 8; ++number) {
      Stream stream(2, number);
      Position position = game->start();
      MoveList moves;
      while (true) {
        std::string text = game->positionText(position);
        Position again = game->readPosition(text, "test");
        ASSERT_EQ(game->identity(again), game->identity(position)) << name << ": " << text;
        ASSERT_EQ(game->positionText(again), text);
        // How often a position was seen before is no part of its text.
        if (!game->result(position).claim) {
          ASSERT_EQ(game->result(again), game->result(position)) << text;
        }
        game->listMoves(position, moves);
        if (moves.empty() || game->ended(position)) break;
        game->apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
      }
    }
  }
}

TEST(PositionText, TakesDotsAndNumbersAndWords) {
  std::shared_ptr<const Game> game = test::shipped("hut-pass");
  Position one = game->readPosition("mmmmm/..u../5/2.2/..g../wwwww; Slate to move", "test");
  Position two = game->readPosition("mmmmm/2u2/5/5/2g2/wwwww; Slate to move", "test");
  EXPECT_EQ(one, two);
  Position words = game->readPosition(
      "walker of Slate a6 b6 c6 d6 e6; guide of Slate c5; guide of Amber c2; "
      "walker of Amber a1, b1, c1, d1, e1; Slate to move",
      "test");
  EXPECT_EQ(words, two);
  EXPECT_EQ(game->toMove(game->readPosition("5/5/5/5/2g2/wwwww", "test")), 0);
}

TEST(PositionText, ACommaStandsBetweenTwoOfAList) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game box\nsides Amber and Slate\nboard square 3 x 3\npiece peg o x\npiece saw s z\n"
      "mark met\nstart\n  hand of each 2 peg, saw\n"
      "move place\n  choose which from my hand\n  pick there in empty\n"
      "  put which on there from my hand\n  add there to met\n"
      "ends\n  draw \"full\" when no empty\n");
  EXPECT_EQ(
      game->readPosition("peg of Amber a1,b2 , c3; met a1 b2, c3; hand of Slate 2 peg,saw", "test"),
      game->readPosition("peg of Amber a1 b2 c3; met a1 b2 c3; hand of Slate 2 peg saw", "test"));
  for (const char* wrong :
       {"hand of each ,peg", "hand of each 2 ,peg saw", "hand of each 2, peg", "hand of each peg,",
        "hand of each peg,,saw", "hand, of each peg", "peg of Amber, a1", "peg of Amber a1, ,b2",
        "met ,a1", "met a1,", ", met a1", "Amber, to move", "Slate to move,"})
    EXPECT_THROW(game->readPosition(wrong, "test"), BadInput) << wrong;
}

struct Wrong {
  const char* text;
  int column;
  const char* message;
};
class WrongPosition : public testing::TestWithParam<Wrong> {};

TEST_P(WrongPosition, IsRefusedWithItsPlace) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  try {
    game->readPosition(GetParam().text, "--at");
    FAIL() << "taken: " << GetParam().text;
  } catch (const BadInput& error) {
    const Diagnostic& first = error.diagnostics().front();
    EXPECT_EQ(first.place.source, "--at");
    EXPECT_EQ(first.place.column, GetParam().column) << toText(first);
    EXPECT_NE(first.message.find(GetParam().message), std::string::npos) << toText(first);
  }
}

INSTANTIATE_TEST_SUITE_P(
    Texts, WrongPosition,
    testing::Values(
        Wrong{"", 0, "empty"}, Wrong{"3/3", 3, "2 rows"}, Wrong{"3/3/3/3", 7, "4 rows"},
        Wrong{"3/4/3", 3, "do not fit"}, Wrong{"3/2/3", 3, "2 cells"},
        Wrong{"3/XX2/3", 5, "longer"}, Wrong{"3/0XXX/3", 3, "do not fit"},
        Wrong{"3/1Z1/3", 4, "no piece"}, Wrong{"3/1X1/3; Cros to move", 10, "no side"},
        Wrong{"3/3/3; Cross to move; Cross to move", 22, "second time"},
        Wrong{"3/3/3; crown a1", 8, "no line that begins"}, Wrong{"3/3/3; peg 5", 8, "whose"},
        Wrong{"3/3/3; peg of Cross 12", 21, "no cell"},
        Wrong{"3/3/3; peg of Cros 5", 15, "no side"},
        Wrong{"3/1X1/3; peg of Nought 5", 24, "two pieces"}, Wrong{"_2/3/3", 1, "has a cell"},
        Wrong{"3/99999999999999999999999/3", 3, "do not fit"}, Wrong{"////////", 9, "9 rows"}));

TEST(PositionText, RefusesWhatIsNoLine) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  EXPECT_THROW(game->readPosition(std::string(10'000, '3'), "--at"), BadInput);
  EXPECT_THROW(game->readPosition(std::string("3/3\0/3", 6), "--at"), BadInput);
  EXPECT_THROW(game->readPosition("3/3/3\n", "--at"), BadInput);
  EXPECT_THROW(game->readPosition("3/\xff/3", "--at"), BadInput);
  // Whatever the notation.
  game = test::shipped("chess");
  for (const std::string& text : {std::string("4k3/8/8/8/8/8/8\n/4K3 w - - 0 1"),
                                  std::string("4k3/8/8/8/8/8/8/4\xff"
                                              "3 w - -"),
                                  "4k3/8/8/8/8/8/8/4K3 w - " + std::string(10'000, '-')}) {
    try {
      game->readPosition(text, "--at");
      ADD_FAILURE() << text;
    } catch (const BadInput& error) {
      EXPECT_EQ(error.diagnostics().front().place.line, 0) << error.what();
    }
  }
}

TEST(PositionText, RandomTextsNeverCrash) {
  std::vector<std::shared_ptr<const Game>> games = {test::shipped("tic-tac-toe"),
                                                    test::shipped("hut-pass")};
  const std::string symbols =
      "XOwmgu.123459/;_ ,-of Amber to moveCrossSlate peg walker a1b2\xc3\xa4";
  Stream stream(31, 0);
  for (int round = 0; round < 20000; ++round) {
    std::string text;
    for (std::uint32_t i = stream.below(40); i > 0; --i)
      text += symbols[stream.below(static_cast<std::uint32_t>(symbols.size()))];
    for (const auto& game : games) {
      try {
        Position position = game->readPosition(text, "test");
        EXPECT_EQ(game->identity(game->readPosition(game->positionText(position), "test")),
                  game->identity(position));
      } catch (const BadInput&) {
      }
    }
  }
}

// Position texts of every shipped game, damaged in a few places: refused with a message, or taken
// and then written and read to the same position, with legal moves that can all be played.
TEST(PositionText, DamagedTextsOfEveryGameAreRefusedOrSound) {
  for (const std::string& name : test::shippedLibrary().names()) {
    std::shared_ptr<const Game> game = test::shipped(name);
    std::vector<std::string> texts;
    for (std::uint64_t number = 0; number < 4; ++number) {
      Stream stream(41, number);
      Position position = game->start();
      MoveList moves;
      for (std::uint32_t ply = stream.below(40); ply > 0 && !game->ended(position); --ply) {
        game->listMoves(position, moves);
        if (moves.empty()) break;
        game->apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
      }
      texts.push_back(game->positionText(position));
    }
    Stream stream(42, 0);
    int taken = 0;
    for (int round = 0; round < 1500; ++round) {
      std::string text = texts[stream.below(4)];
      const std::string& other = texts[stream.below(4)];
      for (std::uint32_t hits = 1 + stream.below(3); hits > 0 && !text.empty(); --hits) {
        std::size_t at = stream.below(static_cast<std::uint32_t>(text.size()));
        std::size_t from = stream.below(static_cast<std::uint32_t>(other.size()));
        switch (stream.below(4)) {
          case 0:
            text[at] = other[from];
            break;
          case 1:
            text.insert(at, other.substr(from, 1 + stream.below(6)));
            break;
          case 2:
            text.erase(at, 1 + stream.below(6));
            break;
          default:
            text[at] = static_cast<char>(stream.below(256));
        }
      }
      try {
        Position position = game->readPosition(text, "test");
        ASSERT_EQ(game->identity(game->readPosition(game->positionText(position), "test")),
                  game->identity(position))
            << name << ": " << text;
        MoveList moves;
        game->listMoves(position, moves);
        for (std::size_t i = 0; i < moves.size(); i += 1 + moves.size() / 8) {
          Position after = position;
          game->apply(after, moves[i]);
          EXPECT_FALSE(game->moveText(position, moves[i]).empty()) << name << ": " << text;
        }
        ++taken;
      } catch (const BadInput& error) {
        EXPECT_FALSE(error.diagnostics().empty()) << name << ": " << text;
      }
    }
    EXPECT_GT(taken, 10) << name;
  }
}

// Typed moves of every shipped game, damaged: matched to a legal move of that text, or explained.
TEST(MoveText, DamagedMovesOfEveryGameAreMatchedOrExplained) {
  for (const std::string& name : test::shippedLibrary().names()) {
    std::shared_ptr<const Game> game = test::shipped(name);
    Position position = game->start();
    Stream stream(43, 0);
    std::vector<std::string> texts = moveTexts(*game, position);
    for (int round = 0; round < 60; ++round) {
      std::string text = texts[stream.below(static_cast<std::uint32_t>(texts.size()))];
      for (std::uint32_t hits = stream.below(3); hits > 0 && !text.empty(); --hits) {
        std::size_t at = stream.below(static_cast<std::uint32_t>(text.size()));
        if (stream.below(2) == 0)
          text[at] = static_cast<char>(32 + stream.below(96));
        else
          text.erase(at, 1);
      }
      std::vector<Move> found = matchingMoves(*game, position, text);
      if (found.empty()) {
        std::string why = whyNot(*game, position, text);
        EXPECT_FALSE(why.empty()) << name << ": " << text;
      } else {
        EXPECT_FALSE(game->moveText(position, found.front()).empty());
      }
    }
  }
}

TEST(PositionText, HolesAreUnderscores) {
  std::shared_ptr<const SheetGame> game =
      test::fromText(test::sheetWith("", "square 3 x 3, without light, labels numbered"));
  EXPECT_EQ(game->positionText(game->start()), "1_1/_1_/1_1; Amber to move");
  Position position = game->readPosition("o_./_x_/._s; Slate to move", "test");
  EXPECT_EQ(game->positionText(position), "o_1/_x_/1_s; Slate to move");
  EXPECT_THROW(game->readPosition("oo./_x_/._s", "test"), BadInput);
}

}  // namespace position_text_test
}  // namespace ninepegs
