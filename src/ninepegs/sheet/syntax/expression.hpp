// What the files of the expression parser share. Internal.
#pragma once

#include <fmt/format.h>

#include <string>
#include <utility>
#include <vector>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/sheet/syntax/cursor.hpp"

namespace ninepegs::sheet {

Expr chain(Cursor& in);    // primary { on primary }
Expr primary(Cursor& in);  // the one thing that a prefix word takes

struct Deeper {
  explicit Deeper(Cursor& in) : cursor(in) {
    if (++cursor.depth > limits::nesting)
      cursor.refuse(cursor.span(),
                    fmt::format("this is nested deeper than {}, the limit", limits::nesting),
                    "give a part of it a name with `define` or `let`");
  }
  ~Deeper() { --cursor.depth; }
  Deeper(const Deeper&) = delete;
  Deeper& operator=(const Deeper&) = delete;
  Cursor& cursor;
};

inline Expr node(ExprKind kind, Span span, std::vector<Expr> args = {}, std::string word = {}) {
  Expr expr;
  expr.kind = kind;
  expr.span = span;
  expr.word = std::move(word);
  expr.args = std::move(args);
  return expr;
}

// Two operands joined by an operator, of which a line may hold limits::operators.
inline Expr binaryNode(Cursor& in, ExprKind kind, Span span, Expr left, Expr right,
                       std::string word = {}) {
  if (++in.operators > limits::operators)
    in.refuse(span,
              fmt::format("this line has more than {} operators, the limit", limits::operators),
              "give a part of it a name with `define` or `let`");
  Expr expr = node(kind, span, {}, std::move(word));
  expr.args.reserve(2);
  expr.args.push_back(std::move(left));
  expr.args.push_back(std::move(right));
  return expr;
}

bool isDirection(const std::string& word);

// The form that a word of the language begins, read from behind that word; none if the word begins
// no form (parse_forms.cpp).
bool form(Cursor& in, const Token& token, Expr& out);

}  // namespace ninepegs::sheet
