// The makers of mutations, by what they change. Internal to the room.
#pragma once

#include <utility>

#include "ninepegs/sheet/mutation/mutations.hpp"

namespace ninepegs::rules {

inline Mutation mutationOf(Slip slip, int line, std::string was, std::string now,
                           std::function<void(Rules&)> make) {
  Mutation out;
  out.slip = slip;
  out.line = line;
  out.was = std::move(was);
  out.now = std::move(now);
  out.make = std::move(make);
  return out;
}

// A set without another.
inline TermPtr lessThan(TermPtr set, const TermPtr& less) {
  Except except;
  except.left = std::move(set);
  except.right = less;
  return make(Type::set, less->span, std::move(except));
}
// What a search misses that begins one too late or stops one too early: the first and the last row
// and column of a board of squares, as sets.
inline std::vector<TermPtr> outerRows(const Rules& rules, Span span) {
  std::vector<TermPtr> out;
  Shape shape = rules.boardRule.kind;
  if (shape != Shape::square && shape != Shape::rhombus) return out;
  long long rows = rules.board.rows(), columns = rules.board.columns();
  for (long long row : {1LL, rows})
    if (rows > 1) out.push_back(make(Type::set, span, Rows{row, row, Parity::any}));
  for (long long column : {1LL, columns})
    if (columns > 1) out.push_back(make(Type::set, span, Columns{column, column, Parity::any}));
  return out;
}
// ... and the first and the last cell.
inline std::vector<TermPtr> outerCells(const Rules& rules, Span span) {
  std::vector<TermPtr> out;
  std::vector<Cell> cells;
  for (Cell cell = 0; cell < rules.board.size(); ++cell)
    if (rules.board.has(cell)) cells.push_back(cell);
  if (cells.size() < 2) return out;
  for (Cell cell : {cells.front(), cells.back()}) {
    CellAsSet set;
    set.cell = make(Type::cell, span, NamedCell{cell});
    out.push_back(make(Type::set, span, std::move(set)));
  }
  return out;
}

// Terms: see alternatives.hpp.
void mutationsOfTerms(const Rules& rules, std::vector<Mutation>& out);
// Statements of moves and of what comes after them.
void mutationsOfClauses(const Rules& rules, std::vector<Mutation>& out);
// Turn, ends, `forbid`, `after`, and what is remembered.
void mutationsOfSections(const Rules& rules, std::vector<Mutation>& out);
// The start, the board's edges, pieces.
void mutationsOfSetUp(const Rules& rules, std::vector<Mutation>& out);

}  // namespace ninepegs::rules
