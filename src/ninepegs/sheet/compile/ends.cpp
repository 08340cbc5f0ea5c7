// Ends, what shows them, worth and invariants.
#include "ninepegs/sheet/compile/parts.hpp"

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
      express_.begin(mover, Scratch::other);
      int next = emit_.label();
      endTest(index, mover, next);
      emit_.place(next);
    }
    emit_.add(Op::stop);
    bool coverage = options_.coverage;
    options_.coverage = false;
    for (std::size_t index = 0; index < all.size(); ++index) {
      program_.endCodes[index].test[mover] = emit_.here();
      express_.begin(mover, Scratch::other);
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
      express_.begin(mover, Scratch::other);
      emit_.add(Op::copySet, program_.shownSlot, express_.set(*expr));
      emit_.add(Op::stop);
    }
  }
}

void Compiler::worthAndInvariants() {
  for (int side = 0; side < 2 && sheet_.tree.worth; ++side) {
    program_.worth[side] = emit_.here();
    express_.begin(side, Scratch::other);
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
      express_.begin(side, Scratch::other);
      if (always.change != 0)
        emit_.add(Op::copyNumber, program_.valueSlot, express_.number(always.expr));
      else
        truth(always.expr);
      emit_.add(Op::stop);
    }
    program_.invariants.push_back(std::move(code));
  }
}

void Compiler::truth(const Expr& condition) {
  int no = emit_.label();
  emit_.add(Op::copyNumber, program_.valueSlot, emit_.constantNumber(0));
  express_.branch(condition, false, no);
  emit_.add(Op::copyNumber, program_.valueSlot, emit_.constantNumber(1));
  emit_.place(no);
}

// What the sides see, the attack that a notation writes, and the conditions of cases.
void Compiler::views() {
  for (const SeesDecl& sees : sheet_.tree.sees) {
    SeenCode code;
    code.letter = sees.letter;
    code.theirBoard = sees.theirBoard;
    code.kinds = sees.what.type == Type::kinds;
    for (int side = 0; side < 2; ++side) {
      code.value[side] = emit_.here();
      express_.begin(side, Scratch::other);
      Slot value = code.kinds ? express_.kinds(sees.what) : express_.set(sees.what);
      emit_.add(Op::copySet, program_.shownSlot, value);
      emit_.add(Op::stop);
    }
    program_.sees.push_back(std::move(code));
  }
  const std::optional<NotationDecl>& notation = sheet_.tree.notation;
  for (int side = 0; side < 2 && notation && notation->check; ++side) {
    program_.check[side] = emit_.here();
    express_.begin(side, Scratch::other);
    truth(*notation->check);
    emit_.add(Op::stop);
  }
  for (const CaseDecl& one : sheet_.tree.cases) {
    if (one.variant.text != sheet_.tree.variant) continue;
    for (const CaseStep& step : one.steps) {
      if (step.kind != ExpectKind::condition) continue;
      program_.expectations.push_back(emit_.here());
      express_.begin(0, Scratch::other);
      truth(step.condition);
      emit_.add(Op::stop);
      ComparedCode compared;
      const Expr& condition = step.condition;
      if (condition.kind == ExprKind::compare && condition.args[0].type == Type::number) {
        compared.word = condition.word;
        for (int k = 0; k < 2; ++k) {
          compared.value[k] = emit_.here();
          express_.begin(0, Scratch::other);
          emit_.add(Op::copyNumber, program_.valueSlot, express_.number(condition.args[k]));
          emit_.add(Op::stop);
        }
      }
      program_.compared.push_back(std::move(compared));
    }
  }
}

// Without a section of its own, a repetition compares pieces, marks, cells and the turn.
void Compiler::repetition() {
  const Layout& layout = program_.layout;
  if (layout.seen == 0) return;
  int w = program_.words;
  auto words = [&](const Layout::BySide& slots, int count) {
    program_.seenWords.emplace_back(slots[0], count);
    if (slots[1] != slots[0]) program_.seenWords.emplace_back(slots[1], count);
  };
  const std::optional<RepetitionDecl>& given = sheet_.tree.repetition;
  auto pieces = [&] {
    program_.seenWords.emplace_back(layout.sides[0], layout.planesEnd - layout.sides[0]);
    if (layout.hands[0] != 0) words(layout.hands, program_.kinds);
  };
  if (!given) {
    pieces();
    for (const Layout::BySide& mark : layout.marks) words(mark, w);
    for (const Layout::BySide& cell : layout.cells) words(cell, 1);
    return;
  }
  program_.seenTurn = false;
  for (const Name& name : given->compares) {
    if (name.text == "pieces") {
      pieces();
    } else if (name.text == "turn") {
      program_.seenTurn = true;
    } else {
      const Symbol& symbol = *sheet_.find(name.text);
      if (symbol.kind == SymbolKind::mark) {
        words(layout.marks[symbol.index], w);
      } else if (symbol.kind == SymbolKind::remembered) {
        words(layout.cells[symbol.index], 1);
      } else if (symbol.kind == SymbolKind::number) {
        if (layout.cellNumbers[symbol.index] != 0)
          program_.seenWords.emplace_back(layout.cellNumbers[symbol.index], sheet_.board.size());
        else
          words(layout.numbers[symbol.index], 1);
      } else {
        std::array<int, 2> routines{};
        for (int side = 0; side < 2; ++side) {
          routines[side] = emit_.here();
          express_.begin(side, Scratch::generator);
          if (!shapes_[symbol.index].from.empty()) foreseen(side);
          generateGroup(symbol.index, side);
          emit_.add(Op::stop);
        }
        program_.seenMoves.push_back(routines);
      }
    }
  }
}

}  // namespace ninepegs::sheet
