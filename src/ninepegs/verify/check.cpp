#include "ninepegs/verify/check.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <deque>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/verify/inspect.hpp"
#include "ninepegs/verify/lint.hpp"
#include "ninepegs/verify/shorten.hpp"
#include "ninepegs/verify/views.hpp"

namespace ninepegs::verify {
namespace {

constexpr std::uint64_t playoutsAPiece = 64;
// A pair of games of which a side sees the same takes the time of about ten playouts.
constexpr std::uint64_t playoutsAPair = 40, pairsAtLeast = 100;
constexpr std::uint64_t remarkPlayouts = 200;
constexpr std::uint64_t closeLooks = 0x6c6f6f6b;  // the stream that draws them
// Plies that can be played in the time that is needed for one move's text, and for one move and
// its image.
constexpr std::uint32_t textCost = 12, symmetryCost = 12;

// How often each small number was seen.
class Tally {
 public:
  void add(std::size_t value) {
    if (value >= times_.size()) times_.resize(value + 1 + value / 2, 0);
    ++times_[value];
  }
  void into(Spread& spread) const {
    for (std::size_t value = 0; value < times_.size(); ++value)
      if (times_[value] > 0) spread.times[value] += times_[value];
  }

 private:
  std::vector<std::uint64_t> times_;
};

// One thread's playouts.
class Watcher {
 public:
  Watcher(const Game& game, const CheckOptions& options)
      : game_(game),
        options_(options),
        inspector_(game),
        start_(game.start()),
        uses_(ruleLinesOf(game).size(), 0),
        live_(game.live(uses_)) {}

  void playout(std::uint64_t number) {
    try {
      play(number);
    } catch (const RunawayRules& error) {
      seen_.see(runawayFault(error), number, played_);
    }
    finish();
  }

  // Playouts that went on to the limit of plies.
  std::uint64_t endless() const { return endless_; }

  // All that was seen.
  Evidence evidence() const {
    Evidence out = seen_;
    out.uses = uses_;
    lengths_.into(out.lengths);
    choices_.into(out.choices);
    for (const Ended& ended : ended_)
      if (ended.times > 0) out.outcomes[{ended.end, ended.winner, ended.name}] = ended.times;
    return out;
  }

 private:
  struct Ended {
    int end, winner;
    std::string name;
    std::uint64_t times = 0;
  };

  void play(std::uint64_t number);
  void finish();
  Inspector::Closeness drawn(Stream& look, std::uint32_t moves);
  void note(std::uint64_t number) {
    for (const Fault& fault : faults_) seen_.see(fault, number, played_);
    faults_.clear();
  }

