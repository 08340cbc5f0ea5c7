// Sets and cells.
#include "ninepegs/sheet/compile/expressions.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>

namespace ninepegs::sheet {

void Expressions::begin(int side, Scratch scratch) {
  me_ = side;
  scratch_ = scratch;
  before_ = false;
  locals_.clear();
  piece_.reset();
  emit_.begin(scratch);
}

const Value* Expressions::find(NameId name) const {
  auto it = locals_.find(name);
  return it == locals_.end() ? nullptr : &it->second;
}

Slot Expressions::binary(Op op, Slot b, Slot c) {
  Slot out = emit_.newSet();
  emit_.add(op, out, b, c);
  return out;
}

Expressions::Origin Expressions::origin(const rules::TermPtr& from) {
  if (!from) return *piece_;
  if (const rules::CellAsSet* one = rules::as<rules::CellAsSet>(*from))
    if (const rules::Name* name = rules::as<rules::Name>(*one->cell))
      return {true, find(name->name)->slot};
  return {false, set(*from)};
}

int Expressions::leapTable(const rules::Leap& leap) {
  int a = leap.far, b = leap.wide;
  return emit_.cellTable(fmt::format("leap {} {}", a, b), [&](Cell cell) {
    CellSet cells;
    for (auto [dx, dy] :
         {std::pair{a, b}, {a, -b}, {-a, b}, {-a, -b}, {b, a}, {b, -a}, {-b, a}, {-b, -a}}) {
      std::optional<Cell> to = rules_.board.offset(cell, dx, dy);
      if (to && *to != cell) cells.set(*to);
    }
    return cells;
  });
}

int Expressions::stepTable(const std::vector<int>& directions) {
  std::string key = "step";
  for (int direction : directions) key += " " + std::to_string(direction);
  return emit_.cellTable(key, [&](Cell cell) {
    CellSet one, cells;
    one.set(cell);
    for (int direction : directions) cells |= rules_.board.stepped(one, direction);
    return cells;
  });
}

Slot Expressions::leapt(const rules::Leap& leap) {
  Origin start = origin(leap.from);
  Slot out = emit_.newSet();
  emit_.add(start.isCell ? Op::table : Op::tableAll, out, start.slot, 0, 0, leapTable(leap));
  return out;
}

Slot Expressions::stepped(int ways, const Origin& start) {
  const std::vector<int>& directions = rules_.ways[ways].directions[me_];
  Slot out = emit_.newSet();
  if (start.isCell)
    emit_.add(Op::table, out, start.slot, 0, 0, stepTable(directions));
  else if (directions.size() == 1)
    emit_.add(Op::step, out, start.slot, 0, 0, directions[0]);
  else
    emit_.add(Op::steps, out, start.slot, 0, 0, emit_.directionGroup(directions));
  return out;
}

Slot Expressions::slid(const rules::Slide& slide) {
  Origin start = origin(slide.from);
  Slot out = emit_.newSet(), cells = start.slot;
  if (start.isCell) {
    cells = emit_.newSet();
    emit_.add(Op::cellSet, cells, start.slot);
  }
  Slot empty = place(program_.layout.empty[program_.layout.layered ? me_ : 0]);
  Slot through = slide.through ? set(*slide.through) : emptyCells_.value_or(empty);
  emit_.add(Op::slide, out, cells, through, 0,
            emit_.directionGroup(rules_.ways[slide.ways].directions[me_]));
  return out;
}

std::pair<int, Slot> Expressions::lineFamilyOf(const rules::Lines& lines) {
  const Term& length = *lines.length;
  const std::vector<int>& axes = rules_.ways[lines.ways].axes;
  std::vector<int> lengths;
  int property = -1;
  if (const rules::Property* one = rules::as<rules::Property>(length)) property = one->property;
  if (const rules::KindProperty* one = rules::as<rules::KindProperty>(length))
    property = one->property;
  if (const rules::Number* plain = rules::as<rules::Number>(length)) {
    lengths.push_back(static_cast<int>(plain->value));
  } else if (property >= 0) {
    for (std::int64_t value : program_.properties[property])
      lengths.push_back(static_cast<int>(std::clamp<std::int64_t>(value, 0, limits::cells + 1)));
  } else {
    int longest = rules_.board.longestLine(axes);
    for (int n = 1; n <= longest; ++n) lengths.push_back(n);
  }
  int family = emit_.lineFamily(lengths, axes);
  return {family, number(length)};
}

int Expressions::lineSetOf(const rules::Lines& lines) {
  int length = static_cast<int>(rules::as<rules::Number>(*lines.length)->value);
  return emit_.lineSet(length, rules_.ways[lines.ways].axes,
                       lines.exactly ? Emitter::LineUse::exact : Emitter::LineUse::plain);
}

Slot Expressions::linesSet(const rules::Lines& lines) {
  Slot in = set(*lines.in);
  if (rules::as<rules::Number>(*lines.length) == nullptr) {
    auto [family, length] = lineFamilyOf(lines);
    Slot out = emit_.newSet();
    emit_.add(Op::linesOfLength, out, in, length, 0, family);
    return out;
  }
  Slot through = lines.through ? cell(*lines.through) : Slot{0};
  Slot out = emit_.newSet();
  emit_.add(lines.through ? Op::linesThrough : Op::lineCells, out, in, through, 0,
            lineSetOf(lines));
  return out;
}

Slot Expressions::groupsSet(const rules::GroupsWhere& groups) {
  Slot rest = emit_.newSet(), out = emit_.newSet(), group = emit_.newSet();
  emit_.add(Op::copySet, rest, set(*groups.in));
  emit_.add(Op::clear, out);
  int directions = emit_.directionGroup(rules_.ways[groups.ways].directions[me_]);
  int loop = emit_.label(), done = emit_.label();
  emit_.place(loop);
  int begun = emit_.here();
  emit_.add(Op::groups, group, rest, 0, 0, directions);
  emit_.jump(Op::jumpNone, done, 0, group);
  bind(groups.name, {Type::set, group});
  branch(*groups.condition, false, loop);
  emit_.add(Op::either, out, out, group);
  emit_.weigh(begun);
  emit_.jump(Op::jump, loop);
  emit_.place(done);
  return out;
}

Slot Expressions::cellsSet(const rules::CellsWhere& cells) {
  Slot rest = emit_.newSet(), out = emit_.newSet(), one = emit_.newSet();
  Slot at = emit_.newNumber();
  emit_.add(Op::copySet, rest, set(*cells.in));
  emit_.add(Op::clear, out);
  int loop = emit_.label(), done = emit_.label();
  emit_.place(loop);
  int begun = emit_.here();
  emit_.jump(Op::nextCell, done, at, rest);
  bind(cells.name, {Type::cell, at});
  branch(*cells.condition, false, loop);
  emit_.add(Op::cellSet, one, at);
  emit_.add(Op::either, out, out, one);
  emit_.jump(Op::jump, loop);
  emit_.place(done);
  emit_.weighLoop(begun);
  return out;
}

Slot Expressions::kindsSet(const rules::KindsWhere& kinds) {
  Slot out = emit_.newSet();
  emit_.add(Op::clear, out);
  for (int kind : rules_.kindsOf(kinds.noun)) {
    int next = emit_.label();
    bind(kinds.name, {Type::kind, emit_.constantNumber(kind), kind});
    branch(*kinds.condition, false, next);
    emit_.add(Op::either, out, out, emit_.constantKinds({kind}));
    emit_.place(next);
  }
  return out;
}

struct Expressions::AsSet : Asked<&Expressions::set> {
  Emitter& emit;
  const Layout& layout;

