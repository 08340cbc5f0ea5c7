// What a search found of positions: a table of fixed size, four places for each hash. Internal to
// the room.
//
// Several threads may find and keep at the same time: an entry's key is stored mixed with its data,
// so that one of which two threads wrote a half each is not found (R. Hyatt, T. Mann, "A lock-less
// transposition table implementation for parallel search", 2002). resize() and nextSearch() are for
// one thread alone.
#pragma once

#include <atomic>
#include <bit>
#include <cstdint>
#include <optional>

#include "ninepegs/base/zeroed_memory.hpp"

namespace ninepegs::play {

enum class Bound : std::uint8_t { none, exact, atLeast, atMost };

struct TableEntry {
  std::int32_t score = 0;
  std::uint16_t move = 0;  // its number in the list of legal moves
  std::int8_t depth = -1;
  Bound bound : 2 = Bound::none;
  bool whole : 1 = false;    // every line below was followed to its end
  std::uint8_t age : 5 = 0;  // of the search that wrote it
};
static_assert(sizeof(TableEntry) == 8);

class PositionTable {
 public:
  // Empties it. Requires megabytes >= 1.
  void resize(std::uint64_t megabytes) {
    std::uint64_t groups = std::bit_floor((megabytes << 20) / sizeof(Group));
    memory_ = {};  // first, so that there are not two
    memory_ = ZeroedMemory(groups * sizeof(Group));
    groups_ = static_cast<Group*>(memory_.data());
    mask_ = groups - 1;
  }
  bool empty() const { return groups_ == nullptr; }
  // A new search begins: what older ones wrote gives way first.
  void nextSearch() { age_ = static_cast<std::uint8_t>((age_ + 1) & 31); }

  // A hint that this position will be asked for.
  void prefetch(std::uint64_t hash) const { __builtin_prefetch(placesOf(hash)); }
  // Nothing if the position is not there.
  std::optional<TableEntry> find(std::uint64_t hash) const {
    Place* at = placesOf(hash);
    for (int i = 0; i < places_; ++i) {
      std::uint64_t data = read(at[i].data);
      if (data == 0 || (read(at[i].mixed) ^ data) != hash) continue;
      return std::bit_cast<TableEntry>(data);
    }
    return std::nullopt;
  }
  // Requires that the entry has a bound.
  void keep(std::uint64_t hash, TableEntry entry) {
    Place* at = placesOf(hash);
    Place* place = at;
    int least = 1 << 20;
    for (int i = 0; i < places_; ++i) {
      std::uint64_t data = read(at[i].data);
      if (data == 0 || (read(at[i].mixed) ^ data) == hash) {
        place = at + i;
        break;
      }
      auto there = std::bit_cast<TableEntry>(data);
      int value = there.depth + (there.age == age_ ? 64 : 0);
      if (value < least) least = value, place = at + i;
    }
    entry.age = age_ & 31;
    auto data = std::bit_cast<std::uint64_t>(entry);
    write(place->mixed, hash ^ data);
    write(place->data, data);
  }

 private:
  struct Place {
    std::uint64_t mixed, data;  // data 0: nothing, as an entry has a bound
  };
  static_assert(sizeof(Place) == 16);
  static constexpr int places_ = 4;
  struct alignas(64) Group {  // a line of the processor's cache
    Place places[places_];
  };
  Place* placesOf(std::uint64_t hash) const { return groups_[(hash >> 2) & mask_].places; }
  static std::uint64_t read(std::uint64_t& word) {
    return std::atomic_ref(word).load(std::memory_order_relaxed);
  }
  static void write(std::uint64_t& word, std::uint64_t value) {
    std::atomic_ref(word).store(value, std::memory_order_relaxed);
  }
  ZeroedMemory memory_;
  Group* groups_ = nullptr;
  std::uint64_t mask_ = 0;
  std::uint8_t age_ = 0;
};

}  // namespace ninepegs::play
