// Symmetries that the rules keep: told from the terms alone, and held against play.
#include "judge/generate.hpp"
#include "ninepegs/sheet/rules/kept.hpp"
#include "support/games.hpp"
#include "support/many.hpp"

namespace ninepegs {
namespace kept_symmetries_test {

// The positions behind all moves, in no order.
std::vector<std::uint64_t> behind(const SheetGame& game, const Position& position,
                                  const Symmetry& symmetry) {
  std::vector<std::uint64_t> out;
  MoveList moves;
  game.listMoves(position, moves);
  for (const Move& move : moves) {
    Position after = position;
    game.apply(after, move);
    Result result = game.result(after);
    std::uint64_t key = game.hash(game.mapped(after, symmetry));
    out.push_back(key * 31 + static_cast<std::uint64_t>(result.kind) * 3 +
                  static_cast<std::uint64_t>(result.winner + 1));
  }
  std::sort(out.begin(), out.end());
  return out;
}

// Positions of random games for which the image has other moves, or they lead elsewhere.
int parted(const SheetGame& game, std::uint64_t games, int plies) {
  int out = 0;
  Symmetry stays = game.rules().board.identity();
  for (const Symmetry& symmetry : game.keptSymmetries())
    for (std::uint64_t number = 0; number < games; ++number) {
      Stream stream(9, number);
      Position position = game.start();
      MoveList moves;
      for (int ply = 0; ply < plies && !game.ended(position); ++ply) {
        try {
          out += behind(game, position, symmetry) !=
                 behind(game, game.mapped(position, symmetry), stays);
          game.listMoves(position, moves);
          if (moves.empty()) break;
          game.apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
        } catch (const RunawayRules&) {
          break;
        }
      }
    }
  return out;
}

TEST(KeptSymmetries, OfTheShippedSheets) {
  const std::map<std::string, std::size_t> expected = {
      {"tic-tac-toe", 7}, {"connect-four", 1}, {"othello", 7},  {"five-in-a-row", 7},
      {"chess", 0},       {"draughts", 0},     {"hex-tiles", 0}};
  for (const std::string& name : test::shippedLibrary().names()) {
    auto game = std::dynamic_pointer_cast<const SheetGame>(test::shipped(name));
    std::size_t kept = game->keptSymmetries().size();
    if (expected.contains(name)) {
      EXPECT_EQ(kept, expected.at(name)) << name;
    }
    if (!game->remembersPositions()) {
      EXPECT_EQ(parted(*game, 2, 30), 0) << name;
    }
  }
}

TEST(KeptSymmetries, HoldInDrawnSheets) {
  std::size_t kept = 0;
  int played = 0;
  for (std::uint64_t number = 0; number < test::many(1000u, 3000u); ++number) {
    judge::Generated one = judge::generateSheet(23, number);
    std::shared_ptr<const SheetGame> game;
    try {
      game = SheetGame::fromText("drawn.pegs", one.text, one.variant);
    } catch (const BadInput&) {
      continue;
    }
    if (game->remembersPositions() || game->keptSymmetries().empty()) continue;
    ++played;
    kept += game->keptSymmetries().size();
    ASSERT_EQ(parted(*game, 1, 5), 0) << "sheet " << number << " of seed 23\n" << one.text;
  }
  EXPECT_GT(played, test::many(6, 20));
  EXPECT_GT(kept, test::many(12u, 40u));
}

// What speaks of one side of the board is not kept.
TEST(KeptSymmetries, AreLostByOneWord) {
  const std::string head = "game t\nsides Amber and Slate\nboard square 4 x 4\npiece peg o x\n";
  const std::string put = "move go\n  pick there in empty\n  put peg on there\n";
  auto kept = [&](const std::string& rest) {
    std::size_t many = test::fromText(head + rest)->keptSymmetries().size();
    EXPECT_EQ(parted(*test::fromText(head + rest), 3, 10), 0) << rest;
    return many;
  };
  const std::string line = "ends\n  mover wins \"line\" when any line of 3 in mine\n";
  EXPECT_EQ(kept(put + line), 7u);
  EXPECT_EQ(
      kept("move go\n  pick there in empty except north of empty\n  put peg on there\n" + line),
      1u);
  EXPECT_EQ(kept("move go\n  pick there in empty except a1\n  put peg on there\n" + line), 1u);
  EXPECT_EQ(kept("move go\n  pick there in empty except a2\n  put peg on there\n" + line), 0u);
  EXPECT_EQ(kept(put + "ends\n  mover wins \"row\" when row 4 within mine\n"), 1u);
  EXPECT_EQ(kept(put + "ends\n  mover wins \"edge\" when edge within mine\n"), 7u);
  EXPECT_EQ(kept(put + "ends\n  mover wins \"row\" when any line of 3 in mine along east\n"), 3u);
  EXPECT_EQ(kept("zone goal = row 4 for Amber, row 1 for Slate\n" + put +
                 "ends\n  mover wins \"goal\" when my goal within mine\n"),
            1u);
}

}  // namespace kept_symmetries_test
}  // namespace ninepegs
