// Othello by hand: legal cells by parallel-prefix fills along the eight directions, flips by
// carrying along the eight lines of a cell (an addition for the lines upward, leading zeros for
// the lines downward).
#pragma once

#include <initializer_list>

#include "yardsticks.hpp"

namespace yardstick {

struct OthelloLines {
  std::uint64_t up[64][4], down[64][4];  // the cells beyond a cell, by direction
  OthelloLines() {
    constexpr int dx[4] = {1, 0, 1, -1}, dy[4] = {0, 1, 1, 1};
    for (int cell = 0; cell < 64; ++cell)
      for (int d = 0; d < 4; ++d)
        for (int sign : {1, -1}) {
          std::uint64_t line = 0;
          int x = cell % 8 + sign * dx[d], y = cell / 8 + sign * dy[d];
          for (; x >= 0 && x < 8 && y >= 0 && y < 8; x += sign * dx[d], y += sign * dy[d])
            line |= std::uint64_t{1} << (y * 8 + x);
          (sign > 0 ? up : down)[cell][d] = line;
        }
  }
};
inline const OthelloLines othelloLines;

struct Othello {
  // Cells just beyond a run of `through` that begins beside `mine`, both ways of one direction.
  template <int shift>
  static std::uint64_t beyond(std::uint64_t mine, std::uint64_t through) {
    std::uint64_t up = through & (mine << shift), down = through & (mine >> shift);
    up |= through & (up << shift);
    down |= through & (down >> shift);
    std::uint64_t pairsUp = through & (through << shift), pairsDown = pairsUp >> shift;
    up |= pairsUp & (up << (2 * shift));
    down |= pairsDown & (down >> (2 * shift));
    up |= pairsUp & (up << (2 * shift));
    down |= pairsDown & (down >> (2 * shift));
    return up << shift | down >> shift;
  }
  static std::uint64_t legal(std::uint64_t mine, std::uint64_t theirs) {
    std::uint64_t inner = theirs & 0x7e7e7e7e7e7e7e7eull;
    return (beyond<1>(mine, inner) | beyond<8>(mine, theirs) | beyond<7>(mine, inner) |
            beyond<9>(mine, inner)) &
           ~(mine | theirs);
  }
  static std::uint64_t flipped(int cell, std::uint64_t mine, std::uint64_t theirs) {
    std::uint64_t out = 0;
    for (int d = 0; d < 4; ++d) {
      std::uint64_t line = othelloLines.up[cell][d];
      // The carry runs through their discs and stops at the first other cell of the line.
      std::uint64_t stop = ((theirs | ~line) + (line & (0 - line))) & line & mine;
      out |= (stop - (stop != 0 ? 1 : 0)) & line;
      line = othelloLines.down[cell][d];
      stop = (std::uint64_t{1} << 63 >> std::countl_zero((~theirs & line) | 1)) & line & mine;
      out |= (0 - stop) & (0 - (stop << 1)) & line;
    }
    return out & theirs;
  }
  // 1: the first side won, 2: the second, 0: as many discs.
  static int playOut(Random& random, int& plies) {
    std::uint64_t mine = std::uint64_t{1} << 28 | std::uint64_t{1} << 35,
                  theirs = std::uint64_t{1} << 27 | std::uint64_t{1} << 36;
    int turn = 0;
    while (true) {
      std::uint64_t cells = legal(mine, theirs);
      if (cells == 0) {
        std::uint64_t t = mine;
        mine = theirs;
        theirs = t;
        turn = 1 - turn;
        cells = legal(mine, theirs);
        if (cells == 0) break;
        ++plies;
      }
      std::uint64_t at = nth(cells, random.below(static_cast<std::uint32_t>(std::popcount(cells))));
      std::uint64_t turned = flipped(std::countr_zero(at), mine, theirs);
      std::uint64_t t = mine | turned | at;
      mine = theirs & ~turned;
      theirs = t;
      ++plies;
      turn = 1 - turn;
    }
    int lead = std::popcount(mine) - std::popcount(theirs);
    if (turn == 1) lead = -lead;
    return lead > 0 ? 1 : lead < 0 ? 2 : 0;
  }
};

}  // namespace yardstick
