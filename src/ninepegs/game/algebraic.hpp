// Moves in coordinate notation (e2e4, e7e8q) and in standard algebraic notation (Nf3, exd5, O-O,
// e8=Q+), for sheets with a `notation` section. After the section on SAN of the PGN standard
// (S. J. Edwards, 1994).
#pragma once

#include <string>
#include <vector>

#include "ninepegs/game/values.hpp"

namespace ninepegs {

class SheetGame;

// The move must be legal. First the coordinate notation, then the algebraic one; nothing for a move
// whose text does not name two cells.
std::vector<std::string> algebraicTexts(const SheetGame& game, const Position& position,
                                        const Move& move);

}  // namespace ninepegs
