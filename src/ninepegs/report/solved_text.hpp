// The exact result of a position, as text and JSON.
#pragma once

#include <string>

#include "ninepegs/play/solver.hpp"
#include "ninepegs/report/paint.hpp"

namespace ninepegs::report {

std::string solvedText(const Game& game, const Position& position, const play::Solved& solved,
                       const Paint& paint);
// Without times: for the same options it is the same.
std::string solvedJson(const Game& game, const Position& position, const play::Solved& solved);

}  // namespace ninepegs::report
