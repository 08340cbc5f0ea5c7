// Mutants as `mutate` and `check --mutants` put them to the test.
#pragma once

#include <memory>

#include "ninepegs/report/mutants_text.hpp"

namespace ninepegs::cli {

struct Context;

inline constexpr std::uint64_t usualMutantPlayouts = 50;  // in each

struct SlipsRun {
  std::shared_ptr<verify::Mutants> mutants;  // null: nobody asked
  report::MutantsSaid said{};
};
// Shows progress and can be stopped; how far mutants are proved is set here. Throws BadInput for a
// game without a sheet. The game must outlive what is returned.
SlipsRun runMutants(const Game& game, verify::MutantOptions options, const Context& context);

}  // namespace ninepegs::cli
