// How an opponent comes to its move: depth by depth, beside plain minimax, or by playouts, and
// every move's score.
//
//   std::unique_ptr<Opponent> who = makeOpponent("search:depth=4", "--with");
//   play::Thinking thought = play::think(*game, position, *who, {});
//   for (const Choice::Step& step : thought.choice.steps) score = step.score;
#pragma once

#include <cstdint>
#include <optional>
#include <vector>

#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

class Knowledge;

struct ThinkOptions {
  // Positions that may be looked at to score every move by itself; as many as the opponent looked
  // at, if those are more.
  std::uint64_t nodes = 1'000'000;
  std::uint64_t plainNodes = 2'000'000;  // that minimax may look at for one depth
  std::uint64_t seed = 1;
  const StopFlag* stop = nullptr;
  std::function<void(std::uint64_t nodes)> progress = nullptr;  // called now and then
};

struct Thinking {
  Choice choice;  // with its steps
  // Positions that minimax looks at, by depth from 1 on; it ends where that would be too many.
  std::vector<std::uint64_t> plain;
  using RootMove = Choice::Weighed;
  // Each legal move, the best first: as the opponent weighed it, or looked at by itself, one ply
  // less deeply than the search came. By playouts, those with most playouts come first.
  std::vector<RootMove> moves;
  // Plies behind each move, where they were looked at by themselves. The best one then has the
  // score and the line of the search itself, and stands first.
  int movesDepth = 0;
  bool stopped = false;  // moves that were not looked at are missing
  // Where something is hidden: so many positions agree with what the side knows. Then scores are
  // means over them, in thousandths, and there are no steps and no lines. 0: nothing is hidden.
  std::size_t positions = 0;
};

// Requires that there is a legal move. Of an opponent that weighs nothing there are no steps.
Thinking think(const Game& game, const Position& position, Opponent& who,
               const ThinkOptions& options);
// The same where something is hidden from the side to move: nothing is read but what that side
// knows. Requires that it is its turn and that it has a move. `options.plainNodes` counts for
// nothing.
Thinking think(const Game& game, const Knowledge& knowledge, Opponent& who,
               const ThinkOptions& options);

}  // namespace ninepegs::play
