#include <algorithm>
#include <functional>
#include <map>
#include <set>

#include "ninepegs/play/match.hpp"
#include "support/games.hpp"
#include "support/plain_games.hpp"

namespace ninepegs::play {
namespace opponents_test {

struct Score {
  int wins[2] = {0, 0};
  int draws = 0;
};

Score match(const Game& game, const char* first, const char* second, int games) {
  std::unique_ptr<Opponent> a = makeOpponent(first, "test"), b = makeOpponent(second, "test");
  Opponent* sides[2] = {a.get(), b.get()};
  Score score;
  for (int number = 0; number < games; ++number) {
    Stream stream(5, static_cast<std::uint64_t>(number));
    Played played = playGame(game, game.start(), sides, stream, 500);
    if (played.result.kind == ResultKind::win)
      ++score.wins[played.result.winner];
    else if (played.result.kind == ResultKind::draw)
      ++score.draws;
    else
      ADD_FAILURE() << "a game without an end";
  }
  return score;
}

// Whatever the other side plays: each position that it comes to is looked at once.
TEST(Search, NeverLosesTicTacToe) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  for (int own : {0, 1}) {
    std::unique_ptr<Opponent> search = makeOpponent("search", "test");
    std::set<std::string> seen;
    int ends[3] = {0, 0, 0};  // won by the one, the other, nobody
    std::function<void(const Position&)> follow = [&](const Position& position) {
      if (!seen.insert(game->positionText(position)).second) return;
      if (game->ended(position)) {
        ++ends[game->result(position).kind == ResultKind::win ? game->result(position).winner : 2];
        return;
      }
      Stream stream(5, seen.size());
      MoveList moves;
      if (game->toMove(position) == own)
        moves.push_back(search->choose(*game, position, stream).move);
      else
        game->listMoves(position, moves);
      for (const Move& move : moves) {
        Position next = position;
        game->apply(next, move);
        follow(next);
      }
    };
    follow(game->start());
    EXPECT_EQ(ends[1 - own], 0) << "as side " << own;
    EXPECT_GT(ends[own], 10);
    EXPECT_GT(ends[2], 0);
  }
}

TEST(Search, WinsWhereItCan) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  EXPECT_GT(match(*game, "search", "random", 40).wins[0], 32);
  EXPECT_GT(match(*game, "random", "search", 40).wins[1], 24);
}

TEST(Search, DrawsTicTacToeAgainstItself) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Score score = match(*game, "search", "search", 50);
  EXPECT_EQ(score.draws, 50);
  score = match(*game, "search:depth=9", "search:time=5", 10);
  EXPECT_EQ(score.draws, 10);
}

// The value of a position by looking at everything, with the plain program: 1, 0 or -1 for the side
// to move.
int value(const plain::TicTacToe& game, std::map<std::string, int>& known) {
  if (game.winner != 0) return -1;  // the other side has just won
  if (game.full()) return 0;
  auto it = known.find(game.key());
  if (it != known.end()) return it->second;
  int best = -1;
  for (const std::string& move : game.moves()) {
    plain::TicTacToe next = game;
    next.play(move);
    best = std::max(best, -value(next, known));
  }
  return known[game.key()] = best;
}

TEST(Search, FindsTheValueThatFullMinimaxFinds) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  std::map<std::string, int> known;
  std::unique_ptr<Opponent> search = makeSearch({.depth = 9});
  for (std::uint64_t number = 0; number < 300; ++number) {
    Stream stream(12, number);
    plain::TicTacToe plain;
    Position position = game->start();
    for (std::uint32_t plies = stream.below(8); plies > 0 && !plain.over(); --plies) {
      std::vector<std::string> moves = plain.moves();
      std::string move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
      plain.play(move);
      position = playMoves(*game, position, move, "test");
    }
    if (plain.over()) continue;
    Choice choice = search->choose(*game, position, stream);
    int expected = value(plain, known);
    int found = choice.score > 0 ? 1 : choice.score < 0 ? -1 : 0;
    EXPECT_EQ(found, expected) << game->positionText(position);
    plain::TicTacToe next = plain;
    next.play(game->moveText(position, choice.move));
    EXPECT_EQ(-value(next, known), expected) << "the move throws the value away";
  }
}

