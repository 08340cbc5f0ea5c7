// Which symmetries a game has without saying so: all that its board could have, alone and with the
// sides exchanged, are tried in positions of random games.
//
//   for (const verify::Tried& one : verify::trySymmetries(*game, {.seed = 1}).all)
//     if (one.stands == verify::Stands::nearly) texts.push_back(one.message);
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs::verify {

enum class Stands {
  unknown,  // no position was looked at
  holds,
  nearly,  // it fails in few positions: so a slip in one direction, line or corner looks
  fails,   // no more was looked at it once that was plain
};

struct Tried {
  Symmetry symmetry;
  Stands stands = Stands::unknown;
  std::uint64_t positions = 0, failed = 0;
  bool start = false;  // the start is its own image, but for whose turn it is
  // Where it fails nearly never: what differs, in the one of these positions that was soonest.
  std::string message;
  std::vector<std::string> moves;  // that lead there
  Position position;
};

struct SymmetryTrial {
  std::vector<Tried> all;  // those that the game does not name
  // The rules treat both sides alike in some way, and the start is alike in none of these.
  bool unevenStart = false;
  std::uint64_t games = 0;  // that were looked at
  bool broken = false;      // stopped, or given up because it takes too long
};

struct SymmetryTrialOptions {
  int games = 150;
  std::uint64_t seed = 1;
  std::uint64_t moves = 400'000;  // and their images, that may be played
  const StopFlag* stop = nullptr;
};

// The same for the same options.
SymmetryTrial trySymmetries(const Game& game, const SymmetryTrialOptions& options);

}  // namespace ninepegs::verify
