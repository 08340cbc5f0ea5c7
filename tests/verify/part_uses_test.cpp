#include "ninepegs/verify/part_uses.hpp"

#include "support/games.hpp"

namespace ninepegs::verify {
namespace part_uses_test {

const PartUse* found(const std::vector<PartUse>& parts, const std::string& text) {
  for (const PartUse& one : parts)
    if (one.text == text) return &one;
  return nullptr;
}

// Counted by the program, and by hand from the results of the same games.
TEST(PartUses, CountsWhatDecided) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  std::vector<RuleLine> parts = game->checks()->conditionParts();
  std::size_t lines = ruleLinesOf(*game).size();
  ASSERT_EQ(parts.size(), 2u);
  std::vector<std::uint64_t> uses(lines + 2 * parts.size(), 0);
  std::unique_ptr<LivePosition> live = game->live(uses);
  std::uint64_t plies = 0, wins = 0, draws = 0;
  for (std::uint64_t number = 0; number < 300; ++number) {
    Stream stream(3, number);
    live->setUp(game->start());
    while (!live->ended() && live->playDrawn(stream)) ++plies;
    wins += live->outcome().kind == ResultKind::win;
    draws += live->outcome().kind == ResultKind::draw;
  }
  EXPECT_EQ(parts[0].text, "any (line of 3 in mine along any)");
  EXPECT_EQ(uses[lines + 1], wins);
  EXPECT_EQ(uses[lines], plies - wins);
  EXPECT_EQ(uses[lines + 3], draws);
  EXPECT_EQ(uses[lines + 2], plies - wins - draws);
}

// Counting changes nothing: the same moves and positions, game by game.
TEST(PartUses, CountingPlaysTheSameGames) {
  for (const std::string& name : test::shippedLibrary().names()) {
    std::shared_ptr<const Game> game = test::shipped(name);
    std::vector<std::uint64_t> uses(ruleLinesOf(*game).size() +
                                    2 * game->checks()->conditionParts().size());
    std::unique_ptr<LivePosition> plain = game->live(), counting = game->live(uses);
    for (std::uint64_t number = 0; number < 2; ++number) {
      Stream stream(6, number);
      plain->setUp(game->start());
      counting->setUp(game->start());
      for (int ply = 0; ply < 80 && !plain->ended(); ++ply) {
        ASSERT_EQ(plain->moveCount(), counting->moveCount()) << name;
        if (plain->moveCount() == 0) break;
        std::uint32_t drawn = stream.below(plain->moveCount());
        ASSERT_EQ(plain->moveAt(drawn), counting->moveAt(drawn)) << name;
        Move move = plain->moveAt(drawn);
        plain->play(move);
        counting->play(move);
        ASSERT_EQ(plain->hash(), counting->hash()) << name;
        ASSERT_EQ(plain->outcome().kind, counting->outcome().kind) << name;
      }
    }
  }
}

// Parts of a `need` in the head and behind an effect, of a block, of `forbid`, in a definition.
TEST(PartUses, FindsPartsThatAreTheSameEveryTime) {
  auto game = test::fromText(
      "game parts\nsides Amber and Slate\nboard square 4 x 4\npiece peg o x\n"
      "define near(c) = any mine or no occupied or c in edge\n"
      "move place\n  pick there in empty\n  need there in all and not there in occupied\n"
      "  put peg on there\n  need near(there) or count mine < 20\n"
      "  when count mine > 3 and count mine < 30\n    put peg on north of there except occupied\n"
      "forbid \"never\" when count mine > 40 or count theirs > 40\n"
      "ends\n  draw \"full\" when no empty\n");
  std::vector<PartUse> parts = partUses(*game, {.games = 50}).parts;
  for (const PartUse& one : parts) SCOPED_TRACE(one.text);
  ASSERT_NE(found(parts, "there in all"), nullptr);
  EXPECT_EQ(found(parts, "there in all")->failed, 0u);
  EXPECT_GT(found(parts, "there in all")->held, 0u);
  EXPECT_EQ(found(parts, "there in occupied")->held, 0u);
  EXPECT_EQ(found(parts, "(count mine) > 40")->held, 0u);
  EXPECT_GT(found(parts, "(count mine) > 3")->held, 0u);
  EXPECT_GT(found(parts, "(count mine) > 3")->failed, 0u);
  EXPECT_EQ(found(parts, "(count mine) < 30")->failed, 0u);
}

TEST(PartUses, TheSameForTheSameSeed) {
  std::shared_ptr<const Game> game = test::shipped("draughts");
  auto texts = [&](std::uint64_t seed) {
    std::vector<std::pair<std::uint64_t, std::uint64_t>> out;
    for (const PartUse& one : partUses(*game, {.seed = seed, .games = 20}).parts)
      out.emplace_back(one.held, one.failed);
    return out;
  };
  EXPECT_EQ(texts(4), texts(4));
  EXPECT_NE(texts(4), texts(5));
}

}  // namespace part_uses_test
}  // namespace ninepegs::verify
