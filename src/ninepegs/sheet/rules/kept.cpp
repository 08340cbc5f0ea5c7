#include "ninepegs/sheet/rules/kept.hpp"

#include <algorithm>
#include <set>
#include <type_traits>

namespace ninepegs::rules {
namespace {

template <class Form, class... Any>
constexpr bool oneOf = (std::is_same_v<Form, Any> || ...);

// Goes through all that decides what can be played; stops at the first that is not the same seen
// in the mirror. Names, texts, worth, invariants and cases decide nothing.
class Mirror {
 public:
  Mirror(const Rules& rules, const Symmetry& symmetry)
      : rules_(rules), board_(rules.board), symmetry_(symmetry) {}

  bool keepsAll() {
    if (symmetry_.exchange || rules_.hasEdges || rules_.boardRule.joinLeftRight ||
        rules_.boardRule.joinTopBottom || !turnDirections())
      return false;
    for (Cell cell = 0; cell < board_.size(); ++cell)
      if (board_.has(cell) != board_.has(symmetry_.image[cell])) return false;
    for (const PieceKind& kind : rules_.kinds) part(kind.reach);
    for (const ZoneRule& zone : rules_.zones) cells(zone.cells[0]), cells(zone.cells[1]);
    for (const MoveRule& move : rules_.moves) clauses(move.body);
    for (const AfterRule& after : rules_.afters) clauses(after.body);
    for (const ForbidRule& forbid : rules_.forbids) part(forbid.condition);
    for (const EndRule& end : rules_.ends) part(end.condition), part(end.measure);
    return same_;
  }

 private:
  using Cell = ninepegs::Cell;

  // Which direction each becomes: the same for all cells, or there is none.
  bool turnDirections() {
    const auto& all = board_.directions();
    auto becomes = [&](int from, int to) {
      for (Cell cell = 0; cell < board_.size(); ++cell) {
        if (!board_.has(cell)) continue;
        std::optional<Cell> next = board_.step(cell, from);
        std::optional<Cell> image = board_.step(symmetry_.image[cell], to);
        if (next.has_value() != image.has_value()) return false;
        if (next && symmetry_.image[*next] != *image) return false;
      }
      return true;
    };
    std::set<int> used;
    for (std::size_t from = 0; from < all.size(); ++from) {
      int found = -1;
      for (std::size_t to = 0; to < all.size() && found < 0; ++to)
        if (!used.contains(static_cast<int>(to)) &&
            becomes(static_cast<int>(from), static_cast<int>(to)))
          found = static_cast<int>(to);
      if (found < 0) return false;
      used.insert(found);
      turned_.push_back(found);
    }
    for (std::size_t one = 0; one < all.size(); ++one)
      if (turned_[static_cast<std::size_t>(board_.opposite(static_cast<int>(one)))] !=
          board_.opposite(turned_[one]))
        return false;
    return true;
  }

  void cells(const CellSet& set) {
    for (Cell cell = 0; cell < board_.size(); ++cell)
      same_ = same_ && set[cell] == set[symmetry_.image[cell]];
  }
  void constant(const Term& term) {
    for (int side = 0; side < 2; ++side) {
      std::optional<CellSet> set = rules_.constantSet(term, side);
      same_ = same_ && set.has_value();
      if (set) cells(*set);
    }
  }
  void ways(int index) {
    const Ways& ways = rules_.ways[static_cast<std::size_t>(index)];
    for (const std::vector<int>& directions : ways.directions) {
      std::set<int> before(directions.begin(), directions.end()), after;
      for (int one : directions) after.insert(turned_[static_cast<std::size_t>(one)]);
      same_ = same_ && before == after;
    }
  }
  void axes(int index) {
    const Ways& ways = rules_.ways[static_cast<std::size_t>(index)];
    std::set<int> axes(ways.axes.begin(), ways.axes.end());
    for (int axis : ways.axes) {
      int to = turned_[static_cast<std::size_t>(axis)];
      same_ = same_ && (axes.contains(to) || axes.contains(board_.opposite(to)));
    }
  }

  void part(const TermPtr& term) {
    if (term) this->term(*term);
  }
  void parts(const Term& whole) {
    eachPart(whole, [&](const Term& one) { term(one); });
  }
  void term(const Term& one) {
    if (!same_ || !met_.insert(&one).second) return;
    std::visit([&](const auto& form) { this->form(one, form); }, one.form);
  }
  template <class Form>
  void form(const Term& whole, const Form& form) {
    // What no mirror changes by itself: what stands where, and sums, sets and conditions of that.
    constexpr bool plain =
        oneOf<Form, Name, If, Was, AllCells, NoCells, Side, Empty, Occupied, Pieces, PiecesOfKind,
              Mark, Touched, SideReach, ReachOf, CellAsSet, Both, Either, Except, CellsWhere,
              NoCell, Remembered, Kind, KindOn, KindsWhere, Hand, Number, Variable, CellNumber,
              Property, KindProperty, Plies, Passes, HandOf, Count, MovesOf, Arithmetic, Extreme,
              Total, Not, And, Or, Any, None, Compare, Within, Inside, IsSide, Stuck,
              NobodyCanMove>;
    constexpr bool along = oneOf<Form, Ahead, Step, Slide, Bracketed, Spread, GroupsWhere>;
    constexpr bool fixed = oneOf<Form, Zone, Edge, Corner, Shade, Rows, Columns>;
    constexpr bool lines = oneOf<Form, Lines>;
    if constexpr (plain || along || lines) {
      if constexpr (along) ways(form.ways);
      if constexpr (lines) axes(form.ways);
      parts(whole);
    } else if constexpr (fixed) {
      constant(whole);
    } else if constexpr (std::is_same_v<Form, Use>) {
      parts(whole);
      part(form.body);
    } else if constexpr (std::is_same_v<Form, NamedCell>) {
      same_ = same_ && symmetry_.image[form.cell] == form.cell;
    } else {
      same_ = false;
    }
  }

  void clauses(const Clauses& list) {
    eachClause(list, [&](const Clause& one) {
      if (as<ShiftAll>(one) != nullptr) same_ = false;
      if (textParts(one) == nullptr) eachTerm(one, [&](const Term& own) { term(own); });
    });
  }

  const Rules& rules_;
  const Geometry& board_;
  const Symmetry& symmetry_;
  std::vector<int> turned_;  // by direction
  std::set<const Term*> met_;
  bool same_ = true;
};

}  // namespace

bool keeps(const Rules& rules, const Symmetry& symmetry) {
  return Mirror(rules, symmetry).keepsAll();
}

}  // namespace ninepegs::rules
