// What ./run soak is asked for.
#pragma once

#include <cstdint>
#include <string>

#include "ninepegs/base/parallel.hpp"

namespace ninepegs::soak {

struct Options {
  std::string what = "drawn", keep, source = NINEPEGS_SOURCE, reduce;
  std::uint64_t seed = 1, from = 0, many = 300, show = ~0ull;
  int processes = availableThreads(), judgeEach = 1;
  double hang = 60, slow = 1;
  bool forms = false, first = false;
};

// Reads the command line. -1: go on; else the exit code (after --help, or of a word that is none).
int readOptions(int argc, char** argv, Options& options);

}  // namespace ninepegs::soak
