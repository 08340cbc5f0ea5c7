// The report of a check as text, and as JUnit XML.
#pragma once

#include <string>

#include "ninepegs/report/paint.hpp"
#include "ninepegs/verify/check.hpp"

namespace ninepegs::report {

std::string checkText(const Game& game, const verify::CheckOptions& options,
                      const verify::CheckReport& report, const Paint& paint);

// The cells to look at in the position of a finding: what shows the result, or, where a win was
// passed over, that win.
CellSet cellsOfFinding(const Game& game, const verify::Finding& finding);

// JUnit XML: a test case for every case of the sheet and one for the playouts.
std::string junitXml(const Game& game, const verify::CheckOptions& options,
                     const verify::CheckReport& report);

}  // namespace ninepegs::report
