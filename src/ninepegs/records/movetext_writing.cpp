#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <sstream>

#include "ninepegs/records/movetext.hpp"
#include "ninepegs/records/words.hpp"

namespace ninepegs::records {
namespace {

std::string escaped(std::string_view text) {
  std::string out = "\"";
  for (char c : text) {
    if (c == '"' || c == '\\') out += '\\';
    out += static_cast<unsigned char>(c) < 32 ? ' ' : c;
  }
  return out + "\"";
}

// Would the text be read as this move, and nothing else?
bool isPlain(std::string_view text) {
  if (text.empty() || isResult(text) || text.back() == '!' || text.back() == '?' ||
      text.back() == ',' || text.front() == '%')
    return false;
  if (std::any_of(text.begin(), text.end(), ends)) return false;
  std::size_t digits = 0;
  while (digits < text.size() && std::isdigit(static_cast<unsigned char>(text[digits]))) ++digits;
  return (digits == text.size() || text[digits] != '.') && text.front() != '.';
}

class Writer {
 public:
  void word(const std::string& text) {
    // A line that begins with % would be one for other programs.
    if (!line_.empty() && line_.size() + 1 + text.size() > 79 && text.front() != '%') flush();
    line_ += (line_.empty() ? "" : " ") + text;
  }
  // A comment may be broken between its words.
  void comment(const std::string& text) {
    if (text.empty()) return;
    std::string safe = text;
    std::replace(safe.begin(), safe.end(), '}', ')');
    std::vector<std::string> words;
    std::istringstream in(safe);
    for (std::string one; in >> one;) words.push_back(one);
    if (words.empty()) return;
    words.front().insert(0, "{");
    words.back() += "}";
    for (const std::string& one : words) word(one);
  }
  void moves(const std::vector<RecordedMove>& line, const std::string& intro, std::size_t ply) {
    comment(intro);
    bool numbered = false;  // the number was just written, or is not needed
    for (const RecordedMove& one : line) {
      if (ply % 2 == 0)
        word(fmt::format("{}.", ply / 2 + 1));
      else if (!numbered)
        word(fmt::format("{}...", ply / 2 + 1));
      word(isPlain(one.text) ? one.text : escaped(one.text));
      for (int glyph : one.glyphs) word(fmt::format("${}", glyph));
      comment(one.comment);
      for (const RecordedMove::Line& other : one.lines) {
        word("(");
        moves(other.moves, other.comment, ply);
        word(")");
      }
      numbered = one.comment.empty() && one.lines.empty();
      ++ply;
    }
  }
  std::string text() {
    flush();
    return std::move(out_);
  }

 private:
  void flush() {
    if (!line_.empty()) out_ += line_ + "\n";
    line_.clear();
  }
  std::string out_, line_;
};

}  // namespace

std::string toText(const GameRecord& record) {
  std::string out;
  bool fen = record.start.find(" w ") != std::string::npos ||
             record.start.find(" b ") != std::string::npos;
  for (const auto& [name, value] : record.tags)
    out += fmt::format("[{} {}]\n", name, escaped(value));
  if (!record.start.empty())
    out += fmt::format("[SetUp \"1\"]\n[{} {}]\n", fen ? "FEN" : "Position", escaped(record.start));
  // A game that begins with the second side's move is numbered so, as far as it is known here.
  std::size_t first = fen && record.start.find(" b ") != std::string::npos ? 1 : 0;
  Writer writer;
  writer.moves(record.moves, record.comment, first);
  writer.word(record.result);
  return out + "\n" + writer.text();
}

}  // namespace ninepegs::records
