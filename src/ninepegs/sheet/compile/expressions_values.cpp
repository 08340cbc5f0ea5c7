// Numbers, values of any type, and conditions as jumps.
#include <algorithm>

#include "ninepegs/sheet/compile/expressions.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {

Slot Expressions::total(const Expr& expr) {
  Slot sum = emit_.newNumber(), at = emit_.newNumber();
  emit_.add(Op::copyNumber, sum, emit_.constantNumber(0));
  int loop = emit_.label(), done = emit_.label();
  const Expr& over = expr.args[1];
  int begun = 0;
  bool lines = over.kind == ExprKind::lines;
  if (lines) {
    Slot in = set(over.args[1]), line = emit_.newSet(), through = 0;
    if (over.args.size() > 2) through = cell(over.args[2]);
    emit_.add(Op::copyNumber, at, emit_.constantNumber(0));
    emit_.place(loop);
    begun = emit_.here();
    emit_.jump(Op::nextLine, done, line, at, in, static_cast<Slot>(lineSetOf(over)));
    if (over.args.size() > 2) emit_.jump(Op::jumpOut, loop, 0, through, line);
    bind(expr.word, {Type::set, line});
  } else {
    Slot rest = emit_.newSet();
    emit_.add(Op::copySet, rest, set(over));
    emit_.place(loop);
    begun = emit_.here();
    emit_.jump(Op::nextCell, done, at, rest);
    bind(expr.word, {Type::cell, at});
  }
  Slot one = number(expr.args[0]);
  unbind(expr.word);
  emit_.add(Op::add, sum, sum, one);
  if (lines) emit_.weigh(begun);
  emit_.jump(Op::jump, loop);
  emit_.place(done);
  if (!lines) emit_.weighLoop(begun);
  return sum;
}

void Expressions::countLines(const Expr& lines, Slot out) {
  Slot in = set(lines.args[1]);
  bool through = lines.args.size() > 2;
  Slot at = through ? cell(lines.args[2]) : Slot{0};
  emit_.add(Op::countLines, out, in, at, through ? 1 : 0, lineSetOf(lines));
}

Slot Expressions::numberOfName(const Expr& expr) {
  const std::string& word = expr.word;
  if (const Value* local = find(word)) return local->slot;
  if (word == "plies") return place(Layout::plies);
  if (word == "passes") return place(program_.layout.passes);
  if (word == "times seen") {
    Slot out = emit_.newNumber();
    emit_.add(Op::timesSeen, out);
    return out;
  }
  const Symbol& symbol = *sheet_.find(word);
  if (symbol.kind == SymbolKind::number) return place(program_.layout.numbers[symbol.index][0]);
  return inDefine(expr, me_, [&](const Expr& body) { return number(body); });
}

// X of Y: a side's number, a number on a cell, or a word of a piece or of a kind.
Slot Expressions::numberOf(const Expr& expr) {
  const Expr& own = expr.args[0];
  const std::string& word = own.word;
  int side = sheet_.side(expr.args[1].word);
  const Symbol* symbol = sheet_.find(word);
  bool onCells = symbol != nullptr && symbol->kind == SymbolKind::number &&
                 sheet_.tree.numbers[symbol->index].onCells;
  if (side >= 0 && find(expr.args[1].word) == nullptr && !onCells) {
    if (symbol->kind == SymbolKind::number)
      return place(program_.layout.numbers[symbol->index][side]);
    return inDefine(own, side, [&](const Expr& body) { return number(body); });
  }
  Slot out = emit_.newNumber();
  if (expr.args[1].type == Type::kind) {
    const Value* local = find(expr.args[1].word);
    int constant = local != nullptr ? local->constantKind : sheet_.kind(expr.args[1].word);
    if (constant >= 0) return emit_.constantNumber(program_.properties[symbol->index][constant]);
    emit_.add(Op::kindProperty, out, local->slot, 0, 0, symbol->index);
    return out;
  }
  Slot at = cell(expr.args[1]);
  if (word == weightsName)
    emit_.add(Op::weight, out, at);
  else if (word == "row-no")
    emit_.add(Op::rowNumber, out, at);
  else if (word == "column-no")
    emit_.add(Op::columnNumber, out, at);
  else if (onCells)
    emit_.add(Op::cellNumber, out, place(program_.layout.cellNumbers[symbol->index]), at);
  else
    emit_.add(Op::property, out, at, 0, static_cast<Slot>(past()), symbol->index);
  return out;
}

