#include "ninepegs/sheet/machine/fills.hpp"

#include <bit>
#include <cstring>

#include "ninepegs/base/processor.hpp"

namespace ninepegs::sheet {
namespace {

// One turn after the other.
std::uint64_t grown(std::uint64_t front, std::uint64_t through, std::uint64_t by, int doublings) {
  for (int k = 0; k < doublings; ++k, by = 2 * by % 64) {
    front |= std::rotl(front, static_cast<int>(by)) & through;
    through &= std::rotl(through, static_cast<int>(by));
  }
  return front;
}

std::uint64_t plainBehind(std::uint64_t run, std::uint64_t last, std::span<const FourTurns> turns,
                          int doublings) {
  std::uint64_t out = 0;
  for (const FourTurns& four : turns)
    for (int i = 0; i < 4; ++i) {
      int by = static_cast<int>(four.by[i]);
      std::uint64_t through = run & four.mask[i];
      std::uint64_t front = std::rotl(last, by) & through;
      out |= std::rotl(grown(front, through, four.by[i], doublings), by) & four.mask[i];
    }
  return out;
}

std::uint64_t plainBetween(std::uint64_t run, int cell, std::uint64_t by,
                           std::span<const FourTurns> turns, int doublings) {
  std::uint64_t out = 0, ends = by & ~run;
  for (const FourTurns& four : turns)
    for (int i = 0; i < 4; ++i) {
      int turn = static_cast<int>(four.by[i]);
      std::uint64_t through = run & four.mask[i];
      std::uint64_t front = std::rotl(std::uint64_t{1} << cell, turn) & through;
      front = grown(front, through, four.by[i], doublings);
      if ((std::rotl(front, turn) & four.mask[i] & ends) != 0) out |= front;
    }
  return out;
}

#if NINEPEGS_X86

// Four turns at once; vectors are an extension that GCC and Clang share.
typedef std::uint64_t Four __attribute__((vector_size(32)));

#define NINEPEGS_WIDE __attribute__((target("avx2")))

NINEPEGS_WIDE inline Four turned(Four words, Four by) {
  return words << by | words >> ((64 - by) & 63);
}
NINEPEGS_WIDE inline Four grown(Four front, Four through, Four by, int doublings) {
  for (int k = 0; k < doublings; ++k) {
    front |= turned(front, by) & through;
    if (k + 1 == doublings) break;
    through &= turned(through, by);
    by = (by + by) & 63;
  }
  return front;
}
NINEPEGS_WIDE inline std::uint64_t joined(Four words) {
  return words[0] | words[1] | words[2] | words[3];
}

NINEPEGS_WIDE std::uint64_t wideBehind(std::uint64_t run, std::uint64_t last,
                                       std::span<const FourTurns> turns, int doublings) {
  Four out = {};
  for (const FourTurns& four : turns) {
    Four by, mask;
    std::memcpy(&by, four.by, sizeof by);
    std::memcpy(&mask, four.mask, sizeof mask);
    Four through = mask & run;
    Four front = turned(last + Four{}, by) & through;
    out |= turned(grown(front, through, by, doublings), by) & mask;
  }
  return joined(out);
}

NINEPEGS_WIDE std::uint64_t wideBetween(std::uint64_t run, int cell, std::uint64_t by,
                                        std::span<const FourTurns> turns, int doublings) {
  Four out = {};
  std::uint64_t ends = by & ~run;
  for (const FourTurns& four : turns) {
    Four turn, mask;
    std::memcpy(&turn, four.by, sizeof turn);
    std::memcpy(&mask, four.mask, sizeof mask);
    Four through = mask & run;
    Four front = turned((std::uint64_t{1} << cell) + Four{}, turn) & through;
    front = grown(front, through, turn, doublings);
    Four met = turned(front, turn) & mask & ends;
    out |= front & reinterpret_cast<Four>(met != Four{});
  }
  return joined(out);
}

#undef NINEPEGS_WIDE

#else

constexpr Behind wideBehind = plainBehind;
constexpr Between wideBetween = plainBetween;

#endif

}  // namespace

Fills plainFills() {
  return {plainBehind, plainBetween};
}
Fills wideFills() {
  return {wideBehind, wideBetween};
}

std::uint64_t behindRuns(std::uint64_t run, std::uint64_t last, std::span<const FourTurns> turns,
                         int doublings) {
  return processor.wide ? wideBehind(run, last, turns, doublings)
                        : plainBehind(run, last, turns, doublings);
}
std::uint64_t runsBetween(std::uint64_t run, int cell, std::uint64_t by,
                          std::span<const FourTurns> turns, int doublings) {
  return processor.wide ? wideBetween(run, cell, by, turns, doublings)
                        : plainBetween(run, cell, by, turns, doublings);
}

}  // namespace ninepegs::sheet
