// The numbers on the sides of tiles, as a case says them, and slips in them.
#include "ninepegs/sheet/rules/printer.hpp"
#include "ninepegs/verify/examples.hpp"
#include "ninepegs/verify/questions.hpp"
#include "support/games.hpp"

namespace ninepegs::verify {
namespace edges_test {

const std::string tiles =
    "game tiles\nsides Amber and Slate\nboard hexagon 2\npiece ash A a edges 7 2 5 1 6 3\n"
    "piece elm E e edges 3 3 3 3 3 3\nstart\n  hand of each 2 ash, elm\n"
    "move lay\n  choose card from my hand\n  pick there in empty\n  put card on there from my "
    "hand\n"
    "  flip cells n in step any from there on theirs where edge of there towards n > edge of n "
    "towards there\n"
    "  written as card \" \" there\n"
    "ends\n  leader in count mine wins \"more\" or draw \"as many\" when no my hand and no their "
    "hand\n";

std::string failure(const std::string& expected) {
  std::string text = tiles + "case \"sides\"\n  expect " + expected + "\n";
  for (const ExampleRun& run : runExamples(*test::fromText(text), 1))
    for (const Finding& finding : run.findings) return finding.message;
  return "";
}

TEST(Edges, AreExpectedInFull) {
  EXPECT_EQ(failure("edges of ash = 7 2 5 1 6 3"), "");
  EXPECT_EQ(failure("edges of elm = 3 3 3 3 3 3"), "");
  for (const char* wrong : {"7 2 5 1 6 4", "7 2 5 1 6", "7 2 5 1 6 3 3", "2 7 5 1 6 3"})
    EXPECT_NE(failure(std::string("edges of ash = ") + wrong)
                  .find(std::string("the sides of ash should say ") + wrong +
                        ", but they say 7 2 5 1 6 3"),
              std::string::npos)
        << wrong;
  EXPECT_NE(failure("edges of ash ="), "");
  // Printed and read again it says the same.
  auto game = test::fromText(tiles + "case \"c\"\n  expect edges of ash = 7 2 5 1 6 3\n");
  EXPECT_NE(rules::toText(game->rules()).find("  expect edges of ash = 7 2 5 1 6 3\n"),
            std::string::npos);
}

TEST(Edges, NeedATile) {
  for (const char* line : {"edges of oak = 1", "edges of ash", "edges of ash = x",
                           "edges of ash = 1, 2", "edges of Amber = 1"}) {
    std::vector<Diagnostic> said = test::messages(tiles + "case \"c\"\n  expect " + line + "\n");
    ASSERT_FALSE(said.empty()) << line;
    EXPECT_EQ(said[0].place.line, 17) << line << ": " << said[0].message;
    EXPECT_FALSE(said[0].hint.empty() && said[0].message.empty()) << line;
  }
  // A piece without numbers.
  std::vector<Diagnostic> said =
      test::messages(test::sheetWith("") + "case \"c\"\n  expect edges of peg = 1\n");
  ASSERT_EQ(said.size(), 1u);
  EXPECT_NE(said[0].message.find("no piece called \"peg\" has numbers"), std::string::npos);
}

// The set-up card shows them, so that one question tells every slip in them.
TEST(Edges, AreOnTheSetUpCard) {
  auto game = test::fromText(tiles);
  Mutants mutants(*game, {.seed = 1});
  mutants.run();
  std::size_t slips = 0, told = 0;
  for (const Mutant& one : mutants.all()) {
    if (one.mutation.was.find(" edges ") == std::string::npos) continue;
    ++slips;
    told += !one.shows.empty() && one.shows.front().kind == Difference::Kind::start;
  }
  EXPECT_EQ(slips, 2u);
  EXPECT_EQ(told, slips);
  bool card = false;
  for (const Question& one : chooseQuestions(mutants, {.most = 30})) {
    if (one.kind != Question::Kind::setUp) continue;
    card = true;
    std::string kept = caseOf(mutants, one);
    EXPECT_NE(kept.find("  expect edges of ash = 7 2 5 1 6 3\n"), std::string::npos) << kept;
    EXPECT_TRUE(runExamples(*test::fromText(tiles + kept), 1)[0].findings.empty());
    std::string wrong = tiles;
    wrong.replace(wrong.find("6 3\n"), 3, "6 4");
    EXPECT_FALSE(runExamples(*test::fromText(wrong + kept), 1)[0].findings.empty());
  }
  EXPECT_TRUE(card);
}

}  // namespace edges_test
}  // namespace ninepegs::verify
