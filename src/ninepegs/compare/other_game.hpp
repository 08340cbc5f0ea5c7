// Another sheet, or a variant, as a counterpart.
#pragma once

#include <memory>

#include "ninepegs/compare/counterpart.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs::compare {

// What stands where: letters by the labels of cells. Requires a game with one board.
std::map<std::string, std::string> boardOf(const Game& game, const Position& position);

// How a game stands, without its moves: cells by their labels. Of a game with two boards the board
// is left out. An end that is only claimed is taken as one.
Standing briefStandingOf(const Game& game, const Position& position);
// The same with the texts of the legal moves, which takes longer.
Standing standingOf(const Game& game, const Position& position);

// The game must outlive it. A move that comes to no end throws CounterpartFailed.
std::unique_ptr<Counterpart> makeOtherGame(const Game& game);

}  // namespace ninepegs::compare
