// Second stage: what a sheet says, as a tree. Produced by parse() and never changed afterwards:
// check() makes rules of it. Plain values; every node knows its place.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/board/geometry.hpp"
#include "ninepegs/sheet/syntax/expectations.hpp"
#include "ninepegs/sheet/text/blocks.hpp"

namespace ninepegs::sheet {

enum class ExprKind {
  number,  // 12
  name,    // pawn, there, a1, White
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
  groups,      // groups g in S along G where COND: word g, `along` the group of directions
  kindsWhere,  // kinds k in GROUP where COND: word k, `along` the group of kinds
  was,         // was X
  hand,        // my hand, my hand of KIND (with an argument): inside `own` or `ofName`
  kindOn,      // kind on c
  edgeOf,      // edge of a towards b
  onTrack,     // next N along TRACK from c: word the track; arguments N and c
  movesOf,     // moves of SIDE, my moves: word my, their or the side
  total,       // total E for x in S: word x
  extreme,     // min(a, b), max(a, b): word
};

struct Expr {
  ExprKind kind = ExprKind::number;
  Span span;
  std::string word;
  std::string along;
  long long first = 0, second = 0;
  bool plural = false;
  bool bracketed = false;  // stood in brackets of its own
  std::vector<Expr> args;
};

// `column of X` and `row of X` in a text: what the cell is called.
inline bool isCellsText(const Expr& part) {
  return part.kind == ExprKind::ofName && part.args.size() == 1;
}

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
  repeat,    // `count`: how
  maximise,  // must maximise E
  tell,
  writtenAs,
  write,
  seenAs,
};

enum class RepeatKind { whilePossible, anyTimes, upTo, times };
enum class ChooseKind { kinds, range, hand };

struct Statement {
  StatementKind kind = StatementKind::need;
  Span span;
  Name name;  // of pick, choose, let, set; kind of put, change; mark of add, remove
  RepeatKind repeat = RepeatKind::whilePossible;
  ChooseKind choose = ChooseKind::kinds;
  bool ifAny = false;       // of pick: goes on with no cell
  bool fromHand = false;    // of put
  std::string way;          // of `shift S by WAY`
  std::vector<Expr> args;   // in written order
  std::vector<Name> names;  // of choose: the list of kinds; of set, add, remove: `my`, `their`
  std::vector<Statement> body, otherwise;  // of when
};

struct PieceDecl {
  Name name;
  std::string letters[2];  // for the first and the second side; empty: that side has none
  std::vector<std::pair<Name, long long>> values;
  std::optional<Expr> reach;
  bool neutral = false, secret = false;
  Name only;                     // the one side that has it
  std::vector<long long> edges;  // a number for each direction of the board
  Span edgesSpan;
};
struct SetDecl {  // group, zone: two expressions if it differs by side
  Name name;
  std::vector<Name> members;                               // of a group: kinds
  std::vector<std::pair<std::optional<Name>, Expr>> sets;  // of a zone: for which side
};
struct StateDecl {  // mark, number, cell
  Name name;
  bool each = false;
  bool onCells = false;                                          // a number for every cell
  bool lastsOneMove = false;                                     // of a cell
  std::vector<std::pair<std::optional<Name>, long long>> start;  // values set out at the start
};
struct TrackDecl {
  Name name;
  std::vector<std::pair<std::optional<Name>, std::vector<Name>>> cells;  // for which side
};
struct ForbidDecl {
  std::string reason;
  Expr condition;
  Span span;
};
struct RepetitionDecl {
  std::vector<Name> compares;
  Span span;
};
// A line of `each side sees`: a set shown by a letter on a side's board, or kinds of piece.
struct SeesDecl {
  Expr what;
  std::string letter;  // empty: told in words
  bool theirBoard = false;
  Span span;
};
// How the fields of an open notation map to the sheet's memory.
struct NotationDecl {
  std::string format;                                // fen
  std::vector<std::pair<std::string, Name>> rights;  // letter and cell, held in the mark
  Name mark, target, clock;
  Name pawn, castle;
  std::optional<Expr> check;
  Span span;
};
struct DefineDecl {
  Name name;
  std::vector<Name> parameters;
  Expr body;
  int size = 0;  // how many expressions the body is made of
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
struct EndDecl : EndHead {
  Name side;                    // of sideWins
  std::optional<Expr> measure;  // of leader
  Expr condition;
  std::optional<Expr> showing;
};
struct AlwaysDecl {
  Expr expr;
  int change = 0;  // 0: a condition; 1: never shrinks; -1: never grows
  Span span;
};
struct SymmetryDecl {
  std::string name;       // of the board's symmetry; empty: the cells stay
  bool exchange = false;  // the sides change places
  Span span;
};

// How something is drawn: a kind, a mark, a number on cells or a set of cells.
struct LookDecl {
  Expr what;
  Name look;
};
struct PictureDecl {
  std::vector<Expr> borders;
  std::vector<LookDecl> looks;
  Span span;
};

struct CaseStep : CaseStepHead {
  Name subject;  // a side, `draw`, or the cell of `moves from`
  Expr condition;
};
struct CaseDecl {
  std::string name;
  Name variant;  // empty: the game as it stands
  std::optional<PositionDecl> position;
  std::vector<CaseStep> steps;
  Span span;
};

struct BoardDecl : BoardShape {          // of a hexagon: cells on a side, in `columns`
  bool oneEach = false;                  // a layer of pieces for each side
  std::vector<std::vector<Name>> lines;  // of points
  std::optional<Expr> without;
  Span span;
};

struct Tree {
  Name game;
  std::string variant;  // which variant this is; empty: none
  std::string title;
  std::vector<std::string> about;
  Name sides[2];
  std::vector<std::pair<Name, Name>> facing;  // direction, side
  BoardDecl board;
  std::vector<PieceDecl> pieces;
  std::vector<SetDecl> groups, zones;
  std::vector<StateDecl> marks, numbers, cells;
  std::vector<TrackDecl> tracks;
  std::optional<PositionDecl> start;
  std::vector<DefineDecl> defines;
  std::vector<MoveDecl> moves;
  std::vector<AfterDecl> afters;
  std::optional<TurnDecl> turn;
  std::vector<ForbidDecl> forbids;
  std::optional<RepetitionDecl> repetition;
  std::optional<NotationDecl> notation;
  std::vector<EndDecl> ends;
  int mayLast = 0;  // plies; 0: not said
  Span mayLastSpan;
  std::vector<SeesDecl> sees;
  std::optional<Expr> worth;
  std::vector<std::vector<long long>> worthPicture;  // rows from the top
  std::vector<AlwaysDecl> always;
  std::vector<SymmetryDecl> symmetries;
  std::optional<PictureDecl> picture;
  std::vector<CaseDecl> cases;
  std::vector<std::pair<Name, std::string>> variants;  // name, what it says
};

}  // namespace ninepegs::sheet
