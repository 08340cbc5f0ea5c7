#include "ninepegs/board/geometry.hpp"

#include <algorithm>
#include <set>

namespace ninepegs {
namespace {

struct Compass {
  const char* name;
  int dx, dy;
};

// Clockwise; the opposite direction stands four further on.
constexpr Compass compass[] = {{"north", 0, 1},      {"northeast", 1, 1}, {"east", 1, 0},
                               {"southeast", 1, -1}, {"south", 0, -1},    {"southwest", -1, -1},
                               {"west", -1, 0},      {"northwest", -1, 1}};

}  // namespace

Geometry Geometry::square(const SquareShape& shape) {
  Geometry board;
  board.shape_ = shape;
  for (int cell = 0; cell < board.size(); ++cell) board.all_.set(cell);
  board.makeLabels();
  board.makeDirections();
  return board;
}

void Geometry::leaveOut(const CellSet& cells) {
  all_ &= ~cells;
  makeLabels();
  makeDirections();
}

int Geometry::drawnY(Cell cell) const {
  int row = cell / shape_.columns;
  return shape_.numbered || shape_.rowsFromTop ? row : shape_.rows - 1 - row;
}

Cell Geometry::cellAt(int x, int y) const {
  int row = shape_.numbered || shape_.rowsFromTop ? y : shape_.rows - 1 - y;
  return row * shape_.columns + x;
}

int Geometry::rowNumber(Cell cell) const {
  int y = drawnY(cell);
  return shape_.rowsFromTop ? y + 1 : shape_.rows - y;
}

void Geometry::makeLabels() {
  labels_.assign(size(), "");
  int number = 0;
  for (Cell cell = 0; cell < size(); ++cell) {
    if (!all_[cell]) continue;
    labels_[cell] = shape_.numbered
                        ? std::to_string(++number)
                        : columnName(columnNumber(cell)) + std::to_string(rowNumber(cell));
  }
}

void Geometry::makeDirections() {
  directions_.clear();
  for (const Compass& way : compass) {
    Direction direction{way.name, way.dx, way.dy, std::vector<Cell>(size(), -1)};
    for (Cell cell = 0; cell < size(); ++cell) {
      if (!all_[cell]) continue;
      int x = drawnX(cell) + way.dx, y = drawnY(cell) - way.dy;
      if (shape_.joinLeftRight) x = (x + shape_.columns) % shape_.columns;
      if (shape_.joinTopBottom) y = (y + shape_.rows) % shape_.rows;
      if (x < 0 || y < 0 || x >= shape_.columns || y >= shape_.rows) continue;
      Cell to = cellAt(x, y);
      if (all_[to] && to != cell) direction.next[cell] = to;
    }
    directions_.push_back(std::move(direction));
  }
}

std::string Geometry::columnName(int number) {
  std::string name;
  for (; number > 0; number = (number - 1) / 26)
    name.insert(name.begin(), static_cast<char>('a' + (number - 1) % 26));
  return name;
}

std::optional<int> Geometry::findColumn(std::string_view name) const {
  for (int column = 1; column <= columns(); ++column)
    if (columnName(column) == name) return column;
  return std::nullopt;
}

std::optional<Cell> Geometry::find(std::string_view label) const {
  if (label.empty()) return std::nullopt;
  for (Cell cell = 0; cell < size(); ++cell)
    if (labels_[cell] == label) return cell;
  return std::nullopt;
}

std::vector<std::string> Geometry::labels() const {
  std::vector<std::string> out;
  for (Cell cell = 0; cell < size(); ++cell)
    if (all_[cell]) out.push_back(labels_[cell]);
  return out;
}

std::optional<int> Geometry::direction(std::string_view name) const {
  for (std::size_t i = 0; i < directions_.size(); ++i)
    if (directions_[i].name == name) return static_cast<int>(i);
  return std::nullopt;
}

std::vector<int> Geometry::directionGroup(std::string_view name) const {
  if (name == "any") return {0, 1, 2, 3, 4, 5, 6, 7};
  if (name == "orthogonal") return {0, 2, 4, 6};
  if (name == "diagonal") return {1, 3, 5, 7};
  if (std::optional<int> one = direction(name)) return {*one};
  return {};
}

std::vector<std::string> Geometry::directionGroupNames() {
  std::vector<std::string> names = {"any", "orthogonal", "diagonal"};
  for (const Compass& way : compass) names.emplace_back(way.name);
  return names;
}

std::vector<int> Geometry::axes(const std::vector<int>& directions) const {
  std::set<int> axes;
  for (int direction : directions) axes.insert(std::min(direction, opposite(direction)));
  return {axes.begin(), axes.end()};
}

std::optional<Cell> Geometry::step(Cell cell, int direction) const {
  Cell to = directions_[direction].next[cell];
  return to < 0 ? std::nullopt : std::optional<Cell>(to);
}

CellSet Geometry::stepped(const CellSet& cells, int direction) const {
  CellSet out;
  for (Cell cell = 0; cell < size(); ++cell)
    if (cells[cell] && directions_[direction].next[cell] >= 0)
      out.set(directions_[direction].next[cell]);
  return out;
}

std::vector<std::vector<Cell>> Geometry::lines(int length, const std::vector<int>& axes) const {
  std::vector<std::vector<Cell>> out;
  std::set<std::vector<Cell>> seen;
  for (int axis : axes) {
    for (Cell start = 0; start < size(); ++start) {
      if (!all_[start]) continue;
      std::vector<Cell> run = {start};
      while (static_cast<int>(run.size()) < length) {
        Cell to = directions_[axis].next[run.back()];
        if (to < 0 || std::find(run.begin(), run.end(), to) != run.end()) break;
        run.push_back(to);
      }
      if (static_cast<int>(run.size()) < length) continue;
      std::vector<Cell> sorted = run;
      std::sort(sorted.begin(), sorted.end());
      if (seen.insert(sorted).second) out.push_back(std::move(run));
    }
  }
  return out;
}

std::vector<std::string> Geometry::symmetryNames() {
  return {"reflection of columns", "reflection of rows", "half turn",
          "quarter turn",          "transposition",      "all"};
}

std::vector<Symmetry> Geometry::symmetries(std::string_view name) const {
  std::vector<Symmetry> out;
  int lastX = columns() - 1, lastY = rows() - 1;
  bool even = columns() == rows();
  // Adds the map of drawn places, if it maps the board onto itself.
  auto add = [&](const char* title, bool fits, auto&& map) {
    if (!fits) return;
    Symmetry symmetry{title, std::vector<Cell>(size(), -1)};
    for (Cell cell = 0; cell < size(); ++cell) {
      auto [x, y] = map(drawnX(cell), drawnY(cell));
      symmetry.image[cell] = cellAt(x, y);
      if (all_[cell] != all_[symmetry.image[cell]]) return;
    }
    out.push_back(std::move(symmetry));
  };
  using Point = std::pair<int, int>;
  auto wants = [&](const char* title) { return name == title || name == "all"; };
  if (wants("reflection of columns"))
    add("reflection of columns", true, [&](int x, int y) { return Point{lastX - x, y}; });
  if (wants("reflection of rows"))
    add("reflection of rows", true, [&](int x, int y) { return Point{x, lastY - y}; });
  if (wants("half turn"))
    add("half turn", true, [&](int x, int y) { return Point{lastX - x, lastY - y}; });
  if (wants("quarter turn"))
    add("quarter turn", even, [&](int x, int y) { return Point{lastY - y, x}; });
  if (wants("transposition")) {
    // Columns and rows change places: the cell in column 1, row 1 stays.
    bool fromTop = shape_.numbered || shape_.rowsFromTop;
    add("transposition", even, [&](int x, int y) {
      return fromTop ? Point{y, x} : Point{lastY - y, lastX - x};
    });
  }
  return out;
}

}  // namespace ninepegs
