// Expressions. From loose to tight: or, and, not, comparison, sum, product, set chain (on, except),
// then the prefix words, each of which takes the one thing behind it (any, no and count: a chain).
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/board/geometry.hpp"
#include "ninepegs/sheet/cursor.hpp"
#include "ninepegs/sheet/parser.hpp"

namespace ninepegs::sheet {
namespace {

Expr chain(Cursor& in);
Expr primary(Cursor& in);

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

Expr node(ExprKind kind, Span span, std::vector<Expr> args = {}, std::string word = {}) {
  Expr expr;
  expr.kind = kind;
  expr.span = span;
  expr.word = std::move(word);
  expr.args = std::move(args);
  return expr;
}

bool isDirection(const std::string& word) {
  static const std::vector<std::string> names = [] {
    std::vector<std::string> out = Geometry::directionGroupNames();
    out.erase(out.begin(), out.begin() + 3);  // the groups of several directions
    for (const char* name : {"forward", "backward"}) out.emplace_back(name);
    return out;
  }();
  return std::find(names.begin(), names.end(), word) != names.end();
}

// The name of a group of directions, as in `step diagonal from S`.
std::string directionGroup(Cursor& in) {
  static const std::vector<std::string> names = [] {
    std::vector<std::string> out = Geometry::directionGroupNames();
    for (const char* name :
         {"forward", "backward", "forward-diagonal", "backward-diagonal", "forward-any"})
      out.emplace_back(name);
    return out;
  }();
  const Token& token = in.peek();
  if (in.atEnd() || std::find(names.begin(), names.end(), token.text) == names.end())
    in.refuse(in.span(),
              in.atEnd() ? "a group of directions should follow"
                         : fmt::format("\"{}\" is no group of directions", token.text),
              didYouMean(token.text, names, "such as: orthogonal, diagonal, any, north"));
  return in.next().text;
}

std::string optionalAlong(Cursor& in) {
  return in.accept("along") ? directionGroup(in) : "any";
}

Expr rowsOrColumns(Cursor& in, Span span, const std::string& word) {
  bool rows = word[0] == 'r';
  Expr expr = node(rows ? ExprKind::rows : ExprKind::columns, span);
  auto one = [&]() -> long long {
    if (in.peek().kind == TokenKind::number && !in.atEnd()) return in.next().number;
    if (!rows && in.peek().kind == TokenKind::word && !in.atEnd()) {
      const Token& token = in.next();
      long long value = 0;
      for (char c : token.text) {
        if (c < 'a' || c > 'z' || value > 1000)
          in.refuse(token.span, fmt::format("\"{}\" is no column", token.text),
                    "columns are named a, b, c ...");
        value = value * 26 + (c - 'a' + 1);
      }
      return value;
    }
    in.refuse(in.span(),
              rows ? "the number of a row should follow" : "the letter of a column should follow");
  };
  expr.first = expr.second = one();
  if (word.back() == 's') {
    in.expect("to", "say: rows 2 to 4");
    expr.second = one();
  }
  return expr;
}

Expr lines(Cursor& in, Span span, bool plural) {
  in.expect("of", plural ? "say: lines of 4 in mine" : "say: any line of 4 in mine");
  Expr expr = node(ExprKind::lines, span);
  expr.plural = plural;
  if (in.accept("exactly")) expr.first = 1;
  expr.args.push_back(primary(in));
  in.expect("in");
  expr.args.push_back(primary(in));
  if (in.accept("through")) expr.args.push_back(primary(in));
  expr.word = optionalAlong(in);
  return expr;
}

Expr named(Cursor& in, const Token& token) {
  Expr expr = node(ExprKind::name, token.span, {}, token.text);
  if (in.accept("(")) {
    Deeper deeper(in);
    expr.kind = ExprKind::call;
    if (!in.accept(")")) {
      do expr.args.push_back(expression(in));
      while (in.accept(","));
      in.expect(")");
    }
  }
  if (in.sees("of")) {
    in.next();
    Deeper deeper(in);
    Expr of = primary(in);
    return node(ExprKind::ofName, token.span, {std::move(expr), std::move(of)}, token.text);
  }
  return expr;
}

Expr primary(Cursor& in) {
  Deeper deeper(in);
  if (in.atEnd())
    in.refuse(in.span(), "the line ends where a value should follow",
              "such as: empty, mine, count theirs");
  const Token token = in.peek();
  Span span = token.span;
  if (token.kind == TokenKind::number) {
    in.next();
    Expr expr = node(ExprKind::number, span, {}, token.text);
    expr.first = token.number;
    return expr;
  }
  if (in.accept("(")) {
    Expr expr = expression(in);
    in.expect(")");
    expr.bracketed = true;
    return expr;
  }
  if (in.sees("-")) {
    in.next();
    Expr zero = node(ExprKind::number, span, {}, "0");
    Expr rest = primary(in);
    return node(ExprKind::arithmetic, span, {std::move(zero), std::move(rest)}, "-");
  }
  if (token.kind != TokenKind::word)
    in.refuse(span, fmt::format("a value should stand here, not \"{}\"", token.text),
              "such as: empty, mine, count theirs");
  const std::string& word = token.text;
  // `north of S`, `forward of S`
  if (isDirection(word) && in.sees("of", 1)) {
    in.next();
    in.next();
    return node(ExprKind::ahead, span, {primary(in)}, word);
  }
  in.next();
  if (word == "any" || word == "no") {
    return node(word == "any" ? ExprKind::any : ExprKind::none, span, {chain(in)});
  }
  if (word == "count") return node(ExprKind::count, span, {chain(in)});
  if (word == "my" || word == "their") {
    if (in.sees("reach") && !in.sees("of", 1)) {
      Expr reach = node(ExprKind::name, in.span(), {}, "reach");
      in.next();
      return node(ExprKind::own, span, {std::move(reach)}, word);
    }
    return node(ExprKind::own, span, {primary(in)}, word);
  }
  if (word == "step" || word == "slide") {
    std::string group = directionGroup(in);
    // In the `reach` of a piece the origin is the piece itself and is left out.
    Expr expr = node(word == "step" ? ExprKind::step : ExprKind::slide, span, {}, group);
    if (in.accept("from")) expr.args.push_back(primary(in));
    if (word == "slide" && in.accept("through")) expr.args.push_back(primary(in));
    return expr;
  }
  if (word == "leap") {
    Expr expr = node(ExprKind::leap, span);
    expr.first = in.number("the first part of the leap");
    expr.second = in.number("the second part of the leap");
    if (in.accept("from")) expr.args.push_back(primary(in));
    return expr;
  }
  if (word == "between") {
    Expr a = primary(in);
    in.expect("and", "say: between here and there");
    Expr b = primary(in);
    return node(ExprKind::between, span, {std::move(a), std::move(b)});
  }
  if (word == "beyond") {
    Expr over = primary(in);
    in.expect("from", "say: beyond over from here");
    Expr from = primary(in);
    return node(ExprKind::beyond, span, {std::move(over), std::move(from)});
  }
  if (word == "bracketed") {
    Expr expr = node(ExprKind::bracketed, span, {primary(in)});
    in.expect("from", "say: bracketed theirs from there by mine");
    expr.args.push_back(primary(in));
    in.expect("by");
    expr.args.push_back(primary(in));
    expr.word = optionalAlong(in);
    return expr;
  }
  if (word == "line" || word == "lines") return lines(in, span, word == "lines");
  if (word == "spread") {
    in.expect("from", "say: spread from S through T along any");
    Expr expr = node(ExprKind::spread, span, {primary(in)});
    in.expect("through");
    expr.args.push_back(primary(in));
    expr.word = optionalAlong(in);
    return expr;
  }
  if (word == "reach") {
    in.expect("of", "say: reach of here, or my reach");
    return node(ExprKind::reachOf, span, {primary(in)});
  }
  if (word == "cells") {
    Name variable = in.name("a name for each cell");
    in.expect("in");
    Expr expr = node(ExprKind::cellsWhere, span, {}, variable.text);
    expr.args.push_back(chain(in));
    in.expect("where", "say: cells c in mine where COND");
    expr.args.push_back(condition(in));
    return expr;
  }
  if (word == "total") {
    Expr value = sum(in);
    in.expect("for", "say: total value of c for c in mine");
    Name variable = in.name("a name for each cell or line");
    in.expect("in");
    Expr over = chain(in);
    return node(ExprKind::total, span, {std::move(value), std::move(over)}, variable.text);
  }
  if (word == "min" || word == "max") {
    in.expect("(", "say: " + word + "(a, b)");
    Expr a = expression(in);
    in.expect(",");
    Expr b = expression(in);
    in.expect(")");
    return node(ExprKind::extreme, span, {std::move(a), std::move(b)}, word);
  }
  if (word == "if") {
    Expr expr = node(ExprKind::choice, span, {condition(in)});
    in.expect("then");
    expr.args.push_back(expression(in));
    in.expect("else");
    expr.args.push_back(expression(in));
    return expr;
  }
  if (word == "row" || word == "rows" || word == "column" || word == "columns") {
    // `column of there` is a text part; `row 3` a set
    if (in.sees("of")) return named(in, token);
    return rowsOrColumns(in, span, word);
  }
  if (word == "nobody") {
    in.expect("can", "say: nobody can move");
    in.expect("move", "say: nobody can move");
    return node(ExprKind::name, span, {}, "nobody can move");
  }
  if (word == "touched" || word == "was" || word == "times" || word == "groups" ||
      word == "moves" || word == "passes" || word == "kinds")
    in.refuse(span, fmt::format("`{}` belongs to the language, but this version cannot run it yet",
                                word));
  if (word == "odd" || word == "even") {
    if (!in.sees("rows") && !in.sees("columns"))
      in.refuse(in.span(), "rows or columns should follow", "say: odd columns");
    return node(in.next().text == "rows" ? ExprKind::rows : ExprKind::columns, span, {}, word);
  }
  return named(in, token);
}

// primary { on primary } or primary { except primary }, not both without brackets
Expr chain(Cursor& in) {
  Expr left = primary(in);
  std::string joinedBy;
  while (in.sees("on") || in.sees("except")) {
    const Token op = in.next();
    if (!joinedBy.empty() && joinedBy != op.text)
      in.refuse(op.span, "`on` and `except` meet here without brackets",
                "write (A on B) except C, or A on (B except C)");
    joinedBy = op.text;
    Expr right = primary(in);
    ExprKind kind = op.text == "on" ? ExprKind::on : ExprKind::except;
    left = node(kind, left.span, {std::move(left), std::move(right)});
  }
  return left;
}

Expr product(Cursor& in) {
  Expr left = chain(in);
  while (in.sees("*") || in.sees("/") || in.sees("%")) {
    const Token op = in.next();
    Expr right = chain(in);
    left = node(ExprKind::arithmetic, op.span, {std::move(left), std::move(right)}, op.text);
  }
  return left;
}

Expr comparison(Cursor& in) {
  Expr left = sum(in);
  for (const char* op : {"=", "!=", "<", "<=", ">", ">="}) {
    if (!in.sees(op)) continue;
    Span span = in.next().span;
    Expr right = sum(in);
    return node(ExprKind::compare, span, {std::move(left), std::move(right)}, op);
  }
  struct Relation {
    const char* word;
    ExprKind kind;
  };
  for (Relation relation : {Relation{"within", ExprKind::within}, Relation{"in", ExprKind::inside},
                            Relation{"is", ExprKind::is}}) {
    if (!in.sees(relation.word)) continue;
    Span span = in.next().span;
    Expr right = chain(in);
    return node(relation.kind, span, {std::move(left), std::move(right)});
  }
  return left;
}

Expr negation(Cursor& in) {
  if (!in.sees("not")) return comparison(in);
  Deeper deeper(in);
  Span span = in.next().span;
  return node(ExprKind::negation, span, {negation(in)});
}

Expr conjunction(Cursor& in) {
  Expr left = negation(in);
  while (in.sees("and")) {
    Span span = in.next().span;
    Expr right = negation(in);
    left = node(ExprKind::both, span, {std::move(left), std::move(right)});
  }
  return left;
}

}  // namespace

Expr sum(Cursor& in) {
  Expr left = product(in);
  while (in.sees("+") || in.sees("-")) {
    const Token op = in.next();
    Expr right = product(in);
    left = node(ExprKind::arithmetic, op.span, {std::move(left), std::move(right)}, op.text);
  }
  return left;
}

Expr expression(Cursor& in) {
  Expr left = conjunction(in);
  while (in.sees("or")) {
    Span span = in.next().span;
    Expr right = conjunction(in);
    left = node(ExprKind::either, span, {std::move(left), std::move(right)});
  }
  return left;
}

Expr condition(Cursor& in) {
  return expression(in);
}

Expr parseExpression(const Source& source, const std::vector<Token>& line,
                     std::vector<Diagnostic>& found) {
  Cursor in(source, line, found);
  try {
    Expr expr = expression(in);
    in.end();
    return expr;
  } catch (const Refused&) {
    return {};
  }
}

}  // namespace ninepegs::sheet
