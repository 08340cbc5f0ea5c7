// Plays a sheet's game beside the slow judge and tells where the two part.
#pragma once

#include <cstdint>
#include <optional>
#include <string>

#include "judge/judge.hpp"
#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs::judge {

struct CompareOptions {
  std::uint64_t seed = 1;
  int games = 3;
  int plies = 12;
  std::uint64_t moves = ~0ull;  // no further position is looked at once so many were compared
  bool cases = true;
  FormUses* uses = nullptr;
};

struct Compared {
  std::string difference;  // empty: none was found
  std::uint64_t positions = 0, moves = 0;
  bool refused = false;  // no sheet: `difference` is empty
  bool tooMuch = false;  // one of the two gave up on a position
};

Compared compare(const std::string& text, const std::string& variant,
                 const CompareOptions& options);

// The same for a game that is made already, such as one without shortcuts.
Compared compare(const SheetGame& game, const std::string& text, const CompareOptions& options);

}  // namespace ninepegs::judge
