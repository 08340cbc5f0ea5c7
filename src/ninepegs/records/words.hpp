// Words of a record's moves. Internal to the room.
#pragma once

#include <algorithm>
#include <iterator>
#include <string_view>

namespace ninepegs::records {

inline constexpr std::string_view results[] = {"1-0", "0-1", "1/2-1/2", "*"};
inline bool isResult(std::string_view text) {
  return std::find(std::begin(results), std::end(results), text) != std::end(results);
}

inline bool isBlank(char c) {
  return c == ' ' || c == '\t';
}

// Where a word of the moves ends.
inline bool ends(char c) {
  return isBlank(c) || c == '{' || c == '}' || c == '(' || c == ')' || c == ';' || c == '"' ||
         c == '[' || c == ']' || c == '$';
}

}  // namespace ninepegs::records
