// A file of several games looked at again.
#include <gtest/gtest.h>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/program.hpp"

namespace ninepegs::test {
namespace review_test {

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

struct Recorded : testing::Test {
  Recorded() {
    writeFile(file,
              "[Game \"tic-tac-toe\"]\n[White \"keeper\"]\n[Black \"guest\"]\n\n1. 1 2 2. 5 3 *\n\n"
              "[Game \"nim\"]\n\n*\n\n"
              "[Game \"tic-tac-toe\"]\n\n1. 5 1 *\n");
  }
  Ran review(std::vector<std::string> more = {}) {
    more.insert(more.begin(), {"review", file});
    return ninepegs(more);
  }
  Folder folder;
  std::string file = (folder / "games.pgn").string();
};

TEST_F(Recorded, EachIsLookedAt) {
  Ran all = review();
  EXPECT_EQ(all.exitCode, 0) << all.err;
  EXPECT_EQ(all.out.find("Game 1: Cross: keeper, Nought: guest\nTic-tac-toe: 4 plies\n"), 0u)
      << all.out;
  EXPECT_TRUE(has(all.out, "\n\nGame 2\n")) << all.out;
  EXPECT_TRUE(has(all.out, "\n\nGame 3\nTic-tac-toe: 2 plies\n")) << all.out;
  EXPECT_TRUE(has(all.out, "\n\n3 games: 1 move gave a result or chances away\n")) << all.out;
  // Each is what it is by itself.
  for (const char* number : {"1", "2", "3"}) {
    Ran one = review({"--number", number});
    EXPECT_EQ(one.exitCode, 0) << one.err;
    EXPECT_FALSE(has(one.out, "Game ")) << one.out;
    EXPECT_TRUE(has(all.out, one.out)) << one.out;
  }
}

TEST_F(Recorded, AsOneObjectEach) {
  std::string out = review({"--json"}).out;
  std::string apart;
  for (const char* number : {"1", "2", "3"}) apart += review({"--json", "--number", number}).out;
  EXPECT_EQ(out, apart);
  EXPECT_EQ(readJson(review({"--json", "--number", "3"}).out)["plies"].size(), 2u);
}

TEST_F(Recorded, AFigureIsOfOne) {
  std::string figure = (folder / "f.svg").string();
  Ran ran = review({"--figure", figure});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "more than one game")) << ran.err;
  EXPECT_FALSE(std::filesystem::exists(figure));
  EXPECT_EQ(review({"--figure", figure, "--number", "3"}).exitCode, 0);
  EXPECT_TRUE(std::filesystem::exists(figure));
}

TEST_F(Recorded, NumbersThatAreNone) {
  for (const char* number : {"0", "-1", "x", "4294967296"})
    EXPECT_TRUE(has(review({"--number", number}).err, "--number")) << number;
  Ran ran = review({"--number", "4"});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "only 3 games")) << ran.err;
}

}  // namespace review_test
}  // namespace ninepegs::test
