#include "ninepegs/play/series.hpp"

#include <cmath>
#include <map>

#include "ninepegs/play/openings.hpp"
#include "ninepegs/report/series_text.hpp"
#include "support/games.hpp"
#include "support/many.hpp"

namespace ninepegs::play {
namespace series_test {

std::vector<std::string> textOf(const Series& series) {
  std::vector<std::string> out;
  for (const SeriesGame& one : series.games) {
    std::string line = std::to_string(one.first) + "-" + std::to_string(one.second) + ": ";
    for (const std::string& move : one.moves) line += move + " ";
    out.push_back(line + one.result);
  }
  return out;
}

TEST(Series, TheSameOnAnyNumberOfThreadsAndResumed) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  std::vector<std::string> who = {"search:nodes=300", "playouts:playouts=30", "greedy"};
  SeriesOptions options;
  options.games = 5;  // six: whole pairs
  Series one = playSeries(*game, who, options);
  EXPECT_EQ(one.games.size(), 18u);
  for (int threads : {2, 5}) {
    options.threads = threads;
    EXPECT_EQ(textOf(playSeries(*game, who, options)), textOf(one));
  }
  // From any part of the games on.
  for (std::size_t begun : {1u, 7u, 18u}) {
    options.begun.assign(one.games.begin(), one.games.begin() + static_cast<long>(begun));
    Series again = playSeries(*game, who, options);
    EXPECT_EQ(textOf(again), textOf(one));
    EXPECT_EQ(report::seriesJson(*game, who, options, again, "1"),
              report::seriesJson(*game, who, options, one, "1"));
  }
}

int winnerAfter(const Game& game, const Opening& opening) {
  Position position = game.start();
  for (const Move& move : opening.moves) game.apply(position, move);
  Stream stream(1, 1);
  Choice choice = makeMinimax(9)->choose(game, position, stream);
  if (!decides(choice.score)) return -1;
  return choice.score > 0 ? game.toMove(position) : 1 - game.toMove(position);
}

// Minimax, which guesses nothing, says whether an opening decides the game.
TEST(Series, BalancedOpeningsDecideNothing) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  constexpr int plies = 3;
  Openings any(*game, {plies, 1, false}), balanced(*game, {plies, 1, true});
  int decided = 0;
  for (std::uint64_t number = 0; number < 12; ++number) {
    EXPECT_EQ(any.at(number).moves.size(), std::size_t{plies});
    decided += winnerAfter(*game, any.at(number)) >= 0;
    Opening one = balanced.at(number);
    EXPECT_EQ(one.moves.size(), std::size_t{plies});
    EXPECT_EQ(winnerAfter(*game, one), -1);
    EXPECT_FALSE(one.decided);
    EXPECT_EQ(balanced.at(number).moves, one.moves);
  }
  EXPECT_GT(decided, 3);
}

// Who takes the last peg wins, so every opening decides the game: that is reported.
TEST(Series, OpeningsThatAllDecideAreReported) {
  std::shared_ptr<const Game> game = test::shipped("nim");
  SeriesOptions options;
  options.games = 2, options.opening = 1, options.balanced = true;
  std::vector<std::string> who = {"greedy", "random"};
  Series series = playSeries(*game, who, options);
  for (const SeriesGame& one : series.games) EXPECT_TRUE(one.decided);
  std::string text = report::seriesText(*game, who, options, series, report::Paint());
  EXPECT_NE(text.find("for 2 games only openings were found"), std::string::npos) << text;
  EXPECT_NE(text.find("balanced openings of 1 ply"), std::string::npos) << text;
}

// Both sides get each opening, and every game is one of the rules.
TEST(Series, PairsOfGamesBeginAlike) {
  std::shared_ptr<const Game> game = test::shipped("othello");
  SeriesOptions options;
  options.games = 8;
  options.opening = 4;
  Series series = playSeries(*game, {"greedy", "random"}, options);
  std::map<std::string, int> openings;
  for (std::size_t i = 0; i < series.games.size(); ++i) {
    const SeriesGame& one = series.games[i];
    EXPECT_EQ(one.opening, 4);
    std::string begin;
    for (int ply = 0; ply < 4; ++ply) begin += one.moves[static_cast<std::size_t>(ply)] + " ";
    ++openings[begin];
    EXPECT_EQ(one.first, i % 2);
    Position position = game->start();
    for (const std::string& move : one.moves)
      game->apply(position, matchingMoves(*game, position, move).at(0));
    EXPECT_EQ(one.result, resultText(*game, game->result(position)));
  }
  for (const auto& [opening, times] : openings) EXPECT_EQ(times % 2, 0) << opening;
  const Pairing& pairing = series.pairings.at(0);
  EXPECT_EQ(pairing.games(), 8u);
  EXPECT_DOUBLE_EQ(pairing.points(0) + pairing.points(1), 8.0);
}

