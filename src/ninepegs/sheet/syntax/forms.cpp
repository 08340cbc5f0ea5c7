// The forms of expressions that begin with a word of the language.
#include <algorithm>
#include <map>

#include "ninepegs/base/text.hpp"
#include "ninepegs/board/geometry.hpp"
#include "ninepegs/sheet/syntax/expression.hpp"

namespace ninepegs::sheet {
namespace {

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

using Form = Expr (*)(Cursor& in, Span span, const std::string& word);

Expr anyOrNo(Cursor& in, Span span, const std::string& word) {
  return node(word == "any" ? ExprKind::any : ExprKind::none, span, {chain(in)});
}

Expr countOf(Cursor& in, Span span, const std::string&) {
  return node(ExprKind::count, span, {chain(in)});
}

Expr owned(Cursor& in, Span span, const std::string& word) {
  Span at = in.span();
  if (in.sees("reach") && !in.sees("of", 1)) {
    in.next();
    return node(ExprKind::own, span, {node(ExprKind::name, at, {}, "reach")}, word);
  }
  if (in.accept("moves")) return node(ExprKind::movesOf, span, {}, word);
  if (in.accept("hand")) {
    Expr hand = node(ExprKind::hand, at);
    if (in.accept("of")) hand.args.push_back(primary(in));
    return node(ExprKind::own, span, {std::move(hand)}, word);
  }
  return node(ExprKind::own, span, {primary(in)}, word);
}

// In the `reach` of a piece the origin is the piece itself and is left out.
Expr stepOrSlide(Cursor& in, Span span, const std::string& word) {
  std::string group = directionGroup(in);
  Expr expr = node(word == "step" ? ExprKind::step : ExprKind::slide, span, {}, group);
  if (in.accept("from")) expr.args.push_back(primary(in));
  if (word == "slide" && in.accept("through")) {
    expr.plural = true;  // says through what
    expr.args.push_back(primary(in));
  }
  return expr;
}

Expr leap(Cursor& in, Span span, const std::string&) {
  Expr expr = node(ExprKind::leap, span);
  expr.first = in.number("the first part of the leap");
  expr.second = in.number("the second part of the leap");
  if (in.accept("from")) expr.args.push_back(primary(in));
  return expr;
}

Expr between(Cursor& in, Span span, const std::string&) {
  Expr a = primary(in);
  in.expect("and", "say: between here and there");
  Expr b = primary(in);
  return node(ExprKind::between, span, {std::move(a), std::move(b)});
}

Expr beyond(Cursor& in, Span span, const std::string&) {
  Expr over = primary(in);
  in.expect("from", "say: beyond over from here");
  Expr from = primary(in);
  return node(ExprKind::beyond, span, {std::move(over), std::move(from)});
}

Expr bracketed(Cursor& in, Span span, const std::string&) {
  Expr expr = node(ExprKind::bracketed, span, {primary(in)});
  in.expect("from", "say: bracketed theirs from there by mine");
  expr.args.push_back(primary(in));
  in.expect("by");
  expr.args.push_back(primary(in));
  expr.word = optionalAlong(in);
  return expr;
}

Expr lines(Cursor& in, Span span, const std::string& word) {
  bool plural = word == "lines";
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

Expr spread(Cursor& in, Span span, const std::string&) {
  in.expect("from", "say: spread from S through T along any");
  Expr expr = node(ExprKind::spread, span, {primary(in)});
  in.expect("through");
  expr.args.push_back(primary(in));
  expr.word = optionalAlong(in);
  return expr;
}

Expr reach(Cursor& in, Span span, const std::string&) {
  in.expect("of", "say: reach of here, or my reach");
  return node(ExprKind::reachOf, span, {primary(in)});
}

// ... `where` a condition holds, which becomes the last part.
Expr where(Cursor& in, Expr expr, const char* hint) {
  in.expect("where", hint);
  expr.args.push_back(condition(in));
  return expr;
}

Expr cellsWhere(Cursor& in, Span span, const std::string&) {
  Name variable = in.name("a name for each cell");
  in.expect("in");
  Expr expr = node(ExprKind::cellsWhere, span, {}, variable.text);
  expr.args.push_back(chain(in));
  return where(in, std::move(expr), "say: cells c in mine where COND");
}

Expr groupsWhere(Cursor& in, Span span, const std::string&) {
  Name variable = in.name("a name for each group");
  in.expect("in", "say: groups g in theirs along orthogonal where COND");
  Expr expr = node(ExprKind::groups, span, {}, variable.text);
  expr.args.push_back(chain(in));
  expr.along = optionalAlong(in);
  return where(in, std::move(expr), "say: groups g in theirs along orthogonal where COND");
}

Expr kindsWhere(Cursor& in, Span span, const std::string&) {
  Name variable = in.name("a name for each kind");
  in.expect("in", "say: kinds k in GROUP where COND");
  Expr expr = node(ExprKind::kindsWhere, span, {}, variable.text);
  expr.along = in.name("a kind or a group of kinds").text;
  return where(in, std::move(expr), "say: kinds k in GROUP where COND");
}

Expr kindOn(Cursor& in, Span span, const std::string&) {
  in.expect("on", "say: kind on there");
  return node(ExprKind::kindOn, span, {primary(in)});
}

Expr total(Cursor& in, Span span, const std::string&) {
  Expr value = sum(in);
  in.expect("for", "say: total value of c for c in mine");
  Name variable = in.name("a name for each cell or line");
  in.expect("in");
  Expr over = chain(in);
  return node(ExprKind::total, span, {std::move(value), std::move(over)}, variable.text);
}

Expr extreme(Cursor& in, Span span, const std::string& word) {
  in.expect("(", "say: " + word + "(a, b)");
  Expr a = expression(in);
  in.expect(",");
  Expr b = expression(in);
  in.expect(")");
  return node(ExprKind::extreme, span, {std::move(a), std::move(b)}, word);
}

Expr choice(Cursor& in, Span span, const std::string&) {
  Expr expr = node(ExprKind::choice, span, {condition(in)});
  in.expect("then");
  expr.args.push_back(expression(in));
  in.expect("else");
  expr.args.push_back(expression(in));
  return expr;
}

Expr oddOrEven(Cursor& in, Span span, const std::string& word) {
  if (!in.sees("rows") && !in.sees("columns"))
    in.refuse(in.span(), "rows or columns should follow", "say: odd columns");
  return node(in.next().text == "rows" ? ExprKind::rows : ExprKind::columns, span, {}, word);
}

Expr nobody(Cursor& in, Span span, const std::string&) {
  in.expect("can", "say: nobody can move");
  in.expect("move", "say: nobody can move");
  return node(ExprKind::name, span, {}, "nobody can move");
}

Expr timesSeen(Cursor& in, Span span, const std::string&) {
  in.expect("seen", "say: times seen >= 3");
  return node(ExprKind::name, span, {}, "times seen");
}

Expr was(Cursor& in, Span span, const std::string&) {
  return node(ExprKind::was, span, {primary(in)});
}

Expr movesOf(Cursor& in, Span span, const std::string&) {
  in.expect("of", "say: moves of SIDE, my moves or their moves");
  return node(ExprKind::movesOf, span, {}, in.name("a side").text);
}

Expr onTrack(Cursor& in, Span span) {
  Expr far = node(ExprKind::number, span, {}, "1");
  far.first = 1;
  if (!in.sees("along")) far = primary(in);
  in.expect("along", "say: next along TRACK from there");
  Name track = in.name("a track");
  in.expect("from", "say: next along TRACK from there");
  Expr from = primary(in);
  return node(ExprKind::onTrack, span, {std::move(far), std::move(from)}, track.text);
}

Expr edgeOf(Cursor& in, Span span) {
  in.expect("of");
  Expr a = primary(in);
  in.expect("towards", "say: edge of there towards n");
  Expr b = primary(in);
  return node(ExprKind::edgeOf, span, {std::move(a), std::move(b)});
}

}  // namespace

bool isDirection(const std::string& word) {
  static const std::vector<std::string> names = [] {
    std::vector<std::string> out = Geometry::directionGroupNames();
    out.erase(out.begin(), out.begin() + 3);  // the groups of several directions
    for (const char* name : {"forward", "backward"}) out.emplace_back(name);
    return out;
  }();
  return std::find(names.begin(), names.end(), word) != names.end();
}

bool form(Cursor& in, const Token& token, Expr& out) {
  static const std::map<std::string, Form> forms = {
      {"any", anyOrNo},       {"no", anyOrNo},          {"count", countOf},
      {"my", owned},          {"their", owned},         {"step", stepOrSlide},
      {"slide", stepOrSlide}, {"leap", leap},           {"between", between},
      {"beyond", beyond},     {"bracketed", bracketed}, {"line", lines},
      {"lines", lines},       {"spread", spread},       {"reach", reach},
      {"cells", cellsWhere},  {"groups", groupsWhere},  {"kinds", kindsWhere},
      {"kind", kindOn},       {"total", total},         {"min", extreme},
      {"max", extreme},       {"if", choice},           {"odd", oddOrEven},
      {"even", oddOrEven},    {"nobody", nobody},       {"times", timesSeen},
      {"was", was},           {"moves", movesOf}};
  const std::string& word = token.text;
  auto it = forms.find(word);
  if (it != forms.end()) {
    out = it->second(in, token.span, word);
    return true;
  }
  bool cells = word == "row" || word == "rows" || word == "column" || word == "columns";
  if (cells && !in.sees("of")) {  // `column of there` is a part of a text
    out = rowsOrColumns(in, token.span, word);
    return true;
  }
  if (word == "next" && !in.sees("is")) {
    out = onTrack(in, token.span);
    return true;
  }
  if (word == "edge" && in.sees("of")) {
    out = edgeOf(in, token.span);
    return true;
  }
  return false;
}

}  // namespace ninepegs::sheet
