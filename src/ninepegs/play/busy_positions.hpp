// Positions that threads of one search look at just now, so that another thread takes other moves
// first and comes back when the result stands in their table (after J.-C. Weill, "The ABDADA
// distributed minimax search algorithm", 1996). Internal to the room.
//
// A hint and no lock: a position that is not found here may be busy, and the other way round. All
// functions may be called from several threads.
#pragma once

#include <array>
#include <atomic>
#include <cstdint>

namespace ninepegs::play {

class BusyPositions {
 public:
  bool has(std::uint64_t hash) const { return placeOf(hash).load(relaxed) == hash; }
  void begin(std::uint64_t hash) { placeOf(hash).store(hash, relaxed); }
  void end(std::uint64_t hash) {
    if (has(hash)) placeOf(hash).store(0, relaxed);
  }

 private:
  static constexpr std::memory_order relaxed = std::memory_order_relaxed;
  static constexpr std::size_t places = 1 << 12;  // many more than plies times threads
  const std::atomic<std::uint64_t>& placeOf(std::uint64_t hash) const {
    return hashes_[hash % places];
  }
  std::atomic<std::uint64_t>& placeOf(std::uint64_t hash) { return hashes_[hash % places]; }
  std::array<std::atomic<std::uint64_t>, places> hashes_{};
};

}  // namespace ninepegs::play
