// Results as JSON text: one object each, described in docs/json.md. Keys stand in a fixed order.
#pragma once

#include <string>

#include "ninepegs/game/game.hpp"
#include "ninepegs/report/mutants_text.hpp"
#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/count.hpp"

namespace ninepegs::report {

std::string showJson(const Game& game, const Position& position, Cell from);
std::string movesJson(const Game& game, const Position& position, Cell from);
std::string countJson(const Game& game, const Position& from, const verify::CountOptions& options,
                      const verify::Counts& counts, double seconds);
std::string checkJson(const Game& game, const verify::CheckOptions& options,
                      const verify::CheckReport& report, const MutantsPart& mutants = {});

}  // namespace ninepegs::report
