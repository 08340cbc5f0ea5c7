#include "ninepegs/sheet/rules/types.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <utility>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {

std::string typeName(Type type) {
  switch (type) {
    case Type::set:
      return "a set of cells";
    case Type::cell:
      return "a cell";
    case Type::number:
      return "a number";
    case Type::truth:
      return "a condition";
    case Type::kind:
      return "a kind of piece";
    case Type::kinds:
      return "kinds of piece";
    case Type::lineset:
      return "lines";
    case Type::unknown:
      break;
  }
  return "unknown";
}

void Types::note(Span span, const std::string& message, const std::string& hint) {
  addMessage(found_, {source_.place(span), message, hint});
}

void Types::local(const Name& name, Type type) {
  if (localType(name.text) != Type::unknown)
    note(name.span, fmt::format("\"{}\" is already a name in this move", name.text),
         "choose another name");
  else if (const Symbol* symbol = sheet_.find(name.text))
    note(name.span,
         symbol->kind == SymbolKind::cell
             ? fmt::format("\"{}\" is the label of a cell and cannot be a name", name.text)
             : fmt::format("\"{}\" is already a name of this sheet", name.text),
         "choose another name");
  locals_.emplace_back(name.text, type);
}

Type Types::localType(const std::string& name) const {
  for (auto it = locals_.rbegin(); it != locals_.rend(); ++it)
    if (it->first == name) return it->second;
  return Type::unknown;
}

std::vector<std::string> Types::localNames() const {
  std::vector<std::string> names;
  for (const auto& [name, unused] : locals_) names.push_back(name);
  return names;
}

std::vector<std::string> Types::namesInScope() const {
  std::vector<std::string> names = localNames();
  for (const auto& [name, symbol] : sheet_.symbols)
    if (symbol.kind != SymbolKind::cell || name.size() > 1) names.push_back(name);
  for (const char* word : {"all", "empty", "occupied", "mine", "theirs", "plies", "stuck"})
    names.emplace_back(word);
  return names;
}

bool Types::isSide(const Expr& expr) const {
  return expr.kind == ExprKind::name && sheet_.side(expr.word) >= 0;
}

bool Types::want(Expr& expr, Type type) {
  // A bare number can be the label of a cell.
  if (expr.kind == ExprKind::number && (type == Type::set || type == Type::cell)) {
    const Symbol* symbol = sheet_.find(expr.word);
    if (symbol != nullptr && symbol->kind == SymbolKind::cell) expr.kind = ExprKind::name;
  }
  if (type == Type::kind && expr.kind == ExprKind::name && localType(expr.word) == Type::unknown &&
      sheet_.kind(expr.word) >= 0) {
    sheet_.used.insert(expr.word);
    expr.type = Type::kind;
    return true;
  }
  std::size_t before = found_.size();
  Type got = infer(expr);
  if (found_.size() > before || got == Type::unknown) return false;
  if (got == type) return true;
  if (type == Type::set && got == Type::cell) return true;
  if (type == Type::set && got == Type::kind) return true;  // both sides' pieces of that kind
  if (type == Type::cell && got == Type::set) return true;  // the one cell of the set
  std::string hint;
  if (type == Type::truth && (got == Type::set || got == Type::cell))
    hint = "a set is no condition: say `any S`, `no S` or `c in S`";
  if (type == Type::number && (got == Type::set || got == Type::cell))
    hint = "say `count S` for the number of its cells";
  if (type == Type::set && got == Type::number)
    hint = sheet_.board.shape().numbered
               ? fmt::format("the cells are numbered 1 to {}", sheet_.board.all().count())
               : "a cell is named like a1";
  if (type == Type::set && got == Type::truth)
    hint = "`and`, `not` and comparisons make conditions";
  note(expr.span,
       fmt::format("{} should stand here, but this is {}", typeName(type), typeName(got)), hint);
  return false;
}

Type Types::valueOf(Expr& expr) {
  Type got = infer(expr);
  if (got == Type::truth) {
    note(expr.span, "a condition cannot be given a name here",
         "use it where it is needed, or give it a name with `define`");
    return Type::unknown;
  }
  if (got == Type::lineset) {
    note(expr.span, "lines can be tested, counted and shown, but not named");
    return Type::unknown;
  }
  return got;
}

bool Types::wantSets(Expr& expr) {
  bool good = true;
  for (Expr& arg : expr.args) good = want(arg, Type::set) && good;
  return good;
}

Type Types::bind(Expr& body, const std::string& variable, Type type, Type wanted) {
  std::size_t mark = scope();
  local({variable, body.span}, type);
  bool good = want(body, wanted);
  endScope(mark);
  return good ? wanted : Type::unknown;
}

Type Types::infer(Expr& expr) {
  if (++depth_ > limits::expressionDepth) {
    --depth_;
    note(expr.span,
         fmt::format("with its definitions written out, this goes deeper than {}, the limit",
                     limits::expressionDepth),
         "let definitions use each other less");
    return expr.type = Type::unknown;
  }
  Type type = inferForm(expr);
  --depth_;
  return type;
}

