// `mutate` and `ask`, as they are run.
#include <algorithm>
#include <filesystem>
#include <fstream>

#include <gtest/gtest.h>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/program.hpp"

namespace ninepegs {
namespace ask_test {

using test::Folder;
using test::ninepegs;
using test::Ran;

constexpr const char* corner = R"(game corner
sides Amber and Slate
board square 3 x 3
piece peg o x
move place
  pick there in empty
  put peg on there
ends
  mover wins "three in a row" when any line of 3 in mine along orthogonal
  draw "board full" when no empty
)";

std::string sheetIn(const Folder& folder, const std::string& text = corner) {
  std::string path = (folder / "corner.pegs").string();
  std::ofstream(path) << text;
  return path;
}

TEST(Mutate, TellsWhatTheSheetNotices) {
  Folder folder;
  std::string path = sheetIn(folder);
  Ran ran = ninepegs({"mutate", path});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  for (const char* part :
       {"mutants with one slip each, seed 1", "Not noticed",
        "`mover loses \"three in a row\"` where it says", "of those that differ, ", "ninepegs ask"})
    EXPECT_NE(ran.out.find(part), std::string::npos) << part << "\n" << ran.out;
  EXPECT_EQ(ninepegs({"mutate", path, "--at-least", "50"}).exitCode, 1);
  Ran one = ninepegs({"mutate", path, "--json", "--threads", "1"});
  Ran two = ninepegs({"mutate", path, "--json", "--threads", "3"});
  EXPECT_EQ(one.out, two.out);
  auto json = readJson(one.out);
  EXPECT_EQ(json["totals"]["mutants"], json["mutants"].size());
  std::size_t sum = 0;
  for (const char* key : {"case", "playouts", "refused", "same", "missed"})
    sum += json["totals"][key].get<std::size_t>();
  EXPECT_EQ(sum, json["mutants"].size());
  EXPECT_TRUE(json["complete"].get<bool>());
}

TEST(Ask, KeepsWhatIsRightAndTellsTheLinesOfWhatIsNot) {
  Folder folder;
  std::string path = sheetIn(folder);
  std::size_t before =
      readJson(ninepegs({"mutate", path, "--json"}).out)["totals"]["missed"].get<std::size_t>();
  Ran ran = ninepegs({"ask", path, "--questions", "3"}, {.input = "what\ny\nn\nq\n"});
  EXPECT_EQ(ran.exitCode, 1) << ran.out << ran.err;  // an answer was no
  for (const char* part :
       {"Question 1; more are being looked for", "Question 2 of 3", "Right? (y, n, s to skip, q)",
        "y: it is right", "Then one of these lines may be wrong:", "1 case kept in",
        "1 question not asked", "In doubt:"})
    EXPECT_NE(ran.out.find(part), std::string::npos) << part << "\n" << ran.out;
  std::string sheet = readFile(path, 10'000);
  EXPECT_EQ(sheet.rfind(corner, 0), 0u);  // what was there stays
  EXPECT_NE(sheet.find("\ncase \""), std::string::npos);
  EXPECT_EQ(ninepegs({"check", path, "--playouts", "10"}).exitCode, 0);
  EXPECT_EQ(ninepegs({"tidy", "--check", path}).exitCode, 0);
  std::size_t after =
      readJson(ninepegs({"mutate", path, "--json"}).out)["totals"]["missed"].get<std::size_t>();
  EXPECT_LT(after, before);
}

TEST(Ask, ProposesWithoutAsking) {
  Folder folder;
  std::string path = sheetIn(folder), cases = (folder / "cases.txt").string();
  Ran ran = ninepegs({"ask", path, "--propose", cases, "--questions", "4"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.out.find("4 questions written"), std::string::npos) << ran.out;
  EXPECT_EQ(readFile(path, 10'000), corner);
  std::ofstream(path, std::ios::app) << readFile(cases, 10'000);
  EXPECT_EQ(ninepegs({"check", path, "--playouts", "10"}).exitCode, 0);
  Ran json = ninepegs({"ask", path, "--json"});
  auto questions = readJson(json.out)["questions"];
  ASSERT_FALSE(questions.empty());
  for (const auto& one : questions) {
    EXPECT_GT(one["tells"].get<int>(), 0);
    EXPECT_EQ(one["case"].get<std::string>().rfind("case \"", 0), 0u);
  }
}

// All that differs being noticed, there is nothing to ask.
TEST(Ask, EndsWhenThereIsNothingToAsk) {
  Folder folder;
  std::string path = sheetIn(folder), cases = (folder / "cases.txt").string();
  ninepegs({"ask", path, "--propose", cases, "--questions", "100"});
  std::ofstream(path, std::ios::app) << readFile(cases, 10'000);
  Ran ran = ninepegs({"ask", path}, {.input = ""});
  EXPECT_EQ(ran.exitCode, 0);
  EXPECT_NE(ran.out.find("nothing to ask"), std::string::npos) << ran.out;
}

TEST(Ask, BadUseIsToldAndWritesNothing) {
  Folder folder;
  std::string path = sheetIn(folder);
  for (std::vector<std::string> arguments :
       {std::vector<std::string>{"ask", path, "--questions", "0"},
        {"ask", path, "--keep", "/nowhere/cases"},
        {"ask", path, "--propose", (folder / "none/cases").string()},
        {"ask", (folder / "none.pegs").string()},
        {"mutate", path, "--at-least", "101"},
        {"mutate", path, "--seed", "-1"}}) {
    Ran ran = ninepegs(arguments, {.input = "y\n"});
    EXPECT_EQ(ran.exitCode, 2) << arguments[2];
    EXPECT_FALSE(ran.err.empty());
    EXPECT_EQ(readFile(path, 10'000), corner);
  }
  // The end of input ends the questions.
  Ran ran = ninepegs({"ask", path}, {.input = ""});
  EXPECT_EQ(ran.exitCode, 0);
  EXPECT_NE(ran.out.find("not asked"), std::string::npos);
  EXPECT_EQ(readFile(path, 10'000), corner);
}

}  // namespace ask_test
}  // namespace ninepegs
