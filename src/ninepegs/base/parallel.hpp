// Work in numbered pieces on several threads. Which thread does which piece is left open, so a
// piece must not depend on it.
#pragma once

#include <algorithm>
#include <atomic>
#include <cstdint>
#include <exception>
#include <mutex>
#include <thread>
#include <vector>

#include "ninepegs/base/stop.hpp"

namespace ninepegs {

// Calls work(piece, thread) for every piece in 0 .. pieces-1. Pieces start in order. If one throws,
// no further ones start, and the exception of the lowest piece that threw comes out. When `stop` is
// set, no further ones start either, and one that runs rules ends with Stopped, which is not passed
// on.
template <class Work>
void inParallel(std::uint64_t pieces, int threads, Work work, const StopFlag* stop = nullptr) {
  std::atomic<std::uint64_t> next{0};
  std::mutex mutex;
  std::exception_ptr thrown;
  std::uint64_t thrownAt = 0;
  auto run = [&](int thread) {
    StopScope scope(stop != nullptr ? stop : ambient.stop);
    while (true) {
      std::uint64_t piece = next.fetch_add(1);
      if (piece >= pieces || wantsStop(stop)) return;
      try {
        work(piece, thread);
      } catch (const Stopped&) {
        if (stop != nullptr) return;
        throw;
      } catch (...) {
        std::lock_guard lock(mutex);
        if (!thrown || piece < thrownAt) thrown = std::current_exception(), thrownAt = piece;
        next = pieces;
      }
    }
  };
  int used = static_cast<int>(std::min<std::uint64_t>(pieces, static_cast<std::uint64_t>(threads)));
  if (used <= 1) {
    run(0);
  } else {
    std::vector<std::jthread> pool;
    for (int thread = 0; thread < used; ++thread) pool.emplace_back(run, thread);
  }
  if (thrown) std::rethrow_exception(thrown);
}

inline int availableThreads() {
  return std::max(1, static_cast<int>(std::thread::hardware_concurrency()));
}

}  // namespace ninepegs
