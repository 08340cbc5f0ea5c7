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
  Clause();  // copied and destroyed in one place, clauses.cpp
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
bool anyClause(const Clauses& list, FunctionRef<bool(const Clause&)> test);
void eachClause(const Clauses& list, FunctionRef<void(const Clause&)> look);

// Calls `look` with every term of the clause itself, not of those inside it.
void eachTerm(const Clause& clause, FunctionRef<void(const Term&)> look);

}  // namespace ninepegs::rules