  using Asked::operator();

  Slot operator()(const rules::If& form) const {
    return in.choiceOf(form, Op::copySet, emit.newSet(),
                       [&](const Term& term) { return in.set(term); });
  }
  Slot operator()(const rules::NoCells&) const {
    Slot out = emit.newSet();
    emit.add(Op::clear, out);
    return out;
  }
  Slot operator()(const rules::Side& form) const {
    return in.place(layout.sides[in.sideOf(form.whose)]);
  }
  Slot operator()(const rules::Empty& form) const { return in.owned(layout.empty, form.whose); }
  Slot operator()(const rules::Occupied& form) const {
    return in.binary(Op::minus, emit.constantSet(in.rules_.board.all()),
                     in.owned(layout.empty, form.whose));
  }
  Slot operator()(const rules::Pieces& form) const {
    return in.kindSet(in.rules_.kindsOf(form.noun), in.sideOf(form.whose));
  }
  Slot operator()(const rules::PiecesOfKind& form) const {
    return in.kindNamed(in.value(*form.kind), in.sideOf(form.whose));
  }
  Slot operator()(const rules::Mark& form) const {
    return in.owned(layout.marks[form.mark], form.whose);
  }
  Slot operator()(const rules::Touched&) const {
    Slot out = emit.newSet();
    emit.add(in.scratch_ == Scratch::generator ? Op::clear : Op::touched, out);
    if (in.scratch_ == Scratch::trial) in.program_.trialsReadBefore = true;
    return out;
  }
  Slot operator()(const rules::SideReach& form) const {
    return in.reachOfSide(in.sideOf(form.whose));
  }
  Slot operator()(const rules::ReachOf& form) const { return in.reachOfCell(*form.cell); }
  Slot operator()(const rules::CellAsSet& form) const {
    Slot at = in.cell(*form.cell), out = emit.newSet();
    emit.add(Op::cellSet, out, at);
    return out;
  }
  template <class Join>
  Slot joined(Op op, const Join& form) const {
    Slot left = in.set(*form.left);
    return in.binary(op, left, in.set(*form.right));
  }
  Slot operator()(const rules::Both& form) const { return joined(Op::both, form); }
  Slot operator()(const rules::Either& form) const { return joined(Op::either, form); }
  Slot operator()(const rules::Except& form) const { return joined(Op::minus, form); }
  Slot operator()(const rules::Ahead& form) const {
    return in.stepped(form.ways, in.origin(form.of));
  }
  Slot operator()(const rules::Step& form) const {
    return in.stepped(form.ways, in.origin(form.from));
  }
  Slot operator()(const rules::Slide& form) const { return in.slid(form); }
  Slot operator()(const rules::Leap& form) const { return in.leapt(form); }
  Slot operator()(const rules::Between& form) const {
    Slot a = in.cell(*form.one), b = in.cell(*form.other), out = emit.newSet();
    emit.add(Op::between, out, a, b);
    return out;
  }
  Slot operator()(const rules::Bracketed& form) const {
    Slot run = in.set(*form.run), at = in.cell(*form.from), by = in.set(*form.by);
    Slot out = emit.newSet();
    emit.add(Op::bracketed, out, run, at, by,
             emit.directionGroup(in.rules_.ways[form.ways].directions[in.me_]));
    return out;
  }
  Slot operator()(const rules::Spread& form) const {
    Slot start = in.set(*form.from), through = in.set(*form.through), out = emit.newSet();
    emit.add(Op::spread, out, start, through, 0,
             emit.directionGroup(in.rules_.ways[form.ways].directions[in.me_]));
    return out;
  }
  Slot operator()(const rules::Lines& form) const { return in.linesSet(form); }
  Slot operator()(const rules::GroupsWhere& form) const { return in.groupsSet(form); }
  Slot operator()(const rules::CellsWhere& form) const { return in.cellsSet(form); }
  Slot operator()(const rules::KindsWhere& form) const { return in.kindsSet(form); }
  Slot operator()(const rules::Hand& form) const {
    Slot out = emit.newSet();
    emit.add(Op::handKinds, out, 0, 0, static_cast<Slot>(in.sideOf(form.whose)), in.past());
    return out;
  }
};

Slot Expressions::set(const Term& term) {
  if (std::optional<CellSet> constant = rules_.constantSet(term, me_))
    return emit_.constantSet(*constant);
  return std::visit(AsSet{{*this}, emit_, program_.layout}, term.form);
}

struct Expressions::AsCell : Asked<&Expressions::cell> {
  Emitter& emit;

  using Asked::operator();

  Slot operator()(const rules::NamedCell& form) const { return emit.constantNumber(form.cell); }
  Slot operator()(const rules::NoCell&) const { return emit.constantNumber(-1); }
  Slot operator()(const rules::Remembered& form) const {
    return in.owned(in.program_.layout.cells[form.cell], form.whose);
  }
  Slot operator()(const rules::OneCellOf& form) const {
    Slot out = emit.newNumber();
    emit.add(Op::setCell, out, in.set(*form.set));
    return out;
  }
  Slot operator()(const rules::Beyond& form) const {
    Slot out = emit.newNumber(), over = in.cell(*form.over), from = in.cell(*form.from);
    emit.add(Op::beyond, out, over, from);
    return out;
  }
  Slot operator()(const rules::OnTrack& form) const {
    Slot out = emit.newNumber(), far = in.number(*form.far), from = in.cell(*form.from);
    emit.add(Op::onTrack, out, far, from, 0, 2 * form.track + in.me_);
    return out;
  }
};

Slot Expressions::cell(const Term& term) {
  return std::visit(AsCell{{*this}, emit_}, term.form);
}

}  // namespace ninepegs::sheet
