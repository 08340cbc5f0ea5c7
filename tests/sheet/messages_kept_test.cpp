// Messages that help on: hints at the slip, what comes after a slip, and answers to huge input.
#include <set>

#include "ninepegs/base/random.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"
#include "ninepegs/sheet/text/tidy.hpp"
#include "ninepegs/sheet/words/explain.hpp"
#include "ninepegs/verify/examples.hpp"
#include "support/games.hpp"

namespace ninepegs {
namespace messages_kept_test {

struct Slip {
  const char* lines;
  const char* message;
  const char* hint;
};
class Slips : public testing::TestWithParam<Slip> {};

TEST_P(Slips, AreNamed) {
  std::vector<Diagnostic> found = test::messages(test::sheetWith(GetParam().lines));
  ASSERT_FALSE(found.empty());
  EXPECT_NE(found[0].message.find(GetParam().message), std::string::npos) << toText(found[0]);
  EXPECT_NE(found[0].hint.find(GetParam().hint), std::string::npos) << toText(found[0]);
}

INSTANTIATE_TEST_SUITE_P(
    Sheets, Slips,
    testing::Values(
        Slip{"move hop\n  pick here in mine\n  move here to b2", "begins with \"move\"",
             "shift here to there"},
        Slip{"number n\nmove hop\n  set n to n-1", "nothing here is called \"n-1\"", "n - 1"},
        Slip{"define x = count mine-1", "\"mine-1\"", "mine - 1"},
        Slip{"piece bar # neutral", "a comment begins here", "no letter for a piece"},
        Slip{"define x = empty except corner or edge", "`or` and `except` meet",
             "A except (B or C)"},
        Slip{"define x = any mine and no theirs or any edge", "`and` and `or` meet",
             "(A and B) or C"},
        Slip{"zone\u00a0far = row 1", "a no-break space", "plain blank"},
        Slip{"title \u201cOdd\u201d", "a curly quote", "straight quotes"},
        Slip{"case \"a\"\n  expect mover wins", "\"mover\" is none", "name the side"},
        Slip{"case \"a\"\n  expect not legal banana", "no move that this game could have",
             "such as"},
        Slip{"case \"a\"\n  expect not legal a1,, b1", "missing between", ""},
        Slip{"group box = peg, saw, peg", "stands twice", ""},
        Slip{"define x = any my touched", "\"touched\" is the same for both", "leave out"},
        Slip{"define x = any my mine", "says already whose", "leave out"},
        Slip{"define x = any (edge on touched of Amber)", "the same for both", "leave out"},
        Slip{"move hop\n  choose n from 1 to 3\n  written as row of n", "but \"n\" is a number",
             "only a cell"},
        Slip{"move hop\n  choose k from peg\n  put k on a1\n  written as column of k",
             "but \"k\" is a kind", "only a cell"},
        Slip{"move hop\n  pick here in mine\n  written as row of -1", "a cell should stand", ""},
        Slip{"define c = count mine\nmove hop\n  pick here in mine\n  written as row of c",
             "a cell should stand", ""},
        Slip{"move hop\n  pick here in mine\n  written as here \",\"", "no comma", "listed"},
        Slip{"number left each\nstart\n  left of each (\n    mine", "a number should stand", ""},
        Slip{"piece pin p for Slate\nstart\n  pin of Amber a1", "Amber has no pin", "for Slate"},
        Slip{"symmetric under half turn\nsymmetric under half turn", "a second time", ""}));

// A position's line that goes on: messages point at the line where the slip stands.
TEST(MessagesKept, ASlipInALineThatGoesOnHasItsPlace) {
  std::vector<Diagnostic> found =
      test::messages(test::sheetWith("start\n  peg of Amber a1,\n    b1,\n    zz, c1"));
  ASSERT_EQ(found.size(), 1u);
  EXPECT_EQ(found[0].place.line, 9);
  EXPECT_EQ(found[0].place.column, 5);
  EXPECT_EQ(found[0].place.text, "    zz, c1");
}

// `row of X` takes whatever is a cell, also what is not named.
TEST(MessagesKept, ATextShowsTheRowOfAnyCell) {
  std::shared_ptr<const Game> game = test::fromText(
      test::sheetWith("move hop\n  pick here in empty\n  put saw on here\n"
                      "  written as row of (north of here) \"/\" column of (here on column a)"));
  std::vector<std::string> texts = moveTexts(*game, game->start());
  EXPECT_NE(std::find(texts.begin(), texts.end(), "3/a"), texts.end());
}

TEST(MessagesKept, PointsTooFarApartAreNoBoard) {
  std::vector<Diagnostic> found = test::messages(
      "game t\nsides A and B\nboard points\n  line a1 a400\n  line a1 c1\nmove m\n"
      "  pick there in empty\nends\n  mover wins \"w\" when any line of 2 in a1\n");
  ASSERT_EQ(found.size(), 1u);
  EXPECT_EQ(found[0].place.line, 3);
  // With an error of the grammar, too: slips behind it are looked for.
  EXPECT_FALSE(test::messages("game t\nsides A and B\nboard points\n  line a1 a400\n"
                              "  line a1 c1\nmove m\n a2\nends\n"
                              "  mover wins \"w\" when any line of 2 in a1\n")
                   .empty());
}

TEST(MessagesKept, AByteOrderMarkIsPassedOver) {
  EXPECT_TRUE(test::messages("\xef\xbb\xbf" + test::sheetWith("")).empty());
}

TEST(MessagesKept, ASlipBehindAnErrorIsToldToo) {
  std::vector<Diagnostic> found = test::messages(
      "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\nzone = row 1\n"
      "move place\n  pick there in emty\n  put peg on there\nends\n  draw \"full\" when no "
      "empty\n");
  ASSERT_EQ(found.size(), 2u);
  EXPECT_EQ(found[0].place.line, 5);
  EXPECT_EQ(found[1].place.line, 7);
  EXPECT_EQ(found[1].hint, "did you mean \"empty\"?");
}

// A kind that is not there is no other kind: not the first of the sheet, where there is one.
TEST(MessagesKept, AKindThatIsNotThereIsToldAlone) {
  for (const char* pieces : {"", "piece stone * neutral\n"})
    for (const char* lines : {"move m\n  change all into peg\n", "move m\n  put peg on a1\n",
                              "move m\n  choose k from peg\n  put k on a1\n",
                              "group box = peg\nmove m\n  take box\n"}) {
      std::string sheet = std::string("game odd\nsides Amber and Slate\nboard square 3 x 3\n") +
                          pieces + lines + "ends\n  draw \"over\" when plies > 1\n";
      std::vector<Diagnostic> found = test::messages(sheet);
      int ofKinds = 0;
      for (const Diagnostic& one : found)
        ofKinds += one.message.find("peg") != std::string::npos ? 1 : 0;
      EXPECT_EQ(ofKinds, 1) << sheet << toText(found[0]);
      EXPECT_LE(found.size(), pieces[0] == 0 ? 2u : 1u) << sheet << toText(found.back());
    }
}

TEST(MessagesKept, TheSameIsToldOnce) {
  EXPECT_EQ(test::messages(
                test::sheetWith(
                    "define x = emty\ndefine y = x\nzone far = row 1 for Amber, row 2 for Slate\n"))
                .size(),
            1u);
}

TEST(MessagesKept, ALineOfMovesGoesOnOnlyAfterAComma) {
  std::string sheet = test::sheetWith(
      "case \"a\"\n  play a1,\n    b1\n  expect not legal a1-\n  expect 100 moves\n");
  std::shared_ptr<const SheetGame> game = test::fromText(sheet);
  std::vector<verify::ExampleRun> runs = verify::runExamples(*game, 1);
  ASSERT_EQ(runs.size(), 1u);
  ASSERT_EQ(runs[0].findings.size(), 1u);
  EXPECT_NE(runs[0].findings[0].message.find("100 moves"), std::string::npos);
}

TEST(MessagesKept, AComparisonThatFailsSaysItsNumbers) {
  std::shared_ptr<const SheetGame> game =
      test::fromText(test::sheetWith("case \"a\"\n  play a1, b1\n  expect count occupied = 3\n"));
  std::vector<verify::ExampleRun> runs = verify::runExamples(*game, 1);
  ASSERT_EQ(runs[0].findings.size(), 1u);
  EXPECT_NE(runs[0].findings[0].message.find("2 = 3"), std::string::npos)
      << runs[0].findings[0].message;
}

TEST(MessagesKept, AQuotedHashIsPartOfAStatement) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\nmove place\n  pick there in "
      "empty\n"
      "  put peg on there\nends\n  draw \"a # b\" when no empty  # comment\n");
  EXPECT_EQ(game->ruleLines().back().text, "draw \"a # b\" when no empty");
}

