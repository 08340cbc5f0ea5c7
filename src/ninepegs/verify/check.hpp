// The whole check of a game: its examples, random playouts with everything watched, and the
// shortest game for every fault found.
//
//   verify::CheckReport report = verify::check(*game, {.playouts = 10000, .seed = 1});
//   for (const verify::Finding& finding : report.findings) texts.push_back(finding.message);
#pragma once

#include <cstdint>
#include <functional>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/verify/every.hpp"
#include "ninepegs/verify/evidence.hpp"
#include "ninepegs/verify/examples.hpp"
#include "ninepegs/verify/remark.hpp"

namespace ninepegs::verify {

struct CheckOptions {
  std::uint64_t playouts = 10000;
  std::uint64_t seed = 1;
  int threads = 1;       // changes no result
  bool examples = true;  // also run the cases
  int plyLimit = 2000;   // a playout that is longer is a finding
  // Texts and symmetries are tried at the start, and in positions that are drawn: so many that it
  // takes no more time than the playouts themselves. Where something is secret, pairs of games are
  // played to find what leaks: one for every forty playouts, or a hundred, but not more than one
  // for four. Closely: texts and symmetries in every position, and a pair for every playout.
  bool closely = false;
  bool remarks = false;   // also look for what lint remarks
  bool described = true;  // work out the shortest game of each finding; else it has no moves
  std::size_t shortenBudget = 200'000;  // positions tried for the shortest failing game
  const StopFlag* stop = nullptr;
  std::function<void(std::uint64_t done)> progress;  // called now and then, from any thread
};

struct CheckReport {
  std::vector<ExampleRun> examples;
  Evidence evidence;
  std::uint64_t viewPairs = 0;       // positions that look the same to a side, compared
  std::vector<Finding> findings;     // examples first, then by kind and line
  std::vector<Remark> remarks;       // no faults: what is suspect
  bool endless = false;              // broken off after 64 playouts: a quarter of them had no end
  bool stopped = false;              // what was done until then is in the evidence
  std::optional<EveryReport> every;  // see addEvery
};

CheckReport check(const Game& game, const CheckOptions& options);

// Adds what every position shows: faults with a shortest game, in place of what playouts found of
// the same, and the uses of the rules' lines.
void addEvery(const Game& game, EveryReport every, CheckReport& report);

}  // namespace ninepegs::verify
