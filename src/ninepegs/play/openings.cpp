#include "ninepegs/play/openings.hpp"

#include <cmath>

#include "ninepegs/play/worked_out.hpp"

namespace ninepegs::play {
namespace {

constexpr std::uint64_t ownStream = 0x6f70656e;
constexpr std::uint64_t nodes = 20'000;  // of the search of each
constexpr std::uint64_t tries = 20;      // openings, of which the most balanced is taken
constexpr double even = 0.2;             // so far from a half a chance may be

}  // namespace

Openings::Openings(const Game& game, const OpeningOptions& options)
    : game_(game), options_(options) {
  if (!options.balanced) return;
  // One measure for all of them, learned from the start.
  measure_ = std::make_shared<WorkedOut>();
  chances_.emplace(game, game.start(), options.seed);
  if (game.countMoves(game.start()) > 0) look(game.start());
}

Choice Openings::look(const Position& position) const {
  std::unique_ptr<Opponent> search =
      makeSearch({.nodes = nodes, .steps = usualSteps, .measure = measure_});
  search->stopWith(options_.stop);
  Stream stream(options_.seed, ownStream);
  return search->choose(game_, position, stream);
}

Opening Openings::at(std::uint64_t number) const {
  if (!options_.balanced) {
    Stream stream(options_.seed ^ ownStream, number);
    return sampled(stream);
  }
  std::lock_guard lock(mutex_);
  auto [known, fresh] = known_.try_emplace(number);
  if (fresh) known->second = balanced(number);
  return known->second;
}

Opening Openings::sampled(Stream& stream) const {
  Opening out;
  Position position = game_.start();
  MoveList moves;
  while (static_cast<int>(out.moves.size()) < options_.plies) {
    game_.listMoves(position, moves);
    if (moves.empty()) break;
    Move move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
    game_.apply(position, move);
    if (game_.ended(position)) break;  // an opening leaves something to play
    out.moves.push_back(move);
  }
  return out;
}

Opening Openings::balanced(std::uint64_t number) const {
  Stream stream(options_.seed ^ ownStream, number);
  Opening best;
  double off = 2;
  for (std::uint64_t i = 0; i < tries && off > even && !wantsStop(options_.stop); ++i) {
    Opening one = sampled(stream);
    double from = std::abs(chance(one, one.decided) - 0.5);
    if (from < off) best = std::move(one), off = from;
  }
  return best;
}

// Of the side that is to move after it, to win.
double Openings::chance(const Opening& opening, bool& decided) const {
  Position position = game_.start();
  for (const Move& move : opening.moves) game_.apply(position, move);
  if (game_.countMoves(position) == 0) return 0.5;
  Choice choice = look(position);
  decided = decides(choice.score);
  return chances_->of(choice.score);
}

}  // namespace ninepegs::play
