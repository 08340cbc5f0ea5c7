// A wish to stop, set by a signal handler, a timer or another thread and read by long work, which
// then ends with what it has.
//
//   StopFlag flag{false}; StopScope scope(&flag);  // rules that are run below look at it, too
//   try {
//     while (!wantsStop(&flag)) game->listMoves(position, moves);
//   } catch (const Stopped&) {  // in the middle of a step, which counts as not done
//   }
#pragma once

#include <algorithm>
#include <atomic>
#include <cstdint>
#include <utility>

namespace ninepegs {

using StopFlag = std::atomic<bool>;

inline bool wantsStop(const StopFlag* stop) {
  return stop != nullptr && stop->load(std::memory_order_relaxed);
}

// Ends work in the middle of a step. Whoever opened the StopScope catches it; what was being worked
// out is thrown away.
struct Stopped {};

// What the running of rules looks at, on this thread. Internal to StopScope, WorkScope and to what
// runs rules.
struct Ambient {
  const StopFlag* stop = nullptr;
  std::int64_t untilLook = 0;         // steps of rules until the flag is looked at again
  std::int64_t left = INT64_MAX / 2;  // steps until the work is given up
};
inline thread_local constinit Ambient ambient;

// While it lives, rules that are run on this thread throw Stopped soon after the flag is set: after
// a few million steps. Null: they look at none. Scopes lie one inside the other.
class StopScope {
 public:
  explicit StopScope(const StopFlag* stop) : outer_(std::exchange(ambient.stop, stop)) {}
  ~StopScope() { ambient.stop = outer_; }
  StopScope(const StopScope&) = delete;
  StopScope& operator=(const StopScope&) = delete;

 private:
  const StopFlag* outer_;
};

// While it lives, rules that are run on this thread may make so many steps together; then they
// throw TooMuchWork (game.hpp). The same on every machine. Scopes lie one inside the other: the
// inner one counts for the outer one, too, and has no more than what that has left.
class WorkScope {
 public:
  explicit WorkScope(std::int64_t steps) : outer_(ambient.left), steps_(std::min(steps, outer_)) {
    ambient.left = steps_;
  }
  ~WorkScope() { ambient.left += outer_ - steps_; }
  WorkScope(const WorkScope&) = delete;
  WorkScope& operator=(const WorkScope&) = delete;

 private:
  std::int64_t outer_, steps_;
};
// Has the work of the scope in which this stands taken all its steps?
inline bool tooMuchWork() {
  return ambient.left < 0;
}

// Steps that were made are counted; true: the flag is set, or the work is to be given up. To be
// asked once a position.
constexpr std::int64_t stepsALook = 1'000'000;
inline bool countsAsTooMuch(std::int64_t steps) {
  ambient.left -= steps;
  ambient.untilLook -= steps;
  if (ambient.untilLook > 0) [[likely]]
    return ambient.left < 0;
  ambient.untilLook = stepsALook;
  return ambient.left < 0 || wantsStop(ambient.stop);
}

}  // namespace ninepegs
