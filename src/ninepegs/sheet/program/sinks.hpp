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

// Looks for one move; the choices must outlive it.
struct FindSink : NoSink {
  FindSink(int of, const std::uint16_t* made, int many) : group(of), choices(made), count(many) {}
  int group;
  const std::uint16_t* choices;
  int count;
  bool found = false, came = false;

  bool begins(int of, const std::uint64_t* given, int many, int compared) const {
    if (of != group || many != count) return false;
    for (int i = 0; i < compared; ++i)
      if (static_cast<std::uint16_t>(given[i]) != choices[i]) return false;
    return true;
  }
  template <class Set>
  void many(int of, const std::uint64_t* given, int made, const Set& last, int base = 0) {
    came = came || last.any();
    if (!begins(of, given, made, made - 1)) return;
    int at = choices[made - 1] - base;
    found = found || (at >= 0 && at < static_cast<int>(sizeof last.word) * 8 && last.has(at));
  }
  void one(int of, const std::uint64_t* given, int made) {
    came = true;
    found = found || begins(of, given, made, made);
  }
  void pass() {
    came = true;
    found = found || group == passGroup;
  }
  bool any() const { return came; }
  bool enough() const { return found; }
};

// Takes what a move on trial comes to, and hands it on to the sink of the generator.
struct TrialSink : NoSink {
  void* outer = nullptr;
  void (*emit)(void* outer, int group, const std::uint64_t* choices, int count) = nullptr;
  bool (*full)(const void* outer) = nullptr;
  bool enough() const { return full(outer); }
};

}  // namespace ninepegs::sheet
