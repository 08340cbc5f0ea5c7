// How a worth was fitted, as text and JSON.
#pragma once

#include <string>

#include "ninepegs/play/tuning.hpp"
#include "ninepegs/report/paint.hpp"

namespace ninepegs::report {

std::string tuningText(const Game& game, const play::Tuned& tuned, std::uint64_t seed,
                       const Paint& paint);
std::string tuningJson(const Game& game, const play::Tuned& tuned, std::uint64_t seed);

}  // namespace ninepegs::report
