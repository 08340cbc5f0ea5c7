// Fills along directions: four at once, one by one, and cell by cell.
#include "ninepegs/sheet/machine/fills.hpp"

#include <gtest/gtest.h>

#include <vector>

#include "ninepegs/base/processor.hpp"
#include "ninepegs/base/random.hpp"

namespace ninepegs::sheet {
namespace fills_test {

// A board of so many columns and rows, by hand.
struct Board {
  int columns, rows;
  int next(int cell, int dx, int dy) const {
    int x = cell % columns + dx, y = cell / columns + dy;
    return x < 0 || y < 0 || x >= columns || y >= rows ? -1 : y * columns + x;
  }
};

struct Way {
  int dx, dy;
};

std::vector<FourTurns> turnsOf(const Board& board, const std::vector<Way>& ways) {
  std::vector<FourTurns> out;
  for (std::size_t i = 0; i < ways.size(); ++i) {
    if (i % 4 == 0) out.emplace_back();
    auto amount = static_cast<std::uint64_t>(ways[i].dy * board.columns + ways[i].dx);
    out.back().by[i % 4] = amount & 63;
    for (int cell = 0; cell < board.columns * board.rows; ++cell)
      if (int to = board.next(cell, ways[i].dx, ways[i].dy); to >= 0)
        out.back().mask[i % 4] |= std::uint64_t{1} << to;
  }
  return out;
}

bool has(std::uint64_t set, int cell) {
  return cell >= 0 && (set >> cell & 1) != 0;
}

TEST(Fills, AreWhatWalkingFinds) {
  const std::vector<Way> all = {{1, 0},  {1, 1},   {0, 1},  {-1, 1},
                                {-1, 0}, {-1, -1}, {0, -1}, {1, -1}};
  for (Board board :
       {Board{8, 8}, Board{4, 4}, Board{7, 6}, Board{1, 64}, Board{64, 1}, Board{3, 20}})
    for (std::size_t count : {1u, 3u, 4u, 8u}) {
      std::vector<Way> ways(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(count));
      std::vector<FourTurns> turns = turnsOf(board, ways);
      int cells = board.columns * board.rows, doublings = 6;
      std::uint64_t whole = cells == 64 ? ~std::uint64_t{0} : (std::uint64_t{1} << cells) - 1;
      Stream stream(9, count);
      for (int number = 0; number < 300; ++number) {
        auto word = [&] { return (std::uint64_t{stream.next()} << 32 | stream.next()) & whole; };
        std::uint64_t run = number % 3 == 0 ? word() | word() : word(), by = word() & word();
        int cell = static_cast<int>(stream.below(static_cast<std::uint32_t>(cells)));
        std::uint64_t behind = 0, between = 0;
        for (Way way : ways) {
          for (int from = 0; from < cells; ++from) {
            if (!has(by, from)) continue;
            int at = board.next(from, way.dx, way.dy);
            if (!has(run, at)) continue;
            while (has(run, at)) {
              at = board.next(at, way.dx, way.dy);
              if (at >= 0) behind |= std::uint64_t{1} << at;
            }
          }
          std::uint64_t passed = 0;
          int at = board.next(cell, way.dx, way.dy);
          while (has(run, at)) {
            passed |= std::uint64_t{1} << at;
            at = board.next(at, way.dx, way.dy);
          }
          if (has(by & ~run, at)) between |= passed;
        }
        std::vector<Fills> both = {plainFills()};
        if (processor.wide) both.push_back(wideFills());
        for (const Fills& fills : both) {
          ASSERT_EQ(fills.behind(run, by, turns, doublings), behind)
              << board.columns << " " << count;
          ASSERT_EQ(fills.between(run, cell, by, turns, doublings), between);
        }
      }
    }
}

}  // namespace fills_test
}  // namespace ninepegs::sheet
