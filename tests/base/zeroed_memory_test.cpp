#include "ninepegs/base/zeroed_memory.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <cstdint>
#include <new>

namespace ninepegs {
namespace zeroed_memory_test {

TEST(ZeroedMemory, IsZeroAndAligned) {
  ZeroedMemory memory(3'000'001);
  auto* bytes = static_cast<const unsigned char*>(memory.data());
  EXPECT_EQ(reinterpret_cast<std::uintptr_t>(bytes) % 64, 0u);
  EXPECT_TRUE(
      std::all_of(bytes, bytes + memory.size(), [](unsigned char one) { return one == 0; }));
}

TEST(ZeroedMemory, IsMoved) {
  ZeroedMemory one(100), other;
  static_cast<char*>(one.data())[7] = 'x';
  other = std::move(one);
  EXPECT_EQ(static_cast<char*>(other.data())[7], 'x');
  ZeroedMemory third(std::move(other));
  EXPECT_EQ(third.size(), 100u);
  EXPECT_EQ(other.data(), nullptr);
}

TEST(ZeroedMemory, SaysWhenThereIsNotEnough) {
  EXPECT_THROW(ZeroedMemory(std::size_t{1} << 62), std::bad_alloc);
}

}  // namespace zeroed_memory_test
}  // namespace ninepegs
