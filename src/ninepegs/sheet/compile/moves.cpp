// Recipes: what a move does, clause by clause, as it is made, tried, or written as text.
#include <algorithm>

#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using rules::as;

void Compiler::group(int index) {
  const MovePlan& plan = plan_.moves[index];
  GroupCode group;
  group.name = rules_.moves[index].name;
  group.moveClass = plan.moveClass;
  group.classLine = plan.classLine;
  group.mayRepeat = plan.mayRepeat;
  group.unwritten = plan.unwritten;
  for (const Clause* one : plan.head) {
    if (!rules::isChoice(*one)) continue;
    group.choiceIsCell.push_back(as<rules::PickCell>(*one) != nullptr);
    ++group.choices;
  }
  program_.groups.push_back(std::move(group));
}

void Compiler::let(const rules::Let& one) {
  if (lets_.count(one.name) == 0) return;
  Value value = express_.value(*one.value);
  if (outside_.count({madeIn_, one.name}) > 0) {
    Slot slot = madeSlots_.at({madeIn_, one.name});
    emit_.add(takesSet(value.type) ? Op::copySet : Op::copyNumber, slot, value.slot);
    express_.bind(one.name, {value.type, slot});
    return;
  }
  name(one.name, std::move(value));
}

// A clause behind the head.
void Compiler::statement(const Clause& one) {
  emit_.setStatement(one.id);
  if (mode_ == Recipe::trial && plan_.pruned && isDropped(one)) return;
  if (mode_ == Recipe::apply) cover(one.id);
  bool text = mode_ == Recipe::text;
  if (rules::isChoice(one)) return latePick(one);
  if (const rules::Let* named = as<rules::Let>(one)) return let(*named);
  if (const rules::Need* need = as<rules::Need>(one)) {
    if (mode_ != Recipe::trial) return;
    int good = emit_.label();
    express_.branch(*need->condition, true, good);
    emit_.add(Op::fail);
    emit_.place(good);
    return;
  }
  if (const rules::Tell* tell = as<rules::Tell>(one); tell != nullptr && text)
    return write(tell->parts, 2);
  if (const rules::Write* add = as<rules::Write>(one); add != nullptr && text)
    return write(add->parts, 0);
  if (const rules::Maximise* best = as<rules::Maximise>(one)) return measured(*best);
  if (isEffect(one)) effect(one);
}

// What a way is measured by is kept as it is where the line stands.
void Compiler::measured(const rules::Maximise& one) {
  if (mode_ != Recipe::trial) return;
  Slot value = express_.number(*one.value);
  measure_ = emit_.newNumber();
  emit_.add(Op::copyNumber, measure_, value);
}

void Compiler::statements(const Clauses& list) {
  for (const Clause& one : list) statement(one);
}

// Cells that last one move are what the move set them to, or none.
void Compiler::settle() {
  for (const auto& [which, slot] : pending_)
    emit_.add(Op::copyNumber, program_.layout.cells[which.first][which.second], slot);
}

void Compiler::keepOneMoveCells() {
  pending_.clear();
  if (mode_ == Recipe::trial && plan_.pruned) return;
  for (std::size_t i = 0; i < rules_.remembered.size(); ++i) {
    int cell = static_cast<int>(i);
    if (!rules_.remembered[i].lastsOneMove) continue;
    for (int each = 0; each < (rules_.remembered[i].each ? 2 : 1); ++each) {
      Slot slot = emit_.constantNumber(-1);
      if (move_->remembered.count(cell) > 0) {
        slot = emit_.newNumber();
        emit_.add(Op::copyNumber, slot, emit_.constantNumber(-1));
      }
      pending_[{cell, each}] = slot;
    }
  }
}

void Compiler::headClause(const MovePlan& plan, const Clause& one) {
  emit_.setStatement(one.id);
  if (mode_ == Recipe::apply) cover(one.id);
  if (const rules::Let* let = as<rules::Let>(one); let != nullptr && lets_.count(let->name) > 0)
    name(let->name, express_.value(*let->value));
  if (const rules::PickLine* line = as<rules::PickLine>(one)) headLine(plan, *line);
  if (const rules::Maximise* best = as<rules::Maximise>(one)) measured(*best);
  if (mode_ != Recipe::text) return;
  if (const rules::Write* add = as<rules::Write>(one)) write(add->parts, 0);
  if (const rules::Tell* tell = as<rules::Tell>(one)) write(tell->parts, 2);
}

void Compiler::recipe(int index, int side, Recipe mode) {
  GroupCode& group = program_.groups[index];
  const MovePlan& plan = plan_.moves[index];
  mode_ = mode;
  move_ = &plan;
  inAfter_ = false;
  madeIn_ = 0;
  measure_ = 0;
  (mode == Recipe::apply   ? group.apply
   : mode == Recipe::trial ? group.trial
                           : group.text)[side] = emit_.here();
  express_.begin(side, mode == Recipe::trial ? Scratch::trial : Scratch::other);
  bindHead(plan);
  findLets(index);
  makeRoom(index);
  keepOneMoveCells();
  // A text that needs only what was picked stands before the effects, which may go wrong.
  bool early = writtenBy(plan);
  bool texts = mode == Recipe::text;
  for (const Clause& one : rules_.moves[index].body) {
    if (plan.inHead(one)) {
      headClause(plan, one);
      continue;
    }
    if (texts && early) moveText(index);
    texts = texts && !early;
    statement(one);
  }
  settle();
  inAfter_ = true;
  if (texts) moveText(index);
  for (std::size_t i = 0; i < plan.afters.size(); ++i) {
    madeIn_ = static_cast<int>(i) + 1;
    statements(plan.afters[i]->body);
  }
  if (mode == Recipe::trial) {
    finishTrial(index);
  } else if (mode == Recipe::text) {
    emit_.add(Op::stop);
  } else {
    if (program_.layout.passes != 0)
      emit_.add(Op::copyNumber, program_.layout.passes, emit_.constantNumber(0));
    emit_.jump(Op::turnOver, endsLabel_[side]);
  }
}

void Compiler::finishTrial(int index) {
  if (!plan_.pruned && program_.layout.passes != 0)
    emit_.add(Op::copyNumber, program_.layout.passes, emit_.constantNumber(0));
  if (!plan_.pruned) emit_.add(Op::turnPass);
  for (const rules::ForbidRule& forbid : rules_.forbids) {
    emit_.setStatement(forbid.id);
    express_.forget();
    int next = emit_.label();
    express_.branch(*forbid.condition, false, next);
    cover(forbid.id);
    emit_.add(Op::fail);
    emit_.place(next);
  }
  emit_.add(Op::complete, measure_, 0, 0, 0, index);
}

}  // namespace ninepegs::sheet
