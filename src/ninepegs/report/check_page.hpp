// A check as one page of HTML that needs nothing else: no network, no scripts; readable on paper.
#pragma once

#include <functional>
#include <string>

#include "ninepegs/game/game.hpp"
#include "ninepegs/report/mutants_text.hpp"
#include "ninepegs/verify/check.hpp"

namespace ninepegs::report {

// A picture of a finding's position as the bytes of an .svg file; empty: there is none.
using FindingFigure = std::function<std::string(const verify::Finding& finding)>;

std::string checkPage(const Game& game, const verify::CheckOptions& options,
                      const verify::CheckReport& report, const FindingFigure& figure,
                      const MutantsPart& mutants = {});

}  // namespace ninepegs::report
