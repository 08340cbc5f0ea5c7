// Kinds of piece, what they reach, and attacks seen backwards from the attacked.
#include <algorithm>
#include <map>
#include <stdexcept>
#include <utility>

#include "ninepegs/sheet/compile/expressions.hpp"

namespace ninepegs::sheet {

Slot Expressions::kindSet(const std::vector<int>& kinds, int owner) {
  const Layout& layout = program_.layout;
  if (static_cast<int>(kinds.size()) == program_.kinds && owner >= 0)
    return place(layout.sides[owner]);
  if (static_cast<int>(kinds.size()) == program_.kinds && !layout.layered)
    return binary(Op::minus, emit_.constantSet(rules_.board.all()), place(layout.empty[0]));
  auto plane = [&](int kind) {
    if (layout.kinds.empty())
      return binary(Op::either, place(layout.sides[0]), place(layout.sides[1]));
    Slot first = place(layout.kinds[kind][std::max(owner, 0)]);
    if (owner >= 0 || !layout.layered) return first;
    return binary(Op::either, first, place(layout.kinds[kind][1]));
  };
  Slot all = plane(kinds[0]);
  for (std::size_t i = 1; i < kinds.size(); ++i) all = binary(Op::either, all, plane(kinds[i]));
  return owner < 0 ? all : binary(Op::both, all, place(layout.sides[owner]));
}

Slot Expressions::kindNamed(const Value& kind, int owner) {
  if (kind.constantKind >= 0) return kindSet({kind.constantKind}, owner);
  Slot out = emit_.newSet();
  emit_.add(Op::kindPlane, out, kind.slot, 0, static_cast<Slot>(owner < 0 ? 2 : owner), past());
  return out;
}

struct Expressions::AsKind : Asked<&Expressions::kind> {
  Emitter& emit;

  using Asked::operator();

  Slot operator()(const rules::Kind& form) const { return emit.constantNumber(form.kind); }
  Slot operator()(const rules::KindOn& form) const {
    int owner = in.sideOf(form.whose);
    Slot at = in.cell(*form.cell), out = emit.newNumber();
    emit.add(Op::kindAt, out, at, 0, static_cast<Slot>(owner < 0 ? 2 : owner), in.past());
    return out;
  }
  Slot operator()(const rules::Was& form) const {
    return in.earlier([&] { return in.kind(*form.what); });
  }
};

Slot Expressions::kind(const Term& term) {
  return std::visit(AsKind{{*this}, emit_}, term.form);
}

// Steps, leaps and slides joined by `or` go from all pieces of a kind at once; of any other reach
// it matters which piece it is looked at from.
Slot Expressions::reachOfSide(int owner) {
  Slot out = emit_.newSet();
  emit_.add(Op::clear, out);
  for (int kind = 0; kind < program_.kinds; ++kind) {
    const rules::TermPtr& reach = rules_.kinds[kind].reach;
    if (!reach) continue;
    Slot pieces = kindSet({kind}, owner);
    auto from = [&](Origin origin) {
      std::optional<Origin> before = std::exchange(piece_, origin);
      Slot cells = asSide(owner, [&] { return set(*reach); });
      piece_ = before;
      emit_.add(Op::either, out, out, cells);
    };
    if (isPlainReach(*reach)) {
      from({false, pieces});
      continue;
    }
    Slot rest = emit_.newSet(), at = emit_.newNumber();
    emit_.add(Op::copySet, rest, pieces);
    int loop = emit_.label(), done = emit_.label();
    emit_.place(loop);
    int begun = emit_.here();
    emit_.jump(Op::nextCell, done, at, rest);
    from({true, at});
    emit_.jump(Op::jump, loop);
    emit_.place(done);
    emit_.weighLoop(begun);
  }
  return out;
}

// Whose piece it is and which kind are tested only as far as they are not known.
Slot Expressions::reachOfCell(const Term& term) {
  Slot at = cell(term);
  Value about;
  if (const rules::Name* name = rules::as<rules::Name>(term)) about = *find(name->name);
  const Layout& layout = program_.layout;
  int done = emit_.label();
  std::vector<int> kinds = about.kinds;
  if (kinds.empty())
    for (int kind = 0; kind < program_.kinds; ++kind) kinds.push_back(kind);
  std::erase_if(kinds, [&](int kind) { return !rules_.kinds[kind].reach; });
  // One of several kinds may be the only one that reaches anything: it is not sure for that.
  bool sure = about.owner >= 0 && about.kinds.size() == 1 && kinds.size() == 1;
  Slot out = sure ? Slot{0} : emit_.newSet();
  if (!sure) emit_.add(Op::clear, out);
  for (int owner = 0; owner < 2; ++owner) {
    if (about.owner >= 0 && owner != about.owner) continue;
    int otherSide = emit_.label();
    if (about.owner < 0) emit_.jump(Op::jumpOut, otherSide, 0, at, place(layout.sides[owner]));
    for (int kind : kinds) {
      int next = emit_.label();
      if (program_.kinds > 1 && !sure)
        emit_.jump(Op::jumpOut, next, 0, at, place(layout.kinds[kind][owner]));
      std::optional<Origin> before = piece_;
      piece_ = Origin{true, at};
      Slot cells = asSide(owner, [&] { return set(*rules_.kinds[kind].reach); });
      piece_ = before;
      if (sure) return cells;
      emit_.add(Op::copySet, out, cells);
      emit_.jump(Op::jump, done);
      emit_.place(next);
    }
    emit_.place(otherSide);
  }
  emit_.place(done);
  return out;
}

Slot Expressions::reachThrough(int side, Slot through) {
  emptyCells_ = through;
  Slot out = reachOfSide(side);
  emptyCells_.reset();
  return out;
}

bool Expressions::branchAttacked(Slot cells, int attacker, bool sense, int label) {
  std::vector<Slides> slides;
  if (program_.layout.layered || !slidesOf(rules_, attacker, slides)) return false;
  int skip = emit_.label(), hit = sense ? label : skip;
  auto meets = [&](Slot from, const std::vector<int>& kinds) {
    Slot pieces = kindSet(kinds, attacker);
    emit_.jump(Op::jumpAny, hit, 0, binary(Op::both, from, pieces));
  };
  for (int kind = 0; kind < program_.kinds; ++kind) {
    const rules::TermPtr& reach = rules_.kinds[kind].reach;
    if (!reach) continue;
    std::vector<const Term*> all;
    rules::partsOf<rules::Either>(*reach, all);
    for (const Term* part : all) {
      const rules::Leap* leap = rules::as<rules::Leap>(*part);
      const rules::Step* step = rules::as<rules::Step>(*part);
      if (leap == nullptr && step == nullptr) continue;
      Slot from = emit_.newSet();
      int table =
          leap != nullptr
              ? leapTable(*leap)
              : stepTable(reversed(rules_.board, rules_.ways[step->ways].directions[attacker]));
      emit_.add(Op::tableAll, from, cells, 0, 0, table);
      meets(from, {kind});
    }
  }
  for (const Slides& slide : slides) {
    Slot from = emit_.newSet();
    emit_.add(Op::slide, from, cells, place(program_.layout.empty[0]), 0,
              emit_.directionGroup(reversed(rules_.board, slide.directions)));
    meets(from, slide.kinds);
  }
  if (!sense) emit_.jump(Op::jump, label);
  emit_.place(skip);
  return true;
}

}  // namespace ninepegs::sheet
