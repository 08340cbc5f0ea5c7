// Many different positions of one game, numbered from 0 in the order in which they came.
//
//   verify::PositionStore store(*game);
//   auto [number, fresh] = store.add(position);
//   store.get(number, position);
//
// Positions that the rules cannot tell apart (GameRules::identity) are one. Reading from several
// threads is safe as long as none adds.
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <utility>
#include <vector>

#include "ninepegs/game/game.hpp"

namespace ninepegs::verify {

class PositionStore {
 public:
  explicit PositionStore(const Game& game) : game_(game), slots_(1024) {}

  static constexpr std::uint32_t most = 0xfffffff0u;

  // What equal positions have in common, worked out beside the store.
  static std::uint64_t keyOf(const std::vector<std::uint64_t>& identity);

  // Its number; whether it is new. Requires size() < most.
  std::pair<std::uint32_t, bool> add(const Position& position,
                                     const std::vector<std::uint64_t>& identity, std::uint64_t key);
  std::pair<std::uint32_t, bool> add(const Position& position) {
    std::vector<std::uint64_t> identity = game_.identity(position);
    return add(position, identity, keyOf(identity));
  }
  // The number of an equal position, if there is one.
  std::optional<std::uint32_t> find(const std::vector<std::uint64_t>& identity,
                                    std::uint64_t key) const;

  // Requires number < size().
  void get(std::uint32_t number, Position& position) const;
  std::uint32_t size() const { return static_cast<std::uint32_t>(places_.size()); }
  // What the positions take.
  std::uint64_t bytes() const;

 private:
  struct Slot {
    std::uint32_t number = 0;  // plus one; 0: free
    std::uint32_t check = 0;   // the upper half of the key
  };
  struct Place {
    std::uint32_t block = 0, at = 0, words = 0;
  };
  std::size_t slotOf(const std::vector<std::uint64_t>& identity, std::uint64_t key) const;
  void grow();

  const Game& game_;
  std::vector<Slot> slots_;  // a power of two, at most two thirds full
  std::vector<Place> places_;
  std::vector<std::vector<std::uint64_t>> blocks_;
};

}  // namespace ninepegs::verify
