// What the processor can do changes how fast a game is, and nothing else.
#include <gtest/gtest.h>

#include "support/games.hpp"
#include "support/processors.hpp"

namespace ninepegs {
namespace any_processor_test {

// All that 60 playouts come by: hashes of positions, numbers of moves, results.
std::vector<std::uint64_t> comesBy(const std::string& sheet) {
  std::shared_ptr<const Game> game = test::shipped(sheet);  // its tables depend on the processor
  std::vector<std::uint64_t> seen;
  std::unique_ptr<LivePosition> live = game->live();
  std::vector<Move> moves;
  for (std::uint64_t playout = 0; playout < 60; ++playout) {
    Stream stream(7, playout);
    live->setUp(game->start());
    for (int ply = 0; ply < 300 && !live->ended(); ++ply) {
      live->listMoves(moves);
      seen.push_back(moves.size());
      seen.push_back(live->hash());
      if (!live->playDrawn(stream)) break;
    }
    seen.push_back(static_cast<std::uint64_t>(live->outcome().winner + 1));
  }
  return seen;
}

class AnyProcessor : public testing::TestWithParam<const char*> {};

TEST_P(AnyProcessor, PlaysTheSameGames) {
  std::vector<std::uint64_t> atHand = comesBy(GetParam());
  test::PlainProcessor plain;
  EXPECT_EQ(comesBy(GetParam()), atHand);
}
INSTANTIATE_TEST_SUITE_P(Sheets, AnyProcessor,
                         testing::Values("battleship", "chess", "draughts", "five-in-a-row", "hex",
                                         "othello", "tic-tac-toe"));

}  // namespace any_processor_test
}  // namespace ninepegs
