#include "soak/mutate.hpp"

#include <algorithm>
#include <filesystem>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/text.hpp"
#include "support/lines.hpp"

namespace ninepegs::soak {
namespace {

using Words = std::vector<std::string>;

int below(Stream& stream, std::size_t n) {
  return static_cast<int>(stream.below(static_cast<std::uint32_t>(n)));
}
template <class T>
const T& any(const std::vector<T>& list, Stream& stream) {
  return list[static_cast<std::size_t>(below(stream, list.size()))];
}

// Words that can stand for each other, so that much of what comes is still a sheet.
const std::vector<Words>& kin() {
  static const std::vector<Words> all = {
      {"mine", "theirs", "empty", "occupied", "all", "edge", "corner", "touched", "here", "there"},
      {"my", "their"},
      {"any", "orthogonal", "diagonal", "forward", "backward", "forward-diagonal", "north", "east",
       "southwest", "forward-any"},
      {"step", "slide", "spread"},
      {"north", "south", "east", "west", "forward", "backward", "northeast", "up"},
      {"on", "or", "except"},
      {"and", "or"},
      {"=", "!=", "<", "<=", ">", ">="},
      {"+", "-", "*", "/", "%"},
      {"any", "no", "count"},
      {"min", "max"},
      {"take", "flip"},
      {"add", "remove"},
      {"wins", "loses"},
      {"mover", "opponent", "Amber", "Slate"},
      {"pick", "let"},
      {"need", "when"},
      {"plies", "passes", "1", "2", "0", "tally", "3"},
      {"row-no", "column-no", "edge"},
      {"when", "repeat"},
      {"peg", "saw", "king", "pin", "stone", "tool"},
      {"met", "shot", "last", "spot", "home", "middle"},
      {"secret", "neutral"},
      {"square", "hexagon", "rhombus", "points"},
      {"was", "my", "reach"},
      {"else", "or"},
      {"always", "worth"},
  };
  return all;
}

struct Part {
  std::size_t at = 0, length = 0;
};

bool inWord(char c) {
  return std::isalnum(static_cast<unsigned char>(c)) != 0 || c == '-' || c == '_';
}

// The words and signs of a line.
std::vector<Part> partsOf(const std::string& line) {
  std::vector<Part> out;
  for (std::size_t i = 0; i < line.size();) {
    if (line[i] == ' ') {
      ++i;
      continue;
    }
    std::size_t begin = i;
    if (inWord(line[i]))
      while (i < line.size() && inWord(line[i])) ++i;
    else
      ++i;
    out.push_back({begin, i - begin});
  }
  return out;
}

std::string number(Stream& stream) {
  static const Words numbers = {
      "0",  "1",  "2",  "3",   "4",  "5",   "7",  "8",     "9",     "12",         "16",        "25",
      "63", "64", "65", "100", "-1", "255", "99", "65536", "40000", "2147483648", "9999999999"};
  return any(numbers, stream);
}

// One line with one word changed.
std::string wordChanged(const std::string& line, const Words& others, Stream& stream) {
  std::vector<Part> parts = partsOf(line);
  if (parts.empty()) return line;
  Part part = any(parts, stream);
  std::string word = line.substr(part.at, part.length), out = line;
  switch (below(stream, 12)) {
    case 0:
      return out.erase(part.at, part.length);
    case 1:
      return out.insert(part.at, word + " ");
    case 2: {  // two words change places
      Part other = any(parts, stream);
      if (other.at > part.at) std::swap(other, part);
      if (other.at == part.at) return line;
      std::string first = line.substr(other.at, other.length);
      out.replace(part.at, part.length, first);
      out.replace(other.at, other.length, line.substr(part.at, part.length));
      return out;
    }
    case 3: {  // a word from elsewhere
      std::vector<Part> there;
      const std::string& other = any(others, stream);
      there = partsOf(other);
      if (there.empty()) return line;
      Part taken = any(there, stream);
      return out.replace(part.at, part.length, other.substr(taken.at, taken.length));
    }
    case 4:
      return out.replace(part.at, part.length, number(stream));
    case 5: {  // a stretch is bracketed, or brackets go
      Part other = any(parts, stream);
      if (other.at < part.at) std::swap(other, part);
      out.insert(other.at + other.length, ")");
      return out.insert(part.at, "(");
    }
    default:
      break;
  }
  std::vector<const Words*> fit;
  for (int tries = 0; tries < 8; ++tries) {
    part = any(parts, stream);
    word = line.substr(part.at, part.length);
    fit.clear();
    for (const Words& words : kin())
      if (std::find(words.begin(), words.end(), word) != words.end()) fit.push_back(&words);
    if (!fit.empty()) return out.replace(part.at, part.length, any(*any(fit, stream), stream));
    if (word.find_first_not_of("0123456789") == word.npos)
      return out.replace(part.at, part.length, number(stream));
  }
  return line;
}

}  // namespace

std::vector<std::string> sheetsOf(const std::vector<std::string>& folders) {
  std::vector<std::filesystem::path> paths;
  for (const std::string& folder : folders)
    for (const auto& entry : std::filesystem::directory_iterator(folder))
      if (entry.path().extension() == ".pegs" && entry.path().stem().extension() != ".cases")
        paths.push_back(entry.path());
  std::sort(paths.begin(), paths.end());
  std::vector<std::string> out;
  for (const std::filesystem::path& path : paths) out.push_back(readFile(path, 1 << 20));
  return out;
}

std::string mutatedSheet(const std::string& text, const std::vector<std::string>& others,
                         Stream& stream) {
  Words lines = test::linesOf(text), elsewhere = test::linesOf(any(others, stream));
  if (elsewhere.empty()) elsewhere = {"take here"};
  int many = 1 + below(stream, 3);
  for (int i = 0; i < many; ++i) {
    if (lines.empty()) lines.emplace_back("game x");
    std::size_t at = static_cast<std::size_t>(below(stream, lines.size()));
    switch (below(stream, 24)) {
      case 0:
        lines.erase(lines.begin() + static_cast<std::ptrdiff_t>(at));
        break;
      case 1:
        lines.insert(lines.begin() + static_cast<std::ptrdiff_t>(at), lines[at]);
        break;
      case 2: {
        std::string other = any(lines, stream);
        lines.insert(lines.begin() + static_cast<std::ptrdiff_t>(at), other);
        break;
      }
      case 3:
      case 4: {  // a line from elsewhere, as deep as the one that stands here
        std::string other = any(elsewhere, stream);
        other = std::string(test::indentOf(lines[at]), ' ') + other.substr(test::indentOf(other));
        lines.insert(lines.begin() + static_cast<std::ptrdiff_t>(at), other);
        break;
      }
      case 5:
        if (stream.below(2) == 0)
          lines[at] = "  " + lines[at];
        else if (test::indentOf(lines[at]) >= 2)
          lines[at].erase(0, 2);
        break;
      case 6: {
        std::size_t other = static_cast<std::size_t>(below(stream, lines.size()));
        std::swap(lines[at], lines[other]);
        break;
      }
      case 7:
        if (stream.below(6) == 0) lines[at] = mutatedText(lines[at], stream);
        if (stream.below(20) == 0) lines.resize(at);
        break;
      default:
        lines[at] = wordChanged(lines[at], elsewhere, stream);
    }
  }
  return joined(lines, "\n") + "\n";
}

std::string mutatedText(const std::string& text, Stream& stream) {
  static const Words odd = {"\x00", "\xff", "\xc3\xa9", "\t", "\n",   "\r",
                            "\"",   "'",    "`",        "$",  "/",    ";",
                            ",",    "..",   "-1",       "0",  "99",   "\x1b[31m",
                            " ",    "  ",   "=",        ":",  "%s%n", "99999999999999999999"};
  std::string out = text;
  int many = 1 + below(stream, 4);
  for (int i = 0; i < many; ++i) {
    std::size_t at = static_cast<std::size_t>(below(stream, out.size() + 1));
    std::size_t length =
        std::min<std::size_t>(out.size() - at, 1 + static_cast<std::size_t>(below(stream, 3)));
    switch (below(stream, 8)) {
      case 0:
        out.erase(at, length);
        break;
      case 1:
        out.insert(at, any(odd, stream));
        break;
      case 2:
        out.insert(at, out.substr(at, 1 + static_cast<std::size_t>(below(stream, 20))));
        break;
      case 3:
        if (stream.below(4) == 0) out.resize(at);
        break;
      case 4: {
        if (out.size() < 2) break;
        std::size_t other = static_cast<std::size_t>(below(stream, out.size()));
        std::swap(out[std::min(at, out.size() - 1)], out[other]);
        break;
      }
      case 5:
        out.replace(at, length, number(stream));
        break;
      case 6:
        if (!text.empty())
          out.insert(at, 1, text[static_cast<std::size_t>(below(stream, text.size()))]);
        break;
      default:
        if (length > 0)
          out[at] = static_cast<char>(out[at] + static_cast<int>(stream.below(5)) - 2);
    }
  }
  return out;
}

}  // namespace ninepegs::soak
