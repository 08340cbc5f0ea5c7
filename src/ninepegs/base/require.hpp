// What a caller must have seen to. Looked at in debug and sanitizer builds only, where the program
// ends at once with the place of the condition; elsewhere it costs nothing and is not evaluated.
//
//   NINEPEGS_REQUIRE(seed < 10);
#pragma once

#ifdef NINEPEGS_ASSERTIONS
#include <cstdio>
#include <cstdlib>

namespace ninepegs {
[[noreturn]] inline void requirementBroken(const char* condition, const char* file, int line) {
  std::fprintf(stderr, "%s:%d: required, and not so: %s\n", file, line, condition);
  std::abort();
}
}  // namespace ninepegs

#define NINEPEGS_REQUIRE(condition) \
  ((condition) ? static_cast<void>(0) : ninepegs::requirementBroken(#condition, __FILE__, __LINE__))
#else
#define NINEPEGS_REQUIRE(condition) static_cast<void>(sizeof((condition) ? 1 : 0))
#endif
