#include "ninepegs/verify/check.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <deque>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/parallel.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/verify/changed.hpp"
#include "ninepegs/verify/lint.hpp"
#include "ninepegs/verify/shorten.hpp"
#include "ninepegs/verify/views.hpp"
#include "ninepegs/verify/watcher.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {
namespace {

constexpr std::uint64_t playoutsAPiece = 64, fewPlayouts = 8;
// A pair of games of which a side sees the same takes the time of about ten playouts.
constexpr std::uint64_t playoutsAPair = 60, pairsAtLeast = 100;
constexpr std::uint64_t remarkPlayouts = 200;
// A steered game weighs up to twelve moves a ply: so many groups of them that they take a fraction
// of the time of the playouts.
constexpr std::uint64_t playoutsAGroup = 1000, groupsAtMost = 200;
constexpr std::uint64_t laterGroups = 2 * playoutsAGroup;  // behind the first two: one for so many
std::uint64_t groupsFor(std::uint64_t playouts) {
  std::uint64_t early = std::min(playouts, laterGroups);
  return std::min(groupsAtMost, early / playoutsAGroup + 1 + (playouts - early) / laterGroups);
}
constexpr int gamesAGroup = 4;
constexpr std::size_t changedAGroup = 2;
// Parts of conditions are counted in games of their own, which are slower.
constexpr int partGames = 2000;
constexpr int disclosureGames = 40;
constexpr std::uint64_t partPlies(std::uint64_t playouts) {
  return std::clamp<std::uint64_t>(10 * playouts, 5'000, 150'000);
}

Finding findingOf(FindingKind kind, int line, const Evidence::FirstSeen& seen) {
  Finding finding;
  finding.kind = kind;
  finding.line = line;
  finding.message = seen.message;
  finding.playout = seen.playout;
  finding.way = seen.way;
  return finding;
}

// The finding of a fault, with the game that shows it.
Finding withGame(const Game& game, FindingKind kind, int line, const Evidence::FirstSeen& seen,
                 const Shortened& shown) {
  Finding finding = findingOf(kind, line, seen);
  finding.shortest = shown.shortest;
  std::unique_ptr<LivePosition> live = game.live();
  if (seen.from) {
    live->setUp(*seen.from);
    finding.from = game.positionText(*seen.from);
  }
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
  if (kind == FindingKind::growing && line > 0) {  // given up where the number had run away
    Finding finding = withGame(game, kind, line, seen, {seen.moves, false});
    finding.message = seen.message;
    return finding;
  }
  if (kind == FindingKind::endless || kind == FindingKind::growing) {
    Endless way = endlessWay(game, seen.moves, static_cast<std::size_t>(plyLimitOf(game, options)));
    Finding finding = withGame(game, kind, line, seen, {way.moves, false});
    finding.message = way.message;
    finding.expects = way.expects;
    return finding;
  }
  ShortenOptions how;
  how.budget = options.shortenBudget;
  how.stop = options.stop;
  return withGame(game, kind, line, seen, shorten(game, kind, line, seen, how));
}

// Positions of the cases that keep what must hold.
std::vector<Position> casePositions(const Game& game) {
  std::vector<Position> out;
  if (game.checks() == nullptr) return out;
  for (const Example& one : game.checks()->examples())
    if (one.variant == game.info().variant && one.startsElsewhere && !game.ended(one.position) &&
        brokenInvariants(game, one.position).empty())
      out.push_back(one.position);
  return out;
}

// Could a position that somebody set up show this, though no game leads to it?
bool mayBeOfTheSetUp(FindingKind kind) {
  return kind == FindingKind::noEnd || kind == FindingKind::drawOverWin;
}

class Check {
 public:
  Check(const Game& game, const CheckOptions& options) : game_(game), options_(options) {
    for (int thread = 0; thread < options.threads; ++thread)
      watchers_.emplace_back(
          game, Watcher::Options{options.seed, options.closely, plyLimitOf(game, options)});
  }

