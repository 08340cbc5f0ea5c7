// A second way to every answer of a sheet, for tests: slow and plain.
//
// It takes the tree as parsed, looks names up as it goes, keeps a position as maps and sets, and
// walks every expression and statement with loops over cells. It shares nothing with the checker,
// the compiler and the machine; of the board it asks only labels, neighbours and the rim. A sheet
// must have been accepted by check(); of one that was not, anything may come.
#pragma once

#include <array>
#include <cstdint>
#include <map>
#include <optional>
#include <set>
#include <stdexcept>
#include <string>
#include <type_traits>
#include <utility>
#include <vector>

#include "judge/cells.hpp"
#include "ninepegs/board/geometry.hpp"
#include "ninepegs/sheet/syntax/tree.hpp"

namespace ninepegs::judge {

struct Standing {
  std::string kind;
  int side = 0;  // -1: nobody's
  friend bool operator==(const Standing&, const Standing&) = default;
};

struct Outcome {
  enum class Kind { ongoing, win, draw, fault } kind = Kind::ongoing;
  int winner = -1;
  std::string name;
  int end = -1;
  bool claim = false;
  int line = 0;  // of a fault
};

struct State {
  int turn = 0, lastMover = -1;
  std::int64_t plies = 0, passes = 0;
  std::map<Cell, Standing> board[2];  // the second one only where there is one each
  std::map<std::string, std::array<Cells, 2>> marks;
  std::map<std::string, std::array<std::int64_t, 2>> numbers;
  std::map<std::string, std::map<Cell, std::int64_t>> onCells;
  std::map<std::string, std::array<Cell, 2>> cells;  // -1: none
  std::map<std::string, std::int64_t> hands[2];
  Outcome outcome;
  std::vector<std::string> earlier;  // what a repetition compares of earlier positions
  // Where a side is asked about that is not to move: what a repetition compares of the position
  // that really stands there, with its own turn.
  std::optional<std::string> stands = {};
};

struct Value {
  enum class Sort { set, cell, number, truth, kind, kinds } sort = Sort::set;
  Cells cells;
  Cell cell = -1;
  std::int64_t number = 0;
  bool truth = false;
  std::string kind;  // empty: none
  std::set<std::string> kinds;
  bool chosen = false;  // a number that was chosen
  bool line = false;    // a line that was picked
};

// A value of a sort, which the member holds.
template <class Part>
Value valueOf(Value::Sort sort, Part Value::*member, std::type_identity_t<Part> part) {
  Value out;
  out.sort = sort;
  out.*member = std::move(part);
  return out;
}

// A way to make a move: the choices in order, and what comes of it.
struct Way {
  int move = -1;  // -1: a pass
  std::vector<std::int64_t> choices;
  std::string text, seen;
  std::vector<std::string> told;
  State after;
};

// What a side knows.
struct Seen {
  State shown;
  std::vector<Cells> marks;
  std::vector<std::string> words;
};

// A move makes more choices than there may be, or the work is too much for a test.
struct TooMuch : std::runtime_error {
  using std::runtime_error::runtime_error;
};

// How often each form was asked, and how many different answers it gave (up to two are told apart).
struct FormUse {
  std::uint64_t asked = 0;
  std::set<std::string> answers;
};
using FormUses = std::map<std::string, FormUse>;

class Judge {
 public:
  Judge(const sheet::Tree& tree, const Geometry& board);

  State start() const;
  State read(const std::string& line) const;  // a position on one line
  std::string text(const State& state) const;
  State judged(State state) const;  // with its outcome, as if it were set up

  // Legal moves; two ways of one move to the same text and position are one.
  std::vector<Way> moves(const State& state) const;
  std::uint64_t sequences(const State& state, int depth) const;
  std::vector<Outcome> endsThatHold(const State& state, const State& before) const;
  std::int64_t worth(const State& state, int side) const;
  std::int64_t invariant(std::size_t index, const State& state, int side) const;
  bool condition(const sheet::Expr& expr, const State& state) const;
  Seen seen(const State& state, int side) const;
  // Does every case of the sheet (of its variant) pass? In order. A case that passes but is not
  // judged as a whole (it counts too many sequences) may fail for what was left out; of one in
  // which moves can go wrong nothing is known.
  struct CaseVerdict {
    std::string name;
    bool passes = true, whole = true, known = true;
  };
  std::vector<CaseVerdict> cases() const;

