// What a search found of positions: a table of fixed size, four places for each hash. Internal to
// the room; belongs to one thread.
#pragma once

#include <bit>
#include <cstdint>
#include <vector>

namespace ninepegs::play {

enum class Bound : std::uint8_t { none, exact, atLeast, atMost };

struct TableEntry {
  std::uint64_t key = 0;
  std::int32_t score = 0;
  std::uint16_t move = 0;  // its number in the list of legal moves
  std::int8_t depth = -1;
  Bound bound : 2 = Bound::none;
  bool whole : 1 = false;    // every line below was followed to its end
  std::uint8_t age : 5 = 0;  // of the search that wrote it
};
static_assert(sizeof(TableEntry) == 16);

class PositionTable {
 public:
  // Empties it. Requires megabytes >= 1.
  void resize(std::uint64_t megabytes) {
    std::uint64_t places = std::bit_floor((megabytes << 20) / sizeof(TableEntry));
    entries_.assign(places, TableEntry{});
    mask_ = places - places_;
  }
  bool empty() const { return entries_.empty(); }
  // A new search begins: what older ones wrote gives way first.
  void nextSearch() { age_ = static_cast<std::uint8_t>((age_ + 1) & 31); }

  // Null if the position is not there.
  const TableEntry* find(std::uint64_t hash) const {
    const TableEntry* at = &entries_[hash & mask_];
    for (int i = 0; i < places_; ++i)
      if (at[i].bound != Bound::none && at[i].key == hash) return at + i;
    return nullptr;
  }
  void keep(TableEntry entry) {
    TableEntry* at = &entries_[entry.key & mask_];
    TableEntry* place = at;
    int least = 1 << 20;
    for (int i = 0; i < places_; ++i) {
      if (at[i].bound == Bound::none || at[i].key == entry.key) {
        place = at + i;
        break;
      }
      int value = at[i].depth + (at[i].age == age_ ? 64 : 0);
      if (value < least) least = value, place = at + i;
    }
    entry.age = age_ & 31;
    *place = entry;
  }

 private:
  static constexpr int places_ = 4;
  std::vector<TableEntry> entries_;
  std::uint64_t mask_ = 0;
  std::uint8_t age_ = 0;
};

}  // namespace ninepegs::play
