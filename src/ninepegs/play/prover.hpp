// A search that also answers questions by themselves: can a side force a win within so many plies?
// Who wins, however long it takes? What it found for one serves the next. Internal to the room.
//
//   std::unique_ptr<Prover> prover = makeProver({.exact = true});
//   std::optional<bool> wins = prover->forces(*game, position, 0, 5);
#pragma once

#include <optional>

#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

class Prover : public Opponent {
 public:
  // Of either side, whoever is to move; a game that it has won already takes 0 plies. Nothing if it
  // was stopped, or came to a limit. Requires plies <= limits::searchDepth.
  virtual std::optional<bool> forces(const Game& game, const Position& position, int side,
                                     int plies) = 0;
  // Likewise: 1: that side can force a win, or has won, -1: the other side, 0: neither.
  virtual std::optional<int> winner(const Game& game, const Position& position, int side) = 0;
  // Positions that were looked at for the last question.
  virtual std::uint64_t nodesAsked() const = 0;
};

// Requires limits.exact.
std::unique_ptr<Prover> makeProver(const SearchLimits& limits);

}  // namespace ninepegs::play
