// Our search as other programs see it.
#include "ninepegs/engines/uci_server.hpp"

#include <gtest/gtest.h>

#include <chrono>
#include <map>

#include "ninepegs/engines/coordinates.hpp"
#include "support/games.hpp"

namespace ninepegs::engines {
namespace uci_server_test {

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
  EXPECT_EQ(
      talk.best({"position fen 8/P7/8/8/8/8/5k2/7K w - - 0 1", "go nodes 3000"}).substr(0, 14),
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
  kept.ask({"position startpos moves e2e4 e2e4"});  // wrong: there is nothing to play on
  EXPECT_EQ(kept.best({"go nodes 400"}), "bestmove 0000");
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

// "bestmove e2e4 ponder e7e5" -> "e2e4"
std::string moveIn(const std::string& line) {
  std::string rest = line.substr(std::string("bestmove ").size());
  return rest.substr(0, rest.find(' '));
}

TEST(UciServer, AnswersEveryKindOfGo) {
  for (const char* go :
       {"go depth 3", "go nodes 500", "go movetime 20", "go wtime 300 btime 300",
        "go wtime 200 btime 200 winc 10 binc 10 movestogo 5", "go wtime -50 btime 1000",
        "go btime 60", "go mate 1", "go mate 0", "go depth 2 searchmoves e2e4 d2d4",
        "go wtime 0 btime 0", "go movetime 0", "go nodes 0", "go depth 0"}) {
    Talk talk;
    std::string best = talk.best({"position startpos", go});
    ASSERT_EQ(best.rfind("bestmove ", 0), 0u) << go << ": " << best;
    Position start = talk.game->start();
    EXPECT_TRUE(moveOfCoordinates(*talk.game, start, moveIn(best)).has_value()) << go;
  }
}

TEST(UciServer, PondersUntilTheMoveIsPlayed) {
  Talk talk;
  talk.server.take("position startpos moves e2e4 e7e5");
  talk.server.take("go ponder wtime 400 btime 400");
  talk.server.take("isready");
  talk.server.take("ponderhit");
  talk.server.wait();
  std::size_t moves = 0;
  for (const std::string& line : talk.said) moves += line.rfind("bestmove ", 0) == 0;
  EXPECT_EQ(moves, 1u);
  EXPECT_EQ(talk.said.back().rfind("bestmove ", 0), 0u) << talk.said.back();
  // Another move was played: it is stopped, and one move is told for what was pondered on.
  talk.said.clear();
  talk.server.take("go ponder movetime 100");
  talk.server.take("stop");
  ASSERT_FALSE(talk.said.empty());
  EXPECT_EQ(talk.said.back().rfind("bestmove ", 0), 0u);
  // Without a clock the answer is what was found until then.
  talk.said.clear();
  talk.server.take("go ponder");
  talk.server.take("ponderhit");
  ASSERT_FALSE(talk.said.empty());
  EXPECT_EQ(talk.said.back().rfind("bestmove ", 0), 0u);
  talk.said.clear();
  talk.server.take("ponderhit");  // of nothing
  EXPECT_TRUE(talk.said.empty());
}

// Draws that may be claimed leave the side its move.
TEST(UciServer, PlaysOnWhereADrawMayBeClaimed) {
  Talk talk;
  EXPECT_NE(talk.best({"position fen 7k/8/8/8/8/8/R7/K7 w - - 100 90", "go depth 3"}),
            "bestmove 0000");
  EXPECT_NE(talk.best({"position fen 7k/8/8/8/8/8/8/K6N w - - 0 90", "go depth 3"}),
            "bestmove 0000");
  std::string again = "position startpos moves g1f3 g8f6 f3g1 f6g8 g1f3 g8f6 f3g1 f6g8";
  EXPECT_NE(talk.best({again, "go depth 3"}), "bestmove 0000");
  // Mated, there is none.
  EXPECT_EQ(talk.best({"position startpos moves f2f3 e7e5 g2g4 d8h4", "go depth 3"}),
            "bestmove 0000");
}

TEST(UciServer, LooksAtTheMovesThatAreNamed) {
  Talk talk;
  for (const char* only : {"a2a3", "h2h4"})
    EXPECT_EQ(
        moveIn(talk.best({"position startpos", std::string("go depth 4 searchmoves ") + only})),
        only);
  // A mate that is not among them is not played.
  std::string best = moveIn(talk.best(
      {"position fen 6k1/5ppp/8/8/8/8/8/R5K1 w - - 0 1", "go depth 3 searchmoves a1a7 g1f1"}));
  EXPECT_TRUE(best == "a1a7" || best == "g1f1") << best;
}

TEST(UciServer, WhatWasWrongIsNotPlayedOn) {
  Talk talk;
  talk.ask({"position startpos moves e2e4", "position startpos moves e2e5"});
  EXPECT_EQ(talk.best({"go depth 2"}), "bestmove 0000");
  EXPECT_NE(talk.best({"position startpos", "go depth 2"}), "bestmove 0000");
  talk.ask({"position fen not/a/fen w - - 0 1"});
  EXPECT_EQ(talk.best({"go depth 2"}), "bestmove 0000");
  EXPECT_NE(talk.best({"ucinewgame", "go depth 2"}), "bestmove 0000");
}

// Each line is the best of the moves that the lines before it do not begin with.
TEST(UciServer, TellsSeveralLines) {
  Talk talk;
  std::vector<std::string> said =
      talk.ask({"setoption name MultiPV value 3", "position startpos", "go depth 3"});
  std::map<std::string, std::string> last;  // by number: its first move
  for (const std::string& line : said) {
    std::size_t number = line.find(" multipv "), moves = line.find(" pv ");
    if (number == line.npos || moves == line.npos) continue;
    last[line.substr(number + 9, 1)] = line.substr(moves + 4, 4);
  }
  ASSERT_EQ(last.size(), 3u);
  EXPECT_NE(last["1"], last["2"]);
  EXPECT_NE(last["2"], last["3"]);
  EXPECT_NE(last["1"], last["3"]);
  EXPECT_EQ(moveIn(said.back()), last["1"]);
}

// As weak as it was told to be, whatever it may think for.
TEST(UciServer, ALevelHoldsWithoutALimit) {
  Talk talk;
  talk.ask({"setoption name Level value 1", "position startpos"});
  talk.server.take("go infinite");
  talk.server.take("stop");
  for (const std::string& line : talk.said)
    if (std::size_t at = line.find("info depth "); at != line.npos) {
      EXPECT_LE(std::stoi(line.substr(at + 11)), 3) << line;
    }
}

// As a window plays: the whole game told each time, with its clock, over many games.
TEST(UciServer, PlaysGamesAsWindowsDo) {
  Talk talk;
  talk.ask({"uci", "setoption name Hash value 1", "isready"});
  for (std::uint64_t number = 0; number < 50; ++number) {
    Stream stream(number, 0);
    talk.ask({"ucinewgame", "isready"});
    Position position = talk.game->start();
    std::string told = "position startpos moves";
    MoveList legal;
    for (int ply = 0; ply < 16; ++ply) {
      talk.game->listMoves(position, legal);
      if (legal.empty()) break;
      Move move = legal[stream.below(static_cast<std::uint32_t>(legal.size()))];
      if (ply % 2 == 1) {
        std::string best =
            talk.best({told == "position startpos moves" ? "position startpos" : told,
                       "go nodes 60 wtime 1000 btime 1000"});
        ASSERT_EQ(best.rfind("bestmove ", 0), 0u);
        std::optional<Move> played = moveOfCoordinates(*talk.game, position, moveIn(best));
        ASSERT_TRUE(played.has_value()) << told << " " << best;
        move = *played;
      }
      told += " " + coordinatesOf(*talk.game, position, move);
      talk.game->apply(position, move);
    }
  }
}

}  // namespace uci_server_test
}  // namespace ninepegs::engines
