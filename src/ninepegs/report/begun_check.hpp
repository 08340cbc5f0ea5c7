// What a check has done so far, as a file to go on from.
//
//   std::string kept = report::begunText(*game, {.seed = 1}, {}, "0.1");
//   verify::Evidence begun = report::readBegun(*game, {.seed = 1}, "0.1", kept, "kept.json");
#pragma once

#include <string>

#include "ninepegs/verify/check.hpp"

namespace ninepegs::report {

std::string begunText(const Game& game, const verify::CheckOptions& options,
                      const verify::Evidence& evidence, const std::string& version);

// Throws BadInput for a text that is none, that is cut short, and for one of another game, sheet,
// version or check; `source` names it in messages.
verify::Evidence readBegun(const Game& game, const verify::CheckOptions& options,
                           const std::string& version, const std::string& text,
                           const std::string& source);

}  // namespace ninepegs::report
