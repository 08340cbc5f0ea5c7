// What a side sees, as a case says it.
#include "ninepegs/sheet/rules/printer.hpp"
#include "ninepegs/verify/examples.hpp"
#include "ninepegs/verify/questions.hpp"
#include "support/games.hpp"

namespace ninepegs::verify {
namespace sees_test {

const std::string hiding =
    "game hiding\nsides Amber and Slate\nboard square 3 x 3, one each\npiece peg P secret\n"
    "piece saw S secret\ngroup hidden = peg, saw\nmark guessed each\nmove hide\n  need count mine "
    "< 2\n"
    "  pick there in all except mine\n  when any mine\n    put saw on there\n  otherwise\n"
    "    put peg on there\n  written as \"hide \" there\n  seen as \"hidden\"\n"
    "move guess\n  pick there in all except my guessed\n  add there to my guessed\n"
    "  written as there\nturn hide else guess\n"
    "ends\n  mover wins \"found\" when any theirs and theirs within my guessed\n"
    "  draw \"long\" when plies = 12\n"
    "each side sees\n  my guessed except theirs as o on their board\n"
    "  my guessed on theirs as X on their board\n"
    "  kinds k in hidden where any (their k on my guessed)\n";
const std::string played =
    "case \"views\"\n  play hide a1, hide b2, hide a2, hide b3, c3, c1, b2\n";
const std::string amberSees =
    "picture of Amber 3/S2/P2; picture of Slate 3/3/3; guessed of Amber b2 c3; guessed of Slate "
    "c1; "
    "Slate to move; o of Slate on c3; X of Slate on b2; known: peg";
const std::string slateSees =
    "picture of Amber 3/3/3; picture of Slate 1S1/1P1/3; guessed of Amber b2 c3; guessed of Slate "
    "c1; Slate to move; o of Amber on c1";

std::vector<std::string> failures(const std::string& text) {
  std::vector<std::string> out;
  for (const ExampleRun& run : runExamples(*test::fromText(text), 1))
    for (const Finding& finding : run.findings) out.push_back(finding.message);
  return out;
}

TEST(Sees, ComparesAllThatASideSees) {
  std::string good = hiding + played + "  expect Amber sees \"" + amberSees +
                     "\"\n  expect Slate sees \"" + slateSees + "\"\n";
  EXPECT_TRUE(failures(good).empty()) << failures(good)[0];
  for (const std::string& wrong :
       {std::string("nothing"), slateSees, amberSees + " ", amberSees.substr(0, 100)}) {
    std::vector<std::string> said =
        failures(hiding + played + "  expect Amber sees \"" + wrong + "\"\n");
    ASSERT_EQ(said.size(), 1u) << wrong;
    EXPECT_NE(said[0].find("but sees \"" + amberSees + "\""), std::string::npos) << said[0];
  }
  // Printed and read again, it says the same.
  EXPECT_NE(rules::toText(test::fromText(good)->rules()).find("expect Slate sees \"" + slateSees),
            std::string::npos);
}

// Where nothing is secret a side sees the position.
TEST(Sees, EverythingWhereNothingIsSecret) {
  EXPECT_TRUE(
      failures(test::sheetWith("") +
               "case \"open\"\n  play b2\n  expect Slate sees \"5/5/1o3/5; Slate to move\"\n")
          .empty());
}

TEST(Sees, NamesASide) {
  for (const char* line : {"Red sees \"x\"", "Amber sees", "Amber sees x", "mover sees \"x\""}) {
    std::vector<Diagnostic> said = test::messages(hiding + "case \"c\"\n  expect " + line + "\n");
    ASSERT_FALSE(said.empty()) << line;
    EXPECT_EQ(said[0].place.line, 30) << line << ": " << said[0].message;
  }
}

// A slip in what a side is shown is told by a question about what it sees; kept as a case it fails
// on the slip and on nothing else.
TEST(Sees, IsAskedWhereSlipsShowNowhereElse) {
  auto game = test::fromText(hiding);
  Mutants mutants(*game, {.seed = 1});
  mutants.run();
  std::size_t asked = 0, told = 0;
  for (const Question& one : chooseQuestions(mutants, {.most = 30})) {
    if (one.kind != Question::Kind::seen) continue;
    ++asked;
    std::string kept = hiding + caseOf(mutants, one);
    EXPECT_TRUE(failures(kept).empty()) << caseOf(mutants, one) << failures(kept)[0];
    auto with = test::fromText(kept);
    std::vector<rules::Mutation> slips = rules::mutationsOf(with->rules());
    ASSERT_EQ(slips.size(), mutants.all().size());
    for (std::size_t number : one.tells) {
      ++told;
      auto slipped = SheetGame::fromRules(rules::mutated(with->rules(), slips[number]), 0);
      EXPECT_FALSE(runExamples(*slipped, 1)[0].findings.empty()) << rules::toText(slips[number]);
    }
  }
  EXPECT_GE(asked, 1u);
  EXPECT_GE(told, 4u);
}

}  // namespace sees_test
}  // namespace ninepegs::verify
