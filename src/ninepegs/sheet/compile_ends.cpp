// Ends, what shows them, worth and invariants.
#include "ninepegs/sheet/compiler_parts.hpp"

namespace ninepegs::sheet {
namespace {

// The lines that a condition tests for: what shows a result if the sheet does not say it.
const Expr* testedLines(const Expr& condition) {
  if (condition.kind == ExprKind::any && condition.args[0].kind == ExprKind::lines)
    return &condition.args[0];
  if (condition.kind != ExprKind::both) return nullptr;
  const Expr* left = testedLines(condition.args[0]);
  return left != nullptr ? left : testedLines(condition.args[1]);
}

}  // namespace

// Sets the result if the end holds, and stops; goes to `next` otherwise.
void Compiler::endTest(std::size_t index, int mover, int next) {
  const EndDecl& end = sheet_.tree.ends[index];
  int number = static_cast<int>(index);
  emit_.setStatement(end.id);
  express_.branch(end.condition, false, next);
  auto decide = [&](Verdict verdict, int winner) {
    std::uint64_t word = resultWord(verdict, winner, end.claim, number);
    emit_.add(Op::copyNumber, Layout::result,
              emit_.constantNumber(static_cast<std::int64_t>(word)));
    emit_.add(Op::stop);
  };
  cover(end.id);
  switch (end.kind) {
    case EndKind::draw:
      decide(Verdict::draw, 0);
      break;
    case EndKind::moverWins:
      decide(Verdict::win, mover);
      break;
    case EndKind::moverLoses:
      decide(Verdict::win, 1 - mover);
      break;
    case EndKind::sideWins: {
      int side = sheet_.side(end.side.text);
      decide(Verdict::win, end.sideLoses ? 1 - side : side);
      break;
    }
    case EndKind::leader: {
      // Each side's measure, seen by that side.
      Slot values[2];
      for (int side = 0; side < 2; ++side) {
        Expressions seen(sheet_, program_, emit_);
        seen.see(side);
        Slot value = seen.number(*end.measure);
        values[side] = emit_.newNumber();
        emit_.add(Op::copyNumber, values[side], value);
      }
      int level = emit_.label(), secondLeads = emit_.label();
      emit_.jump(Op::jumpEqual, level, 0, values[0], values[1]);
      emit_.jump(Op::jumpLess, secondLeads, 0, values[0], values[1]);
      decide(Verdict::win, 0);
      emit_.place(secondLeads);
      decide(Verdict::win, 1);
      emit_.place(level);
      decide(Verdict::draw, 0);
      break;
    }
  }
}

void Compiler::ends() {
  const std::vector<EndDecl>& all = sheet_.tree.ends;
  for (std::size_t index = 0; index < all.size(); ++index) {
    const EndDecl& end = all[index];
    EndCode code;
    code.name = end.name;
    code.drawName = end.kind == EndKind::leader ? end.drawName : end.name;
    code.line = end.span.line;
    code.statement = end.id;
    code.claim = end.claim;
    code.canWin = end.kind != EndKind::draw;
    program_.endCodes.push_back(std::move(code));
  }
  for (int mover = 0; mover < 2; ++mover) {
    emit_.place(endsLabel_[mover]);
    program_.ends[mover] = emit_.here();
    for (std::size_t index = 0; index < all.size(); ++index) {
      express_.begin(mover, false);
      int next = emit_.label();
      endTest(index, mover, next);
      emit_.place(next);
    }
    emit_.add(Op::stop);
    bool coverage = options_.coverage;
    options_.coverage = false;
    for (std::size_t index = 0; index < all.size(); ++index) {
      program_.endCodes[index].test[mover] = emit_.here();
      express_.begin(mover, false);
      int next = emit_.label();
      endTest(index, mover, next);
      emit_.place(next);
      emit_.add(Op::stop);
    }
    options_.coverage = coverage;
  }
}

void Compiler::shown() {
  for (std::size_t index = 0; index < sheet_.tree.ends.size(); ++index) {
    const EndDecl& end = sheet_.tree.ends[index];
    const Expr* expr = end.showing ? &*end.showing : testedLines(end.condition);
    if (expr == nullptr) continue;
    for (int mover = 0; mover < 2; ++mover) {
      program_.endCodes[index].shown[mover] = emit_.here();
      express_.begin(mover, false);
      emit_.add(Op::copySet, program_.shownSlot, express_.set(*expr));
      emit_.add(Op::stop);
    }
  }
}

void Compiler::worthAndInvariants() {
  for (int side = 0; side < 2 && sheet_.tree.worth; ++side) {
    program_.worth[side] = emit_.here();
    express_.begin(side, false);
    emit_.add(Op::copyNumber, program_.valueSlot, express_.number(*sheet_.tree.worth));
    emit_.add(Op::stop);
  }
  for (const AlwaysDecl& always : sheet_.tree.always) {
    InvariantCode code;
    code.line = always.span.line;
    code.text = source_.line(always.span.line);
    code.change = always.change;
    for (int side = 0; side < 2; ++side) {
      code.value[side] = emit_.here();
      express_.begin(side, false);
      if (always.change != 0) {
        emit_.add(Op::copyNumber, program_.valueSlot, express_.number(always.expr));
      } else {
        int no = emit_.label();
        emit_.add(Op::copyNumber, program_.valueSlot, emit_.constantNumber(0));
        express_.branch(always.expr, false, no);
        emit_.add(Op::copyNumber, program_.valueSlot, emit_.constantNumber(1));
        emit_.place(no);
      }
      emit_.add(Op::stop);
    }
    program_.invariants.push_back(std::move(code));
  }
}

}  // namespace ninepegs::sheet
