#include "ninepegs/game/position_text.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/game/position_reader.hpp"

namespace ninepegs {

using sheet::Layout;

namespace {

bool isPictureText(std::string_view text) {
  return text.find('/') != text.npos || trimmed(text).find(' ') == std::string_view::npos;
}

// The parts of a logical line between semicolons, and of a picture on one line between slashes.
std::vector<PositionPart> split(const PositionPart& whole, const char* by) {
  std::vector<PositionPart> out;
  std::vector<std::string> symbols = utf8Symbols(whole.text);
  std::string text;
  int column = whole.span.column;
  for (std::size_t i = 0; i <= symbols.size(); ++i) {
    if (i < symbols.size() && symbols[i] != by) {
      text += symbols[i];
      continue;
    }
    int length = std::max(1, static_cast<int>(utf8Symbols(text).size()));
    out.push_back({text, {whole.span.line, column, length}});
    column = whole.span.column + static_cast<int>(i) + 1;
    text.clear();
  }
  return out;
}

}  // namespace

Position readBlock(const rules::Rules& rules, const Layout& layout, const sheet::Source& source,
                   const std::vector<sheet::Block>& lines, std::vector<Diagnostic>& found) {
  PositionReader reader(rules, layout, source, found);
  std::array<std::vector<PositionPart>, 2> pictures;
  std::vector<PositionPart> rest;
  bool first = true, inPicture = false;
  // A picture may also stand after the lines, which may look like rows.
  auto isRow = [&](const sheet::Block& block) {
    if (!block.pictureRow || layout.layered) return false;
    std::string_view text = trimmed(block.raw);
    bool named = rules.find(std::string(text.substr(0, text.find(' ')))) != nullptr;
    return rest.empty() || ((inPicture || pictures[0].empty()) && !named);
  };
  for (const sheet::Block& block : lines) {
    PositionPart whole{block.raw, block.span};
    reader.begin(block);
    inPicture = isRow(block);
    if (inPicture) {
      std::vector<PositionPart> parts = split(whole, ";");
      pictures[0].push_back(parts.front());
      rest.insert(rest.end(), parts.begin() + 1, parts.end());
      first = false;
      continue;
    }
    for (const PositionPart& part : split(whole, ";")) {
      // On a board of one each: picture of SIDE, and rows below it or behind it on one line.
      std::string_view text = part.text;
      std::size_t lead = text.find_first_not_of(' ');
      bool named = lead != text.npos && text.substr(lead).starts_with("picture of ");
      if (named && layout.layered) {
        std::size_t from = lead + 11, to = std::min(text.find(' ', from), text.size());
        int side = rules.side(std::string(text.substr(from, to - from)));
        if (side < 0) {
          addMessage(found, {source.place(part.span), "whose picture?",
                             fmt::format("say: picture of {}", rules.sides[0])});
          continue;
        }
        PositionPart behind{std::string(text.substr(to)), part.span};
        behind.span.column += static_cast<int>(utf8Symbols(text.substr(0, to)).size());
        if (!trimmed(behind.text).empty())
          for (const PositionPart& row : split(behind, "/")) pictures[side].push_back(row);
        for (const sheet::Block& row : block.children)
          pictures[side].push_back({row.raw, row.span});
      } else if (first && !layout.layered && !block.pictureRow && isPictureText(part.text)) {
        for (const PositionPart& row : split(part, "/")) pictures[0].push_back(row);
      } else {
        rest.push_back(part);
      }
      first = false;
    }
  }
  for (int board = 0; board < 2; ++board)
    if (!pictures[board].empty()) reader.picture(pictures[board], board);
  for (const PositionPart& part : rest) reader.line(part);
  return reader.finish();
}

void requireLine(const rules::Rules& rules, const Layout& layout, std::string_view text,
                 const std::string& source) {
  Place whole{source, 0, 0, 1, {}};
  if (text.size() > limits::lineBytes)
    throw BadInput(
        whole, fmt::format("this position is longer than {} bytes, the limit", limits::lineBytes));
  if (text.find('\n') != text.npos || text.find('\0') != text.npos ||
      firstBadUtf8(text) != text.npos)
    throw BadInput(whole, "a position is one line of text");
  if (trimmed(text).empty())
    throw BadInput(whole, "the position is empty",
                   "such as: " + positionLine(rules, layout, emptyPosition(rules, layout)));
}

Position readLine(const rules::Rules& rules, const Layout& layout, std::string_view text,
                  const std::string& source) {
  sheet::Source lines(source, text);
  sheet::Block block;
  block.raw = std::string(text);
  block.span = {1, 1, 1};
  std::vector<Diagnostic> found;
  try {
    Position position = readBlock(rules, layout, lines, {block}, found);
    if (found.empty()) return position;
  } catch (const TooManyMessages&) {
  }
  throw BadInput(std::move(found));
}

}  // namespace ninepegs
