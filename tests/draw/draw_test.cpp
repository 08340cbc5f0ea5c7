#include <filesystem>

#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/draw/chart.hpp"
#include "ninepegs/draw/play_charts.hpp"
#include "ninepegs/draw/thinking_chart.hpp"
#include "ninepegs/game/move_text.hpp"
#include "support/folder.hpp"
#include "support/games.hpp"

namespace ninepegs::draw {
namespace draw_test {

std::string bytes(const std::filesystem::path& path) {
  return readFile(path, 10'000'000);
}

// Width and height of a PNG, from its header.
std::pair<int, int> pngSize(const std::string& png) {
  auto number = [&](std::size_t at) {
    int value = 0;
    for (std::size_t i = 0; i < 4; ++i)
      value = value * 256 + static_cast<unsigned char>(png[at + i]);
    return value;
  };
  return {number(16), number(20)};
}

TEST(BoardFigure, WritesThreeFormats) {
  test::Folder folder;
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  Position position = test::after(*game, "a, b, b, c, d, c, c, d, e, d, d");
  FigureMarks marks;
  marks.shown = game->shownCells(position);
  marks.caption = "Amber <wins> & \"more\"";
  drawBoard(*game, position, marks, folder / "b.svg");
  drawBoard(*game, position, marks, folder / "b.png");
  drawBoard(*game, position, marks, folder / "b.pdf");
  EXPECT_NE(bytes(folder / "b.svg").find("<svg"), std::string::npos);
  EXPECT_EQ(bytes(folder / "b.png").substr(1, 3), "PNG");
  EXPECT_GT(pngSize(bytes(folder / "b.png")).first, 600);
  EXPECT_EQ(bytes(folder / "b.pdf").substr(0, 5), "%PDF-");
}

TEST(BoardFigure, RefusesOtherEndingsAndPlaces) {
  test::Folder folder;
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  EXPECT_THROW(drawBoard(*game, game->start(), {}, folder / "b.gif"), BadInput);
  EXPECT_THROW(drawBoard(*game, game->start(), {}, folder / "b"), BadInput);
  EXPECT_THROW(drawBoard(*game, game->start(), {}, folder / "none/b.png"), BadInput);
  EXPECT_TRUE(std::filesystem::is_empty(folder.path()));
}

TEST(BoardFigure, EqualPositionsGiveEqualFigures) {
  test::Folder folder;
  std::shared_ptr<const Game> game = test::shipped("hut-pass");
  drawBoard(*game, game->start(), {}, folder / "one.png");
  drawBoard(*game, game->start(), {}, folder / "two.png");
  EXPECT_EQ(bytes(folder / "one.png"), bytes(folder / "two.png"));
}

verify::Evidence someEvidence() {
  verify::Evidence evidence;
  evidence.playouts = 10;
  evidence.lengths.times = {{5, 4}, {900, 6}};
  evidence.outcomes[{0, 0, "a \"quoted\" \\name"}] = 4;
  evidence.unfinished = 6;
  return evidence;
}

TEST(Chart, IsDrawnForAnyEvidence) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  EXPECT_EQ(pngSize(checkChart(*game, someEvidence())), (std::pair<int, int>{1280, 640}));
}

// Titles and names are the sheet's: gnuplot draws them and does nothing else with them.
TEST(Chart, NoTextOfTheSheetIsRun) {
  test::Folder folder;
  std::string mark = (folder / "mark").string();
  std::string evil = "`touch " + mark + "` '.system('touch " + mark + "').' $(touch " + mark + ")";
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\ntitle \"" + evil + "\"\nsides A and B\nboard square 3 x 3\npiece peg o x\n" +
      "move place\n  pick there in empty\n  put peg on there\nends\n  draw \"" + evil +
      "\" when no empty\n");
  verify::Evidence evidence = someEvidence();
  evidence.outcomes = {{{0, -1, evil}, 3}};
  EXPECT_EQ(pngSize(checkChart(*game, evidence)), (std::pair<int, int>{1280, 640}));
  EXPECT_FALSE(std::filesystem::exists(mark));
  EXPECT_EQ(chartScript(*game, evidence).find('"'), std::string::npos);
}

TEST(Chart, EndsWhenItsTimeIsOverOrItIsStopped) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  EXPECT_THROW(checkChart(*game, someEvidence(), {.seconds = 0}), SystemFailure);
  StopFlag stop{true};
  EXPECT_THROW(checkChart(*game, someEvidence(), {.stop = &stop}), SystemFailure);
}

TEST(ThinkingChart, IsAPicture) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  play::Thinking thought = play::think(*game, game->start(), *play::makeSearch({.depth = 4}), {});
  EXPECT_EQ(pngSize(thinkingChart(*game, thought)), (std::pair<int, int>{1280, 640}));
  std::string svg = thinkingChart(*game, thought, {.form = ChartForm::svg});
  EXPECT_NE(svg.find("<svg"), std::string::npos);
  EXPECT_NE(svg.find("minimax"), std::string::npos);
  thought = play::think(*game, game->start(), *play::makePlayouts({.playouts = 30}), {});
  EXPECT_EQ(pngSize(thinkingChart(*game, thought)), (std::pair<int, int>{1280, 640}));
  StopFlag stop{true};
  EXPECT_THROW(thinkingChart(*game, thought, {.stop = &stop}), SystemFailure);
}

TEST(PlayCharts, AreAPicture) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Position start = game->start();
  std::vector<Move> moves;
  for (const char* text : {"1", "2", "3", "4", "5", "6"}) {  // 2 and 3 are blunders
    Position at = start;
    for (const Move& move : moves) game->apply(at, move);
    moves.push_back(matchingMoves(*game, at, text).front());
  }
  std::vector<play::ReviewedPly> plies = play::review(*game, start, moves, {.nodes = 2000});
  std::string drawn = reviewChart(*game, start, plies);
  EXPECT_EQ(pngSize(drawn), (std::pair<int, int>{1280, 640}));
  // What a ply came to is in the picture.
  plies.front().verdict = play::ReviewedPly::Verdict::letsWin;
  EXPECT_NE(reviewChart(*game, start, plies), drawn);
  StopFlag stop{true};
  EXPECT_THROW(reviewChart(*game, start, plies, {.stop = &stop}), SystemFailure);
}

TEST(PlayCharts, ShowASeries) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  std::vector<std::string> who = {"greedy", "it's 'random'", "search:depth=2"};
  play::Series series;
  series.games.resize(6);
  series.pairings = {{0, 1, 2, 0, 0, 1}, {0, 2, 0, 1, 1, 1}, {1, 2, 0, 1, 1, 0}};
  series.ratings = {10, -60, 50};
  std::string drawn = seriesChart(*game, who, series);
  EXPECT_EQ(pngSize(drawn).first, 1280);
  series.pairings[2] = {1, 2, 1, 1, 0, 0};
  EXPECT_NE(seriesChart(*game, who, series), drawn);
}

}  // namespace draw_test
}  // namespace ninepegs::draw
