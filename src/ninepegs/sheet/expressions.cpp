#include "ninepegs/sheet/expressions.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace ninepegs::sheet {

bool mentions(const Expr& expr, const std::string& name) {
  if ((expr.kind == ExprKind::name || expr.kind == ExprKind::ofName) && expr.word == name)
    return true;
  return std::any_of(expr.args.begin(), expr.args.end(),
                     [&](const Expr& arg) { return mentions(arg, name); });
}

void Expressions::begin(int side, bool generator) {
  me_ = side;
  locals_.clear();
  piece_.reset();
  emit_.begin(generator);
}

const Value* Expressions::find(const std::string& name) const {
  auto it = locals_.find(name);
  return it == locals_.end() ? nullptr : &it->second;
}

Slot Expressions::binary(Op op, Slot b, Slot c) {
  Slot out = emit_.newSet();
  emit_.add(op, out, b, c);
  return out;
}

Slot Expressions::kindSet(const std::vector<int>& kinds, int owner) {
  const Layout& layout = program_.layout;
  if (static_cast<int>(kinds.size()) == program_.kinds) {
    if (owner >= 0) return layout.sides[owner];
    return binary(Op::minus, emit_.constantSet(sheet_.board.all()), layout.empty);
  }
  Slot all = layout.kinds[kinds[0]];
  for (std::size_t i = 1; i < kinds.size(); ++i)
    all = binary(Op::either, all, layout.kinds[kinds[i]]);
  return owner < 0 ? all : binary(Op::both, all, layout.sides[owner]);
}

Slot Expressions::ownSet(const Expr& name, int owner) {
  if (name.word == "reach") return reachOfSide(owner);
  const Symbol& symbol = *sheet_.find(name.word);
  switch (symbol.kind) {
    case SymbolKind::kind:
    case SymbolKind::group:
      return kindSet(sheet_.groupKinds(name.word), owner);
    case SymbolKind::zone:
      return emit_.constantSet(sheet_.zones[symbol.index][owner]);
    case SymbolKind::mark:
      return program_.layout.marks[symbol.index][owner];
    default:
      return inDefine(name, owner, [&](const Expr& body) { return set(body); });
  }
}

Slot Expressions::nameSet(const Expr& expr) {
  const Layout& layout = program_.layout;
  const std::string& word = expr.word;
  if (const Value* local = find(word)) {
    if (local->type == Type::set) return local->slot;
    Slot out = emit_.newSet();
    emit_.add(Op::cellSet, out, local->slot);
    return out;
  }
  if (word == "mine") return layout.sides[me_];
  if (word == "theirs") return layout.sides[1 - me_];
  if (word == "empty") return layout.empty;
  if (word == "occupied")
    return binary(Op::minus, emit_.constantSet(sheet_.board.all()), layout.empty);
  const Symbol& symbol = *sheet_.find(word);
  switch (symbol.kind) {
    case SymbolKind::kind:
    case SymbolKind::group:
      return kindSet(sheet_.groupKinds(word), -1);
    case SymbolKind::mark:
      return layout.marks[symbol.index][0];
    default:
      return inDefine(expr, me_, [&](const Expr& body) { return set(body); });
  }
}

Expressions::Origin Expressions::origin(const Expr& expr) {
  if (expr.args.empty()) return *piece_;
  const Expr& from = expr.args[0];
  if (from.kind == ExprKind::name) {
    const Value* local = find(from.word);
    if (local != nullptr && local->type == Type::cell) return {true, local->slot};
  }
  return {false, set(from)};
}