  FormUses* uses = nullptr;        // counted into, if given
  std::uint64_t budget = 500'000;  // expressions evaluated before TooMuch is thrown
  mutable std::uint64_t spent = 0;

 private:
  friend class Run;
  // Whence an expression is looked at.
  struct Look {
    const State* now = nullptr;
    const State* before = nullptr;
    int me = 0;
    std::map<std::string, Value> names;
    std::optional<Cells> origin;  // of a reach
  };

  // values.cpp
  Value value(const sheet::Expr& expr, const Look& look) const;
  Value form(const sheet::Expr& expr, const Look& look) const;
  Value named(const sheet::Expr& expr, const Look& look) const;
  Value ownedBy(const sheet::Expr& inner, int owner, const Look& look) const;
  Value called(const sheet::Expr& expr, int me, const Look& look) const;
  // Null: it names none.
  const sheet::DefineDecl* definition(const sheet::Expr& expr, const Look& look) const;
  Look within(const sheet::DefineDecl& define, const sheet::Expr& expr, int me,
              const Look& look) const;
  Value ofName(const sheet::Expr& expr, const Look& look) const;
  Value compare(const sheet::Expr& expr, const Look& look) const;
  Value counted(const sheet::Expr& what, const Look& look) const;
  Cells set(const sheet::Expr& expr, const Look& look) const;
  Cells setOf(const Value& value, const Look& look) const;
  Cell cell(const sheet::Expr& expr, const Look& look) const;
  std::int64_t number(const sheet::Expr& expr, const Look& look) const;
  bool truth(const sheet::Expr& expr, const Look& look) const;
  std::string kind(const sheet::Expr& expr, const Look& look) const;
  bool isBareKind(const sheet::Expr& expr, const Look& look) const;

  // board.cpp
  std::vector<int> directions(const std::string& group, int side) const;
  Cell next(Cell cell, int direction) const;
  Cells stepped(const Cells& from, int direction) const;
  Cells slid(const Cells& from, const Cells& through, const std::vector<int>& ways) const;
  Cells spread(const Cells& from, const Cells& through, const std::vector<int>& ways) const;
  struct Line {
    std::vector<Cell> cells;
    Cells beyond;  // the cells at either end of it
  };
  const std::vector<Line>& lines(std::int64_t length, const std::string& along) const;
  std::vector<Line> linesIn(const sheet::Expr& expr, const Look& look) const;
  Cells pieces(const State& state, int side) const;  // -1: all of both boards
  Cells ofKind(const State& state, const std::string& kind, int side) const;
  Cells empty(const State& state, int side) const;
  std::optional<Standing> standing(const State& state, Cell cell, int side) const;
  Cells reachOf(Cell cell, const Look& look) const;
  Cells reachOfSide(int side, const Look& look) const;
  Cells touched(const Look& look) const;
  std::set<std::string> kindsNamed(const std::string& name) const;
  const sheet::PieceDecl* piece(const std::string& kind) const;
  std::int64_t property(const std::string& word, const std::string& kind) const;
  int side(const std::string& name) const;  // -1: none
  bool layered() const { return tree_.board.oneEach; }

  // moves.cpp
  // `made`: with what comes of each; else only that it can be made.
  std::vector<Way> waysOf(int move, const State& state, bool made) const;
  std::vector<Way> movesFor(const State& state, bool withPass, bool made) const;
  bool stuck(const State& state, int side) const;
  std::int64_t countMoves(const State& state, int side) const;
  Outcome decided(const State& now, const State& before, int mover) const;
  bool holds(std::size_t end, const State& now, const State& before, int mover,
             Outcome& outcome) const;
  State passing(const State& state) const;
  void turnOver(State& state, bool again) const;
  std::string seenKey(const State& state) const;

  const sheet::Tree& tree_;
  const Geometry& board_;
  Cells all_;
  bool usesAgain_ = false, readsTimes_ = false, forbidsTimes_ = false, readsPasses_ = false,
       hasHands_ = false;
  mutable std::map<std::pair<std::int64_t, std::string>, std::vector<Line>> lines_;
};

}  // namespace ninepegs::judge
