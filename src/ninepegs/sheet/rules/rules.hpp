// Third stage: the rules of a game, resolved. Made by check(); whatever reads them asks for
// numbers, never for a word of the language. Plain values; immutable once made, and safe to share
// between threads.
#pragma once

#include <array>
#include <cstdint>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/board/geometry.hpp"
#include "ninepegs/board/looks.hpp"
#include "ninepegs/sheet/rules/clauses.hpp"
#include "ninepegs/sheet/rules/terms.hpp"
#include "ninepegs/sheet/syntax/expectations.hpp"

namespace ninepegs::rules {

enum class SymbolKind {
  side,
  kind,
  group,
  zone,
  mark,
  number,
  remembered,  // a cell variable
  track,
  property,
  define,
  move,
  cell,
  builtin
};

struct Symbol {
  SymbolKind kind = SymbolKind::builtin;
  int index = 0;
};

// A line of the sheet that something can be said about: a statement of a move or an end.
struct StatementInfo {
  enum class Role { move, after, forbid, end } role = Role::move;
  int line = 0;
  std::string text;  // as written, without comment
};

// Directions that go by one word, as each side sees them; `axes` are those that lines run along.
struct Ways {
  std::string word;
  std::array<std::vector<int>, 2> directions;
  std::vector<int> axes;
  bool every = false;  // all directions of the board
};

struct BoardRule : BoardShape {                 // of a hexagon: cells on a side, in `columns`
  bool oneEach = false;                         // a layer of pieces for each side
  std::vector<std::vector<std::string>> lines;  // of points
  std::vector<std::string> labels;              // of all cells, with those that are left out
  TermPtr without;                              // null: nothing is left out
  Span span;
};

struct PieceKind {
  std::string name;
  Span span;
  std::string letters[2];  // for the first and the second side; empty: that side has none
  struct Value {
    int property = 0;
    long long value = 0;
    Span span;
  };
  std::vector<Value> values;
  TermPtr reach;  // null: it has none
  bool neutral = false, secret = false;
  int only = -1;                 // the one side that has it
  std::vector<long long> edges;  // a number for each direction of the board
};
struct Group {
  std::string name;
  Span span;
  std::vector<int> kinds;
};
struct ZoneRule {
  std::string name;
  Span span;
  bool bySide = false;
  std::array<TermPtr, 2> says;
  std::array<CellSet, 2> cells;
};
struct MarkRule {
  std::string name;
  Span span;
  bool each = false;
};
struct NumberRule {
  std::string name;
  Span span;
  bool each = false, onCells = false;
  bool given = false;  // its value at the start is said
  std::array<std::int64_t, 2> start = {0, 0};
};
struct RememberedRule {
  std::string name;
  Span span;
  bool each = false, lastsOneMove = false;
};
struct TrackRule {
  std::string name;
  Span span;
  bool bySide = false;
  std::array<std::vector<Cell>, 2> cells;
};
struct Definition {
  std::string name;
  Span span;
  std::vector<std::string> parameters;
  TermPtr body;  // as it was first used; null: nothing uses it
};
struct MoveRule {
  std::string name;
  Span span;
  Clauses body;
};
struct AfterRule {
  std::vector<int> moves;  // empty: every move
  Clauses body;
  Span span;
};
inline constexpr int passMove = -1;
struct TurnRule {
  std::vector<std::vector<int>> tiers;  // moves, or passMove
  Span span;
};
struct ForbidRule {
  std::string reason;
  TermPtr condition;
  Span span;
  int id = -1;
};
// What a repetition compares, in written order.
struct Compared {
  enum class What { pieces, turn, mark, number, remembered, move } what = What::pieces;
  int index = 0;
};
struct RepetitionRule {
  std::vector<Compared> compares;
  Span span;
};
// How the fields of an open notation map to the sheet's memory; -1: to none.
struct NotationRule {
  std::string format;
  std::vector<std::pair<std::string, Cell>> rights;  // letter and cell, held in the mark
  int mark = -1, target = -1, clock = -1, pawn = -1, castle = -1;
  TermPtr check;  // null: it writes none
  Span span;
};
struct EndRule : sheet::EndHead {
  int side = -1;    // of sideWins
  TermPtr measure;  // of leader, else null
  // Of leader: counted for the first side besides. No sheet says it (play/margins).
  std::int64_t headStart = 0;
  TermPtr condition;
  TermPtr showing;  // may be null
  int id = -1;
};
struct SeesRule {
  TermPtr what;        // a set, or kinds
  std::string letter;  // empty: told in words
  bool theirBoard = false;
  Span span;
};
struct AlwaysRule {
  TermPtr term;
  int change = 0;  // 0: a condition; 1: never shrinks; -1: never grows
  Span span;
};
struct SymmetryRule {
  std::string name;       // of the board's symmetry; empty: the cells stay
  bool exchange = false;  // the sides change places
  bool every = false;     // all that the board has
  Span span;
};
// As it is written, and those that it stands for: none if the board has no such symmetry.
std::string writtenName(const SymmetryRule& symmetry);
std::vector<Symmetry> symmetriesOf(const SymmetryRule& symmetry, const Geometry& board);
struct CaseStep : sheet::CaseStepHead {
  std::string subject;  // a side, or the cell of `moves from`
  bool draw = false;    // of end: nobody wins
  bool toCell = false;  // of moves: to the cell, not from it
  Span subjectSpan;
  TermPtr condition;  // of condition
};
struct CaseRule {
  std::string name, variant;  // variant: empty: the game as it stands
  Span variantSpan;
  std::optional<sheet::PositionDecl> position;
  std::vector<CaseStep> steps;
  Span span;
};

// How the board is drawn. The terms are those that the sets stand for.
struct PictureRule {
  Looks looks;
  std::vector<TermPtr> borders, edges, corners;
};

struct Rules {
  Rules();  // copied and destroyed in one place, values.cpp
  Rules(const Rules&);
  Rules(Rules&&) noexcept;
  Rules& operator=(const Rules&);
  Rules& operator=(Rules&&) noexcept;
  ~Rules();

