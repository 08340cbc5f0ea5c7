#include "ninepegs/sheet/text/tidy.hpp"

#include <algorithm>
#include <map>
#include <set>
#include <vector>

#include "ninepegs/base/text.hpp"

namespace ninepegs::sheet {
namespace {

// Where blocks stand: the depth of the first line of each, and which lines are rows of pictures.
struct Lines {
  std::map<int, int> depth;
  std::set<int> pictures;
  std::map<int, int> pictureIndent;  // of each row: how far it stands behind its picture's margin
};

int indentOf(const Source& source, int line) {
  std::string text = source.line(line);
  std::size_t at = text.find_first_not_of(' ');
  return at == std::string::npos ? 0 : static_cast<int>(at);
}

void collect(const Source& source, const std::vector<Block>& list, int depth, Lines& out) {
  // A picture is a run of rows; how far each stands in from the others is kept.
  std::vector<int> margins(list.size(), 0);
  for (std::size_t from = 0; from < list.size();) {
    std::size_t to = from;
    int margin = 10000;
    for (; to < list.size() && list[to].pictureRow; ++to)
      margin = std::min(margin, indentOf(source, list[to].span.line));
    std::fill(margins.begin() + static_cast<std::ptrdiff_t>(from),
              margins.begin() + static_cast<std::ptrdiff_t>(to), margin);
    from = to + 1;
  }
  std::size_t number = 0;
  for (const Block& block : list) {
    out.depth[block.span.line] = depth;
    if (block.pictureRow) {
      out.pictures.insert(block.span.line);
      out.pictureIndent[block.span.line] = indentOf(source, block.span.line) - margins[number];
    }
    ++number;
    collect(source, block.children, depth + 1, out);
  }
}

// Runs of blanks outside quotes become one.
std::string squeezedOutsideQuotes(std::string_view text) {
  std::string out;
  bool quoted = false;
  for (char c : trimmed(text)) {
    if (c == '"') quoted = !quoted;
    if (c == ' ' && !quoted && !out.empty() && out.back() == ' ') continue;
    out += c;
  }
  return out;
}

struct Line {
  std::string body, comment;
};

}  // namespace

namespace {

std::string tidiedOnce(const Source& source) {
  std::vector<Diagnostic> found;
  std::vector<Block> all;
  try {
    all = blocks(source, found);
  } catch (const TooManyMessages&) {
  }
  if (!found.empty()) throw BadInput(std::move(found));
  Lines lines;
  collect(source, all, 0, lines);
  std::set<int> prose;
  for (const Block& block : all)
    if (block.word() == "about")
      for (const Block& line : block.children) prose.insert(line.span.line);
  std::vector<Line> out;
  int depth = 0;
  int last = static_cast<int>(source.lines().size());
  std::vector<int> depthBelow(static_cast<std::size_t>(last) + 2, 0);  // of the next block
  for (int number = last; number >= 1; --number) {
    auto it = lines.depth.find(number);
    depthBelow[number] = it != lines.depth.end() ? it->second : depthBelow[number + 1];
  }
  for (int number = 1; number <= last; ++number) {
    const std::string& whole = source.lines()[number - 1];
    bool starts = lines.depth.count(number) > 0;
    if (trimmed(whole).empty()) {
      if (!out.empty() && !(out.back().body.empty() && out.back().comment.empty()))
        out.push_back({});
      continue;
    }
    if (prose.count(number) > 0) {
      out.push_back({"  " + std::string(trimmed(whole)), ""});
      continue;
    }
    std::size_t hash = commentAt(whole);
    std::string body = squeezedOutsideQuotes(std::string_view(whole).substr(0, hash));
    std::string comment =
        hash == std::string::npos ? "" : std::string(trimmed(std::string_view(whole).substr(hash)));
    if (starts) depth = lines.depth[number];
    std::size_t indent = static_cast<std::size_t>(2 * depth);
    if (body.empty()) {  // a line of comment stands as deep as what follows it
      indent = static_cast<std::size_t>(2 * depthBelow[number]);
      out.push_back({std::string(indent, ' ') + comment, ""});
      continue;
    }
    if (lines.pictures.count(number) > 0)
      indent += static_cast<std::size_t>(lines.pictureIndent[number]);
    else if (!starts)
      indent += 4;  // goes on from the line above
    out.push_back({std::string(indent, ' ') + body, comment});
  }
  while (!out.empty() && out.back().body.empty()) out.pop_back();
  // Comments of neighbouring lines stand below each other.
  std::string text;
  for (std::size_t i = 0; i < out.size();) {
    std::size_t end = i;
    int width = 0;
    while (end < out.size() && !out[end].comment.empty())
      width = std::max(width, columnsOf(out[end++].body));
    for (; i < std::max(end, i + 1); ++i) {
      text += out[i].body;
      if (!out[i].comment.empty())
        text += std::string(static_cast<std::size_t>(width + 2 - columnsOf(out[i].body)), ' ') +
                out[i].comment;
      text += "\n";
      if (i + 1 >= end) {
        ++i;
        break;
      }
    }
  }
  return text;
}

}  // namespace

// Where rows of a picture stand apart from each other, a line that has moved may stand below
// another one: until nothing changes any more.
std::string tidied(const Source& source) {
  std::string text = tidiedOnce(source);
  for (int pass = 0; pass < 8; ++pass) {
    std::string again = tidiedOnce(Source(source.name(), text));
    if (again == text) break;
    text = std::move(again);
  }
  return text;
}

}  // namespace ninepegs::sheet