  CheckReport run() {
    cases();
    part(CheckPart::playouts, options_.playouts > 0, [&] { return playouts(); });
    report_.evidence = evidence();
    part(CheckPart::otherWays, options_.playouts > 0 && !report_.endless,
         [&] { return otherWays(); });
    for (const auto& [key, seen] : report_.evidence.faults)
      report_.findings.push_back(described(game_, key.first, key.second, seen, options_));
    const auto* sheet = dynamic_cast<const SheetGame*>(&game_);
    part(CheckPart::remarks, options_.remarks && sheet != nullptr, [&] { return remarks(*sheet); });
    part(CheckPart::symmetries, options_.unnamed && game_.checks() != nullptr, [&] {
      report_.symmetries = trySymmetries(game_, {.seed = options_.seed, .stop = options_.stop});
      return extentOf(report_.symmetries.games > 0, report_.symmetries.broken);
    });
    part(CheckPart::conditions, options_.parts && game_.checks() != nullptr, [&] {
      PartUses uses =
          partUses(game_, {options_.seed, partGames, partPlies(options_.playouts), options_.stop});
      report_.parts = std::move(uses.parts);
      return extentOf(uses.plies > 0 || report_.parts.empty(), uses.broken);
    });
    part(CheckPart::secrets, game_.secrets() != nullptr && options_.playouts > 0,
         [&] { return views(); });
    longGames();
    report_.stopped = wantsStop(options_.stop) && !report_.complete();
    return std::move(report_);
  }

 private:
  static Extent extentOf(bool any, bool broken) {
    return !broken ? Extent::whole : any ? Extent::part : Extent::none;
  }
  // Does a part, if it is wanted and there is still time, and notes how much of it was done.
  template <class Work>
  void part(CheckPart which, bool wanted, Work work) {
    Extent& extent = report_.extent[static_cast<std::size_t>(which)];
    if (!wanted) return;
    extent = Extent::none;
    if (wantsStop(options_.stop)) return;
    if (options_.begins) options_.begins(which);
    try {
      StopScope scope(options_.stop);
      extent = work();
    } catch (const Stopped&) {  // in the middle of something that has no half
    }
  }
  void cases();
  Extent playouts();
  Extent otherWays();
  Extent remarks(const SheetGame& sheet);
  Extent views();
  void longGames();
  // What was begun with, and what was seen since.
  Evidence evidence() const {
    Evidence out = options_.begun;
    out.uses.resize(ruleLinesOf(game_).size(), 0);
    for (const Watcher& watcher : watchers_) out.merge(watcher.evidence());
    return out;
  }

