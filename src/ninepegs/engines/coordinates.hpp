// Moves as UCI writes them: e2e4, e7e8q. Internal to the room.
#pragma once

#include <optional>
#include <string>

#include "ninepegs/game/game.hpp"

namespace ninepegs::engines {

// Requires that the move is legal.
std::string coordinatesOf(const Game& game, const Position& position, const Move& move);
// The legal move that is written so, if there is one.
std::optional<Move> moveOfCoordinates(const Game& game, const Position& position,
                                      const std::string& text);

}  // namespace ninepegs::engines
