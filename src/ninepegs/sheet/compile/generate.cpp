// Generators: the head of a move as nested loops. Each pick runs through its cells, a `need` that
// fails goes on with the next cell of the innermost pick. At the bottom the move is legal, or is
// played on trial.
#include <algorithm>

#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using Kind = StatementKind;

namespace {

// The names given by `let` that are read, directly or through each other, by what decides.
std::set<std::string> neededLets(const std::vector<const Statement*>& head,
                                 const std::set<std::size_t>& settled) {
  std::set<std::string> needed;
  for (std::size_t k = head.size(); k-- > 0;) {
    if (head[k]->kind != Kind::let) continue;
    for (std::size_t i = 0; i < head.size(); ++i) {
      const Statement& other = *head[i];
      if (i == k || settled.count(i) > 0 || !reads(other, head[k]->name.text)) continue;
      bool decides = isPick(other) || other.kind == Kind::need;
      if (other.kind == Kind::let ? needed.count(other.name.text) > 0 : decides)
        needed.insert(head[k]->name.text);
    }
  }
  return needed;
}

// The parts of `A on B on C`.
void conjuncts(const Expr& expr, std::vector<const Expr*>& out) {
  if (expr.kind == ExprKind::on) {
    conjuncts(expr.args[0], out);
    conjuncts(expr.args[1], out);
  } else {
    out.push_back(&expr);
  }
}

}  // namespace

// A later pick from cells that do not depend on the earlier ones ends the search at once if there
// are none of them.
void Compiler::guards(const MoveShape& shape, int done) {
  std::vector<std::string> names;
  bool first = true;
  for (const Statement* one : shape.head) {
    if (one->kind == Kind::pick && !first && !picksLine(*one)) {
      std::vector<const Expr*> parts;
      conjuncts(one->args[0], parts);
      for (const Expr* part : parts) {
        const Symbol* symbol = part->kind == ExprKind::name ? sheet_.find(part->word) : nullptr;
        bool kept = symbol != nullptr &&
                    (symbol->kind == SymbolKind::mark || symbol->kind == SymbolKind::remembered);
        if (kept) emit_.jump(Op::jumpNone, done, 0, express_.set(*part));
      }
    }
    if (isPick(*one)) first = false;
  }
}

// `put KIND on ... from my hand` needs one of that kind in the hand.
void Compiler::handNeeds(const MoveShape& shape, int fail) {
  for (const Statement* one : shape.all) {
    int kind = sheet_.kind(one->name.text);
    if (one->kind != Kind::put || !one->fromHand || kind < 0) continue;
    Slot left = emit_.newNumber();
    emit_.add(Op::handOf, left, emit_.constantNumber(kind), 0, static_cast<Slot>(express_.side()));
    emit_.jump(Op::jumpEqual, fail, 0, left, emit_.constantNumber(0));
  }
}

