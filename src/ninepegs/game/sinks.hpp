// Takers of generated moves. Internal to SheetGame.
#pragma once

#include "ninepegs/game/values.hpp"
#include "ninepegs/sheet/machine.hpp"

namespace ninepegs {

// Writes every move down.
struct ListSink : sheet::NoSink {
  explicit ListSink(MoveList& list) : moves(list) {}
  MoveList& moves;
  bool over = false;

  Move& next(int group, const std::uint64_t* choices, int count, int given) {
    Move& move = moves.emplace_back();
    move.group = static_cast<std::uint8_t>(group);
    move.count = static_cast<std::uint8_t>(count);
    for (int i = 0; i < given; ++i) move.choices[i] = static_cast<std::uint16_t>(choices[i]);
    over = over || moves.size() > limits::movesInPosition;
    return move;
  }
  template <class Set>
  void many(int group, const std::uint64_t* choices, int count, const Set& last) {
    for (Set rest = last; rest.any() && !over; rest.dropFirst())
      next(group, choices, count, count - 1).choices[count - 1] =
          static_cast<std::uint16_t>(rest.first());
  }
  void one(int group, const std::uint64_t* choices, int count) {
    next(group, choices, count, count);
  }
  void pass() { next(sheet::passGroup, nullptr, 0, 0); }
  bool any() const { return !moves.empty(); }
  bool enough() const { return over; }
};

// Keeps moves as they come, a set at a time, so that one of them can be drawn without writing all
// of them down. `overflown` tells that there was no room; then `total` still counts.
template <int W>
struct BundleSink : sheet::NoSink {
  static constexpr int room = 96;
  struct Bundle {
    int group, count;
    std::uint32_t moves;
    int lastOne;  // -1: the last choice is a cell of `last`
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
           const Bits<W>& last, std::uint32_t moves) {
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
    for (int i = 0; i < given; ++i) bundle.choices[i] = static_cast<std::uint16_t>(choices[i]);
  }
  void many(int group, const std::uint64_t* choices, int count, const Bits<W>& last) {
    add(group, choices, count, count - 1, -1, last, static_cast<std::uint32_t>(last.count()));
  }
  void one(int group, const std::uint64_t* choices, int count) {
    if (count == 0) return add(group, choices, 0, 0, 0, Bits<W>::none(), 1);
    // A number or a line may be no cell.
    add(group, choices, count, count - 1, static_cast<int>(choices[count - 1]), Bits<W>::none(), 1);
  }
  void pass() { add(sheet::passGroup, nullptr, 0, 0, 0, Bits<W>::none(), 1); }
  bool any() const { return total > 0; }
};

}  // namespace ninepegs
