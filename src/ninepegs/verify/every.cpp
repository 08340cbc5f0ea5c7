#include "ninepegs/verify/every.hpp"

#include <algorithm>
#include <deque>
#include <numeric>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/verify/inspect.hpp"
#include "ninepegs/verify/position_store.hpp"
#include "ninepegs/verify/solved.hpp"

namespace ninepegs::verify {
namespace {

constexpr std::uint32_t aPiece = 64, piecesAtOnce = 64;

// One move that was played, before it is known whether its position is new.
struct Step {
  Position after;
  std::vector<std::uint64_t> identity;
  std::uint64_t key = 0;
  std::vector<Fault> faults;
  bool endless = false;  // playing it came to no end: there is no position
};

// What one position leads to, found by any thread.
struct Expanded {
  std::vector<Step> steps;
  std::vector<Fault> faults;  // of the position
  bool endless = false;       // it cannot be told what can be played, or what is wrong with it
};

// One thread's tools.
struct Worker {
  Worker(const Game& game) : inspector(game), uses(ruleLinesOf(game).size(), 0) {
    live = game.live(uses);
  }
  Inspector inspector;
  std::vector<std::uint64_t> uses;
  std::unique_ptr<LivePosition> live;
  Position position;
  MoveList moves;
};

class Walk {
 public:
  Walk(const Game& game, const EveryOptions& options)
      : game_(game), options_(options), store_(game) {
    for (int thread = 0; thread < options.threads; ++thread) workers_.emplace_back(game);
    if (game.checks() == nullptr || !options.checks) return;
    symmetries_ = game.checks()->symmetries();
    for (const Invariant& one : game.checks()->invariants())
      watchesSteps_ = watchesSteps_ || one.change != 0;
  }

  EveryReport run();

 private:
  void expand(Worker& worker, std::uint32_t number, Expanded& out);
  Step stepOf(Worker& worker);
  void merge(std::uint32_t number, Expanded& expanded);
  void note(std::uint32_t number);
  void begin();
  void goOn();
  void solveIt();
  void tellFirsts(const Solved& solved);
  std::uint64_t classes() const;
  std::uint32_t imageOf(std::uint32_t number, const Symmetry& symmetry) const;
  std::vector<Move> movesTo(std::uint32_t number) const;
  std::vector<Move> movesAlong(const std::vector<std::uint32_t>& way) const;
  void see(const std::vector<Fault>& faults, std::uint32_t number);

