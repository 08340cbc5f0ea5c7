// A game written in C++ is taken by everything that takes a sheet's game.
#include <gtest/gtest.h>

#include <cstddef>
#include <new>

#include "ninepegs/play/match.hpp"
#include "ninepegs/report/json.hpp"
#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/count.hpp"
#include "support/live.hpp"

namespace ninepegs {
namespace own_game_test {

// A heap of pegs on the table of the hut: take one, two or three; who takes the last one loses.
class Heap : public Game {
 public:
  explicit Heap(int pegs, bool faulty = false) : pegs_(pegs), faulty_(faulty) {
    info_.id = "heap";
    info_.title = "Heap";
    info_.sides[0] = "First";
    info_.sides[1] = "Second";
    info_.ends = {{"took the last", 0, false}};
    board_ = Geometry::square({.columns = 1, .rows = 1});
  }
  const GameInfo& info() const override { return info_; }
  const Geometry& board() const override { return board_; }
  Position start() const override { return {{static_cast<std::uint64_t>(pegs_), 0}}; }
  int toMove(const Position& position) const override {
    return static_cast<int>(position.words[1]);
  }
  void listMoves(const Position& position, MoveList& moves) const override {
    moves.clear();
    for (std::uint16_t n = 1; n <= 3 && n <= position.words[0]; ++n) {
      Move move;
      move.count = 1;
      move.choices[0] = n;
      if (!faulty_ || n < position.words[0]) moves.push_back(move);
    }
  }
  void apply(Position& position, const Move& move) const override {
    position.words[0] -= move.choices[0];
    position.words[1] ^= 1;
  }
  Result result(const Position& position) const override {
    Result out;
    if (position.words[0] > 0) return out;
    out.kind = ResultKind::win;
    out.winner = toMove(position);  // the other side took the last
    out.name = "took the last";
    out.end = 0;
    return out;
  }
  std::string moveText(const Position&, const Move& move) const override {
    return "take " + std::to_string(move.choices[0]);
  }
  std::string positionText(const Position& position) const override {
    return std::to_string(position.words[0]) + (toMove(position) == 0 ? "; First" : "; Second");
  }
  Position readPosition(std::string_view, const std::string&) const override { return start(); }
  std::optional<Piece> pieceAt(const Position&, Cell, int) const override { return std::nullopt; }
  std::vector<Cell> cellsOf(const Position&, const Move&) const override { return {}; }

