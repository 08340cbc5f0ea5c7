// What going through every position showed, as text.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/game/game.hpp"
#include "ninepegs/report/paint.hpp"
#include "ninepegs/verify/every.hpp"

namespace ninepegs::report {

// "There are perhaps 5,478 positions, or more."
std::string guessText(const verify::Guess& guess);

std::string everyText(const Game& game, const verify::EveryReport& every, const Paint& paint);

// What best play comes to: "Amber wins in 7 plies".
std::string bestPlayText(const Game& game, const verify::EveryReport& every);

// The texts of moves that are played from the start.
std::vector<std::string> textsFromStart(const Game& game, const std::vector<Move>& moves);

}  // namespace ninepegs::report
