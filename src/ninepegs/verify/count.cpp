#include "ninepegs/verify/count.hpp"

#include <algorithm>
#include <memory>
#include <mutex>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/verify/position_store.hpp"

namespace ninepegs::verify {
namespace {

// One thread's walk through the tree, with a list and a position for every depth.
class Walk {
 public:
  Walk(const Game& game, const CountOptions& options)
      : game_(game), options_(options), live_(game.live()), lists_(options.depth + 1) {}

  // Sequences of so many plies that begin with the move.
  std::uint64_t after(const Position& from, const Move& move, int plies) {
    live_->setUp(from);
    live_->play(move);
    return below(plies);
  }

  std::map<std::string, std::uint64_t> ended;
  std::vector<std::string> faults;
  bool stopped = false;

 private:
  std::uint64_t below(int plies) {
    if (wantsStop(options_.stop)) {
      stopped = true;
      return 0;
    }
    Outcome outcome = options_.ends || plies > 0 ? live_->outcome() : Outcome{};
    if (outcome.kind == ResultKind::fault && faults.empty())
      faults.push_back(game_.result(live_->position()).name);
    if (outcome.kind != ResultKind::ongoing && !outcome.claim) {
      if (options_.ends) ++ended[resultText(game_, game_.result(live_->position()))];
      return 0;
    }
    if (plies == 0) return 1;
    // At the last ply the moves need not be made, unless their results are asked for.
    if (plies == 1 && !options_.ends) return live_->moveCount();
    MoveList& moves = lists_[plies];
    live_->listMoves(moves);
    std::uint64_t total = 0;
    for (const Move& move : moves) {
      live_->play(move);
      if (plies == 1) ++total;  // the sequence exists, however it ends
      std::uint64_t deeper = below(plies - 1);
      if (plies > 1) total += deeper;
      live_->takeBack();
    }
    return total;
  }

  const Game& game_;
  const CountOptions& options_;
  std::unique_ptr<LivePosition> live_;
  std::vector<MoveList> lists_;  // by plies that are left
};

void countPositions(const Game& game, const Position& from, const CountOptions& options,
                    Counts& counts) {
  PositionStore all(game);
  auto level = std::make_unique<PositionStore>(game);
  all.add(from);
  level->add(from);
  counts.positions.push_back(1);
  MoveList moves;
  Position position, after;
  std::unique_ptr<LivePosition> live = game.live();
  for (int depth = 1; depth <= options.depth && !counts.stopped; ++depth) {
    auto next = std::make_unique<PositionStore>(game);
    for (std::uint32_t at = 0; at < level->size(); ++at) {
      if (wantsStop(options.stop)) {
        counts.stopped = true;
        break;
      }
      level->get(at, position);
      live->setUp(position);
      live->listMoves(moves);
      for (const Move& move : moves) {
        live->play(move);
        live->copyTo(after);
        live->takeBack();
        if (next->add(after).second) all.add(after);
      }
    }
    counts.positions.push_back(next->size());
    level = std::move(next);
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
    // A first move is a sequence by itself when only one ply is asked for.
    std::uint64_t total = walk.after(from, first[piece], options.depth - 1);
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
