// The exact result of a position: who wins, and in how many plies, if both play their best.
//
//   play::Solved solved = play::solve(*game, position, {.nodes = 1'000'000});
//   if (solved.known && solved.winner < 0) texts.push_back("a draw");
#pragma once

#include <cstdint>
#include <vector>

#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

struct SolveOptions {
  std::uint64_t nodes = 0;  // 0: no limit
  double seconds = 0;       // 0: no limit
  std::uint64_t megabytes = 256;
  int threads = 1;  // with a limit, what is known when it is reached may differ
  const StopFlag* stop = nullptr;
  std::function<void(std::uint64_t nodes)> progress = nullptr;  // called now and then
  // Called with all that is known whenever that is more than before: who wins, and in how many
  // plies; then each move, in the order of the list of legal moves.
  std::function<void(const struct Solved&)> found = nullptr;
};

struct Solved {
  bool known = false;
  int winner = -1;         // -1: a draw, if it is known
  int plies = 0;           // until the win: the winner hurries, the loser puts it off
  bool atMost = false;     // there may be a sooner win: it was broken off
  int depth = 0;           // if it is not known: nobody can force a win in so many plies
  std::vector<Move> line;  // best play of both
  std::uint64_t nodes = 0;
  double seconds = 0;
  struct RootMove {
    Move move;
    bool known = false;
    int winner = -1;
    int plies = 0;  // until the win, the move among them
    bool atMost = false;
  };
  // Each legal move; the best for the side that moves first. What is known when it is broken off.
  std::vector<RootMove> moves;
  bool brokenOff = false;  // by a limit, or stopped
};

// The moves that are best for a side first; else they stay in their order.
void putBestFirst(std::vector<Solved::RootMove>& moves, int side);

// Requires that there is a legal move. By alpha-beta with a table, ply by ply deeper. Where the
// rules remember positions, draws that hang on a repetition are not told to be exact.
Solved solve(const Game& game, const Position& position, const SolveOptions& options);

}  // namespace ninepegs::play
