// Takes generated moves a set at a time. Part of machine.hpp.
#pragma once

#include <cstdint>

#include "ninepegs/board/bits.hpp"
#include "ninepegs/sheet/program/sinks.hpp"

namespace ninepegs::sheet {

// Keeps moves as they come, a set at a time, so that one of them can be drawn without writing all
// of them down. `overflown` tells that there was no room; then `total` still counts.
template <int W>
struct BundleSink : NoSink {
  static constexpr int room = 96;
  struct Bundle {
    int group, count;
    std::uint32_t moves;
    int lastOne;  // -1: the last choice is a cell of `last`, and `base` more
    int base;
    Bits<W> last;
    std::uint16_t choices[4];  // those before the last
  };
  Bundle bundles[room];
  int used = 0;
  std::uint32_t total = 0;
  bool overflown = false;

  void clear() {
    used = 0;
    total = 0;
    overflown = false;
  }
  void add(int group, const std::uint64_t* choices, int count, int given, int lastOne,
           const Bits<W>& last, std::uint32_t moves, int base = 0) {
    if (moves == 0) return;
    total += moves;
    if (used == room || given > 4) {
      overflown = true;
      return;
    }
    Bundle& bundle = bundles[used++];
    bundle.group = group;
    bundle.count = count;
    bundle.moves = moves;
    bundle.lastOne = lastOne;
    bundle.last = last;
    bundle.base = base;
    for (int i = 0; i < given; ++i) bundle.choices[i] = static_cast<std::uint16_t>(choices[i]);
  }
  void many(int group, const std::uint64_t* choices, int count, const Bits<W>& last, int base = 0) {
    add(group, choices, count, count - 1, -1, last, static_cast<std::uint32_t>(last.count()), base);
  }
  void one(int group, const std::uint64_t* choices, int count) {
    if (count == 0) return add(group, choices, 0, 0, 0, Bits<W>::none(), 1);
    // A number or a line may be no cell.
    add(group, choices, count, count - 1, static_cast<int>(choices[count - 1]), Bits<W>::none(), 1);
  }
  void pass() { add(passGroup, nullptr, 0, 0, 0, Bits<W>::none(), 1); }
  bool any() const { return total > 0; }
  // What is chosen at this place in all moves of the bundle; -1: not the same in all of them.
  int choiceOf(const Bundle& bundle, int place) const {
    if (place < bundle.count - 1) return bundle.choices[place];
    if (bundle.lastOne >= 0) return bundle.lastOne;
    return bundle.moves == 1 ? bundle.base + bundle.last.first() : -1;
  }
};

}  // namespace ninepegs::sheet
