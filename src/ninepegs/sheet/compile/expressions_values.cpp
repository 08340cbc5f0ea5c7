// Numbers, values of any type, and conditions as jumps.
#include <algorithm>
#include <stdexcept>

#include "ninepegs/sheet/compile/expressions.hpp"
#include "ninepegs/sheet/rules/printer.hpp"

namespace ninepegs::sheet {

using rules::as;

Slot Expressions::total(const rules::Total& total) {
  Slot sum = emit_.newNumber(), at = emit_.newNumber();
  emit_.add(Op::copyNumber, sum, emit_.constantNumber(0));
  int loop = emit_.label(), done = emit_.label();
  int begun = 0;
  const rules::Lines* lines =
      total.in->type == Type::lineset ? as<rules::Lines>(*total.in) : nullptr;
  if (lines != nullptr) {
    Slot in = set(*lines->in), line = emit_.newSet(), through = 0;
    if (lines->through) through = cell(*lines->through);
    emit_.add(Op::copyNumber, at, emit_.constantNumber(0));
    emit_.place(loop);
    begun = emit_.here();
    emit_.jump(Op::nextLine, done, line, at, in, static_cast<Slot>(lineSetOf(*lines)));
    if (lines->through) emit_.jump(Op::jumpOut, loop, 0, through, line);
    bind(total.name, {Type::set, line});
  } else {
    Slot rest = emit_.newSet();
    emit_.add(Op::copySet, rest, set(*total.in));
    emit_.place(loop);
    begun = emit_.here();
    emit_.jump(Op::nextCell, done, at, rest);
    bind(total.name, {Type::cell, at});
  }
  Slot one = number(*total.each);
  emit_.add(Op::add, sum, sum, one);
  if (lines != nullptr) emit_.weigh(begun);
  emit_.jump(Op::jump, loop);
  emit_.place(done);
  if (lines == nullptr) emit_.weighLoop(begun);
  return sum;
}

struct Expressions::AsNumber : Asked<&Expressions::number> {
  Emitter& emit;
  Program& program;

  using Asked::operator();

