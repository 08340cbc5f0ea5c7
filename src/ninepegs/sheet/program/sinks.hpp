// What takes the moves that a generator finds.
#pragma once

#include <cstdint>

namespace ninepegs::sheet {

// A move of a sheet as numbers: which group, and what was picked and chosen in it.
inline constexpr int passGroup = 255;
inline constexpr std::uint64_t noChoice = 0xffff;  // a pick that found nothing to pick

// A sink takes the moves that a generator finds: `one` for a single move, `many` for one move a
// cell of the last choice, which is that cell's number and `base`, `pass`. `any` tells whether one
// came; `enough` that no more are needed.
struct NoSink {
  template <class Set>
  void many(int, const std::uint64_t*, int, const Set&, int = 0) {}
  void one(int, const std::uint64_t*, int) {}
  void pass() {}
  bool any() const { return false; }
  bool enough() const { return false; }
};

struct AnySink : NoSink {
  bool found = false;
  template <class Set>
  void many(int, const std::uint64_t*, int, const Set& last, int = 0) {
    found = found || last.any();
  }
  void one(int, const std::uint64_t*, int) { found = true; }
  void pass() { found = true; }
  bool any() const { return found; }
  bool enough() const { return found; }
};

struct CountSink : NoSink {
  std::uint64_t total = 0;
  template <class Set>
  void many(int, const std::uint64_t*, int, const Set& last, int = 0) {
    total += static_cast<std::uint64_t>(last.count());
  }
  void one(int, const std::uint64_t*, int) { ++total; }
  void pass() { ++total; }
  bool any() const { return total > 0; }
};

// Takes what a move on trial comes to, and hands it on to the sink of the generator.
struct TrialSink : NoSink {
  void* outer = nullptr;
  void (*emit)(void* outer, int group, const std::uint64_t* choices, int count) = nullptr;
  bool (*full)(const void* outer) = nullptr;
  bool enough() const { return full(outer); }
};

}  // namespace ninepegs::sheet
