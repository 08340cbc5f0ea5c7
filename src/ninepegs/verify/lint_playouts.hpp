// What random playouts show of a suspect sheet. Internal to lint().
#pragma once

#include <cstddef>
#include <set>
#include <vector>

#include "ninepegs/verify/lint.hpp"

namespace ninepegs::verify {

// Adds remarks to `out`, and says in `report` how much was looked at. Of `hiddenEnds` it was said
// already that an earlier end hides them.
void remarkPlayouts(const SheetGame& game, const LintOptions& options,
                    const std::set<std::size_t>& hiddenEnds, std::vector<Remark>& out,
                    LintReport& report);

}  // namespace ninepegs::verify
