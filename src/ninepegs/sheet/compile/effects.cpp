// What a clause of a move does to the position.
#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using rules::as;

struct Compiler::Effect {
  Compiler& in;
  const Clause& clause;
  Emitter& emit;
  Expressions& express;
  const Layout& layout;

  template <class Other>
  void operator()(const Other&) const {}  // changes nothing

  void operator()(const rules::SetName& one) const {
    const Value& local = *express.find(one.name);
    Slot slot = local.slot, shown = local.shown;
    if (takesSet(local.type))
      emit.add(Op::copySet, slot, express.set(*one.value));
    else
      emit.add(Op::copyNumber, slot,
               local.type == Type::cell   ? express.cell(*one.value)
               : local.type == Type::kind ? express.kind(*one.value)
                                          : express.number(*one.value));
    if (shown != 0) emit.add(Op::copyNumber, shown, slot);
  }
  void operator()(const rules::SetMark& one) const {
    emit.add(Op::copySet, express.owned(layout.marks[one.mark], one.whose),
             express.set(*one.value));
  }
  void operator()(const rules::SetRemembered& one) const {
    Slot slot = express.owned(layout.cells[one.cell], one.whose);
    auto it = in.pending_.find({one.cell, std::max(0, express.sideOf(one.whose))});
    if (it != in.pending_.end() && !in.inAfter_) slot = it->second;
    emit.add(Op::copyNumber, slot, express.cell(*one.value));
  }
  void operator()(const rules::SetCellNumber& one) const {
    Slot number = express.number(*one.value);
    emit.add(Op::setCellNumber, number, layout.cellNumbers[one.number], express.cell(*one.cell));
  }
  void operator()(const rules::SetVariable& one) const {
    Slot number = express.owned(layout.numbers[one.number], one.whose);
    emit.add(Op::copyNumber, number, express.number(*one.value));
    bool clock = in.rules_.notation && in.rules_.notation->clock == one.number;
    if (clock && in.mode_ == Recipe::apply) emit.add(Op::countdown, 0, number);
  }
  void operator()(const rules::AddTo& one) const {
    Slot mark = express.owned(layout.marks[one.mark], one.whose);
    emit.add(Op::either, mark, mark, express.set(*one.cells));
  }
  void operator()(const rules::RemoveFrom& one) const {
    Slot mark = express.owned(layout.marks[one.mark], one.whose);
    emit.add(Op::minus, mark, mark, express.set(*one.cells));
  }
  // A kind that is known, or the slot that holds it.
  struct KindOperand {
    Slot slot = 0;
    int fromSlot = 0;
  };
  KindOperand operand(const Term& kind) const {
    if (const rules::Kind* known = as<rules::Kind>(kind))
      return {static_cast<Slot>(known->kind), 0};
    return {express.kind(kind), 1};
  }
  void operator()(const rules::Put& one) const {
    KindOperand kind = operand(*one.kind);
    bool neutral = kind.fromSlot == 0 && in.rules_.kinds[kind.slot].neutral;
    Slot side = static_cast<Slot>(neutral ? 2 : express.side());
    if (one.fromHand)
      emit.add(Op::useHand, 0, 0, kind.slot, static_cast<Slot>(express.side()), kind.fromSlot);
    const rules::CellAsSet* single = as<rules::CellAsSet>(*one.where);
    bool cell = single != nullptr && as<rules::Name>(*single->cell) != nullptr;
    Slot where = cell ? express.cell(*single->cell) : express.set(*one.where);
    emit.add(cell ? Op::putCell : Op::put, 0, where, kind.slot, side, kind.fromSlot);
  }
  void operator()(const rules::Change& one) const {
    KindOperand kind = operand(*one.kind);
    emit.add(Op::change, 0, express.set(*one.where), kind.slot, 0, kind.fromSlot);
  }
  void operator()(const rules::Shift& one) const {
    Slot from = express.cell(*one.from), to = express.cell(*one.to);
    emit.add(Op::shift, 0, from, to);
  }
  void operator()(const rules::ShiftAll& one) const {
    Slot cells = express.set(*one.cells);
    emit.add(Op::shiftAll, 0, cells, 0, 0,
             in.rules_.ways[one.ways].directions[express.side()].front());
  }
  void operator()(const rules::Take& one) const { emit.add(Op::take, 0, express.set(*one.where)); }
  void operator()(const rules::Flip& one) const { emit.add(Op::flip, 0, express.set(*one.where)); }
  void operator()(const rules::Again&) const { emit.add(Op::again); }
  void operator()(const rules::When& one) const {
    int otherwise = emit.label(), done = emit.label();
    express.branch(*one.condition, false, otherwise);
    in.statements(one.then);
    if (!one.otherwise.empty()) emit.jump(Op::jump, done);
    emit.place(otherwise);
    in.statements(one.otherwise);
    emit.place(done);
  }
  void operator()(const rules::Repeat& one) const { in.repeat(clause, one); }
};

void Compiler::effect(const Clause& one) {
  std::visit(Effect{*this, one, emit_, express_, program_.layout}, one.form);
}

}  // namespace ninepegs::sheet
