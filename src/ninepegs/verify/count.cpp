#include "ninepegs/verify/count.hpp"

#include <algorithm>
#include <mutex>
#include <set>
#include <unordered_set>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/base/text.hpp"

namespace ninepegs::verify {
namespace {

// One thread's walk through the tree, with a list and a position for every depth.
class Walk {
 public:
  Walk(const Game& game, const CountOptions& options)
      : game_(game), options_(options), levels_(options.depth + 1) {}

  std::uint64_t below(const Position& position, int plies) {
    if (wantsStop(options_.stop)) {
      stopped = true;
      return 0;
    }
    Result result = options_.ends || plies > 0 ? game_.result(position) : Result{};
    if (result.kind == ResultKind::fault && faults.empty()) faults.push_back(result.name);
    if (result.kind != ResultKind::ongoing && !result.claim) {
      if (options_.ends) ++ended[resultText(game_, result)];
      return 0;
    }
    if (plies == 0) return 1;
    // At the last ply the moves need not be made, unless their results are asked for.
    if (plies == 1 && !options_.ends) return game_.countMoves(position);
    Level& level = levels_[plies];
    game_.listMoves(position, level.moves);
    std::uint64_t total = 0;
    for (const Move& move : level.moves) {
      level.position = position;
      game_.apply(level.position, move);
      if (plies == 1) ++total;  // the sequence exists, however it ends
      std::uint64_t deeper = below(level.position, plies - 1);
      if (plies > 1) total += deeper;
    }
    return total;
  }

  std::map<std::string, std::uint64_t> ended;
  std::vector<std::string> faults;
  bool stopped = false;

 private:
  struct Level {
    MoveList moves;
    Position position;
  };
  const Game& game_;
  const CountOptions& options_;
  std::vector<Level> levels_;
};

struct WordsHash {
  std::size_t operator()(const std::vector<std::uint64_t>& words) const {
    std::uint64_t hash = 0;
    for (std::size_t i = 0; i < words.size(); ++i) hash = scrambled(hash ^ words[i]) + i;
    return static_cast<std::size_t>(hash);
  }
};
using PositionSet = std::unordered_set<std::vector<std::uint64_t>, WordsHash>;

void countPositions(const Game& game, const Position& from, const CountOptions& options,
                    Counts& counts) {
  PositionSet all;
  std::vector<Position> level = {from};
  all.insert(game.identity(from));
  counts.positions.push_back(1);
  MoveList moves;
  Position after;
  for (int depth = 1; depth <= options.depth; ++depth) {
    PositionSet here;
    std::vector<Position> next;
    for (const Position& position : level) {
      if (wantsStop(options.stop)) {
        counts.stopped = true;
        break;
      }
      game.listMoves(position, moves);
      for (const Move& move : moves) {
        after = position;
        game.apply(after, move);
        std::vector<std::uint64_t> identity = game.identity(after);
        if (!here.insert(identity).second) continue;
        all.insert(std::move(identity));
        next.push_back(after);
      }
    }
    counts.positions.push_back(here.size());
    level = std::move(next);
    if (counts.stopped) break;
  }
  counts.allPositions = all.size();
}

}  // namespace

Counts count(const Game& game, const Position& from, const CountOptions& options) {
  Counts counts;
  MoveList first;
  game.listMoves(from, first);
  // First moves of the same text are listed together.
  std::vector<std::uint64_t> totals(first.size(), 0);
  std::vector<std::string> faults(first.size());  // by first move: the first one below it
  std::mutex mutex;
  inParallel(first.size(), options.threads, [&](std::uint64_t piece, int) {
    Walk walk(game, options);
    Position position = from;
    game.apply(position, first[piece]);
    // A first move is a sequence by itself when only one ply is asked for.
    std::uint64_t total = walk.below(position, options.depth - 1);
    totals[piece] = options.depth == 1 ? 1 : total;
    std::lock_guard lock(mutex);
    for (const auto& [text, number] : walk.ended) counts.ended[text] += number;
    counts.stopped = counts.stopped || walk.stopped;
    if (!walk.faults.empty()) faults[piece] = walk.faults.front();
  });
  auto fault = std::find_if(faults.begin(), faults.end(), [](const auto& f) { return !f.empty(); });
  if (fault != faults.end()) counts.faults.push_back(*fault);
  for (std::size_t i = 0; i < first.size(); ++i) {
    counts.sequences += totals[i];
    counts.byFirstMove.emplace_back(game.moveText(from, first[i]), totals[i]);
  }
  std::sort(counts.byFirstMove.begin(), counts.byFirstMove.end(),
            [](const auto& a, const auto& b) { return naturalLess(a.first, b.first); });
  if (options.positions && !counts.stopped) countPositions(game, from, options, counts);
  return counts;
}

}  // namespace ninepegs::verify
