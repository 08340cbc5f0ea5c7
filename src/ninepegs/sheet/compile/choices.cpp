// What is chosen in a move: in its head, or behind effects.
#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using rules::as;

// What was picked in the head stands in memory already.
void Compiler::bindHead(const MovePlan& plan) {
  int choice = 0;
  for (const Clause* one : plan.head) {
    if (!rules::isChoice(*one)) continue;
    Slot at = static_cast<Slot>(program_.choicesAt + choice++);
    // The length of a line may ask for names that are not made yet: see headLine.
    if (as<rules::PickLine>(*one) != nullptr) continue;
    Type type = as<rules::PickCell>(*one) != nullptr       ? Type::cell
                : as<rules::ChooseNumber>(*one) != nullptr ? Type::number
                                                           : Type::kind;
    Value value{type, at};
    NameId name = rules::madeName(*one);
    if (plan.assigned.count(name) > 0) value = copied(value);
    express_.bind(name, value);
  }
}

// A line that was picked in the head, from the number of its choice.
void Compiler::headLine(const MovePlan& plan, const rules::PickLine& one) {
  int choice = 0;
  for (const Clause* other : plan.head) {
    if (as<rules::PickLine>(*other) == &one) break;
    if (rules::isChoice(*other)) ++choice;
  }
  auto [family, length] = express_.lineFamilyOf(*as<rules::Lines>(*one.lines));
  Slot line = emit_.newSet();
  emit_.add(Op::lineChosen, line, static_cast<Slot>(program_.choicesAt + choice), length, 0,
            family);
  Value value{Type::set, line};
  value.lines = choice;
  express_.bind(one.name, value);
}

// Where the move is not tried, what was chosen is read back: what it was chosen from is not worked
// out again.
void Compiler::latePick(const Clause& clause) {
  bool tried = mode_ == Recipe::trial;
  NameId name = rules::madeName(clause);
  Slot at = madeSlots_.at({madeIn_, name});
  Value value{Type::kind, at};
  if (const rules::PickLine* line = as<rules::PickLine>(clause)) {
    const rules::Lines& lines = *as<rules::Lines>(*line->lines);
    Slot in = tried ? express_.set(*lines.in) : Slot{0};
    auto [family, length] = express_.lineFamilyOf(lines);
    emit_.add(Op::pickLine, at, in, length, 0, family);
    value.type = Type::set;
    value.lines = 0;
  } else if (const rules::PickCell* cell = as<rules::PickCell>(clause)) {
    emit_.add(Op::pickCell, at, tried ? express_.set(*cell->from) : Slot{0}, 0, 0,
              cell->ifAny ? 1 : 0);
    value.type = Type::cell;
  } else if (const rules::ChooseNumber* number = as<rules::ChooseNumber>(clause)) {
    Slot low = tried ? express_.number(*number->low) : Slot{0};
    emit_.add(Op::pickNumber, at, low, tried ? express_.number(*number->high) : Slot{0});
    value.type = Type::number;
  } else {
    Slot kinds = 0;
    const rules::ChooseKind* kind = as<rules::ChooseKind>(clause);
    if (tried && kind != nullptr) {
      kinds = emit_.constantKinds(kind->kinds);
    } else if (tried) {
      kinds = emit_.newSet();
      emit_.add(Op::handKinds, kinds, 0, 0, static_cast<Slot>(express_.side()));
    }
    emit_.add(Op::pickCell, at, kinds);
  }
  if (auto it = shownSlots_.find({madeIn_, name}); it != shownSlots_.end()) {
    value.shown = it->second;
    emit_.add(Op::copyNumber, value.shown, at);
  }
  express_.bind(name, value);
}

void Compiler::repeat(const Clause& clause, const rules::Repeat& one) {
  using rules::Rounds;
  Slot rounds = emit_.newNumber(), most = 0, attempt = 0;
  emit_.add(Op::copyNumber, rounds, emit_.constantNumber(0));
  if (one.rounds == Rounds::times || one.rounds == Rounds::upTo) {
    most = emit_.newNumber();
    emit_.add(Op::copyNumber, most, express_.number(*one.most));
  }
  if (one.rounds == Rounds::whilePossible) attempt = emit_.newNumber();
  int loop = emit_.label(), done = emit_.label(), begun = emit_.here();
  emit_.place(loop);
  switch (one.rounds) {
    case Rounds::whilePossible:
      emit_.jump(Op::attempt, done, rounds, attempt);
      break;
    case Rounds::anyTimes:
      emit_.jump(Op::round, done, rounds);
      break;
    case Rounds::upTo:
      emit_.jump(Op::round, done, rounds, most, 0, 1);
      break;
    case Rounds::times:
      emit_.jump(Op::eachRound, done, rounds, most);
      break;
  }
  statements(one.body);
  emit_.setStatement(clause.id);
  if (one.rounds == Rounds::whilePossible)
    emit_.jump(Op::attempted, loop, 0, attempt);
  else
    emit_.weigh(begun), emit_.jump(Op::jump, loop);
  emit_.place(done);
}

}  // namespace ninepegs::sheet
