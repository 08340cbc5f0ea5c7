// Sets and cells.
#include "ninepegs/sheet/compile/expressions.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace ninepegs::sheet {

bool mentions(const Expr& expr, const std::string& name) {
  bool named = expr.kind == ExprKind::name || expr.kind == ExprKind::ofName;
  if (named && expr.word == name && !(expr.kind == ExprKind::name && expr.plural)) return true;
  return std::any_of(expr.args.begin(), expr.args.end(),
                     [&](const Expr& arg) { return mentions(arg, name); });
}

void Expressions::begin(int side, Scratch scratch) {
  me_ = side;
  scratch_ = scratch;
  before_ = false;
  locals_.clear();
  piece_.reset();
  emit_.begin(scratch);
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

Slot Expressions::ownSet(const Expr& name, int owner) {
  if (name.word == "reach" && name.kind == ExprKind::name) return reachOfSide(owner);
  const Layout& layout = program_.layout;
  if (const Value* local = find(name.word); local != nullptr && local->type == Type::kind)
    return kindNamed(*local, owner);
  if (name.word == "empty") return place(layout.empty[owner]);
  if (name.word == "occupied")
    return binary(Op::minus, emit_.constantSet(sheet_.board.all()), place(layout.empty[owner]));
  const Symbol& symbol = *sheet_.find(name.word);
  switch (symbol.kind) {
    case SymbolKind::kind:
    case SymbolKind::group:
      return kindSet(sheet_.groupKinds(name.word), owner);
    case SymbolKind::zone:
      return emit_.constantSet(sheet_.zones[symbol.index][owner]);
    case SymbolKind::mark:
      return place(layout.marks[symbol.index][owner]);
    case SymbolKind::remembered: {
      Slot out = emit_.newSet();
      emit_.add(Op::cellSet, out, place(layout.cells[symbol.index][owner]));
      return out;
    }
    default:
      return inDefine(name, owner, [&](const Expr& body) { return set(body); });
  }
}

Slot Expressions::nameSet(const Expr& expr) {
  const Layout& layout = program_.layout;
  const std::string& word = expr.word;
  if (const Value* local = find(word)) {
    if (local->type == Type::set || local->type == Type::kinds) return local->slot;
    if (local->type == Type::kind) return kindNamed(*local, -1);
    Slot out = emit_.newSet();
    emit_.add(Op::cellSet, out, local->slot);
    return out;
  }
  if (word == "mine") return place(layout.sides[me_]);
  if (word == "theirs") return place(layout.sides[1 - me_]);
  if (word == "empty") return place(layout.empty[0]);
  if (word == "occupied")
    return binary(Op::minus, emit_.constantSet(sheet_.board.all()), place(layout.empty[0]));
  if (word == "touched") {
    Slot out = emit_.newSet();
    emit_.add(scratch_ == Scratch::generator ? Op::clear : Op::touched, out);
    if (scratch_ == Scratch::trial) program_.trialsReadBefore = true;
    return out;
  }
  if (word == "none") {
    Slot out = emit_.newSet();
    emit_.add(Op::clear, out);
    return out;
  }
  const Symbol& symbol = *sheet_.find(word);
  switch (symbol.kind) {
    case SymbolKind::kind:
    case SymbolKind::group:
      return kindSet(sheet_.groupKinds(word), -1);
    case SymbolKind::mark:
      return place(layout.marks[symbol.index][0]);
    case SymbolKind::remembered: {
      Slot out = emit_.newSet();
      emit_.add(Op::cellSet, out, cell(expr));
      return out;
    }
    default:
      return inDefine(expr, me_, [&](const Expr& body) { return set(body); });
  }
}

Expressions::Origin Expressions::origin(const Expr& expr) {
  if (expr.args.size() == (expr.plural ? 1 : 0)) return *piece_;
  const Expr& from = expr.args[0];
  if (from.kind == ExprKind::name) {
    const Value* local = find(from.word);
    if (local != nullptr && local->type == Type::cell) return {true, local->slot};
  }
  return {false, set(from)};
}

int Expressions::leapTable(const Expr& expr) {
  int a = static_cast<int>(expr.first), b = static_cast<int>(expr.second);
  return emit_.cellTable(fmt::format("leap {} {}", a, b), [&](Cell cell) {
    CellSet cells;
    for (auto [dx, dy] :
         {std::pair{a, b}, {a, -b}, {-a, b}, {-a, -b}, {b, a}, {b, -a}, {-b, a}, {-b, -a}}) {
      std::optional<Cell> to = sheet_.board.offset(cell, dx, dy);
      if (to && *to != cell) cells.set(*to);
    }
    return cells;
  });
}

int Expressions::stepTable(const std::vector<int>& directions) {
  std::string key = "step";
  for (int direction : directions) key += " " + std::to_string(direction);
  return emit_.cellTable(key, [&](Cell cell) {
    CellSet one, cells;
    one.set(cell);
    for (int direction : directions) cells |= sheet_.board.stepped(one, direction);
    return cells;
  });
}

// Steps, leaps and slides from a cell or a set.
Slot Expressions::from(const Expr& expr, const Origin& start) {
  Slot out = emit_.newSet();
  if (expr.kind == ExprKind::leap) {
    emit_.add(start.isCell ? Op::table : Op::tableAll, out, start.slot, 0, 0, leapTable(expr));
    return out;
  }
  std::vector<int> directions = sheet_.directions(expr.word, me_);
  if (expr.kind == ExprKind::slide) {
    Slot cells = start.slot;
    if (start.isCell) {
      cells = emit_.newSet();
      emit_.add(Op::cellSet, cells, start.slot);
    }
    Slot empty = place(program_.layout.empty[program_.layout.layered ? me_ : 0]);
    Slot through = expr.plural ? set(expr.args.back()) : emptyCells_.value_or(empty);
    emit_.add(Op::slide, out, cells, through, 0, emit_.directionGroup(directions));
  } else if (start.isCell) {
    emit_.add(Op::table, out, start.slot, 0, 0, stepTable(directions));
  } else if (directions.size() == 1) {
    emit_.add(Op::step, out, start.slot, 0, 0, directions[0]);
  } else {
    emit_.add(Op::steps, out, start.slot, 0, 0, emit_.directionGroup(directions));
  }
  return out;
}

std::pair<int, Slot> Expressions::lineFamilyOf(const Expr& expr) {
  const Expr& length = expr.args[0];
  std::vector<int> lengths;
  std::vector<int> axes = sheet_.board.axes(sheet_.board.directionGroup(expr.word));
  if (length.kind == ExprKind::number) {
    lengths.push_back(static_cast<int>(length.first));
  } else {
    const Symbol* property = length.kind == ExprKind::ofName ? sheet_.find(length.word) : nullptr;
    if (property != nullptr && property->kind == SymbolKind::property) {
      for (std::int64_t value : program_.properties[property->index])
        lengths.push_back(static_cast<int>(std::clamp<std::int64_t>(value, 0, limits::cells + 1)));
    } else {
      int longest = sheet_.board.longestLine(axes);
      for (int n = 1; n <= longest; ++n) lengths.push_back(n);
    }
  }
  int family = emit_.lineFamily(lengths, axes);
  return {family, number(length)};
}

int Expressions::lineSetOf(const Expr& lines) {
  return emit_.lineSet(static_cast<int>(lines.args[0].first),
                       sheet_.board.axes(sheet_.board.directionGroup(lines.word)),
                       lines.first == 1 ? Emitter::LineUse::exact : Emitter::LineUse::plain);
}

Slot Expressions::linesSet(const Expr& expr) {
  Slot in = set(expr.args[1]);
  if (expr.args[0].kind != ExprKind::number) {
    auto [family, length] = lineFamilyOf(expr);
    Slot out = emit_.newSet();
    emit_.add(Op::linesOfLength, out, in, length, 0, family);
    return out;
  }
  Slot through = expr.args.size() > 2 ? cell(expr.args[2]) : 0;
  Slot out = emit_.newSet();
  emit_.add(expr.args.size() > 2 ? Op::linesThrough : Op::lineCells, out, in, through, 0,
            lineSetOf(expr));
  return out;
}

Slot Expressions::groupsSet(const Expr& expr) {
  Slot rest = emit_.newSet(), out = emit_.newSet(), group = emit_.newSet();
  emit_.add(Op::copySet, rest, set(expr.args[0]));
  emit_.add(Op::clear, out);
  int directions = emit_.directionGroup(sheet_.directions(expr.along, me_));
  int loop = emit_.label(), done = emit_.label();
  emit_.place(loop);
  int begun = emit_.here();
  emit_.add(Op::groups, group, rest, 0, 0, directions);
  emit_.jump(Op::jumpNone, done, 0, group);
  bind(expr.word, {Type::set, group});
  branch(expr.args[1], false, loop);
  unbind(expr.word);
  emit_.add(Op::either, out, out, group);
  emit_.weigh(begun);
  emit_.jump(Op::jump, loop);
  emit_.place(done);
  return out;
}

Slot Expressions::choiceOf(const Expr& expr, Op copy, Slot out) {
  int otherwise = emit_.label(), done = emit_.label();
  auto part = [&](const Expr& arg) { return copy == Op::copySet ? set(arg) : number(arg); };
  branch(expr.args[0], false, otherwise);
  emit_.add(copy, out, part(expr.args[1]));
  emit_.jump(Op::jump, done);
  emit_.place(otherwise);
  emit_.add(copy, out, part(expr.args[2]));
  emit_.place(done);
  return out;
}

Slot Expressions::set(const Expr& expr) {
  bool local = expr.kind == ExprKind::name && find(expr.word) != nullptr;
  if (std::optional<CellSet> constant = sheet_.constantSet(expr, me_); constant && !local)
    return emit_.constantSet(*constant);
  return setOf(expr);
}

Slot Expressions::setOf(const Expr& expr) {
  switch (expr.kind) {
    case ExprKind::name:
    case ExprKind::call:
      return nameSet(expr);
    case ExprKind::own:
      if (expr.args[0].kind == ExprKind::hand || expr.args[0].kind == ExprKind::kindsWhere)
        return kinds(expr);
      if (expr.args[0].kind == ExprKind::kindOn) return kindNamed({Type::kind, kind(expr)}, -1);
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
    case ExprKind::lines:
      return linesSet(expr);
    case ExprKind::groups:
      return groupsSet(expr);
    case ExprKind::kindsWhere:
      return kinds(expr);
    case ExprKind::kindOn:
      return kindNamed({Type::kind, kind(expr)}, -1);
    case ExprKind::was:
      return earlier([&] { return set(expr.args[0]); });
    case ExprKind::spread: {
      Slot start = set(expr.args[0]), through = set(expr.args[1]), out = emit_.newSet();
      emit_.add(Op::spread, out, start, through, 0,
                emit_.directionGroup(sheet_.directions(expr.word, me_)));
      return out;
    }
    case ExprKind::reachOf:
      return reachOfCell(expr.args[0]);
    case ExprKind::choice:
      return choiceOf(expr, Op::copySet, emit_.newSet());
    case ExprKind::cellsWhere: {
      Slot rest = emit_.newSet(), out = emit_.newSet(), one = emit_.newSet();
      Slot at = emit_.newNumber();
      emit_.add(Op::copySet, rest, set(expr.args[0]));
      emit_.add(Op::clear, out);
      int loop = emit_.label(), done = emit_.label();
      emit_.place(loop);
      int begun = emit_.here();
      emit_.jump(Op::nextCell, done, at, rest);
      bind(expr.word, {Type::cell, at});
      branch(expr.args[1], false, loop);
      unbind(expr.word);
      emit_.add(Op::cellSet, one, at);
      emit_.add(Op::either, out, out, one);
      emit_.jump(Op::jump, loop);
      emit_.place(done);
      emit_.weighLoop(begun);
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
  if (expr.kind == ExprKind::name || expr.kind == ExprKind::own || expr.kind == ExprKind::ofName) {
    const Expr& name = expr.kind == ExprKind::name ? expr : expr.args[0];
    int owner = expr.kind == ExprKind::own ? (expr.word == "my" ? me_ : 1 - me_) : 0;
    if (expr.kind == ExprKind::ofName) owner = std::max(0, sheet_.side(expr.args[1].word));
    if (const Value* local = find(name.word); local != nullptr && local->type == Type::cell)
      return local->slot;
    const Symbol* symbol = name.kind == ExprKind::name ? sheet_.find(name.word) : nullptr;
    if (symbol != nullptr && symbol->kind == SymbolKind::cell)
      return emit_.constantNumber(symbol->index);
    if (symbol != nullptr && symbol->kind == SymbolKind::remembered)
      return place(program_.layout.cells[symbol->index][owner]);
    if (name.word == "none") return emit_.constantNumber(-1);
  }
  Slot out = emit_.newNumber();
  if (expr.kind == ExprKind::beyond) {
    Slot over = cell(expr.args[0]), from = cell(expr.args[1]);
    emit_.add(Op::beyond, out, over, from);
  } else if (expr.kind == ExprKind::onTrack) {
    Slot far = number(expr.args[0]), from = cell(expr.args[1]);
    int track = 2 * sheet_.find(expr.word)->index + me_;
    emit_.add(Op::onTrack, out, far, from, 0, track);
  } else if (expr.kind == ExprKind::was) {
    return earlier([&] { return cell(expr.args[0]); });
  } else {
    emit_.add(Op::setCell, out, set(expr));
  }
  return out;
}

}  // namespace ninepegs::sheet
