#include "ninepegs/sheet/text/blocks.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"

namespace ninepegs::sheet {
namespace {

bool isLetter(std::string_view symbol) {
  unsigned char c = static_cast<unsigned char>(symbol[0]);
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_' || c >= 0x80;
}
bool isDigit(std::string_view symbol) {
  return symbol[0] >= '0' && symbol[0] <= '9';
}

// Every blank-separated part is one character, and there are two of them or more, or one that
// can stand for a cell's content.
bool looksLikePicture(std::string_view body) {
  std::vector<std::string> symbols = utf8Symbols(trimmed(body));
  for (std::size_t i = 0; i < symbols.size(); ++i) {
    bool space = symbols[i] == " ";
    if (i % 2 == 1 && !space) {
      // more than one blank between cells is fine too
      return false;
    }
    if (i % 2 == 0 && (space || symbols[i] == "," || symbols[i] == "\"")) return false;
  }
  return symbols.size() >= 2 || (symbols.size() == 1 && !isDigit(symbols[0]));
}

// Runs of blanks become one blank, so that pictures may be spaced as one likes.
std::string squeezed(std::string_view text) {
  std::string out;
  for (char c : text)
    if (c != ' ' || out.empty() || out.back() != ' ') out += c;
  return out;
}

// Does the line list moves? Their texts may end in any sign.
bool listsMoves(const std::vector<Token>& line) {
  auto sees = [&](std::size_t i, const char* word) {
    return line.size() > i && line[i].kind == TokenKind::word && line[i].text == word;
  };
  if (sees(0, "play")) return true;
  return sees(0, "expect") &&
         (sees(1, "legal") || (sees(1, "not") && sees(2, "legal")) || sees(1, "moves"));
}

bool continues(const std::vector<Token>& line) {
  const Token& last = line.back();
  if (listsMoves(line)) return last.kind == TokenKind::symbol && last.text == ",";
  if (last.kind != TokenKind::symbol && last.kind != TokenKind::word) return false;
  static const std::vector<std::string> open = {
      ",",  "(",  "+",  "-",   "*",  "/",  "%",      "=",      "<",    ">",
      "<=", ">=", "!=", "and", "or", "on", "except", "within", "then", "else"};
  return std::find(open.begin(), open.end(), last.text) != open.end();
}

struct Row {
  int indent = 0;
  Block block;
};

// Places rows[at...] that are deeper than `parent` below it.
std::size_t adopt(const Source& source, std::vector<Row>& rows, std::size_t at, int parentIndent,
                  std::vector<Block>& into, int depth, std::vector<Diagnostic>& found) {
  int level = -1;
  while (at < rows.size()) {
    Row& row = rows[at];
    if (row.indent <= parentIndent) return at;
    if (row.block.pictureRow && depth > 0) {
      into.push_back(std::move(row.block));
      ++at;
      continue;
    }
    if (level < 0) level = row.indent;
    if (row.indent != level) {
      addMessage(found,
                 {source.place(row.block.span),
                  row.indent > level ? "this line is indented deeper than the line above it opens"
                                     : "this line is indented less than its neighbours",
                  fmt::format("indent it by {} blanks, like the first line of its block", level)});
    }
    if (depth > limits::nesting) {
      addMessage(found,
                 {source.place(row.block.span),
                  fmt::format("blocks are nested deeper than {}, the limit", limits::nesting), ""});
      return rows.size();
    }
    int indent = row.indent;
    into.push_back(std::move(row.block));
    Block& block = into.back();
    at = adopt(source, rows, at + 1, indent, block.children, depth + 1, found);
  }
  return at;
}

// Without a byte-order mark in front, which some editors write.
std::string_view withoutMark(std::string_view text) {
  if (text.starts_with("\xef\xbb\xbf")) text.remove_prefix(3);
  return text;
}

// Characters that look like ones of the language and are others; empty: none of them.
std::string_view lookalike(std::string_view symbol) {
  if (symbol == "\u00a0" || symbol == "\u202f" || symbol == "\u2007") return "a no-break space";
  for (std::string_view quote : {"\u201c", "\u201d", "\u201e", "\u00ab", "\u00bb"})
    if (symbol == quote) return "a curly quote";
  if (symbol == "\u2018" || symbol == "\u2019") return "a curly apostrophe";
  if (symbol == "\u2013" || symbol == "\u2014" || symbol == "\u2212") return "a long dash";
  return "";
}

}  // namespace

std::size_t commentAt(std::string_view line) {
  bool quoted = false;
  for (std::size_t i = 0; i < line.size(); ++i) {
    if (line[i] == '"') quoted = !quoted;
    if (line[i] == '#' && !quoted) return i;
  }
  return line.npos;
}

std::string withoutComment(std::string_view line) {
  return std::string(line.substr(0, commentAt(line)));
}

Source::Source(std::string name, std::string_view text) : name_(std::move(name)) {
  addLines(text);
}

void Source::addCases(std::string name, std::string_view text) {
  casesName_ = std::move(name);
  firstOfCases_ = static_cast<int>(lines_.size()) + 1;
  addLines(text);
}

void Source::addLines(std::string_view text) {
  text = withoutMark(text);
  std::size_t from = 0;
  while (from <= text.size()) {
    std::size_t to = text.find('\n', from);
    std::string_view line = text.substr(from, to == text.npos ? text.npos : to - from);
    if (!line.empty() && line.back() == '\r') line.remove_suffix(1);
    lines_.emplace_back(line);
    if (to == text.npos) break;
    from = to + 1;
  }
}

std::string Source::line(int number) const {
  return number >= 1 && number <= static_cast<int>(lines_.size()) ? lines_[number - 1] : "";
}

Place Source::place(Span span) const {
  if (span.line >= firstOfCases())
    return Place{casesName_, span.line - firstOfCases_ + 1, span.column, span.length,
                 line(span.line)};
  return Place{name_, span.line, span.column, span.length, line(span.line)};
}

void requireText(const std::string& name, std::string_view text) {
  if (text.size() > limits::sheetBytes)
    throw BadInput(Place{name, 0, 0, 1, {}},
                   fmt::format("the sheet is larger than {} bytes, the limit", limits::sheetBytes));
  std::size_t bad = firstBadUtf8(text);
  std::size_t zero = text.find('\0');
  std::size_t at = std::min(bad, zero);
  if (at != text.npos) {
    int line = 1 + static_cast<int>(std::count(text.begin(), text.begin() + at, '\n'));
    throw BadInput(Place{name, line, 0, 1, {}},
                   fmt::format("this is not UTF-8 text: byte {} of the file has the value {}",
                               at + 1, static_cast<unsigned char>(text[at])),
                   "a game sheet is a plain text file");
  }
  if (trimmed(withoutMark(text)).empty())
    throw BadInput(Place{name, 0, 0, 1, {}}, "the sheet is empty",
                   "a sheet begins with a line such as: game three-in-a-row");
}

std::vector<Token> tokens(const Source& source, std::string_view line, int lineNumber,
                          std::vector<Diagnostic>& found) {
  std::vector<Token> out;
  std::vector<std::string> symbols = utf8Symbols(line);
  auto at = [&](std::size_t i) -> std::string_view {
    return i < symbols.size() ? std::string_view(symbols[i]) : std::string_view("\n");
  };
  for (std::size_t i = 0; i < symbols.size();) {
    if (symbols[i] == " ") {
      ++i;
      continue;
    }
    std::size_t from = i;
    if (std::string_view what = lookalike(at(i)); !what.empty()) {
      addMessage(found, {source.place({lineNumber, static_cast<int>(from) + 1, 1}),
                         fmt::format("{} stands here", what),
                         what == "a curly quote"        ? "texts stand between straight quotes: \""
                         : what == "a no-break space"   ? "use a plain blank"
                         : what == "a curly apostrophe" ? "use a plain one: '"
                                                        : "use a plain minus: -"});
      ++i;
      continue;
    }
    Token token;
    if (isLetter(at(i))) {
      token.kind = TokenKind::word;
      auto inside = [&](std::size_t k) {
        if (!lookalike(at(k)).empty()) return false;
        if (isLetter(at(k)) || isDigit(at(k))) return true;
        return (at(k) == "-" || at(k) == "." || at(k) == "'") &&
               (isLetter(at(k + 1)) || isDigit(at(k + 1)));
      };
      while (inside(i)) token.text += symbols[i++];
    } else if (isDigit(at(i))) {
      token.kind = TokenKind::number;
      while (isDigit(at(i))) token.text += symbols[i++];
      std::optional<unsigned long long> value = wholeNumber(token.text, 1'000'000'000'000ull);
      token.number = static_cast<long long>(value.value_or(0));
      if (!value)
        addMessage(
            found,
            {source.place({lineNumber, static_cast<int>(from) + 1, static_cast<int>(i - from)}),
             "this number is too large", "numbers go up to 1000000000000"});
    } else if (at(i) == "\"") {
      token.kind = TokenKind::text;
      for (++i; i < symbols.size() && symbols[i] != "\""; ++i) token.text += symbols[i];
      if (i == symbols.size())
        addMessage(found,
                   {source.place({lineNumber, static_cast<int>(from) + 1, 1}),
                    "this text has no closing quote", "texts end on the line they begin on"});
      else
        ++i;
    } else {
      token.text = symbols[i++];
      if (at(i) == "=" && (token.text == "<" || token.text == ">" || token.text == "!"))
        token.text += symbols[i++];
    }
    token.span = {lineNumber, static_cast<int>(from) + 1, static_cast<int>(i - from)};
    out.push_back(std::move(token));
  }
  return out;
}

std::vector<Block> blocks(const Source& source, std::vector<Diagnostic>& found) {
  std::vector<Row> rows;
  bool open = false;     // the last row waits for its continuation
  int aboutIndent = -1;  // inside prose: its lines are no tokens
  for (int number = 1; number <= static_cast<int>(source.lines().size()); ++number) {
    if (number == source.firstOfCases()) open = false, aboutIndent = -1;
    const std::string& whole = source.lines()[number - 1];
    if (whole.size() > limits::lineBytes) {
      addMessage(
          found,
          {source.place({number, 0, 1}),
           fmt::format("this line is longer than {} bytes, the limit", limits::lineBytes), ""});
      return {};
    }
    std::size_t first = whole.find_first_not_of(" \t\r");
    if (first == std::string::npos) continue;
    std::size_t tab = whole.find('\t');
    if (tab != std::string::npos) {
      int column = static_cast<int>(utf8Symbols(std::string_view(whole).substr(0, tab)).size()) + 1;
      addMessage(found, {source.place({number, column, 1}), "this line holds a tab",
                         "use blanks, so that the indentation means the same everywhere"});
      continue;
    }
    int indent = static_cast<int>(first);
    if (aboutIndent >= 0 && indent > aboutIndent) {
      Row row;
      row.indent = indent;
      row.block.raw = std::string(trimmed(whole));
      row.block.span = {number, indent + 1, static_cast<int>(utf8Symbols(row.block.raw).size())};
      row.block.tokens = {{TokenKind::text, row.block.raw, 0, row.block.span}};
      row.indent = aboutIndent + 2;  // prose may be indented as one likes
      rows.push_back(std::move(row));
      continue;
    }
    aboutIndent = -1;
    std::string body = withoutComment(whole);
    if (trimmed(body).empty()) continue;
    std::string raw(trimmed(body));
    bool picture = !open && indent > 0 && looksLikePicture(squeezed(raw));
    if (picture) raw = squeezed(raw);
    std::vector<Token> line;
    if (picture) {
      line.push_back({TokenKind::text,
                      raw,
                      0,
                      {number, indent + 1, static_cast<int>(utf8Symbols(raw).size())}});
    } else {
      line = tokens(source, body, number, found);
    }
    if (line.empty()) continue;
    if (open) {
      Block& block = rows.back().block;
      block.joints.push_back(
          {static_cast<int>(utf8Symbols(block.raw).size()) + 1, {number, indent + 1, 1}});
      block.raw += " " + raw;
      block.tokens.insert(block.tokens.end(), line.begin(), line.end());
      open = continues(block.tokens);
      continue;
    }
    Row row;
    row.indent = indent;
    row.block.span = {number, indent + 1, static_cast<int>(utf8Symbols(raw).size())};
    row.block.raw = raw;
    row.block.pictureRow = picture;
    row.block.tokens = std::move(line);
    bool prose = indent == 0 && row.block.word() == "about";
    if (!picture && !prose) open = continues(row.block.tokens);
    if (prose) aboutIndent = indent;
    rows.push_back(std::move(row));
  }
  std::vector<Block> out;
  if (!rows.empty() && rows.front().indent > 0)
    addMessage(found, {source.place(rows.front().block.span),
                       "the first line of a sheet must not be indented", ""});
  for (std::size_t i = 1; i < rows.size(); ++i) {
    int last = rows[i - 1].block.span.line, line = rows[i].block.span.line;
    if (last < source.firstOfCases() && line >= source.firstOfCases() && rows[i].indent > 0)
      addMessage(found, {source.place(rows[i].block.span),
                         "the first line of a file of cases must not be indented", ""});
  }
  adopt(source, rows, 0, -1, out, 0, found);
  return out;
}

}  // namespace ninepegs::sheet
