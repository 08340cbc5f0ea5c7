// Expressions. From loose to tight: or, and, not, comparison, sum, product, set chain (on, except),
// then the prefix words, each of which takes the one thing behind it (any, no and count: a chain).
#include <algorithm>

#include "ninepegs/sheet/syntax/expression.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {
namespace {

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

}  // namespace

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
  Expr out;
  if (form(in, token, out)) return out;
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
    Span span = left.span;
    left = binaryNode(in, kind, span, std::move(left), std::move(right));
  }
  return left;
}

namespace {

// Operands with these signs between them, from the left.
Expr signedChain(Cursor& in, std::initializer_list<const char*> signs, Expr (*operand)(Cursor&)) {
  auto signAhead = [&] {
    return std::any_of(signs.begin(), signs.end(), [&](const char* one) { return in.sees(one); });
  };
  Expr left = operand(in);
  while (signAhead()) {
    const Token op = in.next();
    Expr right = operand(in);
    left =
        binaryNode(in, ExprKind::arithmetic, op.span, std::move(left), std::move(right), op.text);
  }
  return left;
}

Expr product(Cursor& in) {
  return signedChain(in, {"*", "/", "%"}, chain);
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
    left = binaryNode(in, ExprKind::both, span, std::move(left), std::move(right));
  }
  return left;
}

}  // namespace

Expr sum(Cursor& in) {
  return signedChain(in, {"+", "-"}, product);
}

Expr expression(Cursor& in) {
  auto mixes = [](const Expr& side) { return side.kind == ExprKind::both && !side.bracketed; };
  Expr left = conjunction(in);
  while (in.sees("or")) {
    Span span = in.next().span;
    Expr right = conjunction(in);
    if (mixes(left) || mixes(right))
      in.refuse(span, "`and` and `or` meet here without brackets",
                "write (A and B) or C, or A and (B or C)");
    left = binaryNode(in, ExprKind::either, span, std::move(left), std::move(right));
  }
  return left;
}

Expr operand(Cursor& in) {
  return primary(in);
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
