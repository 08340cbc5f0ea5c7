// A field of a row whose parts are separated by commas (RFC 4180).
#pragma once

#include <string>

namespace ninepegs::report {

// In quotes, those within doubled.
inline std::string csvField(const std::string& text) {
  std::string out = "\"";
  for (char c : text) out += c == '"' ? std::string("\"\"") : std::string(1, c);
  return out + "\"";
}

}  // namespace ninepegs::report
