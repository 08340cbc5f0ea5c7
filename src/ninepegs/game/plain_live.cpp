#include "ninepegs/game/plain_live.hpp"

namespace ninepegs {

void PlainLive::setUp(const Position& position) {
  line_.assign(1, position);
  found_ = false;
}

void PlainLive::findMoves() {
  if (found_) return;
  game_.listMoves(line_.back(), moves_);
  found_ = true;
}

std::uint32_t PlainLive::moveCount() {
  return static_cast<std::uint32_t>(found_ ? moves_.size() : game_.countMoves(line_.back()));
}

Move PlainLive::moveAt(std::uint32_t number) {
  findMoves();
  return moves_[number];
}

void PlainLive::listMoves(MoveList& moves) {
  findMoves();
  moves = moves_;
}

void PlainLive::play(const Move& move) {
  Position after = line_.back();
  game_.apply(after, move);
  line_.push_back(std::move(after));
  found_ = false;
}

void PlainLive::takeBack() {
  NINEPEGS_REQUIRE(plies() > 0);
  line_.pop_back();
  found_ = false;
}

std::vector<Result> PlainLive::endsThatHold() {
  if (const GameChecks* checks = game_.checks())
    return checks->endsThatHold(line_.back(), plies() > 0 ? &line_[line_.size() - 2] : nullptr);
  Result only = game_.result(line_.back());
  if (only.kind == ResultKind::ongoing) return {};
  return {only};
}

std::span<const std::int64_t> PlainLive::valuesOf(const Position& position,
                                                  std::vector<std::int64_t>& values) const {
  values.clear();
  for (std::size_t index = 0; index < game_.checks()->invariants().size(); ++index)
    for (int side = 0; side < 2; ++side)
      values.push_back(game_.checks()->invariantValue(index, position, side));
  return values;
}

}  // namespace ninepegs
