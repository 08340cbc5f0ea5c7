// Generators: the head of a move as nested loops. Each pick runs through its cells, a `need` that
// fails goes on with the next cell of the innermost pick. At the bottom the move is legal, or is
// played on trial.
#include <algorithm>

#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using rules::as;

// A later pick from cells that do not depend on the earlier ones ends the search at once if there
// are none of them.
void Compiler::guards(const MovePlan& plan, int done) {
  bool first = true;
  for (const Clause* one : plan.head) {
    const rules::PickCell* pick = as<rules::PickCell>(*one);
    if (pick != nullptr && !first) {
      std::vector<const Term*> parts;
      rules::partsOf<rules::Both>(*pick->from, parts);
      for (const Term* part : parts) {
        const rules::Mark* mark = as<rules::Mark>(*part);
        const rules::CellAsSet* single = as<rules::CellAsSet>(*part);
        const rules::Remembered* cell =
            single == nullptr ? nullptr : as<rules::Remembered>(*single->cell);
        bool kept = (mark != nullptr && mark->whose == rules::Whose::anyone) ||
                    (cell != nullptr && cell->whose == rules::Whose::anyone);
        if (kept) emit_.jump(Op::jumpNone, done, 0, express_.set(*part));
      }
    }
    if (rules::isChoice(*one)) first = false;
  }
}

// `put KIND on ... from my hand` needs one of that kind in the hand.
void Compiler::handNeeds(const MovePlan& plan, int fail) {
  for (const Clause* one : plan.all) {
    const rules::Put* put = as<rules::Put>(*one);
    const rules::Kind* kind = put == nullptr ? nullptr : as<rules::Kind>(*put->kind);
    if (kind == nullptr || !put->fromHand) continue;
    Slot left = emit_.newNumber();
    emit_.add(Op::handOf, left, emit_.constantNumber(kind->kind), 0,
              static_cast<Slot>(express_.side()));
    emit_.jump(Op::jumpEqual, fail, 0, left, emit_.constantNumber(0));
  }
}

// Runs through numbers; gives where the next one is tried.
int Compiler::numberLoop(const rules::ChooseNumber& one, Slot chosen, int fail) {
  int loop = emit_.label();
  Slot at = emit_.newNumber(), end = emit_.newNumber();
  Slot low = express_.number(*one.low);
  emit_.add(Op::greatest, at, low, emit_.constantNumber(0));
  Slot high = express_.number(*one.high);
  emit_.add(Op::least, end, high, emit_.constantNumber(noChoice - 1));
  emit_.add(Op::subtract, at, at, emit_.constantNumber(1));
  emit_.place(loop);
  emit_.jump(Op::jumpLessEqual, fail, 0, end, at);
  emit_.add(Op::add, at, at, emit_.constantNumber(1));
  emit_.add(Op::copyNumber, chosen, at);
  express_.bind(one.name, {Type::number, chosen});
  return loop;
}

// Runs through lines; gives where the next one is tried.
int Compiler::lineLoop(const rules::PickLine& one, Slot chosen, int fail) {
  const rules::Lines& lines = *as<rules::Lines>(*one.lines);
  int loop = emit_.label();
  Slot in = emit_.newSet(), line = emit_.newSet();
  emit_.add(Op::copySet, in, express_.set(*lines.in));
  auto [family, length] = express_.lineFamilyOf(lines);
  Slot counter = emit_.newNumber(), long_ = emit_.newNumber();
  emit_.add(Op::copyNumber, long_, length);
  emit_.add(Op::copyNumber, counter, emit_.constantNumber(0));
  emit_.place(loop);
  emit_.jump(Op::nextLineOf, fail, line, counter, in, static_cast<Slot>(family));
  emit_.add(Op::subtract, chosen, counter, emit_.constantNumber(1));
  express_.bind(one.name, {Type::set, line});
  return loop;
}

// All lines that may be picked, at once.
void Compiler::offerLines(int index, int choices, const rules::PickLine& one) {
  const rules::Lines& lines = *as<rules::Lines>(*one.lines);
  Slot in = express_.set(*lines.in);
  auto [family, length] = express_.lineFamilyOf(lines);
  emit_.add(Op::emitLines, static_cast<Slot>(choices), in, length, static_cast<Slot>(family),
            index);
}

// What is picked from: cells, or kinds.
Slot Compiler::pickable(const MovePlan& plan, std::size_t place) {
  const Clause& one = *plan.head[place];
  Slot side = static_cast<Slot>(express_.side());
  auto held = [&] {
    Slot out = emit_.newSet();
    emit_.add(Op::handKinds, out, 0, 0, side);
    return out;
  };
  if (const rules::PickCell* pick = as<rules::PickCell>(one)) {
    Slot cells = express_.set(*pick->from);
    for (const RunPick& run : plan.runs) {
      if (run.pick != place) continue;
      Slot all = emit_.newSet(), runCells = express_.set(*run.run->run);
      Slot by = express_.set(*run.run->by);
      const std::vector<int>& ways = rules_.ways[run.run->ways].directions[express_.side()];
      emit_.add(Op::bracketing, all, runCells, by, 0,
                emit_.directionGroup(reversed(rules_.board, ways)));
      emit_.add(Op::both, all, all, cells);
      cells = all;
    }
    return cells;
  }
  const rules::ChooseKind* choose = as<rules::ChooseKind>(one);
  if (choose == nullptr) return held();
  Slot kinds = emit_.constantKinds(choose->kinds);
  bool fromHand =
      plan.handSettled && std::any_of(plan.all.begin(), plan.all.end(), [&](const Clause* other) {
        const rules::Put* put = as<rules::Put>(*other);
        return put != nullptr && put->fromHand && nameIn(*put->kind) == choose->name;
      });
  if (!fromHand) return kinds;
  Slot some = held();
  emit_.add(Op::both, some, some, kinds);
  return some;
}

