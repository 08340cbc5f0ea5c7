// A game looked at again, as text and JSON.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/play/review.hpp"
#include "ninepegs/report/paint.hpp"

namespace ninepegs::report {

std::string reviewText(const Game& game, const Position& from,
                       const std::vector<play::ReviewedPly>& plies, std::size_t played,
                       const Paint& paint);
std::string reviewJson(const Game& game, const Position& from,
                       const std::vector<play::ReviewedPly>& plies, std::size_t played);

}  // namespace ninepegs::report
