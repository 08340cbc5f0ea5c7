// Alpha-beta search in the negamax form (D. Knuth, R. Moore, "An analysis of alpha-beta pruning",
// Artificial Intelligence 6, 1975) with iterative deepening and a transposition table.
#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cstdlib>
#include <utility>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {
namespace {

constexpr std::int64_t endless = winScore * 2;
constexpr std::int64_t worthLimit = winScore / 2;
constexpr std::size_t tableSize = std::size_t{1} << 18;

bool isWin(std::int64_t score) {
  return std::abs(score) > winScore - 10 * limits::searchDepth;
}

enum class Bound : std::uint8_t { none, exact, atLeast, atMost };

struct Entry {
  std::uint64_t key = 0;
  std::int64_t score = 0;
  std::uint16_t move = 0;  // its number in the list of legal moves
  std::int16_t depth = -1;
  Bound bound = Bound::none;
  bool whole = false;  // every line below was followed to its end
};

class Search final : public Opponent {
 public:
  explicit Search(const SearchLimits& limits) : limits_(limits) {}

  Choice choose(const Game& game, const Position& position, Stream& stream) override;

  std::string name() const override {
    std::string text = "search";
    char mark = ':';
    auto add = [&](const std::string& setting) {
      text += mark + setting;
      mark = ',';
    };
    if (limits_.depth > 0) add(fmt::format("depth={}", limits_.depth));
    if (limits_.seconds > 0) add(fmt::format("time={}", limits_.seconds));
    if (limits_.nodes > 0) add(fmt::format("nodes={}", limits_.nodes));
    return text;
  }

 private:
  struct Level {
    MoveList moves;
    std::vector<std::uint16_t> order;
    std::vector<Move> line;
    std::uint16_t killer = 0xffff;
  };

  std::int64_t look(int ply, int depth, std::int64_t alpha, std::int64_t beta, bool& whole);
  std::int64_t leaf();
  bool outOfBudget();

