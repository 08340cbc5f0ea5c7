// Opponents on several threads, and trees that are kept.
#include <atomic>
#include <thread>

#include "ninepegs/play/alpha_beta.hpp"
#include "ninepegs/play/playout_tree.hpp"
#include "support/games.hpp"

namespace ninepegs::play {
namespace threads_test {

// Nothing that two threads write at once is taken for an entry.
TEST(PositionTable, TakesTwoThreads) {
  PositionTable table;
  table.resize(1);
  auto entryOf = [](std::uint64_t key) {
    TableEntry entry;
    entry.score = static_cast<std::int32_t>(key * 7 % 1000);
    entry.move = static_cast<std::uint16_t>(key % 91);
    entry.depth = static_cast<std::int8_t>(key % 50);
    entry.bound = Bound::exact;
    return entry;
  };
  std::atomic<int> found{0}, wrong{0};
  auto work = [&](std::uint64_t seed) {
    Stream stream(seed, 0);
    for (int i = 0; i < 300'000; ++i) {
      std::uint64_t key = scrambled(stream.below(100'000));
      table.keep(key, entryOf(key));
      std::uint64_t other = scrambled(stream.below(100'000));
      std::optional<TableEntry> there = table.find(other);
      if (!there) continue;
      ++found;
      TableEntry wanted = entryOf(other);
      wrong += there->score != wanted.score || there->move != wanted.move ||
               there->depth != wanted.depth;
    }
  };
  { std::jthread one(work, 1), two(work, 2); }
  EXPECT_GT(found, 10'000);
  EXPECT_EQ(wrong, 0);
}

TEST(BusyPositions, AreHintsForOthers) {
  BusyPositions busy;
  EXPECT_FALSE(busy.has(77));
  busy.begin(77);
  EXPECT_TRUE(busy.has(77));
  busy.end(78);  // another's
  EXPECT_TRUE(busy.has(77));
  busy.end(77);
  EXPECT_FALSE(busy.has(77));
}

// Two threads find what one finds.
TEST(Search, ThreadsAgree) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  Stream draw(3, 0);
  for (int number = 0; number < 6; ++number) {
    Position position = game->start();
    MoveList moves;
    for (int ply = 0; ply < 26 && !game->ended(position); ++ply) {
      game->listMoves(position, moves);
      game->apply(position, moves[draw.below(static_cast<std::uint32_t>(moves.size()))]);
    }
    if (game->ended(position)) continue;
    SearchLimits alone{.exact = true}, both{.exact = true, .threads = 2};
    Stream stream(1, 0);
    Choice one = makeSearch(alone)->choose(*game, position, stream);
    Choice two = makeSearch(both)->choose(*game, position, stream);
    EXPECT_EQ(one.solved || decides(one.score), two.solved || decides(two.score));
    EXPECT_EQ(one.score, two.score) << game->positionText(position);
  }
}

TEST(Search, ThreadsEndWithTheirLimits) {
  std::shared_ptr<const Game> chess = test::shipped("chess");
  Stream stream(1, 0);
  Choice choice =
      makeOpponent("search:nodes=20000,threads=3", "test")->choose(*chess, chess->start(), stream);
  EXPECT_GT(choice.nodes, 6'000u);
  EXPECT_GT(choice.depth, 1);
  StopFlag stop{true};
  std::unique_ptr<Opponent> stopped = makeOpponent("search:depth=30,threads=2", "test");
  stopped->stopWith(&stop);
  EXPECT_LT(stopped->choose(*chess, chess->start(), stream).nodes, 100'000u);
}

// A share of less than one position is a position, not no limit.
TEST(Search, ThreadsShareFewPositions) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  for (const char* who : {"search:level=1,threads=64", "search:nodes=3,threads=8"}) {
    Stream stream(1, 0);
    Choice choice = makeOpponent(who, "test")->choose(*game, game->start(), stream);
    EXPECT_LT(choice.depth, 9) << who;  // it was not solved
  }
}

TEST(Search, TellsEachStep) {
  std::shared_ptr<const Game> game = test::shipped("othello");
  std::unique_ptr<Opponent> search = makeOpponent("search:depth=5", "test");
  std::vector<int> depths;
  search->tellSteps([&](const Choice::Step& step) { depths.push_back(step.depth); });
  Stream stream(1, 0);
  search->choose(*game, game->start(), stream);
  EXPECT_EQ(depths, (std::vector<int>{1, 2, 3, 4, 5}));
}

// Each tree has a stream of its own, so that threads change nothing.
TEST(Playouts, ThreadsGiveTheSameMove) {
  std::shared_ptr<const Game> game = test::shipped("hex-tiles");
  std::vector<Choice> choices;
  for (int again = 0; again < 3; ++again) {
    Stream stream(4, 0);
    choices.push_back(makeOpponent("playouts:playouts=401,threads=3", "test")
                          ->choose(*game, game->start(), stream));
  }
  for (const Choice& one : choices) {
    EXPECT_EQ(one.move, choices[0].move);
    EXPECT_EQ(one.score, choices[0].score);
    EXPECT_EQ(one.nodes, 401u);
  }
}

// The tree that is kept is that of the position: as good as the same playouts from it.
TEST(Playouts, TheTreeGoesOn) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Position position = game->start();
  PlayoutTree tree;
  Stream stream(2, 0);
  tree.begin(*game, position, 16);
  for (int i = 0; i < 3000 && tree.isOpen(); ++i) tree.grow(stream);
  Choice first = tree.chosen();
  game->apply(position, first.move);
  MoveList moves;
  game->listMoves(position, moves);
  game->apply(position, moves[1]);
  PlayoutTree fresh;
  tree.begin(*game, position, 16);
  fresh.begin(*game, position, 16);
  game->listMoves(position, moves);
  // What is known before a single playout: the kept tree knows a line, the fresh one does not.
  EXPECT_GT(tree.chosen().line.size(), fresh.chosen().line.size());
  EXPECT_NE(std::find(moves.begin(), moves.end(), tree.chosen().move), moves.end());
  for (int i = 0; i < 20'000 && tree.isOpen(); ++i) tree.grow(stream);
  for (int i = 0; i < 20'000 && fresh.isOpen(); ++i) fresh.grow(stream);
  EXPECT_EQ(tree.chosen().solved, fresh.chosen().solved);
  EXPECT_TRUE(tree.chosen().solved);
  // Another position begins anew.
  tree.begin(*game, test::after(*game, "9, 8, 7"), 16);
  EXPECT_EQ(tree.chosen().line.size(), 1u);
}

}  // namespace threads_test
}  // namespace ninepegs::play
