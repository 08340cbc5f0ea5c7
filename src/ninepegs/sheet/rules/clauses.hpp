// Clauses: the lines of moves and of `after` blocks, resolved.
#pragma once

#include <string>
#include <variant>
#include <vector>

#include "ninepegs/sheet/rules/terms.hpp"

namespace ninepegs::rules {

struct Clause;
using Clauses = std::vector<Clause>;

// Choices. Every one of them gives its name to what was chosen.
struct PickCell {
  NameId name;
  TermPtr from;
  bool ifAny;  // goes on with no cell where there is none
};
struct PickLine {
  NameId name;
  TermPtr lines;
};
struct ChooseKind {
  NameId name;
  std::vector<int> kinds;
};
struct ChooseFromHand {
  NameId name;
};
struct ChooseNumber {
  NameId name;
  TermPtr low, high;
};

struct Let {
  NameId name;
  TermPtr value;
};
struct Need {
  TermPtr condition;
};

// Effects.
struct SetName {
  NameId name;
  TermPtr value;
};
struct SetVariable {
  int number;
  Whose whose;
  TermPtr value;
};
struct SetCellNumber {
  int number;
  TermPtr cell, value;
};
struct SetRemembered {
  int cell;
  Whose whose;
  TermPtr value;
};
struct SetMark {
  int mark;
  Whose whose;
  TermPtr value;
};
struct AddTo {
  int mark;
  Whose whose;
  TermPtr cells;
};
struct RemoveFrom {
  int mark;
  Whose whose;
  TermPtr cells;
};
struct Put {
  TermPtr kind, where;
  bool fromHand;
};
struct Change {
  TermPtr where, kind;
};
struct Shift {
  TermPtr from, to;
};
struct ShiftAll {
  TermPtr cells;
  int ways;
};
struct Take {
  TermPtr where;
};
struct Flip {
  TermPtr where;
};
struct Again {};
struct When {
  TermPtr condition;
  Clauses then, otherwise;
};
enum class Rounds { whilePossible, anyTimes, upTo, times };
struct Repeat {
  Rounds rounds;
  TermPtr most;  // of upTo and times
  Clauses body;
};
struct Maximise {
  TermPtr value;
};

// Texts.
struct Quoted {
  std::string text;
};
struct Shown {
  TermPtr value;
};
struct ColumnOf {
  TermPtr cell;
};
struct RowOf {
  TermPtr cell;
};
using TextPart = std::variant<Quoted, Shown, ColumnOf, RowOf>;
struct Tell {
  std::vector<TextPart> parts;
};
struct Write {
  std::vector<TextPart> parts;
};
struct WrittenAs {
  std::vector<TextPart> parts;
};
struct SeenAs {
  std::vector<TextPart> parts;
};

using ClauseForm = std::variant<PickCell, PickLine, ChooseKind, ChooseFromHand, ChooseNumber, Let,
                                Need, SetName, SetVariable, SetCellNumber, SetRemembered, SetMark,
                                AddTo, RemoveFrom, Put, Change, Shift, ShiftAll, Take, Flip, Again,
                                When, Repeat, Maximise, Tell, Write, WrittenAs, SeenAs>;

struct Clause {
  Clause();  // as for Term
  Clause(Span span, int id, ClauseForm form);
  Clause(const Clause&);
  Clause(Clause&&) noexcept;
  Clause& operator=(const Clause&);
  Clause& operator=(Clause&&) noexcept;
  ~Clause();

  Span span;
  int id = -1;  // number among all statements of the sheet
  ClauseForm form;
};

template <class F>
const F* as(const Clause& clause) {
  return std::get_if<F>(&clause.form);
}

// One of the choices?
bool isChoice(const Clause& clause);
// The name that a choice or a `let` makes; -1: it makes none.
NameId madeName(const Clause& clause);
// The parts of a text; null for any other clause.
const std::vector<TextPart>* textParts(const Clause& clause);
// The clauses inside: of `when` two lists, of `repeat` one.
std::vector<const Clauses*> inner(const Clause& clause);
// What a part of a text shows; null of a quoted one.
const Term* shown(const TextPart& part);

// Is `test` true of a clause of the list, at any depth?
template <class Test>
bool anyClause(const Clauses& list, const Test& test) {
  for (const Clause& one : list) {
    if (test(one)) return true;
    for (const Clauses* deeper : inner(one))
      if (anyClause(*deeper, test)) return true;
  }
  return false;
}

template <class Look>
void eachClause(const Clauses& list, const Look& look) {
  for (const Clause& one : list) {
    look(one);
    for (const Clauses* deeper : inner(one)) eachClause(*deeper, look);
  }
}

namespace detail {
template <class Look>
struct Terms {
  Look& look;
  void one(const TermPtr& term) const {
    if (term) look(*term);
  }
  void operator()(const PickCell& c) const { one(c.from); }
  void operator()(const PickLine& c) const { one(c.lines); }
  void operator()(const ChooseKind&) const {}
  void operator()(const ChooseFromHand&) const {}
  void operator()(const ChooseNumber& c) const { one(c.low), one(c.high); }
  void operator()(const Let& c) const { one(c.value); }
  void operator()(const Need& c) const { one(c.condition); }
  void operator()(const SetName& c) const { one(c.value); }
  void operator()(const SetVariable& c) const { one(c.value); }
  void operator()(const SetCellNumber& c) const { one(c.value), one(c.cell); }
  void operator()(const SetRemembered& c) const { one(c.value); }
  void operator()(const SetMark& c) const { one(c.value); }
  void operator()(const AddTo& c) const { one(c.cells); }
  void operator()(const RemoveFrom& c) const { one(c.cells); }
  void operator()(const Put& c) const { one(c.where), one(c.kind); }
  void operator()(const Change& c) const { one(c.where), one(c.kind); }
  void operator()(const Shift& c) const { one(c.from), one(c.to); }
  void operator()(const ShiftAll& c) const { one(c.cells); }
  void operator()(const Take& c) const { one(c.where); }
  void operator()(const Flip& c) const { one(c.where); }
  void operator()(const Again&) const {}
  void operator()(const When& c) const { one(c.condition); }
  void operator()(const Repeat& c) const { one(c.most); }
  void operator()(const Maximise& c) const { one(c.value); }
  void text(const std::vector<TextPart>& parts) const {
    for (const TextPart& part : parts)
      if (const Term* term = shown(part)) look(*term);
  }
  void operator()(const Tell& c) const { text(c.parts); }
  void operator()(const Write& c) const { text(c.parts); }
  void operator()(const WrittenAs& c) const { text(c.parts); }
  void operator()(const SeenAs& c) const { text(c.parts); }
};
}  // namespace detail

// Calls `look` with every term of the clause itself, not of those inside it.
template <class Look>
void eachTerm(const Clause& clause, Look look) {
  std::visit(detail::Terms<Look>{look}, clause.form);
}

}  // namespace ninepegs::rules
