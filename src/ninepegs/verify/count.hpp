// Counting legal move sequences: the oldest check of move rules against figures that others found.
#pragma once

#include <cstdint>
#include <map>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs::verify {

struct CountOptions {
  int depth = 1;           // plies, at least 1
  bool positions = false;  // also the different positions at every depth
  bool ends = false;       // also the games that ended on the way, by result
  int threads = 1;
  const StopFlag* stop = nullptr;
};

struct Counts {
  // By depth from 1: sequences of exactly that many plies. Only the last unless `ends` was asked.
  std::uint64_t sequences = 0;
  std::vector<std::pair<std::string, std::uint64_t>> byFirstMove;  // in natural order of the moves
  // Complete games of at most `depth` plies by how they ended: text of the result, number of games.
  std::map<std::string, std::uint64_t> ended;
  std::vector<std::uint64_t>
      positions;                    // by depth from 0: different positions at exactly that depth
  std::uint64_t allPositions = 0;   // different positions at all depths together
  bool stopped = false;             // the numbers are of what was counted until then
  std::vector<std::string> faults;  // rules that went wrong on the way, at most one
};

// Counts from a position on. Claims do not end a sequence: only ends that must be taken do.
Counts count(const Game& game, const Position& from, const CountOptions& options);

}  // namespace ninepegs::verify
