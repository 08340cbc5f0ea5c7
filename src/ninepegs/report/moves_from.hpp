// The legal moves of one piece: what `--from CELL` asks for.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/game/game.hpp"

namespace ninepegs::report {

// Texts of the moves that begin on the cell, in natural order; of all moves if the cell is -1.
std::vector<std::string> textsFrom(const Game& game, const Position& position, Cell from);

// Where the moves that begin on the cell end.
CellSet targetsFrom(const Game& game, const Position& position, Cell from);

// Why no move begins on the cell, in one sentence.
std::string whyNoneFrom(const Game& game, const Position& position, Cell from);

}  // namespace ninepegs::report
