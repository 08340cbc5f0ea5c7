// Second stage: what a sheet says, as a tree. Produced by parse(), checked and completed by
// check(). Plain values; every node knows its place.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/sheet/blocks.hpp"

namespace ninepegs::sheet {

// What an expression yields, filled in by check(). `kind` is a kind of piece, `lineset` the
// straight lines that `total ... for L in lines ...` runs through.
enum class Type { unknown, set, cell, number, truth, kind, lineset };

enum class ExprKind {
  number,  // 12
  name,    // pawn, there, a1, White: resolved by check()
  call,    // sunk(k)
  own,     // my X, their X: word is "my" or "their"
  ofName,  // X of Y: word X, one argument
  on,
  either,
  except,  // set algebra; `either` is also the `or` of conditions
  both,
  negation,  // and, not
  any,
  none,
  count,       // any S, no S, count S
  compare,     // word: = != < <= > >=
  within,      // S within T
  inside,      // c in S
  is,          // mover is White
  arithmetic,  // word: + - * / %
  ahead,       // north of S, forward of S: word is the direction
  step,
  slide,  // word: group of directions; slide may have a second argument (through)
  leap,   // numbers in `first`, `second`
  between,
  beyond,
  bracketed,  // T, c, U; word: group
  lines,      // N, S (and c): word: group; `first` 1 = of exactly; `plural` lines / line
  spread,     // S, T; word: group
  reachOf,    // reach of c
  choice,     // if C then A else B
  rows,
  columns,     // numbers `first` .. `second`; word "odd" or "even" for those
  cellsWhere,  // cells c in S where COND: word c
  total,       // total E for x in S: word x
  extreme,     // min(a, b), max(a, b): word
};

struct Expr {
  ExprKind kind = ExprKind::number;
  Span span;
  std::string word;
  long long first = 0, second = 0;
  bool plural = false;
  bool bracketed = false;  // stood in brackets of its own
  std::vector<Expr> args;
  Type type = Type::unknown;
};

struct Name {
  std::string text;
  Span span;
};

enum class StatementKind {
  pick,
  choose,
  let,
  set,
  need,
  put,
  shift,
  take,
  flip,
  change,
  addTo,
  removeFrom,
  when,
  again,
  writtenAs,
};

struct Statement {
  StatementKind kind = StatementKind::need;
  Span span;
  Name name;                // of pick, choose, let, set; kind of put, change; mark of add, remove
  std::vector<Expr> args;   // in written order
  std::vector<Name> names;  // of choose: the list of kinds
  std::vector<Statement> body, otherwise;  // of when
  int id = -1;  // number among all statements of the sheet, set by check()
};

struct PieceDecl {
  Name name;
  std::string letters[2];  // for the first and the second side; empty: that side has none
  std::vector<std::pair<Name, long long>> values;
  std::optional<Expr> reach;
};
struct SetDecl {  // group, zone: two expressions if it differs by side
  Name name;
  std::vector<Name> members;                               // of a group: kinds
  std::vector<std::pair<std::optional<Name>, Expr>> sets;  // of a zone: for which side
};
struct StateDecl {  // mark, number
  Name name;
  bool each = false;
};
struct DefineDecl {
  Name name;
  std::vector<Name> parameters;
  Expr body;
};
struct MoveDecl {
  Name name;
  std::vector<Statement> body;
};
struct AfterDecl {
  std::vector<Name> moves;  // empty: every move
  std::vector<Statement> body;
  Span span;
};
struct TurnDecl {
  std::vector<std::vector<Name>> tiers;  // `a or b else c`: {{a, b}, {c}}
  Span span;
};
enum class EndKind { moverWins, moverLoses, sideWins, draw, leader };
struct EndDecl {
  EndKind kind = EndKind::draw;
  Name side;               // of sideWins
  bool sideLoses = false;  // `SIDE loses`: the other side wins
  bool claim = false;
  std::string name, drawName;   // drawName: of a leader's tie
  std::optional<Expr> measure;  // of leader
  Expr condition;
  std::optional<Expr> showing;
  Span span;
  int id = -1;
};
struct AlwaysDecl {
  Expr expr;
  int change = 0;  // 0: a condition; 1: never shrinks; -1: never grows
  Span span;
};
struct SymmetryDecl {
  std::string name;
  Span span;
};

// Lines that set up a position: a picture and the rest.
struct PositionDecl {
  std::vector<Block> lines;
  Span span;
};

enum class ExpectKind {
  ongoing,
  end,
  legal,
  notLegal,
  moves,
  moveCount,
  sequences,
  turn,
  leaves,
  play
};
struct CaseStep {
  ExpectKind kind = ExpectKind::ongoing;
  std::string raw;  // of play, legal, not legal, moves: the moves as written
  Name subject;     // a side, `draw`, or the cell of `moves from`
  std::string endName;
  std::vector<unsigned long long> numbers;  // moveCount: one; sequences: from depth `first`
  int first = 0;
  std::vector<Block> lines;  // of leaves
  Span span;
};
struct CaseDecl {
  std::string name;
  Name variant;  // empty: the game as it stands
  std::optional<PositionDecl> position;
  std::vector<CaseStep> steps;
  Span span;
};

struct BoardDecl {
  int columns = 0, rows = 0;
  bool numbered = false, rowsFromTop = false, joinLeftRight = false, joinTopBottom = false;
  std::optional<Expr> without;
  Span span;
};

struct Tree {
  Name game;
  std::string title;
  std::vector<std::string> about;
  Name sides[2];
  std::vector<std::pair<Name, Name>> facing;  // direction, side
  BoardDecl board;
  std::vector<PieceDecl> pieces;
  std::vector<SetDecl> groups, zones;
  std::vector<StateDecl> marks, numbers;
  std::optional<PositionDecl> start;
  std::vector<DefineDecl> defines;
  std::vector<MoveDecl> moves;
  std::vector<AfterDecl> afters;
  std::optional<TurnDecl> turn;
  std::vector<EndDecl> ends;
  std::optional<Expr> worth;
  std::vector<AlwaysDecl> always;
  std::vector<SymmetryDecl> symmetries;
  std::vector<CaseDecl> cases;
  std::vector<std::pair<Name, std::string>> variants;  // name, what it says
};

}  // namespace ninepegs::sheet
