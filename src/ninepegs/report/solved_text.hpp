// The exact result of a position, as text and JSON.
#pragma once

#include <string>

#include "ninepegs/play/margins.hpp"
#include "ninepegs/play/solver.hpp"
#include "ninepegs/report/paint.hpp"
#include "ninepegs/verify/endings.hpp"

namespace ninepegs::report {

// `margins`: nullptr if they were not asked for; what they took is counted in `solved`.
std::string solvedText(const Game& game, const Position& position, const play::Solved& solved,
                       const play::Margins* margins, const Paint& paint);
// What is known on the way, in a few words: how the position ends, and how the last move that was
// settled does.
std::string solvedSoFar(const Game& game, const Position& position, const play::Solved& solved);
// Without times: for the same options it is the same.
std::string solvedJson(const Game& game, const Position& position, const play::Solved& solved,
                       const play::Margins* margins);

// The same of what was solved backwards, with what was listed and left out.
std::string endingText(const verify::Ending& ending, const Paint& paint);
std::string endingJson(const verify::Ending& ending);

}  // namespace ninepegs::report
