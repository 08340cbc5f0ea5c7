// Another sheet, or a variant, as a counterpart.
#pragma once

#include <memory>

#include "ninepegs/compare/counterpart.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs::compare {

// How a game stands: moves and cells by their texts. Of a game with two boards, or none, the board
// is left out. An end that is only claimed is taken as one.
Standing standingOf(const Game& game, const Position& position);

// The game must outlive it. A move that comes to no end throws CounterpartFailed.
std::unique_ptr<Counterpart> makeOtherGame(const Game& game);

}  // namespace ninepegs::compare
