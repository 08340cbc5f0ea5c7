// What a line of a move does to the position.
#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using Kind = StatementKind;

int Compiler::owner(const Statement& one) const {
  int me = express_.side();
  return one.names.empty() || one.names[0].text == "my" ? me : 1 - me;
}

void Compiler::assign(const Statement& one) {
  const Layout& layout = program_.layout;
  const Expr& value = one.args[0];
  if (const Value* local =
          one.names.empty() && !one.ifAny ? express_.find(one.name.text) : nullptr) {
    bool set = local->type == Type::set || local->type == Type::kinds;
    Slot slot = local->slot, shown = local->shown;
    if (set)
      emit_.add(Op::copySet, slot, express_.set(value));
    else
      emit_.add(Op::copyNumber, slot,
                local->type == Type::cell   ? express_.cell(value)
                : local->type == Type::kind ? express_.kind(value)
                                            : express_.number(value));
    if (shown != 0) emit_.add(Op::copyNumber, shown, slot);
    return;
  }
  const Symbol& symbol = *sheet_.find(one.name.text);
  int side = owner(one);
  if (symbol.kind == SymbolKind::mark) {
    emit_.add(Op::copySet, layout.marks[symbol.index][side], express_.set(value));
  } else if (symbol.kind == SymbolKind::remembered) {
    Slot slot = layout.cells[symbol.index][side];
    auto it = pending_.find({symbol.index, sheet_.tree.cells[symbol.index].each ? side : 0});
    if (it != pending_.end() && !inAfter_) slot = it->second;
    emit_.add(Op::copyNumber, slot, express_.cell(value));
  } else if (one.ifAny) {
    Slot number = express_.number(value);
    emit_.add(Op::setCellNumber, number, layout.cellNumbers[symbol.index],
              express_.cell(one.args[1]));
  } else {
    Slot number = layout.numbers[symbol.index][side];
    emit_.add(Op::copyNumber, number, express_.number(value));
    bool clock = sheet_.tree.notation && sheet_.tree.notation->clock.text == one.name.text;
    if (clock && mode_ == Recipe::apply) emit_.add(Op::countdown, 0, number);
  }
}

void Compiler::effect(const Statement& one) {
  const Layout& layout = program_.layout;
  auto kindOperand = [&](int& fromSlot) -> Slot {
    const Value* local = express_.find(one.name.text);
    fromSlot = local != nullptr ? 1 : 0;
    return local != nullptr ? local->slot : static_cast<Slot>(sheet_.kind(one.name.text));
  };
  auto isLocalCell = [&](const Expr& expr) {
    const Value* local = expr.kind == ExprKind::name ? express_.find(expr.word) : nullptr;
    return local != nullptr && local->type == Type::cell;
  };
  int fromSlot = 0;
  switch (one.kind) {
    case Kind::put: {
      Slot kind = kindOperand(fromSlot);
      bool neutral = fromSlot == 0 && sheet_.tree.pieces[kind].neutral;
      Slot side = static_cast<Slot>(neutral ? 2 : express_.side());
      if (one.fromHand)
        emit_.add(Op::useHand, 0, 0, kind, static_cast<Slot>(express_.side()), fromSlot);
      bool cell = isLocalCell(one.args[0]);
      Slot where = cell ? express_.cell(one.args[0]) : express_.set(one.args[0]);
      emit_.add(cell ? Op::putCell : Op::put, 0, where, kind, side, fromSlot);
      break;
    }
    case Kind::change: {
      Slot kind = kindOperand(fromSlot);
      emit_.add(Op::change, 0, express_.set(one.args[0]), kind, 0, fromSlot);
      break;
    }
    case Kind::shift: {
      if (!one.way.empty()) {
        Slot cells = express_.set(one.args[0]);
        emit_.add(Op::shiftAll, 0, cells, 0, 0,
                  sheet_.directions(one.way, express_.side()).front());
        break;
      }
      Slot from = express_.cell(one.args[0]), to = express_.cell(one.args[1]);
      emit_.add(Op::shift, 0, from, to);
      break;
    }
    case Kind::take:
      emit_.add(Op::take, 0, express_.set(one.args[0]));
      break;
    case Kind::flip:
      emit_.add(Op::flip, 0, express_.set(one.args[0]));
      break;
    case Kind::addTo:
    case Kind::removeFrom: {
      Slot mark = layout.marks[sheet_.find(one.name.text)->index][owner(one)];
      emit_.add(one.kind == Kind::addTo ? Op::either : Op::minus, mark, mark,
                express_.set(one.args[0]));
      break;
    }
    case Kind::set:
      assign(one);
      break;
    case Kind::again:
      emit_.add(Op::again);
      break;
    case Kind::when: {
      int otherwise = emit_.label(), done = emit_.label();
      express_.branch(one.args[0], false, otherwise);
      statements(one.body);
      if (!one.otherwise.empty()) emit_.jump(Op::jump, done);
      emit_.place(otherwise);
      statements(one.otherwise);
      emit_.place(done);
      break;
    }
    case Kind::repeat:
      repeat(one);
      break;
    default:
      break;
  }
}

}  // namespace ninepegs::sheet