// Steps, leaps and slides from a cell or a set.
Slot Expressions::from(const Expr& expr, const Origin& start) {
  Slot out = emit_.newSet();
  if (expr.kind == ExprKind::leap) {
    int a = static_cast<int>(expr.first), b = static_cast<int>(expr.second);
    const Geometry& board = sheet_.board;
    int table = emit_.cellTable(fmt::format("leap {} {}", a, b), [&](Cell cell) {
      CellSet cells;
      for (auto [dx, dy] :
           {std::pair{a, b}, {a, -b}, {-a, b}, {-a, -b}, {b, a}, {b, -a}, {-b, a}, {-b, -a}}) {
        int x = board.drawnX(cell) + dx, y = board.drawnY(cell) + dy;
        if (board.shape().joinLeftRight)
          x = ((x % board.columns()) + board.columns()) % board.columns();
        if (board.shape().joinTopBottom) y = ((y % board.rows()) + board.rows()) % board.rows();
        if (x < 0 || y < 0 || x >= board.columns() || y >= board.rows()) continue;
        Cell to = board.cellAt(x, y);
        if (board.has(to) && to != cell) cells.set(to);
      }
      return cells;
    });
    emit_.add(start.isCell ? Op::table : Op::tableAll, out, start.slot, 0, 0, table);
    return out;
  }
  std::vector<int> directions = sheet_.directions(expr.word, me_);
  if (expr.kind == ExprKind::slide) {
    Slot cells = start.slot;
    if (start.isCell) {
      cells = emit_.newSet();
      emit_.add(Op::cellSet, cells, start.slot);
    }
    Slot through = expr.args.size() > 1 ? set(expr.args[1]) : program_.layout.empty;
    emit_.add(Op::slide, out, cells, through, 0, emit_.directionGroup(directions));
    return out;
  }
  if (start.isCell) {
    std::string key = "step";
    for (int direction : directions) key += " " + std::to_string(direction);
    int table = emit_.cellTable(key, [&](Cell cell) {
      CellSet one, cells;
      one.set(cell);
      for (int direction : directions) cells |= sheet_.board.stepped(one, direction);
      return cells;
    });
    emit_.add(Op::table, out, start.slot, 0, 0, table);
  } else if (directions.size() == 1) {
    emit_.add(Op::step, out, start.slot, 0, 0, directions[0]);
  } else {
    emit_.add(Op::steps, out, start.slot, 0, 0, emit_.directionGroup(directions));
  }
  return out;
}

Slot Expressions::reachOfSide(int owner) {
  Slot out = emit_.newSet();
  emit_.add(Op::clear, out);
  for (int kind = 0; kind < program_.kinds; ++kind) {
    const std::optional<Expr>& reach = sheet_.tree.pieces[kind].reach;
    if (!reach) continue;
    Slot pieces = kindSet({kind}, owner);
    std::optional<Origin> before = piece_;
    piece_ = Origin{false, pieces};
    Slot cells = asSide(owner, [&] { return set(*reach); });
    piece_ = before;
    emit_.add(Op::either, out, out, cells);
  }
  return out;
}

Slot Expressions::reachOfCell(Slot cell) {
  Slot out = emit_.newSet();
  emit_.add(Op::clear, out);
  int done = emit_.label();
  for (int owner = 0; owner < 2; ++owner) {
    int otherSide = emit_.label();
    emit_.jump(Op::jumpOut, otherSide, 0, cell, program_.layout.sides[owner]);
    for (int kind = 0; kind < program_.kinds; ++kind) {
      const std::optional<Expr>& reach = sheet_.tree.pieces[kind].reach;
      if (!reach) continue;
      int next = emit_.label();
      if (program_.kinds > 1) emit_.jump(Op::jumpOut, next, 0, cell, program_.layout.kinds[kind]);
      std::optional<Origin> before = piece_;
      piece_ = Origin{true, cell};
      Slot cells = asSide(owner, [&] { return set(*reach); });
      piece_ = before;
      emit_.add(Op::copySet, out, cells);
      emit_.jump(Op::jump, done);
      emit_.place(next);
    }
    emit_.place(otherSide);
  }
  emit_.place(done);
  return out;
}

int Expressions::lineSetOf(const Expr& lines) {
  return emit_.lineSet(static_cast<int>(lines.args[0].first),
                       sheet_.board.axes(sheet_.board.directionGroup(lines.word)));
}