  const Game& game_;
  const CheckOptions& options_;
  std::deque<Watcher> watchers_;  // they stay where they are: what counts uses knows where
  CheckReport report_;
};

void Check::cases() {
  if (!options_.examples) return;
  if (options_.begins) options_.begins(CheckPart::cases);
  report_.examples = runExamples(game_, options_.threads, options_.stop);
  report_.cases = exampleCount(game_);
  if (report_.cases > 0)
    report_.extent[static_cast<std::size_t>(CheckPart::cases)] =
        extentOf(!report_.examples.empty(), report_.examples.size() < report_.cases);
  for (const ExampleRun& run : report_.examples)
    for (const Finding& finding : run.findings) report_.findings.push_back(finding);
}

Extent Check::remarks(const SheetGame& sheet) {
  LintReport found = lint(sheet, {std::min<std::uint64_t>(options_.playouts, remarkPlayouts),
                                  options_.seed, options_.stop});
  report_.remarks = std::move(found.remarks);
  return extentOf(true, !found.complete);
}

// Long games are no fault: nothing comes again and nothing runs away.
void Check::longGames() {
  const Evidence& seen = report_.evidence;
  if (seen.givenUp > 0)
    report_.remarks.push_back(
        {0,
         fmt::format("{} of {} playouts were given up: the rules took more than {} steps in one "
                     "game, all positions together",
                     grouped(seen.givenUp), grouped(seen.playouts), grouped(limits::gameSteps)),
         "what takes long? `ninepegs explain GAME --program` names the class of every move"});
  if (seen.tooLong == 0 || seen.faults.count({FindingKind::endless, 0}) > 0 ||
      seen.faults.count({FindingKind::growing, 0}) > 0)
    return;
  int line = game_.info().ends.empty() ? 0 : game_.info().ends.front().line;
  report_.remarks.push_back(
      {line,
       fmt::format("{} of {} playouts went on for {} plies without an end; no position came again, "
                   "and no number ran away",
                   grouped(seen.tooLong), grouped(seen.playouts),
                   grouped(static_cast<unsigned long long>(plyLimitOf(game_, options_)))),
       "if long games are meant, say in `ends`: may last 4000 plies; or give --plies N"});
}

Extent Check::playouts() {
  std::atomic<std::uint64_t> done{options_.begun.playouts};
  auto playOne = [&](std::uint64_t number, int thread) { watchers_[thread].playout(number); };
  std::uint64_t from = done, first = std::min(options_.playouts, playoutsAPiece);
  if (from == 0) {
    // Where many of the first playouts come to no end, more of them show no more and take very
    // long.
    for (std::uint64_t many : {std::min(first, fewPlayouts), first}) {
      inParallel(
          many - from, options_.threads,
          [&](std::uint64_t number, int thread) { playOne(from + number, thread); }, options_.stop);
      std::uint64_t endless = 0;
      for (const Watcher& watcher : watchers_) endless += watcher.endless();
      report_.endless = endless >= std::max<std::uint64_t>(many / 4, 2) && options_.playouts > many;
      done = from = many;
      if (report_.endless || wantsStop(options_.stop)) break;
    }
  }
  // In rounds, so that now and then all that was done can be kept.
  std::uint64_t round = options_.keep ? 4 : ~0ull / playoutsAPiece;
  auto kept = std::chrono::steady_clock::now();
  while (!report_.endless && from < options_.playouts && !wantsStop(options_.stop)) {
    std::uint64_t to = options_.playouts - from > round * playoutsAPiece
                           ? from + round * playoutsAPiece
                           : options_.playouts;
    std::uint64_t pieces = (to - from + playoutsAPiece - 1) / playoutsAPiece;
    auto play = [&](std::uint64_t piece, int thread) {
      std::uint64_t begin = from + piece * playoutsAPiece,
                    end = std::min(to, begin + playoutsAPiece);
      for (std::uint64_t number = begin; number < end; ++number) {
        if (wantsStop(options_.stop)) return;
        watchers_[thread].playout(number);
      }
      std::uint64_t now = done += end - begin;
      if (options_.progress) options_.progress(now);
    };
    auto begun = std::chrono::steady_clock::now();
    inParallel(pieces, options_.threads, play, options_.stop);
    if (wantsStop(options_.stop)) break;
    from = to;
    auto now = std::chrono::steady_clock::now();
    if (now - begun < std::chrono::milliseconds(200)) round *= 2;
    if (now - begun > std::chrono::seconds(1) && round > 1) round /= 2;
    if (options_.keep && now - kept > std::chrono::seconds(1) && from < options_.playouts) {
      options_.keep(evidence());
      kept = now;
    }
  }
  bool whole = !report_.endless && !wantsStop(options_.stop);
  if (options_.keep && whole) options_.keep(evidence());
  std::uint64_t played = evidence().playouts;
  return extentOf(played > 0, played < options_.playouts);
}

Extent Check::otherWays() {
  std::vector<Position> start, cases = casePositions(game_);
  std::uint64_t groups = groupsFor(options_.playouts);
  std::vector<Steer> ways = {Steer::putOff, Steer::hurry, Steer::rare};
  if (!cases.empty()) ways.push_back(Steer::fromCase);
  std::vector<Position> changed = changedPositions(
      game_,
      {options_.seed, changedAGroup * static_cast<std::size_t>(groups), cases, options_.stop});
  if (!changed.empty()) ways.push_back(Steer::changed);
  auto games = static_cast<int>(
      std::clamp<std::uint64_t>(options_.playouts * gamesAGroup / playoutsAGroup, 1, gamesAGroup));
  std::vector<WayEvidence> seen(groups * ways.size());
  std::vector<Evidence> faults(seen.size());
  inParallel(
      seen.size(), options_.threads,
      [&](std::uint64_t number, int thread) {
        Steer way = ways[number % ways.size()];
        seen[number] =
            watchers_[thread].steered({way, games, number * gamesAGroup, report_.evidence.uses,
                                       way == Steer::fromCase  ? cases
                                       : way == Steer::changed ? changed
                                                               : start},
                                      faults[number]);
      },
      options_.stop);
  for (std::size_t i = 0; i < seen.size(); ++i) {
    if (i < ways.size()) {
      report_.ways.push_back({ways[i], 0, {}, {}});
      report_.ways.back().uses.resize(report_.evidence.uses.size(), 0);
    }
    WayEvidence& way = report_.ways[i % ways.size()];
    way.games += seen[i].games;
    for (std::size_t line = 0; line < seen[i].uses.size(); ++line)
      way.uses[line] += seen[i].uses[line];
    way.ends.insert(seen[i].ends.begin(), seen[i].ends.end());
    for (auto& [key, one] : faults[i].faults) {
      // A changed position may be one that no game leads to.
      if (one.way == Steer::changed) continue;
      if (one.way == Steer::fromCase && mayBeOfTheSetUp(key.first)) continue;
      one.playout += options_.playouts;  // behind all others
      report_.evidence.see({key.first, key.second, one.message}, one);
    }
  }
  std::uint64_t played = 0;
  for (const WayEvidence& way : report_.ways) played += way.games;
  return extentOf(played > 0, wantsStop(options_.stop) ||
                                  played < seen.size() * static_cast<std::size_t>(games));
}

Extent Check::views() {
  std::uint64_t games = options_.closely
                            ? options_.playouts
                            : std::max(std::min((options_.playouts + 3) / 4, pairsAtLeast),
                                       (options_.playouts + playoutsAPair - 1) / playoutsAPair);
  ViewTest views = testViews(game_, games, {options_.seed, options_.threads, options_.stop});
  report_.viewPairs = views.pairs;
  Disclosures shown = disclosures(game_, {options_.seed, disclosureGames, options_.stop});
  report_.shown = std::move(shown.lines);
  for (Finding& finding : views.findings) report_.findings.push_back(std::move(finding));
  return extentOf(views.pairs > 0 || shown.games > 0, views.broken || shown.broken);
}

}  // namespace

int plyLimitOf(const Game& game, const CheckOptions& options) {
  if (options.plyLimit > 0) return options.plyLimit;
  return game.info().mayLast > 0 ? game.info().mayLast : limits::usualPlies;
}

CheckReport check(const Game& game, const CheckOptions& options) {
  return Check(game, options).run();
}

std::vector<std::uint64_t> usesOf(const CheckReport& report) {
  std::vector<std::uint64_t> out = report.evidence.uses;
  for (const WayEvidence& way : report.ways)
    for (std::size_t line = 0; way.way != Steer::changed && line < out.size(); ++line)
      out[line] += way.uses[line];
  return out;
}

std::vector<std::size_t> reachedAlone(const CheckReport& report, const WayEvidence& way) {
  std::vector<std::uint64_t> uses = usesOf(report);
  std::vector<std::size_t> out;
  for (std::size_t line = 0; line < uses.size(); ++line)
    if (way.uses[line] > 0 && uses[line] == (way.way == Steer::changed ? 0 : way.uses[line]))
      out.push_back(line);
  return out;
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
