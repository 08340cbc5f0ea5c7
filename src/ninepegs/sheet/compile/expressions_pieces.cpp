// Kinds of piece, what they reach, and attacks seen backwards from the attacked.
#include <algorithm>
#include <map>
#include <utility>

#include "ninepegs/sheet/compile/expressions.hpp"

namespace ninepegs::sheet {

namespace {

// A step, leap or slide from the piece itself: what can be followed backwards.
bool isPlainReach(const Expr& expr) {
  if (expr.kind == ExprKind::either)
    return isPlainReach(expr.args[0]) && isPlainReach(expr.args[1]);
  return (expr.kind == ExprKind::step || expr.kind == ExprKind::leap ||
          expr.kind == ExprKind::slide) &&
         expr.args.empty();
}

void parts(const Expr& expr, std::vector<const Expr*>& out) {
  if (expr.kind == ExprKind::either)
    for (const Expr& arg : expr.args) parts(arg, out);
  else
    out.push_back(&expr);
}

}  // namespace

Slot Expressions::kindSet(const std::vector<int>& kinds, int owner) {
  const Layout& layout = program_.layout;
  if (static_cast<int>(kinds.size()) == program_.kinds && owner >= 0)
    return place(layout.sides[owner]);
  if (static_cast<int>(kinds.size()) == program_.kinds && !layout.layered)
    return binary(Op::minus, emit_.constantSet(sheet_.board.all()), place(layout.empty[0]));
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

Slot Expressions::kind(const Expr& expr) {
  if (expr.kind == ExprKind::name) {
    if (const Value* local = find(expr.word)) return local->slot;
    return emit_.constantNumber(sheet_.kind(expr.word));
  }
  int owner = -1;
  const Expr* on = &expr;
  if (expr.kind == ExprKind::own) {
    owner = expr.word == "my" ? me_ : 1 - me_;
    on = &expr.args[0];
  }
  Slot at = cell(on->args[0]), out = emit_.newNumber();
  emit_.add(Op::kindAt, out, at, 0, static_cast<Slot>(owner < 0 ? 2 : owner), past());
  return out;
}

Slot Expressions::kinds(const Expr& expr) {
  Slot out = emit_.newSet();
  if (expr.kind == ExprKind::own) {
    int owner = expr.word == "my" ? me_ : 1 - me_;
    emit_.add(Op::handKinds, out, 0, 0, static_cast<Slot>(owner), past());
    return out;
  }
  emit_.add(Op::clear, out);
  for (int kind : sheet_.groupKinds(expr.along)) {
    int next = emit_.label();
    bind(expr.word, {Type::kind, emit_.constantNumber(kind), kind});
    branch(expr.args[0], false, next);
    emit_.add(Op::either, out, out, emit_.constantKinds({kind}));
    emit_.place(next);
  }
  unbind(expr.word);
  return out;
}

Value Expressions::known(const Expr& expr) const {
  Value out;
  auto kindsOf = [&](const Expr& name) {
    if (name.kind != ExprKind::name || find(name.word) != nullptr) return;
    out.kinds = sheet_.groupKinds(name.word);
  };
  switch (expr.kind) {
    case ExprKind::name:
      if (expr.word == "mine" || expr.word == "theirs")
        out.owner = expr.word == "mine" ? me_ : 1 - me_;
      else
        kindsOf(expr);
      break;
    case ExprKind::own:
      kindsOf(expr.args[0]);
      if (!out.kinds.empty()) out.owner = expr.word == "my" ? me_ : 1 - me_;
      break;
    case ExprKind::on: {
      Value a = known(expr.args[0]), b = known(expr.args[1]);
      out.owner = a.owner >= 0 ? a.owner : b.owner;
      out.kinds = a.kinds.empty() ? b.kinds : a.kinds;
      break;
    }
    case ExprKind::except:
      out = known(expr.args[0]);
      break;
    default:
      break;
  }
  return out;
}

// Steps, leaps and slides joined by `or` go from all pieces of a kind at once; of any other reach
// it matters which piece it is looked at from.
Slot Expressions::reachOfSide(int owner) {
  Slot out = emit_.newSet();
  emit_.add(Op::clear, out);
  for (int kind = 0; kind < program_.kinds; ++kind) {
    const std::optional<Expr>& reach = sheet_.tree.pieces[kind].reach;
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
Slot Expressions::reachOfCell(const Expr& expr) {
  Slot at = cell(expr);
  Value about;
  if (const Value* local = expr.kind == ExprKind::name ? find(expr.word) : nullptr) about = *local;
  const Layout& layout = program_.layout;
  int done = emit_.label();
  std::vector<int> kinds = about.kinds;
  if (kinds.empty())
    for (int kind = 0; kind < program_.kinds; ++kind) kinds.push_back(kind);
  std::erase_if(kinds, [&](int kind) { return !sheet_.tree.pieces[kind].reach.has_value(); });
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
      Slot cells = asSide(owner, [&] { return set(*sheet_.tree.pieces[kind].reach); });
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

std::optional<Expressions::Attack> Expressions::attackOf(const Expr& expr) const {
  Attack out;
  int reaches = 0;
  std::vector<const Expr*> open = {&expr};
  while (!open.empty()) {
    const Expr& one = *open.back();
    open.pop_back();
    if (one.kind == ExprKind::on) {
      open.push_back(&one.args[0]);
      open.push_back(&one.args[1]);
    } else if (one.kind == ExprKind::own && one.args[0].kind == ExprKind::name &&
               one.args[0].word == "reach") {
      ++reaches;
      out.attacker = one.word == "my" ? me_ : 1 - me_;
    } else {
      out.targets.push_back(&one);
    }
  }
  if (reaches != 1 || out.targets.empty()) return std::nullopt;
  return out;
}

bool Expressions::slidesOf(int side, std::vector<Slides>& slides) const {
  std::map<int, std::vector<int>> kindsAlong;  // by direction
  for (int kind = 0; kind < program_.kinds; ++kind) {
    const std::optional<Expr>& reach = sheet_.tree.pieces[kind].reach;
    if (!reach) continue;
    if (!isPlainReach(*reach)) return false;
    std::vector<const Expr*> all;
    parts(*reach, all);
    for (const Expr* part : all)
      if (part->kind == ExprKind::slide)
        for (int direction : sheet_.directions(part->word, side))
          kindsAlong[direction].push_back(kind);
  }
  for (const auto& [direction, kinds] : kindsAlong) {
    auto it = std::find_if(slides.begin(), slides.end(),
                           [&](const Slides& one) { return one.kinds == kinds; });
    if (it == slides.end()) it = slides.insert(slides.end(), {{}, kinds});
    it->directions.push_back(direction);
  }
  return true;
}

Slot Expressions::reachThrough(int side, Slot through) {
  emptyCells_ = through;
  Slot out = reachOfSide(side);
  emptyCells_.reset();
  return out;
}

bool Expressions::branchAttacked(Slot cells, int attacker, bool sense, int label) {
  std::vector<Slides> slides;
  if (program_.layout.layered || !slidesOf(attacker, slides)) return false;
  int skip = emit_.label(), hit = sense ? label : skip;
  auto opposite = [&](std::vector<int> directions) {
    for (int& direction : directions) direction = sheet_.board.opposite(direction);
    return directions;
  };
  auto meets = [&](Slot from, const std::vector<int>& kinds) {
    Slot pieces = kindSet(kinds, attacker);
    emit_.jump(Op::jumpAny, hit, 0, binary(Op::both, from, pieces));
  };
  for (int kind = 0; kind < program_.kinds; ++kind) {
    const std::optional<Expr>& reach = sheet_.tree.pieces[kind].reach;
    if (!reach) continue;
    std::vector<const Expr*> all;
    parts(*reach, all);
    for (const Expr* part : all) {
      if (part->kind == ExprKind::slide) continue;
      Slot from = emit_.newSet();
      int table = part->kind == ExprKind::leap
                      ? leapTable(*part)
                      : stepTable(opposite(sheet_.directions(part->word, attacker)));
      emit_.add(Op::tableAll, from, cells, 0, 0, table);
      meets(from, {kind});
    }
  }
  for (const Slides& slide : slides) {
    Slot from = emit_.newSet();
    emit_.add(Op::slide, from, cells, place(program_.layout.empty[0]), 0,
              emit_.directionGroup(opposite(slide.directions)));
    meets(from, slide.kinds);
  }
  if (!sense) emit_.jump(Op::jump, label);
  emit_.place(skip);
  return true;
}

}  // namespace ninepegs::sheet