Slot Expressions::set(const Expr& expr) {
  if (std::optional<CellSet> constant = sheet_.constantSet(expr, me_);
      constant && (expr.kind != ExprKind::name || find(expr.word) == nullptr))
    return emit_.constantSet(*constant);
  switch (expr.kind) {
    case ExprKind::name:
    case ExprKind::call:
      return nameSet(expr);
    case ExprKind::own:
      return ownSet(expr.args[0], expr.word == "my" ? me_ : 1 - me_);
    case ExprKind::ofName:
      return ownSet(expr.args[0], sheet_.side(expr.args[1].word));
    case ExprKind::on: {
      Slot left = set(expr.args[0]);
      return binary(Op::both, left, set(expr.args[1]));
    }
    case ExprKind::either: {
      Slot left = set(expr.args[0]);
      return binary(Op::either, left, set(expr.args[1]));
    }
    case ExprKind::except: {
      Slot left = set(expr.args[0]);
      return binary(Op::minus, left, set(expr.args[1]));
    }
    case ExprKind::ahead:
    case ExprKind::step:
    case ExprKind::slide:
    case ExprKind::leap:
      return from(expr, origin(expr));
    case ExprKind::between: {
      Slot a = cell(expr.args[0]), b = cell(expr.args[1]), out = emit_.newSet();
      emit_.add(Op::between, out, a, b);
      return out;
    }
    case ExprKind::bracketed: {
      Slot run = set(expr.args[0]), at = cell(expr.args[1]), by = set(expr.args[2]);
      Slot out = emit_.newSet();
      emit_.add(Op::bracketed, out, run, at, by,
                emit_.directionGroup(sheet_.directions(expr.word, me_)));
      return out;
    }
    case ExprKind::lines: {
      Slot in = set(expr.args[1]), out = emit_.newSet();
      emit_.add(Op::lineCells, out, in, 0, 0, lineSetOf(expr));
      return out;
    }
    case ExprKind::spread: {
      Slot start = set(expr.args[0]), through = set(expr.args[1]), out = emit_.newSet();
      emit_.add(Op::spread, out, start, through, 0,
                emit_.directionGroup(sheet_.directions(expr.word, me_)));
      return out;
    }
    case ExprKind::reachOf:
      return reachOfCell(cell(expr.args[0]));
    case ExprKind::choice: {
      Slot out = emit_.newSet();
      int otherwise = emit_.label(), done = emit_.label();
      branch(expr.args[0], false, otherwise);
      emit_.add(Op::copySet, out, set(expr.args[1]));
      emit_.jump(Op::jump, done);
      emit_.place(otherwise);
      emit_.add(Op::copySet, out, set(expr.args[2]));
      emit_.place(done);
      return out;
    }
    case ExprKind::cellsWhere: {
      Slot rest = emit_.newSet(), out = emit_.newSet(), one = emit_.newSet();
      Slot at = emit_.newNumber();
      emit_.add(Op::copySet, rest, set(expr.args[0]));
      emit_.add(Op::clear, out);
      int loop = emit_.label(), done = emit_.label();
      emit_.place(loop);
      emit_.jump(Op::nextCell, done, at, rest);
      bind(expr.word, {Type::cell, at});
      branch(expr.args[1], false, loop);
      locals_.erase(expr.word);
      emit_.add(Op::cellSet, one, at);
      emit_.add(Op::either, out, out, one);
      emit_.jump(Op::jump, loop);
      emit_.place(done);
      return out;
    }
    default: {  // a cell
      Slot at = cell(expr), out = emit_.newSet();
      emit_.add(Op::cellSet, out, at);
      return out;
    }
  }
}

Slot Expressions::cell(const Expr& expr) {
  if (expr.kind == ExprKind::name) {
    if (const Value* local = find(expr.word); local != nullptr && local->type == Type::cell)
      return local->slot;
    const Symbol* symbol = sheet_.find(expr.word);
    if (symbol != nullptr && symbol->kind == SymbolKind::cell)
      return emit_.constantNumber(symbol->index);
  }
  Slot out = emit_.newNumber();
  if (expr.kind == ExprKind::beyond) {
    Slot over = cell(expr.args[0]), from = cell(expr.args[1]);
    emit_.add(Op::beyond, out, over, from);
  } else {
    emit_.add(Op::setCell, out, set(expr));
  }
  return out;
}

}  // namespace ninepegs::sheet