 private:
  int pegs_;
  bool faulty_;
  GameInfo info_;
  Geometry board_;
};

// Sequences of exactly `depth` plies by the plain recurrence.
std::uint64_t ways(int pegs, int depth) {
  if (depth == 0) return 1;
  std::uint64_t total = 0;
  for (int n = 1; n <= 3 && n <= pegs; ++n) total += ways(pegs - n, depth - 1);
  return total;
}

TEST(OwnGame, IsCounted) {
  Heap heap(21);
  for (int depth = 1; depth <= 12; ++depth) {
    verify::CountOptions options;
    options.depth = depth;
    options.threads = 2;
    EXPECT_EQ(verify::count(heap, heap.start(), options).sequences, ways(21, depth)) << depth;
  }
  verify::CountOptions options;
  options.depth = 21;
  options.positions = true;
  // A heap of 0 to 20, left by either side, less those that cannot come up.
  verify::Counts counts = verify::count(heap, heap.start(), options);
  EXPECT_GE(counts.allPositions, 38u);
  EXPECT_LE(counts.allPositions, 43u);
}

TEST(OwnGame, IsPlayedPerfectlyBySearch) {
  // Theory: the side to move loses if and only if the heap leaves 1 when divided by 4.
  for (int pegs = 1; pegs <= 21; ++pegs) {
    Heap heap(pegs);
    Stream stream(1, static_cast<std::uint64_t>(pegs));
    play::Choice choice = play::makeSearch({.depth = 25})->choose(heap, heap.start(), stream);
    EXPECT_EQ(choice.score < 0, pegs % 4 == 1) << pegs;
    if (pegs % 4 != 1) {
      EXPECT_EQ((pegs - choice.move.choices[0]) % 4, 1) << pegs;
    }
    EXPECT_TRUE(choice.solved || choice.score > play::winScore / 2);
  }
}

// The same heap, but who takes the last one wins.
class LastWins : public Heap {
 public:
  using Heap::Heap;
  Result result(const Position& position) const override {
    Result out = Heap::result(position);
    if (position.words[0] == 0) out.winner = 1 - toMove(position);
    return out;
  }
};

// What an opponent keeps of one game is not taken for a game that stands where that one stood.
TEST(OwnGame, IsNotTakenForOneThatStoodInItsPlace) {
  static_assert(sizeof(Heap) == sizeof(LastWins));
  for (const char* who : {"search:depth=25", "playouts:playouts=500"}) {
    std::unique_ptr<play::Opponent> kept = play::makeOpponent(who, "a test"),
                                    fresh = play::makeOpponent(who, "a test");
    alignas(Heap) std::byte place[sizeof(Heap)];
    Stream stream(1, 1);
    Heap* before = new (place) Heap(7);
    kept->choose(*before, before->start(), stream);
    before->~Heap();
    LastWins* now = new (place) LastWins(7);
    Stream one(1, 2), two(1, 2);
    play::Choice asKept = kept->choose(*now, now->start(), one);
    play::Choice asFresh = fresh->choose(*now, now->start(), two);
    EXPECT_EQ(asKept.move, asFresh.move) << who;
    EXPECT_EQ(asKept.score, asFresh.score) << who;
    EXPECT_EQ(asKept.move.choices[0], 3) << who;  // what leaves four wins
    now->~LastWins();
  }
}

TEST(OwnGame, IsPlayedOutAndTakenBack) {
  Heap heap(21);
  Stream stream(3, 3);
  std::unique_ptr<LivePosition> live = heap.live();
  test::PlayoutEnd end = test::playOut(*live, stream, 100);
  EXPECT_FALSE(end.stalled);
  EXPECT_GE(end.plies, 7);
  EXPECT_LE(end.plies, 21);
  EXPECT_EQ(live->plies(), end.plies);
  while (live->plies() > 0) live->takeBack();
  EXPECT_EQ(live->position(), heap.start());
  EXPECT_EQ(live->hash(), heap.hash(heap.start()));
  EXPECT_TRUE(test::playOut(*live, stream, 3).stalled);
}

TEST(OwnGame, IsChecked) {
  verify::CheckOptions options;
  options.playouts = 2000;
  options.threads = 2;
  Heap heap(21);
  verify::CheckReport report = verify::check(heap, options);
  EXPECT_TRUE(report.findings.empty());
  EXPECT_EQ(report.evidence.outcomes.size(), 2u);
  EXPECT_NE(report::checkJson(heap, options, report).find("\"playouts\": 2000"), std::string::npos);
  Heap faulty(6, true);  // the last peg cannot be taken, and nothing is said about that
  report = verify::check(faulty, options);
  ASSERT_EQ(report.findings.size(), 1u);
  EXPECT_EQ(report.findings[0].kind, verify::FindingKind::noEnd);
  EXPECT_EQ(report.findings[0].moves, (std::vector<std::string>{"take 2", "take 3"}));
  EXPECT_TRUE(report.findings[0].shortest);
}

TEST(OwnGame, PlaysMatches) {
  Heap heap(21);
  std::unique_ptr<play::Opponent> search = play::makeSearch({.depth = 25}),
                                  greedy = play::makeGreedy();
  play::Opponent* sides[2] = {greedy.get(), search.get()};  // 21 leaves 1: the first side loses
  for (std::uint64_t number = 0; number < 20; ++number) {
    Stream stream(9, number);
    EXPECT_EQ(play::playGame(heap, heap.start(), sides, stream, 100).result.winner, 1);
  }
}

}  // namespace own_game_test
}  // namespace ninepegs
