// How often each part of the sheet's conditions was asked, and what came of it: a part that was the
// same every time decided nothing in the games that were played.
//
//   for (const verify::PartUse& one : verify::partUses(*game, {.seed = 1}))
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

// In the order of lines; none of a game without such parts.
std::vector<PartUse> partUses(const Game& game, const PartUseOptions& options);

}  // namespace ninepegs::verify
