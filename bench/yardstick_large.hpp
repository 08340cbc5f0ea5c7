// Games on more than 64 cells, written by hand: what sheets are measured against. They share
// nothing with the library.
#pragma once

#include <array>
#include <cstdint>

#include "yardsticks.hpp"

namespace yardstick {

// The cells that are still free, in any order: one is drawn and taken out in constant time.
template <int cells>
struct Free {
  std::array<std::uint8_t, cells> list;
  int many = cells;
  Free() {
    for (int i = 0; i < cells; ++i)
      list[static_cast<std::size_t>(i)] = static_cast<std::uint8_t>(i);
  }
  int draw(Random& random) {
    std::size_t at = random.below(static_cast<std::uint32_t>(many));
    int cell = list[at];
    list[at] = list[static_cast<std::size_t>(--many)];
    return cell;
  }
};

// Hex on a rhombus of 11 x 11: joined stones are one set of a forest (union by size, paths halved),
// and each edge of the board is a member of its own.
struct Hex {
  static constexpr int side = 11, cells = side * side;
  static constexpr int edges = cells;  // bottom, top, left, right
  struct Forest {
    std::array<std::int16_t, cells + 4> up;
    Forest() { up.fill(-1); }
    int root(int i) {
      while (up[static_cast<std::size_t>(i)] >= 0) {
        int over = up[static_cast<std::size_t>(i)];
        if (up[static_cast<std::size_t>(over)] >= 0)
          up[static_cast<std::size_t>(i)] = up[static_cast<std::size_t>(over)];
        i = over;
      }
      return i;
    }
    void join(int a, int b) {
      a = root(a), b = root(b);
      if (a == b) return;
      if (up[static_cast<std::size_t>(a)] > up[static_cast<std::size_t>(b)]) {
        int t = a;
        a = b;
        b = t;
      }
      up[static_cast<std::size_t>(a)] = static_cast<std::int16_t>(up[static_cast<std::size_t>(a)] +
                                                                  up[static_cast<std::size_t>(b)]);
      up[static_cast<std::size_t>(b)] = static_cast<std::int16_t>(a);
    }
  };
  static int playOut(Random& random, int& plies) {
    // Each row stands half a cell to the right of the one below.
    static constexpr int dx[] = {1, 0, -1, -1, 0, 1}, dy[] = {0, 1, 1, 0, -1, -1};
    Free<cells> open;
    Forest forest;
    std::array<std::int8_t, cells> owner{};
    for (int ply = 0; ply < cells; ++ply) {
      int cell = open.draw(random), mover = ply % 2 + 1, x = cell % side, y = cell / side;
      owner[static_cast<std::size_t>(cell)] = static_cast<std::int8_t>(mover);
      for (int k = 0; k < 6; ++k) {
        int nx = x + dx[k], ny = y + dy[k];
        if (nx < 0 || ny < 0 || nx >= side || ny >= side) continue;
        int next = ny * side + nx;
        if (owner[static_cast<std::size_t>(next)] == mover) forest.join(cell, next);
      }
      int at = mover == 1 ? y : x, first = mover == 1 ? edges : edges + 2;
      if (at == 0) forest.join(cell, first);
      if (at == side - 1) forest.join(cell, first + 1);
      if (forest.root(first) == forest.root(first + 1)) {
        plies += ply + 1;
        return mover;
      }
    }
    return 0;
  }
};

// Five in a row on 15 x 15: only lines through the last stone are looked at.
struct FiveInARow {
  static constexpr int side = 15, cells = side * side, wide = side + 1;
  static int playOut(Random& random, int& plies) {
    Free<cells> open;
    // A column between the rows and a row outside belong to nobody.
    std::array<std::int8_t, (side + 2) * wide + 1> owner{};
    for (int ply = 0; ply < cells; ++ply) {
      int cell = open.draw(random), at = (cell / side + 1) * wide + cell % side + 1;
      std::int8_t mover = static_cast<std::int8_t>(ply % 2 + 1);
      owner[static_cast<std::size_t>(at)] = mover;
      for (int step : {1, wide - 1, wide, wide + 1}) {
        int run = 1;
        for (int k = at + step; owner[static_cast<std::size_t>(k)] == mover; k += step) ++run;
        for (int k = at - step; owner[static_cast<std::size_t>(k)] == mover; k -= step) ++run;
        if (run < 5) continue;
        plies += ply + 1;
        return mover;
      }
    }
    plies += cells;
    return 0;
  }
};

// Battleship on 10 x 10: a side's waters are rows of 11 bits, the last of each always taken.
struct Battleship {
  static constexpr int side = 10, wide = side + 1;
  static int count(Wide set) {
    return std::popcount(static_cast<std::uint64_t>(set)) +
           std::popcount(static_cast<std::uint64_t>(set >> 64));
  }
  static Wide pick(Wide set, std::uint32_t n) {
    std::uint64_t low = static_cast<std::uint64_t>(set);
    std::uint32_t here = static_cast<std::uint32_t>(std::popcount(low));
    if (n < here) return nth(low, n);
    return static_cast<Wide>(nth(static_cast<std::uint64_t>(set >> 64), n - here)) << 64;
  }
  // First cells of free runs of a length along a step.
  static Wide runs(Wide open, int length, int step) {
    Wide out = open;
    for (int i = 1; i < length; ++i) out &= open >> (i * step);
    return out;
  }
  static int playOut(Random& random, int& plies) {
    static constexpr int sizes[] = {5, 4, 3, 3, 2};
    Wide all = 0;
    for (int y = 0; y < side; ++y) all |= static_cast<Wide>((1u << side) - 1) << (y * wide);
    Wide fleet[2] = {0, 0};
    unsigned left[2] = {31, 31};
    for (int ply = 0; ply < 10; ++ply) {
      int me = ply % 2;
      Wide places[5][2];
      std::uint32_t many[5][2], total = 0;
      for (int ship = 0; ship < 5; ++ship)
        for (int way = 0; way < 2; ++way) {
          bool held = (left[me] >> ship & 1) != 0;
          Wide open = all & ~fleet[me];
          places[ship][way] = held ? runs(open, sizes[ship], way == 0 ? 1 : wide) : 0;
          many[ship][way] = static_cast<std::uint32_t>(count(places[ship][way]));
          total += many[ship][way];
        }
      std::uint32_t n = random.below(total);
      for (int k = 0; k < 10; ++k) {
        int ship = k / 2, way = k % 2;
        if (n >= many[ship][way]) {
          n -= many[ship][way];
          continue;
        }
        Wide cell = pick(places[ship][way], n);
        for (int i = 0; i < sizes[ship]; ++i) fleet[me] |= cell << (i * (way == 0 ? 1 : wide));
        left[me] &= ~(1u << ship);
        break;
      }
    }
    Free<side * side> open[2];
    int hits[2] = {0, 0};
    for (int ply = 0; ply < 2 * side * side; ++ply) {
      int me = ply % 2, cell = open[me].draw(random);
      int bit = cell / side * wide + cell % side;
      hits[me] += static_cast<int>(fleet[1 - me] >> bit & 1);
      if (hits[me] < 17) continue;
      plies += ply + 11;
      return me + 1;
    }
    return 0;
  }
};

}  // namespace yardstick
