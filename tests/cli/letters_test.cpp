// What is printed and written is UTF-8, whatever the names are and wherever long ones are cut.
#include <gtest/gtest.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/text.hpp"
#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/program.hpp"

namespace ninepegs::test {
namespace letters_test {

std::string umlauts(int count) {
  std::string out = "a";  // so that no even number of bytes ends a letter
  for (int i = 0; i < count; ++i) out += "\xc3\xa4";
  return out;
}

// Tic-tac-toe with something put in the place of something else.
std::string sheetWith(const std::string& was, const std::string& now) {
  std::string text = readFile(NINEPEGS_SOURCE "/sheets/tic-tac-toe.pegs", 100'000);
  text = text.substr(0, text.find("\ncase "));
  for (std::size_t at = 0; (at = text.find(was, at)) != text.npos; at += now.size())
    text.replace(at, was.size(), now);
  return text;
}

TEST(Letters, LongMovesAreCutBehindOne) {
  Folder folder;
  std::string sheet = (folder / "hut.pegs").string(), move = umlauts(45);
  writeFile(sheet, sheetWith("ends\n", "  written as \"\" there\n\nends\n") +
                       "\ncase \"twice\"\n  play " + move + "5\n  play " + move +
                       "5\n  expect ongoing\n");
  std::string out = (folder / "out").string();
  Ran ran = ninepegs({"check", sheet, "--playouts", "20", "--out", out});
  EXPECT_EQ(ran.exitCode, 1) << ran.out << ran.err;
  EXPECT_EQ(firstBadUtf8(ran.out), std::string::npos);
  for (const char* file : {"junit.xml", "report.html", "check.json", "check.sarif"}) {
    std::string text = readFile(out + "/" + file, 10 << 20);
    EXPECT_NE(text.find("\xc3\xa4\xc3\xa4"), std::string::npos) << file;
    EXPECT_EQ(firstBadUtf8(text), std::string::npos) << file;
    EXPECT_EQ(text.find("\xef\xbf\xbd"), std::string::npos) << file;
  }
  ran = ninepegs({"solve", sheet, "--after", move + "5, " + move + "5"});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_EQ(firstBadUtf8(ran.err), std::string::npos) << ran.err;
}

TEST(Letters, LongSidesAreCutBehindOne) {
  Folder folder;
  std::string sheet = (folder / "hut.pegs").string(), game = (folder / "game.txt").string();
  writeFile(sheet, sheetWith("Nought", umlauts(12)));
  ninepegs({"play", sheet, "--first", "random", "--second", "random", "--record", game});
  Ran ran = ninepegs({"review", game, "--game", sheet});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.out.find(umlauts(8) + " | Cross"), std::string::npos) << ran.out;
  EXPECT_EQ(firstBadUtf8(ran.out), std::string::npos);
}

// Folders are named by bytes.
TEST(Letters, PathsMayBeNone) {
  Folder folder;
  std::string in = (folder / "a\xff").string();
  std::filesystem::create_directory(in);
  writeFile(in + "/hut.pegs", sheetWith("three in a line", "a \xc3\xa4 line"));
  for (const std::vector<std::string>& command : std::vector<std::vector<std::string>>{
           {"check", in + "/hut.pegs", "--playouts", "20", "--json"},
           {"check", in + "/hut.pegs", "--playouts", "20", "--out", in + "/out"},
           {"lint", in + "/hut.pegs", "--json"},
           {"explain", in + "/hut.pegs", "--json"},
           {"match", in + "/hut.pegs", "greedy", "random", "--games", "2", "--json"}}) {
    Ran ran = ninepegs(command);
    EXPECT_EQ(ran.exitCode, 0) << command[0] << ran.out << ran.err;
    EXPECT_TRUE(command.back() != "--json" || !readJsonOrNone(ran.out).is_discarded())
        << command[0];
  }
  for (const char* file : {"junit.xml", "report.html", "check.sarif"})
    EXPECT_EQ(firstBadUtf8(readFile(in + "/out/" + file, 10 << 20)), std::string::npos) << file;
}

TEST(Letters, OpponentsAreNamedInUtf8) {
  for (const char* who : {"program:./mine \xff", "uci:nodes=100 ./mine\xff", "gr\xff"}) {
    Ran ran = ninepegs({"match", "othello", who, "random", "--games", "2", "--json"});
    EXPECT_EQ(ran.exitCode, 2);
    EXPECT_EQ(ran.err.find("inside the program"), std::string::npos) << ran.err;
  }
  Ran ran = ninepegs({"match", "othello", "program:./mine \xff", "random"});
  EXPECT_NE(ran.err.find("WHO:1:16: this is not UTF-8"), std::string::npos) << ran.err;
}

}  // namespace letters_test
}  // namespace ninepegs::test
