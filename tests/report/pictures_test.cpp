// Two positions that differ in anything the rules read never look alike.
#include <gtest/gtest.h>

#include <map>

#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/game/memory.hpp"
#include "ninepegs/report/board_text.hpp"
#include "support/games.hpp"

namespace ninepegs::report {
namespace pictures_test {

std::string picture(const Game& game, const Position& position) {
  Paint plain;
  Marks marks;
  return boardsText(game, position, marks, plain) + besidesText(game, position) +
         stateText(game, position, plain);
}
std::string figure(const Game& game, const Position& position) {
  draw::FigureMarks marks;
  marks.caption = stateText(game, position, Paint());
  return draw::boardImage(game, position, marks, ".svg");
}

// Positions of random games, by what their text says.
std::map<std::string, Position> positions(const Game& game, std::uint64_t games, int each) {
  std::map<std::string, Position> out;
  std::unique_ptr<LivePosition> live = game.live();
  for (std::uint64_t number = 0; number < games; ++number) {
    Stream stream(5, number);
    live->setUp(game.start());
    for (int ply = 0; ply < each && !live->ended(); ++ply) {
      Position position = live->position();
      out.insert({game.positionText(position), position});
      if (!live->playDrawn(stream)) break;
    }
  }
  return out;
}

std::vector<std::shared_ptr<const Game>> everyGame() {
  std::vector<std::shared_ptr<const Game>> out;
  Library library = test::shippedLibrary();
  for (const std::string& name : library.names()) {
    out.push_back(library.open(name));
    for (const auto& [variant, says] : out.back()->info().variants)
      out.push_back(library.open(name, variant));
  }
  for (const char* drawn : {"nine-boards", "fences", "hollows"}) out.push_back(test::drawn(drawn));
  for (const std::string& like : library.likes())
    out.push_back(SheetGame::fromText(like + ".pegs", library.like(like)));
  return out;
}

TEST(Pictures, NeverDrawAlikeWhatDiffers) {
  for (const auto& game : everyGame()) {
    std::map<std::string, std::string> seen;  // picture -> text
    for (const auto& [text, position] : positions(*game, 12, 60)) {
      auto [it, fresh] = seen.insert({picture(*game, position), text});
      EXPECT_TRUE(fresh) << game->info().id << "\n" << it->second << "\n" << text;
    }
    EXPECT_GT(seen.size(), 3u) << game->info().id;
  }
}

TEST(Pictures, FiguresDifferToo) {
  for (const auto& game : everyGame()) {
    std::map<std::string, std::string> seen;
    for (const auto& [text, position] : positions(*game, 1, 12)) {
      auto [it, fresh] = seen.insert({figure(*game, position), text});
      EXPECT_TRUE(fresh) << game->info().id << "\n" << it->second << "\n" << text;
    }
  }
}

// All that a position's text says is in its memory or on the board.
TEST(Pictures, MemoryHoldsAllOfTheText) {
  auto game = test::fromText(
      "game odd\nsides Amber and Slate\nboard square 3 x 2\npiece peg o x\nmark hot\nmark cold "
      "each\n"
      "number seeds on cells\nnumber weeds on cells\nnumber left each\ncell last\n"
      "start\n  . o .\n  . . x\n  hot a1 b2\n  cold of Slate c1\n  seeds 0 1 2 3 4 5\n"
      "  weeds 0 0 0 0 0 7\n  left of Amber 3\n  last b1\n  hand of Amber 2 peg\n"
      "move place\n  pick there in empty\n  put peg on there from my hand\n  set last to there\n"
      "  add there to hot\n  add there to my cold\n  set my left to my left - 1\n"
      "  set seeds of there to 9\n  set weeds of there to 8\n"
      "ends\n  draw \"x\" when stuck\n");
  Memory memory = memoryOf(*game, game->start());
  ASSERT_EQ(memory.numbers.size(), 2u);
  EXPECT_EQ(memory.numbers[0].values.size(), 6u);
  EXPECT_EQ(memory.numbers[1].values.back().second, 7);
  ASSERT_EQ(memory.marks.size(), 2u);
  EXPECT_EQ(memory.marks[0].name, "hot");
  EXPECT_EQ(memory.marks[0].cells.count(), 2u);
  EXPECT_EQ(memory.marks[1].name, "cold of Slate");
  EXPECT_EQ(memory.others,
            (std::vector<std::string>{"left of Amber 3", "last b1", "hand of Amber 2 peg"}));
  std::string text = picture(*game, game->start());
  for (std::size_t at; (at = text.find("\n  ")) != text.npos;) text.replace(at, 3, " ");
  for (const char* part : {"seeds 2 on c1, 4 on b2", "weeds 7 on c2", "hot a1 b2",
                           "cold of Slate c1", "left of Amber 3", "last b1", "hand of Amber 2 peg"})
    EXPECT_NE(text.find(part), std::string::npos) << part << "\n" << text;
}

std::string boardOf(const Game& game, const std::string& position, bool flipped = false) {
  Marks marks;
  marks.flipped = flipped;
  return boardText(game, game.readPosition(position, "test"), marks, Paint());
}

TEST(Pictures, BordersRunBetweenCells) {
  auto game = test::fromText(
      "game odd\nsides Amber and Slate\nboard square 3 x 3\npiece peg o x\n"
      "move place\n  pick there in empty\n  put peg on there\n"
      "picture\n  border round rows 1 to 2 on columns a to b, c3\n"
      "ends\n  draw \"full\" when no empty\n");
  EXPECT_EQ(boardOf(*game, "3/1o1/x2"),
            "          ┌───┐\n"
            " 3   .  . │ . │\n"
            "   ┌──────┼───┘\n"
            " 2 │ .  o │ .\n"
            " 1 │ x  . │ .\n"
            "   └──────┘\n"
            "     a  b   c\n");
  EXPECT_EQ(boardOf(*game, "3/1o1/x2", true),
            "       ┌──────┐\n"
            " 1   . │ .  x │\n"
            " 2   . │ o  . │\n"
            "   ┌───┼──────┘\n"
            " 3 │ . │ .  .\n"
            "   └───┘\n"
            "     c   b  a\n");
}

TEST(Pictures, StrokesLieOnEdges) {
  auto game = test::drawn("fences");
  Position position = test::after(*game, "b1, a2, b3, c2, d3");
  EXPECT_EQ(boardText(*game, position, {}, Paint()),
            " 7  +  .  +  .  +  .  +  .  +\n"
            " 6  .  .  .  .  .  .  .  .  .\n"
            " 5  +  .  +  .  +  .  +  .  +\n"
            " 4  .  .  .  .  .  .  .  .  .\n"
            " 3  + --- + --- +  .  +  .  +\n"
            " 2  |  x  |  .  .  .  .  .  .\n"
            " 1  + --- +  .  +  .  +  .  +\n"
            "    a  b  c  d  e  f  g  h  i\n");
}

// A side's stroke says whose it is.
TEST(Pictures, StrokesOfSides) {
  auto game = test::fromText(
      "game odd\nsides Amber and Slate\nboard square 3 x 3\npiece rail o x\n"
      "move lay\n  pick there in (b1 or a2) on empty\n  put rail on there\n"
      "picture\n  corner as corners\n  edge except corner as edges\n"
      "ends\n  draw \"full\" when no empty\n");
  EXPECT_EQ(boardOf(*game, "1o1/x1o/1x1"),
            " 3  + -o- +\n"
            " 2  x  .  o\n"
            " 1  + -x- +\n"
            "    a  b  c\n");
}

TEST(Pictures, ShadesSayWhose) {
  const std::string sheet =
      "game odd\nsides Amber and Slate\nboard square 3 x 1\npiece peg o x\nmark won each\n"
      "mark hot\nmove place\n  pick there in empty\n  put peg on there\n"
      "ends\n  draw \"full\" when no empty\n";
  auto game = test::fromText(sheet + "picture\n  won as shade\n  hot as shade\n");
  std::string text = "o2; hot b1; won of Amber a1; won of Slate c1; Slate to move";
  EXPECT_EQ(boardOf(*game, text), " 1 ░ o ▒ . ▓ .\n     a   b   c\n");
  EXPECT_EQ(besidesText(*game, game->readPosition(text, "test")), "");
  // Where two lie on one cell they are listed.
  text = "o2; won of Amber a1; won of Slate a1; Slate to move";
  EXPECT_EQ(boardOf(*game, text), " 1   o   .   .\n     a   b   c\n");
  EXPECT_NE(besidesText(*game, game->readPosition(text, "test")).find("won of Slate a1"),
            std::string::npos);
  // Two marks of nobody's would have one sign.
  auto alike = test::fromText(sheet + "mark cold\npicture\n  cold as shade\n  hot as shade\n");
  Position both = alike->readPosition("o2; hot b1; cold c1; Slate to move", "test");
  EXPECT_NE(besidesText(*alike, both).find("cold c1"), std::string::npos);
}

// Two boards stand beside each other where there is room, so that a game goes on a small screen.
TEST(Pictures, TwoBoardsBesideEachOther) {
  auto small = test::fromText(
      "game odd\nsides Amber and Slate\nboard square 3 x 2, one each\npiece peg o\n"
      "move place\n  pick there in my empty\n  put peg on there\n"
      "ends\n  draw \"full\" when no my empty\n");
  Position position = test::after(*small, "a1, c2");
  EXPECT_EQ(boardsText(*small, position, {}, Paint()),
            " Amber's board    Slate's board\n"
            " 2  .  .  .       2  .  .  o\n"
            " 1  o  .  .       1  .  .  .\n"
            "    a  b  c          a  b  c\n");
  std::string ships =
      boardsText(*test::shipped("battleship"), test::shipped("battleship")->start(), {}, Paint());
  EXPECT_EQ(test::count(ships, "\n"), 12u) << ships;
  auto wide = test::fromText(
      "game odd\nsides Amber and Slate\nboard square 14 x 2, one each\npiece peg o\n"
      "move place\n  pick there in my empty\n  put peg on there\n"
      "ends\n  draw \"full\" when no my empty\n");
  EXPECT_EQ(test::count(boardsText(*wide, wide->start(), {}, Paint()), "\n"), 9u);
}

// Seen from the other side of the table: the same picture turned by half.
TEST(Pictures, Flipped) {
  Paint plain;
  for (const char* name : {"othello", "hex", "hex-tiles", "morris", "tic-tac-toe"}) {
    auto game = test::shipped(name);
    Marks marks;
    std::string straight = boardText(*game, game->start(), marks, plain);
    marks.flipped = true;
    std::string flipped = boardText(*game, game->start(), marks, plain);
    EXPECT_NE(straight, flipped) << name;
    EXPECT_EQ(std::count(straight.begin(), straight.end(), '\n'),
              std::count(flipped.begin(), flipped.end(), '\n'));
    for (char c : {'.', 'o', 'x'})
      EXPECT_EQ(std::count(straight.begin(), straight.end(), c),
                std::count(flipped.begin(), flipped.end(), c))
          << name << "\n"
          << flipped;
  }
}

}  // namespace pictures_test
}  // namespace ninepegs::report
