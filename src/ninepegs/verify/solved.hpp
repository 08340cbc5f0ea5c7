// Best play on a graph of positions that is known as a whole.
#pragma once

#include <cstdint>
#include <optional>
#include <vector>

namespace ninepegs::verify {

// Numbered positions and what follows each; the start is number 0, and all can be reached from it.
struct PositionGraph {
  std::vector<std::uint64_t> first = {0};  // of number n: its followers stand from first[n] on ...
  std::vector<std::uint32_t> followers;    // ... up to first[n + 1]
  std::vector<std::int8_t> mover;          // 0 or 1
  // Of a position at which a game is over, or claimed: 0 or 1 for the winner, 2 for a draw; else
  // -1.
  std::vector<std::int8_t> result;

  std::uint32_t size() const { return static_cast<std::uint32_t>(first.size() - 1); }
  std::uint64_t bytes() const;         // that it takes ...
  std::uint64_t bytesToSolve() const;  // ... and that solving it takes besides
};

struct Solved {
  static constexpr std::int8_t neither = 2;
  std::vector<std::int8_t> winner;   // by position: 0, 1, or neither can force a win
  std::vector<std::uint32_t> plies;  // to the win, the loser putting it off; 0 if neither wins
  // Positions of a longest way from the start; none if a position can come again.
  std::optional<std::vector<std::uint32_t>> longest;
  // Positions of best play, from the start.
  std::vector<std::uint32_t> best;
};

Solved solve(const PositionGraph& graph);

}  // namespace ninepegs::verify
