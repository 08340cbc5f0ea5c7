// The sheet line by line, with how often each statement was used in a check.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "ninepegs/report/paint.hpp"
#include "ninepegs/verify/check.hpp"

namespace ninepegs::report {

struct ListedLine {
  int line = 0;
  std::string text;
  std::optional<std::uint64_t> uses;  // none: nothing that is used
  // Parts of its conditions that were the same every time, or never asked: "`A` always held".
  std::vector<std::string> notes;
};

// Without the lines of a cases file; none of a game that has no sheet.
std::vector<ListedLine> listing(const Game& game, const verify::CheckReport& report);

std::string listingText(const Game& game, const verify::CheckReport& report, const Paint& paint);

// What a part of a condition came to, if it was the same every time; else empty.
std::string partNote(const verify::PartUse& part);

}  // namespace ninepegs::report