Slot Expressions::number(const Expr& expr) {
  auto compute = [&](Op op) {
    Slot a = number(expr.args[0]);
    // The same twice, as in a square, is worked out once.
    Slot b = toText(expr.args[0]) == toText(expr.args[1]) ? a : number(expr.args[1]);
    Slot out = emit_.newNumber();
    emit_.add(op, out, a, b);
    return out;
  };
  switch (expr.kind) {
    case ExprKind::number:
      return emit_.constantNumber(expr.first);
    case ExprKind::name:
      return numberOfName(expr);
    case ExprKind::call:
      return inDefine(expr, me_, [&](const Expr& body) { return number(body); });
    case ExprKind::own: {
      int owner = expr.word == "my" ? me_ : 1 - me_;
      const Expr& inner = expr.args[0];
      if (inner.kind == ExprKind::hand) {
        Slot of = kind(inner.args[0]), out = emit_.newNumber();
        emit_.add(Op::handOf, out, of, 0, static_cast<Slot>(owner), past());
        return out;
      }
      const Symbol& symbol = *sheet_.find(inner.word);
      if (symbol.kind == SymbolKind::number)
        return place(program_.layout.numbers[symbol.index][owner]);
      return inDefine(inner, owner, [&](const Expr& body) { return number(body); });
    }
    case ExprKind::ofName:
      return numberOf(expr);
    case ExprKind::was:
      return earlier([&] { return number(expr.args[0]); });
    case ExprKind::edgeOf: {
      Slot a = cell(expr.args[0]), b = cell(expr.args[1]), out = emit_.newNumber();
      emit_.add(Op::edgeOf, out, a, b, static_cast<Slot>(past()));
      return out;
    }
    case ExprKind::movesOf: {
      int side = expr.word == "my" ? me_ : expr.word == "their" ? 1 - me_ : sheet_.side(expr.word);
      Slot out = emit_.newNumber();
      emit_.add(Op::countMoves, out, 0, 0, static_cast<Slot>(side));
      return out;
    }
    case ExprKind::count: {
      Slot out = emit_.newNumber();
      const Expr& what = expr.args[0];
      if (what.kind == ExprKind::own && what.args[0].kind == ExprKind::hand &&
          what.args[0].args.empty())
        emit_.add(Op::handTotal, out, 0, 0, static_cast<Slot>(what.word == "my" ? me_ : 1 - me_),
                  past());
      else if (what.kind == ExprKind::lines)
        countLines(what, out);
      else
        emit_.add(Op::count, out, set(what));
      return out;
    }
    case ExprKind::arithmetic:
      return compute(expr.word == "+"   ? Op::add
                     : expr.word == "-" ? Op::subtract
                     : expr.word == "*" ? Op::multiply
                     : expr.word == "/" ? Op::divide
                                        : Op::remainder);
    case ExprKind::extreme:
      return compute(expr.word == "min" ? Op::least : Op::greatest);
    case ExprKind::choice:
      return choiceOf(expr, Op::copyNumber, emit_.newNumber());
    default:
      return total(expr);
  }
}

Value Expressions::value(const Expr& expr) {
  if (expr.kind == ExprKind::name)
    if (const Value* local = find(expr.word)) return *local;
  if (expr.type == Type::number) return {Type::number, number(expr)};
  if (expr.type == Type::cell) return {Type::cell, cell(expr)};
  if (expr.type == Type::kind) {
    int constant = expr.kind == ExprKind::name ? sheet_.kind(expr.word) : -1;
    return {Type::kind, kind(expr), constant};
  }
  if (expr.type == Type::kinds) return {Type::kinds, kinds(expr)};
  return {Type::set, set(expr)};
}