// Input of a megabyte is refused with some messages, and not worked at for long: what would be
// quadratic took minutes.
TEST(MessagesKept, MuchIsAnsweredWithSomeMessages) {
  std::string head = "game t\nsides A and B\nboard square 5 x 4\npiece peg o x\n";
  std::string moves =
      "move place\n  pick there in empty\n  put peg on there\nends\n  draw \"full\" when no "
      "empty\n";
  std::string names, picks = head + "move q\n", nonsense = head + moves, sums = "define x = 1",
                     mirrored = head + moves;
  for (int i = 0; i < 20000; ++i) names += "zone z" + std::to_string(i) + " = row 1\n";
  for (int i = 0; i < 12000; ++i)
    names += "zone y" + std::to_string(i) + " = zz" + std::to_string(i) + "\n";
  for (int i = 0; i < 40000; ++i) picks += "  pick x" + std::to_string(i) + " in empty\n";
  picks += moves;
  for (int i = 0; i < 250000; ++i) nonsense += "zz\n";
  for (int i = 0; i < 40000; ++i) mirrored += "symmetric under all\n";
  for (int i = 0; i < 20000; ++i) sums += i % 900 == 899 ? " +\n    1" : " + 1";
  for (const std::string& text : {head + names + moves, picks, nonsense, mirrored}) {
    std::size_t many = test::messages(text).size();
    EXPECT_GE(many, 20u);
    EXPECT_LE(many, 100u);
  }
  std::vector<Diagnostic> found = test::messages(head + sums + "\n" + moves);
  ASSERT_FALSE(found.empty());
  EXPECT_NE(found[0].message.find("1000 operators"), std::string::npos) << found[0].message;
  std::string comments = head + moves;
  for (int i = 0; i < 400000; ++i) comments += "#\n";
  EXPECT_EQ(sheet::tidied(sheet::Source("t", comments)).size(), comments.size());
}

