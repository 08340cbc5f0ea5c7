// A search that also answers one question by itself: can a side force a win within so many plies?
// What it found for one question serves the next. Internal to the room.
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
  // Positions that were looked at for the last question.
  virtual std::uint64_t nodesAsked() const = 0;
};

// Requires limits.exact.
std::unique_ptr<Prover> makeProver(const SearchLimits& limits);

}  // namespace ninepegs::play
