// Terms: what an expression of a sheet means once every name is a number and every type is known.
// Terms never change once they are made, and are shared.
#pragma once

#include <cstdint>
#include <memory>
#include <variant>
#include <vector>

#include "ninepegs/base/function_ref.hpp"
#include "ninepegs/sheet/text/blocks.hpp"

namespace ninepegs::rules {

using sheet::Span;

// What a term yields. `kind` is a kind of piece, `kinds` a set of them, `lineset` straight lines.
enum class Type { unknown, set, cell, number, truth, kind, kinds, lineset };

// Whose something is, seen from the side for which a term is worked out.
enum class Whose { anyone, mine, theirs, first, second };

// The side that is meant, where `me` is the side that looks; -1: none in particular.
constexpr int sideOf(Whose whose, int me) {
  return whose == Whose::mine     ? me
         : whose == Whose::theirs ? 1 - me
         : whose == Whose::first  ? 0
         : whose == Whose::second ? 1
                                  : -1;
}

struct Term;
using TermPtr = std::shared_ptr<const Term>;

// Numbers that stand for names: of declarations, their places in the lists of Rules; a NameId is a
// name of moves, of a loop, or of what a definition is given.
using NameId = int;

// A kind of piece, or a group of them.
struct Noun {
  bool group = false;
  int index = 0;
};

// Every form says its parts to `visit`, in the order in which they are written.
// clang-format off

struct Pair {
  TermPtr left, right;
  template <class V> void parts(V visit) const { visit(left), visit(right); }
};
struct OfCell { TermPtr cell; template <class V> void parts(V visit) const { visit(cell); } };

// A name that was given to a value: of any type.
struct Name { NameId name; };
// A definition as it is used here: what it is given, and its body with that. Of any type.
struct Use {
  int define; Whose whose; std::vector<NameId> names; std::vector<TermPtr> given; TermPtr body;
  template <class V> void parts(V visit) const { for (const TermPtr& one : given) visit(one); }
};
struct If {
  TermPtr condition, then, otherwise;
  template <class V> void parts(V visit) const { visit(condition), visit(then), visit(otherwise); }
};
// As it was before the move.
struct Was { TermPtr what; template <class V> void parts(V visit) const { visit(what); } };

// Sets of cells.
struct AllCells {};
struct NoCells {};
struct Side { Whose whose; };  // the cells with the side's pieces
struct Empty { Whose whose; };
struct Occupied { Whose whose; };
struct Pieces { Noun noun; Whose whose; };
struct PiecesOfKind {  // of a kind that is known when it is played
  TermPtr kind; Whose whose;
  template <class V> void parts(V visit) const { visit(kind); }
};
struct Zone { int zone; Whose whose; };
struct Mark { int mark; Whose whose; };
struct Edge {};
struct Corner {};
struct Shade { bool dark; };
enum class Parity { any, odd, even };
struct Rows { long long first, last; Parity parity; };
struct Columns { long long first, last; Parity parity; };
struct Touched {};
struct SideReach { Whose whose; };
struct ReachOf : OfCell {};
struct CellAsSet : OfCell {};
struct Both : Pair {};
struct Either : Pair {};
struct Except : Pair {};
// Directions are places in Rules::ways. Without `from`: from the piece whose reach this is.
struct Ahead { int ways; TermPtr of; template <class V> void parts(V visit) const { visit(of); } };
struct Step { int ways; TermPtr from; template <class V> void parts(V visit) const { visit(from); } };
struct Slide {  // without `through`: through empty cells
  int ways; TermPtr from, through;
  template <class V> void parts(V visit) const { visit(from), visit(through); }
};
struct Leap {
  int far, wide; TermPtr from;
  template <class V> void parts(V visit) const { visit(from); }
};
struct Between {
  TermPtr one, other;
  template <class V> void parts(V visit) const { visit(one), visit(other); }
};
struct Bracketed {
  int ways; TermPtr run, from, by;
  template <class V> void parts(V visit) const { visit(run), visit(from), visit(by); }
};
struct Spread {
  int ways; TermPtr from, through;
  template <class V> void parts(V visit) const { visit(from), visit(through); }
};
struct CellsWhere {
  NameId name; TermPtr in, condition;
  template <class V> void parts(V visit) const { visit(in), visit(condition); }
};
struct GroupsWhere {
  NameId name; int ways; TermPtr in, condition;
  template <class V> void parts(V visit) const { visit(in), visit(condition); }
};
// Straight lines: their cells as a set, or the lines themselves where one is tested, counted or
// picked. Without `through`: all of them.
struct Lines {
  bool plural, exactly; int ways; TermPtr length, in, through;
  template <class V> void parts(V visit) const { visit(length), visit(in), visit(through); }
};

// Cells.
struct NamedCell { int cell; };
struct NoCell {};
struct Remembered { int cell; Whose whose; };
struct OneCellOf { TermPtr set; template <class V> void parts(V visit) const { visit(set); } };
struct Beyond {
  TermPtr over, from;
  template <class V> void parts(V visit) const { visit(over), visit(from); }
};
struct OnTrack {
  int track; TermPtr far, from;
  template <class V> void parts(V visit) const { visit(far), visit(from); }
};

// Kinds of piece, and sets of them.
struct Kind { int kind; };
struct KindOn {
  TermPtr cell; Whose whose;
  template <class V> void parts(V visit) const { visit(cell); }
};
struct KindsWhere {
  NameId name; Noun noun; TermPtr condition;
  template <class V> void parts(V visit) const { visit(condition); }
};
struct Hand { Whose whose; };

// Numbers.
struct Number { long long value; };
struct Variable { int number; Whose whose; };
struct CellNumber {
  int number; TermPtr cell;
  template <class V> void parts(V visit) const { visit(cell); }
};
struct Property {  // of the piece on a cell
  int property; TermPtr cell;
  template <class V> void parts(V visit) const { visit(cell); }
};
struct KindProperty {
  int property; TermPtr kind;
  template <class V> void parts(V visit) const { visit(kind); }
};
struct RowNumber : OfCell {};
struct ColumnNumber : OfCell {};
struct Weight : OfCell {};
struct Plies {};
struct Passes {};
struct TimesSeen {};
struct HandOf {
  TermPtr kind; Whose whose;
  template <class V> void parts(V visit) const { visit(kind); }
};
struct Count { TermPtr what; template <class V> void parts(V visit) const { visit(what); } };
struct EdgeOf {
  TermPtr cell, towards;
  template <class V> void parts(V visit) const { visit(cell), visit(towards); }
};
struct MovesOf { Whose whose; };
enum class Sum { add, subtract, multiply, divide, remainder };
struct Arithmetic {
  Sum sum; TermPtr left, right;
  template <class V> void parts(V visit) const { visit(left), visit(right); }
};
struct Extreme {
  bool greatest; TermPtr left, right;
  template <class V> void parts(V visit) const { visit(left), visit(right); }
};
struct Total {
  NameId name; TermPtr each, in;
  template <class V> void parts(V visit) const { visit(each), visit(in); }
};

// Conditions.
struct Not { TermPtr what; template <class V> void parts(V visit) const { visit(what); } };
struct And : Pair {};
struct Or : Pair {};
struct Any { TermPtr what; template <class V> void parts(V visit) const { visit(what); } };
struct None { TermPtr what; template <class V> void parts(V visit) const { visit(what); } };
enum class Relation { equal, unequal, less, lessEqual, greater, greaterEqual };
struct Compare {  // of two of one type
  Relation relation; TermPtr left, right;
  template <class V> void parts(V visit) const { visit(left), visit(right); }
};
struct Within : Pair {};
struct Inside {
  TermPtr cell, in;
  template <class V> void parts(V visit) const { visit(cell), visit(in); }
};
enum class Role { mover, opponent, next };
struct IsSide { Role role; int side; };
struct Stuck {};
struct NobodyCanMove {};

// clang-format on

using Form =
    std::variant<Name, Use, If, Was, AllCells, NoCells, Side, Empty, Occupied, Pieces, PiecesOfKind,
                 Zone, Mark, Edge, Corner, Shade, Rows, Columns, Touched, SideReach, ReachOf,
                 CellAsSet, Both, Either, Except, Ahead, Step, Slide, Leap, Between, Bracketed,
                 Spread, CellsWhere, GroupsWhere, Lines, NamedCell, NoCell, Remembered, OneCellOf,
                 Beyond, OnTrack, Kind, KindOn, KindsWhere, Hand, Number, Variable, CellNumber,
                 Property, KindProperty, RowNumber, ColumnNumber, Weight, Plies, Passes, TimesSeen,
                 HandOf, Count, EdgeOf, MovesOf, Arithmetic, Extreme, Total, Not, And, Or, Any,
                 None, Compare, Within, Inside, IsSide, Stuck, NobodyCanMove>;

// Never copied: what looks at a term shares it. Destroyed in one place (terms.cpp), as doing so for
// each form wherever a term is used would be most of what the compiler works on.
struct Term {
  template <class F>
  Term(Type is, Span at, F what)
      : type(is), span(at), form(std::in_place_type<F>, std::move(what)) {}
  Term(const Term&) = delete;
  Term& operator=(const Term&) = delete;
  ~Term();

