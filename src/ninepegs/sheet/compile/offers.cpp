// The last pick of a move: all its cells are legal moves, or are played on trial, or an attack that
// is forbidden can be foreseen.
#include <algorithm>

#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

// Works out once, for all moves of a position: are the guarded pieces attacked, and which pieces
// must be tried because they guard them? While they are attacked, all must be.
//
// A move that takes one piece from a cell and puts it on another can only uncover an attack along
// a line that it leaves, and only of a piece that slides along it. So it is enough to try the
// guarded pieces themselves and those that stand alone between them and such a piece.
void Compiler::foreseen(int side) {
  int enemy = 1 - side;
  Slot guarded = express_.kindSet(plan_.guardedKinds, side);
  risky_ = emit_.newSet();
  int done = emit_.label();
  Slot many = emit_.newNumber(), zero = emit_.constantNumber(0), one = emit_.constantNumber(1);
  alone_ = emit_.newSet();
  danger_ = emit_.newSet();
  dangerKnown_ = emit_.newNumber();
  int several = emit_.label();
  emit_.add(Op::clear, alone_);
  emit_.add(Op::copyNumber, dangerKnown_, zero);
  emit_.add(Op::clear, danger_);
  emit_.add(Op::count, many, guarded);
  emit_.jump(Op::jumpUnequal, several, 0, many, one);
  emit_.add(Op::copySet, alone_, guarded);
  emit_.place(several);
  emit_.add(Op::copySet, risky_, emit_.constantSet(rules_.board.all()));
  express_.branchAttacked(guarded, enemy, true, done);
  emit_.add(Op::copySet, risky_, guarded);
  std::vector<Slides> slides;
  slidesOf(rules_, enemy, slides);
  const Layout& layout = program_.layout;
  for (const Slides& slide : slides) {
    int away = emit_.directionGroup(reversed(rules_.board, slide.directions));
    int towards = emit_.directionGroup(slide.directions);
    Slot blockers = emit_.newSet(), behind = emit_.newSet(), lines = emit_.newSet();
    int next = emit_.label();
    emit_.add(Op::slide, blockers, guarded, layout.empty[0], 0, away);
    emit_.add(Op::both, blockers, blockers, layout.sides[side]);
    emit_.jump(Op::jumpNone, next, 0, blockers);
    emit_.add(Op::either, behind, layout.empty[0], blockers);
    emit_.add(Op::slide, lines, guarded, behind, 0, away);
    emit_.add(Op::both, lines, lines, express_.kindSet(slide.kinds, enemy));
    emit_.jump(Op::jumpNone, next, 0, lines);
    emit_.add(Op::slide, behind, lines, layout.empty[0], 0, towards);
    emit_.add(Op::both, behind, behind, blockers);
    emit_.add(Op::either, risky_, risky_, behind);
    emit_.place(next);
  }
  emit_.place(done);
}

// The one guarded piece may go where nothing attacks once it has left its cell. What stands on the
// cell it goes to does not attack that cell, and whether it is taken does not open any other line
// to it, so that one look at all attacks answers for every move of the piece.
void Compiler::offerGuarded(int index, int choices, Slot cells, int fail, int otherwise) {
  int side = express_.side(), known = emit_.label();
  emit_.jump(Op::jumpOut, otherwise, 0, express_.find(plan_.moves[index].from)->slot, alone_);
  emit_.jump(Op::jumpUnequal, known, 0, dangerKnown_, emit_.constantNumber(0));
  Slot through = emit_.newSet(), safe = emit_.newSet();
  emit_.add(Op::either, through, program_.layout.empty[0], alone_);
  emit_.add(Op::copySet, danger_, express_.reachThrough(1 - side, through));
  emit_.add(Op::copyNumber, dangerKnown_, emit_.constantNumber(1));
  emit_.place(known);
  emit_.add(Op::minus, safe, cells, danger_);
  emit_.add(Op::emitMany, static_cast<Slot>(choices), safe, 0, 0, index);
  emit_.jump(Op::jump, fail);
}

// The last pick: every cell of it is a legal move, or is played on trial.
void Compiler::offer(int index, int choices, Slot cells, int fail) {
  const MovePlan& plan = plan_.moves[index];
  Slot count = static_cast<Slot>(choices);
  bool onTrial = program_.groups[index].moveClass >= MoveClass::tested;
  if (!onTrial) {
    emit_.add(Op::emitMany, count, cells, 0, 0, index);
    return;
  }
  if (plan.from < 0) {
    emit_.add(Op::tryMany, count, cells, 0, 0, index);
    return;
  }
  int slow = emit_.label();
  const Value* from = express_.find(plan.from);
  bool mayBeGuarded =
      from->kinds.empty() || std::any_of(from->kinds.begin(), from->kinds.end(), [&](int kind) {
        return std::find(plan_.guardedKinds.begin(), plan_.guardedKinds.end(), kind) !=
               plan_.guardedKinds.end();
      });
  if (mayBeGuarded && plan.choiceOn == nullptr) {
    int others = emit_.label();
    offerGuarded(index, choices, cells, fail, others);
    emit_.place(others);
  }
  emit_.jump(Op::jumpIn, slow, 0, express_.find(plan.from)->slot, risky_);
  if (plan.choiceOn != nullptr) {
    Slot further = emit_.constantSet(*rules_.constantSet(*plan.choiceOn, express_.side()));
    Slot plain = emit_.newSet(), rest = emit_.newSet();
    emit_.add(Op::minus, plain, cells, further);
    emit_.add(Op::emitMany, count, plain, 0, 0, index);
    emit_.add(Op::both, rest, cells, further);
    emit_.jump(Op::jumpNone, fail, 0, rest);
    emit_.add(Op::tryMany, count, rest, 0, 0, index);
  } else {
    emit_.add(Op::emitMany, count, cells, 0, 0, index);
  }
  emit_.jump(Op::jump, fail);
  emit_.place(slow);
  emit_.add(Op::tryMany, count, cells, 0, 0, index);
}

}  // namespace ninepegs::sheet