  std::shared_ptr<const sheet::Source> source;  // what messages show
  std::string game, title, variant;             // variant: which one this is; empty: none
  std::vector<std::string> about;
  std::vector<std::pair<std::string, std::string>> variants;  // name, what it says
  std::array<std::string, 2> sides;
  Span sidesSpan;
  std::array<int, 2> facing = {0, 4};  // direction that is `forward`, by side
  bool facingGiven = false;
  BoardRule boardRule;
  Geometry board;
  std::vector<PieceKind> kinds;
  std::vector<std::string> properties;  // words with a number that pieces have
  std::vector<Group> groups;
  std::vector<ZoneRule> zones;
  std::vector<MarkRule> marks;
  std::vector<NumberRule> numbers;
  std::vector<RememberedRule> remembered;
  std::vector<TrackRule> tracks;
  std::optional<sheet::PositionDecl> start;
  std::vector<Definition> definitions;
  std::vector<MoveRule> moves;
  std::vector<AfterRule> afters;
  std::optional<TurnRule> turn;
  std::vector<ForbidRule> forbids;
  std::optional<RepetitionRule> repetition;
  std::optional<NotationRule> notation;
  std::vector<EndRule> ends;
  int mayLast = 0;  // plies that a game is said to last at most; 0: nothing is said
  Span mayLastSpan;
  std::vector<SeesRule> sees;
  TermPtr worth;                      // may be null
  std::vector<std::int64_t> weights;  // of the picture of worth, one a cell number
  Span worthSpan;
  std::vector<AlwaysRule> always;
  std::vector<SymmetryRule> symmetries;
  PictureRule picture;
  std::vector<CaseRule> cases;

  std::vector<std::string> names;  // by NameId
  std::vector<Ways> ways;
  std::vector<StatementInfo> statements;
  std::map<std::string, Symbol> symbols;  // what the names of the sheet stand for, for readers
  std::set<std::string> used;             // names that something reads

  bool hasEdges = false, hasHands = false, hasSecrets = false;
  bool readsPlies = false, readsBefore = false, readsPasses = false;
  bool usesAgain = false;    // a side may move twice running
  bool readsTimes = false;   // `times seen`
  bool timesDecide = false;  // ... in `forbid`, or in an end that is not only claimed
  bool timesForbid = false;  // ... in `forbid`

  // Of names that a person or a file gives: positions, moves, cases. -1 or null: there is none.
  const Symbol* find(const std::string& name) const;
  int side(const std::string& name) const;
  int kind(const std::string& name) const;

  bool layered() const { return boardRule.oneEach; }
  std::vector<int> kindsOf(Noun noun) const;
  const std::string& nameOf(Noun noun) const;
  // A cell that the board leaves out keeps the label it had before.
  std::string labelOf(Cell cell) const {
    return board.has(cell) ? board.label(cell) : boardRule.labels[cell];
  }
  std::string nameOf(const Compared& compared) const;
  // What is remembered beside the board, the turn and the plies and stands in no field of the
  // notation, by name. Requires a notation.
  std::vector<std::string> besideNotation() const;
  // The set, if it does not depend on the position.
  std::optional<CellSet> constantSet(const Term& term, int side) const;
};

// The directions that a word stands for, seen by a side that faces `forward` (-1: nowhere).
std::vector<int> directionsOf(const Geometry& board, int forward, const std::string& word);

}  // namespace ninepegs::rules
