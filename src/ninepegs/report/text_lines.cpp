#include "ninepegs/report/text_lines.hpp"

#include <algorithm>
#include <sstream>

#include "ninepegs/base/text.hpp"

namespace ninepegs::report {

std::vector<std::string> linesOf(const std::string& text) {
  std::vector<std::string> out;
  std::istringstream in(text);
  for (std::string line; std::getline(in, line);) out.push_back(line);
  return out;
}

std::string besideEachOther(const Painted& left, const Painted& right, const Beside& how) {
  std::vector<std::string> lefts = linesOf(left.text), plain = linesOf(left.plain);
  std::vector<std::string> rights = linesOf(right.text);
  auto columns = [](const std::string& line) { return static_cast<std::size_t>(columnsOf(line)); };
  auto widest = [&](const std::vector<std::string>& lines) {
    std::size_t width = 0;
    for (const std::string& line : lines) width = std::max(width, columns(line));
    return width;
  };
  std::size_t width = widest(plain), rows = std::max(lefts.size(), rights.size());
  if (how.most > 0 && width + how.gap.size() + widest(linesOf(right.plain)) > how.most)
    return left.text + "\n" + right.text;
  std::string out;
  for (std::size_t i = 0; i < rows; ++i) {
    std::string line = i < lefts.size() ? lefts[i] : "";
    line += std::string(width - (i < plain.size() ? columns(plain[i]) : 0), ' ');
    line += i == rows / 2 && !how.middle.empty() ? how.middle : how.gap;
    if (i < rights.size()) line += rights[i];
    while (how.trimmed && !line.empty() && line.back() == ' ') line.pop_back();
    out += line + "\n";
  }
  return out;
}

}  // namespace ninepegs::report
