// What opponents overlooked once.
#include <algorithm>

#include "ninepegs/game/move_text.hpp"
#include "ninepegs/play/opponent.hpp"
#include "ninepegs/play/review.hpp"
#include "ninepegs/play/thinking.hpp"
#include "ninepegs/report/review_text.hpp"
#include "ninepegs/report/thinking_text.hpp"
#include "support/games.hpp"

namespace ninepegs::play {
namespace lapses_test {

// One ply is looked at whatever the limits are, and no level draws another move where it wins.
TEST(Lapses, AWinAtOnceIsNeverMissed) {
  std::shared_ptr<const Game> chess = test::shipped("chess");
  // Captures on every side, and one mate: h5xf7.
  Position mate = chess->readPosition(
      "r1bqkbnr/pppp1ppp/2n5/4p2Q/2B1P3/8/PPPP1PPP/RNB1K1NR w KQkq - 4 3", "test");
  for (std::uint64_t nodes : {1, 5, 20, 60})
    for (std::uint64_t seed = 1; seed <= 5; ++seed) {
      Stream stream(seed, 0);
      Choice choice = makeSearch({.nodes = nodes})->choose(*chess, mate, stream);
      EXPECT_EQ(chess->moveText(mate, choice.move).substr(0, 2), "h5") << nodes;
      EXPECT_EQ(choice.score, winScore - 1);
      EXPECT_GE(choice.depth, 1);
    }
  for (int level = 1; level <= 9; ++level)
    for (std::uint64_t seed = 1; seed <= 20; ++seed) {
      Stream stream(seed, 0);
      Choice choice = makeSearch({.level = level})->choose(*chess, mate, stream);
      EXPECT_EQ(choice.score, winScore - 1);
      EXPECT_FALSE(choice.better.has_value()) << level;
    }
}

TEST(Lapses, ALevelSaysThatItDrewAnotherMove) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  bool drew = false;
  for (std::uint64_t seed = 1; seed <= 30; ++seed) {
    Stream stream(seed, 0);
    Choice choice = makeSearch({.level = 1})->choose(*game, game->start(), stream);
    if (!choice.better) continue;
    drew = true;
    ASSERT_FALSE(choice.line.empty());
    EXPECT_TRUE(choice.line.front() == *choice.better);  // the account is of the best one
  }
  EXPECT_TRUE(drew);
}

// Where nobody can go on and no end holds, the tree has no children, however often it is come to.
TEST(Lapses, PlayoutsEndWhereNobodyCanMove) {
  std::shared_ptr<const Game> game = test::fromText(
      "game t\nsides A and B\nboard square 3 x 1\npiece peg o x\nmove place\n"
      "  pick there in empty\n  put peg on there\n  written as there\n"
      "ends\n  draw \"long\" when plies > 40\n");
  for (std::uint64_t playouts : {5, 60, 600}) {
    Stream stream(1, 0);
    Choice choice = makePlayouts({.playouts = playouts})->choose(*game, game->start(), stream);
    EXPECT_EQ(choice.score, 0);
    for (const Choice::Weighed& one : choice.weighed) {
      Position position = game->start();
      for (const Move& move : one.line) {
        ASSERT_TRUE(game->isLegal(position, move));
        game->apply(position, move);
      }
      EXPECT_LE(one.line.size(), 3u);
    }
  }
}

// Playouts see what loses at once: three men's morris and tic-tac-toe, every position of random
// games in which one move alone keeps the other side from winning.
TEST(Lapses, PlayoutsBlockAWinInOne) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  int blocked = 0;
  MoveList moves, replies;
  for (std::uint64_t number = 0; number < 60; ++number) {
    Stream stream(7, number);
    Position position = game->start();
    while (!game->ended(position)) {
      game->listMoves(position, moves);
      std::vector<Move> safe;
      bool wins = false;
      for (const Move& move : moves) {
        Position after = position;
        game->apply(after, move);
        Result result = game->result(after);
        wins = wins || result.kind == ResultKind::win;
        bool loses = false;
        if (result.kind == ResultKind::ongoing) {
          game->listMoves(after, replies);
          for (const Move& reply : replies) {
            Position then = after;
            game->apply(then, reply);
            loses = loses || game->result(then).kind == ResultKind::win;
          }
        }
        if (!loses) safe.push_back(move);
      }
      if (!wins && safe.size() == 1 && moves.size() > 1) {
        Stream own(1, number);
        Choice choice = makePlayouts({.playouts = 12})->choose(*game, position, own);
        EXPECT_TRUE(choice.move == safe.front()) << game->positionText(position);
        ++blocked;
      }
      game->apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
    }
  }
  EXPECT_GT(blocked, 20);
}