// The same by looking at everything, each position with its past.
int value(const Game& game, const Position& position) {
  Result result = game.result(position);
  if (result.kind == ResultKind::draw) return 0;
  if (result.kind == ResultKind::win) return result.winner == game.toMove(position) ? 1 : -1;
  MoveList moves;
  game.listMoves(position, moves);
  int best = -1;
  for (const Move& move : moves) {
    Position next = position;
    game.apply(next, move);
    best = std::max(best, -value(game, next));
    if (best == 1) break;
  }
  return best;
}

// Where a repetition decides, what was found of a position holds for its past alone.
TEST(Search, CallsNothingSolvedThatAnotherPastWouldChange) {
  int solved = 0;
  for (const char* win : {"when no theirs", "when stuck"}) {
    std::shared_ptr<const SheetGame> game = test::fromText(
        "game t\nsides Amber and Slate\nboard square 3 x 2\npiece peg o x\n"
        "start\n  peg of Amber a1\n  peg of Slate b2\nmove go\n  pick here in mine\n"
        "  pick there in (step orthogonal from here) on (all except mine)\n  take there\n"
        "  shift here to there\nends\n  mover wins \"over\" " +
        std::string(win) + "\n  draw \"again\" when times seen >= 2\n");
    std::unique_ptr<Opponent> search = makeSearch({.depth = 50});
    for (std::uint64_t number = 0; number < 60; ++number) {
      Stream stream(3, number);
      Position position = game->start();
      MoveList moves;
      for (std::uint32_t plies = stream.below(5); plies > 0 && !game->ended(position); --plies) {
        game->listMoves(position, moves);
        game->apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
      }
      if (game->ended(position)) continue;
      Choice choice = search->choose(*game, position, stream);
      if (!choice.solved) continue;
      ++solved;
      EXPECT_EQ(choice.score > 0   ? 1
                : choice.score < 0 ? -1
                                   : 0,
                value(*game, position))
          << game->positionText(position);
    }
  }
  EXPECT_GT(solved, 3);
}

TEST(Search, SeesAWinInThreeInConnectFour) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  // Two discs with room on both sides: the third makes two threats at once.
  Position position = game->readPosition("7/7/7/7/2x1x2/2o1o2; Amber to move", "test");
  Stream stream(1, 0);
  Choice choice = makeSearch({.depth = 5})->choose(*game, position, stream);
  EXPECT_EQ(game->moveText(position, choice.move), "d");
  EXPECT_EQ(choice.score, winScore - 3);
  ASSERT_GE(choice.line.size(), 3u);
}

TEST(Search, KeepsItsLimits) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  Stream stream(1, 0);
  Choice nodes = makeSearch({.nodes = 5000})->choose(*game, game->start(), stream);
  EXPECT_LE(nodes.nodes, 5001u);
  EXPECT_GT(nodes.depth, 2);
  Choice depth = makeSearch({.depth = 3})->choose(*game, game->start(), stream);
  EXPECT_EQ(depth.depth, 3);
  StopFlag stop{true};
  std::unique_ptr<Opponent> stopped = makeSearch({.depth = 40});
  stopped->stopWith(&stop);
  Choice early = stopped->choose(*game, game->start(), stream);  // ends at once, with a legal move
  EXPECT_FALSE(game->moveText(game->start(), early.move).empty());
}

