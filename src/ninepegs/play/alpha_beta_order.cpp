// In which order moves are looked at.
#include <algorithm>
#include <limits>

#include "ninepegs/play/alpha_beta.hpp"

namespace ninepegs::play {

constexpr std::int32_t historyLimit = 1 << 20;
constexpr std::int32_t killerRank = 1 << 26;
constexpr int knownFrom = 12;  // empty cells, where positions behind moves are asked for
constexpr std::int32_t enough = 0x7fffffff;  // the rank of a move that needs no other beside it
// Of an exact search: near the ends it costs more to measure positions than it saves. `wholeGames_`
// is up to twice as long as games are.
constexpr int weighedShare = 5;
constexpr std::int64_t measureShare = 10'000, repliesShare = 50'000;  // of a move's rank

void AlphaBeta::putInOrder(Level& level, int ply, int depth, std::uint16_t first) {
  live_->listMoves(level.moves);
  if (ply > 0) {
    rank(level, depth, first);
  } else if (first != 0xffff) {  // at the root the drawn order stays, behind the best move
    auto it = std::find_if(level.order.begin(), level.order.end(),
                           [&](const auto& one) { return one.second == first; });
    if (it != level.order.end()) std::rotate(level.order.begin(), it, it + 1);
  }
}

void AlphaBeta::rank(Level& level, int depth, std::uint16_t first) {
  std::size_t count = level.moves.size();
  level.order.resize(count);
  int side = live_->toMove();
  for (std::size_t i = 0; i < count; ++i) {
    const Move& move = level.moves[i];
    std::int32_t rank = 0;
    if (i == first) {
      rank = highestRank;
    } else {
      rank = history_[historyPlace(side, move)];
      if (takes_ && live_->takes(move)) rank += 1 << 28;
      for (int k = 0; k < 2 && depth > 1 && !limits_.exact; ++k)
        if (level.hasKillers[k] && level.killers[k] == move) rank += killerRank << (1 - k);
    }
    level.order[i] = {rank, static_cast<std::uint16_t>(i)};
  }
}

bool AlphaBeta::settledAtOnce(Level& level, int ply, int depth, std::int64_t& score) {
  score = 0;
  if (!live_->canMove()) return true;  // nobody can go on and no end holds
  if (std::uint64_t wins = lines_->winning(); wins != 0) {
    level.line.assign(1, lines_->moveTo(std::countr_zero(wins)));
    score = winScore - ply - 1;
    return true;
  }
  if (depth < 2 || lines_->safe() != 0) return false;
  score = ply + 2 - winScore;
  return true;
}

// Moves that lose at once are left out, unless the search does not look so far.
void AlphaBeta::rankByLines(Level& level, int depth) {
  int side = live_->toMove();
  std::uint64_t safe = depth < 2 ? ~std::uint64_t{0} : lines_->safe();
  live_->listMoves(level.moves);
  level.order.clear();
  level.threats.resize(level.moves.size());
  for (std::size_t i = 0; i < level.moves.size(); ++i) {
    const Move& move = level.moves[i];
    Cell cell = move.choices[0];
    if ((safe >> cell & 1) == 0) continue;
    std::int32_t rank = history_[historyPlace(side, move)];
    level.threats[i] = lines_->threatsBehind(cell);
    eachThreat(level, i, side, [&](std::int32_t& worth) { rank += worth; });
    level.order.emplace_back(rank, static_cast<std::uint16_t>(i));
  }
}

AlphaBeta::Behind AlphaBeta::knownOf(std::uint64_t hash, bool again, int ply, int depth,
                                     std::int64_t alpha, std::int64_t beta) const {
  std::optional<TableEntry> entry = table_->find(hash);
  if (!entry || (!entry->whole && entry->depth < depth - 1)) return {};
  std::int64_t score = fetched(entry->score, ply + 1);
  if (!again) score = -score;
  bool exact = entry->bound == Bound::exact;
  bool more = exact || entry->bound == (again ? Bound::atLeast : Bound::atMost);
  bool less = exact || entry->bound == (again ? Bound::atMost : Bound::atLeast);
  return {score >= beta && more, score <= alpha && less, entry->whole, score};
}

bool AlphaBeta::knownBehind(Level& level, int ply, int depth, std::int64_t alpha, std::int64_t beta,
                            std::int64_t& score, bool& whole) {
  if (lines_->left() < knownFrom || ply <= imagedPlies_) return false;
  auto hashOf = [&](std::uint16_t number) {
    return lines_->hashBehind(level.moves[number].choices[0]);
  };
  for (const auto& [rank, number] : level.order) table_->prefetch(hashOf(number));
  for (auto& [rank, number] : level.order) {
    Behind known = knownOf(hashOf(number), false, ply, depth, alpha, beta);
    if (known.enough) {
      whole = whole && known.whole;
      score = known.score;
      return true;
    }
    if (known.tooLittle) rank -= 1 << 28;
  }
  return false;
}

// Where much lies below, it is worth a look at what each move comes to. Puts the one first that is
// known to be enough: it wins at once, or the table says so. Else those come last that are known to
// be too little, and near the root the others are put in order.
void AlphaBeta::weigh(Level& level, std::size_t from, int ply, int depth, std::int64_t alpha,
                      std::int64_t beta) {
  constexpr std::int32_t tooLittle = -(1 << 30);
  int side = live_->toMove();
  // What won in a place near this one may win at once here.
  auto front = level.order.begin() + static_cast<std::ptrdiff_t>(from);
  for (auto it = front; it != level.order.end(); ++it)
    for (int k = 0; k < 2; ++k)
      if (level.hasKillers[k] && level.killers[k] == level.moves[it->second]) {
        std::iter_swap(front++, it);
        break;
      }
  level.weighed.assign(level.order.size(), {});
  for (std::size_t at = from; at < level.order.size(); ++at) {
    auto& [rank, move] = level.order[at];
    Weighed& one = level.weighed[at];
    live_->expectMoves(false);
    live_->play(level.moves[move]);
    one.again = live_->toMove() == side;
    std::int64_t ended = 0;
    one.open = !endsWith(*live_, ply + 1, ended);
    if (one.open) {
      one.hash = keyOf(ply + 1, live_->hash());
      table_->prefetch(one.hash);
    } else if (!one.again) {
      ended = -ended;
    }
    live_->takeBack();
    if (!one.open && ended >= beta) {
      rank = enough;
      return;
    }
    if (!one.open && ended <= alpha) rank = tooLittle;
  }
  int open = 0;
  for (std::size_t at = from; at < level.order.size(); ++at) {
    Weighed& one = level.weighed[at];
    if (!one.open) continue;
    Behind known = knownOf(one.hash, one.again, ply, depth, alpha, beta);
    if (known.enough) {
      level.order[at].first = enough;
      return;
    }
    if (known.tooLittle) {
      level.order[at].first = tooLittle;
      one.open = false;
    }
    open += one.open;
  }
  if (open > 1 && (wholeGames_ == 0 || ply <= wholeGames_ / weighedShare)) sortOpen(level, from);
}

// Of the moves that are open those first that are good by the measure and leave few replies: less
// is left to look at there. Requires that there is one.
void AlphaBeta::sortOpen(Level& level, std::size_t from) {
  using Limits = std::numeric_limits<std::int64_t>;
  int side = live_->toMove();
  std::int64_t lowest = Limits::max(), highest = Limits::min(), fewest = Limits::max(), most = 1;
  for (std::size_t at = from; at < level.order.size(); ++at) {
    Weighed& one = level.weighed[at];
    if (!one.open) continue;
    live_->expectMoves(true);
    live_->play(level.moves[level.order[at].second]);
    one.worth = std::clamp<std::int64_t>(live_->worth(side), -1'000'000, 1'000'000);
    one.replies = one.again ? 0 : live_->moveCount();
    live_->takeBack();
    lowest = std::min(lowest, one.worth);
    highest = std::max(highest, one.worth);
    fewest = std::min(fewest, one.replies);
    most = std::max(most, one.replies);
  }
  std::int64_t span = std::max<std::int64_t>(1, highest - lowest);
  for (std::size_t at = from; at < level.order.size(); ++at) {
    const Weighed& one = level.weighed[at];
    if (one.open)
      level.order[at].first =
          static_cast<std::int32_t>(measureShare * (one.worth - lowest) / span -
                                    repliesShare * (one.replies - fewest) / most);
  }
}

// Calls `look` with what a threat at each of the cells is worth that the move newly threatens.
template <class Look>
void AlphaBeta::eachThreat(const Level& level, std::size_t move, int side, Look look) {
  for (std::uint64_t left = level.threats[move]; left != 0; left &= left - 1)
    look(threatWorth_[static_cast<std::size_t>(side)]
                     [static_cast<std::size_t>(std::countr_zero(left))]);
}

// Threats at some cells are worth more than at others: as with moves, what was made in vain gives
// way to what was not.
void AlphaBeta::learnThreats(const Level& level, std::size_t at, int side) {
  for (std::size_t i = 0; i < at; ++i)
    eachThreat(level, level.order[i].second, side,
               [](std::int32_t& worth) { worth = std::max(worth - 1, -historyLimit); });
  eachThreat(level, level.order[at].second, side, [&](std::int32_t& worth) {
    worth = std::min(worth + static_cast<std::int32_t>(at), historyLimit);
  });
}

void AlphaBeta::cutBy(Level& level, std::size_t at, int depth, int side) {
  auto [rank, index] = level.order[at];
  const Move& move = level.moves[index];
  if (!level.hasKillers[0] || !(level.killers[0] == move)) {
    level.killers[1] = level.killers[0];
    level.hasKillers[1] = level.hasKillers[0];
    level.killers[0] = move;
    level.hasKillers[0] = true;
  }
  if (limits_.exact) {
    if (rank == enough) return;
    // What was tried in vain gives way to what was not.
    for (std::size_t i = 0; i < at; ++i) {
      std::int32_t& vain = history_[historyPlace(side, level.moves[level.order[i].second])];
      vain = std::max(vain - 1, -historyLimit);
    }
    if (!level.threats.empty()) learnThreats(level, at, side);
  }
  std::int32_t& seen = history_[historyPlace(side, move)];
  seen += limits_.exact ? static_cast<std::int32_t>(at) : depth * depth;
  if (seen > historyLimit)
    for (std::int32_t& one : history_) one /= 2;
}

}  // namespace ninepegs::play
