// Runs the examples (cases) of a game.
#pragma once

#include <optional>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/verify/evidence.hpp"

namespace ninepegs::verify {

struct ExampleRun {
  std::string name;
  int line = 0;
  std::string variant;
  int steps = 0;                    // that were expected of it
  std::vector<std::string> broken;  // what its own position breaks of what must always hold
  std::vector<Finding> findings;    // empty: it passed; one at most
};

// Every example in the order of lines, those of all variants in their variant. When asked to stop,
// those that are left are left out, and the one that was begun with them.
std::vector<ExampleRun> runExamples(const Game& game, int threads, const StopFlag* stop = nullptr);
// The first that fails: those of the game itself before those of its variants, those that count
// games last. None if all that were run until the stop hold.
std::optional<ExampleRun> firstFailure(const Game& game, const StopFlag* stop = nullptr);
// How many there are.
std::size_t exampleCount(const Game& game);

}  // namespace ninepegs::verify
