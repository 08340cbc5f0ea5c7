// The inputs that are kept for the fuzzers, read in every build.
#include <filesystem>

#include "fuzz/targets.hpp"
#include "support/games.hpp"

namespace ninepegs::fuzz {
namespace corpus_test {

TEST(Fuzz, KeptInputsAreReadOrRefused) {
  for (const Target& target : targets()) {
    int read = 0;
    std::filesystem::path folder =
        std::filesystem::path(NINEPEGS_SOURCE) / "tests/fuzz/corpus" / target.name;
    for (const auto& entry : std::filesystem::directory_iterator(folder)) {
      SCOPED_TRACE(entry.path());
      EXPECT_NO_THROW(target.reads(readFile(entry.path().string(), 1 << 20)));
      ++read;
    }
    EXPECT_GE(read, 3) << target.name;
  }
}

}  // namespace corpus_test
}  // namespace ninepegs::fuzz
