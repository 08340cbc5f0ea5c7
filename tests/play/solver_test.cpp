#include "ninepegs/play/solver.hpp"

#include <array>
#include <unordered_map>

#include "ninepegs/play/alpha_beta.hpp"
#include "ninepegs/verify/endings.hpp"
#include "ninepegs/verify/every.hpp"
#include "support/games.hpp"

namespace ninepegs::play {
namespace solver_test {

// Behind so many plies of a random game. Requires that none ends sooner.
Position drawnPosition(const Game& game, std::uint64_t seed, std::uint64_t number, int plies) {
  Stream stream(seed, number);
  std::unique_ptr<LivePosition> live = game.live();
  while (live->plies() < plies && live->playDrawn(stream)) {
  }
  return live->position();
}

// Forwards by alpha-beta, and backwards through all positions: the same winner after the same
// plies.
TEST(Solver, AgreesWithEveryPosition) {
  std::string small = std::string(NINEPEGS_SOURCE) + "/examples/small/";
  for (const auto& [name, variant] :
       std::vector<std::pair<std::string, std::string>>{{"tic-tac-toe", ""},
                                                        {"nim", ""},
                                                        {"nim", "normal"},
                                                        {"nim", "single"},
                                                        {"connect-four", "four"},
                                                        {"othello", "four"},
                                                        {small + "gate.pegs", ""},
                                                        {small + "three-pegs.pegs", ""}}) {
    std::shared_ptr<const Game> game = test::shippedLibrary().open(name, variant);
    verify::EveryReport every = verify::everyPosition(*game, {});
    ASSERT_TRUE(every.solved) << name;
    Solved solved = solve(*game, game->start(), {.nodes = 2'000'000});
    if (every.winner < 0 && !every.longest) continue;  // positions come again: it is never settled
    ASSERT_TRUE(solved.known) << name << variant;
    EXPECT_EQ(solved.winner, every.winner) << name << variant;
    if (solved.winner >= 0) {
      EXPECT_EQ(solved.plies, static_cast<int>(every.plies)) << name << variant;
      EXPECT_EQ(solved.line.size(), every.plies) << name << variant;
    }
    // The line ends as it was said.
    Position position = game->start();
    for (const Move& move : solved.line) game->apply(position, move);
    ASSERT_TRUE(game->ended(position)) << name;
    EXPECT_EQ(game->result(position).kind == ResultKind::win ? game->result(position).winner : -1,
              solved.winner);
    // The best move comes first, and it is as good as the position.
    EXPECT_EQ(solved.moves.front().winner, solved.winner);
    if (solved.winner >= 0) {
      EXPECT_EQ(solved.moves.front().plies, solved.plies);
    }
  }
}

// Games of lines are followed by what is filled alone: on boards of all forms, from the start and
// from positions on the way, the same winner after the same plies as backwards through all
// positions.
TEST(Solver, GamesOfLinesAgreeWithEveryPosition) {
  const std::string head = "game t\nsides Amber and Slate\npiece peg o x\nboard ";
  const std::string put = "  put peg on there\nends\n  mover wins \"line\" when any line of ";
  for (const auto& [board, set, length] : std::vector<std::array<std::string, 3>>{
           {"square 4 x 3", "empty except north of empty", "3"},
           {"square 3 x 3", "empty except (north of empty or east of empty)", "3"},
           {"square 4 x 3, without b2", "empty", "3"},
           {"square 5 x 2", "empty", "3"},
           {"hexagon 2", "empty", "3"},
           {"rhombus 4 x 3", "empty except northeast of empty", "3"},
           {"square 4 x 3", "empty except north of empty", "4"}})
    for (bool ends : {true, false}) {
      std::string text = head + board + "\nmove go\n  pick there in " + set + "\n" + put + length +
                         " in mine\n" + (ends ? "  draw \"full\" when no empty\n" : "");
      SCOPED_TRACE(text);
      std::shared_ptr<const SheetGame> game = SheetGame::fromText("game.pegs", text);
      for (std::uint64_t number = 0; number < 4; ++number) {
        Position position = drawnPosition(*game, 6, number, static_cast<int>(number));
        ASSERT_NE(LineLive::of(*game, position, {}), nullptr);
        verify::Ending ending = verify::solveBackwards(*game, position, {});
        ASSERT_TRUE(ending.every.solved);
        Solved solved = solve(*game, position, {.megabytes = 2, .threads = number % 2 ? 2 : 1});
        ASSERT_TRUE(solved.known);
        EXPECT_EQ(solved.winner, ending.solved.winner);
        EXPECT_EQ(solved.plies, ending.solved.plies);
        ASSERT_EQ(solved.moves.size(), ending.solved.moves.size());
        for (const Solved::RootMove& one : solved.moves) {
          auto same = std::find_if(ending.solved.moves.begin(), ending.solved.moves.end(),
                                   [&](const auto& other) { return other.move == one.move; });
          ASSERT_NE(same, ending.solved.moves.end());
          EXPECT_EQ(one.winner, same->winner) << game->moveText(position, one.move);
          if (one.winner >= 0) {
            EXPECT_EQ(one.plies, same->plies) << game->moveText(position, one.move);
          }
        }
      }
    }
}

// In positions of random games, each move's result is that of the position behind it.
TEST(Solver, EveryMoveIsSolved) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  for (std::uint64_t number = 0; number < 12; ++number) {
    Position position = drawnPosition(*game, 4, number, 4);
    if (game->ended(position)) continue;
    Solved solved = solve(*game, position, {.megabytes = 2});
    ASSERT_TRUE(solved.known);
    for (const Solved::RootMove& one : solved.moves) {
      Position after = position;
      game->apply(after, one.move);
      ASSERT_TRUE(one.known);
      if (game->ended(after)) continue;
      Solved behind = solve(*game, after, {.megabytes = 2});
      EXPECT_EQ(behind.winner, one.winner);
      if (one.winner >= 0) {
        EXPECT_EQ(behind.plies + 1, one.plies);
      }
    }
  }
}

// A move whose position is an image of one that is solved is not looked at again: of the nine first
// moves three are unlike. The results are those of the positions behind the moves.
TEST(Solver, AsksNoImageTwice) {
  for (const auto& [game, unlike] :
       std::vector<std::pair<std::shared_ptr<const Game>, std::uint64_t>>{
           {test::shipped("tic-tac-toe"), 3},
           {test::shippedLibrary().open("othello", "four"), 1}}) {
    std::uint64_t asked = 0;
    std::size_t known = 0;
    SolveOptions options;
    options.megabytes = 1;
    std::vector<std::uint64_t> nodes;  // after each move
    options.found = [&](const Solved& so) {
      if (so.moves.size() > known) known = so.moves.size(), nodes.push_back(so.nodes);
    };
    Solved solved = solve(*game, game->start(), options);
    for (std::size_t i = 1; i < nodes.size(); ++i) asked += nodes[i] > nodes[i - 1];
    EXPECT_LT(asked, unlike) << game->info().id;  // one is the best move
    for (const Solved::RootMove& one : solved.moves) {
      Position after = game->start();
      game->apply(after, one.move);
      Solved behind = solve(*game, after, {.megabytes = 1});
      ASSERT_TRUE(one.known);
      EXPECT_EQ(one.winner, behind.winner);
      if (one.winner >= 0) {
        EXPECT_EQ(one.plies, behind.plies + 1);
      }
    }
  }
}

TEST(Solver, SaysWhatItKnowsWhenItIsBrokenOff) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  Solved solved = solve(*game, game->start(), {.nodes = 5000, .megabytes = 1});
  EXPECT_FALSE(solved.known);
  EXPECT_TRUE(solved.brokenOff);
  EXPECT_GT(solved.depth, 4);
  EXPECT_EQ(solved.moves.size(), 7u);
}

