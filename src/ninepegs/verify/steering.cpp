#include "ninepegs/verify/steering.hpp"

#include <algorithm>

namespace ninepegs::verify {

constexpr std::size_t tried = 12;  // moves that a steered choice looks at

Move Steering::drawn(const MoveList& moves, Steer steer, Stream& stream) {
  auto any = [&] { return moves[stream.below(static_cast<std::uint32_t>(moves.size()))]; };
  if (steer == Steer::uniform || moves.size() == 1) return any();
  Move best = any();
  std::uint64_t bestRare = ~0ull;
  for (std::size_t i = 0; i < std::min(tried, moves.size()); ++i) {
    Move move = moves.size() <= tried ? moves[i] : any();
    if (steer == Steer::rare) before_.assign(uses_.begin(), uses_.end());
    live_.play(move);
    bool ends = live_.ended();
    live_.takeBack();
    if (steer == Steer::hurry && ends) return move;
    if (steer == Steer::putOff && !ends)
      return moves.size() <= tried ? spread(moves, stream) : move;
    if (steer != Steer::rare) continue;
    std::uint64_t rare = ~0ull;
    for (std::size_t line = 0; line < uses_.size(); ++line)
      if (uses_[line] > before_[line]) rare = std::min(rare, total_[line]);
    if (rare < bestRare || (rare == bestRare && stream.below(2) == 0)) bestRare = rare, best = move;
  }
  if (steer == Steer::rare) {
    before_.assign(uses_.begin(), uses_.end());
    live_.play(best);
    live_.takeBack();
    for (std::size_t line = 0; line < uses_.size(); ++line)
      total_[line] += uses_[line] - before_[line];
  }
  return best;
}

// One of the moves that do not end the game, each being equally likely.
Move Steering::spread(const MoveList& moves, Stream& stream) {
  std::vector<Move> on;
  for (const Move& move : moves) {
    live_.play(move);
    if (!live_.ended()) on.push_back(move);
    live_.takeBack();
  }
  return on[stream.below(static_cast<std::uint32_t>(on.size()))];
}

std::string steerName(Steer steer) {
  static const char* const names[] = {
      "uniform",    "putting off the end", "hurrying to the end",   "through rare lines",
      "from cases", "back and forth",      "from changed positions"};
  return names[static_cast<int>(steer)];
}

}  // namespace ninepegs::verify
