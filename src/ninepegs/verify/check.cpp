#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/views.hpp"

#include <fmt/format.h>

#include <atomic>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/verify/inspect.hpp"
#include "ninepegs/verify/shorten.hpp"

namespace ninepegs::verify {
namespace {

constexpr std::uint64_t playoutsAPiece = 64;

// One thread's playouts.
class Watcher {
 public:
  Watcher(const Game& game, const CheckOptions& options)
      : game_(game), options_(options), inspector_(game), start_(game.start()) {
    evidence.uses.assign(game.ruleLines().size(), 0);
  }

  void playout(std::uint64_t number) {
    try {
      play(number);
    } catch (const RunawayRules& error) {
      evidence.see(runawayFault(error), number, played_);
      finish(number);
    }
  }

  Evidence evidence;

 private:
  void play(std::uint64_t number);
  void finish(std::uint64_t number);
  void note(std::uint64_t number) {
    for (const Fault& fault : faults_) evidence.see(fault, number, played_);
    faults_.clear();
  }

  const Game& game_;
  const CheckOptions& options_;
  Inspector inspector_;
  Position start_, position_, before_;
  MoveList moves_;
  std::vector<Move> played_;
  std::vector<Fault> faults_;
};

void Watcher::play(std::uint64_t number) {
  Stream stream(options_.seed, number);
  bool thorough = number < options_.thoroughPlayouts;
  position_ = start_;
  played_.clear();
  inspector_.position(position_, nullptr, faults_);
  note(number);
  while (!game_.ended(position_)) {
    game_.listMoves(position_, moves_);
    inspector_.moves(position_, moves_, thorough, faults_);
    note(number);
    if (moves_.empty()) break;
    evidence.choices.add(moves_.size());
    if (static_cast<int>(played_.size()) >= options_.plyLimit) {
      evidence.see(
          {FindingKind::endless, 0,
           fmt::format("a playout went on for {} plies without an end", options_.plyLimit)},
          number, played_);
      break;
    }
    const Move& move = moves_[stream.below(static_cast<std::uint32_t>(moves_.size()))];
    before_ = position_;
    played_.push_back(move);
    game_.applyCounting(position_, move, evidence.uses);
    inspector_.position(position_, &before_, faults_);
    note(number);
  }
  finish(number);
}

void Watcher::finish(std::uint64_t number) {
  faults_.clear();
  Result result = game_.result(position_);
  if (result.kind == ResultKind::win || result.kind == ResultKind::draw)
    ++evidence.outcomes[{result.end, result.winner, result.name}];
  else
    ++evidence.unfinished;
  evidence.lengths.add(played_.size());
  ++evidence.playouts;
  if (number < options_.thoroughPlayouts && inspector_.hasSymmetries())
    evidence.symmetryTests += played_.size();
}

Finding described(const Game& game, FindingKind kind, int line, const Evidence::FirstSeen& seen,
                  const CheckOptions& options) {
  Finding finding;
  finding.kind = kind;
  finding.line = line;
  finding.message = seen.message;
  finding.playout = seen.playout;
  Shortened shortest{seen.moves, false};
  if (kind != FindingKind::endless)
    shortest = shorten(game, kind, line, seen.moves, options.shortenBudget, options.stop);
  finding.shortest = shortest.shortest;
  Position position = game.start(), before = position;
  std::vector<Fault> faults;
  try {
    for (const Move& move : shortest.moves) {
      finding.moves.push_back(game.moveText(position, move));
      before = position;
      game.apply(position, move);
    }
    // The message speaks of the game that is shown.
    Inspector inspector(game);
    inspector.position(position, shortest.moves.empty() ? nullptr : &before, faults);
    MoveList moves;
    game.listMoves(position, moves);
    inspector.moves(position, moves, true, faults);
  } catch (const RunawayRules&) {  // the last move, or what could follow, has no end
  }
  for (const Fault& fault : faults)
    if (fault.kind == kind && fault.line == line) finding.message = fault.message;
  finding.position = game.positionText(position);
  finding.last = position;
  return finding;
}

}  // namespace

CheckReport check(const Game& game, const CheckOptions& options) {
  CheckReport report;
  if (options.examples) report.examples = runExamples(game, options.threads, options.stop);
  for (const ExampleRun& run : report.examples)
    for (const Finding& finding : run.findings) report.findings.push_back(finding);

  std::vector<Watcher> watchers;
  watchers.reserve(static_cast<std::size_t>(options.threads));
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
  inParallel(pieces, options.threads, play, options.stop);
  report.evidence.uses.assign(game.ruleLines().size(), 0);
  for (const Watcher& watcher : watchers) report.evidence.merge(watcher.evidence);
  report.stopped = wantsStop(options.stop);
  for (const auto& [key, seen] : report.evidence.faults)
    report.findings.push_back(described(game, key.first, key.second, seen, options));
  if (game.hasSecrets() && options.playouts > 0) {
    std::uint64_t games = std::min(options.viewGames, options.playouts);
    ViewTest views = testViews(game, games, {options.seed, options.threads, options.stop});
    report.viewPairs = views.pairs;
    for (Finding& finding : views.findings) report.findings.push_back(std::move(finding));
  }
  return report;
}

}  // namespace ninepegs::verify
