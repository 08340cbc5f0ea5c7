// What one side hides must not come through to the other.
#include "ninepegs/verify/views.hpp"

#include "ninepegs/verify/check.hpp"
#include "support/games.hpp"

namespace ninepegs::verify {
namespace views_test {

// Each side hides a peg on its own board of nine cells; then they guess in turn. `hidden` is what
// hiding says, `sees` what each side sees of the other's board.
std::shared_ptr<const SheetGame> game(const std::string& guess, const std::string& sees = "",
                                      const std::string& hidden = "  seen as \"hidden\"\n") {
  return test::fromText(
      "game hiding\nsides Amber and Slate\nboard square 3 x 3, one each\n"
      "piece peg P secret\nmark guessed each\n"
      "move hide\n  need no mine\n  pick there in all\n  put peg on there\n"
      "  written as \"hide \" there\n" +
      hidden + "move guess\n" + guess +
      "turn hide else guess\n"
      "ends\n  mover wins \"found\" when any theirs and theirs within my guessed\n" +
      sees);
}

const char* const fair =
    "  pick there in all except my guessed\n  add there to my guessed\n  written as there\n";

ViewTest tested(const Game& game, std::uint64_t games = 60, int threads = 1) {
  return testViews(game, games, {.seed = 3, .threads = threads, .stop = nullptr});
}

TEST(Views, NothingLeaksFromAFairGame) {
  ViewTest test =
      tested(*game(fair, "each side sees\n  my guessed except theirs as o on their board\n"));
  EXPECT_TRUE(test.findings.empty()) << test.findings[0].message;
  EXPECT_GT(test.pairs, 50u);
}

TEST(Views, ShippedGamesLeakNothing) {
  for (const char* variant : {"", "no-touch", "salvo"}) {
    ViewTest test = tested(*test::shippedLibrary().open("battleship", variant), 40);
    EXPECT_TRUE(test.findings.empty()) << variant << test.findings[0].message;
    EXPECT_GT(test.pairs, 200u) << variant;
  }
}

TEST(Views, LegalMovesThatReadSecretsAreALeak) {
  // A side may guess only beside what is hidden: its moves say where that is.
  ViewTest test =
      tested(*game("  pick there in (all except my guessed) on (theirs or step any from theirs)\n"
                   "  add there to my guessed\n  written as there\n"));
  ASSERT_EQ(test.findings.size(), 1u);
  EXPECT_EQ(test.findings[0].kind, FindingKind::leak);
  EXPECT_NE(test.findings[0].message.find("moves here and"), std::string::npos)
      << test.findings[0].message;
  EXPECT_FALSE(test.findings[0].moves.empty());
}

TEST(Views, AnnouncementsThatReadSecretsAreALeak) {
  // The hider is told something of its own, and so is the other side.
  ViewTest test =
      tested(*game(fair, "", "  tell \"not in row \" row of there\n  seen as \"hidden\"\n"));
  ASSERT_EQ(test.findings.size(), 1u);
  EXPECT_NE(test.findings[0].message.find("is told"), std::string::npos)
      << test.findings[0].message;
}

TEST(Views, WhatASideHearsOfItsOwnMoveIsCompared) {
  // A miss tells how near it was: nothing that the side sees says so.
  ViewTest test = tested(*game(
      "  pick there in all except my guessed\n  add there to my guessed\n"
      "  when there in step any from theirs\n    tell \"near\"\n  otherwise\n    tell \"far\"\n"
      "  written as there\n"));
  ASSERT_EQ(test.findings.size(), 1u);
  EXPECT_EQ(test.findings[0].kind, FindingKind::leak);
}

TEST(Views, TheSameOnAnyNumberOfThreads) {
  std::shared_ptr<const SheetGame> leaking = game(
      "  pick there in all except my guessed\n  add there to my guessed\n"
      "  when there in step any from theirs\n    tell \"near\"\n  written as there\n");
  std::shared_ptr<const Game> silent = test::shipped("battleship");
  for (const Game* played : {static_cast<const Game*>(leaking.get()), silent.get()}) {
    ViewTest first = tested(*played, 100, 1), second = tested(*played, 100, 3);
    EXPECT_EQ(first.pairs, second.pairs);
    ASSERT_EQ(first.findings.size(), second.findings.size());
    if (!first.findings.empty()) {
      EXPECT_EQ(first.findings[0].message, second.findings[0].message);
      EXPECT_EQ(first.findings[0].moves, second.findings[0].moves);
    }
  }
}

// Battleship: every cell of the hits has a hidden piece, none of the misses has; on one's own
// waters nothing is hidden from oneself.
TEST(Disclosures, AreCountedLineByLine) {
  auto game = test::shipped("battleship");
  std::vector<Disclosure> all = disclosures(*game, {.seed = 2, .games = 6}).lines,
                          again = disclosures(*game, {.seed = 2, .games = 6}).lines;
  ASSERT_EQ(all.size(), 5u);
  EXPECT_TRUE(all[0].line.text.starts_with("my shot on theirs as X")) << all[0].line.text;
  for (const Disclosure& one : all) {
    EXPECT_GT(one.views, 100u);
    EXPECT_EQ(one.views, all[0].views);
    EXPECT_GT(one.spoke, 0u) << one.line.text;
    EXPECT_LE(one.spoke, one.views);
  }
  EXPECT_GT(all[0].cells, 0u);
  EXPECT_EQ(all[0].hidden, all[0].cells);
  EXPECT_GT(all[1].cells, all[0].cells);
  EXPECT_EQ(all[1].hidden, 0u);
  EXPECT_GT(all[2].cells, 0u);
  EXPECT_EQ(all[2].hidden, 0u);
  EXPECT_GT(all[4].words, 0u);
  EXPECT_EQ(all[4].cells, 0u);
  for (std::size_t i = 0; i < all.size(); ++i) EXPECT_EQ(all[i].cells, again[i].cells);
  EXPECT_TRUE(disclosures(*test::shipped("chess"), {}).lines.empty());
}

// One board for both, on hexes; counted again by hand from the views, where cells with hidden
// pieces are known from the position.
TEST(Disclosures, OnOneBoardOfHexes) {
  auto game = test::fromText(
      "game traps\nsides Amber and Slate\nboard hexagon 3\npiece trap t z secret\npiece peg o x\n"
      "mark found each\nmove lay\n  choose thing from trap, peg\n  pick there in empty\n"
      "  put thing on there\n  written as thing \" \" there\n  seen as \"something\"\n"
      "move look\n  pick there in all except my found\n  add there to my found\n"
      "  written as \"look \" there\nturn lay or look\n"
      "ends\n  draw \"long\" when plies >= 14\n"
      "each side sees\n  their trap on my found as X\n  my found as o\n");
  std::vector<Disclosure> all = disclosures(*game, {.seed = 1, .games = 30}).lines;
  ASSERT_EQ(all.size(), 2u);
  EXPECT_GT(all[0].cells, 0u);
  EXPECT_EQ(all[0].hidden, all[0].cells);
  EXPECT_GT(all[1].cells, all[0].cells);
  EXPECT_EQ(all[1].hidden, all[0].cells);
}

TEST(Views, CheckComparesThemBesideItsPlayouts) {
  CheckOptions options;
  options.playouts = 100;
  CheckReport report = check(*test::shipped("battleship"), options);
  EXPECT_GT(report.viewPairs, 100u);
  options.closely = true;
  EXPECT_GT(check(*test::shipped("battleship"), options).viewPairs, 2 * report.viewPairs);
  EXPECT_EQ(check(*test::shipped("tic-tac-toe"), options).viewPairs, 0u);
}

}  // namespace views_test
}  // namespace ninepegs::verify
