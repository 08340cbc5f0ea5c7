// What the processor at hand does better than every processor of its kind. It is looked at once,
// when the program starts; what is built on one machine so runs on all, and gives the same results.
//
//   int cells = bitsIn(mine.word[0]);
//
// The instructions stand here as text of the assembler: the compiler is told of no processor, and
// what it makes elsewhere runs everywhere. Before `processor` is set, the plain ways are taken.
#pragma once

#include <bit>
#include <cstdint>
#include <type_traits>

#if defined(__x86_64__) && defined(__GNUC__)
#define NINEPEGS_X86 1
#else
#define NINEPEGS_X86 0
#endif

namespace ninepegs {

struct Processor {
  bool counts = false;   // counts the bits of a word (POPCNT)
  bool gathers = false;  // packs bits of a word and spreads them, fast (PEXT, PDEP of BMI2)
  bool wide = false;     // works on four words at once (AVX2)
};
// Read by all threads; only a test may change it, while nothing else runs.
extern Processor processor;
// What this processor has.
Processor processorAtHand();

// How many bits of the word are set.
constexpr int bitsIn(std::uint64_t word) {
#if NINEPEGS_X86
  if (!std::is_constant_evaluated() && processor.counts) [[likely]] {
    __asm__("popcnt %0, %0" : "+r"(word) : : "cc");
    return static_cast<int>(word);
  }
#endif
  return std::popcount(word);
}

// The place of the bit that has exactly `rank` set bits below it; there must be such a bit.
inline int placeOf(int rank, std::uint64_t word) {
#if NINEPEGS_X86
  if (processor.gathers) [[likely]] {
    std::uint64_t one = std::uint64_t{1} << rank;
    __asm__("pdep %1, %0, %0" : "+r"(one) : "r"(word));
    return std::countr_zero(one);
  }
#endif
  for (; rank > 0; --rank) word &= word - 1;
  return std::countr_zero(word);
}

// The bits of `from` that are on `mask`, packed together at the low end.
inline std::uint64_t gathered(std::uint64_t from, std::uint64_t mask) {
#if NINEPEGS_X86
  if (processor.gathers) [[likely]] {
    __asm__("pext %1, %0, %0" : "+r"(from) : "r"(mask));
    return from;
  }
#endif
  std::uint64_t out = 0;
  for (int i = 0; mask != 0; ++i, mask &= mask - 1)
    out |= ((from >> std::countr_zero(mask)) & 1) << i;
  return out;
}

}  // namespace ninepegs
