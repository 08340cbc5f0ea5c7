// What a checked sheet knows of names, directions and constant sets.
#include <algorithm>
#include <cstdlib>

#include "ninepegs/sheet/rules/checker.hpp"

namespace ninepegs::sheet {

const Symbol* Checked::find(const std::string& name) const {
  auto it = symbols.find(name);
  return it == symbols.end() ? nullptr : &it->second;
}

int Checked::instanceOf(int define, const std::vector<Type>& types, Expr body) {
  for (std::size_t i = 0; i < instances.size(); ++i)
    if (instances[i].define == define && instances[i].types == types) return static_cast<int>(i);
  instances.push_back({define, types, std::move(body)});
  return static_cast<int>(instances.size()) - 1;
}

int Checked::side(const std::string& name) const {
  const Symbol* symbol = find(name);
  return symbol != nullptr && symbol->kind == SymbolKind::side ? symbol->index : -1;
}

int Checked::kind(const std::string& name) const {
  const Symbol* symbol = find(name);
  return symbol != nullptr && symbol->kind == SymbolKind::kind ? symbol->index : -1;
}

std::vector<int> Checked::groupKinds(const std::string& name) const {
  const Symbol* symbol = find(name);
  if (symbol == nullptr) return {};
  if (symbol->kind == SymbolKind::kind) return {symbol->index};
  std::vector<int> kinds;
  if (symbol->kind == SymbolKind::group)
    for (const Name& member : tree.groups[symbol->index].members)
      kinds.push_back(kind(member.text));
  return kinds;
}

std::vector<int> Checked::directions(const std::string& group, int side) const {
  int forward = facing[side];
  auto around = [&](int from, std::initializer_list<int> places) {
    std::vector<int> out;
    for (int place : places)
      if (int direction = board.turned(from, place); direction >= 0) out.push_back(direction);
    return out;
  };
  int back = forward < 0 ? -1 : board.opposite(forward);
  // Between two neighbours of a hex there is no diagonal.
  bool square = !board.isHexes();
  if (group == "forward") return around(forward, {0});
  if (group == "backward") return around(back, {0});
  if (group == "forward-diagonal") return square ? around(forward, {-1, 1}) : std::vector<int>{};
  if (group == "backward-diagonal") return square ? around(back, {-1, 1}) : std::vector<int>{};
  if (group == "forward-any") return around(forward, {-1, 0, 1});
  return board.directionGroup(group);
}

std::optional<CellSet> Checked::constantSet(const Expr& expr, int side) const {
  auto arg = [&](std::size_t i) { return constantSet(expr.args[i], side); };
  switch (expr.kind) {
    case ExprKind::name: {
      CellSet out;
      const std::string& word = expr.word;
      if (word == "all") return board.all();
      const Symbol* symbol = find(word);
      if (symbol == nullptr) return std::nullopt;
      if (symbol->kind == SymbolKind::cell) {
        out.set(symbol->index);
        return out;
      }
      if (symbol->kind == SymbolKind::zone) return zones[symbol->index][side];
      bool edge = word == "edge", corner = word == "corner";
      bool dark = word == "dark", light = word == "light";
      if (!edge && !corner && !dark && !light) return std::nullopt;
      if (edge) return board.edge();
      if (corner) return board.corner();
      for (Cell cell = 0; cell < board.size(); ++cell) {
        bool even = (board.columnNumber(cell) + board.rowNumber(cell)) % 2 == 0;
        out[cell] = board.has(cell) && even == dark;
      }
      return out;
    }
    case ExprKind::rows:
    case ExprKind::columns: {
      CellSet out;
      for (Cell cell = 0; cell < board.size(); ++cell) {
        if (!board.has(cell)) continue;
        int number = expr.kind == ExprKind::rows ? board.rowNumber(cell) : board.columnNumber(cell);
        out[cell] = expr.word == "odd"    ? number % 2 == 1
                    : expr.word == "even" ? number % 2 == 0
                                          : number >= expr.first && number <= expr.second;
      }
      return out;
    }
    case ExprKind::own: {
      if (expr.args[0].kind != ExprKind::name) return std::nullopt;
      return constantSet(expr.args[0], expr.word == "my" ? side : 1 - side);
    }
    case ExprKind::ofName: {
      if (expr.args[1].kind != ExprKind::name) return std::nullopt;
      int of = this->side(expr.args[1].word);
      if (of < 0) return std::nullopt;
      return constantSet(expr.args[0], of);
    }
    case ExprKind::on:
    case ExprKind::either:
    case ExprKind::except: {
      std::optional<CellSet> a = arg(0), b = arg(1);
      if (!a || !b) return std::nullopt;
      if (expr.kind == ExprKind::on) return *a & *b;
      if (expr.kind == ExprKind::either) return *a | *b;
      return *a & ~*b;
    }
    case ExprKind::ahead:
    case ExprKind::step: {
      if (expr.args.empty()) return std::nullopt;
      std::optional<CellSet> a = arg(0);
      if (!a) return std::nullopt;
      CellSet out;
      for (int direction : directions(expr.word, side)) out |= board.stepped(*a, direction);
      return out;
    }
    default:
      return std::nullopt;
  }
}

}  // namespace ninepegs::sheet
