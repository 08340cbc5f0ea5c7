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

enum class Shape {
  square,   // columns x rows, and perhaps several levels of that
  hexagon,  // hexes; rows of N to 2N - 1 and back to N; a row's first cell is a
  rhombus,  // hexes, columns x rows; each row stands half a cell to the right of the one below
  points,   // points of a grid, joined by lines that are given
};

struct BoardShape {
  int columns = 0;
  int rows = 0;
  bool numbered = false;       // labels 1, 2, 3 ... in reading order instead of a1, b1 ...
  bool rowsFromTop = false;    // row 1 is drawn at the top
  bool joinLeftRight = false;  // a step over the left or right edge comes in at the other
  bool joinTopBottom = false;
  int levels = 1;  // of a square board; cells of several are a1.1, a1.2 ...
  Shape kind = Shape::square;
};

// A way to go one step. `north` is up as the board is drawn.
struct Direction {
  std::string name;
  int opposite = 0;        // which direction leads back
  std::vector<Cell> next;  // for each cell number the cell one step on, or -1
};

struct Symmetry {
  std::string name;
  std::vector<Cell> image;  // for each cell number where it goes
  bool exchange = false;    // the sides change places, too
};

// One row as it is drawn, from the left; cells that the board leaves out are among them.
struct PictureRow {
  int indent = 0;  // in half cells
  int level = 1;
  std::vector<Cell> cells;
};

// Where a cell's middle is drawn, in cells from the upper left corner.
struct DrawnAt {
  double x = 0, y = 0;
};

class Geometry {
 public:
  static Geometry square(const BoardShape& shape);
  static Geometry hexagon(int side);
  static Geometry rhombus(int columns, int rows);
  // Lines name the points they join, such as a1 d1 g1, in order. A point's letter and number say
  // where it stands. Labels must be of that form; see isPointLabel.
  static Geometry points(const std::vector<std::vector<std::string>>& lines);
  static bool isPointLabel(std::string_view label);

  // Takes cells away (`without` of a sheet) and numbers the labels anew.
  void leaveOut(const CellSet& cells);

  int columns() const { return shape_.columns; }
  int rows() const { return shape_.rows; }
  int levels() const { return shape_.levels; }
  const BoardShape& shape() const { return shape_; }
  bool isHexes() const { return shape_.kind == Shape::hexagon || shape_.kind == Shape::rhombus; }
  int size() const {  // cell numbers run below this
    return shape_.columns * shape_.rows * shape_.levels;
  }
  const CellSet& all() const { return all_; }
  bool has(Cell cell) const { return cell >= 0 && cell < size() && all_[cell]; }
  CellSet edge() const;    // cells at the rim
  CellSet corner() const;  // cells where two sides of the rim meet

  // Labels. `rowName` and `columnName` name what the cell stands in; rows count from 1.
  std::string label(Cell cell) const { return labels_[cell]; }
  std::optional<Cell> find(std::string_view label) const;
  std::vector<std::string> labels() const;  // of all cells, in order
  int rowNumber(Cell cell) const;
  int columnNumber(Cell cell) const;
  int levelNumber(Cell cell) const { return cell / (shape_.columns * shape_.rows) + 1; }
  static std::string columnName(int number);
  std::optional<int> findColumn(std::string_view name) const;

  // As drawn: x counts from the left, y from the top, both from 0; of a board of hexes, x is the
  // column of its grid.
  int drawnX(Cell cell) const { return cell % shape_.columns; }
  int drawnY(Cell cell) const;
  Cell cellAt(int x, int y, int level = 1) const;
  const std::vector<PictureRow>& picture() const { return picture_; }
  DrawnAt drawnAt(Cell cell) const;
  DrawnAt drawnSize() const;  // the lower right corner
  // The cell so far to the right and up, round joined edges too.
  std::optional<Cell> offset(Cell cell, int dx, int dy) const;

  const std::vector<Direction>& directions() const { return directions_; }
  std::optional<int> direction(std::string_view name) const;
  // A named group of directions: orthogonal, diagonal, any, or one direction. Empty: no such group.
  std::vector<int> directionGroup(std::string_view name) const;
  // Names of groups of directions and of single directions, of any board.
  static std::vector<std::string> directionGroupNames();
  // One direction of each opposite pair: the axes along which lines run.
  std::vector<int> axes(const std::vector<int>& directions) const;
  int opposite(int direction) const { return directions_[direction].opposite; }
  // The direction so many places further on clockwise, in the plane; -1 if there is none.
  int turned(int direction, int places) const;
  std::optional<Cell> step(Cell cell, int direction) const;
  CellSet stepped(const CellSet& cells, int direction) const;

  // Every straight run of `length` different cells, each once.
  std::vector<std::vector<Cell>> lines(int length, const std::vector<int>& axes) const;
  // The length of the longest of them.
  int longestLine(const std::vector<int>& axes) const;

  // The symmetries that a name stands for; none if the board has no such symmetry.
  std::vector<Symmetry> symmetries(std::string_view name) const;
  static std::vector<std::string> symmetryNames();
  // Every cell stays.
  Symmetry identity() const;

 private:
  void finish();  // what follows from shape_, all_ and joins_
  void makeLabels();
  void makePicture();
  void makeDirections();
  void makeGridDirections();
  void makePointDirections();
  CellSet onRims(int fewest) const;
  int sidesAt(Cell cell) const;
  CellSet onSides(int fewest) const;

  BoardShape shape_;
  CellSet all_;
  std::vector<std::vector<Cell>> joins_;  // the lines of a board of points
  std::vector<std::string> labels_;
  std::vector<Direction> directions_;
  std::vector<PictureRow> picture_;
};

}  // namespace ninepegs
