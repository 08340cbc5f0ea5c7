#include "ninepegs/records/movetext.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <sstream>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/records/words.hpp"

namespace ninepegs::records {
namespace {

// Signs behind a move, by their glyphs from 1 on.
constexpr std::string_view signs[] = {"!", "?", "!!", "??", "!?", "?!"};

// Blanks and line ends as one blank each.
std::string even(std::string_view text) {
  std::string out;
  for (char c : text) {
    bool blank = isBlank(c) || c == '\n' || c == '\r';
    if (blank && (out.empty() || out.back() == ' ')) continue;
    out += blank ? ' ' : c;
  }
  while (!out.empty() && out.back() == ' ') out.pop_back();
  return out;
}

void addComment(std::string& to, const std::string& text) {
  if (text.empty()) return;
  to += (to.empty() ? "" : " ") + text;
}

}  // namespace

void RecordReader::refuse(int column, const std::string& message, const std::string& hint,
                          int length) const {
  throw BadInput(Place{source_, number_, column, length, line_.substr(0, limits::lineBytes)},
                 message, hint);
}

bool RecordReader::nextLine() {
  line_.clear();
  at_ = 0;
  ++number_;
  bool any = false;
  for (int c = in_.get(); c != std::istream::traits_type::eof(); c = in_.get()) {
    any = true;
    if (c == '\n') break;
    line_ += static_cast<char>(c);
    if (line_.size() > limits::recordLine)
      refuse(0, fmt::format("this line is longer than {} bytes", limits::recordLine),
             "a record is a text with lines of about 80 symbols");
  }
  if (!any) return false;
  if (!line_.empty() && line_.back() == '\r') line_.pop_back();
  if (number_ == 1 && line_.starts_with("\xef\xbb\xbf")) at_ = 3;
  if (std::size_t bad = firstBadUtf8(line_); bad != line_.npos)
    refuse(static_cast<int>(utf8Symbols(line_.substr(0, bad)).size()) + 1, "this is not UTF-8 text",
           "if it is Latin-1: iconv -f latin1 -t utf8 FILE");
  if (std::size_t zero = line_.find('\0'); zero != line_.npos)
    refuse(static_cast<int>(utf8Symbols(line_.substr(0, zero)).size()) + 1,
           "a zero byte stands here", "a record is a plain text");
  if (line_.starts_with("%")) at_ = line_.size();  // a line for other programs
  return true;
}

bool RecordReader::skipBlanks() {
  while (true) {
    while (at_ < line_.size() && isBlank(line_[at_])) ++at_;
    if (at_ < line_.size()) return true;
    if (!nextLine()) return false;
  }
}

// A text in double quotes; requires that one begins here.
std::string RecordReader::quoted() {
  std::size_t begin = at_++;
  std::string out;
  while (at_ < line_.size() && line_[at_] != '"') {
    if (line_[at_] == '\\' && at_ + 1 < line_.size()) ++at_;
    out += line_[at_++];
  }
  if (at_ == line_.size())
    refuse(static_cast<int>(begin) + 1, "the text in quotes is not closed in its line",
           "a double quote ends it");
  ++at_;
  return out;
}

RecordReader::Token RecordReader::token() {
  while (true)
    if (std::optional<Token> one = tokenOrNumber()) return *one;
}

// Nothing: the number of a move stood there.
std::optional<RecordReader::Token> RecordReader::tokenOrNumber() {
  Token out;
  if (!skipBlanks()) return out;
  out.line = number_;
  out.column = static_cast<int>(utf8Symbols(line_.substr(0, at_)).size()) + 1;
  char c = line_[at_];
  if (c == '(' || c == ')' || c == '[') {
    out.kind = c == '(' ? Token::Kind::open : c == ')' ? Token::Kind::close : Token::Kind::bracket;
    if (c != '[') ++at_;
    return out;
  }
  if (c == '{' || c == ';') {
    out.kind = Token::Kind::comment;
    ++at_;
    if (c == ';') {
      out.text = even(line_.substr(at_));
      at_ = line_.size();
      return out;
    }
    std::string all;
    while (true) {
      std::size_t to = line_.find('}', at_);
      all += line_.substr(at_, to == line_.npos ? to : to - at_);
      if (to != line_.npos) {
        at_ = to + 1;
        break;
      }
      all += ' ';
      if (all.size() > limits::recordLine || !nextLine())
        throw BadInput(Place{source_, out.line, out.column, 1, {}},
                       "the comment that begins here is not closed", "a } ends it");
    }
    out.text = even(all);
    return out;
  }
  if (c == '"') {
    out.kind = Token::Kind::move;
    out.text = quoted();
    if (trimmed(out.text).empty()) refuse(out.column, "a move is empty", "");
    return out;
  }
  if (c == '$') {
    std::size_t from = ++at_;
    while (at_ < line_.size() && std::isdigit(static_cast<unsigned char>(line_[at_]))) ++at_;
    std::optional<unsigned long long> number = wholeNumber(line_.substr(from, at_ - from));
    if (!number || *number > 255)
      refuse(out.column, "this is no annotation glyph", "they are $0 to $255");
    out.kind = Token::Kind::glyph;
    out.glyphs = {static_cast<int>(*number)};
    return out;
  }
  if (c == '}' || c == ']') refuse(out.column, fmt::format("a {} that nothing opens", c), "");
  std::size_t from = at_;
  while (at_ < line_.size() && !ends(line_[at_])) ++at_;
  std::string word = line_.substr(from, at_ - from);
  if (at_ < line_.size() && line_[at_] == ';')
    refuse(static_cast<int>(at_) + 1, "`;` begins a comment in a record",
           "moves are divided by blanks; put a blank before a comment");
  std::size_t digits = 0;
  while (digits < word.size() && std::isdigit(static_cast<unsigned char>(word[digits]))) ++digits;
  if (digits < word.size() && word[digits] == '.') {  // the number of a move
    while (digits < word.size() && word[digits] == '.') ++digits;
    word.erase(0, digits);
    out.column += static_cast<int>(digits);
    if (word.empty()) return std::nullopt;
  }
  if (isResult(word)) {
    out.kind = Token::Kind::result;
    out.text = word;
    return out;
  }
  if (word.find_first_not_of('.') == word.npos) return std::nullopt;  // "1 ... e5"
  while (!word.empty() && word.back() == ',') word.pop_back();
  std::size_t bare = word.find_last_not_of("!?");
  std::string sign = bare == word.npos ? word : word.substr(bare + 1);
  if (!sign.empty()) {
    const auto* known = std::find(std::begin(signs), std::end(signs), sign);
    if (known == std::end(signs)) refuse(out.column, fmt::format("\"{}\" is no sign", sign), "");
    int glyph = static_cast<int>(known - std::begin(signs)) + 1;
    word.resize(word.size() - sign.size());
    out.glyphs = {glyph};
    out.kind = word.empty() ? Token::Kind::glyph : Token::Kind::move;
  } else {
    out.kind = Token::Kind::move;
  }
  if (word.empty() && sign.empty()) refuse(out.column, "a move is missing here", "");
  out.text = word;
  return out;
}

void RecordReader::readTag(GameRecord& record) {
  int column = static_cast<int>(at_) + 1;
  const char* hint = "a tag looks like: [Game \"tic-tac-toe\"]";
  auto blanks = [&] {
    while (at_ < line_.size() && isBlank(line_[at_])) ++at_;
  };
  ++at_;
  blanks();
  std::size_t from = at_;
  while (at_ < line_.size() &&
         (std::isalnum(static_cast<unsigned char>(line_[at_])) || line_[at_] == '_'))
    ++at_;
  std::string name = line_.substr(from, at_ - from);
  blanks();
  if (name.empty() || at_ >= line_.size() || line_[at_] != '"')
    refuse(column, "this is no tag", hint);
  std::string value = quoted();
  blanks();
  if (at_ >= line_.size() || line_[at_] != ']') refuse(column, "this tag is not closed", hint);
  ++at_;
  if (name == "Position" || name == "FEN")
    record.start = value;
  else if (name != "SetUp")
    record.setTag(name, value);
  if (record.tags.size() > 1000) refuse(column, "more than 1000 tags", "");
}

void RecordReader::readLine(GameRecord& record, std::vector<RecordedMove>& moves,
                            std::string& intro, int depth) {
  if (depth > limits::recordDepth)
    refuse(static_cast<int>(at_),
           fmt::format("variations stand more than {} deep in each other", limits::recordDepth),
           "");
  int line = number_, column = static_cast<int>(at_);
  auto notClosed = [&] {
    throw BadInput(Place{source_, line, column, 1, {}},
                   "the variation that begins here is not closed", "a ) ends it");
  };
  while (true) {
    Token next = token();
    switch (next.kind) {
      case Token::Kind::end:
        if (depth > 0) notClosed();
        return;
      case Token::Kind::bracket:
        if (depth > 0) notClosed();
        return;  // the next game's tags
      case Token::Kind::open:
        if (moves.empty())
          refuse(next.column, "a variation stands before any move",
                 "it tells what could have been played instead of the move before it");
        moves.back().lines.emplace_back();
        readLine(record, moves.back().lines.back().moves, moves.back().lines.back().comment,
                 depth + 1);
        break;
      case Token::Kind::close:
        if (depth > 0) return;
        refuse(next.column, "a ) that nothing opens", "");
      case Token::Kind::comment:
        addComment(moves.empty() ? intro : moves.back().comment, next.text);
        break;
      case Token::Kind::glyph:
        if (moves.empty()) refuse(next.column, "a sign stands before any move", "");
        moves.back().glyphs.push_back(next.glyphs.front());
        break;
      case Token::Kind::result:
        if (depth > 0) break;
        record.result = next.text;
        over_ = true;
        return;
      case Token::Kind::move: {
        if (++moves_ > limits::recordMoves)
          refuse(next.column, fmt::format("a game of more than {} moves", limits::recordMoves), "");
        RecordedMove one;
        one.text = next.text;
        one.line = next.line;
        one.column = next.column;
        one.glyphs = next.glyphs;
        moves.push_back(std::move(one));
        break;
      }
    }
  }
}

std::optional<GameRecord> RecordReader::next() {
  GameRecord record;
  moves_ = 0;
  over_ = false;
  if (!skipBlanks()) return std::nullopt;
  record.line = number_;
  while (at_ < line_.size() && line_[at_] == '[') {
    readTag(record);
    if (!skipBlanks()) break;
  }
  std::string said = record.tag("Result");
  if (isResult(said)) record.result = said;
  readLine(record, record.moves, record.comment, 0);
  return record;
}

GameRecord readRecord(const std::string& text, const std::string& source) {
  std::istringstream in(text);
  RecordReader reader(in, source);
  std::optional<GameRecord> record = reader.next();
  if (!record) throw BadInput(Place{source, 0, 0, 1, {}}, "there is no game in it", "");
  if (reader.next())
    throw BadInput(Place{source, 0, 0, 1, {}}, "there is more than one game in it",
                   "`replay` takes files of many games");
  return *record;
}

}  // namespace ninepegs::records