void Expressions::branch(const Expr& expr, bool sense, int label) {
  auto go = [&](Op whenTrue, Op whenFalse, Slot b, Slot c = 0) {
    emit_.jump(sense ? whenTrue : whenFalse, label, 0, b, c);
  };
  switch (expr.kind) {
    case ExprKind::negation:
      return branch(expr.args[0], !sense, label);
    case ExprKind::both:
    case ExprKind::either: {
      // `and` is false as soon as one side is; `or` true as soon as one side is.
      bool quick = expr.kind == ExprKind::either;
      if (sense == quick) {
        branch(expr.args[0], sense, label);
        branch(expr.args[1], sense, label);
      } else {
        int skip = emit_.label();
        branch(expr.args[0], quick, skip);
        branch(expr.args[1], sense, label);
        emit_.place(skip);
      }
      return;
    }
    case ExprKind::any:
    case ExprKind::none: {
      const Expr& what = expr.args[0];
      if (expr.kind == ExprKind::none) sense = !sense;
      if (what.kind == ExprKind::lines) {
        Slot in = set(what.args[1]);
        if (what.args.size() == 2)
          return go(Op::jumpLine, Op::jumpNoLine, in, static_cast<Slot>(lineSetOf(what)));
        Slot through = cell(what.args[2]);
        return emit_.jump(sense ? Op::jumpLineThrough : Op::jumpNoLineThrough, label, 0, in,
                          static_cast<Slot>(lineSetOf(what)), through);
      }
      std::optional<Attack> attack;
      if (emit_.takes(Shortcut::backwards)) attack = attackOf(what);
      if (attack) {
        Slot cells = set(*attack->targets.back());
        for (std::size_t i = 0; i + 1 < attack->targets.size(); ++i)
          cells = binary(Op::both, cells, set(*attack->targets[i]));
        if (branchAttacked(cells, attack->attacker, sense, label)) return;
      }
      return go(Op::jumpAny, Op::jumpNone, set(what));
    }
    case ExprKind::compare: {
      if (expr.args[0].type == Type::set) {
        Slot left = set(expr.args[0]), right = set(expr.args[1]);
        return expr.word == "=" ? go(Op::jumpSame, Op::jumpOther, left, right)
                                : go(Op::jumpOther, Op::jumpSame, left, right);
      }
      if (expr.args[0].type == Type::kind) {
        Slot left = kind(expr.args[0]), right = kind(expr.args[1]);
        return expr.word == "=" ? go(Op::jumpEqual, Op::jumpUnequal, left, right)
                                : go(Op::jumpUnequal, Op::jumpEqual, left, right);
      }
      bool cells = expr.args[0].type == Type::cell;
      Slot a = cells ? cell(expr.args[0]) : number(expr.args[0]);
      Slot b = cells ? cell(expr.args[1]) : number(expr.args[1]);
      const std::string& word = expr.word;
      if (word == "=") return go(Op::jumpEqual, Op::jumpUnequal, a, b);
      if (word == "!=") return go(Op::jumpUnequal, Op::jumpEqual, a, b);
      // a < b is no b <= a, and so on
      if (word == ">" || word == ">=") std::swap(a, b);
      bool strict = word == "<" || word == ">";
      if (sense) return emit_.jump(strict ? Op::jumpLess : Op::jumpLessEqual, label, 0, a, b);
      return emit_.jump(strict ? Op::jumpLessEqual : Op::jumpLess, label, 0, b, a);
    }
    case ExprKind::within: {
      Slot a = set(expr.args[0]);
      return go(Op::jumpWithin, Op::jumpBeyond, a, set(expr.args[1]));
    }
    case ExprKind::inside: {
      Slot a = cell(expr.args[0]);
      return go(Op::jumpIn, Op::jumpOut, a, set(expr.args[1]));
    }
    case ExprKind::is: {
      int side = sheet_.side(expr.args[1].word);
      if (expr.args[0].word == "next")
        return go(Op::jumpEqual, Op::jumpUnequal, place(Layout::turn), emit_.constantNumber(side));
      bool holds = (expr.args[0].word == "mover") == (side == me_);
      if (holds == sense) emit_.jump(Op::jump, label);
      return;
    }
    case ExprKind::was:
      earlier([&] {
        branch(expr.args[0], sense, label);
        return 0;
      });
      return;
    case ExprKind::own: {
      int owner = expr.word == "my" ? me_ : 1 - me_;
      inDefine(expr.args[0], owner, [&](const Expr& body) {
        branch(body, sense, label);
        return 0;
      });
      return;
    }
    default:
      if (expr.word == "stuck") return go(Op::jumpStuck, Op::jumpUnstuck, 0);
      if (expr.word == "nobody can move") return go(Op::jumpNobody, Op::jumpSomebody, 0);
      inDefine(expr, me_, [&](const Expr& body) {
        branch(body, sense, label);
        return 0;
      });
  }
}

}  // namespace ninepegs::sheet
