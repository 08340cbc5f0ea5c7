// What is new, and what is gone, from one check of a sheet to the next.
#pragma once

#include <string>

#include "ninepegs/report/paint.hpp"
#include "ninepegs/verify/check.hpp"

namespace ninepegs::report {

// Of faults, failed cases, remarks, unused statements and results; one line if nothing changed.
std::string changesText(const Game& before, const verify::CheckReport& was, const Game& after,
                        const verify::CheckReport& is, const Paint& paint);

}  // namespace ninepegs::report
