// Steps through the tokens of one line and raises messages that point into it. Internal to the
// parser: a message ends the reading of its line by throwing Refused, which the parser catches
// where the next line begins.
#pragma once

#include <initializer_list>
#include <optional>
#include <string>
#include <vector>

#include "ninepegs/base/diagnostic.hpp"
#include "ninepegs/sheet/syntax/tree.hpp"
#include "ninepegs/sheet/text/blocks.hpp"

namespace ninepegs::sheet {

struct Refused {};

class Cursor {
 public:
  Cursor(const Source& source, const std::vector<Token>& tokens, std::vector<Diagnostic>& found)
      : source_(source), tokens_(tokens), found_(found) {}

  bool atEnd() const { return at_ >= tokens_.size(); }
  std::size_t position() const { return at_; }
  const Token& peek(std::size_t ahead = 0) const;
  const Token& next();
  Span span() const;  // of the next token, or just behind the last one

  // Is the next token this word or symbol?
  bool sees(std::string_view text, std::size_t ahead = 0) const;
  bool accept(std::string_view text);
  void expect(std::string_view text, const std::string& hint = {});
  Name word(const std::string& what);  // a name that expressions never use: any word
  Name name(const std::string& what);  // a name that is no word of the language
  // The name of a move: nothing but a few words can be mistaken where it stands.
  Name moveName(const std::string& what);
  std::string text(const std::string& what);  // a quoted text
  long long number(const std::string& what);
  void end();  // nothing may follow

  [[noreturn]] void refuse(Span span, const std::string& message, const std::string& hint = {});
  void note(Span span, const std::string& message, const std::string& hint = {});

  int depth = 0;      // nesting of brackets, and
  int operators = 0;  // operators so far, kept by the expression parser

 private:
  const Source& source_;
  const std::vector<Token>& tokens_;
  std::string foreign(std::size_t at) const;

  std::vector<Diagnostic>& found_;
  std::size_t at_ = 0;
};

// Gives a message if lines are indented below a line that holds none.
void refuseChildren(const Block& block, Cursor& in);
// The same, and that the line goes on.
void nothingFollows(const Block& block, Cursor& in);
// `first`, and then the others must follow; false: there is no `first`.
bool acceptPhrase(Cursor& in, const char* first, std::initializer_list<const char*> others,
                  const std::string& hint);
// The side behind `for`, if it stands there.
std::optional<Name> forSide(Cursor& in);

// An expression from the cursor on (parse_expression.cpp).
Expr expression(Cursor& cursor);
Expr sum(Cursor& cursor);  // a number, up to the next word that is none of its own
Expr condition(Cursor& cursor);
Expr operand(Cursor& cursor);  // the one thing that a prefix word takes

}  // namespace ninepegs::sheet
