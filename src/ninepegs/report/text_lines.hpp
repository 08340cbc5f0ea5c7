// A text as its lines, without their newlines.
//
//   for (const std::string& line : report::linesOf(text)) texts.push_back(line);
#pragma once

#include <string>
#include <vector>

namespace ninepegs::report {

std::vector<std::string> linesOf(const std::string& text);

}  // namespace ninepegs::report
