// Runs of cells along several directions at once, on boards of one word. Where the processor has
// vectors of four words, four directions go together; else one after the other: the results are the
// same. All functions are pure and may be called from any thread.
//
// A fill grows by doubling: as parallel-prefix algorithms do (R. Ladner, M. Fischer, "Parallel
// prefix computation", J. ACM 27, 1980).
#pragma once

#include <cstdint>
#include <span>

#include "ninepegs/sheet/program/program.hpp"

namespace ninepegs::sheet {

// The cells one step behind those of the runs of `run` that begin beside a cell of `last`, along
// each turn: cells of the run among them. `doublings` must reach along the longest line.
std::uint64_t behindRuns(std::uint64_t run, std::uint64_t last, std::span<const FourTurns> turns,
                         int doublings);
// The runs of `run` that begin beside the cell and end beside one of `by` that is not of the run.
std::uint64_t runsBetween(std::uint64_t run, int cell, std::uint64_t by,
                          std::span<const FourTurns> turns, int doublings);

// The two ways, for the tests. The wide one requires processor.wide.
using Behind = std::uint64_t (*)(std::uint64_t, std::uint64_t, std::span<const FourTurns>, int);
using Between = std::uint64_t (*)(std::uint64_t, int, std::uint64_t, std::span<const FourTurns>,
                                  int);
struct Fills {
  Behind behind;
  Between between;
};
Fills plainFills();
Fills wideFills();

}  // namespace ninepegs::sheet
