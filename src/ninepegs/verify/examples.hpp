// Runs the examples (cases) of a game.
#pragma once

#include <vector>

#include "ninepegs/verify/evidence.hpp"

namespace ninepegs::verify {

struct ExampleRun {
  std::string name;
  int line = 0;
  int steps = 0;                  // that were expected of it
  std::vector<Finding> findings;  // empty: it passed; one at most
};

// Every example in order; those of a variant in that variant.
std::vector<ExampleRun> runExamples(const Game& game, int threads);

}  // namespace ninepegs::verify
