// Positions in which the rules can be looked at: many sorts of games are played, and of all
// positions met those stay that show most.
//
//   verify::Scenes scenes = verify::findScenes(*game, {.seed = 1});
//   for (const verify::Scene& one : scenes.all) texts.push_back(game->positionText(one.position));
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/game.hpp"
#include "ninepegs/verify/steering.hpp"

namespace ninepegs::verify {

struct Scene {
  // Not ended, but for an end that is only claimed. As if it were set up, without what the game
  // remembers of earlier positions, but for games back and forth.
  Position position;
  Steer steer = Steer::uniform;
  int plies = 0;            // from the start, or from the case's position
  bool fromStart = true;    // false: from the position of a case
  std::vector<Move> moves;  // that lead to it from the start, of games back and forth
};

struct SceneOptions {
  std::uint64_t seed = 1;
  int games = 60;          // of each sort
  std::size_t most = 900;  // scenes that stay, beside those that a line of the rules needs
  const StopFlag* stop = nullptr;
};

struct Scenes {
  std::vector<Scene> all;  // the start is the first; all different
  std::uint64_t met = 0;   // positions that were looked at
  bool broken = false;     // stopped, or given up because it takes too long
};

// The same for the same seed.
Scenes findScenes(const Game& game, const SceneOptions& options);

}  // namespace ninepegs::verify
