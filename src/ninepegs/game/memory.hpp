// What a position remembers beside the pieces, for boards that are drawn: all that the rules read.
//
//   Memory memory = memoryOf(*game, position);
//   for (const Memory::Marked& one : memory.marks) texts.push_back(one.name);
#pragma once

#include <cstdint>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/game/game.hpp"

namespace ninepegs {

struct Memory {
  struct OnCells {  // a number on every cell
    std::string name;
    std::vector<std::pair<Cell, std::int64_t>> values;
  };
  struct Marked {
    std::string name;  // "shot", "shot of Amber"
    CellSet cells;
  };
  std::vector<OnCells> numbers;  // those that are not 0 everywhere
  std::vector<Marked> marks;     // those that are not empty
  std::vector<std::string>
      others;  // hands, numbers, remembered cells: as a position's text says it
};

// The parts of a position's text that are neither a picture nor whose turn it is.
std::vector<std::string> rememberedParts(const Game& game, const Position& position);

// Read from the position's text, so that nothing that it says is left out. Whose turn it is is no
// part of it.
Memory memoryOf(const Game& game, const Position& position);

}  // namespace ninepegs
