#include "soak/reduce.hpp"

#include <algorithm>
#include <vector>

#include "support/lines.hpp"

namespace ninepegs::soak {
namespace {

using Parts = std::vector<std::string>;

std::string whole(const Parts& parts) {
  std::string out;
  for (const std::string& part : parts) out += part;
  return out;
}

// Leaves out stretches of parts, half of all at first, one at the end.
Parts fewer(Parts parts, const std::function<bool(const Parts&)>& shows) {
  for (std::size_t length = std::max<std::size_t>(parts.size() / 2, 1);; length /= 2) {
    for (std::size_t at = 0; at < parts.size();) {
      Parts rest = parts;
      rest.erase(rest.begin() + static_cast<std::ptrdiff_t>(at),
                 rest.begin() + static_cast<std::ptrdiff_t>(std::min(at + length, parts.size())));
      if (shows(rest))
        parts = std::move(rest);
      else
        at += length;
    }
    if (length <= 1) return parts;
  }
}

// Words with the blanks in front of them; brackets stand alone.
Parts wordsOf(const std::string& line) {
  Parts out;
  for (std::size_t at = 0; at < line.size();) {
    std::size_t begin = at;
    while (at < line.size() && line[at] == ' ') ++at;
    if (at < line.size() && (line[at] == '(' || line[at] == ')'))
      ++at;
    else
      while (at < line.size() && line[at] != ' ' && line[at] != '(' && line[at] != ')') ++at;
    out.push_back(line.substr(begin, at - begin));
  }
  return out;
}

}  // namespace

std::string reduced(const std::string& text, const std::function<bool(const std::string&)>& shows,
                    int tries) {
  auto tried = [&](const std::string& one) { return tries-- > 0 && shows(one); };
  Parts lines = test::linesOf(text);
  for (std::string& line : lines) line += '\n';
  for (std::size_t before = 0; before != whole(lines).size() && tries > 0;) {
    before = whole(lines).size();
    lines = fewer(lines, [&](const Parts& rest) { return tried(whole(rest)); });
    for (std::size_t i = 0; i < lines.size(); ++i) {
      auto with = [&](const std::string& line) {
        Parts all = lines;
        all[i] = line;
        return whole(all);
      };
      Parts words =
          fewer(wordsOf(lines[i]), [&](const Parts& rest) { return tried(with(whole(rest))); });
      // A bracketed stretch may stand for something shorter.
      for (std::size_t open = 0; open < words.size(); ++open) {
        if (words[open].find('(') == std::string::npos) continue;
        int depth = 0;
        std::size_t close = open;
        for (; close < words.size(); ++close) {
          depth += words[close].find('(') != std::string::npos ? 1 : 0;
          depth -= words[close].find(')') != std::string::npos ? 1 : 0;
          if (depth == 0) break;
        }
        if (close >= words.size()) continue;
        for (const char* plain : {" all", " mine", " 1", " plies > 0", ""}) {
          Parts rest(words.begin(), words.begin() + static_cast<std::ptrdiff_t>(open));
          if (*plain != 0) {
            rest.emplace_back(plain);
          } else {  // the same without the two brackets
            rest.insert(rest.end(), words.begin() + static_cast<std::ptrdiff_t>(open) + 1,
                        words.begin() + static_cast<std::ptrdiff_t>(close));
          }
          rest.insert(rest.end(), words.begin() + static_cast<std::ptrdiff_t>(close) + 1,
                      words.end());
          if (whole(rest).size() >= whole(words).size() || !tried(with(whole(rest)))) continue;
          words = rest;
          break;
        }
      }
      lines[i] = whole(words);
    }
  }
  return whole(lines);
}

}  // namespace ninepegs::soak
