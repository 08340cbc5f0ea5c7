// What expressions are worth, by looking names up and walking cells.
#include <algorithm>
#include <limits>

#include "judge/judge.hpp"

namespace ninepegs::judge {

using sheet::Expr;
using sheet::ExprKind;
using Sort = Value::Sort;

namespace {

Cells both(const Cells& a, const Cells& b) {
  Cells out;
  for (Cell cell : a)
    if (b.count(cell) > 0) out.insert(cell);
  return out;
}
Cells minus(const Cells& a, const Cells& b) {
  Cells out;
  for (Cell cell : a)
    if (b.count(cell) == 0) out.insert(cell);
  return out;
}

// Numbers wrap round like words of 64 bits.
std::int64_t computed(const std::string& op, std::int64_t a, std::int64_t b) {
  std::uint64_t x = static_cast<std::uint64_t>(a), y = static_cast<std::uint64_t>(b);
  if (op == "+") return static_cast<std::int64_t>(x + y);
  if (op == "-") return static_cast<std::int64_t>(x - y);
  if (op == "*") return static_cast<std::int64_t>(x * y);
  if (b == 0) return 0;
  if (b == -1) return op == "/" ? static_cast<std::int64_t>(0 - x) : 0;
  return op == "/" ? a / b : a % b;
}

bool comparesAs(const std::string& op, std::int64_t a, std::int64_t b) {
  if (op == "=") return a == b;
  if (op == "!=") return a != b;
  if (op == "<") return a < b;
  if (op == "<=") return a <= b;
  if (op == ">") return a > b;
  return a >= b;
}

std::string shown(const Value& value) {
  switch (value.sort) {
    case Value::Sort::set: {
      std::string out;
      for (Cell cell : value.cells) out += std::to_string(cell) + " ";
      return out;
    }
    case Value::Sort::cell:
      return std::to_string(value.cell);
    case Value::Sort::number:
      return std::to_string(value.number);
    case Value::Sort::truth:
      return value.truth ? "yes" : "no";
    case Value::Sort::kind:
      return value.kind;
    case Value::Sort::kinds:
      return std::to_string(value.kinds.size());
  }
  return "";
}

const char* formName(const Expr& expr) {
  static const char* const names[] = {
      "number", "name",    "call",    "own",         "of",           "on",          "or",
      "except", "and",     "not",     "any",         "no",           "count",       "compare",
      "within", "in",      "is",      "arithmetic",  "ahead",        "step",        "slide",
      "leap",   "between", "beyond",  "bracketed",   "lines",        "spread",      "reach of",
      "if",     "rows",    "columns", "cells where", "groups where", "kinds where", "was",
      "hand",   "kind on", "edge of", "next along",  "moves of",     "total",       "min max"};
  return names[static_cast<int>(expr.kind)];
}

}  // namespace

Value Judge::value(const Expr& expr, const Look& look) const {
  if (++spent > budget) throw TooMuch("too many expressions");
  Value out = form(expr, look);
  if (uses != nullptr) {
    std::string name = formName(expr);
    if (expr.kind == ExprKind::name && !expr.plural) {
      static const std::set<std::string> words = {
          "all",   "empty",   "occupied", "mine",   "theirs",     "edge",  "corner",         "dark",
          "light", "touched", "plies",    "passes", "times seen", "stuck", "nobody can move"};
      if (words.count(expr.word) > 0) name = expr.word;
    }
    FormUse& use = (*uses)[name];
    ++use.asked;
    if (use.answers.size() < 2) use.answers.insert(shown(out));
  }
  return out;
}

bool Judge::isBareKind(const Expr& expr, const Look& look) const {
  return expr.kind == ExprKind::name && look.names.count(expr.word) == 0 &&
         piece(expr.word) != nullptr;
}

Cells Judge::setOf(const Value& value, const Look& look) const {
  switch (value.sort) {
    case Value::Sort::cell:
      return value.cell < 0 ? Cells{} : Cells{value.cell};
    case Value::Sort::kind:
      return value.kind.empty() ? Cells{} : ofKind(*look.now, value.kind, -1);
    default:
      return value.cells;
  }
}

Cells Judge::set(const Expr& expr, const Look& look) const {
  if (expr.kind == ExprKind::number) {
    std::optional<Cell> label = board_.find(expr.word);
    return label ? Cells{*label} : Cells{};
  }
  if (expr.kind == ExprKind::was) {  // of a kind, where its pieces stood
    Look earlier = look;
    earlier.now = look.before;
    return set(expr.args[0], earlier);
  }
  if (expr.kind == ExprKind::name || expr.kind == ExprKind::call)
    if (const sheet::DefineDecl* define = definition(expr, look); define != nullptr)
      if (value(expr, look).sort == Value::Sort::kind)
        return set(define->body, within(*define, expr, look.me, look));
  return setOf(value(expr, look), look);
}

Cell Judge::cell(const Expr& expr, const Look& look) const {
  if (expr.kind == ExprKind::number) return board_.find(expr.word).value_or(-1);
  Value got = value(expr, look);
  if (got.sort == Value::Sort::cell) return got.cell;
  Cells cells = setOf(got, look);
  return cells.empty() ? -1 : cells.first();
}

std::int64_t Judge::number(const Expr& expr, const Look& look) const {
  return value(expr, look).number;
}

bool Judge::truth(const Expr& expr, const Look& look) const {
  return value(expr, look).truth;
}

std::string Judge::kind(const Expr& expr, const Look& look) const {
  return value(expr, look).kind;
}

Value Judge::named(const Expr& expr, const Look& look) const {
  const std::string& word = expr.word;
  auto local = look.names.find(word);
  if (local != look.names.end()) return local->second;
  const State& now = *look.now;
  const Cells& all = all_;
  if (word == "all") return valueOf(Sort::set, &Value::cells, all);
  if (word == "mine") return valueOf(Sort::set, &Value::cells, pieces(now, look.me));
  if (word == "theirs") return valueOf(Sort::set, &Value::cells, pieces(now, 1 - look.me));
  if (word == "empty") return valueOf(Sort::set, &Value::cells, empty(now, 0));
  if (word == "occupied") return valueOf(Sort::set, &Value::cells, minus(all, empty(now, 0)));
  if (word == "touched") return valueOf(Sort::set, &Value::cells, touched(look));
  if (word == "plies") return valueOf(Sort::number, &Value::number, now.plies);
  if (word == "passes") return valueOf(Sort::number, &Value::number, now.passes);
  if (word == "times seen") {
    std::string key = seenKey(now);
    return valueOf(Sort::number, &Value::number,
                   1 + std::count(now.earlier.begin(), now.earlier.end(), key));
  }
  if (word == "stuck") return valueOf(Sort::truth, &Value::truth, stuck(now, now.turn));
  if (word == "nobody can move")
    return valueOf(Sort::truth, &Value::truth, stuck(now, 0) && stuck(now, 1));
  if (word == "edge" || word == "corner") {
    CellSet rim = word == "edge" ? board_.edge() : board_.corner();
    Cells out;
    for (Cell cell : all)
      if (rim[cell]) out.insert(cell);
    return valueOf(Sort::set, &Value::cells, out);
  }
  if (word == "dark" || word == "light") {
    Cells out;
    for (Cell cell : all)
      if (((board_.columnNumber(cell) + board_.rowNumber(cell)) % 2 == 0) == (word == "dark"))
        out.insert(cell);
    return valueOf(Sort::set, &Value::cells, out);
  }
  if (std::optional<Cell> label = board_.find(word))
    return valueOf(Sort::cell, &Value::cell, *label);
  if (piece(word) != nullptr) return valueOf(Sort::kind, &Value::kind, word);
  for (const sheet::SetDecl& group : tree_.groups) {
    if (group.name.text != word) continue;
    Cells out;
    for (const sheet::Name& member : group.members) out.add(ofKind(now, member.text, -1));
    return valueOf(Sort::set, &Value::cells, out);
  }
  for (const sheet::SetDecl& zone : tree_.zones)
    if (zone.name.text == word) return ownedBy(expr, look.me, look);
  for (const sheet::StateDecl& mark : tree_.marks)
    if (mark.name.text == word) return valueOf(Sort::set, &Value::cells, now.marks.at(word)[0]);
  for (const sheet::StateDecl& number : tree_.numbers)
    if (number.name.text == word)
      return valueOf(Sort::number, &Value::number, now.numbers.at(word)[0]);
  for (const sheet::StateDecl& cell : tree_.cells)
    if (cell.name.text == word) return valueOf(Sort::cell, &Value::cell, now.cells.at(word)[0]);
  return called(expr, look.me, look);
}

const sheet::DefineDecl* Judge::definition(const Expr& expr, const Look& look) const {
  if (look.names.count(expr.word) > 0) return nullptr;
  for (const sheet::DefineDecl& define : tree_.defines)
    if (define.name.text == expr.word) return &define;
  return nullptr;
}

// A definition sees its arguments, computed where it is used, and nothing else of the user's.
Judge::Look Judge::within(const sheet::DefineDecl& define, const Expr& expr, int me,
                          const Look& look) const {
  Look inside = look;
  inside.names.clear();
  inside.me = me;
  for (std::size_t i = 0; i < define.parameters.size(); ++i)
    inside.names[define.parameters[i].text] = value(expr.args[i], look);
  return inside;
}

Value Judge::called(const Expr& expr, int me, const Look& look) const {
  for (const sheet::DefineDecl& define : tree_.defines) {
    if (define.name.text != expr.word) continue;
    Look inside = within(define, expr, me, look);
    Value out = value(define.body, inside);
    // A bare kind is the cells where its pieces stand.
    if (isBareKind(define.body, inside))
      return valueOf(Sort::set, &Value::cells, setOf(out, inside));
    return out;
  }
  throw std::logic_error("no name " + expr.word);
}

// `my X`, `their X`, `X of SIDE`
Value Judge::ownedBy(const Expr& inner, int owner, const Look& look) const {
  const State& now = *look.now;
  const std::string& word = inner.word;
  if (inner.kind == ExprKind::hand) {
    if (!inner.args.empty()) {
      std::string which = kind(inner.args[0], look);
      auto it = now.hands[owner].find(which);
      return valueOf(Sort::number, &Value::number, it == now.hands[owner].end() ? 0 : it->second);
    }
    std::set<std::string> held;
    for (const auto& [name, many] : now.hands[owner])
      if (many > 0) held.insert(name);
    return valueOf(Sort::kinds, &Value::kinds, held);
  }
  if (inner.kind == ExprKind::kindOn) {
    std::optional<Standing> there = standing(now, cell(inner.args[0], look), owner);
    return valueOf(Sort::kind, &Value::kind, there ? there->kind : "");
  }
  if (inner.kind == ExprKind::call) return called(inner, owner, look);
  if (word == "reach") return valueOf(Sort::set, &Value::cells, reachOfSide(owner, look));
  if (auto local = look.names.find(word); local != look.names.end())
    return valueOf(Sort::set, &Value::cells,
                   local->second.kind.empty() ? Cells{} : ofKind(now, local->second.kind, owner));
  if (word == "empty") return valueOf(Sort::set, &Value::cells, empty(now, owner));
  if (word == "occupied") {
    Cells out;
    for (Cell cell = 0; cell < board_.size(); ++cell)
      if (board_.has(cell) && now.board[layered() ? owner : 0].count(cell) > 0) out.insert(cell);
    return valueOf(Sort::set, &Value::cells, out);
  }
  if (std::set<std::string> kinds = kindsNamed(word); !kinds.empty()) {
    Cells out;
    for (const std::string& one : kinds) out.add(ofKind(now, one, owner));
    return valueOf(Sort::set, &Value::cells, out);
  }
  for (const sheet::SetDecl& zone : tree_.zones) {
    if (zone.name.text != word) continue;
    Look outside = look;
    outside.me = owner;
    outside.names.clear();
    for (const auto& [whose, cells] : zone.sets)
      if (!whose || side(whose->text) == owner)
        return valueOf(Sort::set, &Value::cells, set(cells, outside));
  }
  for (const sheet::StateDecl& mark : tree_.marks)
    if (mark.name.text == word) return valueOf(Sort::set, &Value::cells, now.marks.at(word)[owner]);
  for (const sheet::StateDecl& number : tree_.numbers)
    if (number.name.text == word)
      return valueOf(Sort::number, &Value::number, now.numbers.at(word)[owner]);
  for (const sheet::StateDecl& cell : tree_.cells)
    if (cell.name.text == word) return valueOf(Sort::cell, &Value::cell, now.cells.at(word)[owner]);
  return called(inner, owner, look);
}

// WORD of a cell or a kind, a number on a cell, or X of SIDE.
Value Judge::ofName(const Expr& expr, const Look& look) const {
  const Expr& what = expr.args[0];
  const Expr& of = expr.args[1];
  const std::string& word = what.word;
  if (word == "row-no" || word == "column-no") {
    Cell at = cell(of, look);
    if (at < 0) return valueOf(Sort::number, &Value::number, 0);
    return valueOf(Sort::number, &Value::number,
                   word == "row-no" ? board_.rowNumber(at) : board_.columnNumber(at));
  }
  for (const sheet::StateDecl& number : tree_.numbers)
    if (number.name.text == word && number.onCells) {
      Cell at = cell(of, look);
      return valueOf(Sort::number, &Value::number, at < 0 ? 0 : look.now->onCells.at(word).at(at));
    }
  bool isProperty = false;
  for (const sheet::PieceDecl& one : tree_.pieces)
    for (const auto& [name, unused] : one.values) isProperty = isProperty || name.text == word;
  if (isProperty && what.kind == ExprKind::name && look.names.count(word) == 0) {
    if (isBareKind(of, look)) return valueOf(Sort::number, &Value::number, property(word, of.word));
    if (of.kind == ExprKind::name && look.names.count(of.word) > 0 &&
        look.names.at(of.word).sort == Value::Sort::kind)
      return valueOf(Sort::number, &Value::number, property(word, look.names.at(of.word).kind));
    Cell at = cell(of, look);
    std::optional<Standing> there = at < 0 ? std::nullopt : standing(*look.now, at, -1);
    return valueOf(Sort::number, &Value::number, there ? property(word, there->kind) : 0);
  }
  return ownedBy(what, side(of.word), look);
}

Value Judge::compare(const Expr& expr, const Look& look) const {
  const Expr& a = expr.args[0];
  const Expr& b = expr.args[1];
  const std::string& op = expr.word;
  bool equality = op == "=" || op == "!=";
  Value left = value(a, look);
  if (equality && left.sort == Value::Sort::number && a.kind == ExprKind::number &&
      board_.find(a.word)) {
    Value right = value(b, look);
    if (right.sort == Value::Sort::cell)
      return valueOf(Sort::truth, &Value::truth,
                     (*board_.find(a.word) == right.cell) == (op == "="));
  }
  if (left.sort == Value::Sort::cell)
    return valueOf(Sort::truth, &Value::truth, (left.cell == cell(b, look)) == (op == "="));
  if (left.sort == Value::Sort::kind && !isBareKind(a, look))
    return valueOf(Sort::truth, &Value::truth, (left.kind == kind(b, look)) == (op == "="));
  if (left.sort == Value::Sort::set || left.sort == Value::Sort::kind)
    return valueOf(Sort::truth, &Value::truth, (setOf(left, look) == set(b, look)) == (op == "="));
  return valueOf(Sort::truth, &Value::truth, comparesAs(op, left.number, number(b, look)));
}

// How many there are of what `any`, `no` and `count` ask about.
Value Judge::counted(const Expr& what, const Look& look) const {
  if (what.kind == ExprKind::lines)
    return valueOf(Sort::number, &Value::number,
                   static_cast<std::int64_t>(linesIn(what, look).size()));
  bool hand = what.kind == ExprKind::own && what.args[0].kind == ExprKind::hand;
  if (hand) {
    std::int64_t total = 0;
    for (const auto& [name, many] : look.now->hands[what.word == "my" ? look.me : 1 - look.me])
      total += many;
    return valueOf(Sort::number, &Value::number, total);
  }
  Value got = what.kind == ExprKind::number ? valueOf(Sort::set, &Value::cells, set(what, look))
                                            : value(what, look);
  if (got.sort == Value::Sort::kinds)
    return valueOf(Sort::number, &Value::number, static_cast<std::int64_t>(got.kinds.size()));
  return valueOf(Sort::number, &Value::number, static_cast<std::int64_t>(setOf(got, look).size()));
}

Value Judge::form(const Expr& expr, const Look& look) const {
  auto arg = [&](std::size_t i) -> const Expr& { return expr.args[i]; };
  auto owner = [&] { return expr.word == "my" ? look.me : 1 - look.me; };
  auto origin = [&]() -> Cells {
    bool given = expr.args.size() > (expr.plural ? 1u : 0u);
    return given ? set(arg(0), look) : look.origin.value_or(Cells{});
  };
  switch (expr.kind) {
    case ExprKind::number:
      return valueOf(Sort::number, &Value::number, expr.first);
    case ExprKind::name:
      return named(expr, look);
    case ExprKind::call:
      return called(expr, look.me, look);
    case ExprKind::own:
      return ownedBy(arg(0), owner(), look);
    case ExprKind::ofName:
      return ofName(expr, look);
    case ExprKind::on:
      return valueOf(Sort::set, &Value::cells, both(set(arg(0), look), set(arg(1), look)));
    case ExprKind::except:
      return valueOf(Sort::set, &Value::cells, minus(set(arg(0), look), set(arg(1), look)));
    case ExprKind::either: {
      if (arg(0).kind == ExprKind::number) {
        Cells out = set(arg(0), look);
        out.add(set(arg(1), look));
        return valueOf(Sort::set, &Value::cells, out);
      }
      Value left = value(arg(0), look);
      if (left.sort == Value::Sort::truth)
        return valueOf(Sort::truth, &Value::truth, left.truth || truth(arg(1), look));
      Cells out = setOf(left, look);
      out.add(set(arg(1), look));
      return valueOf(Sort::set, &Value::cells, out);
    }
    case ExprKind::both:
      return valueOf(Sort::truth, &Value::truth, truth(arg(0), look) && truth(arg(1), look));
    case ExprKind::negation:
      return valueOf(Sort::truth, &Value::truth, !truth(arg(0), look));
    case ExprKind::any:
      return valueOf(Sort::truth, &Value::truth, counted(arg(0), look).number > 0);
    case ExprKind::none:
      return valueOf(Sort::truth, &Value::truth, counted(arg(0), look).number == 0);
    case ExprKind::count:
      return counted(arg(0), look);
    case ExprKind::compare:
      return compare(expr, look);
    case ExprKind::within:
      return valueOf(Sort::truth, &Value::truth,
                     minus(set(arg(0), look), set(arg(1), look)).empty());
    case ExprKind::inside: {
      Cell at = cell(arg(0), look);
      return valueOf(Sort::truth, &Value::truth, at >= 0 && set(arg(1), look).count(at) > 0);
    }
    case ExprKind::is: {
      int who = side(arg(1).word);
      if (arg(0).word == "next") return valueOf(Sort::truth, &Value::truth, look.now->turn == who);
      return valueOf(Sort::truth, &Value::truth,
                     (arg(0).word == "mover" ? look.me : 1 - look.me) == who);
    }
    case ExprKind::arithmetic:
      return valueOf(Sort::number, &Value::number,
                     computed(expr.word, number(arg(0), look), number(arg(1), look)));
    case ExprKind::extreme: {
      std::int64_t a = number(arg(0), look), b = number(arg(1), look);
      return valueOf(Sort::number, &Value::number,
                     expr.word == "min" ? std::min(a, b) : std::max(a, b));
    }
    case ExprKind::ahead:
    case ExprKind::step: {
      Cells out;
      for (int way : directions(expr.word, look.me)) out.add(stepped(origin(), way));
      return valueOf(Sort::set, &Value::cells, out);
    }
    case ExprKind::slide: {
      Cells through =
          expr.plural ? set(expr.args.back(), look) : empty(*look.now, layered() ? look.me : 0);
      return valueOf(Sort::set, &Value::cells,
                     slid(origin(), through, directions(expr.word, look.me)));
    }
    case ExprKind::leap: {
      Cells out;
      int a = static_cast<int>(expr.first), b = static_cast<int>(expr.second);
      for (Cell from : origin())
        for (int x : {-a, a, -b, b})
          for (int y : {-a, a, -b, b}) {
            if (std::abs(x) + std::abs(y) != a + b) continue;
            if (a != b && std::abs(x) == std::abs(y)) continue;
            std::optional<Cell> to = board_.offset(from, x, y);
            if (to && *to != from) out.insert(*to);
          }
      return valueOf(Sort::set, &Value::cells, out);
    }
    case ExprKind::between: {
      Cell a = cell(arg(0), look), b = cell(arg(1), look);
      for (std::size_t way = 0; a >= 0 && b >= 0 && a != b && way < board_.directions().size();
           ++way) {
        Cells passed;
        for (Cell at = next(a, static_cast<int>(way)); at >= 0;
             at = next(at, static_cast<int>(way))) {
          if (at == b) return valueOf(Sort::set, &Value::cells, passed);
          if (!passed.insert(at)) break;
        }
      }
      return valueOf(Sort::set, &Value::cells, {});
    }
    case ExprKind::beyond: {
      Cell over = cell(arg(0), look), from = cell(arg(1), look);
      for (std::size_t way = 0;
           over >= 0 && from >= 0 && over != from && way < board_.directions().size(); ++way) {
        Cells passed;
        for (Cell at = next(from, static_cast<int>(way)); at >= 0;
             at = next(at, static_cast<int>(way))) {
          if (at == over) return valueOf(Sort::cell, &Value::cell, next(at, static_cast<int>(way)));
          if (!passed.insert(at)) break;
        }
      }
      return valueOf(Sort::cell, &Value::cell, -1);
    }
    case ExprKind::bracketed: {
      Cells run = set(arg(0), look), by = set(arg(2), look), out;
      Cell from = cell(arg(1), look);
      for (int way : directions(expr.word, look.me)) {
        Cells found;
        Cell at = next(from, way);
        while (at >= 0 && run.count(at) > 0 && found.insert(at)) at = next(at, way);
        if (at >= 0 && run.count(at) == 0 && by.count(at) > 0) out.add(found);
      }
      return valueOf(Sort::set, &Value::cells, out);
    }
    case ExprKind::lines: {
      Cells out;
      for (const Line& line : linesIn(expr, look)) out.add(Cells(line.cells));
      return valueOf(Sort::set, &Value::cells, out);
    }
    case ExprKind::spread:
      return valueOf(Sort::set, &Value::cells,
                     spread(set(arg(0), look), set(arg(1), look), directions(expr.word, look.me)));
    case ExprKind::reachOf:
      return valueOf(Sort::set, &Value::cells, reachOf(cell(arg(0), look), look));
    case ExprKind::choice: {
      const Expr& chosen = truth(arg(0), look) ? arg(1) : arg(2);
      // What is a cell or a kind in one way may be a set in the other, a plain number the label of
      // a cell.
      bool label = chosen.kind == ExprKind::number && arg(1).kind != ExprKind::number &&
                   value(arg(1), look).sort != Value::Sort::number;
      if (label) return valueOf(Sort::set, &Value::cells, set(chosen, look));
      Value got = value(chosen, look);
      bool kept = got.sort == Value::Sort::number || got.sort == Value::Sort::kinds;
      return kept ? got : valueOf(Sort::set, &Value::cells, set(chosen, look));
    }
    case ExprKind::rows:
    case ExprKind::columns: {
      Cells out;
      for (Cell cell = 0; cell < board_.size(); ++cell) {
        if (!board_.has(cell)) continue;
        int n = expr.kind == ExprKind::rows ? board_.rowNumber(cell) : board_.columnNumber(cell);
        bool in = expr.word == "odd"    ? n % 2 == 1
                  : expr.word == "even" ? n % 2 == 0
                                        : n >= expr.first && n <= expr.second;
        if (in) out.insert(cell);
      }
      return valueOf(Sort::set, &Value::cells, out);
    }
    case ExprKind::cellsWhere: {
      Cells out;
      for (Cell at : set(arg(0), look)) {
        Look inside = look;
        inside.names[expr.word] = valueOf(Sort::cell, &Value::cell, at);
        if (truth(arg(1), inside)) out.insert(at);
      }
      return valueOf(Sort::set, &Value::cells, out);
    }
    case ExprKind::groups: {
      Cells rest = set(arg(0), look), out;
      while (!rest.empty()) {
        Cells group = spread({rest.first()}, rest, directions(expr.along, look.me));
        rest = minus(rest, group);
        Look inside = look;
        inside.names[expr.word] = valueOf(Sort::set, &Value::cells, group);
        if (truth(arg(1), inside)) out.add(group);
      }
      return valueOf(Sort::set, &Value::cells, out);
    }
    case ExprKind::kindsWhere: {
      std::set<std::string> out;
      for (const std::string& one : kindsNamed(expr.along)) {
        Look inside = look;
        inside.names[expr.word] = valueOf(Sort::kind, &Value::kind, one);
        if (truth(arg(0), inside)) out.insert(one);
      }
      return valueOf(Sort::kinds, &Value::kinds, out);
    }
    case ExprKind::was: {
      Look earlier = look;
      earlier.now = look.before;
      Value got = value(arg(0), earlier);
      return got.sort == Value::Sort::kind && isBareKind(arg(0), earlier)
                 ? valueOf(Sort::set, &Value::cells, setOf(got, earlier))
                 : got;
    }
    case ExprKind::kindOn: {
      Cell at = cell(arg(0), look);
      std::optional<Standing> there = at < 0 ? std::nullopt : standing(*look.now, at, -1);
      return valueOf(Sort::kind, &Value::kind, there ? there->kind : "");
    }
    case ExprKind::edgeOf: {
      Cell a = cell(arg(0), look), b = cell(arg(1), look);
      std::optional<Standing> there = a < 0 ? std::nullopt : standing(*look.now, a, -1);
      std::int64_t edge = 0;
      if (!there || b < 0) return valueOf(Sort::number, &Value::number, 0);
      const std::vector<long long>& edges = piece(there->kind)->edges;
      for (std::size_t way = 0; way < board_.directions().size(); ++way)
        if (next(a, static_cast<int>(way)) == b) edge = way < edges.size() ? edges[way] : 0;
      return valueOf(Sort::number, &Value::number, edge);
    }
    case ExprKind::onTrack: {
      std::int64_t far = number(arg(0), look);
      Cell at = cell(arg(1), look);
      if (far < 0) return valueOf(Sort::cell, &Value::cell, -1);
      for (const sheet::TrackDecl& track : tree_.tracks) {
        if (track.name.text != expr.word) continue;
        for (const auto& [whose, names] : track.cells) {
          if (whose && side(whose->text) != look.me) continue;
          std::vector<Cell> order;
          for (const sheet::Name& name : names) order.push_back(*board_.find(name.text));
          auto it = std::find(order.begin(), order.end(), at);
          if (far == 0) return valueOf(Sort::cell, &Value::cell, at);
          if (it == order.end()) return valueOf(Sort::cell, &Value::cell, -1);
          std::int64_t size = static_cast<std::int64_t>(order.size());
          return valueOf(Sort::cell, &Value::cell,
                         order[static_cast<std::size_t>((it - order.begin() + far % size) % size)]);
        }
      }
      return valueOf(Sort::cell, &Value::cell, -1);
    }
    case ExprKind::movesOf: {
      int who = expr.word == "my" ? look.me : expr.word == "their" ? 1 - look.me : side(expr.word);
      return valueOf(Sort::number, &Value::number, countMoves(*look.now, who));
    }
    case ExprKind::total: {
      std::int64_t sum = 0;
      auto add = [&](Value one) {
        Look inside = look;
        inside.names[expr.word] = std::move(one);
        sum = computed("+", sum, number(arg(0), inside));
      };
      if (arg(1).kind == ExprKind::lines)
        for (const Line& line : linesIn(arg(1), look))
          add(valueOf(Sort::set, &Value::cells, Cells(line.cells)));
      else
        for (Cell at : set(arg(1), look)) add(valueOf(Sort::cell, &Value::cell, at));
      return valueOf(Sort::number, &Value::number, sum);
    }
    case ExprKind::hand:
      break;
  }
  throw std::logic_error("an expression without a meaning");
}

}  // namespace ninepegs::judge
