// Our search as other programs see it.
#include "ninepegs/engines/uci_server.hpp"

#include <gtest/gtest.h>

#include <chrono>

#include "support/games.hpp"

namespace ninepegs::engines {
namespace {

struct Talk {
  std::shared_ptr<const Game> game = test::shipped("chess");
  std::vector<std::string> said;
  UciServer server{*game, "Nine Pegs test",
                   [this](const std::string& line) { said.push_back(line); }};

  // What is said until the move is found, or nothing more is to come.
  std::vector<std::string> ask(const std::vector<std::string>& lines) {
    said.clear();
    for (const std::string& line : lines) server.take(line);
    server.wait();
    return said;
  }
  std::string best(const std::vector<std::string>& lines) {
    std::vector<std::string> all = ask(lines);
    return all.empty() ? "" : all.back();
  }
};

TEST(UciServer, Greets) {
  Talk talk;
  std::vector<std::string> said = talk.ask({"uci", "isready"});
  ASSERT_GE(said.size(), 5u);
  EXPECT_EQ(said.front(), "id name Nine Pegs test");
  EXPECT_EQ(said[said.size() - 2], "uciok");
  EXPECT_EQ(said.back(), "readyok");
  EXPECT_TRUE(talk.ask({"", "   ", "joho", "debug on", "register later"}).empty());
  EXPECT_FALSE(talk.server.take("quit"));
}

// Mate in one, in two, and against the side to move; the moves are those of the position behind
// the moves that were told.
TEST(UciServer, SaysTheMateItSees) {
  Talk talk;
  std::vector<std::string> said =
      talk.ask({"position fen 6k1/5ppp/8/8/8/8/8/R5K1 w - - 0 1", "go depth 3"});
  EXPECT_EQ(said.back(), "bestmove a1a8");
  EXPECT_NE(said[said.size() - 2].find("score mate 1"), std::string::npos) << said[said.size() - 2];
  EXPECT_NE(said[said.size() - 2].find(" pv a1a8"), std::string::npos);
  EXPECT_EQ(talk.best({"position startpos moves f2f3 e7e5 g2g4", "go nodes 2000"}),
            "bestmove d8h4");
  said = talk.ask({"position fen 7k/8/6K1/8/8/8/8/R7 w - - 0 1", "go depth 6"});
  EXPECT_EQ(said.back(), "bestmove a1a8");
  said = talk.ask({"position fen 7k/8/6K1/8/8/8/8/R7 b - - 0 1", "go depth 5"});
  EXPECT_NE(said[said.size() - 2].find("score mate -1"), std::string::npos)
      << said[said.size() - 2];
  // A promotion says the piece.
  EXPECT_EQ(talk.best({"position fen 8/P7/8/8/8/8/5k2/7K w - - 0 1", "go nodes 3000"}),
            "bestmove a7a8q");
}

// Moves are told again each time: going on, going back, and another line come to the same as from
// nothing.
TEST(UciServer, FollowsWhatItIsTold) {
  const std::vector<std::string> lines = {
      "position startpos moves e2e4",
      "position startpos moves e2e4 e7e5",
      "position startpos moves e2e4 e7e5 g1f3 b8c6",
      "position startpos moves e2e4 e7e5",
      "position startpos moves d2d4",
      "position fen 8/8/8/8/8/5k2/6q1/7K w - - 0 1",
      "position fen 4k3/8/8/8/8/8/4P3/4K3 w - - 0 1 moves e2e4",
      "position fen 4k3/8/8/8/8/8/4P3/4K3 w - - 0 1 moves e2e4 e8e7",
      "position startpos moves f2f3 e7e5 g2g4"};
  Talk kept;
  for (const std::string& line : lines) {
    Talk fresh;
    EXPECT_EQ(kept.best({line, "go nodes 400"}), fresh.best({line, "go nodes 400"})) << line;
  }
  kept.ask({"position startpos moves e2e4 e2e4"});  // wrong: all stays
  Talk fresh;
  EXPECT_EQ(kept.best({"go nodes 400"}), fresh.best({lines.back(), "go nodes 400"}));
  EXPECT_EQ(kept.best({"ucinewgame", "go nodes 400"}), Talk().best({"go nodes 400"}));
}

TEST(UciServer, SameNodesSameMove) {
  Talk one, two;
  std::vector<std::string> lines = {"setoption name Hash value 4", "position startpos moves e2e4",
                                    "go nodes 3000"};
  EXPECT_EQ(one.best(lines), two.best(lines));
  EXPECT_EQ(one.best(lines).substr(0, 9), "bestmove ");
}

TEST(UciServer, StopsAndKeepsToItsTime) {
  Talk talk;
  auto begun = std::chrono::steady_clock::now();
  talk.server.take("go infinite");
  talk.server.take("stop");
  EXPECT_EQ(talk.said.back().substr(0, 9), "bestmove ");
  EXPECT_EQ(talk.best({"position startpos", "go movetime 60"}).substr(0, 9), "bestmove ");
  EXPECT_EQ(talk.best({"go wtime 500 btime 500 winc 0 binc 0"}).substr(0, 9), "bestmove ");
  std::chrono::duration<double> spent = std::chrono::steady_clock::now() - begun;
  EXPECT_LT(spent.count(), 20.0);
  talk.server.take("go infinite");
  talk.server.finish();
  EXPECT_EQ(talk.said.back().substr(0, 9), "bestmove ");
  talk.server.take("position startpos");
  talk.server.take("go depth 3");
  talk.server.finish();
  EXPECT_NE(talk.said[talk.said.size() - 2].find("info depth 3"), std::string::npos);
  talk.server.take("go infinite");  // broken off by the destructor
}

// What is wrong is said and changes nothing.
TEST(UciServer, TakesNoRubbish) {
  Talk talk;
  for (const char* line : {"position", "position here", "position fen", "position fen x",
                           "position fen 8/8/8 w - - 0 1", "position startpos moves e2e5",
                           "position startpos moves e2e4 \xff\xfe",
                           "position fen rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq - "
                           "99999999999999999999 1"}) {
    std::vector<std::string> said = talk.ask({line});
    ASSERT_EQ(said.size(), 1u) << line;
    EXPECT_EQ(said[0].substr(0, 12), "info string ") << said[0];
  }
  for (const char* line :
       {"setoption", "setoption name Hash value x", "setoption name Hash value 0",
        "setoption name Level value 77", "go depth", "stop", "position startpos moves"})
    talk.server.take(line);
  talk.server.take("stop");
  EXPECT_EQ(talk.best({"position startpos", "go depth 1"}).substr(0, 9), "bestmove ");
  // A game that is over has no move.
  EXPECT_EQ(talk.best({"position startpos moves f2f3 e7e5 g2g4 d8h4", "go depth 3"}),
            "bestmove 0000");
}

TEST(UciServer, PlaysWeakerByLevel) {
  Talk talk;
  EXPECT_EQ(
      talk.best({"setoption name Level value 1", "position startpos", "go nodes 500"}).substr(0, 9),
      "bestmove ");
}

}  // namespace
}  // namespace ninepegs::engines
