// What is legal in a sheet but suspect: seen in its text, and in random playouts.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/verify/remark.hpp"

namespace ninepegs::verify {

struct LintOptions {
  std::uint64_t playouts = 200;
  std::uint64_t seed = 1;
  const StopFlag* stop = nullptr;
};

struct LintReport {
  std::vector<Remark> remarks;  // in the order of lines; the same for the same seed
  std::uint64_t playouts = 0;   // that were looked at
  bool complete = true;         // false: stopped, or given up because they take too long
};
LintReport lint(const SheetGame& game, const LintOptions& options);

}  // namespace ninepegs::verify
