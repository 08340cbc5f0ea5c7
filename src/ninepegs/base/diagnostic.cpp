#include "ninepegs/base/diagnostic.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"

namespace ninepegs {
namespace {

constexpr std::size_t shownWidth = 100;  // characters of a source line that a message shows

std::string header(const Place& place) {
  if (place.line == 0) return place.source.empty() ? "" : place.source + ": ";
  if (place.column == 0) return fmt::format("{}:{}: ", place.source, place.line);
  return fmt::format("{}:{}:{}: ", place.source, place.line, place.column);
}

// The source line and the caret line, cut to a window around the caret when the line is long.
std::string excerpt(const Place& place) {
  std::vector<std::string> symbols = utf8Symbols(place.text);
  std::size_t at = place.column > 0 ? static_cast<std::size_t>(place.column - 1) : 0;
  std::size_t from = 0;
  if (at + 20 > shownWidth) from = at - std::min(at, shownWidth / 2);
  std::string line = from > 0 ? "..." : "";
  std::size_t indent = line.size();
  for (std::size_t i = from; i < symbols.size() && i < from + shownWidth; ++i) {
    bool control = symbols[i].size() == 1 && static_cast<unsigned char>(symbols[i][0]) < 32;
    line += control ? (symbols[i] == "\t" ? " " : "?") : symbols[i];
  }
  if (symbols.size() > from + shownWidth) line += "...";
  std::string number = std::to_string(place.line);
  std::string margin(number.size(), ' ');
  std::string out = fmt::format("\n  {} | {}", number, line);
  if (place.column > 0) {
    std::size_t room = shownWidth > at - from ? shownWidth - (at - from) : 1;
    std::size_t length = std::clamp<std::size_t>(static_cast<std::size_t>(place.length), 1, room);
    out += fmt::format("\n  {} | {}{}", margin, std::string(indent + at - from, ' '),
                       std::string(length, '^'));
  }
  return out;
}

}  // namespace

std::string toText(const Diagnostic& diagnostic) {
  std::string out = header(diagnostic.place) + diagnostic.message;
  if (diagnostic.place.line > 0 && !diagnostic.place.text.empty()) out += excerpt(diagnostic.place);
  if (!diagnostic.hint.empty()) out += "\n  hint: " + diagnostic.hint;
  return out;
}

std::string toText(const std::vector<Diagnostic>& diagnostics) {
  std::string out;
  std::size_t shown = std::min<std::size_t>(diagnostics.size(), limits::diagnostics);
  for (std::size_t i = 0; i < shown; ++i) out += (i > 0 ? "\n" : "") + toText(diagnostics[i]);
  if (shown < diagnostics.size())
    out += fmt::format("\n... and {}{} more",
                       diagnostics.size() >= limits::diagnosticsKept ? "at least " : "",
                       diagnostics.size() - shown);
  return out;
}

// The same message may come up more than once, where a line is looked at for each side.
void addMessage(std::vector<Diagnostic>& found, Diagnostic one) {
  auto same = [&](const Diagnostic& other) {
    return other.place.line == one.place.line && other.place.column == one.place.column &&
           other.message == one.message && other.place.source == one.place.source;
  };
  if (std::any_of(found.begin(), found.end(), same)) return;
  found.push_back(std::move(one));
  if (found.size() >= limits::diagnosticsKept) throw TooManyMessages{};
}

BadInput::BadInput(std::vector<Diagnostic> diagnostics)
    : diagnostics_(std::move(diagnostics)), text_(toText(diagnostics_)) {}

BadInput::BadInput(Place place, std::string message, std::string hint)
    : BadInput(std::vector<Diagnostic>{
          Diagnostic{std::move(place), std::move(message), std::move(hint)}}) {}

}  // namespace ninepegs
