// One target, NINEPEGS_TARGET, as libFuzzer calls it. Built by Clang with NINEPEGS_FUZZ.
#include <cstddef>
#include <cstdint>
#include <cstring>

#include "fuzz/targets.hpp"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
  static const ninepegs::fuzz::Target& target = [&]() -> const auto& {
    for (const ninepegs::fuzz::Target& one : ninepegs::fuzz::targets())
      if (std::strcmp(one.name, NINEPEGS_TARGET) == 0) return one;
    __builtin_trap();
  }
  ();
  target.reads(std::string(reinterpret_cast<const char*>(bytes), size));
  return 0;
}