// Works out once, for all moves of a position: are the guarded pieces attacked, and which pieces
// must be tried because they guard them? While they are attacked, all must be.
//
// A move that takes one piece from a cell and puts it on another can only uncover an attack along
// a line that it leaves, and only of a piece that slides along it. So it is enough to try the
// guarded pieces themselves and those that stand alone between them and such a piece.
void Compiler::foreseen(int side) {
  int enemy = 1 - side;
  Slot guarded = express_.kindSet(guardedKinds_, side);
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
  emit_.add(Op::copySet, risky_, emit_.constantSet(sheet_.board.all()));
  express_.branchAttacked(guarded, enemy, true, done);
  emit_.add(Op::copySet, risky_, guarded);
  std::vector<Expressions::Slides> slides;
  express_.slidesOf(enemy, slides);
  const Layout& layout = program_.layout;
  for (const Expressions::Slides& slide : slides) {
    std::vector<int> back = slide.directions;
    for (int& direction : back) direction = sheet_.board.opposite(direction);
    int away = emit_.directionGroup(back), towards = emit_.directionGroup(slide.directions);
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

// `pick X in S`, with `need any R` where R is a run bracketed from X: the cells for which such a
// run is there come from the other end, all at once, and the need is settled.
bool Compiler::bracketedPick(const std::vector<const Statement*>& head, std::size_t pick,
                             std::set<std::size_t>& settled, const Expr*& run) const {
  const std::string& name = head[pick]->name.text;
  for (std::size_t i = pick + 1; i < head.size() && !isPick(*head[i]); ++i) {
    if (head[i]->kind != Kind::need || head[i]->args[0].kind != ExprKind::any) continue;
    const Expr* tested = &head[i]->args[0].args[0];
    if (tested->kind == ExprKind::name)
      for (std::size_t k = pick + 1; k < i; ++k)
        if (head[k]->kind == Kind::let && head[k]->name.text == tested->word)
          tested = &head[k]->args[0];
    if (tested->kind != ExprKind::bracketed) continue;
    const Expr& from = tested->args[1];
    bool fits = from.kind == ExprKind::name && from.word == name;
    for (std::size_t k = 0; k < head.size(); ++k)
      for (int arg : {0, 2})
        fits = fits && (head[k]->name.text.empty() || k < pick ||
                        !mentions(tested->args[arg], head[k]->name.text));
    if (!fits) continue;
    settled.insert(i);
    run = tested;
    return true;
  }
  return false;
}

// The one guarded piece may go where nothing attacks once it has left its cell. What stands on the
// cell it goes to does not attack that cell, and whether it is taken does not open any other line
// to it, so that one look at all attacks answers for every move of the piece.
void Compiler::offerGuarded(int index, int choices, Slot cells, int fail, int otherwise) {
  int side = express_.side(), known = emit_.label();
  emit_.jump(Op::jumpOut, otherwise, 0, express_.find(shapes_[index].from)->slot, alone_);
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
  const MoveShape& shape = shapes_[index];
  Slot count = static_cast<Slot>(choices);
  bool onTrial = program_.groups[index].moveClass >= MoveClass::tested;
  if (!onTrial) {
    emit_.add(Op::emitMany, count, cells, 0, 0, index);
    return;
  }
  if (shape.from.empty()) {
    emit_.add(Op::tryMany, count, cells, 0, 0, index);
    return;
  }
  int slow = emit_.label();
  const Value* from = express_.find(shape.from);
  bool mayBeGuarded =
      from->kinds.empty() || std::any_of(from->kinds.begin(), from->kinds.end(), [&](int kind) {
        return std::find(guardedKinds_.begin(), guardedKinds_.end(), kind) != guardedKinds_.end();
      });
  if (mayBeGuarded && !shape.choiceOn) {
    int others = emit_.label();
    offerGuarded(index, choices, cells, fail, others);
    emit_.place(others);
  }
  emit_.jump(Op::jumpIn, slow, 0, express_.find(shape.from)->slot, risky_);
  if (shape.choiceOn) {
    Slot further = emit_.constantSet(*sheet_.constantSet(*shape.choiceOn, express_.side()));
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

void Compiler::generateGroup(int index, int side) {
  const MoveShape& shape = shapes_[index];
  const std::vector<const Statement*>& head = shape.head;
  bool onTrial = program_.groups[index].moveClass >= MoveClass::tested;
  int done = emit_.label(), fail = done, choice = 0, begun = emit_.here();
  if (emit_.takes(Shortcut::guards)) guards(shape, done);
  if (shape.handSettled) handNeeds(shape, done);
  std::set<std::size_t> settled;
  std::map<std::size_t, const Expr*> runs;
  for (std::size_t i = 0; i < head.size(); ++i) {
    const Expr* run = nullptr;
    if (emit_.takes(Shortcut::bracketed) && head[i]->kind == Kind::pick && !picksLine(*head[i]) &&
        bracketedPick(head, i, settled, run))
      runs[i] = run;
  }
  std::set<std::string> lets = neededLets(head, settled);
  // Names that checks on trial read are worked out there.
  std::size_t last = head.size();  // the last line that decides on moves
  for (std::size_t i = 0; i < head.size(); ++i)
    if ((isPick(*head[i]) || head[i]->kind == Kind::need) && settled.count(i) == 0) last = i;
  bool emitted = false;
  for (std::size_t i = 0; i < head.size() && !emitted; ++i) {
    const Statement& one = *head[i];
    emit_.setStatement(one.id);
    if (one.kind == Kind::let && lets.count(one.name.text) > 0) {
      express_.bind(one.name.text, express_.value(one.args[0]));
    } else if (one.kind == Kind::need && settled.count(i) == 0) {
      express_.branch(one.args[0], false, fail);
    } else if (isPick(one)) {
      Slot chosen = static_cast<Slot>(program_.choicesAt + choice++);
      int loop = emit_.label();
      if (one.kind == Kind::choose && one.choose == ChooseKind::range) {
        Slot at = emit_.newNumber(), end = emit_.newNumber();
        Slot low = express_.number(one.args[0]);
        emit_.add(Op::greatest, at, low, emit_.constantNumber(0));
        Slot high = express_.number(one.args[1]);
        emit_.add(Op::least, end, high, emit_.constantNumber(noChoice - 1));
        emit_.add(Op::subtract, at, at, emit_.constantNumber(1));
        emit_.place(loop);
        emit_.jump(Op::jumpLessEqual, fail, 0, end, at);
        emit_.add(Op::add, at, at, emit_.constantNumber(1));
        emit_.add(Op::copyNumber, chosen, at);
        express_.bind(one.name.text, {Type::number, chosen});
        fail = loop;
        continue;
      }
      if (picksLine(one)) {
        Slot in = emit_.newSet(), line = emit_.newSet();
        emit_.add(Op::copySet, in, express_.set(one.args[0].args[1]));
        auto [family, length] = express_.lineFamilyOf(one.args[0]);
        Slot counter = emit_.newNumber(), long_ = emit_.newNumber();
        emit_.add(Op::copyNumber, long_, length);
        emit_.add(Op::copyNumber, counter, emit_.constantNumber(0));
        emit_.place(loop);
        emit_.jump(Op::nextLineOf, fail, line, counter, in, static_cast<Slot>(family));
        emit_.add(Op::subtract, chosen, counter, emit_.constantNumber(1));
        express_.bind(one.name.text, {Type::set, line});
        fail = loop;
        continue;
      }
      Slot cells;
      if (one.kind == Kind::pick) {
        cells = express_.set(one.args[0]);
        if (runs.count(i) > 0) {
          const Expr& run = *runs[i];
          Slot all = emit_.newSet(), runCells = express_.set(run.args[0]);
          Slot by = express_.set(run.args[2]);
          std::vector<int> back = sheet_.directions(run.word, side);
          for (int& direction : back) direction = sheet_.board.opposite(direction);
          emit_.add(Op::bracketing, all, runCells, by, 0, emit_.directionGroup(back));
          emit_.add(Op::both, all, all, cells);
          cells = all;
        }
      } else if (one.choose == ChooseKind::hand) {
        cells = emit_.newSet();
        emit_.add(Op::handKinds, cells, 0, 0, static_cast<Slot>(side));
      } else {
        std::vector<int> kinds;
        for (const Name& kind : one.names) kinds.push_back(sheet_.kind(kind.text));
        cells = emit_.constantKinds(kinds);
        bool fromHand =
            shape.handSettled &&
            std::any_of(shape.all.begin(), shape.all.end(), [&](const Statement* put) {
              return put->kind == Kind::put && put->fromHand && put->name.text == one.name.text;
            });
        if (fromHand) {
          Slot held = emit_.newSet();
          emit_.add(Op::handKinds, held, 0, 0, static_cast<Slot>(side));
          emit_.add(Op::both, held, held, cells);
          cells = held;
        }
      }
      if (i == last) {
        offer(index, choice, cells, fail);
        emitted = true;
        break;
      }
      Slot rest = emit_.newSet();
      emit_.add(Op::copySet, rest, cells);
      emit_.place(loop);
      emit_.jump(Op::nextCell, fail, chosen, rest);
      fail = loop;
      Value value{one.kind == Kind::pick ? Type::cell : Type::kind, chosen};
      // On a board of one each, two pieces may stand on the cell that was picked.
      if (one.kind == Kind::pick && !program_.layout.layered && emit_.takes(Shortcut::known)) {
        Value about = express_.known(one.args[0]);
        value.owner = about.owner;
        value.kinds = about.kinds;
      }
      express_.bind(one.name.text, value);
    }
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
  std::vector<std::vector<Name>> tiers;
  if (sheet_.tree.turn) {
    tiers = sheet_.tree.turn->tiers;
  } else {
    tiers.emplace_back();
    for (const MoveDecl& move : sheet_.tree.moves) tiers.back().push_back(move.name);
  }
  express_.begin(side, Scratch::generator);
  bool foresees = std::any_of(shapes_.begin(), shapes_.end(),
                              [](const MoveShape& shape) { return !shape.from.empty(); });
  if (foresees) foreseen(side);
  for (std::size_t t = 0; t < tiers.size(); ++t) {
    for (const Name& name : tiers[t]) {
      if (name.text == "pass") {
        program_.passAlone =
            program_.passAlone && t + 1 == tiers.size() && tiers[t].size() == 1 && t > 0;
        if (withPass) emit_.add(Op::emitPass);
        continue;
      }
      int index = sheet_.find(name.text)->index;
      Emitter::Mark mark = emit_.mark();
      bool best = shapes_[index].maximise != nullptr;
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