// Games of more than thirty plies are followed to their ends, too, without a look at each depth.
TEST(Solver, FollowsLongGamesToTheirEnds) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  Position position = test::after(*game, "e, g, e, d, d, f, g, b, b, f");
  AlphaBeta tree;
  tree.begin(*game, position, {.exact = true}, nullptr);
  ASSERT_EQ(tree.lookToEnds(3'000'000), std::optional<int>(1));
  ASSERT_TRUE(tree.lookForSooner(3'000'000).has_value());
  EXPECT_EQ(winScore - tree.found(), 9);  // as looking ply by ply finds it
  Solved solved = solve(*game, position, {.nodes = 3'000'000});
  EXPECT_EQ(solved.plies, 9);
  EXPECT_FALSE(solved.atMost);
}

TEST(Solver, TellsHowFarItIs) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  std::vector<std::uint64_t> told;
  SolveOptions options;
  options.nodes = 200'000;
  options.megabytes = 2;
  options.progress = [&](std::uint64_t nodes) { told.push_back(nodes); };
  Solved solved = solve(*game, game->start(), options);
  EXPECT_GE(told.size(), 10u);
  EXPECT_TRUE(std::is_sorted(told.begin(), told.end()));
  EXPECT_LE(told.back(), solved.nodes);
}

