// Symmetries of the board that change nothing, as the rules themselves show.
//
//   auto sheet = SheetGame::fromText("game.pegs", text);
//   for (const Symmetry& one : sheet->rules().board.symmetries("all"))
//     if (rules::keeps(sheet->rules(), one)) texts.push_back(one.name);
#pragma once

#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::rules {

// Is it certain that what can be played, and what it comes to, is the same in the image of every
// position, image by image? Read off the terms: each must speak of cells and directions that the
// symmetry leaves together. False also means that this cannot be told; so it is for symmetries that
// exchange the sides. Requires a symmetry of the rules' board.
bool keeps(const Rules& rules, const Symmetry& symmetry);

}  // namespace ninepegs::rules
