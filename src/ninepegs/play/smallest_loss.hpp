// How to lose by little: where a game is lost for certain and an end counts (`leader in`), the move
// that leaves the other side the smallest lead.
//
//   play::SmallestLoss loss;
//   std::optional<Move> move = loss.choose(*game, position, 20'000);
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs::play {

class SmallestLoss {
 public:
  // Requires a legal move. None if no end counts, or one that does not count can decide: then a
  // loss is a loss. Looks ahead depth by depth, at so many positions at most.
  std::optional<Move> choose(const Game& game, const Position& position, std::uint64_t nodes,
                             const StopFlag* stop = nullptr);

 private:
  std::int64_t look(int ply, int depth, std::int64_t alpha, std::int64_t beta);
  bool spent() const { return nodes_ >= most_ || wantsStop(stop_); }

  KnownGame game_;
  std::shared_ptr<const Game> counted_;  // the same, what an end counts being its worth; or null
  std::unique_ptr<LivePosition> live_;
  std::vector<MoveList> lists_;
  std::uint64_t nodes_ = 0, most_ = 0;
  const StopFlag* stop_ = nullptr;
};

}  // namespace ninepegs::play
