// A worth that is fitted to games.
#include <cmath>

#include "ninepegs/play/logistic.hpp"
#include "ninepegs/play/other_worth.hpp"
#include "ninepegs/play/tuning.hpp"
#include "support/games.hpp"

namespace ninepegs::play {
namespace tuning_test {

// One column that is 0 or 1: the weights are the logs of the odds.
TEST(Logistic, IsTheLogOfTheOdds) {
  std::vector<std::vector<double>> rows;
  std::vector<double> results;
  auto add = [&](double x, int wins, int losses) {
    for (int i = 0; i < wins + losses; ++i) {
      rows.push_back({x, 1});
      results.push_back(i < wins ? 1 : 0);
    }
  };
  add(0, 300, 100);
  add(1, 80, 320);
  Logistic fit = fitLogistic(rows, results, 1e-9);
  EXPECT_NEAR(fit.weights[1], std::log(3.0), 1e-6);
  EXPECT_NEAR(fit.weights[0], std::log(0.25) - std::log(3.0), 1e-6);
  // The variance of a difference of two logs of odds: the sum of the reciprocals of the counts.
  EXPECT_NEAR(fit.errors[0], std::sqrt(1 / 300.0 + 1 / 100.0 + 1 / 80.0 + 1 / 320.0), 1e-6);
  double loss =
      -(300 * std::log(0.75) + 100 * std::log(0.25) + 80 * std::log(0.2) + 320 * std::log(0.8)) /
      800;
  EXPECT_NEAR(fit.loss, loss, 1e-9);
}

TEST(Logistic, FindsWhatWasPutIn) {
  Stream stream(5, 0);
  auto uniform = [&] { return stream.next() / 4294967296.0 * 4 - 2; };
  std::vector<std::vector<double>> rows;
  std::vector<double> results;
  const double put[] = {1.5, -0.7, 0};
  for (int i = 0; i < 20'000; ++i) {
    std::vector<double> row = {uniform(), uniform(), uniform()};
    double sum = 0;
    for (int k = 0; k < 3; ++k) sum += put[k] * row[static_cast<std::size_t>(k)];
    rows.push_back(row);
    results.push_back(stream.next() / 4294967296.0 < 1 / (1 + std::exp(-sum)) ? 1 : 0);
  }
  Logistic fit = fitLogistic(rows, results);
  for (std::size_t k = 0; k < 3; ++k)
    EXPECT_LT(std::abs(fit.weights[k] - put[k]), 4 * fit.errors[k]) << k;
}

// One that is always and only so when a side wins keeps a weight that can be written.
TEST(Logistic, StaysFinite) {
  Logistic fit = fitLogistic({{1}, {1}, {-1}, {-1}}, {1, 1, 0, 0});
  EXPECT_TRUE(std::isfinite(fit.weights[0]) && std::isfinite(fit.errors[0]));
  EXPECT_GT(fit.weights[0], 0);
}

// Pegs that take each other; whoever has more of the tall ones at the end wins, the small ones are
// worth nothing.
constexpr const char* tall = R"(game tall-pegs
title "Tall pegs"
about
  Pegs step and take. After twenty plies whoever has more tall ones has won.
sides Amber and Slate
board square 5 x 5
piece tall T t
piece small S s
start
  t s t s t
  . . . . .
  . . . . .
  . . . . .
  T S T S T
move walk
  pick c in mine
  pick d in step any from c except mine
  take d
  shift c to d
  written as c "-" d
ends
  mover wins "more tall ones" when plies >= 20 and count my tall > count their tall
  opponent wins "more tall ones" when plies >= 20 and count my tall < count their tall
  draw "as many" when plies >= 20
  draw "nobody can move" when stuck
)";

TEST(Tuning, FindsWhatDecides) {
  std::shared_ptr<const SheetGame> game = test::fromText(tall);
  TuneOptions options{.games = 120, .tests = 20, .nodes = 150};
  Tuned tuned = tune(*game, options);
  ASSERT_FALSE(tuned.parts.empty());
  EXPECT_EQ(tuned.parts.front().term, "count my tall");
  EXPECT_GT(tuned.parts.front().times, 0);
  for (const Tuned::Part& part : tuned.parts)
    if (part.term == "count my small") {
      EXPECT_LT(std::abs(part.weight), tuned.parts.front().weight / 3);
    }
  EXPECT_LT(tuned.after, tuned.before);
  ASSERT_TRUE(tuned.gain);
  EXPECT_EQ(tuned.gain->games(), 20u);
  // The line is one of the language, and measures as it says.
  std::string term = tuned.worth.substr(6);
  std::shared_ptr<const SheetGame> with = withWorth(*game, term);
  EXPECT_EQ(with->start(), game->start());
  Position position = with->readPosition(
      "t . . . . / . . . . . / . . . . . / . . . . . / T S T . . ; Amber to move", "test");
  if (tuned.parts.size() < 2 || tuned.parts[1].times == 0) {
    EXPECT_EQ(with->worth(position, 0), tuned.parts[0].times);
  }
  options.threads = 2;
  Tuned again = tune(*game, options);
  EXPECT_EQ(again.worth, tuned.worth);
  EXPECT_EQ(again.gain->wins, tuned.gain->wins);
}

TEST(Tuning, TakesEveryShippedSheet) {
  for (const char* name :
       {"connect-four", "othello", "draughts", "morris", "hut-pass", "hex-tiles", "nim", "chess"}) {
    auto game = std::dynamic_pointer_cast<const SheetGame>(test::shipped(name));
    Tuned tuned = tune(*game, {.games = 6, .tests = 2, .nodes = 20});
    EXPECT_GT(tuned.positions, 0u) << name;
    if (!tuned.worth.empty()) {
      EXPECT_NO_THROW(withWorth(*game, tuned.worth.substr(6))) << name;
    }
  }
}

// Moves of one text are a fault of a sheet, and no reason to lose the game that was played.
TEST(Tuning, ReplaysMovesThatReadAlike) {
  auto game = std::dynamic_pointer_cast<const SheetGame>(
      test::fromText("game t\nsides A and B\nboard square 4 x 4\npiece peg o x\nstart\n"
                     "  x x x x\n  . . . .\n  . . . .\n  o o o o\nmove go\n"
                     "  pick here in mine\n  pick there in empty\n  shift here to there\n"
                     "  written as \"to \" column of there\nends\n"
                     "  mover wins \"across\" when count (mine on (row 2 or row 3)) = 4\n"
                     "  draw \"long\" when plies > 40\n"));
  SeriesOptions options;
  options.games = 10;
  for (const SeriesGame& one : playSeries(*game, {"random", "greedy"}, options).games) {
    Position position = game->start();
    for (const Move& move : one.played) {
      ASSERT_TRUE(game->isLegal(position, move));
      game->apply(position, move);
    }
    EXPECT_TRUE(game->ended(position));
  }
  EXPECT_GT(tune(*game, {.games = 20, .tests = 0, .nodes = 20}).positions, 0u);
}

TEST(Tuning, Stops) {
  auto game = std::dynamic_pointer_cast<const SheetGame>(test::shipped("othello"));
  StopFlag stop{true};
  Tuned tuned = tune(*game, {.stop = &stop});
  EXPECT_TRUE(tuned.stopped);
  EXPECT_TRUE(tuned.worth.empty());
}

}  // namespace tuning_test
}  // namespace ninepegs::play
