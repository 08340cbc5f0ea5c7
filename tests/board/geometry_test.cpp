#include "ninepegs/board/geometry.hpp"

#include <gtest/gtest.h>

#include <set>

namespace ninepegs {
namespace geometry_test {

TEST(Geometry, LabelsFollowTheOptions) {
  Geometry plain = Geometry::square({.columns = 7, .rows = 6});
  EXPECT_EQ(plain.label(0), "a1");
  EXPECT_EQ(plain.label(41), "g6");
  EXPECT_EQ(plain.drawnY(0), 5);
  Geometry top = Geometry::square({.columns = 8, .rows = 8, .rowsFromTop = true});
  EXPECT_EQ(top.label(0), "a1");
  EXPECT_EQ(top.drawnY(0), 0);
  EXPECT_EQ(top.rowNumber(0), 1);
  Geometry numbered = Geometry::square({.columns = 3, .rows = 3, .numbered = true});
  EXPECT_EQ(numbered.label(0), "1");
  EXPECT_EQ(numbered.drawnY(0), 0);
  EXPECT_EQ(numbered.rowNumber(0), 3);  // rows still count from below
  EXPECT_EQ(Geometry::columnName(26), "z");
  EXPECT_EQ(Geometry::columnName(27), "aa");
  for (const Geometry* board : {&plain, &top, &numbered})
    for (Cell cell = 0; cell < board->size(); ++cell) {
      EXPECT_EQ(board->find(board->label(cell)), cell);
      EXPECT_EQ(board->cellAt(board->drawnX(cell), board->drawnY(cell)), cell);
    }
  EXPECT_FALSE(plain.find("h1").has_value());
  EXPECT_FALSE(plain.find("").has_value());
  EXPECT_FALSE(numbered.find("0").has_value());
}

TEST(Geometry, NumberingCountsWhatIsLeft) {
  Geometry board = Geometry::square({.columns = 8, .rows = 8, .numbered = true});
  CellSet light;
  for (Cell cell = 0; cell < 64; ++cell)
    light[cell] = (board.columnNumber(cell) + board.rowNumber(cell)) % 2 == 1;
  board.leaveOut(light);
  EXPECT_EQ(board.all().count(), 32u);
  // Published numbering of English draughts: 1 to 4 in the top row, 29 to 32 in the lowest.
  EXPECT_EQ(board.drawnY(*board.find("4")), 0);
  EXPECT_EQ(board.drawnY(*board.find("29")), 7);
  int southwest = *board.direction("southwest");
  EXPECT_EQ(board.label(*board.step(*board.find("9"), southwest)), "13");
  EXPECT_EQ(board.directions()[*board.direction("north")].next[*board.find("9")], -1);
}

TEST(Geometry, StepsAgreeWithCoordinates) {
  for (bool left : {false, true}) {
    for (bool top : {false, true}) {
      Geometry board =
          Geometry::square({.columns = 5, .rows = 4, .joinLeftRight = left, .joinTopBottom = top});
      struct Way {
        const char* name;
        int dx, dy;
      };
      for (Way way : {Way{"north", 0, 1},
                      {"northeast", 1, 1},
                      {"east", 1, 0},
                      {"southeast", 1, -1},
                      {"south", 0, -1},
                      {"southwest", -1, -1},
                      {"west", -1, 0},
                      {"northwest", -1, 1}}) {
        for (Cell cell = 0; cell < board.size(); ++cell) {
          int x = cell % 5 + way.dx, y = cell / 5 + way.dy;
          if (left) x = (x + 5) % 5;
          if (top) y = (y + 4) % 4;
          int expected = x < 0 || x > 4 || y < 0 || y > 3 ? -1 : y * 5 + x;
          const Direction& direction = board.directions()[*board.direction(way.name)];
          EXPECT_EQ(direction.next[cell], expected) << way.name << " from " << board.label(cell);
        }
      }
    }
  }
}

TEST(Geometry, OppositeDirectionsUndoEachOther) {
  Geometry board = Geometry::square({.columns = 6, .rows = 5});
  for (int direction = 0; direction < 8; ++direction)
    for (Cell cell = 0; cell < board.size(); ++cell)
      if (std::optional<Cell> to = board.step(cell, direction)) {
        EXPECT_EQ(board.step(*to, board.opposite(direction)), cell);
      }
}

TEST(Geometry, CountsLinesAsTheFormulasSay) {
  auto lines = [](int columns, int rows, int length, const char* group) {
    Geometry board = Geometry::square({.columns = columns, .rows = rows});
    return board.lines(length, board.axes(board.directionGroup(group))).size();
  };
  EXPECT_EQ(lines(3, 3, 3, "any"), 8u);
  EXPECT_EQ(lines(7, 6, 4, "any"), 69u);  // the well-known number of connect four
  EXPECT_EQ(lines(15, 15, 5, "any"), 572u);
  for (int n = 2; n <= 5; ++n) {
    EXPECT_EQ(lines(7, 6, n, "orthogonal"), static_cast<std::size_t>((8 - n) * 6 + 7 * (7 - n)));
    EXPECT_EQ(lines(7, 6, n, "diagonal"), static_cast<std::size_t>(2 * (8 - n) * (7 - n)));
  }
  // On a ring every start of every row gives a line.
  Geometry ring = Geometry::square({.columns = 7, .rows = 6, .joinLeftRight = true});
  EXPECT_EQ(ring.lines(4, ring.axes(ring.directionGroup("east"))).size(), 42u);
  // A run may not bite its own tail: three in a row on a ring of three are one line, not three.
  Geometry small = Geometry::square({.columns = 3, .rows = 1, .joinLeftRight = true});
  EXPECT_EQ(small.lines(3, small.axes(small.directionGroup("east"))).size(), 1u);
  EXPECT_TRUE(small.lines(4, small.axes(small.directionGroup("east"))).empty());
}

TEST(Geometry, SymmetriesArePermutationsOfTheRightOrder) {
  struct Expectation {
    const char* name;
    int order;
  };
  Geometry board = Geometry::square({.columns = 4, .rows = 4});
  for (Expectation one : {Expectation{"reflection of columns", 2},
                          {"reflection of rows", 2},
                          {"half turn", 2},
                          {"quarter turn", 4},
                          {"transposition", 2}}) {
    std::vector<Symmetry> found = board.symmetries(one.name);
    ASSERT_EQ(found.size(), 1u) << one.name;
    const std::vector<Cell>& image = found[0].image;
    EXPECT_EQ(std::set<Cell>(image.begin(), image.end()).size(), 16u);
    std::vector<Cell> power = image;
    int order = 1;
    auto isIdentity = [&] {
      for (Cell cell = 0; cell < 16; ++cell)
        if (power[cell] != cell) return false;
      return true;
    };
    while (!isIdentity()) {
      for (Cell& cell : power) cell = image[cell];
      ++order;
    }
    EXPECT_EQ(order, one.order) << one.name;
    // Neighbours stay neighbours.
    for (Cell cell = 0; cell < 16; ++cell)
      for (Cell other = 0; other < 16; ++other) {
        auto apart = [&](Cell a, Cell b) {
          return std::abs(a % 4 - b % 4) + std::abs(a / 4 - b / 4);
        };
        EXPECT_EQ(apart(cell, other), apart(image[cell], image[other]));
      }
  }
  EXPECT_EQ(board.symmetries("transposition")[0].image[*board.find("b1")], *board.find("a2"));
  EXPECT_EQ(board.symmetries("all").size(), 5u);
  Geometry oblong = Geometry::square({.columns = 4, .rows = 3});
  EXPECT_TRUE(oblong.symmetries("quarter turn").empty());
  EXPECT_EQ(oblong.symmetries("half turn").size(), 1u);
  CellSet corner;
  corner.set(0);
  oblong.leaveOut(corner);
  EXPECT_TRUE(oblong.symmetries("half turn").empty());
}

}  // namespace geometry_test
}  // namespace ninepegs
