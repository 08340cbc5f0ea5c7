// Shapes, labels, and where cells are drawn.
#include "ninepegs/board/geometry.hpp"

#include <algorithm>
#include <cmath>
#include <cstdlib>

namespace ninepegs {
namespace {

// The column of letters, from 1, and the row of a label such as d7; {0, 0} if it is none.
std::pair<int, int> gridPlace(std::string_view label) {
  std::size_t letters = 0;
  int column = 0, row = 0;
  while (letters < label.size() && label[letters] >= 'a' && label[letters] <= 'z' && column < 1000)
    column = column * 26 + (label[letters++] - 'a' + 1);
  for (std::size_t i = letters; i < label.size(); ++i) {
    if (label[i] < '0' || label[i] > '9' || row > 1000) return {0, 0};
    row = row * 10 + (label[i] - '0');
  }
  if (letters == 0 || letters == label.size() || label[letters] == '0') return {0, 0};
  return {column, row};
}

// Rows of hexes stand closer than their cells are wide: the height of an equilateral triangle.
const double hexRow = std::sqrt(3.0) / 2;

}  // namespace

Geometry Geometry::square(const BoardShape& shape) {
  Geometry board;
  board.shape_ = shape;
  for (int cell = 0; cell < board.size(); ++cell) board.all_.set(cell);
  board.finish();
  return board;
}

// Stored so that a step along each direction is the same shift everywhere: the lower rows begin
// further to the right in memory than as they are labelled.
Geometry Geometry::hexagon(int side) {
  Geometry board;
  board.shape_.kind = Shape::hexagon;
  board.shape_.columns = board.shape_.rows = 2 * side - 1;
  for (int row = 0; row < 2 * side - 1; ++row) {
    int from = std::max(0, side - 1 - row), length = 2 * side - 1 - std::abs(side - 1 - row);
    for (int i = 0; i < length; ++i) board.all_.set(row * board.shape_.columns + from + i);
  }
  board.finish();
  return board;
}

Geometry Geometry::rhombus(int columns, int rows) {
  BoardShape shape;
  shape.columns = columns;
  shape.rows = rows;
  shape.kind = Shape::rhombus;
  return square(shape);
}

bool Geometry::isPointLabel(std::string_view label) {
  return gridPlace(label).first > 0;
}

Geometry Geometry::points(const std::vector<std::vector<std::string>>& lines) {
  Geometry board;
  board.shape_.kind = Shape::points;
  for (const auto& line : lines) {
    for (const std::string& label : line) {
      auto [column, row] = gridPlace(label);
      board.shape_.columns = std::max(board.shape_.columns, column);
      board.shape_.rows = std::max(board.shape_.rows, row);
    }
  }
  if (board.size() > limits::cells) return board;  // the caller sees it by the size
  for (const auto& line : lines) {
    std::vector<Cell>& join = board.joins_.emplace_back();
    for (const std::string& label : line) {
      auto [column, row] = gridPlace(label);
      join.push_back((row - 1) * board.shape_.columns + column - 1);
      board.all_.set(join.back());
    }
  }
  board.finish();
  return board;
}

void Geometry::leaveOut(const CellSet& cells) {
  all_ &= ~cells;
  finish();
}

void Geometry::finish() {
  makeLabels();
  makePicture();
  makeDirections();
}

int Geometry::drawnY(Cell cell) const {
  int row = cell / shape_.columns % shape_.rows;
  return shape_.numbered || shape_.rowsFromTop ? row : shape_.rows - 1 - row;
}

Cell Geometry::cellAt(int x, int y, int level) const {
  int row = shape_.numbered || shape_.rowsFromTop ? y : shape_.rows - 1 - y;
  return ((level - 1) * shape_.rows + row) * shape_.columns + x;
}

int Geometry::rowNumber(Cell cell) const {
  int y = drawnY(cell);
  return shape_.rowsFromTop ? y + 1 : shape_.rows - y;
}

int Geometry::columnNumber(Cell cell) const {
  int missing = shape_.kind == Shape::hexagon ? std::max(0, shape_.rows / 2 + 1 - rowNumber(cell))
                                              : 0;  // that stand before a row's first cell
  return drawnX(cell) + 1 - missing;
}

void Geometry::makeLabels() {
  labels_.assign(size(), "");
  int number = 0;
  for (Cell cell = 0; cell < size(); ++cell) {
    if (!all_[cell]) continue;
    labels_[cell] = shape_.numbered
                        ? std::to_string(++number)
                        : columnName(columnNumber(cell)) + std::to_string(rowNumber(cell));
    if (shape_.levels > 1 && !shape_.numbered)
      labels_[cell] += "." + std::to_string(levelNumber(cell));
  }
}

void Geometry::makePicture() {
  picture_.clear();
  for (int level = 1; level <= shape_.levels; ++level) {
    for (int y = 0; y < shape_.rows; ++y) {
      PictureRow row;
      row.level = level;
      int length = shape_.columns, from = 0;
      if (shape_.kind == Shape::hexagon) {
        int away = std::abs(y - shape_.rows / 2);  // from the widest row
        length -= away;
        row.indent = away;
        from = std::max(0, y - shape_.rows / 2);
      } else if (shape_.kind == Shape::rhombus) {
        row.indent = shape_.rows - 1 - y;
      }
      for (int x = from; x < from + length; ++x) row.cells.push_back(cellAt(x, y, level));
      picture_.push_back(std::move(row));
    }
  }
}

DrawnAt Geometry::drawnAt(Cell cell) const {
  int y = drawnY(cell);
  double x = columnNumber(cell) - 0.5 + picture_[y].indent / 2.0;
  x += (levelNumber(cell) - 1) * (shape_.columns + 1);
  return {x, isHexes() ? 0.5 / hexRow + y * hexRow : y + 0.5};
}

DrawnAt Geometry::drawnSize() const {
  double x = 0, y = 0;
  for (Cell cell = 0; cell < size(); ++cell) {
    if (shape_.kind == Shape::hexagon && labels_[cell].empty()) continue;
    DrawnAt at = drawnAt(cell);
    x = std::max(x, at.x + 0.5);
    y = std::max(y, at.y + (isHexes() ? 0.5 / hexRow : 0.5));
  }
  return {x, y};
}

std::optional<Cell> Geometry::offset(Cell cell, int dx, int dy) const {
  int x = drawnX(cell) + dx, y = drawnY(cell) - dy;
  if (shape_.joinLeftRight) x = ((x % columns()) + columns()) % columns();
  if (shape_.joinTopBottom) y = ((y % rows()) + rows()) % rows();
  if (x < 0 || y < 0 || x >= columns() || y >= rows()) return std::nullopt;
  Cell to = cellAt(x, y, levelNumber(cell));
  return has(to) ? std::optional<Cell>(to) : std::nullopt;
}

// Cells of a hexagon that lie on so many of its six rims or more.
CellSet Geometry::onRims(int fewest) const {
  CellSet out;
  int middle = shape_.rows / 2;
  for (Cell cell = 0; cell < size(); ++cell) {
    if (!all_[cell]) continue;
    int row = rowNumber(cell) - 1, column = columnNumber(cell) - 1;
    int last = shape_.columns - 1 - std::abs(row - middle);
    int rims = (row == 0 || row == shape_.rows - 1 ? 1 : 0) + (column == 0 ? 1 : 0) +
               (column == last ? 1 : 0);
    // The corners at the ends of the widest row lie on two rims, too.
    if (row == middle && (column == 0 || column == last)) ++rims;
    out[cell] = rims >= fewest;
  }
  return out;
}

// On how many sides of the board a cell lies: of columns, of rows, and of levels if there are more
// than one.
int Geometry::sidesAt(Cell cell) const {
  auto atEnd = [](int place, int least, int greatest) {
    return place == least || place == greatest;
  };
  int out = atEnd(drawnX(cell), 0, columns() - 1) + atEnd(drawnY(cell), 0, rows() - 1);
  return levels() == 1 ? out : out + atEnd(levelNumber(cell), 1, levels());
}

CellSet Geometry::onSides(int fewest) const {
  CellSet out;
  for (Cell cell = 0; cell < size(); ++cell) out[cell] = all_[cell] && sidesAt(cell) >= fewest;
  return out;
}

CellSet Geometry::edge() const {
  return shape_.kind == Shape::hexagon ? onRims(1) : onSides(1);
}

CellSet Geometry::corner() const {
  return shape_.kind == Shape::hexagon ? onRims(2) : onSides(levels() == 1 ? 2 : 3);
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
  for (Cell cell = 0; cell < size(); ++cell) {
    const std::string& own = labels_[cell];  // most differ in their ends, which is quickly seen
    if (own.size() == label.size() && own.back() == label.back() && own.front() == label.front() &&
        own == label)
      return cell;
  }
  return std::nullopt;
}

std::vector<std::string> Geometry::labels() const {
  std::vector<std::string> out;
  for (Cell cell = 0; cell < size(); ++cell)
    if (all_[cell]) out.push_back(labels_[cell]);
  return out;
}

}  // namespace ninepegs
