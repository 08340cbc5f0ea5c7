#include "ninepegs/report/thinking_text.hpp"

#include <gtest/gtest.h>

#include <sstream>

#include "ninepegs/base/text.hpp"
#include "ninepegs/play/playout_tree.hpp"
#include "ninepegs/play/thinking.hpp"
#include "support/games.hpp"

namespace ninepegs::play {
namespace thinking_text_test {

// However narrow the terminal is, no line goes past its edge; a wide one shows more of each line.
TEST(ThinkingText, KeepsToTheWidth) {
  for (const char* name : {"chess", "othello", "tic-tac-toe", "battleship"}) {
    std::shared_ptr<const Game> game = test::shipped(name);
    for (bool playouts : {false, true}) {
      if (playouts && game->secrets() != nullptr) continue;
      Thinking thought = think(
          *game, game->start(),
          playouts ? *makePlayouts({.playouts = 60}) : *makeSearch({.depth = 5, .nodes = 300}), {});
      std::size_t narrowMoves = 0;
      for (int width : {76, 80, 120}) {
        std::string text =
            report::thinkingText(*game, game->start(), thought, report::Paint(false, width));
        std::istringstream in(text);
        for (std::string line; std::getline(in, line);) {
          EXPECT_LE(columnsOf(line), width) << name << "\n" << line;
          EXPECT_TRUE(line.empty() || line.back() != ' ') << name << "\n" << line;
        }
        std::size_t moves = test::count(text, ",");
        EXPECT_GE(moves, narrowMoves) << text;
        narrowMoves = moves;
      }
    }
  }
}

}  // namespace thinking_text_test
}  // namespace ninepegs::play
