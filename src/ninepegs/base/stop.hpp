// A wish to stop, set by a signal handler or another thread and read by long work, which then ends
// with what it has.
#pragma once

#include <atomic>

namespace ninepegs {

using StopFlag = std::atomic<bool>;

inline bool wantsStop(const StopFlag* stop) {
  return stop != nullptr && stop->load(std::memory_order_relaxed);
}

}  // namespace ninepegs
