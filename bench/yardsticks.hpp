// Games written by hand on bit masks, as fast as plain scalar code gets: what sheets are measured
// against. They share nothing with the library. Made for one processor: see by_hand.hpp.
#pragma once

#ifdef __BMI2__
#include <immintrin.h>
#endif

#include <bit>
#include <cstdint>

namespace yardstick {

__extension__ using Wide = unsigned __int128;

// wyrand, a small fast generator (Wang Yi, 2019): one multiplication a draw.
struct Random {
  std::uint64_t state;
  std::uint64_t next() {
    state += 0xa0761d6478bd642full;
    Wide t = static_cast<Wide>(state) * (state ^ 0xe7037ed1a0b428dbull);
    return static_cast<std::uint64_t>(t >> 64) ^ static_cast<std::uint64_t>(t);
  }
  std::uint32_t below(std::uint32_t bound) {
    return static_cast<std::uint32_t>(((next() >> 32) * bound) >> 32);
  }
};

inline std::uint64_t nth(std::uint64_t bits, std::uint32_t n) {
#ifdef __BMI2__
  return _pdep_u64(std::uint64_t{1} << n, bits);
#endif
  for (; n > 0; --n) bits &= bits - 1;
  return bits & (0 - bits);
}

// Connect four on 7 columns of 7 bits, the top one of each always clear.
struct ConnectFour {
  static constexpr std::uint64_t bottom = 0x0000040810204081ull;
  static bool four(std::uint64_t b) {
    std::uint64_t across = b & (b >> 7), up = b & (b >> 1), down = b & (b >> 6),
                  rise = b & (b >> 8);
    return ((across & (across >> 14)) | (up & (up >> 2)) | (down & (down >> 12)) |
            (rise & (rise >> 16))) != 0;
  }
  // 0: draw, 1: first side, 2: second side
  static int playOut(Random& random, int& plies) {
    constexpr std::uint64_t columns = bottom * 0x3f;
    std::uint64_t own = 0, other = 0;
    for (int ply = 0; ply < 42; ++ply) {
      std::uint64_t open = ((own | other) + bottom) & columns;
      // Draw a column until it has room: full columns are rare, so the branch is well foretold.
      std::uint64_t cell;
      do cell = open & (std::uint64_t{0x3f} << (7 * random.below(7)));
      while (cell == 0);
      own |= cell;
      if (four(own)) {
        plies += ply + 1;
        return 1 + ply % 2;
      }
      std::uint64_t t = own;
      own = other;
      other = t;
    }
    plies += 42;
    return 0;
  }
};

struct TicTacToe {
  static bool three(std::uint32_t b) {
    return ((b & (b >> 1) & (b >> 2) & 0x49) | (b & (b >> 3) & (b >> 6) & 7) |
            (b & (b >> 4) & (b >> 8) & 1) | (b & (b >> 2) & (b >> 4) & 4)) != 0;
  }
  static int playOut(Random& random, int& plies) {
    std::uint32_t own = 0, other = 0;
    for (int ply = 0; ply < 9; ++ply) {
      std::uint32_t open = ~(own | other) & 0x1ff;
      own |=
          static_cast<std::uint32_t>(nth(open, random.below(9 - static_cast<std::uint32_t>(ply))));
      if (three(own)) {
        plies += ply + 1;
        return 1 + ply % 2;
      }
      std::uint32_t t = own;
      own = other;
      other = t;
    }
    plies += 9;
    return 0;
  }
};

}  // namespace yardstick