// The chosen move has one score and one line in one output, and stands first.
TEST(Lapses, ThinkTellsOneTruth) {
  std::shared_ptr<const Game> chess = test::shipped("chess");
  Position position = chess->readPosition("7k/8/8/8/8/8/R7/1R5K w - - 0 1", "test");
  std::unique_ptr<Opponent> who = makeSearch({.nodes = 30'000});
  Thinking thought = think(*chess, position, *who, {.nodes = 30'000});
  ASSERT_FALSE(thought.moves.empty());
  EXPECT_TRUE(thought.moves[0].move == thought.choice.move);
  EXPECT_EQ(thought.moves[0].score, thought.choice.score);
  EXPECT_EQ(thought.choice.score, winScore - 3);
  EXPECT_FALSE(thought.choice.whole);
  std::string text = report::thinkingText(*chess, position, thought, report::Paint());
  EXPECT_EQ(text.find("every line was followed"), std::string::npos) << text;
  EXPECT_NE(text.find("that is certain"), std::string::npos) << text;
  EXPECT_NE(text.find("scores: "), std::string::npos);
  // Where every line was followed it is said.
  std::shared_ptr<const Game> small = test::shipped("tic-tac-toe");
  Position late = test::after(*small, "5, 1, 9, 3, 2");
  std::unique_ptr<Opponent> all = makeSearch({});
  Thinking whole = think(*small, late, *all, {});
  EXPECT_TRUE(whole.choice.whole || decides(whole.choice.score));
}

// Lost, and seen only later: with so few positions the first look does not see it.
TEST(Lapses, ReviewLooksBackwards) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  std::vector<Move> moves;
  Position position = game->start();
  // Amber wins this by threats that a shallow look does not see at first.
  for (const char* typed : {"d", "a", "c", "a", "e"}) {
    Move move = matchingMoves(*game, position, typed).at(0);
    moves.push_back(move);
    game->apply(position, move);
  }
  std::vector<ReviewedPly> plies = review(*game, game->start(), moves, {.nodes = 400, .seed = 1});
  ASSERT_EQ(plies.size(), 5u);
  // What a later ply knows for certain, the ply before it says, too.
  for (std::size_t ply = 0; ply + 1 < plies.size(); ++ply) {
    std::int64_t next = plies[ply + 1].score;
    if (!decides(next)) continue;
    bool same = plies[ply].side == plies[ply + 1].side;
    EXPECT_TRUE(decides(plies[ply].played)) << ply;
    EXPECT_EQ(plies[ply].played > 0, same == (next > 0)) << ply;
  }
  EXPECT_TRUE(plies[3].verdict != ReviewedPly::Verdict::plain)
      << "the second `a` lets three in a row stand open at both ends";
  for (const ReviewedPly& one : plies) {
    EXPECT_GE(one.chancePlayed, 0);
    EXPECT_LE(one.chancePlayed, 1);
    EXPECT_LE(one.chancePlayed, one.chance + 1e-9);
  }
  std::string text = report::reviewText(*game, game->start(), plies, 7, report::Paint());
  EXPECT_NE(text.find("stopped early: 5 of 7"), std::string::npos) << text;
}

// Once lost, the smallest loss: the other side leads in any case here.
TEST(Lapses, WhatIsLostIsLostByLittle) {
  // Slate takes any number of the pegs that lie there; then it is over, and who has more wins.
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game share\nsides Amber and Slate\nboard square 1 x 1\npiece peg o x\nnumber has each\n"
      "start\n  has of Amber 20\n  has of Slate 1\n  Slate to move\n"
      "move take-some\n  choose some from 1 to 6\n  set my has to my has + some\n"
      "  written as some\nends\n  leader in my has wins \"more\" or draw \"level\" when plies >= "
      "2\n");
  for (std::uint64_t seed = 1; seed <= 10; ++seed) {
    Stream stream(seed, 0);
    Choice choice = makeSearch({.nodes = 2000})->choose(*game, game->start(), stream);
    EXPECT_TRUE(decides(choice.score) && choice.score < 0);
    EXPECT_EQ(game->moveText(game->start(), choice.move), "6");
  }
}

// Heavy rules: an opponent without limits of its own is bounded by steps, the same everywhere.
TEST(Lapses, WithoutLimitsHeavyRulesAreBounded) {
  std::shared_ptr<const Game> chess = test::shipped("chess");
  Stream stream(1, 0);
  Choice few =
      makeSearch({.nodes = 100'000, .steps = 200'000})->choose(*chess, chess->start(), stream);
  EXPECT_LT(few.nodes, 50'000u);
  EXPECT_GE(few.depth, 1);
  Stream again(1, 0);
  EXPECT_EQ(few.nodes, makeSearch({.nodes = 100'000, .steps = 200'000})
                           ->choose(*chess, chess->start(), again)
                           .nodes);
  Stream third(1, 0);
  EXPECT_LT(makePlayouts({.playouts = 100'000, .steps = 200'000})
                ->choose(*chess, chess->start(), third)
                .nodes,
            5'000u);
}

}  // namespace lapses_test
}  // namespace ninepegs::play