  const Game& game_;
  const CheckOptions& options_;
  Inspector inspector_;
  Position start_;
  std::vector<std::uint64_t> uses_;
  std::unique_ptr<LivePosition> live_;
  Evidence seen_;  // but for what follows
  Tally lengths_, choices_;
  std::uint64_t endless_ = 0;
  std::vector<Ended> ended_;
  std::vector<Move> played_;
  std::vector<Fault> faults_;
};

void Watcher::play(std::uint64_t number) {
  Stream stream(options_.seed, number);
  // Which positions are looked at closely is drawn by itself, so that the games stay the same.
  Stream look(options_.seed ^ closeLooks, number);
  live_->setUp(start_);
  played_.clear();
  inspector_.position(*live_, faults_);
  if (!faults_.empty()) note(number);
  while (!live_->ended()) {
    std::uint32_t moves = live_->moveCount();
    bool all = options_.closely || (number == 0 && played_.empty());
    Inspector::Closeness close = all ? inspector_.closest() : drawn(look, moves);
    if (moves == 0 || close.texts || close.symmetries > 0) {
      inspector_.moves(*live_, close, faults_);
      if (moves > 0 && close.symmetries > 0) ++seen_.symmetryTests;
      note(number);
    }
    if (moves == 0) break;
    choices_.add(moves);
    if (static_cast<int>(played_.size()) >= options_.plyLimit) {
      ++endless_;
      seen_.see({FindingKind::endless, 0,
                 fmt::format("a playout went on for {} plies without an end", options_.plyLimit)},
                number, played_);
      break;
    }
    played_.push_back(live_->moveAt(stream.below(moves)));
    live_->play(played_.back());
    inspector_.position(*live_, faults_);
    if (!faults_.empty()) note(number);
  }
}

// A look costs as much as many plies, the more the more moves there are: so many that all looks
// together cost about as much as the playouts.
Inspector::Closeness Watcher::drawn(Stream& look, std::uint32_t moves) {
  Inspector::Closeness close;
  close.texts = look.below(textCost * moves + 1) == 0;
  if (inspector_.symmetries() > 0 && look.below(symmetryCost * moves + 1) == 0) {
    close.firstSymmetry = look.below(static_cast<std::uint32_t>(inspector_.symmetries()));
    close.symmetries = 1;
  }
  return close;
}

void Watcher::finish() {
  faults_.clear();
  Outcome outcome = live_->outcome();
  if (outcome.kind == ResultKind::win || outcome.kind == ResultKind::draw) {
    auto same = [&](const Ended& one) {
      return one.end == outcome.end && one.winner == outcome.winner;
    };
    auto ended = std::find_if(ended_.begin(), ended_.end(), same);
    if (ended == ended_.end())
      ended = ended_.insert(ended,
                            {outcome.end, outcome.winner, game_.result(live_->position()).name, 0});
    ++ended->times;
  } else {
    ++seen_.unfinished;
  }
  lengths_.add(played_.size());
  ++seen_.playouts;
}

Finding findingOf(FindingKind kind, int line, const Evidence::FirstSeen& seen) {
  Finding finding;
  finding.kind = kind;
  finding.line = line;
  finding.message = seen.message;
  finding.playout = seen.playout;
  return finding;
}

// The finding of a fault, with the game that shows it.
Finding withGame(const Game& game, FindingKind kind, int line, const Evidence::FirstSeen& seen,
                 const Shortened& shown) {
  Finding finding = findingOf(kind, line, seen);
  finding.shortest = shown.shortest;
  std::unique_ptr<LivePosition> live = game.live();
  std::vector<Fault> faults;
  try {
    for (const Move& move : shown.moves) {
      finding.moves.push_back(game.moveText(live->position(), move));
      live->play(move);
    }
    // The message speaks of the game that is shown.
    Inspector inspector(game);
    inspector.position(*live, faults);
    inspector.moves(*live, inspector.closest(), faults);
  } catch (const RunawayRules&) {  // the last move, or what could follow, has no end
  }
  for (const Fault& fault : faults)
    if (fault.kind == kind && fault.line == line) finding.message = fault.message;
  finding.last = live->position();
  finding.position = game.positionText(finding.last);
  return finding;
}

Finding described(const Game& game, FindingKind kind, int line, const Evidence::FirstSeen& seen,
                  const CheckOptions& options) {
  if (!options.described) return findingOf(kind, line, seen);
  Shortened shortest{seen.moves, false};
  if (kind != FindingKind::endless)
    shortest = shorten(game, kind, line, seen.moves, options.shortenBudget, options.stop);
  return withGame(game, kind, line, seen, shortest);
}

}  // namespace

CheckReport check(const Game& game, const CheckOptions& options) {
  CheckReport report;
  if (options.examples) report.examples = runExamples(game, options.threads, options.stop);
  for (const ExampleRun& run : report.examples)
    for (const Finding& finding : run.findings) report.findings.push_back(finding);

  std::deque<Watcher> watchers;  // they stay where they are: what counts uses knows where
  for (int thread = 0; thread < options.threads; ++thread) watchers.emplace_back(game, options);
  std::atomic<std::uint64_t> done{0};
  std::uint64_t pieces = (options.playouts + playoutsAPiece - 1) / playoutsAPiece;
  auto play = [&](std::uint64_t piece, int thread) {
    std::uint64_t end = std::min(options.playouts, (piece + 1) * playoutsAPiece);
    for (std::uint64_t number = piece * playoutsAPiece; number < end; ++number) {
      if (wantsStop(options.stop)) return;
      watchers[thread].playout(number);
    }
    std::uint64_t now = done += end - piece * playoutsAPiece;
    if (options.progress) options.progress(now);
  };
  // Where many of the first playouts come to no end, more of them show no more and take very long.
  std::uint64_t first = std::min(options.playouts, playoutsAPiece);
  auto playOne = [&](std::uint64_t number, int thread) { watchers[thread].playout(number); };
  inParallel(first, options.threads, playOne, options.stop);
  std::uint64_t endless = 0;
  for (const Watcher& watcher : watchers) endless += watcher.endless();
  report.endless = endless >= playoutsAPiece / 4 && options.playouts > first;
  if (!report.endless && pieces > 1) {
    done = first;
    inParallel(
        pieces - 1, options.threads,
        [&](std::uint64_t piece, int thread) { play(piece + 1, thread); }, options.stop);
  }
  report.evidence.uses.assign(ruleLinesOf(game).size(), 0);
  for (const Watcher& watcher : watchers) report.evidence.merge(watcher.evidence());
  report.stopped = wantsStop(options.stop);
  for (const auto& [key, seen] : report.evidence.faults)
    report.findings.push_back(described(game, key.first, key.second, seen, options));
  if (const auto* sheet = dynamic_cast<const SheetGame*>(&game);
      options.remarks && sheet != nullptr)
    report.remarks = lint(*sheet, {std::min<std::uint64_t>(options.playouts, remarkPlayouts),
                                   options.seed, options.stop});
  if (game.secrets() != nullptr && options.playouts > 0) {
    std::uint64_t games = options.closely
                              ? options.playouts
                              : std::max(std::min((options.playouts + 3) / 4, pairsAtLeast),
                                         (options.playouts + playoutsAPair - 1) / playoutsAPair);
    ViewTest views = testViews(game, games, {options.seed, options.threads, options.stop});
    report.viewPairs = views.pairs;
    for (Finding& finding : views.findings) report.findings.push_back(std::move(finding));
  }
  return report;
}

void addEvery(const Game& game, EveryReport every, CheckReport& report) {
  for (const auto& [key, seen] : every.evidence.faults) {
    Finding finding = withGame(game, key.first, key.second, seen, {seen.moves, true});
    auto same = [&](const Finding& one) {
      return one.kind == finding.kind && one.line == finding.line &&
             one.kind != FindingKind::example;
    };
    auto known = std::find_if(report.findings.begin(), report.findings.end(), same);
    if (known == report.findings.end())
      report.findings.push_back(std::move(finding));
    else
      *known = std::move(finding);
  }
  for (std::size_t i = 0; i < every.evidence.uses.size(); ++i)
    report.evidence.uses[i] += every.evidence.uses[i];
  report.stopped = report.stopped || every.broken == EveryReport::Broken::stopped;
  report.every = std::move(every);
}

}  // namespace ninepegs::verify
