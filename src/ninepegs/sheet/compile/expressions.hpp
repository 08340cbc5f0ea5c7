// Terms -> instructions, for one side at a time. Internal to compile().
#pragma once

#include <algorithm>
#include <map>
#include <optional>
#include <stdexcept>
#include <utility>
#include <vector>

#include "ninepegs/sheet/compile/emitter.hpp"
#include "ninepegs/sheet/plan/facts.hpp"
#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::sheet {

struct Value {
  Type type = Type::unknown;
  Slot slot = 0;
  int constantKind = -1;        // of a kind that is known now
  int owner = -1;               // of a cell: whose piece stands there, where that is known,
  std::vector<int> kinds = {};  // and which kinds it may be; none: not known
  Slot shown = 0;               // of a number chosen inside a block: where its text stands, -1 if
                                // it was not chosen
  int lines = -1;               // of a picked line: the number of its choice, else -1
};

class Expressions {
 public:
  Expressions(const rules::Rules& rules, Program& program, Emitter& emit)
      : rules_(rules), program_(program), emit_(emit) {}

  // Begins a routine seen by `side`; forgets all names.
  void begin(int side, Scratch scratch);
  // Sees what follows as the other side does, within the same routine.
  void see(int side) { me_ = side; }
  int side() const { return me_; }
  int sideOf(rules::Whose whose) const { return rules::sideOf(whose, me_); }
  // Where a side's own stands; of what is one for both sides, the one.
  Slot owned(const Layout::BySide& slots, rules::Whose whose) const {
    return place(slots[std::max(0, sideOf(whose))]);
  }
  void bind(NameId name, Value value) { locals_[name] = std::move(value); }
  void forget() { locals_.clear(); }  // all names
  const Value* find(NameId name) const;

  Slot set(const Term& term);  // of cells, or of kinds
  Slot number(const Term& term);
  Slot cell(const Term& term);
  Slot kind(const Term& term);  // the number of a kind
  Value value(const Term& term);
  // From now on, conditions count how often their parts hold: see PartCode.
  void countParts(bool count) { countParts_ = count; }
  // Goes to the label if the condition is as `sense` says; goes on otherwise.
  void branch(const Term& term, bool sense, int label);
  int lineSetOf(const rules::Lines& lines);
  // The family of `lines of N in S` and the slot of N.
  std::pair<int, Slot> lineFamilyOf(const rules::Lines& lines);
  // Goes to the label if the cells are attacked, worked out backwards from them.
  bool branchAttacked(Slot cells, int attacker, bool sense, int label);
  // What a side's pieces attack if `through` are the empty cells; only where slidesOf is true.
  Slot reachThrough(int side, Slot through);
  Slot kindSet(const std::vector<int>& kinds, int owner);

 private:
  // One function a form, by what it is asked for; names, definitions and what was are the same for
  // all.
  template <auto ask>
  struct Asked;
  struct AsSet;
  struct AsNumber;
  struct AsCell;
  struct AsKind;
  struct AsBranch;
  struct Origin {
    bool isCell = false;
    Slot slot = 0;
  };
  Slot binary(Op op, Slot b, Slot c);
  Slot kindNamed(const Value& kind, int owner);
  Slot place(Slot slot) const {
    return before_ ? static_cast<Slot>(slot + program_.beforeAt) : slot;
  }
  // What is looked up is looked up in the position before the move.
  int past() const { return before_ ? 1 : 0; }
  Slot reachOfSide(int owner);
  Slot reachOfCell(const Term& cell);
  int leapTable(const rules::Leap& leap);
  int stepTable(const std::vector<int>& directions);
  // Steps, leaps and slides from a cell or a set.
  Slot stepped(int ways, const Origin& from);
  Slot slid(const rules::Slide& slide);
  Slot leapt(const rules::Leap& leap);
  Origin origin(const rules::TermPtr& from);
  Slot total(const rules::Total& total);
  Slot linesSet(const rules::Lines& lines);
  Slot groupsSet(const rules::GroupsWhere& groups);
  Slot cellsSet(const rules::CellsWhere& cells);
  Slot kindsSet(const rules::KindsWhere& kinds);
  template <class Work>
  Slot choiceOf(const rules::If& choice, Op copy, Slot out, Work work);
  template <class Work>
  auto earlier(Work work);
  template <class Work>
  auto inDefine(const rules::Use& use, Work work);
  template <class Work>
  auto asSide(int side, Work work);

  const rules::Rules& rules_;
  Program& program_;
  Emitter& emit_;
  void branchCounting(const Term& term, bool sense, int label);

  int me_ = 0;
  bool countParts_ = false;
  Scratch scratch_ = Scratch::other;
  std::optional<Slot> emptyCells_;  // stands in for the empty cells in slides
  bool before_ = false;             // seen as it was before the move
  std::map<NameId, Value> locals_;
  std::optional<Origin> piece_;  // where a piece's reach starts
};

// Sees what the work says as it was before the move; a generator is before it anyway.
template <class Work>
auto Expressions::earlier(Work work) {
  bool outer = before_;
  before_ = scratch_ != Scratch::generator;
  if (scratch_ == Scratch::trial) program_.trialsReadBefore = true;
  auto result = work();
  before_ = outer;
  return result;
}

template <class Work>
auto Expressions::asSide(int side, Work work) {
  int before = me_;
  me_ = side;
  auto result = work();
  me_ = before;
  return result;
}

// Works out what is given where the definition is used, then its body, which sees nothing else.
template <class Work>
auto Expressions::inDefine(const rules::Use& use, Work work) {
  std::vector<Value> given;
  for (const rules::TermPtr& one : use.given) given.push_back(value(*one));
  for (std::size_t i = 0; i < given.size(); ++i) bind(use.names[i], std::move(given[i]));
  return asSide(sideOf(use.whose), [&] { return work(*use.body); });
}

template <auto ask>
struct Expressions::Asked {
  Expressions& in;

  Slot operator()(const rules::Name& form) const { return in.find(form.name)->slot; }
  Slot operator()(const rules::Use& form) const {
    return in.inDefine(form, [&](const Term& body) { return (in.*ask)(body); });
  }
  Slot operator()(const rules::Was& form) const {
    return in.earlier([&] { return (in.*ask)(*form.what); });
  }
  template <class Other>
  Slot operator()(const Other&) const {
    throw std::logic_error("a term of another type");  // the checker lets none come here
  }
};

template <class Work>
Slot Expressions::choiceOf(const rules::If& choice, Op copy, Slot out, Work work) {
  int otherwise = emit_.label(), done = emit_.label();
  branch(*choice.condition, false, otherwise);
  emit_.add(copy, out, work(*choice.then));
  emit_.jump(Op::jump, done);
  emit_.place(otherwise);
  emit_.add(copy, out, work(*choice.otherwise));
  emit_.place(done);
  return out;
}

}  // namespace ninepegs::sheet
