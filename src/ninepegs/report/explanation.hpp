// The rules of a sheet in sentences: as text for a terminal, and as JSON.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/report/paint.hpp"
#include "ninepegs/sheet/words/explain.hpp"

namespace ninepegs::report {

// What sheet::explain() says, and what stands where at the start.
std::vector<sheet::Explanation> explanation(const SheetGame& game);

// Line numbers of the sheet in front, sentences wrapped to 96 columns.
std::string explanationText(const SheetGame& game, const Paint& paint);
// The plan in words (`about`) in a column of its own, a sentence at a time, beside what was
// understood, so that one can be held against the other; no line is longer than 100 columns.
std::string explanationBeside(const SheetGame& game, const Paint& paint);
std::string explanationMarkdown(const SheetGame& game);
std::string explanationJson(const SheetGame& game);

}  // namespace ninepegs::report
