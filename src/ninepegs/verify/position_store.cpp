#include "ninepegs/verify/position_store.hpp"

#include <algorithm>

#include "ninepegs/base/random.hpp"

namespace ninepegs::verify {

constexpr std::size_t wordsOfABlock = std::size_t{1} << 16;

std::uint64_t PositionStore::keyOf(const std::vector<std::uint64_t>& identity) {
  std::uint64_t key = identity.size();
  for (std::uint64_t word : identity) key = scrambled(key ^ word);
  return key;
}

void PositionStore::get(std::uint32_t number, Position& position) const {
  const Place& place = places_[number];
  const std::uint64_t* from = blocks_[place.block].data() + place.at;
  position.words.assign(from, from + place.words);
}

// The slot that holds an equal position, or the free one where it would stand.
std::size_t PositionStore::slotOf(const std::vector<std::uint64_t>& identity,
                                  std::uint64_t key) const {
  std::size_t mask = slots_.size() - 1;
  Position other;
  for (std::size_t at = key & mask;; at = (at + 1) & mask) {
    const Slot& slot = slots_[at];
    if (slot.number == 0) return at;
    if (slot.check != key >> 32) continue;
    get(slot.number - 1, other);
    if (game_.identity(other) == identity) return at;
  }
}

std::optional<std::uint32_t> PositionStore::find(const std::vector<std::uint64_t>& identity,
                                                 std::uint64_t key) const {
  const Slot& slot = slots_[slotOf(identity, key)];
  if (slot.number == 0) return std::nullopt;
  return slot.number - 1;
}

std::pair<std::uint32_t, bool> PositionStore::add(const Position& position,
                                                  const std::vector<std::uint64_t>& identity,
                                                  std::uint64_t key) {
  if ((places_.size() + 1) * 3 > slots_.size() * 2) grow();
  Slot& slot = slots_[slotOf(identity, key)];
  if (slot.number != 0) return {slot.number - 1, false};
  slot = {size() + 1, static_cast<std::uint32_t>(key >> 32)};
  const std::vector<std::uint64_t>& words = position.words;
  if (blocks_.empty() || blocks_.back().size() + words.size() > blocks_.back().capacity()) {
    blocks_.emplace_back();
    blocks_.back().reserve(std::max(wordsOfABlock, words.size()));
  }
  std::vector<std::uint64_t>& block = blocks_.back();
  places_.push_back({static_cast<std::uint32_t>(blocks_.size() - 1),
                     static_cast<std::uint32_t>(block.size()),
                     static_cast<std::uint32_t>(words.size())});
  block.insert(block.end(), words.begin(), words.end());
  return {slot.number - 1, true};
}

void PositionStore::grow() {
  slots_.assign(slots_.size() * 2, {});
  std::size_t mask = slots_.size() - 1;
  Position position;
  for (std::uint32_t number = 0; number < size(); ++number) {
    get(number, position);
    std::uint64_t key = keyOf(game_.identity(position));
    std::size_t at = key & mask;
    while (slots_[at].number != 0) at = (at + 1) & mask;
    slots_[at] = {number + 1, static_cast<std::uint32_t>(key >> 32)};
  }
}

std::uint64_t PositionStore::bytes() const {
  return blocks_.size() * wordsOfABlock * sizeof(std::uint64_t) +
         places_.capacity() * sizeof(Place) + slots_.size() * sizeof(Slot);
}

}  // namespace ninepegs::verify
