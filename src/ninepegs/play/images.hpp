// Symmetries by which positions are worth the same. Internal to the room.
#pragma once

#include <vector>

#include "ninepegs/game/game_checks.hpp"

namespace ninepegs::play {

// Those that the rules themselves are shown to keep, for exact searches; what a sheet says of its
// symmetries is not taken for granted. None of a game that remembers positions.
std::vector<Symmetry> imagesOf(const Game& game);

}  // namespace ninepegs::play
