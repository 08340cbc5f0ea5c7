// A description in words as the beginning of a sheet.
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <optional>

#include "ninepegs/base/diagnostic.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/text/blocks.hpp"
#include "ninepegs/sheet/text/starter.hpp"
#include "ninepegs/sheet/text/tidy.hpp"

namespace ninepegs::sheet {
namespace {

constexpr std::size_t commentWidth = 92;  // columns of a line of words

// The parts of a description, in the order of a sheet; what each begins as.
struct Part {
  const char* heading;
  std::vector<const char*> others;  // said otherwise
  const char* lines;
};
const std::array<Part, 5>& parts() {
  static const std::array<Part, 5> all = {{
      {"players",
       {"sides", "who plays"},
       "sides Amber and Slate  # fill in: the two names; the first moves first\n"},
      {"board", {"the board"}, "board square 4 x 4  # fill in: columns x rows, or another shape\n"},
      {"pieces",
       {"the pieces", "men"},
       "piece peg o x  # fill in: each kind, its letter for the first side and for the second\n"},
      {"a turn",
       {"turn", "moves", "a move"},
       "move place  # fill in: what a side may do in its turn, a move each\n"
       "  pick there in empty\n  put peg on there\n  written as there\n"},
      {"how it ends",
       {"the end", "ends", "end", "winning", "how to win"},
       "ends  # fill in: who wins and when, and when it is a draw\n"
       "  mover wins \"three in a line\" when any line of 3 in mine\n"
       "  draw \"board full\" when no empty\n"},
  }};
  return all;
}

std::string lowered(std::string_view text) {
  std::string out(text);
  std::transform(out.begin(), out.end(), out.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  return out;
}

// The part whose heading the line is, and where what it says begins; nothing if it is none.
std::optional<std::pair<std::size_t, std::size_t>> headingOf(const std::string& line) {
  std::size_t from = line.find_first_not_of("#*- \t");  // as people mark headings
  if (from == line.npos) return std::nullopt;
  std::size_t colon = line.find(':', from);
  std::string word = lowered(trimmed(line.substr(from, colon - std::min(colon, from))));
  while (!word.empty() && (word.back() == '*' || word.back() == '.')) word.pop_back();
  for (std::size_t i = 0; i < parts().size(); ++i) {
    const Part& part = parts()[i];
    bool is = word == part.heading || std::any_of(part.others.begin(), part.others.end(),
                                                  [&](const char* one) { return word == one; });
    if (is) return std::pair{i, colon == line.npos ? line.size() : colon + 1};
  }
  return std::nullopt;
}

}  // namespace

std::string sheetFromWords(const std::string& name, std::string_view words,
                           const std::string& source) {
  std::string base = sheetLike(name, "game x\ntitle \"x\"\n");
  if (trimmed(words).empty())
    throw BadInput(Place{source, 0, 0, 1, {}}, "there are no words in it",
                   "describe the game under headings: players, board, pieces, a turn, how it ends");
  requireText(source, words);
  std::string about;
  std::array<std::string, 5> said;
  std::optional<std::size_t> part;
  bool any = false;
  Source text(source, words);
  for (const std::string& whole : text.lines()) {
    std::string line(trimmed(whole));
    std::replace(line.begin(), line.end(), '\t', ' ');
    std::string own = line;
    if (auto heading = headingOf(line)) {
      part = heading->first;
      own = trimmed(line.substr(heading->second));
      any = true;
    }
    // In a sheet a '#' would begin a comment.
    std::string plain = line.substr(std::min(line.find_first_not_of("# "), line.size()));
    std::replace(plain.begin(), plain.end(), '#', ' ');
    if (!plain.empty()) about += wrapped(plain, commentWidth, "  ");
    if (part && !own.empty()) said[*part] += (said[*part].empty() ? "" : " ") + own;
  }
  if (!any)
    throw BadInput(Place{source, 0, 0, 1, {}}, "none of these lines is a heading",
                   "headings are: players, board, pieces, a turn, how it ends; "
                   "such as: board: five columns and six rows");
  std::string out = base + "about\n" + about;
  for (std::size_t i = 0; i < parts().size(); ++i) {
    std::string says = fmt::format("{}: {}", parts()[i].heading,
                                   said[i].empty() ? "(the words say nothing of it)" : said[i]);
    out += "\n" + wrapped(says, commentWidth, "# ") + parts()[i].lines;
  }
  out += "\nalways  # fill in: what must hold in every position\n  count occupied never shrinks\n";
  return tidied(Source(name + ".pegs", out));
}

}  // namespace ninepegs::sheet