Type Types::inferForm(Expr& expr) {
  auto typed = [&](Type type) { return expr.type = type; };
  switch (expr.kind) {
    case ExprKind::number:
      return typed(Type::number);
    case ExprKind::name:
      return typed(name(expr));
    case ExprKind::call:
      return typed(call(expr));
    case ExprKind::own:
      return typed(own(expr));
    case ExprKind::ofName:
      return typed(ofName(expr));
    case ExprKind::on:
    case ExprKind::except:
      return typed(wantSets(expr) ? Type::set : Type::unknown);
    case ExprKind::either:
      return typed(either(expr));
    case ExprKind::both: {
      bool good = want(expr.args[0], Type::truth);
      good = want(expr.args[1], Type::truth) && good;
      return typed(good ? Type::truth : Type::unknown);
    }
    case ExprKind::negation:
      return typed(want(expr.args[0], Type::truth) ? Type::truth : Type::unknown);
    case ExprKind::any:
    case ExprKind::none:
    case ExprKind::count: {
      Type result = expr.kind == ExprKind::count ? Type::number : Type::truth;
      Expr& inner = expr.args[0];
      if (inner.kind == ExprKind::lines) {
        if (!inner.plural && expr.kind == ExprKind::count)
          note(inner.span, "one `line` is tested with any and no", "say: count lines of ...");
        if (infer(inner) == Type::unknown) return typed(Type::unknown);
        return typed(result);
      }
      if (inner.kind == ExprKind::kindsWhere || isHand(inner))
        return typed(infer(inner) == Type::unknown ? Type::unknown : result);
      return typed(want(inner, Type::set) ? result : Type::unknown);
    }
    case ExprKind::compare:
      return typed(compare(expr));
    case ExprKind::within:
      return typed(wantSets(expr) ? Type::truth : Type::unknown);
    case ExprKind::inside: {
      bool good = want(expr.args[0], Type::cell);
      good = want(expr.args[1], Type::set) && good;
      return typed(good ? Type::truth : Type::unknown);
    }
    case ExprKind::is: {
      Expr& subject = expr.args[0];
      bool known =
          subject.kind == ExprKind::name &&
          (subject.word == "mover" || subject.word == "opponent" || subject.word == "next");
      if (!known) note(subject.span, "`is` compares mover, opponent or next with a side");
      if (!isSide(expr.args[1])) {
        note(
            expr.args[1].span, "the name of a side should stand here",
            fmt::format("there are: {}, {}", sheet_.tree.sides[0].text, sheet_.tree.sides[1].text));
        known = false;
      }
      return typed(known ? Type::truth : Type::unknown);
    }
    case ExprKind::arithmetic:
    case ExprKind::extreme: {
      bool good = want(expr.args[0], Type::number);
      good = want(expr.args[1], Type::number) && good;
      return typed(good ? Type::number : Type::unknown);
    }
    case ExprKind::ahead:
      if (!group(expr, expr.word)) return typed(Type::unknown);
      return typed(wantSets(expr) ? Type::set : Type::unknown);
    case ExprKind::step:
    case ExprKind::slide:
    case ExprKind::leap:
      if (expr.kind != ExprKind::leap && !group(expr, expr.word)) return typed(Type::unknown);
      if (expr.kind == ExprKind::leap && sheet_.board.columns() > 0 &&
          sheet_.board.shape().kind != Shape::square) {
        note(expr.span, "leaps are known on square boards only");
        return typed(Type::unknown);
      }
      if (expr.kind == ExprKind::leap &&
          (std::min(expr.first, expr.second) < 0 || std::max(expr.first, expr.second) < 1 ||
           std::max(expr.first, expr.second) > limits::cells)) {
        note(expr.span, "a leap has two parts from 0 up, not both 0",
             "such as: leap 1 2 from here");
        return typed(Type::unknown);
      }
      if (expr.args.size() == (expr.plural ? 1 : 0) && context_ != Context::reach) {
        note(expr.span, "from where? `from` is left out only in the reach of a piece",
             "say: step any from here");
        return typed(Type::unknown);
      }
      return typed(wantSets(expr) ? Type::set : Type::unknown);
    case ExprKind::between: {
      bool good = want(expr.args[0], Type::cell);
      good = want(expr.args[1], Type::cell) && good;
      return typed(good ? Type::set : Type::unknown);
    }
    case ExprKind::beyond: {
      bool good = want(expr.args[0], Type::cell);
      good = want(expr.args[1], Type::cell) && good;
      return typed(good ? Type::cell : Type::unknown);
    }
    case ExprKind::bracketed: {
      if (!group(expr, expr.word)) return typed(Type::unknown);
      bool good = want(expr.args[0], Type::set);
      good = want(expr.args[1], Type::cell) && good;
      good = want(expr.args[2], Type::set) && good;
      return typed(good ? Type::set : Type::unknown);
    }
    case ExprKind::lines:
      return typed(lines(expr, false));
    case ExprKind::spread:
      if (!group(expr, expr.word)) return typed(Type::unknown);
      return typed(wantSets(expr) ? Type::set : Type::unknown);
    case ExprKind::reachOf:
      if (!outsideReach(expr)) return typed(Type::unknown);
      return typed(want(expr.args[0], Type::cell) ? Type::set : Type::unknown);
    case ExprKind::choice: {
      bool good = want(expr.args[0], Type::truth);
      Type left = infer(expr.args[1]);
      if (left == Type::cell || left == Type::kind) left = Type::set;
      if (left == Type::truth || left == Type::lineset) {
        note(expr.args[1].span, fmt::format("{} has no place here", typeName(left)),
             "`if ... then ... else ...` chooses between sets, cells or numbers");
        return typed(Type::unknown);
      }
      good = want(expr.args[2], left) && good;
      return typed(good && left != Type::unknown ? left : Type::unknown);
    }
    case ExprKind::rows:
    case ExprKind::columns: {
      std::optional<CellSet> cells = sheet_.constantSet(expr, 0);
      if (cells && cells->none()) {
        note(expr.span, "this set has no cells",
             fmt::format("the board has {} columns and {} rows", sheet_.board.columns(),
                         sheet_.board.rows()));
        return typed(Type::unknown);
      }
      return typed(Type::set);
    }
    case ExprKind::cellsWhere: {
      if (!want(expr.args[0], Type::set)) return typed(Type::unknown);
      return typed(bind(expr.args[1], expr.word, Type::cell, Type::truth) == Type::unknown
                       ? Type::unknown
                       : Type::set);
    }
    case ExprKind::groups: {
      if (!want(expr.args[0], Type::set) || !group(expr, expr.along)) return typed(Type::unknown);
      return typed(bind(expr.args[1], expr.word, Type::set, Type::truth) == Type::unknown
                       ? Type::unknown
                       : Type::set);
    }
    case ExprKind::kindsWhere:
      return typed(kindWord(expr));
    case ExprKind::was: {
      if (!inside(
              {Context::move, Context::after, Context::forbid, Context::ends, Context::define})) {
        note(expr.span, "`was` is known where a move has just been made",
             "in moves, `after`, `forbid` and `ends`");
        return typed(Type::unknown);
      }
      sheet_.readsBefore = true;
      bool outer = std::exchange(inWas_, true);
      Type type = infer(expr.args[0]);
      inWas_ = outer;
      return typed(type);
    }
    case ExprKind::hand:
      note(expr.span, "whose hand?", "say: my hand, or their hand");
      return typed(Type::unknown);
    case ExprKind::kindOn:
      return typed(want(expr.args[0], Type::cell) ? Type::kind : Type::unknown);
    case ExprKind::edgeOf: {
      if (!sheet_.hasEdges) {
        note(expr.span, "no piece has edges", "say with a piece: edges 2 7 2 7 2 1");
        return typed(Type::unknown);
      }
      bool good = want(expr.args[0], Type::cell);
      good = want(expr.args[1], Type::cell) && good;
      return typed(good ? Type::number : Type::unknown);
    }
    case ExprKind::onTrack: {
      const Symbol* symbol = sheet_.find(expr.word);
      sheet_.used.insert(expr.word);
      if (symbol == nullptr || symbol->kind != SymbolKind::track) {
        note(expr.span, fmt::format("there is no track \"{}\"", expr.word),
             "declare it: track " + expr.word + " = a1 b1 c1");
        return typed(Type::unknown);
      }
      bool good = want(expr.args[0], Type::number);
      good = want(expr.args[1], Type::cell) && good;
      return typed(good ? Type::cell : Type::unknown);
    }
    case ExprKind::movesOf: {
      bool known = expr.word == "my" || expr.word == "their" || sheet_.side(expr.word) >= 0;
      if (!known) note(expr.span, fmt::format("\"{}\" is no side", expr.word));
      if (!ofNow(expr, "the number of moves")) return typed(Type::unknown);
      if (!inside({Context::ends, Context::worth, Context::always, Context::define,
                   Context::example})) {
        note(expr.span, "moves are counted only in `ends`, `worth`, `always` and cases");
        known = false;
      }
      return typed(known ? Type::number : Type::unknown);
    }
    case ExprKind::total: {
      Expr& over = expr.args[1];
      bool lines = over.kind == ExprKind::lines && over.plural;
      if (lines ? infer(over) == Type::unknown : !want(over, Type::set))
        return typed(Type::unknown);
      return typed(bind(expr.args[0], expr.word, lines ? Type::set : Type::cell, Type::number));
    }
  }
  return Type::unknown;
}

}  // namespace ninepegs::sheet