TEST(Search, SameSeedSameGame) {
  std::shared_ptr<const Game> game = test::shipped("hut-pass");
  for (const char* who : {"random", "greedy", "search:depth=3", "search:nodes=3000"}) {
    std::vector<std::vector<Move>> games;
    for (int repeat = 0; repeat < 2; ++repeat) {
      std::unique_ptr<Opponent> a = makeOpponent(who, "test"), b = makeOpponent(who, "test");
      Opponent* sides[2] = {a.get(), b.get()};
      Stream stream(77, 3);
      games.push_back(playGame(*game, game->start(), sides, stream, 500).moves);
    }
    EXPECT_EQ(games[0], games[1]) << who;
  }
}

TEST(Search, WorksWhereTheSameSideMovesAgain) {
  // Whoever takes the last of five pegs wins; taking the first column's gives another turn.
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game last\nsides Amber and Slate\nboard square 5 x 1\npiece peg o x\nstart\n  o o o o o\n"
      "move take-one\n  pick there in occupied\n  take there\n  when there in column a\n    again\n"
      "ends\n  mover wins \"last\" when no occupied\n");
  // Without the extra turn the first side takes pegs 1, 3, 5 and wins; with it the side that takes
  // a1 can hand the other side an even number. Full search by hand over all orders:
  struct Plain {
    static int value(unsigned pegs) {
      for (int i = 0; i < 5; ++i) {
        if ((pegs >> i & 1) == 0) continue;
        unsigned left = pegs & ~(1u << i);
        int score = left == 0 ? 1 : i == 0 ? value(left) : -value(left);
        if (score > 0) return 1;
      }
      return -1;
    }
  };
  for (unsigned pegs = 1; pegs < 32; ++pegs) {
    std::string row;
    for (int i = 0; i < 5; ++i) row += (pegs >> i & 1) != 0 ? 'o' : '.';
    Position position = game->readPosition(
        "peg of Amber" +
            [&] {
              std::string cells;
              for (int i = 0; i < 5; ++i)
                if ((pegs >> i & 1) != 0)
                  cells += std::string(" ") + static_cast<char>('a' + i) + "1";
              return cells;
            }() +
            "; Amber to move",
        "test");
    Stream stream(1, pegs);
    Choice choice = makeSearch({.depth = 10})->choose(*game, position, stream);
    EXPECT_EQ(choice.score > 0 ? 1 : -1, Plain::value(pegs)) << row;
  }
}

TEST(Greedy, WinsAndBlocks) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  std::unique_ptr<Opponent> greedy = makeGreedy();
  for (std::uint64_t number = 0; number < 20; ++number) {
    Stream stream(1, number);
    auto plays = [&](const char* position) {
      Position at = game->readPosition(position, "test");
      return game->moveText(at, greedy->choose(*game, at, stream).move);
    };
    EXPECT_EQ(plays("XX1/OO1/3; Cross to move"), "3");  // wins rather than blocks
    EXPECT_EQ(plays("XX1/O2/3; Nought to move"), "3");  // blocks
    EXPECT_EQ(plays("X2/1O1/2X; Nought to move").size(), 1u);
  }
  Score score = match(*game, "greedy", "random", 400);
  EXPECT_GT(score.wins[0], 340);
}

TEST(Random, EveryMoveIsEquallyLikely) {
  std::shared_ptr<const Game> game = test::shipped("hut-pass");
  std::unique_ptr<Opponent> random = makeRandom();
  std::map<std::string, int> times;
  Stream stream(6, 0);
  std::size_t moves = game->countMoves(game->start());
  const int draws = 2000 * static_cast<int>(moves);
  for (int i = 0; i < draws; ++i)
    ++times[game->moveText(game->start(), random->choose(*game, game->start(), stream).move)];
  EXPECT_EQ(times.size(), moves);
  for (const auto& [text, n] : times) EXPECT_NEAR(n, 2000, 300) << text;  // more than six sigma
}

struct Wrong {
  const char* text;
  int column;
  const char* message;
};
class WrongOpponent : public testing::TestWithParam<Wrong> {};

