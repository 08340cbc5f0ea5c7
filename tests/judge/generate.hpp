// Sheets drawn at random: well-typed, and using every form of the language in odd company.
#pragma once

#include <cstdint>
#include <string>

#include "ninepegs/base/random.hpp"

namespace ninepegs::judge {

struct Generated {
  std::string text;
  std::string variant;  // which variant is to be played; empty: none
};

// One of those in which a king may not be left attacked.
std::string guardedSheet(Stream& stream);

// The same for the same seed and number, on any machine. Some of what comes is refused by the
// checker, because a set has no cells or a line does not fit.
Generated generateSheet(std::uint64_t seed, std::uint64_t number);

}  // namespace ninepegs::judge
