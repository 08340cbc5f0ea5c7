#include "ninepegs/base/zeroed_memory.hpp"

#include <sys/mman.h>

#include <new>

namespace ninepegs {

ZeroedMemory::ZeroedMemory(std::size_t bytes) : bytes_(bytes) {
  data_ = mmap(nullptr, bytes, PROT_READ | PROT_WRITE, MAP_PRIVATE | MAP_ANONYMOUS, -1, 0);
  if (data_ == MAP_FAILED) throw std::bad_alloc();
#ifdef MADV_HUGEPAGE
  madvise(data_, bytes, MADV_HUGEPAGE);  // where there are none, nothing is lost
#endif
}

ZeroedMemory::~ZeroedMemory() {
  if (data_ != nullptr) munmap(data_, bytes_);
}

}  // namespace ninepegs