TEST(MessagesKept, DefinitionsThatGoDeepAreRefused) {
  std::string text = "define qa0 = 1\n";
  for (int i = 1; i < 31; ++i) {
    text += "define qa" + std::to_string(i) + "q = qa" + std::to_string(i - 1) + (i > 1 ? "q" : "");
    for (int k = 0; k < 400; ++k) text += " + 1";
    text += "\n";
  }
  std::vector<Diagnostic> found = test::messages(test::sheetWith(text + "worth qa30q"));
  ASSERT_FALSE(found.empty());
  EXPECT_NE(found[0].message.find("deeper than"), std::string::npos) << found[0].message;
}

TEST(MessagesKept, WorkIsWeighed) {
  std::shared_ptr<const SheetGame> heavy = test::fromText(
      "game t\nsides A and B\nboard square 16 x 32\npiece peg o x\nmove place\n  pick there in "
      "empty\n"
      "  put peg on there\n  written as \"x\"\nworth total (total (total (count lines of 2 in all) "
      "for a in all) for b "
      "in all) for c in all\nends\n  draw \"full\" when no empty\n");
  EXPECT_THROW(heavy->worth(heavy->start(), 0), RunawayRules);
  // Many ways of one text are held against each other by what they come to.
  std::shared_ptr<const SheetGame> many = test::fromText(
      "game t\nsides A and B\nboard square 16 x 32\npiece peg o x\nmark met\nmove place\n  pick a "
      "in rows 1 to 4\n"
      "  pick b in rows 1 to 4\n  add b to met\n  written as \"x\"\nends\n  draw \"full\" when no "
      "empty\n");
  EXPECT_EQ(moveTexts(*many, many->start()).size(), 64u);
}