  const Game& game_;
  const EveryOptions& options_;
  std::deque<Worker> workers_;  // they stay where they are: what counts uses knows where
  std::vector<Symmetry> symmetries_;
  bool watchesSteps_ = false;  // an invariant compares a position with the one before it
  PositionStore store_;
  PositionGraph graph_;
  std::vector<std::uint32_t> parent_;
  std::vector<std::uint32_t> endsAt_;  // a soonest position of each of report_.ends
  bool endlessMove_ = false;
  EveryReport report_;
};

// The step to the live position.
Step Walk::stepOf(Worker& worker) {
  Step step;
  worker.live->copyTo(step.after);
  step.identity = game_.identity(step.after);
  step.key = PositionStore::keyOf(step.identity);
  if (!options_.checks) return step;
  bool known = store_.find(step.identity, step.key).has_value();
  if (!known || watchesSteps_) worker.inspector.position(*worker.live, step.faults);
  return step;
}

void Walk::expand(Worker& worker, std::uint32_t number, Expanded& out) {
  store_.get(number, worker.position);
  LivePosition& live = *worker.live;
  live.setUp(worker.position);
  try {
    live.listMoves(worker.moves);
  } catch (const RunawayRules& error) {
    out.faults.push_back(runawayFault(error));
    out.endless = true;
    return;
  }
  if (options_.checks) {
    try {
      worker.inspector.moves(live, worker.inspector.closest(), out.faults);
    } catch (const RunawayRules&) {  // a move that is met below
      out.endless = true;
    }
  }
  for (const Move& move : worker.moves) {
    try {
      live.play(move);
    } catch (const RunawayRules& error) {
      Step step;
      step.endless = true;
      step.faults.push_back(runawayFault(error));
      out.steps.push_back(std::move(step));
      continue;
    }
    out.steps.push_back(stepOf(worker));
    live.takeBack();
  }
}

std::vector<Move> Walk::movesAlong(const std::vector<std::uint32_t>& way) const {
  std::vector<Move> moves;
  Position at, after, wanted;
  MoveList legal;
  for (std::size_t i = 0; i + 1 < way.size(); ++i) {
    store_.get(way[i], at);
    store_.get(way[i + 1], wanted);
    std::vector<std::uint64_t> identity = game_.identity(wanted);
    game_.listMoves(at, legal);
    for (const Move& move : legal) {
      after = at;
      try {
        game_.apply(after, move);
      } catch (const RunawayRules&) {
        continue;
      }
      if (game_.identity(after) != identity) continue;
      moves.push_back(move);
      break;
    }
  }
  return moves;
}

std::vector<Move> Walk::movesTo(std::uint32_t number) const {
  std::vector<std::uint32_t> way = {number};
  while (way.back() != 0) way.push_back(parent_[way.back()]);
  std::reverse(way.begin(), way.end());
  return movesAlong(way);
}

void Walk::see(const std::vector<Fault>& faults, std::uint32_t number) {
  for (const Fault& fault : faults)
    if (report_.evidence.faults.count({fault.kind, fault.line}) == 0)
      report_.evidence.see(fault, {0, "", movesTo(number), {}, {}});
}

// A position that is new in the store.
void Walk::note(std::uint32_t number) {
  Position position;
  store_.get(number, position);
  Result result = game_.result(position);
  ++report_.positions;
  graph_.mover.push_back(static_cast<std::int8_t>(game_.toMove(position)));
  bool over = result.kind == ResultKind::win || result.kind == ResultKind::draw;
  graph_.result.push_back(!over ? std::int8_t{-1}
                          : result.kind == ResultKind::draw
                              ? Solved::neither
                              : static_cast<std::int8_t>(result.winner));
  if (!over) return;
  ++report_.ended;
  auto same = [&](const Reached& one) { return one.outcome == result.outcome(); };
  auto found = std::find_if(report_.ends.begin(), report_.ends.end(), same);
  if (found == report_.ends.end()) {
    endsAt_.push_back(number);
    found = report_.ends.insert(found, {result.outcome(), result.name, 0, {}});
  }
  ++found->positions;
}

void Walk::merge(std::uint32_t number, Expanded& expanded) {
  see(expanded.faults, number);
  endlessMove_ = endlessMove_ || expanded.endless;
  bool over = graph_.result[number] >= 0;
  if (!over && !expanded.steps.empty()) report_.evidence.choices.add(expanded.steps.size());
  for (Step& step : expanded.steps) {
    ++report_.moves;
    if (step.endless) {
      endlessMove_ = true;
      see(step.faults, number);
      continue;
    }
    auto [to, fresh] = store_.add(step.after, step.identity, step.key);
    graph_.followers.push_back(to);
    if (fresh) {
      parent_.push_back(number);
      note(to);
    }
    if (step.faults.empty()) continue;
    // What a step does may be wrong though its position was reached in another way before.
    if (fresh) {
      see(step.faults, to);
      continue;
    }
    for (const Fault& fault : step.faults) {
      if (report_.evidence.faults.count({fault.kind, fault.line}) > 0) continue;
      std::vector<Move> moves = movesTo(number);
      for (const Move& move : movesAlong({number, to})) moves.push_back(move);
      report_.evidence.see(fault, {0, "", moves, {}, {}});
    }
  }
  graph_.first.push_back(graph_.followers.size());
  ++report_.goneThrough;
}

void Walk::begin() {
  Worker& worker = workers_.front();
  Position start = options_.from.value_or(game_.start());
  store_.add(start);
  parent_.push_back(0);
  note(0);
  worker.live->setUp(start);
  std::vector<Fault> faults;
  if (options_.checks) worker.inspector.position(*worker.live, faults);
  see(faults, 0);
}

// Level by level: positions come in order of the fewest plies to them.
void Walk::goOn() {
  std::uint32_t levelEnd = 1, levelFrom = 0;
  while (report_.goneThrough < store_.size()) {
    auto from = static_cast<std::uint32_t>(report_.goneThrough);
    if (from == levelEnd) {
      report_.levels.push_back(levelEnd - levelFrom);
      levelFrom = levelEnd;
      levelEnd = store_.size();
    }
    std::uint64_t taken = store_.bytes() + graph_.bytes() + graph_.bytesToSolve() +
                          parent_.capacity() * sizeof(std::uint32_t);
    if (taken > options_.memory || store_.size() > PositionStore::most / 2) {
      report_.broken = EveryReport::Broken::memory;
      break;
    }
    std::uint32_t to = std::min(levelEnd, from + aPiece * piecesAtOnce);
    std::vector<Expanded> found(to - from);
    inParallel((to - from + aPiece - 1) / aPiece, options_.threads,
               [&](std::uint64_t piece, int thread) {
                 std::uint32_t first = from + static_cast<std::uint32_t>(piece) * aPiece;
                 for (std::uint32_t at = first; at < std::min(to, first + aPiece); ++at) {
                   if (wantsStop(options_.stop)) return;
                   expand(workers_[thread], at, found[at - from]);
                 }
               });
    if (wantsStop(options_.stop)) {
      report_.broken = EveryReport::Broken::stopped;
      break;
    }
    for (std::uint32_t at = from; at < to; ++at) merge(at, found[at - from]);
    if (options_.progress) options_.progress(report_.goneThrough);
  }
  // The last level may not be known whole.
  report_.levels.push_back(levelEnd - levelFrom);
  if (levelEnd < store_.size()) report_.levels.push_back(store_.size() - levelEnd);
}

void Walk::solveIt() {
  Solved solved = solve(graph_);
  report_.solved = true;
  if (solved.longest) {
    report_.longest = solved.longest->size() - 1;
    report_.longestGame = movesAlong(*solved.longest);
  }
  if (solved.winner[0] != Solved::neither) report_.winner = solved.winner[0];
  report_.plies = solved.plies[0];
  report_.best = movesAlong(solved.best);
  for (std::uint32_t at = 0; at < graph_.size(); ++at) {
    ++report_.won[static_cast<std::size_t>(solved.winner[at])];
    if (solved.plies[at] <= report_.longestWin) continue;
    report_.longestWin = solved.plies[at];
    report_.longestWinFrom.emplace();
    store_.get(at, *report_.longestWinFrom);
  }
  tellFirsts(solved);
}

// Every move of the first position leads to a follower, in their order.
void Walk::tellFirsts(const Solved& solved) {
  Position start;
  store_.get(0, start);
  MoveList moves;
  game_.listMoves(start, moves);
  for (std::size_t i = 0; i < moves.size() && i < graph_.first[1]; ++i) {
    std::uint32_t to = graph_.followers[i];
    play::Solved::RootMove one{moves[i], true, -1, 0, false};
    if (solved.winner[to] != Solved::neither)
      one.winner = solved.winner[to], one.plies = static_cast<int>(solved.plies[to]) + 1;
    report_.firsts.push_back(one);
  }
}

// Positions of which none is the image of another, in however many steps.
std::uint64_t Walk::classes() const {
  std::vector<std::uint32_t> root(store_.size());
  std::iota(root.begin(), root.end(), 0u);
  auto rootOf = [&](std::uint32_t at) {
    while (root[at] != at) at = root[at] = root[root[at]];
    return at;
  };
  constexpr std::uint32_t atOnce = aPiece * piecesAtOnce;
  std::vector<std::uint32_t> images(atOnce * symmetries_.size());
  std::uint64_t count = store_.size();
  for (std::uint32_t from = 0; from < store_.size(); from += atOnce) {
    if (wantsStop(options_.stop)) return 0;
    std::uint32_t to = std::min(store_.size(), from + atOnce);
    inParallel((to - from + aPiece - 1) / aPiece, options_.threads, [&](std::uint64_t piece, int) {
      std::uint32_t first = from + static_cast<std::uint32_t>(piece) * aPiece;
      for (std::uint32_t at = first; at < std::min(to, first + aPiece); ++at)
        for (std::size_t i = 0; i < symmetries_.size(); ++i)
          images[(at - from) * symmetries_.size() + i] = imageOf(at, symmetries_[i]);
    });
    for (std::uint32_t at = from; at < to; ++at)
      for (std::size_t i = 0; i < symmetries_.size(); ++i) {
        std::uint32_t one = rootOf(at);
        std::uint32_t two = rootOf(images[(at - from) * symmetries_.size() + i]);
        if (one == two) continue;
        root[std::max(one, two)] = std::min(one, two);
        --count;
      }
  }
  return count;
}

// The image's number, or the position's own where the image cannot be reached.
std::uint32_t Walk::imageOf(std::uint32_t number, const Symmetry& symmetry) const {
  Position position;
  store_.get(number, position);
  const GameChecks& checks = *game_.checks();
  std::vector<std::uint64_t> identity =
      game_.identity(checks.mapped(checks.alone(position), symmetry));
  return store_.find(identity, PositionStore::keyOf(identity)).value_or(number);
}

EveryReport Walk::run() {
  begin();
  goOn();
  for (std::size_t i = 0; i < report_.ends.size(); ++i)
    report_.ends[i].soonest = movesTo(endsAt_[i]);
  Evidence& evidence = report_.evidence;
  evidence.uses.assign(ruleLinesOf(game_).size(), 0);
  for (const Worker& worker : workers_)
    for (std::size_t i = 0; i < evidence.uses.size(); ++i) evidence.uses[i] += worker.uses[i];
  bool symmetric = evidence.faults.count({FindingKind::symmetry, 0}) == 0;
  if (report_.complete() && !symmetries_.empty() && symmetric && !game_.remembersPositions())
    report_.classes = classes();
  if (report_.complete() && !endlessMove_) solveIt();
  return std::move(report_);
}

}  // namespace

EveryReport everyPosition(const Game& game, const EveryOptions& options) {
  return Walk(game, options).run();
}

}  // namespace ninepegs::verify
