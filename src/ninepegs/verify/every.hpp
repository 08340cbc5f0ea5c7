// Every position that can be reached, each with every check; what best play comes to.
//
//   verify::EveryReport report = verify::everyPosition(*game, {.memory = 1 << 30});
//   if (report.complete()) texts.push_back(std::to_string(report.positions));
#pragma once

#include <array>
#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/play/solver.hpp"
#include "ninepegs/verify/evidence.hpp"

namespace ninepegs::verify {

struct EveryOptions {
  std::uint64_t memory = std::uint64_t{1} << 30;  // bytes that may be taken, about
  int threads = 1;                                // changes no result
  const StopFlag* stop = nullptr;
  std::function<void(std::uint64_t positions)> progress;  // called now and then, from one thread
  std::optional<Position> from = {};  // what is reached from here, instead of from the start
  bool checks = true;                 // false: only what leads where, no check
};

// A way a game can end.
struct Reached {
  Outcome outcome;
  std::string name;
  std::uint64_t positions = 0;
  std::vector<Move> soonest;  // a shortest game that ends so
};

struct EveryReport {
  enum class Broken { no, memory, stopped };

  std::uint64_t positions = 0, ended = 0, moves = 0;
  std::vector<std::uint64_t> levels;  // positions by the fewest plies to them
  std::uint64_t goneThrough = 0;      // positions whose moves were all played
  // Positions that are no images of each other; none: the game has no symmetries, or one of them
  // does not hold.
  std::optional<std::uint64_t> classes;
  Broken broken = Broken::no;
  bool complete() const { return broken == Broken::no; }

  std::vector<Reached> ends;  // by end and winner
  Evidence evidence;          // uses of lines, moves of a position, and faults
  // What follows is worked out only of a complete report without a move that comes to no end.
  bool solved = false;
  std::optional<std::uint64_t> longest;  // plies of a longest game; none: positions can come again
  std::vector<Move> longestGame;         // ends that are only claimed are passed over
  int winner = -1;                       // of best play; -1: neither side can force a win
  std::uint64_t plies = 0;               // to a win, the loser putting it off
  std::vector<Move> best;  // best play of both; where nobody wins, to a draw if it gets there
  // What each move of the first position comes to; a winner of -1: neither side can force a win.
  std::vector<play::Solved::RootMove> firsts;
  std::array<std::uint64_t, 3> won = {0, 0, 0};  // positions by who wins, last those of neither
  std::uint64_t longestWin = 0;                  // plies, of all positions
  std::optional<Position> longestWinFrom;        // a position that it takes so long from
};

// An end that is only claimed counts as an end for best play; what could follow it is gone through.
// What is secret is taken as known to both. Requires that options.threads is at least 1.
EveryReport everyPosition(const Game& game, const EveryOptions& options);

// How many positions there are, guessed from what random games meet again (Chao's estimate of the
// number of kinds from those seen once and twice, a lower bound: Chao 1984, Scandinavian Journal of
// Statistics 11). `sure` is false where nearly nothing was met twice.
struct Guess {
  std::uint64_t positions = 0;
  bool sure = true;
};
Guess guessedPositions(const Game& game, std::uint64_t playouts, std::uint64_t seed,
                       const StopFlag* stop = nullptr);

}  // namespace ninepegs::verify