// Each level beats the one two below it.
TEST(Series, LevelsAreInOrder) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  SeriesOptions options;
  options.games = 40;
  options.threads = 2;
  for (int level : test::looksAtAll() ? std::vector{3, 5, 7} : std::vector{3, 5}) {
    std::vector<std::string> who = {"search:level=" + std::to_string(level),
                                    "search:level=" + std::to_string(level - 2)};
    EXPECT_GT(playSeries(*game, who, options).pairings[0].points(0), 24) << level;
  }
}

// Against the formulas, worked out by hand: 75 % are 191 points; twenty even games leave 152.
TEST(Series, Ratings) {
  Pairing pairing{0, 1, 3, 0, 1, 0};
  EXPECT_NEAR(*pairing.rating(), 190.85, 0.01);
  pairing = {0, 1, 10, 0, 10, 0};
  EXPECT_NEAR(*pairing.rating(), 0, 1e-9);
  EXPECT_NEAR(pairing.margin(), 1.96 * std::sqrt(0.25 / 20) * 400 / std::log(10) / 0.25, 0.01);
  EXPECT_FALSE((Pairing{0, 1, 5, 0, 0, 0}).rating());
  EXPECT_FALSE((Pairing{0, 1, 0, 0, 0, 0}).rating());
}

TEST(Series, IsSettledSooner) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  SeriesOptions options;
  options.games = 400;
  options.opening = 0;
  options.settle = 100;
  Series better = playSeries(*game, {"search:depth=4", "random"}, options);
  EXPECT_EQ(better.settled, Series::Settled::better);
  EXPECT_LT(better.games.size(), 100u);
  Series not_ = playSeries(*game, {"random", "search:depth=4"}, options);
  EXPECT_EQ(not_.settled, Series::Settled::notBetter);
  options.threads = 3;
  EXPECT_EQ(textOf(playSeries(*game, {"random", "search:depth=4"}, options)), textOf(not_));
}

// Who asks for fewer games than there are, or settles what had been played on, loses none.
TEST(Series, WhatIsBegunBesideIsKept) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  std::vector<std::string> who = {"search:nodes=300", "random"};
  SeriesOptions options;
  options.games = 40;
  Series whole = playSeries(*game, who, options);
  EXPECT_TRUE(whole.beside.empty());
  options.begun = whole.games;
  std::size_t kept = 0;
  options.keep = [&](const Series& all) { kept = all.games.size(); };
  options.games = 10;
  Series fewer = playSeries(*game, who, options);
  EXPECT_EQ(fewer.games.size(), 10u);
  EXPECT_EQ(fewer.pairings[0].games(), 10u);
  EXPECT_EQ(fewer.beside.size(), 30u);
  EXPECT_EQ(kept, 40u);
  options.games = 40;
  options.settle = 50;
  Series settled = playSeries(*game, who, options);
  EXPECT_LT(settled.games.size(), 40u);
  EXPECT_EQ(settled.games.size() + settled.beside.size(), 40u);
  EXPECT_EQ(kept, 40u);
}

TEST(Series, WhatIsNoBegunMatchIsRefused) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  std::vector<std::string> who = {"greedy", "random"};
  SeriesOptions options;
  options.games = 4;
  std::string good = report::seriesJson(*game, who, options, playSeries(*game, who, options), "1");
  EXPECT_EQ(report::readSeries(*game, who, options, "1", good, "m.json").size(), 4u);
  auto refused = [&](const std::string& text, const std::vector<std::string>& of,
                     const SeriesOptions& with) {
    EXPECT_THROW(report::readSeries(*game, of, with, "1", text, "m.json"), BadInput) << text;
  };
  for (std::size_t part = 0; part < 10; ++part)
    refused(good.substr(0, good.size() * part / 10), who, options);
  refused(good, {"greedy", "search"}, options);
  SeriesOptions other = options;
  other.seed = 9;
  refused(good, who, other);
  EXPECT_THROW(report::readSeries(*game, who, options, "2", good, "m.json"), BadInput);
  for (const auto& [was, now] :
       std::vector<std::pair<std::string, std::string>>{{"\"winner\": ", "\"winner\": 7"},
                                                        {"\"first\": 0", "\"first\": 99"},
                                                        {"\"moves\": [", "\"moves\": [\"zz\","},
                                                        {"\"number\": 0", "\"number\": \"x\""}}) {
    std::string bad = good;
    refused(bad.replace(bad.find(was), was.size(), now), who, options);
  }
}

}  // namespace series_test
}  // namespace ninepegs::play
