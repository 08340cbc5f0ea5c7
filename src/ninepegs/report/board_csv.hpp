// A board as rows of fields divided by commas, as many programs print one.
//
//   std::string rows = report::boardCsv(*game, position);
//   Position again = report::readBoardCsv(*game, rows, "board.csv").position;
#pragma once

#include <string>
#include <string_view>

#include "ninepegs/game/game.hpp"

namespace ninepegs::report {

// A line for each row of the picture, a field for each cell: the piece's letter, nothing for an
// empty cell, `_` for a place that the board leaves out; behind them whose turn it is. Requires one
// board. What is remembered beside the pieces is not in it.
std::string boardCsv(const Game& game, const Position& position);

struct CsvBoard {
  Position position;
  bool turnSaid = true;  // false: it was worked out, see readBoardCsv
};
// Fields are divided by commas, semicolons or tabs; quotes round them and blank lines are passed
// over; `.` is an empty cell, too. Whose turn it is may stand in a line behind the rows ("Slate to
// move"). Unsaid, it is the side for which the game has ended; else the second side's if the first
// has more pieces; else the first's. Throws BadInput that points into the text.
CsvBoard readBoardCsv(const Game& game, std::string_view text, const std::string& source);

}  // namespace ninepegs::report
