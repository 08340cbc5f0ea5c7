// Names of a program, and inputs that are no moves.
#include "ninepegs/compare/bridge.hpp"

#include <algorithm>

#include "ninepegs/compare/probes.hpp"
#include "support/games.hpp"

namespace ninepegs::compare {
namespace bridge_test {

Bridge read(const Game& game, const std::string& text) {
  return Bridge::read(game, text, "map.json");
}

TEST(Bridge, ReplacesCellsInTheTextsOfMoves) {
  std::shared_ptr<const Game> chess = test::shipped("chess");
  Bridge bridge =
      read(*chess, R"map({"cells": "({column},{row})", "moves": {"O-O": "castle"}})map");
  EXPECT_EQ(bridge.move("e2-e4"), "(5,7)-(5,5)");
  EXPECT_EQ(bridge.move("e2e4"), "(5,7)(5,5)");
  EXPECT_EQ(bridge.move("a8xh1"), "(1,1)x(8,8)");
  EXPECT_EQ(bridge.move("pass"), "pass");
  EXPECT_EQ(bridge.move("O-O"), "castle");
  EXPECT_EQ(Bridge(*chess).move("e2-e4"), "e2-e4");
  std::shared_ptr<const Game> three = test::shipped("tic-tac-toe");
  bridge = read(*three, R"({"cells": "{number0}"})");
  EXPECT_EQ(bridge.move("1"), "0");
  EXPECT_EQ(bridge.move("9"), "8");
  EXPECT_EQ(bridge.move("12"), "12");  // no cell
  bridge = read(*three, R"({"cells": {"5": "middle"}})");
  EXPECT_EQ(bridge.move("5"), "middle");
  EXPECT_EQ(bridge.move("4"), "4");
  EXPECT_EQ(bridge.cellNamed("middle"), three->board().find("5"));
}

TEST(Bridge, KnowsSidesAndLetters) {
  std::shared_ptr<const Game> game = test::shipped("othello");
  Bridge bridge = read(*game, R"({"sides": {"Black": "1"}, "letters": {".": "0", "x": "B"}})");
  EXPECT_EQ(bridge.side("1"), 0);
  EXPECT_EQ(bridge.side("white"), 1);
  EXPECT_EQ(bridge.side("Black"), std::nullopt);
  EXPECT_EQ(bridge.letter("0"), "");
  EXPECT_EQ(bridge.letter("B"), "x");
  EXPECT_EQ(bridge.letter("o"), "o");
}

TEST(Probes, AreNoLegalMoves) {
  for (const char* name : {"othello", "chess", "nim", "connect-four", "hex", "morris"}) {
    std::shared_ptr<const Game> game = test::shipped(name);
    Bridge bridge(*game);
    Stream stream(1, 0);
    std::unique_ptr<LivePosition> live = game->live();
    live->setUp(game->start());
    std::vector<std::string> before;
    for (int ply = 0; ply < 12; ++ply) {
      std::vector<std::string> legal = moveTexts(*game, live->position());
      std::sort(legal.begin(), legal.end());
      std::vector<Probe> probes = probesOf(*game, live->position(), legal, before, bridge);
      std::set<std::string> kinds;
      for (const Probe& one : probes) {
        kinds.insert(one.what);
        EXPECT_TRUE(matchingMoves(*game, live->position(), one.text).empty()) << one.text;
      }
      EXPECT_TRUE(kinds.count("an empty text")) << name;
      if (std::string(name) == "othello") {
        EXPECT_TRUE(kinds.count("a move off the board"));
        EXPECT_TRUE(kinds.count("a move with a number below zero") ||
                    kinds.count("a move with row and column exchanged"));
      }
      before = legal;
      if (!live->playDrawn(stream)) break;
    }
  }
}

}  // namespace bridge_test
}  // namespace ninepegs::compare
