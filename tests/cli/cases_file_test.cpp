// Cases in NAME.cases.pegs beside NAME.pegs.
#include <gtest/gtest.h>

#include <fstream>
#include <map>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/program.hpp"

namespace ninepegs {
namespace cases_file_test {

using test::Folder;
using test::ninepegs;
using test::Ran;

constexpr const char* corner =
    "game corner\nsides Amber and Slate\nboard square 3 x 3\npiece peg o x\nmove place\n"
    "  pick there in empty\n  put peg on there\nends\n"
    "  mover wins \"three in a row\" when any line of 3 in mine along orthogonal\n"
    "  draw \"board full\" when no empty\n"
    "variant slanting \"slants count\"\n  ends\n"
    "    mover wins \"three in a row\" when any line of 3 in mine\n"
    "    draw \"board full\" when no empty\n";

struct Written {
  explicit Written(const std::string& cases, const std::string& sheet = corner) {
    std::ofstream(folder / "corner.pegs") << sheet;
    std::ofstream(folder / "corner.cases.pegs") << cases;
  }
  Ran check(std::vector<std::string> more = {}) const {
    std::vector<std::string> words = {"check", (folder / "corner.pegs").string(), "--playouts",
                                      "50"};
    words.insert(words.end(), more.begin(), more.end());
    return ninepegs(words);
  }
  Folder folder;
};

TEST(CasesFile, IsRunWithItsSheetAndToldByItsOwnLines) {
  Written good("# kept\ncase \"a row\"\n  play a1, a2, b1, b2, c1\n  expect Amber wins\n");
  Ran ran = good.check();
  EXPECT_EQ(ran.exitCode, 0) << ran.out;
  EXPECT_NE(ran.out.find("1 of 1 passed"), std::string::npos) << ran.out;

  Written bad("\ncase \"a slant\"\n  play a1, a2, b2, a3, c3\n  expect Amber wins\n");
  ran = bad.check();
  EXPECT_EQ(ran.exitCode, 1);
  EXPECT_NE(ran.out.find("line 2 of corner.cases.pegs"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("line 4 of corner.cases.pegs"), std::string::npos) << ran.out;
  Json json = readJson(bad.check({"--json"}).out);
  EXPECT_EQ(json["findings"][0]["line"], 4);
  EXPECT_EQ(json["findings"][0]["file"], (bad.folder / "corner.cases.pegs").string());
  EXPECT_EQ(json["cases"][0]["line"], 2);
}

TEST(CasesFile, MessagesNameItAndItsLines) {
  for (const auto& [cases, says] : std::map<std::string, std::string>{
           {"case \"x\"\n  play a9\n  expekt ongoing\n", "corner.cases.pegs:3:3:"},
           {"\nmove other\n  pick there in empty\n",
            "corner.cases.pegs:2:1: a file of cases holds"},
           {"  case \"x\"\n    expect ongoing\n", "must not be indented"},
           {"case \"x\"\n\texpect ongoing\n", "corner.cases.pegs:2:1: this line holds a tab"},
           {"case \"x\"\n  position\n    o o\n  expect ongoing\n", "corner.cases.pegs:3"},
           {std::string("case \"x\"\n\0", 11), "corner.cases.pegs"},
           {"variant more\n  worth 1\n", "holds cases only"}}) {
    Written written(cases);
    Ran ran = written.check();
    EXPECT_EQ(ran.exitCode, 2) << cases;
    EXPECT_NE(ran.err.find(says), std::string::npos) << ran.err;
  }
}

// The sheet's last line waits for more: the cases are none of it.
TEST(CasesFile, GoesOnWithNothingOfTheSheet) {
  std::string open = corner;
  open += "worth count mine +\n";
  Written written("case \"x\"\n  expect ongoing\n", open);
  Ran ran = written.check();
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_NE(ran.err.find("corner.pegs:15"), std::string::npos) << ran.err;
}

TEST(CasesFile, IsNoGameAndIsTidied) {
  Written written("case   \"x\"\n    expect   ongoing\n");
  std::string path = (written.folder / "corner.cases.pegs").string();
  Ran ran = ninepegs({"show", path});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_NE(ran.err.find("corner.pegs"), std::string::npos) << ran.err;
  EXPECT_EQ(ninepegs({"tidy", path}).exitCode, 0);
  EXPECT_EQ(readFile(path, 10'000), "case \"x\"\n  expect ongoing\n");
  EXPECT_EQ(written.check({"--variant", "slanting"}).exitCode, 0);
  EXPECT_EQ(written.check({"--all-variants"}).exitCode, 0);
}

// `ask` keeps what is right where the sheet keeps its cases.
TEST(CasesFile, TakesWhatAskKeeps) {
  Written written("case \"x\"\n  expect ongoing\n");
  std::string sheet = (written.folder / "corner.pegs").string();
  Ran ran = ninepegs({"ask", sheet, "--questions", "2"}, {.input = "y\ny\n"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_EQ(readFile(sheet, 10'000), corner);
  EXPECT_GT(readFile(written.folder / "corner.cases.pegs", 10'000).size(), 60u);
  ran = written.check();
  EXPECT_NE(ran.out.find("3 of 3 passed"), std::string::npos) << ran.out;
}

}  // namespace cases_file_test
}  // namespace ninepegs
