// Looks at one step of a game for everything that must not be. The one place where it is written
// what a fault is; playouts and the search for the shortest failing game both ask here.
#pragma once

#include <optional>
#include <vector>

#include "ninepegs/verify/evidence.hpp"

namespace ninepegs::verify {

// That the rules went on without end, as a fault.
Fault runawayFault(const RunawayRules& error);

class Inspector {
 public:
  explicit Inspector(const Game& game)
      : game_(game), invariants_(game.invariants()), symmetries_(game.symmetries()) {}

  // Faults of a position by itself, and of the move that led to it, if one did.
  void position(LivePosition& live, std::vector<Fault>& faults) const;

  // Faults of what can be played next: nobody can move, symmetry broken, texts ambiguous.
  void moves(LivePosition& live, bool thorough, std::vector<Fault>& faults) const;

  bool hasSymmetries() const { return !symmetries_.empty(); }

 private:
  void symmetry(const Position& played, const MoveList& moves, std::vector<Fault>& faults) const;

  const Game& game_;
  std::vector<Invariant> invariants_;
  std::vector<Symmetry> symmetries_;
};

}  // namespace ninepegs::verify
