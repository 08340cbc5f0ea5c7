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

// The source line and the caret line, cut to a window around the caret when the line is long. The
// place counts characters, the caret stands by the columns they take.
std::string excerpt(const Place& place) {
  std::vector<std::string> symbols = utf8Symbols(place.text);
  std::size_t at = place.column > 0 ? static_cast<std::size_t>(place.column - 1) : 0;
  std::size_t end = at + static_cast<std::size_t>(std::max(place.length, 1));
  std::size_t from = at + 20 > shownWidth ? at - std::min(at, shownWidth / 2) : 0;
  std::string line = from > 0 ? "..." : "";
  int before = static_cast<int>(line.size()), under = 0;
  for (std::size_t i = from; i < std::max(symbols.size(), end) && i < from + shownWidth; ++i) {
    std::string symbol = i < symbols.size() ? symbols[i] : "";
    if (symbol.size() == 1 && static_cast<unsigned char>(symbol[0]) < 32)
      symbol = symbol == "\t" ? " " : "?";
    line += symbol;
    int columns = i < symbols.size() ? columnsOf(symbol) : 1;
    if (i < at) before += columns;
    if (i >= at && i < end) under += columns;
  }
  if (symbols.size() > from + shownWidth) line += "...";
  std::string number = std::to_string(place.line);
  std::string out = fmt::format("\n  {} | {}", number, line);
  if (place.column > 0)
    out += fmt::format("\n  {} | {}{}", std::string(number.size(), ' '),
                       std::string(static_cast<std::size_t>(before), ' '),
                       std::string(static_cast<std::size_t>(std::max(under, 1)), '^'));
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

Failure::Failure(std::vector<Diagnostic> diagnostics)
    : diagnostics_(std::move(diagnostics)), text_(toText(diagnostics_)) {}

Failure::Failure(Place place, std::string message, std::string hint)
    : Failure(std::vector<Diagnostic>{
          Diagnostic{std::move(place), std::move(message), std::move(hint)}}) {}

}  // namespace ninepegs
