// The opponent that plays games to their ends (playout_tree.hpp), in one tree or several.
#include <chrono>
#include <deque>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/play/over_pasts.hpp"
#include "ninepegs/play/playout_tree.hpp"

namespace ninepegs::play {
namespace {

constexpr std::uint64_t usualMegabytes = 64;

// After 10, 20, 50, 100, 200 playouts and so on it is told how the tree stands.
bool isStep(std::uint64_t playouts) {
  if (playouts < 10) return false;
  while (playouts % 10 == 0) playouts /= 10;
  return playouts == 1 || playouts == 2 || playouts == 5;
}

class Playouts final : public Opponent {
 public:
  explicit Playouts(const PlayoutLimits& limits)
      : limits_(limits), trees_(static_cast<std::size_t>(std::max(1, limits.threads))) {}

  Choice choose(const Game& game, const Position& position, Stream& stream) override;

  Choice chooseKnowing(const Game& game, const Knowledge& knowledge, Stream& stream) override {
    OverPasts limits{limits_.pasts, 0, 0, limits_.playouts, limits_.seconds};
    return pasts_.playouts(game, knowledge, limits, stream, stop_);
  }

  std::string name() const override { return nameOf(limits_); }

 private:
  PlayoutLimits limits_;
  std::deque<PlayoutTree> trees_;
  PastsPlayer pasts_;
};

Choice Playouts::choose(const Game& game, const Position& position, Stream& stream) {
  auto begun = std::chrono::steady_clock::now();
  auto seconds = [&] {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
  };
  std::uint64_t megabytes = limits_.megabytes == 0 ? usualMegabytes : limits_.megabytes;
  std::size_t trees = trees_.size();
  std::vector<std::uint64_t> played(trees, 0);
  std::vector<Choice::Step> steps;
  auto tell = [&](std::uint64_t done) {
    steps.push_back(trees_[0].step(done, seconds()));
    if (tell_) tell_(steps.back());
  };
  auto grow = [&](PlayoutTree& tree, std::uint64_t most, std::uint64_t& done, Stream& drawn) {
    std::int64_t atBegin = ambient.left;
    tree.begin(game, position, std::max<std::uint64_t>(1, megabytes / trees));
    while (tree.isOpen() && (limits_.playouts == 0 || done < most)) {
      if (done % 16 == 0 && done > 0 &&
          ((limits_.seconds > 0 && seconds() >= limits_.seconds) || wantsStop(stop_)))
        break;
      if (limits_.steps > 0 && done > 0 && atBegin - ambient.left >= limits_.steps) break;
      tree.grow(drawn);
      if (isStep(++done) && trees == 1) tell(done);
      if (progress_ && trees == 1 && done % 64 == 0) progress_(done);
    }
  };
  if (trees == 1) {
    grow(trees_[0], limits_.playouts, played[0], stream);
  } else {
    std::uint64_t seed = std::uint64_t{stream.next()} << 32;
    seed |= stream.next();
    inParallel(trees, static_cast<int>(trees), [&](std::uint64_t number, int) {
      Stream own(seed, number);
      std::uint64_t share = limits_.playouts / trees + (number < limits_.playouts % trees ? 1 : 0);
      grow(trees_[number], share, played[number], own);
    });
    for (std::size_t i = 1; i < trees; ++i) trees_[0].addMoves(trees_[i]);
  }
  Choice choice = trees_[0].chosen();
  for (std::uint64_t one : played) choice.nodes += one;
  choice.seconds = seconds();
  if (steps.empty() || steps.back().nodes < choice.nodes) tell(choice.nodes);
  choice.steps = std::move(steps);
  return choice;
}

}  // namespace

std::unique_ptr<Opponent> makePlayouts(const PlayoutLimits& limits) {
  return std::make_unique<Playouts>(limits);
}

}  // namespace ninepegs::play
