// Programs as opponents.
#include "ninepegs/engines/engine_opponents.hpp"

#include <gtest/gtest.h>

#include "ninepegs/game/move_text.hpp"
#include "ninepegs/play/match.hpp"
#include "support/games.hpp"

namespace ninepegs::engines {
namespace engine_opponents_test {

const std::string python =
    "program:python3 " + std::string(NINEPEGS_SOURCE) + "/examples/programs/python/othello.py";

// What is wrong with it, or nothing.
std::string refusal(const Game& game, const std::string& text, const Position& from) {
  try {
    std::unique_ptr<play::Opponent> one = makeOpponent(text, "WHO"), other = play::makeRandom();
    play::Opponent* sides[] = {one.get(), other.get()};
    Stream stream(1, 0);
    play::playGame(game, from, sides, stream, 200);
  } catch (const BadInput& error) {
    return error.diagnostics().front().message;
  }
  return "";
}
std::string refusal(const std::string& text) {
  auto game = test::shipped("othello");
  return refusal(*game, text, game->start());
}

TEST(Engines, AProgramPlaysToTheEnd) {
  auto game = test::shipped("othello");
  std::vector<Move> first;
  for (int round = 0; round < 2; ++round) {
    std::unique_ptr<play::Opponent> one = makeOpponent(python, "WHO"),
                                    other = makeOpponent("search:depth=2", "WHO");
    play::Opponent* sides[] = {one.get(), other.get()};
    Stream stream(7, 0);
    play::Played played = play::playGame(*game, game->start(), sides, stream, 200);
    EXPECT_NE(played.result.kind, ResultKind::ongoing);
    if (round == 0) first = played.moves;
    EXPECT_EQ(played.moves, first);  // the seed is told
  }
}

// It is asked after moves were taken back, and told the game anew.
TEST(Engines, AProgramFollowsAnotherLine) {
  auto game = test::shipped("othello");
  std::unique_ptr<play::Opponent> one = makeOpponent(python, "WHO");
  Position position = game->start();
  MoveList line;
  auto choose = [&] {
    one->follow(*game, game->start(), line);
    Stream stream(1, 0);
    return one->choose(*game, position, stream).move;
  };
  auto make = [&](const std::string& text) {
    line.push_back(matchingMoves(*game, position, text).front());
    game->apply(position, line.back());
  };
  make("d3");
  Move one1 = choose();
  make("c3");
  choose();
  line.clear();
  position = game->start();
  make("d3");
  EXPECT_EQ(choose(), one1);
}

TEST(Engines, WhatIsNoProgramIsToldOnce) {
  const std::pair<const char*, const char*> wrong[] = {
      {"program:/no/such/program-at-all", "cannot be started"},
      {"program:exit 3", "ended with exit code 3"},
      {"program:cat", "answered \"start\""},
      {"program:time=0.2 sleep 30", "no answer to \"start\" within 0.2 seconds"},
      {"program:yes", "no JSON"},
      {"uci:exit 2", "speaks UCI, and this game has no FEN"},
  };
  for (const auto& [text, says] : wrong)
    EXPECT_NE(refusal(text).find(says), std::string::npos) << text << ": " << refusal(text);
  auto chess = test::shipped("chess");
  EXPECT_NE(refusal(*chess, "uci:exit 2", chess->start()).find("ended with exit code 2"),
            std::string::npos);
  EXPECT_NE(
      refusal(*chess, "uci:nodes=5 /no/such/program", chess->start()).find("cannot be started"),
      std::string::npos);
  // It greets, and then answers nonsense.
  EXPECT_NE(refusal(*chess,
                    "uci:echo uciok; read a; read b; read c; echo readyok; read d; echo bestmove "
                    "e2e5; sleep 5",
                    chess->start())
                .find("chose \"e2e5\", which is no legal move"),
            std::string::npos);
}

TEST(Engines, BeginWhereTheGameDoesAndSeeAll) {
  auto game = test::shipped("othello");
  Position later = game->start();
  game->apply(later, matchingMoves(*game, later, "d3").front());
  game->apply(later, matchingMoves(*game, later, "c3").front());
  EXPECT_NE(refusal(*game, python, later).find("from the beginning"), std::string::npos);
  auto secret = test::shipped("battleship");
  EXPECT_NE(refusal(*secret, "program:cat", secret->start()).find("nothing can be secret"),
            std::string::npos);
}

TEST(Engines, TextsAreReadAsTheyStand) {
  EXPECT_EQ(makeOpponent("program:python3 a.py --level=3", "WHO")->name(),
            "program:python3 a.py --level=3");
  EXPECT_EQ(makeOpponent("program:time=3 ./a", "WHO")->name(), "program:./a");
  EXPECT_EQ(makeOpponent("uci:depth=3,time=0.5 ./a b=c", "WHO")->name(), "uci:./a b=c");
  EXPECT_EQ(makeOpponent("search:depth=2", "WHO")->name(), "search:depth=2");
  for (const char* wrong :
       {"program", "program:", "program: ", "uci:", "uci:time=0 ./a", "uci:time=x ./a",
        "uci:nodes=1.5 ./a", "uci:depth=2,joy=3 ./a", "program:nodes=3 ./a", "program:time=1",
        "uci:depth=2,,time=1 ./a", "engine:./a"})
    EXPECT_THROW(makeOpponent(wrong, "WHO"), BadInput) << wrong;
}

}  // namespace engine_opponents_test
}  // namespace ninepegs::engines
