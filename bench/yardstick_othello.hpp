// Othello by hand: legal cells and flips by filling along the eight directions.
#pragma once

#include "yardsticks.hpp"

namespace yardstick {

struct Othello {
  static constexpr std::uint64_t notWest = 0xfefefefefefefefeull, notEast = 0x7f7f7f7f7f7f7f7full;

  template <int shift>
  static std::uint64_t moved(std::uint64_t b) {
    if constexpr (shift == 1 || shift == 9 || shift == -7) b &= notEast;
    if constexpr (shift == -1 || shift == -9 || shift == 7) b &= notWest;
    if constexpr (shift > 0)
      return b << shift;
    else
      return b >> -shift;
  }
  template <int shift>
  static std::uint64_t runs(std::uint64_t from, std::uint64_t through) {
    std::uint64_t run = moved<shift>(from) & through;
    run |= moved<shift>(run) & through;
    run |= moved<shift>(run) & through;
    run |= moved<shift>(run) & through;
    run |= moved<shift>(run) & through;
    run |= moved<shift>(run) & through;
    return run;
  }
  template <int shift>
  static std::uint64_t ends(std::uint64_t mine, std::uint64_t theirs) {
    return moved<shift>(runs<shift>(mine, theirs));
  }
  static std::uint64_t legal(std::uint64_t mine, std::uint64_t theirs) {
    return (ends<1>(mine, theirs) | ends<-1>(mine, theirs) | ends<8>(mine, theirs) |
            ends<-8>(mine, theirs) | ends<9>(mine, theirs) | ends<-9>(mine, theirs) |
            ends<7>(mine, theirs) | ends<-7>(mine, theirs)) &
           ~(mine | theirs);
  }
  template <int shift>
  static std::uint64_t flips(std::uint64_t at, std::uint64_t mine, std::uint64_t theirs) {
    std::uint64_t run = runs<shift>(at, theirs);
    return (moved<shift>(run) & mine) != 0 ? run : 0;
  }
  static std::uint64_t flipped(std::uint64_t at, std::uint64_t mine, std::uint64_t theirs) {
    return flips<1>(at, mine, theirs) | flips<-1>(at, mine, theirs) | flips<8>(at, mine, theirs) |
           flips<-8>(at, mine, theirs) | flips<9>(at, mine, theirs) | flips<-9>(at, mine, theirs) |
           flips<7>(at, mine, theirs) | flips<-7>(at, mine, theirs);
  }
  // 1: the first side won, 2: the second, 0: as many discs.
  static int playOut(Random& random, int& plies) {
    std::uint64_t side[2] = {std::uint64_t{1} << 28 | std::uint64_t{1} << 35,
                             std::uint64_t{1} << 27 | std::uint64_t{1} << 36};
    int turn = 0;
    for (bool passed = false;;) {
      std::uint64_t cells = legal(side[turn], side[1 - turn]);
      if (cells == 0) {
        if (passed) {
          --plies;  // the first pass was none: the game was over before it
          break;
        }
        passed = true;
      } else {
        passed = false;
        std::uint64_t at =
            nth(cells, random.below(static_cast<std::uint32_t>(std::popcount(cells))));
        std::uint64_t turned = flipped(at, side[turn], side[1 - turn]);
        side[turn] |= turned | at;
        side[1 - turn] &= ~turned;
      }
      ++plies;
      turn = 1 - turn;
    }
    int lead = std::popcount(side[0]) - std::popcount(side[1]);
    return lead > 0 ? 1 : lead < 0 ? 2 : 0;
  }
};

}  // namespace yardstick
