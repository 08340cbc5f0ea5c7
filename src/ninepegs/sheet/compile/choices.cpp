// What is chosen in a move: in its head, or behind effects.
#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using Kind = StatementKind;

// What was picked in the head stands in memory already.
void Compiler::bindHead(const MoveShape& shape) {
  int choice = 0;
  for (const Statement* one : shape.head) {
    if (!isPick(*one)) continue;
    Slot at = static_cast<Slot>(program_.choicesAt + choice++);
    bool lines = picksLine(*one);
    if (lines) continue;  // its length may ask for names that are not made yet: see headLine
    Type type = one->kind == Kind::pick            ? Type::cell
                : one->choose == ChooseKind::range ? Type::number
                                                   : Type::kind;
    Value value{type, at};
    if (shape.assigned.count(one->name.text) > 0) value = copied(value);
    express_.bind(one->name.text, value);
  }
}

// A line that was picked in the head, from the number of its choice.
void Compiler::headLine(const MoveShape& shape, const Statement& one) {
  int choice = 0;
  for (const Statement* other : shape.head) {
    if (other == &one) break;
    if (isPick(*other)) ++choice;
  }
  auto [family, length] = express_.lineFamilyOf(one.args[0]);
  Slot line = emit_.newSet();
  emit_.add(Op::lineChosen, line, static_cast<Slot>(program_.choicesAt + choice), length, 0,
            family);
  Value value{Type::set, line};
  value.lines = choice;
  express_.bind(one.name.text, value);
}

// Where the move is not tried, what was chosen is read back: what it was chosen from is not worked
// out again.
void Compiler::latePick(const Statement& one) {
  bool tried = mode_ == Recipe::trial;
  Slot at = madeSlots_.at({madeIn_, one.name.text});
  Type type = Type::cell;
  if (picksLine(one)) {
    Slot in = tried ? express_.set(one.args[0].args[1]) : Slot{0};
    auto [family, length] = express_.lineFamilyOf(one.args[0]);
    emit_.add(Op::pickLine, at, in, length, 0, family);
    Value value{Type::set, at};
    value.lines = 0;
    express_.bind(one.name.text, value);
    return;
  }
  if (one.kind == Kind::pick) {
    emit_.add(Op::pickCell, at, tried ? express_.set(one.args[0]) : Slot{0}, 0, 0,
              one.ifAny ? 1 : 0);
  } else if (one.choose == ChooseKind::range) {
    Slot low = tried ? express_.number(one.args[0]) : Slot{0};
    emit_.add(Op::pickNumber, at, low, tried ? express_.number(one.args[1]) : Slot{0});
    type = Type::number;
  } else {
    Slot kinds = 0;
    if (!tried) {
      kinds = 0;
    } else if (one.choose == ChooseKind::hand) {
      kinds = emit_.newSet();
      emit_.add(Op::handKinds, kinds, 0, 0, static_cast<Slot>(express_.side()));
    } else {
      std::vector<int> list;
      for (const Name& kind : one.names) list.push_back(sheet_.kind(kind.text));
      kinds = emit_.constantKinds(list);
    }
    emit_.add(Op::pickCell, at, kinds);
    type = Type::kind;
  }
  Value value{type, at};
  if (auto it = shownSlots_.find({madeIn_, one.name.text}); it != shownSlots_.end()) {
    value.shown = it->second;
    emit_.add(Op::copyNumber, value.shown, at);
  }
  express_.bind(one.name.text, value);
}

void Compiler::repeat(const Statement& one) {
  Slot rounds = emit_.newNumber(), most = 0, attempt = 0;
  emit_.add(Op::copyNumber, rounds, emit_.constantNumber(0));
  if (one.repeat == RepeatKind::times || one.repeat == RepeatKind::upTo) {
    most = emit_.newNumber();
    emit_.add(Op::copyNumber, most, express_.number(one.args[0]));
  }
  if (one.repeat == RepeatKind::whilePossible) attempt = emit_.newNumber();
  int loop = emit_.label(), done = emit_.label(), begun = emit_.here();
  emit_.place(loop);
  switch (one.repeat) {
    case RepeatKind::whilePossible:
      emit_.jump(Op::attempt, done, rounds, attempt);
      break;
    case RepeatKind::anyTimes:
      emit_.jump(Op::round, done, rounds);
      break;
    case RepeatKind::upTo:
      emit_.jump(Op::round, done, rounds, most, 0, 1);
      break;
    case RepeatKind::times:
      emit_.jump(Op::eachRound, done, rounds, most);
      break;
  }
  statements(one.body);
  emit_.setStatement(one.id);
  if (one.repeat == RepeatKind::whilePossible)
    emit_.jump(Op::attempted, loop, 0, attempt);
  else
    emit_.weigh(begun), emit_.jump(Op::jump, loop);
  emit_.place(done);
}

}  // namespace ninepegs::sheet
