// Minimax to a fixed depth, in the negamax form, without anything that leaves lines out: what the
// search is measured against.
#include <fmt/format.h>

#include <algorithm>
#include <chrono>

#include "ninepegs/base/require.hpp"
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
    auto seconds = [&] {
      return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    };
    for (int depth = tell_ ? 1 : depth_; depth <= depth_; ++depth) {
      lookAtEach(depth, stream, choice);
      if (wantsStop(stop_)) break;
      choice.steps.push_back({depth, choice.score, nodes_, seconds(), choice.line, false});
      if (tell_) tell_(choice.steps.back());
      if (progress_) progress_(nodes_);
    }
    choice.nodes = nodes_;
    choice.seconds = seconds();
    return choice;
  }
  Choice chooseKnowing(const Game& game, const Knowledge& knowledge, Stream& stream) override {
    OverPasts limits;
    limits.depth = depth_;
    return pasts_.search(game, knowledge, limits, stream, stop_);
  }
  std::string name() const override { return fmt::format("minimax:depth={}", depth_); }

 private:
  // All moves to the depth. Where it is broken off, what a smaller depth said stands.
  void lookAtEach(int depth, Stream& stream, Choice& choice) {
    MoveList moves;
    live_->listMoves(moves);
    NINEPEGS_REQUIRE(!moves.empty());
    int side = live_->toMove();
    std::vector<Choice::Weighed> weighed;
    std::vector<std::size_t> best;
    for (const Move& move : moves) {
      std::uint64_t before = nodes_;
      live_->play(move);
      std::int64_t below = look(1, depth);
      std::int64_t score = live_->toMove() == side ? below : -below;
      live_->takeBack();
      if (best.empty() || score > weighed[best.front()].score) best.clear();
      if (best.empty() || score == weighed[best.front()].score) best.push_back(weighed.size());
      weighed.push_back({move, score, nodes_ - before, {move}});
      if (wantsStop(stop_)) break;
    }
    if (wantsStop(stop_) && choice.depth > 0) return;
    // Only the last depth draws, so that it changes nothing to be asked for the others.
    std::uint32_t many = static_cast<std::uint32_t>(best.size());
    const Choice::Weighed& one = weighed[best[depth == depth_ ? stream.below(many) : 0]];
    choice.move = one.move;
    choice.line = {one.move};
    choice.score = one.score;
    choice.depth = depth;
    if (weighed.size() == moves.size()) choice.weighed = std::move(weighed);
  }

  // For the side to move, so many plies behind the position; lines end at the depth.
  std::int64_t look(int ply, int depth) {
    ++nodes_;
    int side = live_->toMove();
    std::int64_t ended = 0;
    if (endsWith(*live_, ply, ended)) return ended;
    if (!live_->canMove()) return 0;
    if (ply >= depth) return leafScore(*live_, measured_);
    MoveList& moves = lists_[static_cast<std::size_t>(ply)];
    live_->listMoves(moves);
    std::int64_t best = -2 * winScore;
    for (const Move& move : moves) {
      live_->play(move);
      std::int64_t below = look(ply + 1, depth);
      best = std::max(best, live_->toMove() == side ? below : -below);
      live_->takeBack();
      if (wantsStop(stop_)) break;
    }
    return best;
  }

  const int depth_;
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
