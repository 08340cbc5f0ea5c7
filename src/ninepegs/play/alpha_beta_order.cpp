// In which order moves are looked at.
#include <algorithm>

#include "ninepegs/play/alpha_beta.hpp"

namespace ninepegs::play {

constexpr std::int32_t historyLimit = 1 << 20;

void AlphaBeta::rank(Level& level, int depth, std::uint16_t first) {
  std::size_t count = level.moves.size();
  level.order.resize(count);
  int side = live_->toMove();
  for (std::size_t i = 0; i < count; ++i) {
    const Move& move = level.moves[i];
    std::int32_t rank = 0;
    if (i == first) {
      rank = 1 << 30;
    } else {
      rank = history_[historyPlace(side, move)];
      if (takes_ && live_->takes(move)) rank += 1 << 28;
      for (int k = 0; k < 2 && depth > 1; ++k)
        if (level.hasKillers[k] && level.killers[k] == move) rank += 1 << (27 - k);
    }
    level.order[i] = {rank, static_cast<std::uint16_t>(i)};
  }
}

// Where much lies below, it is worth a look at what each move comes to. Puts the one first that is
// known to be enough: it wins at once, or the table says so. Else they are ordered by the measure,
// those behind that are known to be too little.
void AlphaBeta::weigh(Level& level, int ply, int depth, std::int64_t alpha, std::int64_t beta) {
  constexpr std::int32_t known = 1 << 30, refuted = -known;
  int side = live_->toMove();
  for (auto& [rank, move] : level.order) {
    live_->expectMoves(false);
    live_->play(level.moves[move]);
    bool again = live_->toMove() == side, enough = false, tooLittle = false;
    std::int64_t ended = 0;
    if (endsWith(*live_, ply + 1, ended)) {
      ended = again ? ended : -ended;
      enough = ended >= beta;
    } else {
      if (std::optional<TableEntry> entry = table_->find(live_->hash());
          entry && (entry->whole || entry->depth >= depth - 1)) {
        std::int64_t score = fetched(entry->score, ply + 1);
        if (!again) score = -score;
        Bound less = again ? Bound::atMost : Bound::atLeast;
        Bound more = again ? Bound::atLeast : Bound::atMost;
        enough = score >= beta && (entry->bound == more || entry->bound == Bound::exact);
        tooLittle = score <= alpha && (entry->bound == less || entry->bound == Bound::exact);
      }
      if (tooLittle)
        rank = refuted;
      else if (rank < known)
        rank = static_cast<std::int32_t>(
                   std::clamp<std::int64_t>(live_->worth(side), -1'000'000, 1'000'000)) *
               300;
    }
    live_->takeBack();
    if (enough) {
      rank = 0x7fffffff;
      return;
    }
  }
}

void AlphaBeta::cutBy(Level& level, const Move& move, int depth, int side) {
  if (!level.hasKillers[0] || !(level.killers[0] == move)) {
    level.killers[1] = level.killers[0];
    level.hasKillers[1] = level.hasKillers[0];
    level.killers[0] = move;
    level.hasKillers[0] = true;
  }
  std::int32_t& seen = history_[historyPlace(side, move)];
  seen += depth * depth;
  if (seen > historyLimit)
    for (std::int32_t& one : history_) one /= 2;
}

}  // namespace ninepegs::play
