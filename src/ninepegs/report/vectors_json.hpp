// Test vectors as JSON Lines, described in docs/programs.md.
#pragma once

#include <string>

#include "ninepegs/compare/vectors.hpp"

namespace ninepegs::report {

// A line about the whole, then one for each vector. Ends in a newline.
std::string vectorsJsonLines(const Game& game, const compare::VectorSet& set, std::uint64_t seed);

}  // namespace ninepegs::report
