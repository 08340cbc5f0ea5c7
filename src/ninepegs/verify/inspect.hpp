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
      : Inspector(game, game.checks() == nullptr ? std::vector<Symmetry>{}
                                                 : game.checks()->symmetries()) {}
  // With these symmetries in place of those that the game names. Requires that a game without
  // checks gets none.
  Inspector(const Game& game, std::vector<Symmetry> symmetries)
      : game_(game), checks_(game.checks()), symmetries_(std::move(symmetries)) {
    if (checks_ != nullptr) invariants_ = checks_->invariants();
    for (const Invariant& one : invariants_) changes_ = changes_ || one.change != 0;
    if (!symmetries_.empty()) other_ = game.live();
  }

  // Faults of a position by itself, and of the move that led to it, if one did.
  void position(LivePosition& live, std::vector<Fault>& faults) const;

  // How closely it is looked at what can be played next.
  struct Closeness {
    bool texts = false;
    std::size_t firstSymmetry = 0, symmetries = 0;  // so many of the symmetries, from that one on
  };
  Closeness closest() const { return {true, 0, symmetries_.size()}; }
  // Faults of what can be played next: nobody can move, symmetry broken, texts ambiguous.
  void moves(LivePosition& live, Closeness close, std::vector<Fault>& faults);

  std::size_t symmetries() const { return symmetries_.size(); }

 private:
  bool same(const Position& position, const Symmetry& symmetry,
            const std::vector<Position>& afters);
  void symmetry(LivePosition& live, const MoveList& moves, Closeness close,
                std::vector<Fault>& faults);

  const Game& game_;
  const GameChecks* checks_;  // null: the game has none
  std::vector<Invariant> invariants_;
  bool changes_ = false;  // one of them compares with the position before
  std::vector<Symmetry> symmetries_;
  std::unique_ptr<LivePosition> other_;  // of mirrored positions
  MoveList otherMoves_;
  std::vector<std::uint64_t> expected_, got_;
};

}  // namespace ninepegs::verify
