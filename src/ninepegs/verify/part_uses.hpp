// How often each part of the sheet's conditions was asked, and what came of it: a part that was the
// same every time decided nothing in the games that were played.
//
//   for (const verify::PartUse& one : verify::partUses(*game, {.seed = 1}).parts)
//     if (one.held == 0 || one.failed == 0) texts.push_back(one.text);
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs::verify {

struct PartUse {
  int line = 0;
  std::string text;
  std::uint64_t failed = 0, held = 0;
};

struct PartUseOptions {
  std::uint64_t seed = 1;
  int games = 200;               // uniform; and an eighth of that of each other way
  std::uint64_t plies = 40'000;  // of all of them; a move that is weighed counts, too
  const StopFlag* stop = nullptr;
};

struct PartUses {
  std::vector<PartUse> parts;  // in the order of lines; none of a game without such parts
  std::uint64_t plies = 0;     // that were played and weighed
  bool broken = false;         // stopped, or given up because it takes too long
};
PartUses partUses(const Game& game, const PartUseOptions& options);

}  // namespace ninepegs::verify
