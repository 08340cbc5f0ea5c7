#include "ninepegs/report/text_lines.hpp"

#include <sstream>

namespace ninepegs::report {

std::vector<std::string> linesOf(const std::string& text) {
  std::vector<std::string> out;
  std::istringstream in(text);
  for (std::string line; std::getline(in, line);) out.push_back(line);
  return out;
}

}  // namespace ninepegs::report
