// Ends, what shows them, worth and invariants.
#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using rules::as;

namespace {

// The lines that a condition tests for: what shows a result if the sheet does not say it.
const Term* testedLines(const Term& condition) {
  if (const rules::Any* any = as<rules::Any>(condition))
    return any->what->type == Type::lineset ? any->what.get() : nullptr;
  const rules::And* both = as<rules::And>(condition);
  if (both == nullptr) return nullptr;
  const Term* left = testedLines(*both->left);
  return left != nullptr ? left : testedLines(*both->right);
}

}  // namespace

// Sets the result if the end holds, and stops; goes to `next` otherwise.
void Compiler::endTest(std::size_t index, int mover, int next) {
  const rules::EndRule& end = rules_.ends[index];
  int number = static_cast<int>(index);
  emit_.setStatement(end.id);
  express_.branch(*end.condition, false, next);
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
    case EndKind::sideWins:
      decide(Verdict::win, end.sideLoses ? 1 - end.side : end.side);
      break;
    case EndKind::leader: {
      // Each side's measure, seen by that side.
      Slot values[2];
      for (int side = 0; side < 2; ++side) {
        Expressions seen(rules_, program_, emit_);
        seen.see(side);
        Slot value = seen.number(*end.measure);
        values[side] = emit_.newNumber();
        emit_.add(Op::copyNumber, values[side], value);
      }
      if (end.headStart != 0)
        emit_.add(Op::add, values[0], values[0], emit_.constantNumber(end.headStart));
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
  const std::vector<rules::EndRule>& all = rules_.ends;
  for (std::size_t index = 0; index < all.size(); ++index) {
    const rules::EndRule& end = all[index];
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
    express_.countParts(false);
    for (std::size_t index = 0; index < all.size(); ++index) {
      program_.endCodes[index].test[mover] = emit_.here();
      express_.begin(mover, Scratch::other);
      int next = emit_.label();
      endTest(index, mover, next);
      emit_.place(next);
      emit_.add(Op::stop);
    }
    options_.coverage = coverage;
    express_.countParts(coverage && options_.parts);
  }
}

void Compiler::shown() {
  for (std::size_t index = 0; index < rules_.ends.size(); ++index) {
    const rules::EndRule& end = rules_.ends[index];
    const Term* term = end.showing ? end.showing.get() : testedLines(*end.condition);
    if (term == nullptr) continue;
    for (int mover = 0; mover < 2; ++mover) {
      program_.endCodes[index].shown[mover] = emit_.here();
      express_.begin(mover, Scratch::other);
      emit_.add(Op::copySet, program_.shownSlot, express_.set(*term));
      emit_.add(Op::stop);
    }
  }
}

void Compiler::worthAndInvariants() {
  for (int side = 0; side < 2 && rules_.worth != nullptr; ++side) {
    program_.worth[side] = emit_.here();
    express_.begin(side, Scratch::other);
    emit_.add(Op::copyNumber, program_.valueSlot, express_.number(*rules_.worth));
    emit_.add(Op::stop);
  }
  for (const rules::AlwaysRule& always : rules_.always) {
    InvariantCode code;
    code.line = always.span.line;
    code.text = rules_.source->line(always.span.line);
    code.change = always.change;
    for (int side = 0; side < 2; ++side) {
      code.value[side] = emit_.here();
      invariant(always, side, program_.valueSlot);
      emit_.add(Op::stop);
    }
    program_.invariants.push_back(std::move(code));
  }
  if (rules_.always.empty()) return;
  // All of them in one run; what reads the same for both sides is worked out once.
  program_.invariantsAt = emit_.here();
  Slot slot = program_.invariantSlots;
  for (const rules::AlwaysRule& always : rules_.always) {
    auto second = static_cast<Slot>(slot + 1);
    int first = emit_.here();
    invariant(always, 0, slot);
    int between = emit_.here();
    invariant(always, 1, slot);
    bool same = emit_.sameSince(first, between), budget = emit_.mayLoop(first);
    emit_.cutBack(budget ? first : between);
    if (budget) {
      emit_.add(Op::wholeBudget);
      invariant(always, 0, slot);
      if (!same) emit_.add(Op::wholeBudget);
    }
    if (same)
      emit_.add(Op::copyNumber, second, slot);
    else
      invariant(always, 1, second);
    slot = static_cast<Slot>(slot + 2);
  }
  emit_.add(Op::stop);
}

void Compiler::invariant(const rules::AlwaysRule& always, int side, Slot into) {
  express_.begin(side, Scratch::other);
  if (always.change != 0)
    emit_.add(Op::copyNumber, into, express_.number(*always.term));
  else
    truth(*always.term, into);
}

void Compiler::truth(const Term& condition, Slot into) {
  int no = emit_.label();
  emit_.add(Op::copyNumber, into, emit_.constantNumber(0));
  express_.branch(condition, false, no);
  emit_.add(Op::copyNumber, into, emit_.constantNumber(1));
  emit_.place(no);
}

// What the sides see, and the attack that a notation writes.
void Compiler::views() {
  for (const rules::SeesRule& sees : rules_.sees) {
    SeenCode code;
    code.letter = sees.letter;
    code.theirBoard = sees.theirBoard;
    code.kinds = sees.what->type == Type::kinds;
    for (int side = 0; side < 2; ++side) {
      code.value[side] = emit_.here();
      express_.begin(side, Scratch::other);
      emit_.add(Op::copySet, program_.shownSlot, express_.set(*sees.what));
      emit_.add(Op::stop);
    }
    program_.sees.push_back(std::move(code));
  }
  for (int side = 0; side < 2 && rules_.notation && rules_.notation->check; ++side) {
    program_.check[side] = emit_.here();
    express_.begin(side, Scratch::other);
    truth(*rules_.notation->check, program_.valueSlot);
    emit_.add(Op::stop);
  }
}

namespace {

bool asksWhatWas(const Term& term) {
  return rules::anyInside(term, [](const Term& part) {
    const rules::Use* use = as<rules::Use>(part);
    return as<rules::Was>(part) != nullptr || as<rules::Touched>(part) != nullptr ||
           as<rules::TimesSeen>(part) != nullptr || as<rules::MovesOf>(part) != nullptr ||
           as<rules::NobodyCanMove>(part) != nullptr || (use != nullptr && asksWhatWas(*use->body));
  });
}

}  // namespace

// What must not hold for the side that has moved. After a pass it may.
void Compiler::forbidden() {
  bool passes = false;
  if (rules_.turn)
    for (const std::vector<int>& tier : rules_.turn->tiers)
      passes = passes || std::count(tier.begin(), tier.end(), rules::passMove) > 0;
  if (passes) return;
  for (const rules::ForbidRule& forbid : rules_.forbids) {
    if (asksWhatWas(*forbid.condition)) continue;
    ForbidCode code{forbid.span.line, forbid.reason, {}};
    for (int side = 0; side < 2; ++side) {
      code.value[side] = emit_.here();
      express_.begin(side, Scratch::other);
      truth(*forbid.condition, program_.valueSlot);
      emit_.add(Op::stop);
    }
    program_.forbids.push_back(std::move(code));
  }
}

// The conditions of cases, and the numbers that they compare.
void Compiler::expectations() {
  static const char* const relations[] = {"=", "!=", "<", "<=", ">", ">="};
  for (const rules::CaseRule& one : rules_.cases) {
    for (const rules::CaseStep& step : one.steps) {
      if (!step.condition) continue;
      program_.expectations.push_back(emit_.here());
      express_.begin(0, Scratch::other);
      truth(*step.condition, program_.valueSlot);
      emit_.add(Op::stop);
      ComparedCode compared;
      const rules::Compare* compare = as<rules::Compare>(*step.condition);
      if (compare != nullptr && compare->left->type == Type::number) {
        compared.word = relations[static_cast<int>(compare->relation)];
        for (int k = 0; k < 2; ++k) {
          compared.value[k] = emit_.here();
          express_.begin(0, Scratch::other);
          const Term& value = k == 0 ? *compare->left : *compare->right;
          emit_.add(Op::copyNumber, program_.valueSlot, express_.number(value));
          emit_.add(Op::stop);
        }
      }
      program_.compared.push_back(std::move(compared));
    }
  }
}

// Without a section of its own, a repetition compares pieces, marks, cells and the turn.
void Compiler::repetition() {
  using What = rules::Compared::What;
  if (program_.layout.seen == 0) return;
  if (rules_.repetition) {
    program_.seenTurn = false;
    for (const rules::Compared& one : rules_.repetition->compares) compared(one);
    return;
  }
  compared({What::pieces, 0});
  for (std::size_t i = 0; i < rules_.marks.size(); ++i) compared({What::mark, static_cast<int>(i)});
  for (std::size_t i = 0; i < rules_.remembered.size(); ++i)
    compared({What::remembered, static_cast<int>(i)});
}

void Compiler::compared(const rules::Compared& one) {
  using What = rules::Compared::What;
  const Layout& layout = program_.layout;
  auto words = [&](const Layout::BySide& slots, int count) {
    program_.seenWords.emplace_back(slots[0], count);
    if (slots[1] != slots[0]) program_.seenWords.emplace_back(slots[1], count);
  };
  switch (one.what) {
    case What::pieces:
      program_.seenWords.emplace_back(layout.sides[0], layout.planesEnd - layout.sides[0]);
      if (layout.hands[0] != 0) words(layout.hands, program_.kinds);
      break;
    case What::turn:
      program_.seenTurn = true;
      break;
    case What::mark:
      words(layout.marks[one.index], program_.words);
      break;
    case What::remembered:
      words(layout.cells[one.index], 1);
      break;
    case What::number:
      if (layout.cellNumbers[one.index] != 0)
        program_.seenWords.emplace_back(layout.cellNumbers[one.index], rules_.board.size());
      else
        words(layout.numbers[one.index], 1);
      break;
    case What::move: {
      std::array<int, 2> routines{};
      for (int side = 0; side < 2; ++side) {
        routines[side] = emit_.here();
        express_.begin(side, Scratch::generator);
        if (plan_.moves[one.index].from >= 0) foreseen(side);
        generateGroup(one.index, side);
        emit_.add(Op::stop);
      }
      program_.seenMoves.push_back(routines);
      break;
    }
  }
}

}  // namespace ninepegs::sheet