void Compiler::generateGroup(int index, int side) {
  const MovePlan& plan = plan_.moves[index];
  bool onTrial = plan.moveClass >= MoveClass::tested;
  int done = emit_.label(), fail = done, choice = 0, begun = emit_.here();
  if (emit_.takes(Shortcut::guards)) guards(plan, done);
  if (plan.handSettled) handNeeds(plan, done);
  bool emitted = false;
  for (std::size_t i = 0; i < plan.head.size() && !emitted; ++i) {
    const Clause& one = *plan.head[i];
    emit_.setStatement(one.id);
    if (const rules::Let* let = as<rules::Let>(one)) {
      if (plan.lets.count(let->name) > 0) express_.bind(let->name, express_.value(*let->value));
      continue;
    }
    if (const rules::Need* need = as<rules::Need>(one)) {
      if (!plan.settled(i)) express_.branch(*need->condition, false, fail);
      continue;
    }
    if (!rules::isChoice(one)) continue;
    Slot chosen = static_cast<Slot>(program_.choicesAt + choice++);
    if (const rules::ChooseNumber* number = as<rules::ChooseNumber>(one)) {
      fail = numberLoop(*number, chosen, fail);
      continue;
    }
    if (const rules::PickLine* line = as<rules::PickLine>(one)) {
      if (i == plan.last && !onTrial && emit_.takes(Shortcut::linesAtOnce)) {
        offerLines(index, choice, *line);
        emitted = true;
        break;
      }
      fail = lineLoop(*line, chosen, fail);
      continue;
    }
    int loop = emit_.label();
    Slot cells = pickable(plan, i);
    if (i == plan.last) {
      offer(index, choice, cells, fail);
      emitted = true;
      break;
    }
    Slot rest = emit_.newSet();
    emit_.add(Op::copySet, rest, cells);
    emit_.place(loop);
    emit_.jump(Op::nextCell, fail, chosen, rest);
    fail = loop;
    const rules::PickCell* pick = as<rules::PickCell>(one);
    Value value{pick != nullptr ? Type::cell : Type::kind, chosen};
    // On a board of one each, two pieces may stand on the cell that was picked.
    if (pick != nullptr && !program_.layout.layered && emit_.takes(Shortcut::known)) {
      Known about = knownOf(rules_, *pick->from, side);
      value.owner = about.owner;
      value.kinds = about.kinds;
    }
    express_.bind(rules::madeName(one), value);
  }
  if (!emitted) {
    Slot count = static_cast<Slot>(choice);
    emit_.add(onTrial ? Op::tryMove : Op::emitOne, count, 0, 0, 0, index);
  }
  if (fail != done) emit_.jump(Op::jump, fail);
  emit_.place(done);
  emit_.weighLoops(begun);
}

void Compiler::generator(int side, bool withPass) {
  (withPass ? program_.generate : program_.generateNoPass)[side] = emit_.here();
  std::vector<std::vector<int>> tiers(1);
  if (rules_.turn)
    tiers = rules_.turn->tiers;
  else
    for (std::size_t i = 0; i < rules_.moves.size(); ++i) tiers[0].push_back(static_cast<int>(i));
  express_.begin(side, Scratch::generator);
  if (std::any_of(plan_.moves.begin(), plan_.moves.end(),
                  [](const MovePlan& plan) { return plan.from >= 0; }))
    foreseen(side);
  for (std::size_t t = 0; t < tiers.size(); ++t) {
    for (int index : tiers[t]) {
      if (index == rules::passMove) {
        program_.passAlone =
            program_.passAlone && t + 1 == tiers.size() && tiers[t].size() == 1 && t > 0;
        if (withPass) emit_.add(Op::emitPass);
        continue;
      }
      Emitter::Mark mark = emit_.mark();
      bool best = plan_.moves[index].maximise != nullptr;
      if (best) {
        emit_.add(Op::keepBest, 0, 0, 0, 0, 1);
        generateGroup(index, side);
        emit_.release(mark);
        express_.forget();
        emit_.add(Op::keepBest, 0, 0, 0, 0, 2);
      }
      generateGroup(index, side);
      emit_.release(mark);
      express_.forget();
      if (best) emit_.add(Op::keepBest);
    }
    if (t + 1 < tiers.size()) emit_.add(Op::tierEnd);
  }
  emit_.add(Op::stop);
}

}  // namespace ninepegs::sheet
