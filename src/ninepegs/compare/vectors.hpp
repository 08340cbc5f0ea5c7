// Test vectors: a few positions with what the rules say of them, for a program that is tested in
// its own language.
//
//   auto sheet = SheetGame::fromText("mine.pegs", text);
//   compare::VectorSet set = compare::makeVectors(*sheet, {.seed = 1, .most = 40});
//   for (const compare::Vector& one : set.vectors)
//   texts.push_back(sheet->positionText(one.position));
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs::compare {

struct VectorOptions {
  std::uint64_t seed = 1;
  std::size_t most = 100;        // vectors
  int games = 30;                // of each of four steers, that positions are taken from
  std::size_t candidates = 400;  // positions that vectors are chosen from
  int threads = 1;               // changes no result
  const StopFlag* stop = nullptr;
};

struct Vector {
  std::vector<Move> moves;  // from the start
  Position position;        // that they lead to
};

struct VectorSet {
  std::vector<Vector> vectors;  // those that show most come first
  // Mutants that can be played; those that the vectors notice: a move is refused, or moves, turn,
  // result or board differ, at the end or after one more move; those that no candidate shows.
  std::size_t mutants = 0, noticed = 0, silent = 0;
  std::size_t lines = 0, linesUsed = 0;  // of the rules
  std::size_t ends = 0, endsReached = 0;
  bool complete = true;  // false: stopped, or some of the work takes too long
};

// The same for the same seed.
VectorSet makeVectors(const SheetGame& game, const VectorOptions& options);

}  // namespace ninepegs::compare
