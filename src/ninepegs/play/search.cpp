// Alpha-beta search in the negamax form (D. Knuth, R. Moore, "An analysis of alpha-beta pruning",
// Artificial Intelligence 6, 1975) with iterative deepening, a table of positions, null windows
// behind the first move (T. Marsland, M. Campbell, "Parallel search of strongly ordered game
// trees", 1982), moves ordered by what cut before (J. Schaeffer, "The history heuristic", 1989),
// late moves looked at less deeply first, and at the end of each line all moves that take.
#include <algorithm>
#include <chrono>
#include <utility>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/play/measure.hpp"
#include "ninepegs/play/over_pasts.hpp"
#include "ninepegs/play/position_table.hpp"
#include "ninepegs/play/worked_out.hpp"

namespace ninepegs::play {
namespace {

// Of levels: the positions that are looked at, and the share of moves, in percent, that are drawn
// from all.
constexpr std::uint64_t levelNodes[] = {20, 60, 200, 600, 2'000, 6'000, 20'000, 60'000, 200'000};
constexpr std::uint32_t levelSlips[] = {40, 30, 22, 15, 10, 6, 3, 1, 0};

constexpr std::int64_t endless = winScore * 2;
constexpr std::uint64_t usualMegabytes = 8;
constexpr int deepestTaking = 12;  // plies behind the last, of moves that take
constexpr std::size_t historySize = 1 << 13;
constexpr std::int32_t historyLimit = 1 << 20;
constexpr std::uint64_t workedGames = 400;  // that a measure is worked out from
constexpr int reducedFrom = 3;       // plies left, where late moves are looked at less deeply
constexpr std::size_t lateFrom = 4;  // moves in order

class Search final : public Opponent {
 public:
  explicit Search(const SearchLimits& limits) : limits_(limits), most_(limits.nodes) {
    if (limits.level > 0) most_ = levelNodes[limits.level - 1];
  }

  Choice choose(const Game& game, const Position& position, Stream& stream) override;

  Choice chooseKnowing(const Game& game, const Knowledge& knowledge, Stream& stream) override {
    OverPasts limits{limits_.pasts, limits_.depth, most_, 0, limits_.seconds};
    Choice choice = pasts_.search(game, knowledge, limits, stream, stop_);
    if (slips(stream)) choice = makeRandom()->chooseKnowing(game, knowledge, stream);
    return choice;
  }

  std::string name() const override { return nameOf(limits_); }

 private:
  struct Level {
    MoveList moves;
    std::vector<std::pair<std::int32_t, std::uint16_t>> order;  // rank, number of the move
    std::vector<Move> line;
    Move killers[2];
    bool hasKillers[2] = {false, false};
  };

  // Of a level: does it draw its move from all this time?
  bool slips(Stream& stream) const {
    return limits_.level > 0 && stream.below(100) < levelSlips[limits_.level - 1];
  }
  void begin(const Game& game, const Position& position);
  bool anythingTakes(const Position& position);
  std::int64_t leaf() {
    return worksOut_ ? workedOut_.worth(*live_, live_->toMove()) : leafScore(*live_, measured_);
  }
  std::int64_t look(int ply, int depth, std::int64_t alpha, std::int64_t beta, bool& whole);
  std::int64_t below(int ply, int depth, std::int64_t alpha, std::int64_t beta, int side,
                     bool& whole);
  std::int64_t taking(int ply, int deep, std::int64_t alpha, std::int64_t beta);
  void rank(Level& level, int depth, std::uint16_t first);
  bool outOfBudget();
  static std::size_t historyPlace(int side, const Move& move) {
    std::size_t key = move.group;
    key = key * 31 + (move.count > 0 ? move.choices[0] : 0u);
    key = key * 517 + (move.count > 1 ? move.choices[move.count - 1] : 0u);
    return (key * 2 + static_cast<std::size_t>(side)) % historySize;
  }
  void cutBy(Level& level, const Move& move, int depth, int side);

  SearchLimits limits_;
  std::uint64_t most_ = 0;  // positions; 0: no limit
  const Game* game_ = nullptr;
  std::unique_ptr<LivePosition> live_;
  bool measured_ = false, takes_ = false;
  PositionTable table_;
  std::vector<Level> levels_;
  std::vector<std::int32_t> history_;
  std::uint64_t nodes_ = 0;
  bool stopped_ = false;
  std::chrono::steady_clock::time_point begun_;
  PastsPlayer pasts_;
  WorkedOut workedOut_;
  bool worksOut_ = false;  // the sheet has no measure
};

bool Search::outOfBudget() {
  if (stopped_) return true;
  if (most_ > 0 && nodes_ >= most_) return stopped_ = true;
  if (nodes_ % 256 == 0) {
    std::chrono::duration<double> spent = std::chrono::steady_clock::now() - begun_;
    if (limits_.seconds > 0 && spent.count() >= limits_.seconds) stopped_ = true;
    if (wantsStop(stop_)) stopped_ = true;
  }
  return stopped_;
}

// Moves that take, and nothing else, or none of them: the side may leave it at that.
std::int64_t Search::taking(int ply, int deep, std::int64_t alpha, std::int64_t beta) {
  int side = live_->toMove();
  std::int64_t best = leaf();
  if (best >= beta || deep >= deepestTaking || ply + 1 >= static_cast<int>(levels_.size()))
    return best;
  alpha = std::max(alpha, best);
  Level& level = levels_[static_cast<std::size_t>(ply)];
  live_->listMoves(level.moves);
  for (const Move& move : level.moves) {
    if (!live_->takes(move)) continue;
    if (outOfBudget()) return best;
    live_->play(move);
    ++nodes_;
    bool again = live_->toMove() == side;
    std::int64_t score = 0;
    if (endsWith(*live_, ply + 1, score))
      score = again ? score : -score;
    else
      score = again ? taking(ply + 1, deep + 1, alpha, beta)
                    : -taking(ply + 1, deep + 1, -beta, -alpha);
    live_->takeBack();
    best = std::max(best, score);
    alpha = std::max(alpha, best);
    if (alpha >= beta) break;
  }
  return best;
}

void Search::rank(Level& level, int depth, std::uint16_t first) {
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

void Search::cutBy(Level& level, const Move& move, int depth, int side) {
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

// The score for `side`, who has just moved.
std::int64_t Search::below(int ply, int depth, std::int64_t alpha, std::int64_t beta, int side,
                           bool& whole) {
  // The same side may move again: then the score is its own.
  return live_->toMove() == side ? look(ply, depth, alpha, beta, whole)
                                 : -look(ply, depth, -beta, -alpha, whole);
}

std::int64_t Search::look(int ply, int depth, std::int64_t alpha, std::int64_t beta, bool& whole) {
  Level& level = levels_[static_cast<std::size_t>(ply)];
  level.line.clear();
  ++nodes_;
  int side = live_->toMove();
  std::int64_t ended = 0;
  if (endsWith(*live_, ply, ended)) return ended;
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
    return takes_ ? taking(ply, 0, alpha, beta) : leaf();
  }
  // Scores of wins count plies from here in the table, from the root outside it.
  auto stored = [&](std::int64_t score) {
    return !decides(score) ? score : score > 0 ? score + ply : score - ply;
  };
  auto fetched = [&](std::int64_t score) {
    return !decides(score) ? score : score > 0 ? score - ply : score + ply;
  };
  std::uint64_t hash = live_->hash();
  std::uint16_t first = 0xffff;
  if (const TableEntry* entry = table_.find(hash)) {
    first = entry->move;
    if (ply > 0 && (entry->depth >= depth || entry->whole)) {
      std::int64_t score = fetched(entry->score);
      if (entry->bound == Bound::exact || (entry->bound == Bound::atLeast && score >= beta) ||
          (entry->bound == Bound::atMost && score <= alpha)) {
        whole = whole && entry->whole;
        return score;
      }
    }
  }
  if (!live_->canMove()) return 0;  // nobody can go on and no end holds
  live_->listMoves(level.moves);
  if (ply > 0 || level.order.size() != level.moves.size()) {
    rank(level, depth, first);
  } else if (first != 0xffff) {  // at the root the drawn order stays, behind the best move
    auto it = std::find_if(level.order.begin(), level.order.end(),
                           [&](const auto& one) { return one.second == first; });
    if (it != level.order.end()) std::rotate(level.order.begin(), it, it + 1);
  }
  std::int64_t best = -endless, low = alpha;
  std::uint16_t bestMove = level.order.front().second;
  bool wholeHere = true;
  Level& next = levels_[static_cast<std::size_t>(ply) + 1];
  bool asked = depth > 1 || !measured_ || takes_ || limits_.exact;
  for (std::size_t at = 0; at < level.order.size(); ++at) {
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
    bool wholeBelow = true;
    std::int64_t score = 0;
    if (at == 0) {
      score = below(ply + 1, depth - 1, low, beta, side, wholeBelow);
    } else {
      bool quiet = rankHere < 1 << 26 && !limits_.exact;
      int less = quiet && depth >= reducedFrom && at >= lateFrom && ply > 0 ? 1 : 0;
      score = below(ply + 1, depth - 1 - less, low, low + 1, side, wholeBelow);
      if (score > low && !stopped_ && (less > 0 || score < beta)) {
        wholeBelow = true;
        score = below(ply + 1, depth - 1, low, beta, side, wholeBelow);
      }
    }
    live_->takeBack();
    if (stopped_) {
      whole = false;
      return best > -endless ? best : 0;
    }
    wholeHere = wholeHere && wholeBelow;
    if (score > best) {
      best = score;
      bestMove = index;
      if (score > low) {
        low = score;
        level.line.assign(1, move);
        level.line.insert(level.line.end(), next.line.begin(), next.line.end());
      }
    }
    if (low >= beta) {
      cutBy(level, move, depth, side);
      break;
    }
  }
  // A win that was found needs no further look at other moves.
  if (best >= winScore - 10 * limits::searchDepth && best >= beta) wholeHere = true;
  // Elsewhere the same position may have another past, and so another outcome.
  bool anywhere = wholeHere && !game_->remembersPositions();
  TableEntry entry;
  entry.key = hash;
  entry.score = static_cast<std::int32_t>(stored(best));
  entry.move = bestMove;
  entry.depth = static_cast<std::int8_t>(std::min(depth, 127));
  entry.bound = best >= beta ? Bound::atLeast : best > alpha ? Bound::exact : Bound::atMost;
  entry.whole = anywhere;
  table_.keep(entry);
  whole = whole && wholeHere;
  return best;
}

// Does anything take another piece in a few games from here? Where nothing does, there is no need
// to look for it at the end of every line.
bool Search::anythingTakes(const Position& position) {
  constexpr int games = 6, plies = 60;
  if (!measured_) return false;
  MoveList moves;
  bool found = false;
  for (int number = 0; number < games && !found; ++number) {
    Stream stream(1, static_cast<std::uint64_t>(number));
    live_->setUp(position);
    for (int ply = 0; ply < plies && !live_->ended() && !found; ++ply) {
      live_->listMoves(moves);
      if (moves.empty()) break;
      for (const Move& move : moves) found = found || live_->takes(move);
      live_->play(moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
    }
  }
  return found;
}

void Search::begin(const Game& game, const Position& position) {
  if (game_ != &game || table_.empty()) {
    table_.resize(limits_.megabytes == 0 ? usualMegabytes : limits_.megabytes);
    history_.assign(historySize, 0);
  }
  game_ = &game;
  table_.nextSearch();
  nodes_ = 0;
  stopped_ = false;
  measured_ = game.measure() != nullptr;
  live_ = game.live();
  worksOut_ = !measured_ && !limits_.exact;
  if (worksOut_) {
    // As many games as cost little beside the search.
    std::uint64_t games = workedGames;
    if (most_ > 0) games = std::clamp<std::uint64_t>(most_ / 25, 50, workedGames);
    Stream stream(1, position.words.empty() ? 0 : game.hash(position));
    workedOut_.learn(game, position, games, stream);
    measured_ = true;
  }
  takes_ = !limits_.exact && anythingTakes(position);
  live_->setUp(position);
  for (std::int32_t& one : history_) one /= 8;
  begun_ = std::chrono::steady_clock::now();
}

Choice Search::choose(const Game& game, const Position& position, Stream& stream) {
  begin(game, position);
  int deepest = limits_.depth > 0 ? limits_.depth : limits::searchDepth;
  levels_.resize(static_cast<std::size_t>(deepest + (takes_ ? deepestTaking : 0)) + 2);
  for (Level& level : levels_) level.hasKillers[0] = level.hasKillers[1] = false;
  Level& root = levels_[0];
  MoveList moves;
  live_->listMoves(moves);
  Choice choice;
  // Moves of equal worth are tried in a drawn order, so that games differ by their seed.
  root.order.resize(moves.size());
  for (std::size_t i = 0; i < moves.size(); ++i) root.order[i] = {0, static_cast<std::uint16_t>(i)};
  for (std::size_t i = moves.size(); i > 1; --i)
    std::swap(root.order[i - 1], root.order[stream.below(static_cast<std::uint32_t>(i))]);
  choice.move = moves[root.order.front().second];
  choice.line = {choice.move};
  for (int depth = 1; depth <= deepest; ++depth) {
    bool whole = true;
    std::int64_t score = look(0, depth, -endless, endless, whole);
    if (stopped_) break;
    choice.depth = depth;
    choice.score = score;
    if (!levels_[0].line.empty()) {
      choice.line = levels_[0].line;
      choice.move = choice.line.front();
    }
    choice.solved = whole || decides(score);
    choice.steps.push_back(
        {depth, score, nodes_,
         std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count(),
         choice.line});
    // What the table knows may be a win that is not the shortest: that is one within the depth.
    bool settled = decides(score) && (!limits_.exact || winScore - std::abs(score) <= depth);
    if (settled || (whole && !(limits_.exact && decides(score)))) break;
  }
  choice.nodes = nodes_;
  if (slips(stream)) {
    choice.move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
    choice.line = {choice.move};
    choice.solved = false;
  }
  choice.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count();
  return choice;
}

}  // namespace

std::unique_ptr<Opponent> makeSearch(const SearchLimits& limits) {
  return std::make_unique<Search>(limits);
}

}  // namespace ninepegs::play