TEST_P(WrongOpponent, IsRefused) {
  try {
    makeOpponent(GetParam().text, "--second");
    FAIL();
  } catch (const BadInput& error) {
    const Diagnostic& one = error.diagnostics().front();
    EXPECT_EQ(one.place.column, GetParam().column) << toText(one);
    EXPECT_NE(toText(one).find(GetParam().message), std::string::npos) << toText(one);
  }
}

INSTANTIATE_TEST_SUITE_P(
    Texts, WrongOpponent,
    testing::Values(
        Wrong{"", 1, "no opponent"}, Wrong{"serch", 1, "did you mean \"search\"?"},
        Wrong{"random:depth=3", 7, "takes no settings"}, Wrong{"search:", 8, "no setting"},
        Wrong{"search:dept=3", 8, "did you mean \"depth\"?"},
        Wrong{"search:depth", 13, "whole number"}, Wrong{"search:depth=0", 14, "whole number"},
        Wrong{"search:depth=-1", 14, "whole number"}, Wrong{"search:depth=61", 14, "from 1 to 60"},
        Wrong{"search:depth=3,", 16, "no setting"}, Wrong{"search:time=nan", 13, "seconds above 0"},
        Wrong{"search:time=inf", 13, "seconds above 0"},
        Wrong{"search:time=-1", 13, "seconds above 0"}, Wrong{"search:time=1e99", 13, "at most"},
        Wrong{"search:nodes=0", 14, "from 1 up"}, Wrong{"search:nodes=1.5", 14, "from 1 up"}));

// A name of limits is a text that makes the opponent again, but for what a text cannot ask for.
TEST(Opponent, IsMadeAgainFromItsName) {
  SearchLimits search{
      .depth = 3, .seconds = 0.5, .nodes = 700, .megabytes = 4, .pasts = 12, .threads = 2};
  EXPECT_EQ(makeOpponent(nameOf(search), "t")->name(), nameOf(search));
  SearchLimits level{.level = 4};
  EXPECT_EQ(makeOpponent(nameOf(level), "t")->name(), nameOf(level));
  PlayoutLimits playouts{300, 0.5, 4, 12, 2};
  EXPECT_EQ(makeOpponent(nameOf(playouts), "t")->name(), nameOf(playouts));
  EXPECT_THROW(makeOpponent(nameOf(SearchLimits{.exact = true}), "t"), BadInput);
}

TEST(Opponent, NamesTellTheLimits) {
  EXPECT_EQ(makeOpponent("search:depth=6,time=0.5", "t")->name(), "search:depth=6,time=0.5");
  EXPECT_EQ(makeOpponent("search", "t")->name(), "search:nodes=100000");
  EXPECT_EQ(makeOpponent("greedy", "t")->name(), "greedy");
}

// Both sides search; the one with the queen or the rook mates well before the draw of fifty moves.
TEST(Search, WinsBasicEndings) {
  auto chess = test::shipped("chess");
  for (const char* fen : {"8/8/8/3k4/8/8/8/QK6 w - - 0 1", "8/8/8/3k4/8/8/8/RK6 w - - 0 1"}) {
    Position position = chess->readPosition(fen, "test");
    std::unique_ptr<Opponent> sides[2] = {makeSearch({.nodes = 30'000}),
                                          makeSearch({.nodes = 30'000})};
    int plies = 0;
    for (; !chess->ended(position) && plies < 90; ++plies) {
      Stream stream(2, static_cast<std::uint64_t>(plies));
      Choice choice = sides[chess->toMove(position)]->choose(*chess, position, stream);
      chess->apply(position, choice.move);
    }
    Result result = chess->result(position);
    EXPECT_EQ(result.kind, ResultKind::win) << fen;
    EXPECT_EQ(result.winner, 0) << fen;
  }
}

}  // namespace opponents_test
}  // namespace ninepegs::play
