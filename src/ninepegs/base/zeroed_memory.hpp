// Memory that is all zeros, for large tables that are read here and there: in large pages where the
// system has them, so that a look at a far place costs one miss and not two.
//
//   ZeroedMemory memory(1 << 20);
//   auto* words = static_cast<std::uint64_t*>(memory.data());
//
// Owns its bytes, aligned to 64; what is never touched takes no room. Moved from, it is empty.
#pragma once

#include <cstddef>
#include <utility>

namespace ninepegs {

class ZeroedMemory {
 public:
  ZeroedMemory() = default;
  // Requires bytes > 0. Throws std::bad_alloc.
  explicit ZeroedMemory(std::size_t bytes);
  ZeroedMemory(ZeroedMemory&& other) noexcept
      : data_(std::exchange(other.data_, nullptr)), bytes_(std::exchange(other.bytes_, 0)) {}
  ZeroedMemory& operator=(ZeroedMemory&& other) noexcept {
    std::swap(data_, other.data_);
    std::swap(bytes_, other.bytes_);
    return *this;
  }
  ~ZeroedMemory();

  void* data() const { return data_; }
  std::size_t size() const { return bytes_; }

 private:
  void* data_ = nullptr;
  std::size_t bytes_ = 0;
};

}  // namespace ninepegs
