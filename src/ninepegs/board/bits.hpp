// A set of cells as W machine words, one bit a cell: the value on which rules run.
//
//   Bits<1> front = shifted(mine, 8) & board;   // one step to the next row of an 8-wide board
//
// A plain value without invariants; all loops have the compile-time bound W.
#pragma once

#include <bit>
#include <cstdint>

#include "ninepegs/base/processor.hpp"
#include "ninepegs/base/require.hpp"

namespace ninepegs {

template <int W>
struct Bits {
  std::uint64_t word[W];

  static constexpr Bits none() { return Bits{}; }
  static constexpr Bits of(int cell) {
    NINEPEGS_REQUIRE(cell >= 0 && cell < W * 64);
    Bits bits{};
    bits.word[W == 1 ? 0 : cell >> 6] = std::uint64_t{1} << (cell & 63);
    return bits;
  }

  constexpr bool any() const {
    std::uint64_t all = 0;
    for (int i = 0; i < W; ++i) all |= word[i];
    return all != 0;
  }
  constexpr bool has(int cell) const {
    NINEPEGS_REQUIRE(cell >= 0 && cell < W * 64);
    return (word[W == 1 ? 0 : cell >> 6] >> (cell & 63)) & 1;
  }
  constexpr int count() const {
    int total = 0;
    for (int i = 0; i < W; ++i) total += bitsIn(word[i]);
    return total;
  }
  // The lowest cell; -1 of an empty set.
  constexpr int first() const {
    for (int i = 0; i < W; ++i)
      if (word[i] != 0) return i * 64 + std::countr_zero(word[i]);
    return -1;
  }
  // The highest cell; -1 of an empty set.
  constexpr int last() const {
    for (int i = W - 1; i >= 0; --i)
      if (word[i] != 0) return i * 64 + 63 - std::countl_zero(word[i]);
    return -1;
  }
  constexpr void dropFirst() {
    for (int i = 0; i < W; ++i) {
      if (word[i] == 0) continue;
      word[i] &= word[i] - 1;
      return;
    }
  }
  // The cell with exactly `rank` cells of the set below it; the set must have that many.
  int select(int rank) const {
    NINEPEGS_REQUIRE(rank >= 0 && rank < count());
    int base = 0;
    for (int i = 0; i < W; ++i) {
      int here = W == 1 ? 64 : bitsIn(word[i]);
      if (rank < here) return base + placeOf(rank, word[i]);
      rank -= here;
      base += 64;
    }
    return -1;
  }

  constexpr Bits& operator&=(const Bits& o) {
    for (int i = 0; i < W; ++i) word[i] &= o.word[i];
    return *this;
  }
  constexpr Bits& operator|=(const Bits& o) {
    for (int i = 0; i < W; ++i) word[i] |= o.word[i];
    return *this;
  }
  constexpr Bits& remove(const Bits& o) {
    for (int i = 0; i < W; ++i) word[i] &= ~o.word[i];
    return *this;
  }
  friend constexpr Bits operator&(Bits a, const Bits& b) { return a &= b; }
  friend constexpr Bits operator|(Bits a, const Bits& b) { return a |= b; }
  friend constexpr Bits minus(Bits a, const Bits& b) { return a.remove(b); }
  friend constexpr bool operator==(const Bits&, const Bits&) = default;
};

// The bits of `from` that are on `mask`, packed together at the low end.
template <int W>
Bits<W> gathered(const Bits<W>& from, const Bits<W>& mask) {
  Bits<W> out{};
  int at = 0;  // where the bits of the next word go
  for (int i = 0; i < W; ++i) {
    std::uint64_t bits = gathered(from.word[i], mask.word[i]);
    int word = at >> 6, shift = at & 63;
    if (bits != 0) {
      out.word[word] |= bits << shift;
      if (shift != 0 && word + 1 < W) out.word[word + 1] |= bits >> (64 - shift);
    }
    at += bitsIn(mask.word[i]);
  }
  return out;
}

// Every cell moved up by `amount` bits; what leaves the words is lost.
template <int W>
constexpr Bits<W> raised(const Bits<W>& bits, int amount) {
  if constexpr (W == 1) {
    return Bits<1>{{bits.word[0] << amount}};
  } else {
    Bits<W> out{};
    int words = amount >> 6, rest = amount & 63;
    if (words == 0) [[likely]] {  // most shifts; unrolled
      for (int i = 0; i < W; ++i) out.word[i] = bits.word[i] << rest;
      for (int i = 1; i < W; ++i) out.word[i] |= bits.word[i - 1] >> 1 >> (63 - rest);
      return out;
    }
    for (int i = words; i < W; ++i) {
      out.word[i] = bits.word[i - words] << rest;
      if (rest != 0 && i > words) out.word[i] |= bits.word[i - words - 1] >> (64 - rest);
    }
    return out;
  }
}

// Every cell moved down by `amount` bits.
template <int W>
constexpr Bits<W> lowered(const Bits<W>& bits, int amount) {
  if constexpr (W == 1) {
    return Bits<1>{{bits.word[0] >> amount}};
  } else {
    Bits<W> out{};
    int words = amount >> 6, rest = amount & 63;
    if (words == 0) [[likely]] {  // most shifts; unrolled
      for (int i = 0; i < W; ++i) out.word[i] = bits.word[i] >> rest;
      for (int i = 0; i + 1 < W; ++i) out.word[i] |= bits.word[i + 1] << 1 << (63 - rest);
      return out;
    }
    for (int i = 0; i + words < W; ++i) {
      out.word[i] = bits.word[i + words] >> rest;
      if (rest != 0 && i + words + 1 < W) out.word[i] |= bits.word[i + words + 1] << (64 - rest);
    }
    return out;
  }
}

// Up if the amount is positive, down if it is negative.
template <int W>
constexpr Bits<W> shifted(const Bits<W>& bits, int amount) {
  return amount >= 0 ? raised(bits, amount) : lowered(bits, -amount);
}

}  // namespace ninepegs
