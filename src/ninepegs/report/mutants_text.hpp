// What mutants of a sheet came to: as text and JSON.
#pragma once

#include <cstdint>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/report/paint.hpp"
#include "ninepegs/verify/mutants.hpp"

namespace ninepegs::report {

// How many mutants came to what.
struct MutantTotals {
  std::size_t notLookedAt = 0, givenUp = 0;
  std::size_t all = 0;
  std::size_t refused = 0;  // cannot be played, so whoever reads them sees it
  std::size_t same = 0;     // no difference was seen
  std::size_t byCase = 0, byPlayouts = 0;
  std::size_t missed = 0;  // differ, and nothing notices
  // Of those that differ, how many are noticed, in percent; 100 if none differs.
  double noticed() const;
};
MutantTotals totalsOf(const verify::Mutants& mutants);

struct MutantsSaid {
  std::uint64_t seed = 1, playouts = 0;
  std::size_t partings = 20;    // for so many missed ones the shortest game is looked for
  std::size_t budget = 50'000;  // moves that may be looked at for it
  bool everyOne = false;        // list those that are noticed, too
  bool stopped = false;
};
// Mutants as a part of another report; null: it has none.
struct MutantsPart {
  const verify::Mutants* mutants = nullptr;
  MutantsSaid how{};
};

// Rows of a table: how many came to what.
std::vector<std::pair<std::size_t, std::string>> mutantCounts(const verify::Mutants& mutants,
                                                              const MutantsSaid& how);
// Those that nothing notices: the line, the slip, and where it shows (empty behind how.partings).
struct MissedMutant {
  int line = 0;
  std::string slip, shows;
};
std::vector<MissedMutant> missedMutants(const verify::Mutants& mutants, const MutantsSaid& how);
std::string mutantsText(const verify::Mutants& mutants, const MutantsSaid& how, const Paint& paint);
std::string mutantsJson(const verify::Mutants& mutants, const MutantsSaid& how);

}  // namespace ninepegs::report
