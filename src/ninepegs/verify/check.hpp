// The whole check of a game: its examples, random playouts with everything watched, and the
// shortest game for every fault found.
//
//   verify::CheckReport report = verify::check(*game, {.playouts = 10000, .seed = 1});
//   for (const verify::Finding& finding : report.findings) texts.push_back(finding.message);
#pragma once

#include <algorithm>
#include <array>
#include <cstdint>
#include <functional>
#include <optional>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/verify/disclosures.hpp"
#include "ninepegs/verify/every.hpp"
#include "ninepegs/verify/evidence.hpp"
#include "ninepegs/verify/examples.hpp"
#include "ninepegs/verify/part_uses.hpp"
#include "ninepegs/verify/remark.hpp"
#include "ninepegs/verify/symmetries.hpp"

namespace ninepegs::verify {

// The parts of a check, in the order of its work.
enum class CheckPart { cases, playouts, otherWays, remarks, symmetries, conditions, secrets };
inline constexpr int checkParts = 7;

struct CheckOptions {
  std::uint64_t playouts = 10000;
  std::uint64_t seed = 1;
  int threads = 1;       // changes no result
  bool examples = true;  // also run the cases
  int plyLimit = 0;      // a playout is broken off there; 0: see plyLimitOf
  // Texts and symmetries are tried at the start, and in positions that are drawn: so many that it
  // takes no more time than the playouts themselves. Where something is secret, pairs of games are
  // played to find what leaks: one for every sixty playouts, or a hundred, but not more than one
  // for four. Closely: texts and symmetries in every position, and a pair for every playout.
  bool closely = false;
  bool remarks = false;   // also look for what lint remarks
  bool unnamed = false;   // also try symmetries that the game does not name
  bool parts = false;     // also look which parts of conditions decide anything
  bool described = true;  // work out the shortest game of each finding; else it has no moves
  std::size_t shortenBudget = 200'000;  // positions tried for the shortest failing game
  const StopFlag* stop = nullptr;
  std::function<void(std::uint64_t done)> progress;  // called now and then, from any thread
  std::function<void(CheckPart part)> begins;        // called before each part
  // Of the same check, with as many playouts or fewer: goes on behind its playouts.
  Evidence begun;
  // If given, called about once a second, and when the playouts are done, with all that they
  // showed: what a later check may begin with. Between two playouts, from the calling thread.
  std::function<void(const Evidence&)> keep;
};

// A playout is broken off after so many plies: those of the options, else what the game says that
// it may last, else limits::usualPlies.
int plyLimitOf(const Game& game, const CheckOptions& options);

enum class Extent {
  notAsked,  // of the options, or the game has nothing of the kind
  none,      // it was asked for, and nothing was looked at
  part,      // some of it was: it was stopped, or given up because it takes too long
  whole
};

struct CheckReport {
  std::vector<ExampleRun> examples;
  Evidence evidence;
  std::uint64_t viewPairs = 0;              // positions that look the same to a side, compared
  std::vector<Disclosure> shown;            // what each line of a view discloses
  std::vector<Finding> findings;            // examples first, then by kind and line
  std::vector<Remark> remarks;              // no faults: what is suspect
  std::vector<PartUse> parts;               // of the conditions
  std::vector<WayEvidence> ways;            // games that were drawn another way
  SymmetryTrial symmetries;                 // those that the game does not name
  std::array<Extent, checkParts> extent{};  // of each part
  std::size_t cases = 0;                    // that there are; `examples` holds those that were run
  bool endless = false;  // broken off after the first playouts: a quarter of them had no end
  bool stopped = false;  // asked to stop; what was done until then is here

  Extent of(CheckPart part) const { return extent[static_cast<std::size_t>(part)]; }
  // All that was asked for was looked at.
  bool complete() const {
    return std::none_of(extent.begin(), extent.end(),
                        [](Extent one) { return one == Extent::none || one == Extent::part; });
  }
  std::optional<EveryReport> every;  // see addEvery
};

CheckReport check(const Game& game, const CheckOptions& options);

// How often each line of the rules was used, in all games of a check.
std::vector<std::uint64_t> usesOf(const CheckReport& report);
// Which lines, by their place among ruleLinesOf, nothing but games of that way used.
std::vector<std::size_t> reachedAlone(const CheckReport& report, const WayEvidence& way);

// Adds what every position shows: faults with a shortest game, in place of what playouts found of
// the same, and the uses of the rules' lines.
void addEvery(const Game& game, EveryReport every, CheckReport& report);

}  // namespace ninepegs::verify