TEST(MessagesKept, TidyingTwiceIsTidyingOnce) {
  for (const char* text :
       {"worth\n 1  0\n  1\n  9 1\n", "about-\nsecond\n", "worth\n  1\n   9 1\n  9 1\n"}) {
    std::string once = sheet::tidied(sheet::Source("t", text));
    EXPECT_EQ(sheet::tidied(sheet::Source("t", once)), once);
  }
}

// No two conditions are said with the same words.
TEST(MessagesKept, DifferentConditionsHaveDifferentSentences) {
  Stream stream(5, 1);
  auto below = [&](std::uint32_t n) { return stream.below(n); };
  auto set = [&](auto&& self, int deep) -> std::string {
    static const char* const names[] = {"mine", "theirs", "empty", "corner", "edge",
                                        "a2",   "my peg", "row 1", "all"};
    if (deep == 0 || below(3) == 0) return names[below(9)];
    std::string a = "(" + self(self, deep - 1) + ")", b = "(" + self(self, deep - 1) + ")";
    switch (below(8)) {
      case 0:
        return a + " on " + b;
      case 1:
        return a + " or " + b;
      case 2:
        return a + " except " + b;
      case 3:
        return "north of " + a;
      case 4:
        return "step any from " + a;
      case 5:
        return "spread from " + a + " through " + b;
      case 6:
        return "was " + a;
      default:
        return "bracketed " + a + " from a1 by " + b;
    }
  };
  auto condition = [&](auto&& self, int deep) -> std::string {
    if (deep == 0 || below(4) == 0) {
      switch (below(4)) {
        case 0:
          return "any (" + set(set, 2) + ")";
        case 1:
          return "no (" + set(set, 1) + ")";
        case 2:
          return "any line of 3 in (" + set(set, 1) + ")";
        default:
          return "count (" + set(set, 1) + ") > 3";
      }
    }
    std::string a = "(" + self(self, deep - 1) + ")", b = "(" + self(self, deep - 1) + ")";
    switch (below(3)) {
      case 0:
        return a + " and " + b;
      case 1:
        return a + " or " + b;
      default:
        return "not " + a;
    }
  };
  std::map<std::string, std::string> said;  // by sentence: how the condition was read
  for (int i = 0; i < 2000; ++i) {
    std::string text = condition(condition, 3);
    sheet::Source source("t", text);
    std::vector<Diagnostic> found;
    sheet::Expr expr = sheet::parseExpression(source, sheet::tokens(source, text, 1, found), found);
    ASSERT_TRUE(found.empty()) << text;
    std::string read = sheet::toText(expr);
    std::shared_ptr<const SheetGame> game =
        test::fromText(test::sheetWith("forbid \"no\" when " + text));
    const rules::Rules& rules = game->rules();
    auto [it, fresh] = said.insert({sheet::inWords(rules, *rules.forbids[0].condition), read});
    EXPECT_EQ(it->second, read) << it->first;
  }
  EXPECT_GT(said.size(), 1000u);
}

}  // namespace messages_kept_test
}  // namespace ninepegs
