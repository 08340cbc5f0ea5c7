#include "ninepegs/play/thinking.hpp"

#include <algorithm>

#include "ninepegs/play/knowledge.hpp"
#include "ninepegs/play/playout_tree.hpp"
#include "ninepegs/report/thinking_text.hpp"
#include "support/games.hpp"

namespace ninepegs::play {
namespace thinking_test {

const char* const sawing =
    "game sawing\nsides Amber and Slate\nboard square 4 x 4\npiece peg a s\nmark gone\n"
    "start\n  peg of Amber b1\n  peg of Slate d4\ndefine free = empty except gone\n"
    "move push\n  pick here in mine\n  pick there in free on step any from here\n"
    "  shift here to there\n  pick out in free\n  add out to gone\n"
    "  written as there \"/\" out\nmove stay\n  pick out in free\n  need count free < 4\n"
    "  add out to gone\n  written as out\nturn push or stay\n"
    "ends\n  mover wins \"stuck\" when stuck\n";

// Minimax as it stands in the textbook, on the interface of a game.
std::int64_t plain(const Game& game, const Position& position, int ply, int depth) {
  Result result = game.result(position);
  int side = game.toMove(position);
  if (result.kind == ResultKind::win)
    return result.winner == side ? winScore - ply : ply - winScore;
  if (result.kind != ResultKind::ongoing) return 0;
  if (depth == 0) return game.measure()->worth(position, side);
  MoveList moves;
  game.listMoves(position, moves);
  std::int64_t best = -2 * winScore;
  for (const Move& move : moves) {
    Position after = position;
    game.apply(after, move);
    std::int64_t score = plain(game, after, ply + 1, depth - 1);
    best = std::max(best, game.toMove(after) == side ? score : -score);
  }
  return best;
}

// Positions of random games in which somebody is to move.
std::vector<Position> drawn(const Game& game, int many, int plies) {
  std::vector<Position> out;
  for (std::uint64_t number = 0; static_cast<int>(out.size()) < many; ++number) {
    Stream stream(12, number);
    Position position = game.start();
    MoveList moves;
    for (int ply = 0; ply < plies; ++ply) {
      game.listMoves(position, moves);
      if (moves.empty()) break;
      game.apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
    }
    if (!game.ended(position)) out.push_back(position);
  }
  return out;
}

// Both give the score that minimax comes to; at two plies nothing is looked at less deeply.
TEST(Minimax, IsThatOfTheTextbook) {
  for (const char* name : {"connect-four", "othello", "draughts"}) {
    std::shared_ptr<const Game> game = test::shipped(name);
    if (game->measure() == nullptr) continue;
    for (const Position& position : drawn(*game, 6, 9)) {
      for (int depth : {1, 2, 3}) {
        Stream stream(1, 1);
        EXPECT_EQ(makeMinimax(depth)->choose(*game, position, stream).score,
                  plain(*game, position, 0, depth))
            << name << " " << game->positionText(position);
      }
    }
  }
}

TEST(Search, ShallowScoresAreThoseOfMinimax) {
  for (const char* name : {"connect-four", "othello"}) {
    std::shared_ptr<const Game> game = test::shipped(name);
    for (const Position& position : drawn(*game, 10, 11))
      for (int depth : {1, 2}) {
        Stream stream(1, 1);
        EXPECT_EQ(makeSearch({.depth = depth})->choose(*game, position, stream).score,
                  plain(*game, position, 0, depth))
            << name << " " << game->positionText(position);
      }
  }
}

// The line that is shown does not hang a piece: at its end nothing can be taken for good.
TEST(Search, TakesAreFollowedToTheirEnd) {
  std::shared_ptr<const Game> game = test::shipped("chess");
  // A pawn that is guarded by a pawn: the queen must not take it at the last ply.
  Position position = game->readPosition("4k3/8/2p5/3p4/8/8/3Q4/4K3 w - - 0 1", "test");
  for (int depth : {1, 2, 3}) {
    Stream stream(1, static_cast<std::uint64_t>(depth));
    Choice choice = makeSearch({.depth = depth})->choose(*game, position, stream);
    EXPECT_NE(game->moveText(position, choice.move), "Qxd5") << depth;
    EXPECT_NE(game->moveText(position, choice.move), "d2d5") << depth;
  }
}

// A win that is seen where lines go deeper need not be the soonest: the search looks a little on.
TEST(Search, LooksForASoonerMate) {
  std::shared_ptr<const Game> game = test::shipped("chess");
  for (const char* text :
       {"1K6/8/2R5/2pP4/5Q2/8/8/2k5 w - - 0 1", "4k3/8/R7/6b1/8/1n6/8/2Q3K1 w - - 0 1"}) {
    Position position = game->readPosition(text, "test");
    Stream stream(1, 0);
    Choice exact = makeSearch({.nodes = 3'000'000, .exact = true})->choose(*game, position, stream);
    ASSERT_TRUE(decides(exact.score) && !exact.bound);
    Choice choice = makeSearch({.nodes = 500'000})->choose(*game, position, stream);
    EXPECT_EQ(choice.score, exact.score) << text;
  }
}

// Results that the tree proves are those of all games.
TEST(Playouts, WhatIsProvedHolds) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  auto exact = [&](auto&& self, const Position& position) -> int {
    Result result = game->result(position);
    if (result.kind == ResultKind::win) return -1;  // the side that has just moved
    if (result.kind == ResultKind::draw) return 0;
    MoveList moves;
    game->listMoves(position, moves);
    int best = -1;
    for (const Move& move : moves) {
      Position after = position;
      game->apply(after, move);
      best = std::max(best, -self(self, after));
    }
    return best;
  };
  int solved = 0;
  for (const Position& position : drawn(*game, 40, 3)) {
    Stream stream(2, 2);
    Choice choice = makePlayouts({.playouts = 3000})->choose(*game, position, stream);
    if (!choice.solved) continue;
    ++solved;
    Position after = position;
    game->apply(after, choice.move);
    int value = exact(exact, position);
    EXPECT_EQ(-exact(exact, after), value) << game->positionText(position);
    EXPECT_EQ(choice.score > 1000, value == 1) << game->positionText(position);
    EXPECT_EQ(choice.score < -1000, value == -1) << game->positionText(position);
  }
  EXPECT_GT(solved, 30);
}

// Where moves are taken apart by their choices, and in trees that are kept or stand beside another.
TEST(Playouts, WhatIsProvedHoldsOfMovesInParts) {
  std::shared_ptr<const Game> game = test::fromText(sawing);
  int solved = 0, wide = 0, number = 0;
  for (const Position& from : drawn(*game, 8, 4)) {
    Stream stream(5, static_cast<std::uint64_t>(number));
    std::unique_ptr<Opponent> playouts =
        makePlayouts({.playouts = 15'000, .threads = 1 + number++ % 2});
    Position position = from;
    while (game->result(position).kind == ResultKind::ongoing) {
      Choice choice = playouts->choose(*game, position, stream);
      Position at = position;
      for (const Move& move : choice.line) {
        MoveList moves;
        game->listMoves(at, moves);
        ASSERT_NE(std::find(moves.begin(), moves.end(), move), moves.end());
        game->apply(at, move);
      }
      if (choice.solved) {
        ++solved;
        wide += game->countMoves(position) >= 64;
        Choice exact = makeSearch({.exact = true})->choose(*game, position, stream);
        EXPECT_EQ(choice.score > 0, exact.score > 0) << game->positionText(position);
      }
      game->apply(position, choice.move);
    }
  }
  EXPECT_GT(solved, 20);
  EXPECT_GT(wide, 0);
}

// More moves than a small tree has room for: one of them is chosen all the same.
TEST(Playouts, HaveRoomForTheFirstMoves) {
  auto game = test::fromText(
      "game pairs\nsides Amber and Slate\nboard square 15 x 15\npiece peg o x\nmove lay\n"
      "  pick one in empty\n  pick other in empty\n  put peg on one\n  written as one other\n"
      "ends\n  mover wins \"two\" when count mine >= 2\n");
  MoveList moves;
  game->listMoves(game->start(), moves);
  ASSERT_GT(moves.size(), (1u << 20) / sizeof(PlayoutTree::Node));
  Stream stream(3, 5);
  Choice choice =
      makePlayouts({.playouts = 20, .megabytes = 1})->choose(*game, game->start(), stream);
  EXPECT_NE(std::find(moves.begin(), moves.end(), choice.move), moves.end());
}

TEST(Playouts, WinsAndBlocks) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  for (const auto& [moves, wanted] : std::vector<std::pair<const char*, const char*>>{
           {"d, a, d, a, d, b", "d"},     // three in a column: win
           {"a, d, a, d, b, d", "d"}}) {  // ... of the other side: block
    Position position = test::after(*game, moves);
    Stream stream(3, 3);
    Choice choice = makePlayouts({.playouts = 500})->choose(*game, position, stream);
    EXPECT_EQ(game->moveText(position, choice.move), wanted) << moves;
  }
  // A small tree is a tree, too.
  Stream stream(3, 4);
  EXPECT_FALSE(makePlayouts({.playouts = 20'000, .megabytes = 1})
                   ->choose(*game, game->start(), stream)
                   .line.empty());
}

// On large boards a few hundred playouts do: moves learn from playouts in which they came later.
TEST(Playouts, BlockOnALargeBoard) {
  std::shared_ptr<const Game> game = test::shipped("five-in-a-row");
  Position four = test::after(*game, "h8, h7, h9, a3, h10, a5, h11");
  int blocked = 0, won = 0;
  for (std::uint64_t number = 0; number < 4; ++number) {
    Stream stream(7, number);
    std::string text =
        game->moveText(four, makePlayouts({.playouts = 1500})->choose(*game, four, stream).move);
    blocked += text == "h12";
    Position mine = test::after(*game, "h8, h7, h9, a3, h10, a5, h11, c9");
    text = game->moveText(mine, makePlayouts({.playouts = 1500})->choose(*game, mine, stream).move);
    won += text == "h12";
  }
  EXPECT_EQ(won, 4);
  EXPECT_GE(blocked, 3);
}

// The tree of all moves, as published: 9, 72, 504 ... games of tic-tac-toe, summed up.
TEST(Thinking, CountsWhatMinimaxLooksAt) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Thinking thought = think(*game, game->start(), *makeSearch({.depth = 5, .nodes = 2000}), {});
  ASSERT_EQ(thought.choice.steps.size(), 5u);
  EXPECT_EQ(thought.plain, (std::vector<std::uint64_t>{9, 81, 585, 3609, 18729}));
  std::uint64_t before = 0;
  for (const Choice::Step& step : thought.choice.steps) {
    EXPECT_GT(step.nodes, before);
    before = step.nodes;
    EXPECT_EQ(step.line.empty(), false);
  }
  EXPECT_LT(before, 18729u);
  EXPECT_EQ(thought.moves.size(), 9u);
  EXPECT_EQ(think(*game, game->start(), *makeSearch({.depth = 9}), {.plainNodes = 50}).plain.size(),
            1u);
}

// Each move's score is that of the position behind it.
TEST(Thinking, ScoresEveryMove) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Position position = test::after(*game, "1, 5, 2");  // Nought must block at 3
  Thinking thought = think(*game, position, *makeSearch({}), {});
  EXPECT_TRUE(thought.choice.solved);
  EXPECT_EQ(game->moveText(position, thought.moves.front().move), "3");
  EXPECT_EQ(thought.moves.front().score, 0);
  for (std::size_t i = 1; i < thought.moves.size(); ++i)
    EXPECT_EQ(thought.moves[i].score, 2 - winScore);
  std::string text = report::thinkingText(*game, position, thought, report::Paint());
  EXPECT_NE(text.find("loses in 2 plies"), std::string::npos) << text;
  EXPECT_EQ(test::count(report::thinkingCsv(*game, position, thought), "\n"),
            thought.choice.steps.size() + 1);
}

// Minimax tells depth by depth only where it is listened to, and chooses the same: what it looks at
// is counted by another method, and its scores are those of the textbook.
TEST(Thinking, MinimaxShowsItsDepths) {
  std::shared_ptr<const Game> game = test::shipped("othello");
  for (const Position& position : drawn(*game, 5, 12)) {
    Thinking thought = think(*game, position, *makeMinimax(3), {});
    ASSERT_EQ(thought.choice.steps.size(), 3u);
    std::uint64_t before = 0;
    for (std::size_t i = 0; i < 3; ++i) {
      EXPECT_EQ(thought.choice.steps[i].nodes - before, thought.plain[i]);
      EXPECT_EQ(thought.choice.steps[i].score, plain(*game, position, 0, static_cast<int>(i) + 1));
      before = thought.choice.steps[i].nodes;
    }
    MoveList moves;
    game->listMoves(position, moves);
    ASSERT_EQ(thought.moves.size(), moves.size());
    for (const Thinking::RootMove& one : thought.moves) {
      Position after = position;
      game->apply(after, one.move);
      std::int64_t score = plain(*game, after, 1, 2);
      EXPECT_EQ(one.score, game->toMove(after) == game->toMove(position) ? score : -score);
    }
    Stream stream(1, 0);
    EXPECT_EQ(makeMinimax(3)->choose(*game, position, stream).move, thought.choice.move);
  }
}

// The playouts of all moves are those that were played, also where moves are taken apart.
TEST(Thinking, ShowsPlayouts) {
  for (const std::shared_ptr<const Game>& game : std::vector<std::shared_ptr<const Game>>{
           test::fromText(sawing), test::shipped("hex"), test::shipped("chess")}) {
    MoveList moves;
    game->listMoves(game->start(), moves);
    Thinking thought = think(*game, game->start(), *makePlayouts({.playouts = 130}), {});
    std::vector<std::uint64_t> counts;
    for (const Choice::Step& step : thought.choice.steps) counts.push_back(step.nodes);
    EXPECT_EQ(counts, (std::vector<std::uint64_t>{10, 20, 50, 100, 130}));
    EXPECT_TRUE(thought.plain.empty());
    ASSERT_EQ(thought.moves.size(), moves.size());
    std::uint64_t all = 0;
    for (const Thinking::RootMove& one : thought.moves) {
      EXPECT_NE(std::find(moves.begin(), moves.end(), one.move), moves.end());
      EXPECT_LE(std::abs(one.score), 1000);
      all += one.nodes;
    }
    EXPECT_EQ(all, 130u) << game->info().id;
    std::string text = report::thinkingText(*game, game->start(), thought, report::Paint());
    EXPECT_NE(text.find("playouts"), std::string::npos) << text;
    EXPECT_NE(report::thinkingCsv(*game, game->start(), thought).find("\n130,\""),
              std::string::npos);
  }
  // What is proved is said so, and its plies are not made up.
  auto game = test::shipped("tic-tac-toe");
  Position position = test::after(*game, "1, 4, 2, 5");
  Thinking thought = think(*game, position, *makePlayouts({.playouts = 2000}), {});
  EXPECT_TRUE(thought.choice.solved);
  std::string text = report::thinkingText(*game, position, thought, report::Paint());
  EXPECT_NE(text.find("wins"), std::string::npos) << text;
  EXPECT_EQ(text.find("plies"), std::string::npos) << text;
}

// Of a sheet without worth all scores are by one measure: the best move has the position's.
TEST(Thinking, MeasuresAllMovesAlike) {
  auto game = test::fromText(R"(game grow
sides Amber and Slate
board square 5 x 5
piece peg o x
move put-down
  pick there in empty
  put peg on there
after every move
  let near = theirs on step orthogonal from touched
  flip near
ends
  leader in count mine wins "more" or draw "even" when no empty
)");
  for (const Position& position : drawn(*game, 6, 5)) {
    ThinkOptions options;
    options.nodes = 20'000;
    Thinking thought = think(*game, position, *makeSearch({.depth = 2, .nodes = 20'000}), options);
    ASSERT_EQ(thought.choice.depth, 2);
    EXPECT_EQ(thought.moves.front().score, thought.choice.score);
  }
}

// Where something is hidden, each move is worth what it is on the mean of all that could be so.
TEST(Thinking, WeighsWhatASideKnows) {
  auto game = test::fromText(R"(game hiding
sides Amber and Slate
board square 3 x 2, one each
piece peg P secret
mark guessed each
move hide
  need count mine < 2
  pick there in all except mine
  put peg on there
  written as "hide " there
  seen as "hidden"
move guess
  pick there in all except my guessed
  add there to my guessed
  when there in theirs
    tell "found"
  otherwise
    tell "nothing"
  written as there
turn hide else guess
ends
  mover wins "all found" when any theirs and theirs within my guessed
worth count (my guessed on theirs)
)");
  Position position = game->start();
  Knowledge known(*game, position, 0);
  // One of two is found, and two cells hold nothing: the other is on one of three cells.
  MoveList moves;
  playMoves(*game, position, "hide a1, hide a1, hide b1, hide b1, a1, a2, c1, b2, c2, c2", "test",
            &moves);
  for (const Move& move : moves) {
    known.note(position, move);
    game->apply(position, move);
  }
  known.turn(position);
  Thinking thought = think(*game, known, *makeSearch({.depth = 1}), {});
  ASSERT_GT(thought.positions, 0u);
  ASSERT_EQ(thought.moves.size(), 3u);
  std::int64_t sum = 0;
  for (const Thinking::RootMove& one : thought.moves) {
    // One peg is found. A win counts as 3, anything else as 1: one of three moves wins.
    EXPECT_NEAR(static_cast<double>(one.score), 1667, 350) << game->moveText(position, one.move);
    sum += one.score;
  }
  EXPECT_NEAR(static_cast<double>(sum), 5000, 3);
}

// A line does not end where pieces are still being taken: behind its last move nothing is won by
// moves that take, which another search of that position alone would see at once.
TEST(Thinking, LinesEndWhereNothingIsTaken) {
  std::shared_ptr<const Game> game = test::shipped("chess");
  int lines = 0, open = 0;
  for (std::uint64_t number = 0; number < 12; ++number) {
    Stream stream(11, number);
    std::unique_ptr<LivePosition> live = game->live();
    for (int ply = 0; ply < 40 && live->playDrawn(stream); ++ply) {
      if (ply % 5 != 4 || live->ended() || !live->canMove()) continue;
      Position position = live->position();
      Stream own(3, 0);
      Choice choice = makeOpponent("search:nodes=3000", "test")->choose(*game, position, own);
      if (choice.steps.empty() || decides(choice.score)) continue;
      for (const Move& move : choice.line) game->apply(position, move);
      ++lines;
      if (game->ended(position) || game->countMoves(position) == 0) continue;
      // To a depth of one ply, with all that takes behind it, and as it stands.
      int side = game->toMove(position);
      std::int64_t stands = game->measure()->worth(position, side);
      choice = makeOpponent("search:depth=1", "test")->choose(*game, position, own);
      std::vector<Cell> cells = game->cellsOf(position, choice.move);
      bool takes = game->pieceAt(position, cells.back(), 0).has_value();
      open += takes && choice.score > stands + 90;
    }
  }
  EXPECT_GT(lines, 60);
  EXPECT_EQ(open, 0);
}

}  // namespace thinking_test
}  // namespace ninepegs::play
