// The shape of a board: its cells, their labels, directions, straight lines and symmetries.
// Computed once for a sheet; immutable afterwards and safe to share between threads.
//
//   Geometry board = Geometry::square({.columns = 7, .rows = 6});
//   std::optional<Cell> cell = board.find("d1");
//   std::optional<Cell> up = board.step(*cell, board.direction("north").value());
#pragma once

#include <bitset>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/base/limits.hpp"

namespace ninepegs {

// A cell is its bit number. Numbers follow the labels: a1 b1 c1 ... a2 ..., or 1 2 3 ... in reading
// order. Cells that the board leaves out keep their number, so that a step is one shift everywhere.
using Cell = int;
using CellSet = std::bitset<limits::cells>;

struct SquareShape {
  int columns = 0;
  int rows = 0;
  bool numbered = false;       // labels 1, 2, 3 ... in reading order instead of a1, b1 ...
  bool rowsFromTop = false;    // row 1 is drawn at the top
  bool joinLeftRight = false;  // a step over the left or right edge comes in at the other
  bool joinTopBottom = false;
};

// A way to go one step. `north` is up as the board is drawn.
struct Direction {
  std::string name;
  int dx = 0, dy = 0;      // to the right and up, as drawn
  std::vector<Cell> next;  // for each cell number the cell one step on, or -1
};

struct Symmetry {
  std::string name;
  std::vector<Cell> image;  // for each cell number where it goes
};

class Geometry {
 public:
  static Geometry square(const SquareShape& shape);

  // Takes cells away (`without` of a sheet) and numbers the labels anew.
  void leaveOut(const CellSet& cells);

  int columns() const { return shape_.columns; }
  int rows() const { return shape_.rows; }
  const SquareShape& shape() const { return shape_; }
  int size() const { return shape_.columns * shape_.rows; }  // cell numbers run below this
  const CellSet& all() const { return all_; }
  bool has(Cell cell) const { return cell >= 0 && cell < size() && all_[cell]; }

  // Labels. `rowName` and `columnName` name what the cell stands in; rows count from 1.
  std::string label(Cell cell) const { return labels_[cell]; }
  std::optional<Cell> find(std::string_view label) const;
  std::vector<std::string> labels() const;  // of all cells, in order
  int rowNumber(Cell cell) const;
  int columnNumber(Cell cell) const { return drawnX(cell) + 1; }
  static std::string columnName(int number);
  std::optional<int> findColumn(std::string_view name) const;

  // As drawn: x counts from the left, y from the top, both from 0.
  int drawnX(Cell cell) const { return cell % shape_.columns; }
  int drawnY(Cell cell) const;
  Cell cellAt(int x, int y) const;

  const std::vector<Direction>& directions() const { return directions_; }
  std::optional<int> direction(std::string_view name) const;
  // A named group of directions: orthogonal, diagonal, any, or one direction. Empty: no such group.
  std::vector<int> directionGroup(std::string_view name) const;
  static std::vector<std::string> directionGroupNames();
  // One direction of each opposite pair: the axes along which lines run.
  std::vector<int> axes(const std::vector<int>& directions) const;
  int opposite(int direction) const { return (direction + 4) % 8; }
  std::optional<Cell> step(Cell cell, int direction) const;
  CellSet stepped(const CellSet& cells, int direction) const;

  // Every straight run of `length` different cells, each once.
  std::vector<std::vector<Cell>> lines(int length, const std::vector<int>& axes) const;

  // The symmetries that a name stands for; none if the board has no such symmetry.
  std::vector<Symmetry> symmetries(std::string_view name) const;
  static std::vector<std::string> symmetryNames();

 private:
  void makeLabels();
  void makeDirections();

  SquareShape shape_;
  CellSet all_;
  std::vector<std::string> labels_;
  std::vector<Direction> directions_;
};

}  // namespace ninepegs
