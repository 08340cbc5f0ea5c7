#include "ninepegs/play/alpha_beta.hpp"

#include <algorithm>
#include <limits>

#include "ninepegs/base/limits.hpp"

namespace ninepegs::play {
namespace {

constexpr std::uint64_t askedEach = 256, progressEach = 1 << 14;  // positions
constexpr int reducedFrom = 3;       // plies left, where late moves are looked at less deeply
constexpr int muchReducedFrom = 6;   // ... by two plies
constexpr int weighedFrom = 3;       // plies left, of an exact search
constexpr int windowFrom = 4;        // plies, from which a score is expected near the last
constexpr std::size_t lateFrom = 4;  // moves in order
constexpr std::uint64_t finishedWith = 10'000;  // positions at most, to finish a line
constexpr int tabledFrom = 6;  // empty cells of a game of lines: further on it saves no time
constexpr std::int32_t leftForLater = std::numeric_limits<std::int32_t>::min();  // rank of a move

}  // namespace

bool AlphaBeta::outOfBudget() {
  if (stopped_) return true;
  if (finishesAt_ > 0) return nodes_ >= finishesAt_;
  // One ply is always looked at, so that no win at once is missed.
  bool always = rootDepth_ == 1 && !limits_.exact;
  if (!always && spent()) return stopped_ = true;
  if (pauseAt_ > 0 && nodes_ >= pauseAt_) return stopped_ = paused_ = true;
  if (nodes_ >= asksAt_) {
    asksAt_ = nodes_ + askedEach;
    if (limits_.progress && nodes_ >= tellsAt_) {
      limits_.progress(nodes_);
      tellsAt_ = nodes_ + progressEach;
    }
    if (!always && outOfTime()) stopped_ = true;
    if (!always && outOfSteps()) stopped_ = true;
    if (wantsStop(stop_)) stopped_ = true;
  }
  return stopped_;
}

// Plays each move that takes, to see what it is worth if the other side leaves it at that. The best
// come first.
void AlphaBeta::weighTaking(Level& level, int ply) {
  int side = live_->toMove();
  live_->listMoves(level.moves);
  level.taken.clear();
  for (const Move& move : level.moves) {
    if (!live_->takes(move)) continue;
    if (outOfBudget()) return;
    live_->expectMoves(false);
    live_->play(move);
    ++nodes_;
    Taken one;
    one.move = static_cast<std::uint16_t>(&move - level.moves.data());
    one.again = live_->toMove() == side;
    one.over = endsWith(*live_, ply + 1, one.behind);
    if (!one.over) one.behind = leaf();
    one.score = one.again ? one.behind : -one.behind;
    live_->takeBack();
    level.taken.push_back(one);
  }
  std::stable_sort(level.taken.begin(), level.taken.end(),
                   [](const Taken& a, const Taken& b) { return a.score > b.score; });
}

// Moves that take, and nothing else, or none of them: the side may leave it at that, for `best`.
std::int64_t AlphaBeta::taking(int ply, int deep, std::int64_t best, std::int64_t alpha,
                               std::int64_t beta) {
  if (best >= beta || deep >= deepestTaking || ply + 1 >= static_cast<int>(levels_.size()))
    return best;
  // Of the first depth, which is finished in any case, what is taken is left out.
  if (rootDepth_ == 1 && finishesAt_ == 0 && (spent() || outOfSteps() || outOfTime())) return best;
  alpha = std::max(alpha, best);
  Level& level = levels_[static_cast<std::size_t>(ply)];
  weighTaking(level, ply);
  for (const Taken& one : level.taken) {
    if (finishesAt_ > 0) levels_[static_cast<std::size_t>(ply) + 1].line.clear();
    std::int64_t score = one.score;
    // The other side may leave it at that, too, so that it is worth no more to this one.
    if (!one.over && (one.again || score > alpha)) {
      live_->expectMoves(true);
      live_->play(level.moves[one.move]);
      score = one.again ? taking(ply + 1, deep + 1, one.behind, alpha, beta)
                        : -taking(ply + 1, deep + 1, one.behind, -beta, -alpha);
      live_->takeBack();
    }
    if (stopped_) return best;
    if (finishesAt_ > 0 && score > best) takeLine(level, level.moves[one.move], ply);
    best = std::max(best, score);
    alpha = std::max(alpha, best);
    if (alpha >= beta) break;
  }
  return best;
}

// The line of a level: a move, and the line of the next.
void AlphaBeta::takeLine(Level& level, const Move& move, int ply) {
  const Level& next = levels_[static_cast<std::size_t>(ply) + 1];
  level.line.assign(1, move);
  level.line.insert(level.line.end(), next.line.begin(), next.line.end());
}

// A line may end where pieces are still being taken, as the search does not write down what it
// looks at behind its depth, nor what the table knew: they are taken now.
void AlphaBeta::finishLine() {
  std::vector<Move>& line = levels_.front().line;
  auto plies = static_cast<int>(line.size());
  if (!takes_ || plies == 0 || plies + 1 >= static_cast<int>(levels_.size())) return;
  std::uint64_t nodes = nodes_;
  finishesAt_ = nodes + finishedWith;
  live_->expectMoves(true);
  for (const Move& move : line) live_->play(move);
  std::int64_t ended = 0;
  levels_[static_cast<std::size_t>(plies)].line.clear();
  if (!endsWith(*live_, plies, ended)) taking(plies, 0, leaf(), -endless, endless);
  for (int i = 0; i < plies; ++i) live_->takeBack();
  const std::vector<Move>& rest = levels_[static_cast<std::size_t>(plies)].line;
  line.insert(line.end(), rest.begin(), rest.end());
  finishesAt_ = 0;
  nodes_ = nodes;
}

// The score for `side`, who has just moved.
std::int64_t AlphaBeta::below(int ply, int depth, std::int64_t alpha, std::int64_t beta, int side,
                              bool& whole) {
  // The same side may move again: then the score is its own.
  return live_->toMove() == side ? look(ply, depth, alpha, beta, whole)
                                 : -look(ply, depth, -beta, -alpha, whole);
}

std::int64_t AlphaBeta::look(int ply, int depth, std::int64_t alpha, std::int64_t beta,
                             bool& whole) {
  Level& level = levels_[static_cast<std::size_t>(ply)];
  level.line.clear();
  ++nodes_;
  std::int64_t ended = 0;
  // The root has a legal move, whatever a side could claim there.
  if (ply > 0 && endsWith(*live_, ply, ended)) return ended;
  if (outOfBudget()) {
    whole = false;
    return 0;
  }
  // No mate from here can be sooner than one that is known.
  if (ply > 0) {
    alpha = std::max<std::int64_t>(alpha, ply - winScore);
    beta = std::min<std::int64_t>(beta, winScore - ply - 1);
    if (alpha >= beta) return alpha;
  }
  if (depth <= 0 || ply + 1 >= static_cast<int>(levels_.size())) {
    whole = false;
    if (limits_.exact || !measured_) {
      if (!live_->canMove()) return 0;  // nobody can go on and no end holds
      return limits_.exact ? 0 : leaf();
    }
    return takes_ ? taking(ply, 0, leaf(), alpha, beta) : leaf();
  }
  bool byLines = lines_ != nullptr && ply > 0;
  if (std::int64_t score = 0; byLines && settledAtOnce(level, ply, depth, score)) return score;
  std::uint64_t own = live_->hash(), hash = keyOf(ply, own);
  bool tabled = !byLines || lines_->left() >= tabledFrom;
  if (byLines) {  // while the memory of the table's place is fetched
    if (tabled) table_->prefetch(hash);
    rankByLines(level, depth);
  }
  std::uint16_t first = 0xffff;
  if (std::optional<TableEntry> entry = tabled ? table_->find(hash) : std::nullopt) {
    if (hash == own) first = entry->move;
    if (ply > 0 && (entry->depth >= depth || entry->whole)) {
      std::int64_t score = fetched(entry->score, ply);
      if (entry->bound == Bound::exact || (entry->bound == Bound::atLeast && score >= beta) ||
          (entry->bound == Bound::atMost && score <= alpha)) {
        whole = whole && entry->whole;
        return score;
      }
    }
  }
  if (!live_->canMove()) return 0;  // nobody can go on and no end holds
  if (byLines) {
    std::int64_t score = 0;
    if (knownBehind(level, ply, depth, alpha, beta, score, whole)) return score;
    for (auto& [rank, number] : level.order)
      if (number == first) rank = highestRank;
  } else {
    putInOrder(level, ply, depth, first);
  }
  std::uint16_t bestMove = level.order.front().second;
  bool wholeHere = true;
  std::int64_t best = lookAtMoves(ply, depth, alpha, beta, first != 0xffff, bestMove, wholeHere);
  if (stopped_) {
    whole = false;
    return best > -endless ? best : 0;
  }
  // A win that was found needs no further look at other moves.
  if (best >= winScore - 10 * limits::searchDepth && best >= beta) wholeHere = true;
  // Elsewhere the same position may have another past, and so another outcome.
  bool anywhere = wholeHere && !game_->remembersPositions();
  TableEntry entry;
  entry.score = static_cast<std::int32_t>(stored(best, ply));
  entry.move = hash == own ? bestMove : std::uint16_t{0xffff};  // of an image: others
  entry.depth = static_cast<std::int8_t>(std::min(depth, 127));
  entry.bound = best >= beta ? Bound::atLeast : best > alpha ? Bound::exact : Bound::atMost;
  entry.whole = anywhere;
  if (tabled && (ply > 0 || limits_.only.empty())) table_->keep(hash, entry);
  whole = whole && wholeHere;
  return best;
}

// The best of the moves of this level, in their order.
std::int64_t AlphaBeta::lookAtMoves(int ply, int depth, std::int64_t alpha, std::int64_t beta,
                                    bool known, std::uint16_t& bestMove, bool& whole) {
  Level& level = levels_[static_cast<std::size_t>(ply)];
  int side = live_->toMove();
  std::int64_t best = -endless, low = alpha;
  bool guesses = !limits_.exact && ply > 0;
  // A forced move is looked through.
  if (guesses && level.moves.size() == 1 && ply < 2 * rootDepth_) ++depth;
  bool asked = depth > 1 || !measured_ || takes_ || limits_.exact;
  bool weighs = limits_.exact && measured_ && !lines_ && depth >= weighedFrom && ply > 0;
  for (std::size_t at = 0; at < level.order.size(); ++at) {
    // The table's move is followed first: often it is enough.
    if (weighs && at == (known ? 1 : 0)) {
      weigh(level, at, ply, depth, low, beta);
      weighs = false;  // also if this place is taken again, for a move that is left for later
    }
    if (ply > 0) {
      // The first of those that rank highest comes next.
      auto highest =
          std::max_element(level.order.begin() + static_cast<std::ptrdiff_t>(at), level.order.end(),
                           [](const auto& a, const auto& b) { return a.first < b.first; });
      std::swap(level.order[at], *highest);
    }
    auto [rankHere, index] = level.order[at];
    const Move& move = level.moves[index];
    live_->expectMoves(asked);
    live_->play(move);
    std::uint64_t busy = 0;  // what the other threads know the position behind it by
    if (ply > 0 && at > 0 && shared(ply, depth)) {
      busy = live_->hash();
      if (rankHere > leftForLater && busy_->has(busy)) {
        live_->takeBack();
        level.order[at--].first = leftForLater;
        continue;
      }
      busy_->begin(busy);
    }
    bool wholeBelow = true;
    std::int64_t score = 0;
    if (at == 0) {
      score = below(ply + 1, depth - 1, low, beta, side, wholeBelow);
    } else {
      int less = 0;
      if (guesses && rankHere < 1 << 26 && depth >= reducedFrom && at >= lateFrom)
        less = depth >= muchReducedFrom && at >= 3 * lateFrom ? 2 : 1;
      score = below(ply + 1, depth - 1 - less, low, low + 1, side, wholeBelow);
      if (score > low && !stopped_ && (less > 0 || score < beta)) {
        wholeBelow = true;
        score = below(ply + 1, depth - 1, low, beta, side, wholeBelow);
      }
    }
    live_->takeBack();
    if (busy != 0) busy_->end(busy);
    if (stopped_) break;
    whole = whole && wholeBelow;
    if (score > best) {
      best = score;
      bestMove = index;
      if (score > low) {
        low = score;
        takeLine(level, move, ply);
      }
    }
    if (low >= beta) {
      whole = wholeBelow;  // it is enough by itself
      cutBy(level, at, depth, side);
      break;
    }
  }
  return best;
}

// The score is expected near that of the depth before; where it is not, the window grows there.
std::int64_t AlphaBeta::look(int depth, bool& whole) {
  rootDepth_ = depth;
  std::int64_t low = -endless, high = endless;
  bool narrow = limits_.exact && found_ != 0;
  if (narrow) {  // does who wins do it in so many plies?
    low = found_ > 0 ? winScore - depth - 1 : depth - winScore;
    high = low + 1;
  } else if (open_) {
    low = -1, high = 1;
  } else if (!limits_.exact && depth >= windowFrom && !decides(lastScore_)) {
    low = lastScore_ - 2 * swing_ - 1;
    high = lastScore_ + 2 * swing_ + 1;
  }
  bool wholeHere = true;
  std::int64_t score = look(0, depth, low, high, wholeHere);
  while (!open_ && !narrow && !stopped_ && (score <= low || score >= high)) {
    if (score <= low)
      low = -endless;
    else
      high = endless;
    wholeHere = true;
    score = look(0, depth, low, high, wholeHere);
  }
  whole = whole && wholeHere;
  if (stopped_) return score;
  if (!decides(score)) {
    finishLine();
    std::int64_t change = std::abs(score - lastScore_);
    swing_ = depth == 1 ? 0 : depth == 2 ? change : (swing_ + change) / 2;
    lastScore_ = score;
  }
  bool within = !narrow || (found_ > 0 ? score >= high : score <= low);
  if (limits_.exact && decides(score) && within) note(score);
  open_ = open_ && !decides(score);
  return score;
}

}  // namespace ninepegs::play
