// A text as its lines, without their newlines.
//
//   for (const std::string& line : report::linesOf(text)) texts.push_back(line);
#pragma once

#include <cstddef>
#include <string>
#include <vector>

namespace ninepegs::report {

std::vector<std::string> linesOf(const std::string& text);

// A block of lines, and the same without colours, by which it is measured.
struct Painted {
  std::string text, plain;
};
struct Beside {
  std::string gap = {};     // between the two
  std::string middle = {};  // on the middle line, instead of the gap; of the same width
  std::size_t most = 0;     // columns: if they are wider, one stands below the other; 0: never
  bool trimmed = true;      // without blanks at the ends of lines
};
// Two blocks beside each other.
std::string besideEachOther(const Painted& left, const Painted& right, const Beside& how);

}  // namespace ninepegs::report
