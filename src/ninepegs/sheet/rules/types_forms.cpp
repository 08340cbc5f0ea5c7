// Types of the longer forms: lines, comparisons, kinds, directions, parts of texts.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/types.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {

bool isHand(const Expr& expr) {
  return expr.kind == ExprKind::own && expr.args[0].kind == ExprKind::hand &&
         expr.args[0].args.empty();
}

bool Types::inside(std::initializer_list<Context> contexts) const {
  return std::find(contexts.begin(), contexts.end(), context_) != contexts.end();
}

// Does the board have directions of that name?
bool Types::group(const Expr& expr, const std::string& name) {
  if (sheet_.board.columns() == 0) return true;
  if (!sheet_.directions(name, 0).empty() && !sheet_.directions(name, 1).empty()) return true;
  bool forward = name.find("ward") != std::string::npos;
  note(expr.span, fmt::format("this board has no direction `{}`", name),
       forward && sheet_.facing[0] < 0
           ? "say which way the sides face: facing northeast for " + sheet_.tree.sides[0].text
       : sheet_.board.isHexes()
           ? "there are: any, northeast, east, southeast, southwest, west, northwest"
           : "on a board of points there is: any");
  return false;
}

Type Types::lines(Expr& expr, bool anyLength) {
  Expr& length = expr.args[0];
  bool plain = length.kind == ExprKind::number;
  bool good = true;
  if (!plain && anyLength) {
    good = want(length, Type::number);
  } else if (!plain || length.first < 2 || length.first > 64) {
    note(length.span, "the length of a line is a plain number from 2 to 64");
    return Type::unknown;
  }
  std::vector<int> axes = sheet_.board.axes(sheet_.board.directionGroup(expr.word));
  if (axes.empty()) {
    note(expr.span, fmt::format("lines do not run along `{}`", expr.word),
         sheet_.board.isHexes() || sheet_.board.shape().kind == Shape::points
             ? "say: along any"
             : "say: along orthogonal, diagonal or any");
    return Type::unknown;
  }
  if (plain && sheet_.board.columns() > 0 &&
      sheet_.board.lines(static_cast<int>(length.first), axes).empty()) {
    note(length.span, fmt::format("no straight line of {} cells fits on this board", length.first));
    return Type::unknown;
  }
  good = want(expr.args[1], Type::set) && good;
  if (expr.args.size() > 2) good = want(expr.args[2], Type::cell) && good;
  return expr.type = good ? Type::set : Type::unknown;
}

bool Types::linesToPick(Expr& expr) {
  if (expr.first == 1 || expr.args.size() > 2) {
    note(expr.span,
         fmt::format("a line is picked from all `lines of N in S`, without `{}`",
                     expr.first == 1 ? "exactly" : "through"),
         expr.first == 1 ? "" : "pick the line, then say: need CELL in LINE");
    return false;
  }
  return lines(expr, true) != Type::unknown;
}

Type Types::textPart(Expr& expr) {
  Type type = infer(expr);
  if (type == Type::truth || type == Type::lineset) {
    note(expr.span, fmt::format("{} has no text", typeName(type)));
    return Type::unknown;
  }
  return type;
}

Type Types::compare(Expr& expr) {
  std::size_t before = found_.size();
  Expr& first = expr.args[0];
  const Symbol* cell = first.kind == ExprKind::number ? sheet_.find(first.word) : nullptr;
  bool equality = expr.word == "=" || expr.word == "!=";
  Type left = infer(first);
  if (found_.size() > before || left == Type::unknown) return Type::unknown;
  if (equality && (left == Type::cell || left == Type::kind))
    return want(expr.args[1], left) ? Type::truth : Type::unknown;
  if (equality && left == Type::set) {
    Type right = infer(expr.args[1]);
    if (found_.size() > before || right == Type::unknown) return Type::unknown;
    if (right == Type::set || right == Type::cell) return Type::truth;
  }
  if (equality && left == Type::number && cell != nullptr && cell->kind == SymbolKind::cell) {
    Type right = infer(expr.args[1]);
    if (right == Type::cell) return want(first, Type::cell) ? Type::truth : Type::unknown;
  }
  bool good = want(first, Type::number);
  good = want(expr.args[1], Type::number) && good;
  return good ? Type::truth : Type::unknown;
}

// kinds k in GROUP where COND
Type Types::kindWord(Expr& expr) {
  std::vector<int> kinds = sheet_.groupKinds(expr.along);
  sheet_.used.insert(expr.along);
  if (kinds.empty()) {
    note(expr.span, fmt::format("\"{}\" is no kind of piece and no group of kinds", expr.along),
         didYouMean(expr.along, namesInScope()));
    return Type::unknown;
  }
  return bind(expr.args[0], expr.word, Type::kind, Type::truth) == Type::unknown ? Type::unknown
                                                                                 : Type::kinds;
}

}  // namespace ninepegs::sheet