// On the way it tells who wins before it knows how soon, and then each move.
TEST(Solver, TellsWhatItHasFound) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  Position position = test::after(*game, "e, g, e, d, d, f, g, b, b, f");
  std::vector<Solved> told;
  SolveOptions options;
  options.found = [&](const Solved& so) { told.push_back(so); };
  Solved solved = solve(*game, position, options);
  ASSERT_GE(told.size(), 1 + solved.moves.size());
  for (std::size_t i = 0; i < told.size(); ++i) {
    ASSERT_TRUE(told[i].known);
    EXPECT_EQ(told[i].winner, solved.winner);
    EXPECT_GE(told[i].plies, solved.plies);
    EXPECT_TRUE(told[i].atMost || told[i].plies == solved.plies);
    if (i > 0) {
      EXPECT_LE(told[i].plies, told[i - 1].plies);
      EXPECT_GE(told[i].moves.size(), told[i - 1].moves.size());
    }
  }
  EXPECT_EQ(told.back().moves.size(), solved.moves.size());
}

// Rules that come to no end far behind the positions that are looked at are in nobody's way.
TEST(Solver, LooksNoFurtherThanItIsAllowed) {
  auto game = test::fromText(R"(game late
sides Amber and Slate
board square 4 x 4
piece peg o x
mark met
move place
  pick there in empty
  put peg on there
  when count occupied = 12
    repeat while possible
      add there to met
ends
  draw "full" when no empty
)");
  Solved solved = solve(*game, game->start(), {.nodes = 500, .megabytes = 1});
  EXPECT_FALSE(solved.known);
  EXPECT_TRUE(solved.brokenOff);
}

// Connect four by hand, on seven columns of seven bits, as the rules are told: from the side to
// move, how many plies until it wins (positive) or loses (negative); 0 a draw.
class FourByHand {
 public:
  void drop(int column) {
    mine_ ^= all_;
    all_ |= all_ + (1ull << (column * 7));
  }
  bool open(int column) const { return (all_ & (1ull << (column * 7 + 5))) == 0; }
  int solve() {
    if (wins(mine_ ^ all_)) return 0;  // never asked
    return look();
  }

 private:
  static bool wins(std::uint64_t stones) {
    for (int step : {1, 6, 7, 8}) {
      std::uint64_t two = stones & (stones >> step);
      if ((two & (two >> (2 * step))) != 0) return true;
    }
    return false;
  }
  int look() {
    auto [at, fresh] = known_.emplace(mine_ + all_, 0);
    if (!fresh) return at->second;
    int best = -1000;
    bool any = false;
    for (int column : {3, 2, 4, 1, 5, 0, 6}) {
      if (!open(column)) continue;
      any = true;
      std::uint64_t mine = mine_, all = all_;
      drop(column);
      int here = 0;
      if (wins(mine_ ^ all_))
        here = 1;
      else if (int behind = look(); behind != 0)
        here = behind > 0 ? -behind - 1 : -behind + 1;
      mine_ = mine, all_ = all;
      if (rank(here) > rank(best) || best == -1000) best = here;
      if (best == 1) break;
    }
    if (!any) best = 0;
    return known_[mine_ + all_] = best;
  }
  static int rank(int result) {
    return result > 0 ? 1000 - result : result < 0 ? -1000 - result : 0;
  }

  std::uint64_t mine_ = 0, all_ = 0;  // of the side to move; of both
  std::unordered_map<std::uint64_t, int> known_;
};

TEST(Solver, AgreesWithConnectFourByHand) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  int compared = 0, wins = 0;
  for (std::uint64_t number = 0; number < 60; ++number) {
    Stream stream(9, number);
    Position position = game->start();
    FourByHand hand;
    int plies = 22 + static_cast<int>(stream.below(8));
    for (int ply = 0; ply < plies && !game->ended(position); ++ply) {
      int column = static_cast<int>(stream.below(7));
      if (!hand.open(column)) continue;
      hand.drop(column);
      position = playMoves(*game, position, Geometry::columnName(column + 1), "test");
    }
    if (game->ended(position)) continue;
    int expected = hand.solve();
    Solved solved = solve(*game, position, {.megabytes = 4});
    ASSERT_TRUE(solved.known) << number;
    int side = game->toMove(position);
    EXPECT_EQ(solved.winner, expected == 0 ? -1 : expected > 0 ? side : 1 - side) << number;
    if (expected != 0) {
      EXPECT_EQ(solved.plies, std::abs(expected)) << number;
      ++wins;
    }
    ++compared;
  }
  EXPECT_GT(compared, 15);
  EXPECT_GT(wins, 5);
}

}  // namespace solver_test
}  // namespace ninepegs::play