  Type type = Type::unknown;
  Span span;
  Form form;
};

template <class F>
TermPtr make(Type type, Span span, F form) {
  return TermPtr(new Term(type, span, std::move(form)));  // make_shared would be made for each form
}

// The term's form if it is an F, else null.
template <class F>
const F* as(const Term& term) {
  return std::get_if<F>(&term.form);
}

// Calls `look` with each part that is there; a definition's parts are what it is given.
void eachSharedPart(const Term& term, FunctionRef<void(const TermPtr&)> look);
void eachPart(const Term& term, FunctionRef<void(const Term&)> look);
// The term with each part exchanged for what `change` makes of it; itself if all stay.
TermPtr withParts(const TermPtr& term, FunctionRef<TermPtr(const TermPtr&)> change);

// Is there a term among this one and all inside it of which `test` is true?
bool anyInside(const Term& term, FunctionRef<bool(const Term&)> test);

// The parts of A joint B joint C, in order, where a Joint has a left and a right part.
template <class Joint>
void partsOf(const Term& term, std::vector<const Term*>& out) {
  if (const Joint* joint = as<Joint>(term)) {
    partsOf<Joint>(*joint->left, out);
    partsOf<Joint>(*joint->right, out);
  } else {
    out.push_back(&term);
  }
}

}  // namespace ninepegs::rules
