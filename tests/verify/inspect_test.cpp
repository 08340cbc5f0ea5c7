#include "ninepegs/verify/inspect.hpp"

#include <set>

#include "support/games.hpp"

namespace ninepegs::verify {
namespace inspect_test {

std::vector<Fault> faultsAt(const Game& game, const Position& position,
                            const std::string& move = "") {
  std::unique_ptr<LivePosition> live = game.live();
  live->setUp(position);
  if (!move.empty()) live->play(matchingMoves(game, position, move).at(0));
  Inspector inspector(game);
  std::vector<Fault> faults;
  inspector.position(*live, faults);
  inspector.moves(*live, inspector.closest(), faults);
  return faults;
}

TEST(Inspector, IsQuietWhereNothingIsWrong) {
  for (const std::string& name : test::shippedLibrary().names()) {
    std::shared_ptr<const Game> game = test::shipped(name);
    for (std::uint64_t number = 0; number < 5; ++number) {
      Stream stream(14, number);
      Position position = game->start();
      MoveList moves;
      while (game->listMoves(position, moves), !moves.empty() && !game->ended(position)) {
        EXPECT_TRUE(faultsAt(*game, position).empty())
            << name << " " << game->positionText(position);
        game->apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
      }
      EXPECT_TRUE(faultsAt(*game, position).empty());
    }
  }
}

TEST(Inspector, NamesTheLineOfTheDrawThatHidesAWin) {
  std::shared_ptr<const Game> game = test::faulty("draw-before-win");
  std::vector<Fault> faults =
      faultsAt(*game, game->readPosition("XOX/OXO/OXX; Nought to move", "test"));
  ASSERT_EQ(faults.size(), 1u);
  EXPECT_EQ(faults[0].kind, FindingKind::drawOverWin);
  EXPECT_EQ(faults[0].line, 16);
  EXPECT_NE(faults[0].message.find("\"three in a line\" (line 17)"), std::string::npos);
  EXPECT_TRUE(faultsAt(*game, game->readPosition("XOX/XOO/OXX; Nought to move", "test")).empty());
}

TEST(Inspector, InvariantsNameTheSide) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      test::sheetWith("always\n  count my saw <= 1\n  count their peg never shrinks\n"
                      "move drop\n  pick here in my peg\n  take here\n"
                      "  written as \"drop \" here\n"));
  Position two = game->readPosition("5/5/5/zz3", "test");
  std::vector<Fault> faults = faultsAt(*game, two);
  ASSERT_EQ(faults.size(), 1u);
  EXPECT_NE(faults[0].message.find("does not hold for Slate"), std::string::npos)
      << faults[0].message;
  Position before = game->readPosition("5/5/5/oo3", "test");
  faults = faultsAt(*game, before, "drop a1");
  ASSERT_EQ(faults.size(), 1u);
  EXPECT_NE(faults[0].message.find("for Slate: 2 became 1"), std::string::npos)
      << faults[0].message;
  EXPECT_TRUE(faultsAt(*game, before, "c3").empty());
}

TEST(Inspector, MirroredPositionsAreComparedByWhatFollows) {
  // Pegs may be put only to the right of the leftmost free cell: no mirror image of itself.
  std::string text = test::sheetWith("symmetric under reflection of columns\n", "square 3 x 1");
  text.replace(text.find("pick there in empty"), 19, "pick there in empty on step east from empty");
  std::shared_ptr<const SheetGame> game = test::fromText(text);
  std::vector<Fault> faults = faultsAt(*game, game->start());
  ASSERT_EQ(faults.size(), 1u);
  EXPECT_EQ(faults[0].kind, FindingKind::symmetry);
}

TEST(Inspector, AStuckSideWithoutAnEndIsAFault) {
  std::shared_ptr<const Game> game = test::faulty("no-end");
  std::vector<Fault> faults =
      faultsAt(*game, game->readPosition("XOX/XOO/OXX; Nought to move", "test"));
  ASSERT_EQ(faults.size(), 1u);
  EXPECT_EQ(faults[0].kind, FindingKind::noEnd);
}

TEST(FindingNames, AreDifferent) {
  std::set<std::string> names;
  for (FindingKind kind : {FindingKind::example, FindingKind::overwrite, FindingKind::drawOverWin,
                           FindingKind::noEnd, FindingKind::endless, FindingKind::invariant,
                           FindingKind::symmetry, FindingKind::ambiguous})
    names.insert(findingName(kind));
  EXPECT_EQ(names.size(), 8u);
}

}  // namespace inspect_test
}  // namespace ninepegs::verify
