// Games in which the sides fill the board cell by cell and the first straight line wins, as the
// rules themselves show. A search can follow such a game by what is filled alone.
//
//   auto sheet = SheetGame::fromText("game.pegs", text);
//   if (std::optional<rules::LineGame> lines = rules::lineGameOf(sheet->rules()))
//     score += lines->lines.size();
#pragma once

#include <optional>
#include <vector>

#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::rules {

// In turn each side puts its only kind of piece on one empty cell, and nothing else ever changes.
struct LineGame {
  // A side that holds all cells of one of them when it has moved wins; each has two or more.
  std::vector<std::vector<Cell>> lines;
  CellSet playable;            // cells that can be filled once enough others are
  std::vector<CellSet> needs;  // for each cell number: what must be filled before it
  int win = 0;                 // which end a line is
  int full = -1;               // which end a full board is; -1: it is none
};

// Nothing if the rules are of another form, or if this cannot be told.
std::optional<LineGame> lineGameOf(const Rules& rules);

}  // namespace ninepegs::rules
