// Terms of the longer forms: lines, comparisons, choices, kinds, directions, parts of texts.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/types.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {

namespace {

// Is it `my hand` or `their hand`?
bool isHand(const Expr& expr) {
  return expr.kind == ExprKind::own && expr.args[0].kind == ExprKind::hand &&
         expr.args[0].args.empty();
}

}  // namespace

bool Types::inside(std::initializer_list<Context> contexts) const {
  return std::find(contexts.begin(), contexts.end(), context_) != contexts.end();
}

// Does the board have directions of that name?
bool Types::group(const Expr& expr, const std::string& name) {
  if (rules_.board.columns() == 0) return true;
  if (!draft_.directions(name, 0).empty() && !draft_.directions(name, 1).empty()) return true;
  bool forward = name.find("ward") != std::string::npos;
  note(expr.span, fmt::format("this board has no direction `{}`", name),
       forward && rules_.facing[0] < 0
           ? "say which way the sides face: facing northeast for " + tree_.sides[0].text
       : rules_.board.isHexes()
           ? "there are: any, northeast, east, southeast, southwest, west, northwest"
           : "on a board of points there is: any");
  return false;
}

TermPtr Types::lines(const Expr& expr, bool anyLength) {
  const Expr& length = expr.args[0];
  bool plain = length.kind == ExprKind::number;
  TermPtr many;
  if (!plain && anyLength)
    many = want(length, Type::number);
  else if (!plain || length.first < 2 || length.first > 64)
    return note(length.span, "the length of a line is a plain number from 2 to 64");
  else
    many = make(Type::number, length.span, rules::Number{length.first});
  std::vector<int> axes = rules_.board.axes(rules_.board.directionGroup(expr.word));
  if (axes.empty())
    return note(expr.span, fmt::format("lines do not run along `{}`", expr.word),
                rules_.board.isHexes() || rules_.board.shape().kind == Shape::points
                    ? "say: along any"
                    : "say: along orthogonal, diagonal or any");
  if (plain && rules_.board.columns() > 0 &&
      rules_.board.lines(static_cast<int>(length.first), axes).empty())
    return note(length.span,
                fmt::format("no straight line of {} cells fits on this board", length.first));
  TermPtr in = want(expr.args[1], Type::set), through;
  if (expr.args.size() > 2) through = want(expr.args[2], Type::cell);
  if (!many || !in || (expr.args.size() > 2 && !through)) return nullptr;
  return make(
      Type::set, expr.span,
      rules::Lines{expr.plural, expr.first == 1, draft_.waysOf(expr.word), many, in, through});
}

TermPtr Types::linesToPick(const Expr& expr) {
  if (expr.first == 1 || expr.args.size() > 2)
    return note(expr.span,
                fmt::format("a line is picked from all `lines of N in S`, without `{}`",
                            expr.first == 1 ? "exactly" : "through"),
                expr.first == 1 ? "" : "pick the line, then say: need CELL in LINE");
  return lines(expr, true);
}

TermPtr Types::textPart(const Expr& expr) {
  TermPtr term = infer(expr);
  if (term && (term->type == Type::truth || term->type == Type::lineset))
    return note(expr.span, fmt::format("{} has no text", typeName(term->type)));
  return term;
}

TermPtr Types::compare(const Expr& expr) {
  using rules::Relation;
  static const std::map<std::string, Relation> relations = {
      {"=", Relation::equal},      {"!=", Relation::unequal}, {"<", Relation::less},
      {"<=", Relation::lessEqual}, {">", Relation::greater},  {">=", Relation::greaterEqual}};
  Relation relation = relations.at(expr.word);
  bool equality = relation == Relation::equal || relation == Relation::unequal;
  auto joined = [&](TermPtr left, TermPtr right) -> TermPtr {
    if (!left || !right) return nullptr;
    return make(Type::truth, expr.span,
                rules::Compare{relation, std::move(left), std::move(right)});
  };
  std::size_t before = draft_.found.size();
  const Expr& first = expr.args[0];
  TermPtr left = infer(first);
  if (draft_.found.size() > before || !left) return nullptr;
  if (equality && (left->type == Type::cell || left->type == Type::kind))
    return joined(left, want(expr.args[1], left->type));
  if (equality && left->type == Type::set) {
    TermPtr right = infer(expr.args[1]);
    if (draft_.found.size() > before || !right) return nullptr;
    if (right->type == Type::set || right->type == Type::cell)
      return joined(left, coerced(right, Type::set));
  }
  if (TermPtr cell = labelled(first); equality && left->type == Type::number && cell) {
    TermPtr right = infer(expr.args[1]);
    if (right && right->type == Type::cell) return joined(cell, right);
  }
  TermPtr a = want(first, Type::number), b = want(expr.args[1], Type::number);
  return joined(a, b);
}

