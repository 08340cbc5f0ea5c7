// Minimax to a fixed depth, in the negamax form, without anything that leaves lines out: what the
// search is measured against.
#include <fmt/format.h>

#include <algorithm>
#include <chrono>

#include "ninepegs/play/measure.hpp"
#include "ninepegs/play/opponent.hpp"
#include "ninepegs/play/over_pasts.hpp"

namespace ninepegs::play {
namespace {

class Minimax final : public Opponent {
 public:
  explicit Minimax(int depth) : depth_(depth), lists_(static_cast<std::size_t>(depth)) {}

  Choice choose(const Game& game, const Position& position, Stream& stream) override {
    auto begun = std::chrono::steady_clock::now();
    live_ = game.live();
    live_->setUp(position);
    measured_ = game.measure() != nullptr;
    nodes_ = 0;
    Choice choice;
    MoveList best;
    std::int64_t most = -2 * winScore;
    MoveList moves;
    live_->listMoves(moves);
    int side = live_->toMove();
    for (const Move& move : moves) {
      live_->play(move);
      std::int64_t below = look(1);
      std::int64_t score = live_->toMove() == side ? below : -below;
      live_->takeBack();
      if (score > most) most = score, best.clear();
      if (score == most) best.push_back(move);
      if (wantsStop(stop_)) break;
    }
    choice.move = best[stream.below(static_cast<std::uint32_t>(best.size()))];
    choice.line = {choice.move};
    choice.depth = depth_;
    choice.nodes = nodes_;
    choice.score = most;
    choice.seconds =
        std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    return choice;
  }
  Choice chooseKnowing(const Game& game, const Knowledge& knowledge, Stream& stream) override {
    OverPasts limits;
    limits.depth = depth_;
    return pasts_.search(game, knowledge, limits, stream, stop_);
  }
  std::string name() const override { return fmt::format("minimax:depth={}", depth_); }

 private:
  // For the side to move.
  std::int64_t look(int ply) {
    ++nodes_;
    int side = live_->toMove();
    std::int64_t ended = 0;
    if (endsWith(*live_, ply, ended)) return ended;
    if (!live_->canMove()) return 0;
    if (ply >= depth_) return leafScore(*live_, measured_);
    MoveList& moves = lists_[static_cast<std::size_t>(ply)];
    live_->listMoves(moves);
    std::int64_t best = -2 * winScore;
    for (const Move& move : moves) {
      live_->play(move);
      std::int64_t below = look(ply + 1);
      best = std::max(best, live_->toMove() == side ? below : -below);
      live_->takeBack();
      if (wantsStop(stop_)) break;
    }
    return best;
  }

  int depth_;
  std::vector<MoveList> lists_;
  std::unique_ptr<LivePosition> live_;
  bool measured_ = false;
  std::uint64_t nodes_ = 0;
  PastsPlayer pasts_;
};

}  // namespace

std::unique_ptr<Opponent> makeMinimax(int depth) {
  return std::make_unique<Minimax>(depth);
}

}  // namespace ninepegs::play
