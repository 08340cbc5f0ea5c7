// Positions changed a little: a piece taken away, added, moved or turned over. They are where games
// seldom come, and may be where none can: what they show is a reason to look, no fault.
//
//   for (const Position& one : verify::changedPositions(*game, {.seed = 1, .most = 20}))
//     texts.push_back(game->positionText(one));
#pragma once

#include <cstdint>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs::verify {

struct ChangedOptions {
  std::uint64_t seed = 1;
  std::size_t most = 20;
  std::vector<Position> bases{};  // that are changed as well as those of games
  const StopFlag* stop = nullptr;
};

// As many as can be found in a few tries each; the same for the same seed. Each keeps what the game
// says must always hold, has a legal move, and has not ended, but for an end that is only claimed.
std::vector<Position> changedPositions(const Game& game, const ChangedOptions& options);

}  // namespace ninepegs::verify
