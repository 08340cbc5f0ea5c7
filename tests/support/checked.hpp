// A check of so many random playouts, for tests.
#pragma once

#include "ninepegs/verify/check.hpp"

namespace ninepegs::test {

inline verify::CheckReport checked(const Game& game, std::uint64_t playouts) {
  verify::CheckOptions options;
  options.playouts = playouts;
  return verify::check(game, options);
}

}  // namespace ninepegs::test
