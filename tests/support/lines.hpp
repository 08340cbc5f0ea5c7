// The lines of a text, without their line ends.
#pragma once

#include <algorithm>
#include <string>
#include <vector>

namespace ninepegs::test {

inline std::vector<std::string> linesOf(const std::string& text) {
  std::vector<std::string> out;
  for (std::size_t at = 0; at < text.size();) {
    std::size_t end = std::min(text.find('\n', at), text.size());
    out.push_back(text.substr(at, end - at));
    at = end + 1;
  }
  return out;
}

inline std::size_t indentOf(const std::string& line) {
  return std::min(line.find_first_not_of(' '), line.size());
}

}  // namespace ninepegs::test
