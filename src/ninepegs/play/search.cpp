// The opponent that searches: ply by ply deeper, until its limits (alpha_beta.hpp).
#include <deque>
#include <thread>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/play/alpha_beta.hpp"
#include "ninepegs/play/over_pasts.hpp"
#include "ninepegs/play/prover.hpp"
#include "ninepegs/play/smallest_loss.hpp"

namespace ninepegs::play {
namespace {

// Of levels: the positions that are looked at, and the share of moves, in percent, that are drawn
// from all.
constexpr std::uint64_t levelNodes[] = {20, 60, 200, 600, 2'000, 6'000, 20'000, 60'000, 200'000};
constexpr std::uint32_t levelSlips[] = {40, 30, 22, 15, 10, 6, 3, 1, 0};

constexpr std::uint64_t lossNodes = 20'000;  // positions, to lose by little
constexpr int soonerPlies = 2;               // that are looked further for a sooner win
constexpr int endsFrom = 6;  // plies of an exact search, before whole games are followed between

class Search final : public Prover {
 public:
  explicit Search(const SearchLimits& limits) : said_(limits), limits_(limits) {
    if (limits.level > 0) limits_.nodes = levelNodes[limits.level - 1];
  }

  Choice choose(const Game& game, const Position& position, Stream& stream) override {
    return deepen(game, position, stream, true);
  }

  Choice chooseKnowing(const Game& game, const Knowledge& knowledge, Stream& stream) override {
    OverPasts limits{limits_.pasts, limits_.depth, limits_.nodes, 0, limits_.seconds};
    Choice choice = pasts_.search(game, knowledge, limits, stream, stop_);
    if (slips(stream)) choice = makeRandom()->chooseKnowing(game, knowledge, stream);
    return choice;
  }

  std::optional<bool> forces(const Game& game, const Position& position, int side,
                             int plies) override;
  std::optional<int> winner(const Game& game, const Position& position, int side) override;
  std::uint64_t nodesAsked() const override { return asked_; }

  std::string name() const override { return nameOf(said_); }

 private:
  // `howSoon`: of an exact search, is the soonest win looked for?
  Choice deepen(const Game& game, const Position& position, Stream& stream, bool howSoon);
  // Of a level: does it draw its move from all this time?
  bool slips(Stream& stream) const {
    return limits_.level > 0 && stream.below(100) < levelSlips[limits_.level - 1];
  }

  int deepest() const { return limits_.depth > 0 ? limits_.depth : limits::searchDepth; }

  SearchLimits said_, limits_;
  std::uint64_t asked_ = 0;
  AlphaBeta tree_;
  std::deque<AlphaBeta> beside_;
  PastsPlayer pasts_;
  SmallestLoss loss_;
};

// Searches of the same position on threads of their own, which leave to each other what one of them
// looks at: what they keep in the table, the first search need not work out. They end with this.
class Beside {
 public:
  Beside(std::deque<AlphaBeta>& trees, AlphaBeta& first, const Position& position, int deepest,
         bool exact, Stream& stream)
      : trees_(trees) {
    for (AlphaBeta& tree : trees) {
      tree.beginBeside(first, position, &stop_);
      tree.drawOrder(stream);
      threads_.emplace_back([&tree, deepest, exact] {
        try {
          for (int depth = 1; depth <= deepest && !tree.stopped(); ++depth) {
            bool whole = true;
            tree.look(depth, whole);
            if (whole && tree.found() == 0) break;
            if (!exact || depth < endsFrom) continue;
            if (tree.lookToEnds(tree.nodesToEnds()) == 0) break;
            if (tree.lookForSooner(tree.nodes())) break;
          }
        } catch (const BadInput&) {  // rules without an end, where the first search may not come
        }
      });
    }
  }
  ~Beside() { end(); }
  void end() {
    stop_ = true;
    threads_.clear();
  }
  std::uint64_t nodes() const {
    std::uint64_t all = 0;
    for (const AlphaBeta& tree : trees_) all += tree.nodes();
    return all;
  }

 private:
  std::deque<AlphaBeta>& trees_;
  StopFlag stop_{false};
  std::vector<std::jthread> threads_;
};

Choice Search::deepen(const Game& game, const Position& position, Stream& stream, bool howSoon) {
  SearchLimits own = limits_;  // of the first thread: its share of the positions
  if (measure_) own.measure = measure_;
  if (progress_) own.progress = progress_;
  if (own.threads > 1 && own.nodes > 0)
    own.nodes = std::max<std::uint64_t>(1, own.nodes / static_cast<std::uint64_t>(own.threads));
  tree_.begin(game, position, own, stop_);
  tree_.drawOrder(stream);
  Choice choice;
  auto expect = [&](const std::vector<Move>& line) {
    if (!line.empty()) choice.line = line, choice.move = line.front();
  };
  expect({tree_.firstMove()});
  std::int64_t told = 0;
  auto tellFound = [&] {  // who wins is known before it is known how soon
    if (!tell_ || tree_.found() == told) return;
    told = tree_.found();
    tell_({choice.depth, told, tree_.nodes(), tree_.seconds(), tree_.lineFound(), true});
  };
  int decidedAt = 0;  // the depth at which it was first seen who wins
  beside_.resize(static_cast<std::size_t>(std::max(0, limits_.threads - 1)));
  Beside beside(beside_, tree_, position, deepest(), limits_.exact, stream);
  for (int depth = 1; depth <= deepest(); ++depth) {
    bool whole = true;
    std::int64_t score = tree_.look(depth, whole);
    if (tree_.stopped()) break;
    // What the table knows, or what was seen where lines go deeper, may be a win that is not the
    // soonest: that is one within the depth. Where nothing must be exact two plies more are enough.
    if (decides(score) && decidedAt == 0) decidedAt = depth;
    bool settled = decides(score) && (winScore - std::abs(score) <= depth ||
                                      (!limits_.exact && depth >= decidedAt + soonerPlies));
    bool known = limits_.exact && tree_.found() != 0;  // who wins, in some plies
    if (known && !settled) score = tree_.found();
    choice.depth = depth;
    choice.score = score;
    choice.bound = known && !settled;
    expect(tree_.line());
    choice.solved = whole || decides(score);
    choice.whole = whole && !decides(score);  // a win needs no look at other moves
    choice.steps.push_back({depth, score, tree_.nodes(), tree_.seconds(), choice.line});
    if (tell_) tell_(choice.steps.back());
    if (settled || (whole && !known) || (known && !howSoon)) break;
    if (!limits_.exact || depth < endsFrom) continue;
    std::optional<int> end = tree_.lookToEnds(tree_.nodesToEnds());
    tellFound();
    if (end == 0) {
      choice.solved = choice.whole = true;
      expect(tree_.line());
      break;
    }
    if (!howSoon && tree_.found() != 0) break;
    if (std::optional<std::int64_t> best = tree_.lookForSooner(tree_.nodes())) {
      choice.score = *best;
      choice.solved = true;
      choice.bound = false;
      choice.depth = static_cast<int>(winScore - std::abs(*best));
      expect(tree_.lineFound());
      choice.steps.push_back(
          {choice.depth, choice.score, tree_.nodes(), tree_.seconds(), choice.line});
      break;
    }
    tellFound();
    if (tree_.stopped()) break;
  }
  beside.end();
  if (limits_.exact && tree_.found() != 0 && (choice.bound || !decides(choice.score))) {
    choice.score = tree_.found();
    choice.solved = choice.bound = true;
    expect(tree_.lineFound());
  }
  choice.nodes = tree_.nodes() + beside.nodes();
  // Lost in any case: then by as little as can be, where the game counts.
  if (!limits_.exact && limits_.only.empty() && decides(choice.score) && choice.score < 0)
    if (std::optional<Move> move = loss_.choose(game, position, lossNodes, stop_))
      choice.move = *move, choice.line = {*move};
  // Whatever its level, it takes a win at once.
  if (slips(stream) && choice.score < winScore - 1) {
    const MoveList& moves = tree_.moves();
    choice.better = choice.move;
    choice.move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
    choice.solved = choice.whole = false;
  }
  choice.seconds = tree_.seconds();
  return choice;
}

std::optional<bool> Search::forces(const Game& game, const Position& position, int side,
                                   int plies) {
  asked_ = 0;
  Result result = game.result(position);
  if (result.kind != ResultKind::ongoing)
    return plies >= 0 && result.kind == ResultKind::win && result.winner == side;
  if (plies <= 0 || game.countMoves(position) == 0) return false;
  tree_.begin(game, position, limits_, stop_);
  std::optional<bool> wins = tree_.forces(game.toMove(position) == side, plies);
  asked_ = tree_.nodes();
  return wins;
}

std::optional<int> Search::winner(const Game& game, const Position& position, int side) {
  asked_ = 0;
  Result result = game.result(position);
  if (result.kind == ResultKind::win) return result.winner == side ? 1 : -1;
  if (result.kind != ResultKind::ongoing || game.countMoves(position) == 0) return 0;
  Stream stream(1, 0);
  Choice choice = deepen(game, position, stream, false);
  asked_ = choice.nodes;
  if (!choice.solved) return std::nullopt;
  if (!decides(choice.score)) return 0;
  return (choice.score > 0) == (game.toMove(position) == side) ? 1 : -1;
}

}  // namespace

std::unique_ptr<Prover> makeProver(const SearchLimits& limits) {
  return std::make_unique<Search>(limits);
}

std::unique_ptr<Opponent> makeSearch(const SearchLimits& limits) {
  return std::make_unique<Search>(limits);
}

}  // namespace ninepegs::play
