// A check in the formats of other tools: JUnit XML and SARIF.
#pragma once

#include <string>

#include "ninepegs/game/game.hpp"
#include "ninepegs/verify/check.hpp"

namespace ninepegs::report {

// Each case, invariant and sort of fault is a test.
std::string junitXml(const Game& game, const verify::CheckOptions& options,
                     const verify::CheckReport& report);

// SARIF 2.1.0 (OASIS): faults as errors and remarks as notes on the lines of the sheet.
std::string sarifJson(const Game& game, const verify::CheckOptions& options,
                      const verify::CheckReport& report, const std::string& version);

}  // namespace ninepegs::report
