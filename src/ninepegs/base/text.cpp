#include "ninepegs/base/text.hpp"

#include <fmt/format.h>
#include <utf8proc.h>

#include <algorithm>
#include <charconv>
#include <cstdint>

namespace ninepegs {
namespace {

bool isSpace(char c) {
  return c == ' ' || c == '\t' || c == '\r' || c == '\n';
}
bool isDigit(char c) {
  return c >= '0' && c <= '9';
}

// Bytes of the well-formed UTF-8 character at `at` (RFC 3629); 0 if it is malformed.
std::size_t utf8Length(std::string_view text, std::size_t at) {
  auto byte = [&](std::size_t i) { return static_cast<unsigned char>(text[i]); };
  unsigned char first = byte(at);
  if (first < 0x80) return 1;
  std::size_t length = first >= 0xf0 ? 4 : first >= 0xe0 ? 3 : 2;
  if (first < 0xc2 || first > 0xf4 || at + length > text.size()) return 0;
  for (std::size_t i = 1; i < length; ++i)
    if ((byte(at + i) & 0xc0) != 0x80) return 0;
  unsigned char second = byte(at + 1);
  if ((first == 0xe0 && second < 0xa0) || (first == 0xed && second > 0x9f) ||
      (first == 0xf0 && second < 0x90) || (first == 0xf4 && second > 0x8f))
    return 0;
  return length;
}

constexpr std::size_t longestHint = 64;  // words longer than this are no slips

// Both texts have at most longestHint bytes.
std::size_t editDistance(std::string_view a, std::string_view b) {
  std::uint8_t cost[longestHint + 1][longestHint + 1];
  for (std::size_t i = 0; i <= a.size(); ++i) {
    for (std::size_t j = 0; j <= b.size(); ++j) {
      if (i == 0 || j == 0) {
        cost[i][j] = static_cast<std::uint8_t>(i + j);
        continue;
      }
      int same = a[i - 1] == b[j - 1] ? 0 : 1;
      int best = std::min({cost[i - 1][j] + 1, cost[i][j - 1] + 1, cost[i - 1][j - 1] + same});
      if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
        best = std::min(best, cost[i - 2][j - 2] + 1);
      cost[i][j] = static_cast<std::uint8_t>(best);
    }
  }
  return cost[a.size()][b.size()];
}

// The character that a text begins with; a malformed byte stands alone.
struct Sign {
  std::size_t bytes = 1;
  int columns = 1;
};
Sign firstSign(std::string_view text) {
  utf8proc_int32_t sign = 0;
  utf8proc_ssize_t length = utf8proc_iterate(reinterpret_cast<const utf8proc_uint8_t*>(text.data()),
                                             static_cast<utf8proc_ssize_t>(text.size()), &sign);
  if (length <= 0) return {};
  return {static_cast<std::size_t>(length), utf8proc_charwidth(sign)};
}

}  // namespace

std::string_view trimmed(std::string_view text) {
  while (!text.empty() && isSpace(text.front())) text.remove_prefix(1);
  while (!text.empty() && isSpace(text.back())) text.remove_suffix(1);
  return text;
}

std::vector<std::string> splitTrimmed(std::string_view text, char separator) {
  std::vector<std::string> parts;
  if (trimmed(text).empty()) return parts;
  std::size_t from = 0;
  while (true) {
    std::size_t to = text.find(separator, from);
    parts.emplace_back(trimmed(text.substr(from, to == text.npos ? text.npos : to - from)));
    if (to == text.npos) return parts;
    from = to + 1;
  }
}

int columnsOf(std::string_view text) {
  int columns = 0;
  while (!text.empty()) {
    Sign first = firstSign(text);
    columns += first.columns;
    text.remove_prefix(first.bytes);
  }
  return columns;
}

std::string clipped(std::string_view text, int columns) {
  std::size_t taken = 0, most = static_cast<std::size_t>(columns) * 8;  // combining signs take none
  while (taken < text.size()) {
    Sign next = firstSign(text.substr(taken));
    columns -= next.columns;
    if (columns < 0 || taken + next.bytes > most) break;
    taken += next.bytes;
  }
  return std::string(text.substr(0, taken));
}

std::vector<std::string> utf8Symbols(std::string_view text) {
  std::vector<std::string> symbols;
  for (std::size_t at = 0; at < text.size();) {
    std::size_t length = std::max<std::size_t>(1, utf8Length(text, at));
    symbols.emplace_back(text.substr(at, length));
    at += length;
  }
  return symbols;
}

std::size_t firstBadUtf8(std::string_view text) {
  for (std::size_t at = 0; at < text.size();) {
    std::size_t length = utf8Length(text, at);
    if (length == 0) return at;
    at += length;
  }
  return std::string_view::npos;
}

std::optional<std::string> nearest(std::string_view word,
                                   const std::vector<std::string>& candidates) {
  if (word.empty() || word.size() > longestHint) return std::nullopt;
  std::size_t best = word.size() <= 3 ? 2 : word.size() <= 6 ? 3 : 4;  // fewer edits than this
  std::optional<std::string> found;
  for (const std::string& candidate : candidates) {
    std::size_t longer = std::max(word.size(), candidate.size());
    if (longer > longestHint || longer - std::min(word.size(), candidate.size()) >= best) continue;
    std::size_t distance = editDistance(word, candidate);
    if (distance < best && distance < longer) {
      best = distance;
      found = candidate;
    }
  }
  return found;
}

std::string didYouMean(std::string_view word, const std::vector<std::string>& candidates,
                       std::string fallback) {
  std::optional<std::string> found = nearest(word, candidates);
  return found ? fmt::format("did you mean \"{}\"?", *found) : fallback;
}

bool naturalLess(std::string_view a, std::string_view b) {
  std::size_t i = 0, j = 0;
  while (i < a.size() && j < b.size()) {
    if (isDigit(a[i]) && isDigit(b[j])) {
      std::size_t endI = i, endJ = j;
      while (endI < a.size() && isDigit(a[endI])) ++endI;
      while (endJ < b.size() && isDigit(b[endJ])) ++endJ;
      std::string_view x = a.substr(i, endI - i), y = b.substr(j, endJ - j);
      while (x.size() > 1 && x.front() == '0') x.remove_prefix(1);
      while (y.size() > 1 && y.front() == '0') y.remove_prefix(1);
      if (x.size() != y.size()) return x.size() < y.size();
      if (x != y) return x < y;
      i = endI;
      j = endJ;
    } else {
      if (a[i] != b[j]) return a[i] < b[j];
      ++i;
      ++j;
    }
  }
  if ((i < a.size()) != (j < b.size())) return j < b.size();
  return a < b;  // equal by value: a fixed order all the same (a01, a1)
}

std::string plural(long long count, std::string_view noun) {
  return fmt::format("{} {}{}", count, noun, count == 1 ? "" : "s");
}

std::string lowered(std::string_view text) {
  std::string out(text);
  for (char& c : out)
    if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
  return out;
}

std::string grouped(unsigned long long number) {
  std::string digits = std::to_string(number);
  for (std::size_t i = digits.size(); i > 3; i -= 3) digits.insert(i - 3, ",");
  return digits;
}

std::string pliesText(unsigned long long number) {
  return grouped(number) + (number == 1 ? " ply" : " plies");
}

std::string wrapped(std::string_view text, std::size_t width, std::string_view indent) {
  std::string out, line;
  for (const std::string& word : splitTrimmed(text, ' ')) {
    if (!line.empty() && columnsOf(line) + 1 + columnsOf(word) > static_cast<int>(width)) {
      out += std::string(indent) + line + "\n";
      line.clear();
    }
    line += (line.empty() ? "" : " ") + word;
  }
  return out + std::string(indent) + line + "\n";
}

std::string joined(const std::vector<std::string>& parts, std::string_view separator) {
  std::string out;
  for (std::size_t i = 0; i < parts.size(); ++i) {
    if (i > 0) out += separator;
    out += parts[i];
  }
  return out;
}

std::optional<unsigned long long> wholeNumber(std::string_view text, unsigned long long limit) {
  unsigned long long value = 0;
  auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (text.empty() || error != std::errc() || end != text.data() + text.size() || value > limit)
    return std::nullopt;
  return value;
}

}  // namespace ninepegs
