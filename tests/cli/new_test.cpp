// `new` with --like and --from-words.
#include <gtest/gtest.h>

#include <algorithm>
#include <fstream>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/program.hpp"

namespace ninepegs {
namespace new_test {

using test::Folder;
using test::ninepegs;
using test::Ran;

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

class NewLike : public testing::TestWithParam<const char*> {};

// Each works, is short, has two cases, is tidy, and nothing about it is suspect.
TEST_P(NewLike, IsAGameThatWorks) {
  Folder folder;
  Ran ran = ninepegs({"new", "my-game", "--like", GetParam()}, {.folder = folder.path()});
  ASSERT_EQ(ran.exitCode, 0) << ran.err;
  std::string sheet = readFile(folder.path() / "my-game.pegs", 10'000);
  EXPECT_EQ(sheet.substr(0, 32), "game my-game\ntitle \"My game\"\nabo");
  EXPECT_LT(std::count(sheet.begin(), sheet.end(), '\n'), 40);
  Ran check = ninepegs({"check", "my-game.pegs", "--playouts", "1500", "--seed", "3"},
                       {.folder = folder.path()});
  EXPECT_EQ(check.exitCode, 0) << check.out << check.err;
  EXPECT_TRUE(has(check.out, "Cases of the sheet  2 of 2 passed")) << check.out;
  EXPECT_FALSE(has(check.out, "Suspect")) << check.out;
  EXPECT_FALSE(has(check.out, "statement that no game used")) << check.out;
  Ran lint = ninepegs({"lint", "my-game.pegs"}, {.folder = folder.path()});
  EXPECT_TRUE(has(lint.out, "nothing suspect")) << lint.out;
  EXPECT_EQ(ninepegs({"tidy", "my-game.pegs", "--check"}, {.folder = folder.path()}).exitCode, 0);
}
INSTANTIATE_TEST_SUITE_P(Every, NewLike,
                         testing::Values("rows", "drop", "take", "turn", "join", "hexes", "heaps",
                                         "fleet", "sow", "lines"),
                         [](const auto& one) { return std::string(one.param); });

TEST(New, LikeWhatIsNotThere) {
  Folder folder;
  Ran ran = ninepegs({"new", "mine", "--like", "head"}, {.folder = folder.path()});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "did you mean \"heaps\"?")) << ran.err;
  EXPECT_EQ(ninepegs({"new", "mine", "--like", "../rows"}, {.folder = folder.path()}).exitCode, 2);
  EXPECT_EQ(ninepegs({"new", "Mine", "--like", "rows"}, {.folder = folder.path()}).exitCode, 2);
  EXPECT_TRUE(std::filesystem::is_empty(folder.path()));
}

Ran fromWords(const Folder& folder, const std::string& words) {
  std::ofstream(folder.path() / "words.txt") << words;
  return ninepegs({"new", "mine", "--from-words", "words.txt"}, {.folder = folder.path()});
}

TEST(New, FromWordsKeepsThemBesideEachPart) {
  Folder folder;
  Ran ran =
      fromWords(folder,
                "Pegs # in the hut\n\nPlayers: Anna and Ben\r\n## Board\n\tthree by three, "
                "with \"quotes\"\n- Pieces: pegs\n**A turn**: put one down\nThe end: three in "
                "a row\n");
  ASSERT_EQ(ran.exitCode, 0) << ran.err;
  std::string sheet = readFile(folder.path() / "mine.pegs", 10'000);
  for (const char* part :
       {"about\n  Pegs   in the hut\n", "  Players: Anna and Ben\n",
        "# players: Anna and Ben\nsides ", "# board: three by three, with \"quotes\"\nboard ",
        "# pieces: pegs\npiece ", "# a turn: put one down\nmove ",
        "# how it ends: three in a row\nends "})
    EXPECT_TRUE(has(sheet, part)) << part << "\n" << sheet;
  EXPECT_EQ(
      ninepegs({"check", "mine.pegs", "--playouts", "200"}, {.folder = folder.path()}).exitCode, 0);
  EXPECT_EQ(ninepegs({"tidy", "mine.pegs", "--check"}, {.folder = folder.path()}).exitCode, 0);
}

TEST(New, FromWordsSaysWhatIsMissing) {
  Folder folder;
  Ran ran = fromWords(folder, "board: five by five\n");
  ASSERT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_TRUE(has(readFile(folder.path() / "mine.pegs", 10'000),
                  "# players: (the words say nothing of it)\n"));
}

TEST(New, FromWordsRefusesWhatIsNoDescription) {
  for (const std::string& words :
       {std::string(), std::string("just a text\nwithout any heading\n"), std::string("\xff\xfe\n"),
        std::string("board: a\0b\n", 11), std::string(2'000'000, 'x')}) {
    Folder folder;
    Ran ran = fromWords(folder, words);
    EXPECT_EQ(ran.exitCode, 2) << words.substr(0, 30);
    EXPECT_FALSE(std::filesystem::exists(folder.path() / "mine.pegs"));
    EXPECT_FALSE(ran.err.empty());
  }
}

}  // namespace new_test
}  // namespace ninepegs
