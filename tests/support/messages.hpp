// What every message of a refusal must have.
#pragma once

#include <string>

#include "ninepegs/base/diagnostic.hpp"

namespace ninepegs::test {

// What is wrong with the messages: one without words, or with a place that is not in its text.
// Empty: nothing. Not `lined`: places may come without the text of their line.
inline std::string badMessage(const BadInput& error, bool lined = true) {
  if (error.diagnostics().empty()) return "no message";
  for (const Diagnostic& one : error.diagnostics()) {
    if (one.message.empty()) return "a message without words";
    if (one.place.source.empty()) return "a message without a source: " + one.message;
    if (one.place.line < 0 || one.place.column < 0)
      return "a message that points nowhere: " + one.message;
    // The column counts characters, of which there are at most as many as bytes.
    if ((lined || !one.place.text.empty()) &&
        one.place.column > static_cast<int>(one.place.text.size()) + 1)
      return "a message that points behind its line: " + one.message;
  }
  if (toText(error.diagnostics()).empty()) return "no text";
  return "";
}

}  // namespace ninepegs::test