  Slot operator()(const rules::If& form) const {
    return in.choiceOf(form, Op::copyNumber, emit.newNumber(),
                       [&](const Term& term) { return in.number(term); });
  }
  Slot operator()(const rules::Number& form) const { return emit.constantNumber(form.value); }
  Slot operator()(const rules::Variable& form) const {
    return in.owned(program.layout.numbers[form.number], form.whose);
  }
  Slot operator()(const rules::Plies&) const { return in.place(Layout::plies); }
  Slot operator()(const rules::Passes&) const { return in.place(program.layout.passes); }
  Slot operator()(const rules::TimesSeen&) const {
    Slot out = emit.newNumber();
    emit.add(Op::timesSeen, out);
    return out;
  }
  Slot operator()(const rules::CellNumber& form) const {
    Slot out = emit.newNumber(), at = in.cell(*form.cell);
    emit.add(Op::cellNumber, out, in.place(program.layout.cellNumbers[form.number]), at);
    return out;
  }
  Slot operator()(const rules::Property& form) const {
    Slot out = emit.newNumber(), at = in.cell(*form.cell);
    emit.add(Op::property, out, at, 0, static_cast<Slot>(in.past()), form.property);
    return out;
  }
  Slot operator()(const rules::KindProperty& form) const {
    Slot out = emit.newNumber();
    Value kind = in.value(*form.kind);
    if (kind.constantKind >= 0)
      return emit.constantNumber(program.properties[form.property][kind.constantKind]);
    emit.add(Op::kindProperty, out, kind.slot, 0, 0, form.property);
    return out;
  }
  Slot ofCell(Op op, const Term& cell) const {
    Slot out = emit.newNumber(), at = in.cell(cell);
    emit.add(op, out, at);
    return out;
  }
  Slot operator()(const rules::Weight& form) const { return ofCell(Op::weight, *form.cell); }
  Slot operator()(const rules::RowNumber& form) const { return ofCell(Op::rowNumber, *form.cell); }
  Slot operator()(const rules::ColumnNumber& form) const {
    return ofCell(Op::columnNumber, *form.cell);
  }
  Slot operator()(const rules::HandOf& form) const {
    Slot of = in.kind(*form.kind), out = emit.newNumber();
    emit.add(Op::handOf, out, of, 0, static_cast<Slot>(in.sideOf(form.whose)), in.past());
    return out;
  }
  Slot operator()(const rules::EdgeOf& form) const {
    Slot a = in.cell(*form.cell), b = in.cell(*form.towards), out = emit.newNumber();
    emit.add(Op::edgeOf, out, a, b, static_cast<Slot>(in.past()));
    return out;
  }
  Slot operator()(const rules::MovesOf& form) const {
    Slot out = emit.newNumber();
    emit.add(Op::countMoves, out, 0, 0, static_cast<Slot>(in.sideOf(form.whose)));
    return out;
  }
  Slot operator()(const rules::Count& form) const {
    Slot out = emit.newNumber();
    if (const rules::Hand* hand = as<rules::Hand>(*form.what)) {
      emit.add(Op::handTotal, out, 0, 0, static_cast<Slot>(in.sideOf(hand->whose)), in.past());
    } else if (form.what->type == Type::lineset) {
      const rules::Lines& lines = *as<rules::Lines>(*form.what);
      Slot set = in.set(*lines.in);
      Slot at = lines.through ? in.cell(*lines.through) : Slot{0};
      emit.add(Op::countLines, out, set, at, lines.through ? 1 : 0, in.lineSetOf(lines));
    } else {
      emit.add(Op::count, out, in.set(*form.what));
    }
    return out;
  }
  template <class Pair>
  Slot computed(Op op, const Pair& form) const {
    Slot a = in.number(*form.left);
    // The same twice, as in a square, is worked out once.
    bool same = rules::toText(in.rules_, *form.left) == rules::toText(in.rules_, *form.right);
    Slot b = same ? a : in.number(*form.right);
    Slot out = emit.newNumber();
    emit.add(op, out, a, b);
    return out;
  }
  Slot operator()(const rules::Arithmetic& form) const {
    static constexpr Op ops[] = {Op::add, Op::subtract, Op::multiply, Op::divide, Op::remainder};
    return computed(ops[static_cast<int>(form.sum)], form);
  }
  Slot operator()(const rules::Extreme& form) const {
    return computed(form.greatest ? Op::greatest : Op::least, form);
  }
  Slot operator()(const rules::Total& form) const { return in.total(form); }
};

Slot Expressions::number(const Term& term) {
  return std::visit(AsNumber{{*this}, emit_, program_}, term.form);
}

Value Expressions::value(const Term& term) {
  if (const rules::Name* name = as<rules::Name>(term)) return *find(name->name);
  switch (term.type) {
    case Type::number:
      return {Type::number, number(term)};
    case Type::cell:
      return {Type::cell, cell(term)};
    case Type::kind: {
      const rules::Kind* constant = as<rules::Kind>(term);
      return {Type::kind, kind(term), constant != nullptr ? constant->kind : -1};
    }
    default:
      return {term.type == Type::kinds ? Type::kinds : Type::set, set(term)};
  }
}

struct Expressions::AsBranch {
  Expressions& in;
  Emitter& emit;
  bool sense;
  int label;

