// Takes generated moves as a list. Internal to SheetGame.
#pragma once

#include "ninepegs/game/values.hpp"
#include "ninepegs/sheet/machine/machine.hpp"

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
  void many(int group, const std::uint64_t* choices, int count, const Set& last, int base = 0) {
    for (Set rest = last; rest.any() && !over; rest.dropFirst())
      next(group, choices, count, count - 1).choices[count - 1] =
          static_cast<std::uint16_t>(base + rest.first());
  }
  void one(int group, const std::uint64_t* choices, int count) {
    next(group, choices, count, count);
  }
  void pass() { next(sheet::passGroup, nullptr, 0, 0); }
  bool any() const { return !moves.empty(); }
  bool enough() const { return over; }
};

}  // namespace ninepegs
