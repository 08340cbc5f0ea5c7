// What each line of a view gives away of the other side's secrets, measured in random games.
//
//   for (const verify::Disclosure& one : verify::disclosures(*game, {.seed = 1, .games =
//   20}).lines)
//     texts.push_back(one.line.text);
#pragma once

#include <cstdint>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs::verify {

struct Disclosure {
  RuleLine line;
  std::uint64_t views = 0;   // that were looked at
  std::uint64_t spoke = 0;   // in how many of them the line shows anything
  std::uint64_t cells = 0;   // shown in all of them
  std::uint64_t hidden = 0;  // of these, with a piece that is hidden from the looker
  std::uint64_t words = 0;   // said in all of them
};

struct DisclosureOptions {
  std::uint64_t seed = 1;
  int games = 40;
  const StopFlag* stop = nullptr;
};

struct Disclosures {
  std::vector<Disclosure> lines;
  int games = 0;        // that were looked at
  bool broken = false;  // stopped, or given up because it takes too long
};
// In the order of GameSecrets::viewLines; empty if nothing is secret or there are no such lines.
// Both sides look after each ply. The same for the same seed.
Disclosures disclosures(const Game& game, const DisclosureOptions& options);

}  // namespace ninepegs::verify
