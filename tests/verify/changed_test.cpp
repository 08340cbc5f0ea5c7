// Positions changed a little, and what `check` and `ask` make of them.
#include "ninepegs/verify/changed.hpp"

#include <algorithm>
#include <set>

#include "ninepegs/verify/check.hpp"
#include "support/games.hpp"

namespace ninepegs::verify {
namespace changed_test {

// The saw stands on no board that a game can come to.
const std::string noSaw =
    "game rare\nsides Amber and Slate\nboard square 4 x 4\npiece peg o x\npiece saw s z\n"
    "move place\n  pick there in empty\n  put peg on there\n"
    "move cut\n  need any my saw\n  pick there in their peg\n  take there\n"
    "ends\n  draw \"long\" when no empty or plies >= 40\n";

TEST(Changed, KeepWhatMustHoldAndCanBePlayed) {
  for (const char* name : {"tic-tac-toe", "connect-four", "chess", "hex", "hex-tiles",
                           "five-in-a-row", "battleship", "morris", "draughts"}) {
    auto game = test::shippedLibrary().open(name);
    std::vector<Position> all = changedPositions(*game, {.seed = 3, .most = 10}),
                          again = changedPositions(*game, {.seed = 3, .most = 10});
    EXPECT_EQ(all, again) << name;
    EXPECT_GE(all.size(), 3u) << name;
    std::set<std::string> texts;
    for (const Position& one : all) {
      std::string text = game->positionText(one);
      texts.insert(text);
      EXPECT_TRUE(brokenInvariants(*game, one).empty()) << name << " " << text;
      EXPECT_FALSE(game->ended(one)) << name << " " << text;
      EXPECT_GT(game->countMoves(one), 0u) << name << " " << text;
      EXPECT_EQ(game->readPosition(text, "again"), one) << name << " " << text;
    }
    EXPECT_GE(texts.size(), all.size() / 2) << name;
  }
}

TEST(Changed, AreMadeOfBasesToo) {
  auto game = test::fromText(noSaw);
  Position base = game->readPosition("ssss/4/4/xxxx; Slate to move", "base");
  std::size_t made = 0, all = 0;
  for (const Position& one : changedPositions(*game, {.seed = 1, .most = 40, .bases = {base}})) {
    std::string text = game->positionText(one);
    made += std::count(text.begin(), text.end(), 's') >= 2;
    ++all;
  }
  EXPECT_GE(made, all / 4);
  EXPECT_LT(made, all);
}

// What only they show is told and is neither a fault nor a use.
TEST(Changed, ReachWhatNoGameDoes) {
  CheckOptions options;
  options.playouts = 3000;
  options.remarks = false;
  std::string text = noSaw;
  // A fault that only a saw would show.
  text.replace(text.find("  take there"), 12, "  put peg on there");
  auto game = test::fromText(text);
  CheckReport report = check(*game, options);
  EXPECT_TRUE(report.findings.empty()) << report.findings[0].message;
  ASSERT_EQ(report.ways.back().way, Steer::changed);
  std::vector<RuleLine> lines = ruleLinesOf(*game);
  std::vector<std::size_t> alone = reachedAlone(report, report.ways.back());
  std::vector<std::uint64_t> uses = usesOf(report);
  bool cut = false;
  for (std::size_t line : alone) {
    EXPECT_EQ(uses[line], 0u);
    cut = cut || lines[line].line >= 10;
  }
  EXPECT_TRUE(cut);
  for (std::size_t i = 0; i + 1 < report.ways.size(); ++i)
    EXPECT_TRUE(reachedAlone(report, report.ways[i]).empty());
}

}  // namespace changed_test
}  // namespace ninepegs::verify
