#include "ninepegs/base/files.hpp"

#include <gtest/gtest.h>
#include <sys/stat.h>
#include <unistd.h>

#include <fstream>

#include "ninepegs/base/diagnostic.hpp"
#include "support/folder.hpp"

namespace ninepegs {
namespace files_test {

namespace fs = std::filesystem;
using test::Folder;

std::size_t filesIn(const fs::path& folder) {
  std::size_t count = 0;
  for (const auto& entry : fs::directory_iterator(folder)) count += entry.exists() ? 1 : 0;
  return count;
}

TEST(Files, WritesWholeAndLeavesNothingBeside) {
  Folder folder;
  writeFile(folder / "a.txt", "one");
  writeFile(folder / "a.txt", "two");
  EXPECT_EQ(readFile(folder / "a.txt", 100), "two");
  EXPECT_EQ(filesIn(folder.path()), 1u);
}

// Where nothing is wrong with the name, it is the system that fails.
TEST(Files, AFullDiskIsNoBadInput) {
  EXPECT_THROW(writeFile("/dev/full", "keeper"), SystemFailure);
  EXPECT_THROW(writeFile("/no such folder/box", "keeper"), BadInput);
}

TEST(Files, RefusesWhatCannotBeReadOrWritten) {
  Folder folder;
  EXPECT_THROW(readFile(folder / "none", 100), BadInput);
  EXPECT_THROW(readFile(folder.path(), 100), BadInput);
  writeFile(folder / "big", std::string(101, 'x'));
  EXPECT_THROW(readFile(folder / "big", 100), BadInput);
  EXPECT_THROW(writeFile(folder / "no/such/folder/a", "x"), BadInput);
  EXPECT_THROW(writeFile(folder.path(), "x"), BadInput);
  EXPECT_THROW(makeFolder(folder / "big"), BadInput);
  EXPECT_THROW(makeFolder(folder / "big/below"), BadInput);
  makeFolder(folder / "x/y/z");
  EXPECT_TRUE(fs::is_directory(folder / "x/y/z"));
}

TEST(Files, APendingFileThatIsNotKeptGoesAway) {
  Folder folder;
  {
    PendingFile pending(folder / "chart.png");
    std::ofstream(pending.temporary()) << "half";
    EXPECT_EQ(filesIn(folder.path()), 1u);
    EXPECT_EQ(pending.temporary().extension(), ".png");
  }
  EXPECT_EQ(filesIn(folder.path()), 0u);
  {
    PendingFile pending(folder / "chart.png");
    std::ofstream(pending.temporary()) << "whole";
    pending.keep();
  }
  EXPECT_EQ(readFile(folder / "chart.png", 100), "whole");
}

}  // namespace files_test
}  // namespace ninepegs