  template <class Other>
  void operator()(const Other&) const {
    throw std::logic_error("no condition");  // the checker lets none come here
  }
  void go(Op whenTrue, Op whenFalse, Slot b, Slot c = 0) const {
    emit.jump(sense ? whenTrue : whenFalse, label, 0, b, c);
  }
  void operator()(const rules::Use& form) const {
    in.inDefine(form, [&](const Term& body) { return in.branch(body, sense, label), 0; });
  }
  void operator()(const rules::Was& form) const {
    in.earlier([&] { return in.branch(*form.what, sense, label), 0; });
  }
  void operator()(const rules::Not& form) const { in.branch(*form.what, !sense, label); }
  // `and` is false as soon as one side is; `or` true as soon as one side is.
  void joined(bool quick, const Term& left, const Term& right) const {
    if (sense == quick) {
      in.branch(left, sense, label);
      in.branch(right, sense, label);
    } else {
      int skip = emit.label();
      in.branch(left, quick, skip);
      in.branch(right, sense, label);
      emit.place(skip);
    }
  }
  void operator()(const rules::And& form) const { joined(false, *form.left, *form.right); }
  void operator()(const rules::Or& form) const { joined(true, *form.left, *form.right); }
  void operator()(const rules::None& form) const {
    AsBranch{in, emit, !sense, label}(rules::Any{form.what});
  }
  void operator()(const rules::Any& form) const {
    const Term& what = *form.what;
    if (what.type == Type::lineset) {
      const rules::Lines& lines = *as<rules::Lines>(what);
      Slot set = in.set(*lines.in);
      if (!lines.through)
        return go(Op::jumpLine, Op::jumpNoLine, set, static_cast<Slot>(in.lineSetOf(lines)));
      Slot through = in.cell(*lines.through);
      return emit.jump(sense ? Op::jumpLineThrough : Op::jumpNoLineThrough, label, 0, set,
                       static_cast<Slot>(in.lineSetOf(lines)), through);
    }
    std::optional<Attack> attack;
    if (emit.takes(Shortcut::backwards)) attack = attackOf(what, in.me_);
    if (attack) {
      Slot cells = in.set(*attack->targets.back());
      for (std::size_t i = 0; i + 1 < attack->targets.size(); ++i)
        cells = in.binary(Op::both, cells, in.set(*attack->targets[i]));
      if (in.branchAttacked(cells, attack->attacker, sense, label)) return;
    }
    go(Op::jumpAny, Op::jumpNone, in.set(what));
  }
  void operator()(const rules::Compare& form) const {
    using rules::Relation;
    Relation relation = form.relation;
    bool equal = relation == Relation::equal;
    if (form.left->type == Type::set) {
      Slot left = in.set(*form.left), right = in.set(*form.right);
      return equal ? go(Op::jumpSame, Op::jumpOther, left, right)
                   : go(Op::jumpOther, Op::jumpSame, left, right);
    }
    auto value = [&](const Term& term) {
      return term.type == Type::kind   ? in.kind(term)
             : term.type == Type::cell ? in.cell(term)
                                       : in.number(term);
    };
    Slot a = value(*form.left), b = value(*form.right);
    if (equal) return go(Op::jumpEqual, Op::jumpUnequal, a, b);
    if (relation == Relation::unequal) return go(Op::jumpUnequal, Op::jumpEqual, a, b);
    // a < b is no b <= a, and so on
    if (relation == Relation::greater || relation == Relation::greaterEqual) std::swap(a, b);
    bool strict = relation == Relation::less || relation == Relation::greater;
    if (sense) return emit.jump(strict ? Op::jumpLess : Op::jumpLessEqual, label, 0, a, b);
    emit.jump(strict ? Op::jumpLessEqual : Op::jumpLess, label, 0, b, a);
  }
  void operator()(const rules::Within& form) const {
    Slot a = in.set(*form.left);
    go(Op::jumpWithin, Op::jumpBeyond, a, in.set(*form.right));
  }
  void operator()(const rules::Inside& form) const {
    Slot a = in.cell(*form.cell);
    go(Op::jumpIn, Op::jumpOut, a, in.set(*form.in));
  }
  void operator()(const rules::IsSide& form) const {
    if (form.role == rules::Role::next)
      return go(Op::jumpEqual, Op::jumpUnequal, in.place(Layout::turn),
                emit.constantNumber(form.side));
    bool holds = (form.role == rules::Role::mover) == (form.side == in.me_);
    if (holds == sense) emit.jump(Op::jump, label);
  }
  void operator()(const rules::Stuck&) const { go(Op::jumpStuck, Op::jumpUnstuck, 0); }
  void operator()(const rules::NobodyCanMove&) const { go(Op::jumpNobody, Op::jumpSomebody, 0); }
};

void Expressions::branch(const Term& term, bool sense, int label) {
  bool joins = as<rules::And>(term) != nullptr || as<rules::Or>(term) != nullptr ||
               as<rules::Not>(term) != nullptr || as<rules::Use>(term) != nullptr;
  if (countParts_ && !joins) return branchCounting(term, sense, label);
  std::visit(AsBranch{*this, emit_, sense, label}, term.form);
}

// Without the brackets round all of it.
static std::string bare(std::string text) {
  int depth = 0;
  for (std::size_t i = 0; i < text.size(); ++i) {
    depth += text[i] == '(' ? 1 : text[i] == ')' ? -1 : 0;
    if (depth == 0 && i + 1 < text.size()) return text;
  }
  return text.size() > 2 ? text.substr(1, text.size() - 2) : text;
}

void Expressions::branchCounting(const Term& term, bool sense, int label) {
  PartCode part{term.span.line, bare(rules::toText(rules_, term))};
  auto same = [&](const PartCode& one) { return one.line == part.line && one.text == part.text; };
  auto known = std::find_if(program_.conditionParts.begin(), program_.conditionParts.end(), same);
  int first = static_cast<int>(program_.statementLines.size()) +
              2 * static_cast<int>(known - program_.conditionParts.begin());
  if (known == program_.conditionParts.end()) program_.conditionParts.push_back(std::move(part));
  int holds = emit_.label(), over = emit_.label();
  std::visit(AsBranch{*this, emit_, sense, holds}, term.form);
  emit_.add(Op::cover, 0, 0, 0, 0, first + (sense ? 0 : 1));
  emit_.jump(Op::jump, over);
  emit_.place(holds);
  emit_.add(Op::cover, 0, 0, 0, 0, first + (sense ? 1 : 0));
  emit_.jump(Op::jump, label);
  emit_.place(over);
}

}  // namespace ninepegs::sheet
