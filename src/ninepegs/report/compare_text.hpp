// A comparison as text and as JSON.
#pragma once

#include <string>

#include "ninepegs/compare/compare.hpp"
#include "ninepegs/report/paint.hpp"

namespace ninepegs::report {

// What is told beside the report itself.
struct CompareSaid {
  std::string other;                     // how the counterpart is called
  std::uint64_t playouts = 0, seed = 1;  // that were asked for
};

std::string compareText(const Game& game, const compare::Report& report, const CompareSaid& said,
                        const Paint& paint);
std::string compareJson(const Game& game, const compare::Report& report, const CompareSaid& said);

}  // namespace ninepegs::report
