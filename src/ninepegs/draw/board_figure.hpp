// A board as a figure: a wooden board with a hole for every cell and a peg for every piece.
#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "ninepegs/game/game.hpp"

namespace ninepegs::draw {

struct FigureMarks {
  CellSet shown;    // cells that show the result: ringed
  CellSet targets;  // where the piece on `origin` may go: dotted, with an arrow
  Cell origin = -1;
  std::string caption;    // a line below the board
  bool captioned = true;  // false: nothing stands below it, for pages that say it themselves
  int viewer = -1;        // what this side knows of the position; -1: all of it
};

// The figure as the bytes of a file of that ending: ".svg", ".png" or ".pdf". Throws BadInput for
// another one, or if it cannot be drawn; `name` is named in messages.
std::string boardImage(const Game& game, const Position& position, const FigureMarks& marks,
                       const std::string& ending, const std::string& name = "the figure");

// Boards on one sheet, so many beside each other, each with its caption. Requires at least one of
// each.
struct StripBoard {
  Position position;
  FigureMarks marks;
};
std::string boardStrip(const Game& game, const std::vector<StripBoard>& boards, int aRow,
                       const std::string& ending, const std::string& name = "the figure");

// The boards one after the other, over and over, as the bytes of an animated .png. Requires at
// least one board, and seconds from 0.01 to 200.
std::string boardAnimation(const Game& game, const std::vector<StripBoard>& boards,
                           double secondsEach, const std::string& name = "the picture");

// Writes an .svg, .png or .pdf file, chosen by the ending, whole or not at all. Throws BadInput for
// another ending or a file that cannot be written.
void drawBoard(const Game& game, const Position& position, const FigureMarks& marks,
               const std::filesystem::path& path);

}  // namespace ninepegs::draw