// any X, no X, count X
TermPtr Types::tested(const Expr& expr) {
  const Expr& inner = expr.args[0];
  TermPtr what;
  if (inner.kind == ExprKind::lines) {
    if (!inner.plural && expr.kind == ExprKind::count)
      note(inner.span, "one `line` is tested with any and no", "say: count lines of ...");
    what = infer(inner);
  } else if (inner.kind == ExprKind::kindsWhere || isHand(inner)) {
    what = infer(inner);
  } else {
    what = want(inner, Type::set);
  }
  if (!what) return nullptr;
  if (what->type == Type::set && rules::as<rules::Lines>(*what) != nullptr)
    what = make(Type::lineset, what->span, *rules::as<rules::Lines>(*what));
  if (expr.kind == ExprKind::count) return make(Type::number, expr.span, rules::Count{what});
  if (expr.kind == ExprKind::any) return make(Type::truth, expr.span, rules::Any{what});
  return make(Type::truth, expr.span, rules::None{what});
}

TermPtr Types::isSide(const Expr& expr) {
  const Expr& subject = expr.args[0];
  static const std::map<std::string, rules::Role> roles = {{"mover", rules::Role::mover},
                                                           {"opponent", rules::Role::opponent},
                                                           {"next", rules::Role::next}};
  auto role = subject.kind == ExprKind::name ? roles.find(subject.word) : roles.end();
  if (role == roles.end()) note(subject.span, "`is` compares mover, opponent or next with a side");
  if (!namesSide(expr.args[1]))
    return note(expr.args[1].span, "the name of a side should stand here",
                fmt::format("there are: {}, {}", tree_.sides[0].text, tree_.sides[1].text));
  if (role == roles.end()) return nullptr;
  return make(Type::truth, expr.span, rules::IsSide{role->second, rules_.side(expr.args[1].word)});
}

TermPtr Types::choice(const Expr& expr) {
  TermPtr condition = want(expr.args[0], Type::truth), then = infer(expr.args[1]);
  if (then && (then->type == Type::truth || then->type == Type::lineset))
    return note(expr.args[1].span, fmt::format("{} has no place here", typeName(then->type)),
                "`if ... then ... else ...` chooses between sets, cells or numbers");
  if (then && (then->type == Type::cell || then->type == Type::kind))
    then = coerced(then, Type::set);
  TermPtr otherwise;
  if (then) otherwise = want(expr.args[2], then->type);
  if (!condition || !otherwise) return nullptr;
  return make(then->type, expr.span, rules::If{condition, then, otherwise});
}

TermPtr Types::rowsOf(const Expr& expr) {
  rules::Parity parity = expr.word == "odd"    ? rules::Parity::odd
                         : expr.word == "even" ? rules::Parity::even
                                               : rules::Parity::any;
  TermPtr term = expr.kind == ExprKind::rows
                     ? make(Type::set, expr.span, rules::Rows{expr.first, expr.second, parity})
                     : make(Type::set, expr.span, rules::Columns{expr.first, expr.second, parity});
  std::optional<CellSet> cells = rules_.constantSet(*term, 0);
  if (!cells || cells->any()) return term;
  // A name of the move that reads as letters of a column: `column at`.
  auto letters = [](const std::string& name) {
    int number = 0;
    for (char c : name) {
      if (c < 'a' || c > 'z' || number > limits::cells) return -1;
      number = number * 26 + (c - 'a' + 1);
    }
    return number;
  };
  if (expr.kind != ExprKind::rows)
    for (const Local& local : locals_)
      if (letters(local.name) == expr.first)
        return note(
            expr.span,
            fmt::format("a column is a letter, and \"{}\" is a name of this move", local.name),
            fmt::format("the column of a cell: cells c in S where column-no of c = "
                        "column-no of {}; in a text: column of {}",
                        local.name, local.name));
  return note(expr.span, "this set has no cells",
              fmt::format("the board has {} columns and {} rows", rules_.board.columns(),
                          rules_.board.rows()));
}

// kinds k in GROUP where COND
TermPtr Types::kindsWhere(const Expr& expr) {
  std::optional<rules::Noun> noun = draft_.noun(expr.along);
  rules_.used.insert(expr.along);
  if (!noun)
    return note(expr.span,
                fmt::format("\"{}\" is no kind of piece and no group of kinds", expr.along),
                didYouMean(expr.along, namesInScope()));
  NameId id = -1;
  TermPtr condition = bind(expr.args[0], expr.word, Type::kind, Type::truth, id);
  if (!condition) return nullptr;
  return make(Type::kinds, expr.span, rules::KindsWhere{id, *noun, condition});
}

// total E for x in S, or in lines of N in S
TermPtr Types::total(const Expr& expr) {
  const Expr& over = expr.args[1];
  bool ofLines = over.kind == ExprKind::lines && over.plural;
  TermPtr in = ofLines ? infer(over) : want(over, Type::set);
  if (!in) return nullptr;
  if (ofLines) in = make(Type::lineset, in->span, *rules::as<rules::Lines>(*in));
  NameId id = -1;
  TermPtr each = bind(expr.args[0], expr.word, ofLines ? Type::set : Type::cell, Type::number, id);
  if (!each) return nullptr;
  return make(Type::number, expr.span, rules::Total{id, each, in});
}

}  // namespace ninepegs::sheet
