#include "ninepegs/sheet/syntax/cursor.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {

const Token& Cursor::peek(std::size_t ahead) const {
  static const Token none;
  return at_ + ahead < tokens_.size() ? tokens_[at_ + ahead] : none;
}

const Token& Cursor::next() {
  const Token& token = peek();
  if (!atEnd()) ++at_;
  return token;
}

Span Cursor::span() const {
  if (!atEnd()) return tokens_[at_].span;
  if (tokens_.empty()) return {};
  Span last = tokens_.back().span;
  return {last.line, last.column + last.length, 1};
}

bool Cursor::sees(std::string_view text, std::size_t ahead) const {
  const Token& token = peek(ahead);
  return token.kind != TokenKind::text && token.text == text;
}

bool Cursor::accept(std::string_view text) {
  if (!sees(text)) return false;
  ++at_;
  return true;
}

void Cursor::expect(std::string_view text, const std::string& hint) {
  if (accept(text)) return;
  refuse(span(),
         atEnd() ? fmt::format("the line ends where \"{}\" should follow", text)
                 : fmt::format("\"{}\" should stand here, not \"{}\"", text, peek().text),
         hint);
}

Name Cursor::word(const std::string& what) {
  if (atEnd()) refuse(span(), fmt::format("the line ends where {} should follow", what));
  const Token& token = peek();
  if (token.kind != TokenKind::word)
    refuse(token.span, fmt::format("{} should stand here, not \"{}\"", what, token.text),
           "names begin with a letter");
  ++at_;
  return {token.text, token.span};
}

Name Cursor::name(const std::string& what) {
  Name name = word(what);
  const std::vector<std::string>& words = reservedWords();
  if (std::find(words.begin(), words.end(), name.text) != words.end())
    refuse(name.span,
           fmt::format("\"{}\" is a word of the language and cannot be {}", name.text, what),
           "choose another name");
  return name;
}

Name Cursor::moveName(const std::string& what) {
  Name name = word(what);
  for (const char* taken : {"pass", "or", "else", "every", "pieces", "turn"})
    if (name.text == taken)
      refuse(name.span, fmt::format("\"{}\" means something else where moves are named", name.text),
             "choose another name");
  return name;
}

std::string Cursor::text(const std::string& what) {
  if (peek().kind != TokenKind::text || atEnd())
    refuse(span(), fmt::format("{} should stand here, in double quotes", what));
  return next().text;
}

long long Cursor::number(const std::string& what) {
  bool negative = sees("-") && peek(1).kind == TokenKind::number;
  if (negative) ++at_;
  if (peek().kind != TokenKind::number || atEnd())
    refuse(span(), fmt::format("{} should stand here, as a number", what));
  long long value = next().number;
  return negative ? -value : value;
}

void Cursor::end() {
  if (atEnd()) return;
  bool cells = at_ > 0 && Geometry::isPointLabel(peek().text) &&
               Geometry::isPointLabel(tokens_[at_ - 1].text);
  refuse(span(), fmt::format("nothing more is expected here, but \"{}\" follows", peek().text),
         cells ? fmt::format("several cells are joined by `or`: {} or {}", tokens_[at_ - 1].text,
                             peek().text)
               : "");
}

// What a sign of other languages is in this one; empty: it is none. `at` is the place of its first.
std::string Cursor::foreign(std::size_t at) const {
  auto is = [&](std::size_t place, const char* text) {
    return place < tokens_.size() && tokens_[place].text == text &&
           tokens_[place].kind != TokenKind::text;
  };
  if (is(at, "&")) return "say: and";
  if (is(at, "|")) return "say: or";
  if (is(at, "=") && (is(at + 1, "=") || (at > 0 && is(at - 1, "=")))) return "say: =";
  if (is(at, "!")) return is(at + 1, "=") ? "say: !=" : "say: not";
  if (is(at, ":") && at + 1 == tokens_.size()) return "no colon stands at the end of a line";
  if (is(at, ";")) return "a line ends without a semicolon";
  if (is(at, "{") || is(at, "}")) return "blocks are made by indentation, without braces";
  return "";
}

void Cursor::refuse(Span span, const std::string& message, const std::string& hint) {
  std::string other;
  for (std::size_t place = 0; place < tokens_.size(); ++place)
    if (tokens_[place].span.line == span.line && tokens_[place].span.column >= span.column &&
        other.empty())
      other = foreign(place);
  note(span, message, other.empty() ? hint : other);
  throw Refused{};
}

void Cursor::note(Span span, const std::string& message, const std::string& hint) {
  addMessage(found_, {source_.place(span), message, hint});
}

void refuseChildren(const Block& block, Cursor& in) {
  if (!block.children.empty())
    in.note(block.children.front().span,
            fmt::format("`{}` holds no further lines, but this one is indented below it",
                        block.word()));
}

void nothingFollows(const Block& block, Cursor& in) {
  in.end();
  refuseChildren(block, in);
}

bool acceptPhrase(Cursor& in, const char* first, std::initializer_list<const char*> others,
                  const std::string& hint) {
  if (!in.accept(first)) return false;
  for (const char* word : others) in.expect(word, hint);
  return true;
}

std::optional<Name> forSide(Cursor& in) {
  if (!in.accept("for")) return std::nullopt;
  return in.name("a side");
}

}  // namespace ninepegs::sheet