  SearchLimits limits_;
  const Game* game_ = nullptr;
  std::unique_ptr<LivePosition> live_;
  std::vector<Entry> table_;
  std::vector<Level> levels_;
  std::uint64_t nodes_ = 0;
  bool stopped_ = false;
  std::chrono::steady_clock::time_point begun_;
};

bool Search::outOfBudget() {
  if (stopped_) return true;
  if (limits_.nodes > 0 && nodes_ >= limits_.nodes) return stopped_ = true;
  if (nodes_ % 256 == 0) {
    std::chrono::duration<double> spent = std::chrono::steady_clock::now() - begun_;
    if (limits_.seconds > 0 && spent.count() >= limits_.seconds) stopped_ = true;
    if (wantsStop(stop_)) stopped_ = true;
  }
  return stopped_;
}

// What a position is worth where the search stops: the sheet's measure; without one, how many moves
// the side to move has.
std::int64_t Search::leaf() {
  if (game_->measure() == nullptr)
    return static_cast<std::int64_t>(std::min<std::uint32_t>(live_->moveCount(), 1000));
  return std::clamp(live_->worth(live_->toMove()), -worthLimit, worthLimit);
}

std::int64_t Search::look(int ply, int depth, std::int64_t alpha, std::int64_t beta, bool& whole) {
  Level& level = levels_[ply];
  level.line.clear();
  ++nodes_;
  int side = live_->toMove();
  Outcome outcome = live_->outcome();
  if (outcome.kind == ResultKind::win)
    return outcome.winner == side ? winScore - ply : ply - winScore;
  if (outcome.kind != ResultKind::ongoing) return 0;
  if (outOfBudget()) {
    whole = false;
    return 0;
  }
  // Scores of wins count plies from here in the table, from the root outside it.
  auto stored = [&](std::int64_t score) {
    return !isWin(score) ? score : score > 0 ? score + ply : score - ply;
  };
  auto fetched = [&](std::int64_t score) {
    return !isWin(score) ? score : score > 0 ? score - ply : score + ply;
  };
  std::uint64_t hash = live_->hash();
  Entry& entry = table_[hash & (tableSize - 1)];
  std::uint16_t first = 0xffff;
  if (entry.bound != Bound::none && entry.key == hash) {
    first = entry.move;
    if (ply > 0 && (entry.depth >= depth || entry.whole)) {
      std::int64_t score = fetched(entry.score);
      if (entry.bound == Bound::exact || (entry.bound == Bound::atLeast && score >= beta) ||
          (entry.bound == Bound::atMost && score <= alpha)) {
        whole = whole && entry.whole;
        return score;
      }
    }
  }
  if (!live_->canMove()) return 0;  // nobody can go on and no end holds
  if (depth == 0 || ply + 1 >= static_cast<int>(levels_.size())) {
    whole = false;
    return leaf();
  }
  live_->listMoves(level.moves);
  std::size_t count = level.moves.size();
  if (ply > 0 || level.order.size() != count) {
    level.order.resize(count);
    for (std::size_t i = 0; i < count; ++i) level.order[i] = static_cast<std::uint16_t>(i);
  }
  auto toFront = [&](std::uint16_t move) {
    auto it = std::find(level.order.begin(), level.order.end(), move);
    if (it != level.order.end()) std::rotate(level.order.begin(), it, it + 1);
  };
  if (ply > 0 && level.killer != 0xffff) toFront(level.killer);
  if (first != 0xffff) toFront(first);

  std::int64_t best = -endless, low = alpha;
  std::uint16_t bestMove = level.order.front();
  bool wholeHere = true;
  Level& next = levels_[ply + 1];
  bool asked = depth > 1 || game_->measure() == nullptr;
  for (std::uint16_t index : level.order) {
    live_->expectMoves(asked);
    live_->play(level.moves[index]);
    // The same side may move again: then the score is its own.
    bool sameSide = live_->toMove() == side;
    bool wholeBelow = true;
    std::int64_t score = sameSide ? look(ply + 1, depth - 1, low, beta, wholeBelow)
                                  : -look(ply + 1, depth - 1, -beta, -low, wholeBelow);
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
        level.line.assign(1, level.moves[index]);
        level.line.insert(level.line.end(), next.line.begin(), next.line.end());
      }
    }
    if (low >= beta) {
      level.killer = index;
      break;
    }
  }
  // A win that was found needs no further look at other moves.
  if (best >= winScore - 10 * limits::searchDepth && best >= beta) wholeHere = true;
  // Elsewhere the same position may have another past, and so another outcome.
  bool anywhere = wholeHere && !game_->remembersPositions();
  entry = {hash,
           stored(best),
           bestMove,
           static_cast<std::int16_t>(depth),
           best >= beta   ? Bound::atLeast
           : best > alpha ? Bound::exact
                          : Bound::atMost,
           anywhere};
  whole = whole && wholeHere;
  return best;
}

Choice Search::choose(const Game& game, const Position& position, Stream& stream) {
  if (game_ != &game || table_.empty()) table_.assign(tableSize, Entry{});
  game_ = &game;
  begun_ = std::chrono::steady_clock::now();
  nodes_ = 0;
  stopped_ = false;
  int deepest = limits_.depth > 0 ? limits_.depth : limits::searchDepth;
  levels_.resize(static_cast<std::size_t>(deepest) + 2);
  for (Level& level : levels_) level.killer = 0xffff;
  Level& root = levels_[0];
  live_ = game.live();
  live_->setUp(position);
  MoveList moves;
  live_->listMoves(moves);
  Choice choice;
  // Moves of equal worth are tried in a drawn order, so that games differ by their seed.
  root.order.resize(moves.size());
  for (std::size_t i = 0; i < moves.size(); ++i) root.order[i] = static_cast<std::uint16_t>(i);
  for (std::size_t i = moves.size(); i > 1; --i)
    std::swap(root.order[i - 1], root.order[stream.below(static_cast<std::uint32_t>(i))]);
  choice.move = moves[root.order.front()];
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
    choice.solved = whole;
    if (whole || isWin(score)) break;
  }
  choice.nodes = nodes_;
  choice.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count();
  return choice;
}

}  // namespace

std::unique_ptr<Opponent> makeSearch(const SearchLimits& limits) {
  return std::make_unique<Search>(limits);
}

}  // namespace ninepegs::play
