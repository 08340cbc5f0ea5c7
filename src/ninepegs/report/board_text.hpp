// A board as lines of text.
//
//   4  .  .  .  .
//   3  . [o] .  .        [o]  a piece that shows the result
//   2  .  . (.) .        (.)  a cell that a piece may go to
//   1  x  . <o> .        <o>  the piece that may go
//      a  b  c  d
//
// An empty cell of a board with numbers on its cells shows its number. Borders, edges, corners and
// shades are drawn as the game's looks say.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "ninepegs/game/game.hpp"
#include "ninepegs/report/paint.hpp"

namespace ninepegs::report {

struct Marks {
  CellSet shown;    // that show the result
  CellSet targets;  // where the piece on `origin` may go
  Cell origin = -1;
  int board = 0;                 // of boards of one each: whose
  bool shaded = true;            // marks that the sheet wants as shades are drawn
  bool flipped = false;          // seen from the other side of the table
  std::vector<View::Mark> seen;  // letters that a view shows
  // Letters by the labels of cells, shown in place of what stands there.
  const std::map<std::string, std::string>* letters = nullptr;
};

// Lines end in a newline.
std::string boardText(const Game& game, const Position& position, const Marks& marks,
                      const Paint& paint);

// The board, or both boards with whose they are. As `viewer` sees them; -1: with all secrets.
std::string boardsText(const Game& game, const Position& position, const Marks& marks,
                       const Paint& paint, int viewer = -1);

// What the position remembers beside what the board shows, on lines of their own; empty if nothing.
std::string besidesText(const Game& game, const Position& position, int viewer = -1);

// "Amber (o) is to move", or how the game ended.
std::string stateText(const Game& game, const Position& position, const Paint& paint);

}  // namespace ninepegs::report
