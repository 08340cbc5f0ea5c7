// A sheet with another worth: the same moves and positions, measured otherwise.
//
//   auto sheet = SheetGame::fromText("game.pegs", text);
//   std::shared_ptr<const SheetGame> counts = play::withWorth(*sheet, "count mine");
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs::play {

// The game with another worth, such as "count mine", written as in a sheet. Throws BadInput if it
// is no number.
std::shared_ptr<const SheetGame> withWorth(const SheetGame& game, const std::string& term);

// For each length of line that the rules speak of: how far own lines have grown that are still
// open, those that have grown further counting more.
std::vector<std::string> openLineTerms(const SheetGame& game);

// The game measured by lines that are still open; null if its rules speak of none, or if it is no
// sheet's.
std::shared_ptr<const SheetGame> withOpenLines(const Game& game);

}  // namespace ninepegs::play
