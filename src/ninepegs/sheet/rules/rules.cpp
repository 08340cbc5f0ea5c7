// What rules know of names, directions and constant sets.
#include "ninepegs/sheet/rules/rules.hpp"

#include <initializer_list>

namespace ninepegs::rules {

const Symbol* Rules::find(const std::string& name) const {
  auto it = symbols.find(name);
  return it == symbols.end() ? nullptr : &it->second;
}

int Rules::side(const std::string& name) const {
  const Symbol* symbol = find(name);
  return symbol != nullptr && symbol->kind == SymbolKind::side ? symbol->index : -1;
}

int Rules::kind(const std::string& name) const {
  const Symbol* symbol = find(name);
  return symbol != nullptr && symbol->kind == SymbolKind::kind ? symbol->index : -1;
}

std::vector<int> Rules::kindsOf(Noun noun) const {
  return noun.group ? groups[noun.index].kinds : std::vector<int>{noun.index};
}

const std::string& Rules::nameOf(Noun noun) const {
  return noun.group ? groups[noun.index].name : kinds[noun.index].name;
}

std::string Rules::nameOf(const Compared& one) const {
  switch (one.what) {
    case Compared::What::pieces:
      return "pieces";
    case Compared::What::turn:
      return "turn";
    case Compared::What::mark:
      return marks[one.index].name;
    case Compared::What::number:
      return numbers[one.index].name;
    case Compared::What::remembered:
      return remembered[one.index].name;
    case Compared::What::move:
      return moves[one.index].name;
  }
  return "";
}

std::vector<int> directionsOf(const Geometry& board, int forward, const std::string& word) {
  auto around = [&](int from, std::initializer_list<int> places) {
    std::vector<int> out;
    for (int place : places)
      if (int direction = board.turned(from, place); direction >= 0) out.push_back(direction);
    return out;
  };
  int back = forward < 0 ? -1 : board.opposite(forward);
  // Between two neighbours of a hex there is no diagonal.
  bool square = !board.isHexes();
  if (word == "forward") return around(forward, {0});
  if (word == "backward") return around(back, {0});
  if (word == "forward-diagonal") return square ? around(forward, {-1, 1}) : std::vector<int>{};
  if (word == "backward-diagonal") return square ? around(back, {-1, 1}) : std::vector<int>{};
  if (word == "forward-any") return around(forward, {-1, 0, 1});
  return board.directionGroup(word);
}

namespace {

template <class Number>
CellSet cellsWhere(const Geometry& board, Number number, long long first, long long last,
                   Parity parity) {
  CellSet out;
  for (ninepegs::Cell cell = 0; cell < board.size(); ++cell) {
    if (!board.has(cell)) continue;
    int n = number(cell);
    out[cell] = parity == Parity::odd    ? n % 2 == 1
                : parity == Parity::even ? n % 2 == 0
                                         : n >= first && n <= last;
  }
  return out;
}

class Constant {
 public:
  using Set = std::optional<CellSet>;
  Constant(const Rules& rules, int side) : rules_(rules), board_(rules.board), side_(side) {}

  Set of(const TermPtr& term) const { return term ? std::visit(*this, term->form) : std::nullopt; }

  template <class Other>
  Set operator()(const Other&) const {
    return std::nullopt;
  }
  Set operator()(const AllCells&) const { return board_.all(); }
  Set operator()(const Edge&) const { return board_.edge(); }
  Set operator()(const Corner&) const { return board_.corner(); }
  Set operator()(const CellAsSet& form) const {
    const NamedCell* cell = as<NamedCell>(*form.cell);
    if (cell == nullptr) return std::nullopt;
    CellSet out;
    out.set(cell->cell);
    return out;
  }
  Set operator()(const Zone& form) const {
    int of = sideOf(form.whose, side_);
    return rules_.zones[form.zone].cells[of < 0 ? side_ : of];
  }
  Set operator()(const Shade& form) const {
    CellSet out;
    for (ninepegs::Cell cell = 0; cell < board_.size(); ++cell) {
      bool even = (board_.columnNumber(cell) + board_.rowNumber(cell)) % 2 == 0;
      out[cell] = board_.has(cell) && even == form.dark;
    }
    return out;
  }
  Set operator()(const Rows& form) const {
    auto row = [&](ninepegs::Cell cell) { return board_.rowNumber(cell); };
    return cellsWhere(board_, row, form.first, form.last, form.parity);
  }
  Set operator()(const Columns& form) const {
    auto column = [&](ninepegs::Cell cell) { return board_.columnNumber(cell); };
    return cellsWhere(board_, column, form.first, form.last, form.parity);
  }
  Set operator()(const Both& form) const {
    return joined(form.left, form.right, [](auto& a, auto& b) { return a & b; });
  }
  Set operator()(const Either& form) const {
    return joined(form.left, form.right, [](auto& a, auto& b) { return a | b; });
  }
  Set operator()(const Except& form) const {
    return joined(form.left, form.right, [](auto& a, auto& b) { return a & ~b; });
  }
  Set operator()(const Ahead& form) const { return stepped(form.of, form.ways); }
  Set operator()(const Step& form) const { return stepped(form.from, form.ways); }

 private:
  template <class Join>
  Set joined(const TermPtr& left, const TermPtr& right, Join join) const {
    Set a = of(left), b = of(right);
    return a && b ? Set(join(*a, *b)) : std::nullopt;
  }
  Set stepped(const TermPtr& from, int ways) const {
    Set cells = of(from);
    if (!cells) return std::nullopt;
    CellSet out;
    for (int direction : rules_.ways[ways].directions[side_])
      out |= board_.stepped(*cells, direction);
    return out;
  }

  const Rules& rules_;
  const Geometry& board_;
  int side_;
};

}  // namespace

std::optional<CellSet> Rules::constantSet(const Term& term, int side) const {
  return std::visit(Constant(*this, side), term.form);
}

std::string writtenName(const SymmetryRule& symmetry) {
  if (!symmetry.exchange) return symmetry.name;
  return symmetry.name.empty() ? "exchange of sides" : "exchange of sides and " + symmetry.name;
}

std::vector<Symmetry> symmetriesOf(const SymmetryRule& symmetry, const Geometry& board) {
  std::vector<Symmetry> out;
  if (symmetry.name.empty())
    out.push_back(board.identity());
  else
    out = board.symmetries(symmetry.name);
  for (Symmetry& one : out) {
    one.exchange = symmetry.exchange;
    one.name = writtenName({one.name, one.exchange, false, {}});
  }
  return out;
}

std::vector<std::string> Rules::besideNotation() const {
  std::vector<std::string> out;
  auto add = [&](const auto& list, int field) {
    for (std::size_t i = 0; i < list.size(); ++i)
      if (static_cast<int>(i) != field) out.push_back("\"" + list[i].name + "\"");
  };
  add(marks, notation->mark);
  add(numbers, notation->clock);
  add(remembered, notation->target);
  if (hasHands) out.push_back("hands");
  if (readsPasses) out.push_back("passes");
  return out;
}

}  // namespace ninepegs::rules
