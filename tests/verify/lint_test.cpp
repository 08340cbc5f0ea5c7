#include "ninepegs/verify/lint.hpp"

#include "support/games.hpp"

// Parts that a row leaves out have their defaults.
#pragma GCC diagnostic ignored "-Wmissing-field-initializers"

namespace ninepegs::verify {
namespace lint_test {

std::vector<Remark> remarks(const std::string& text, std::uint64_t playouts = 50) {
  LintOptions options;
  options.playouts = playouts;
  return lint(*test::fromText(text), options).remarks;
}

// One game with a place for each suspicion; the parts are put in where they are named.
struct Parts {
  std::string board = "square 3 x 3";
  std::string pieces = "piece peg o x\n";
  std::string names;
  std::string effects;
  std::string moves;
  std::string ends = "  draw \"full\" when no empty\n";
};
std::string sheet(const Parts& parts) {
  return "game odd\nsides Amber and Slate\nboard " + parts.board + "\n" + parts.pieces +
         parts.names + "move place\n  pick there in empty\n  put peg on there\n" + parts.effects +
         parts.moves + "ends\n" + parts.ends;
}

struct Suspect {
  const char* name;
  Parts parts;
  const char* message;  // of the only remark; empty: none
  const char* mended;   // the same part as it should be, or empty
  Parts right;
};
void PrintTo(const Suspect& one, std::ostream* out) {
  *out << one.name;
}
class Suspicions : public testing::TestWithParam<Suspect> {};

TEST_P(Suspicions, AreToldOnceAndOnlyWhereTheyAre) {
  const Suspect& one = GetParam();
  std::vector<Remark> found = remarks(sheet(one.parts));
  ASSERT_EQ(found.size(), 1u) << (found.empty() ? "" : found.back().message);
  EXPECT_NE(found[0].message.find(one.message), std::string::npos) << found[0].message;
  EXPECT_FALSE(found[0].hint.empty());
  EXPECT_GT(found[0].line, 0);
  // The line is the one that holds the suspect words.
  std::string text = sheet(one.parts), line;
  std::size_t from = 0;
  for (int i = 1; i < found[0].line; ++i) from = text.find('\n', from) + 1;
  line = text.substr(from, text.find('\n', from) - from);
  EXPECT_NE(line.find(one.mended), std::string::npos) << line;
  EXPECT_TRUE(remarks(sheet(one.right)).empty()) << remarks(sheet(one.right)).front().message;
}

INSTANTIATE_TEST_SUITE_P(
    Sheets, Suspicions,
    testing::Values(
        Suspect{"an end behind a wider one",
                {.ends = "  draw \"full\" when no empty\n"
                         "  draw \"full of pegs\" when no empty and count peg = 9\n"},
                "can never be reached",
                "full of pegs",
                {.ends = "  draw \"many pegs\" when no empty and count mine > 4\n"
                         "  draw \"full\" when no empty\n"}},
        Suspect{"a draw before a win",
                {.ends = "  draw \"full\" when no empty\n"
                         "  mover wins \"corner\" when a1 in mine and no empty\n"},
                "can never be reached",
                "corner",
                {.ends = "  mover wins \"corner\" when a1 in mine and no empty\n"
                         "  draw \"full\" when no empty\n"}},
        Suspect{"a piece that never comes",
                {.pieces = "piece peg o x\npiece saw s z\n"},
                "no saw ever comes",
                "piece saw",
                {.pieces = "piece peg o x\npiece saw s z\n",
                 .moves = "move saw-in\n  pick there in empty\n  put saw on there\n"
                          "  written as \"s\" there\n"}},
        Suspect{"a group that nothing reads",
                {.names = "group tool = peg\n"},
                "nothing reads the group \"tool\"",
                "group tool",
                {.names = "group tool = peg\n", .ends = "  draw \"full\" when count tool = 9\n"}},
        Suspect{"a zone that nothing reads",
                {.names = "zone home = row 1\n"},
                "nothing reads the zone \"home\"",
                "zone home",
                {.names = "zone home = row 1\n",
                 .ends = "  mover wins \"home\" when home within mine\n"
                         "  draw \"full\" when no empty\n"}},
        Suspect{"a mark that nothing reads",
                {.names = "mark met\n"},
                "nothing reads the mark \"met\"",
                "mark met",
                {.names = "mark met\n",
                 .effects = "  add there to met\n",
                 .ends = "  draw \"full\" when count met = 9\n"}},
        Suspect{"a number that nothing reads",
                {.names = "number laid\n"},
                "nothing reads the number \"laid\"",
                "number laid",
                {.names = "number laid\n",
                 .effects = "  set laid to laid + 1\n",
                 .ends = "  draw \"full\" when laid = 9\n"}},
        Suspect{"a definition that nothing reads",
                {.names = "define free = empty\n"},
                "nothing reads the definition \"free\"",
                "define free",
                {.names = "define free = empty\n", .ends = "  draw \"full\" when no free\n"}},
        Suspect{"a word of a piece that nothing reads",
                {.pieces = "piece peg o x weight 3\n"},
                "nothing reads the word \"weight\"",
                "weight 3",
                {.pieces = "piece peg o x weight 3\n",
                 .ends = "  draw \"full\" when total weight of c for c in occupied = 27\n"}},
        Suspect{"a number that goes below 0",
                {.names = "number debt\n",
                 .effects = "  set debt to debt - 1\n",
                 .ends = "  draw \"full\" when debt = -9\n"},
                "the number \"debt\" went below 0",
                "number debt",
                {.names = "number debt\n",
                 .effects = "  set debt to debt + 1\n",
                 .ends = "  draw \"full\" when debt = 9\n"}},
        Suspect{"a number that an end waits for and that jumps over it",
                {.names = "number laid\n",
                 .effects = "  set laid to laid + 2\n",
                 .ends = "  draw \"five laid\" when laid = 5\n  draw \"full\" when no empty\n"},
                "the number \"laid\" went past 5 without being 5",
                "five laid",
                {.names = "number laid\n",
                 .effects = "  set laid to laid + 2\n",
                 .ends = "  draw \"five laid\" when laid >= 5\n  draw \"full\" when no empty\n"}},
        Suspect{
            "a move that is never legal",
            {.moves = "move never\n  pick there in mine on step north from row 3\n  take there\n"
                      "  written as \"n\" there\n"},
            "the move \"never\" was never legal",
            "move never",
            {}},
        Suspect{"an end behind a shorter line",
                {.ends = "  mover wins \"three\" when any line of 2 in mine\n"
                         "  mover wins \"four\" when any line of 3 in mine\n  draw \"full\" when "
                         "no empty\n"},
                "\"four\" can never be reached",
                "mover wins",
                {.ends = "  mover wins \"four\" when any line of 3 in mine\n"
                         "  mover wins \"three\" when any line of 2 in mine\n  draw \"full\" when "
                         "no empty\n"}},
        Suspect{"an end behind a lower number",
                {.ends = "  draw \"some\" when count occupied >= 3\n  draw \"more\" when count "
                         "occupied > 4\n"},
                "\"more\" can never be reached",
                "draw",
                {.ends = "  draw \"more\" when count occupied > 4\n  draw \"some\" when count "
                         "occupied >= 3\n"}},
        Suspect{"an end behind a wider zone",
                {.ends = "  mover wins \"rim\" when any mine on edge\n  mover wins \"far\" when "
                         "any mine on corner\n"},
                "\"far\" can never be reached",
                "mover wins",
                {.ends = "  mover wins \"far\" when any mine on corner\n  mover wins \"rim\" when "
                         "any mine on edge\n"}},
        Suspect{"a number that nothing sets",
                {.names = "number tally\n",
                 .ends = "  draw \"many\" when tally = 3\n  draw \"full\" when no empty\n"},
                "no move sets it",
                "tally",
                {.names = "number tally\n",
                 .effects = "  set tally to tally + 1\n",
                 .ends = "  draw \"many\" when tally = 3\n  draw \"full\" when no empty\n"}},
        Suspect{
            "sets that never meet",
            {.ends =
                 "  mover wins \"on\" when any (mine on theirs)\n  draw \"full\" when no empty\n"},
            "never has a cell",
            "mover wins",
            {.ends = "  mover wins \"by\" when any (mine on step any from theirs)\n  draw \"full\" "
                     "when no empty\n"}},
        Suspect{"views without secrets",
                {.ends = "  draw \"full\" when no empty\neach side sees\n  theirs as X\n"},
                "no piece is secret",
                "theirs as X",
                {}},
        Suspect{"a draw above a win",
                {.ends = "  draw \"full\" when no empty\n  mover wins \"row\" when any line of 3 "
                         "in mine\n"},
                "stands before the win",
                "draw",
                {.ends = "  draw \"full\" when no empty and no line of 3 in mine\n"
                         "  mover wins \"row\" when any line of 3 in mine\n  draw \"rest\" when no "
                         "empty\n"}},
        Suspect{"a side that cannot move",
                {.ends = "  mover wins \"row\" when any line of 3 in mine\n"},
                "a side had no move and no end held",
                "mover wins",
                {.ends = "  mover wins \"row\" when any line of 3 in mine\n"
                         "  draw \"full\" when stuck\n"}}));

TEST(Lint, TellsOfADrawThatStoodBeforeAWin) {
  std::vector<Remark> found =
      lint(dynamic_cast<const SheetGame&>(*test::faulty("draw-before-win")), {.playouts = 200})
          .remarks;
  ASSERT_EQ(found.size(), 1u);
  EXPECT_NE(found[0].message.find("stands before the win"), std::string::npos);
  // The text shows it: no playout is needed.
  std::vector<Remark> read =
      lint(dynamic_cast<const SheetGame&>(*test::faulty("draw-before-win")), {.playouts = 0})
          .remarks;
  ASSERT_EQ(read.size(), 1u);
  EXPECT_EQ(read[0].message, found[0].message);
  EXPECT_EQ(found[0].line, 16);
}

TEST(Lint, RemarksStandInTheOrderOfLinesAndAreReproducible) {
  Parts parts;
  parts.pieces = "piece peg o x weight 3\npiece saw s z\n";
  parts.names = "group tool = peg\nmark met\nnumber debt\n";
  parts.effects = "  set debt to debt - 1\n";
  std::vector<Remark> first = remarks(sheet(parts)), again = remarks(sheet(parts));
  ASSERT_GT(first.size(), 3u);
  ASSERT_EQ(first.size(), again.size());
  for (std::size_t i = 0; i < first.size(); ++i) {
    EXPECT_EQ(first[i].message, again[i].message);
    if (i > 0) {
      EXPECT_LE(first[i - 1].line, first[i].line);
    }
  }
}

TEST(Lint, WithoutPlayoutsOnlyTheTextIsRead) {
  Parts parts;
  parts.names = "zone home = row 1\nnumber debt\n";
  parts.effects = "  set debt to debt - 1\n";
  parts.ends = "  draw \"full\" when debt = -9\n";
  std::vector<Remark> found = remarks(sheet(parts), 0);
  ASSERT_EQ(found.size(), 1u);
  EXPECT_NE(found[0].message.find("home"), std::string::npos);
}

TEST(Lint, StopsWhenAsked) {
  StopFlag stop{true};
  LintOptions options;
  options.playouts = 1'000'000'000;
  options.stop = &stop;
  EXPECT_TRUE(lint(*test::fromText(sheet({})), options).remarks.empty());
}

// What comes to no end is remarked, and the other games are looked at all the same.
TEST(Lint, GoesOnWhereAMoveComesToNoEnd) {
  auto game = test::fromText(
      "game t\nsides A and B\nboard square 3 x 1\npiece peg o x\nmark met\nmove place\n"
      "  pick there in empty\n  put peg on there\n  when count occupied = 2\n"
      "    repeat while possible\n      add there to met\nends\n  draw \"full\" when no empty\n");
  std::vector<Remark> remarks = lint(*game, {}).remarks;
  EXPECT_TRUE(std::any_of(remarks.begin(), remarks.end(), [](const Remark& one) {
    return one.line == 10 && one.message.find("more than 40 choices") != std::string::npos;
  }));
}

// Results that are the same again and again.
TEST(Lint, RemarksResultsThatShout) {
  auto has = [](const std::string& ends, const std::string& part) {
    auto game = test::fromText(
        "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\n"
        "move place\n  pick there in empty\n  put peg on there\nends\n" +
        ends);
    std::vector<Remark> remarks = lint(*game, {1000, 1, nullptr}).remarks;
    return std::any_of(remarks.begin(), remarks.end(), [&](const Remark& one) {
      return one.message.find(part) != std::string::npos;
    });
  };
  EXPECT_TRUE(has("  draw \"full\" when no empty\n", "were drawn"));
  EXPECT_TRUE(has("  A wins \"full\" when no empty\n", "A won all"));
  EXPECT_TRUE(
      has("  mover wins \"row\" when any line of 3 in mine\n"
          "  mover wins \"full\" when no empty\n",
          "by A alone"));
  for (const char* part : {"were drawn", "won all", "alone"})
    EXPECT_FALSE(
        has("  mover wins \"row\" when any line of 3 in mine\n"
            "  draw \"full\" when no empty\n",
            part));
}

}  // namespace lint_test
}  // namespace ninepegs::verify
