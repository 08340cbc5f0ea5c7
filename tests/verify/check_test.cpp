#include "ninepegs/verify/check.hpp"

#include <cmath>
#include <set>

#include "ninepegs/report/json.hpp"
#include "ninepegs/verify/shorten.hpp"
#include "support/games.hpp"
#include "support/plain_games.hpp"

namespace ninepegs::verify {
namespace check_test {

CheckReport checked(const Game& game, std::uint64_t playouts = 1000, int threads = 2) {
  CheckOptions options;
  options.playouts = playouts;
  options.threads = threads;
  return check(game, options);
}

TEST(Check, ShippedGamesHaveNoFaultAndUseEveryStatement) {
  const std::set<std::string> quick = {"tic-tac-toe", "connect-four", "hut-pass", "nim"};
  // Ends that random play hardly ever comes to.
  auto isRare = [](const std::string& line) {
    for (const char* name : {"\"board full\"", "\"no move left\"", "\"threefold repetition\"",
                             "\"bishops of one colour\"", "\"fifty moves", "\"forty quiet"})
      if (line.find(name) != std::string::npos) return true;
    return false;
  };
  for (const std::string& name : test::shippedLibrary().names()) {
    std::uint64_t playouts = quick.count(name) > 0 ? 10'000 : name == "five-in-a-row" ? 20 : 200;
    std::shared_ptr<const Game> game = test::shipped(name);
    CheckReport report = checked(*game, playouts);
    for (const Finding& finding : report.findings) ADD_FAILURE() << name << ": " << finding.message;
    EXPECT_EQ(report.evidence.playouts, playouts);
    EXPECT_EQ(report.evidence.unfinished, 0u);
    for (std::size_t i = 0; i < report.evidence.uses.size(); ++i)
      if (quick.count(name) > 0 || !isRare(game->checks()->ruleLines()[i].text)) {
        EXPECT_GT(report.evidence.uses[i], 0u)
            << name << " line " << game->checks()->ruleLines()[i].line;
      }
  }
}

TEST(Check, ThreadsChangeNothing) {
  for (const char* sheet : {"tic-tac-toe", "connect-four"}) {
    std::shared_ptr<const Game> game = test::shipped(sheet);
    CheckOptions options;
    options.playouts = 3000;
    options.seed = 9;
    std::string one = report::checkJson(*game, options, check(*game, options));
    for (int threads : {2, 5}) {
      options.threads = threads;
      EXPECT_EQ(report::checkJson(*game, options, check(*game, options)), one);
    }
    options.seed = 10;
    EXPECT_NE(report::checkJson(*game, options, check(*game, options)), one);
  }
  std::shared_ptr<const Game> game = test::faulty("taken-cell");
  CheckOptions options;
  options.playouts = 500;
  std::string one = report::checkJson(*game, options, check(*game, options));
  options.threads = 4;
  EXPECT_EQ(report::checkJson(*game, options, check(*game, options)), one);
}

// Shares of results of random tic-tac-toe, worked out exactly by following every choice.
TEST(Check, SharesOfResultsAreTheExactOnes) {
  std::function<void(const plain::TicTacToe&, double, double*)> follow =
      [&](const plain::TicTacToe& game, double chance, double* shares) {
        if (game.over()) {
          shares[game.winner] += chance;
          return;
        }
        std::vector<std::string> moves = game.moves();
        for (const std::string& move : moves) {
          plain::TicTacToe next = game;
          next.play(move);
          follow(next, chance / static_cast<double>(moves.size()), shares);
        }
      };
  double shares[3] = {0, 0, 0};
  follow(plain::TicTacToe{}, 1, shares);
  const std::uint64_t playouts = 40'000;
  CheckReport report = checked(*test::shipped("tic-tac-toe"), playouts);
  double seen[3] = {0, 0, 0};
  for (const auto& [outcome, number] : report.evidence.outcomes)
    seen[std::get<1>(outcome) + 1] += static_cast<double>(number) / static_cast<double>(playouts);
  for (int i = 0; i < 3; ++i)
    EXPECT_NEAR(seen[i], shares[i],
                5 * std::sqrt(shares[i] * (1 - shares[i]) / static_cast<double>(playouts)));
}

TEST(Check, StopsWithWhatItHas) {
  StopFlag stop{false};
  CheckOptions options;
  options.playouts = 1'000'000'000;
  options.stop = &stop;
  options.progress = [&](std::uint64_t done) { stop = done >= 640; };
  CheckReport report = check(*test::shipped("tic-tac-toe"), options);
  EXPECT_TRUE(report.stopped);
  EXPECT_GE(report.evidence.playouts, 640u);
  EXPECT_LT(report.evidence.playouts, 2000u);
}

TEST(Check, FindsABrokenSymmetry) {
  std::string text = test::sheetWith("symmetric under reflection of columns\n", "square 3 x 3");
  EXPECT_TRUE(checked(*test::fromText(text), 50).findings.empty());
  text.replace(text.find("pick there in empty"), 19, "pick there in empty except a1");
  text.replace(text.find("no empty"), 8, "no (empty except a1)");
  CheckReport report = checked(*test::fromText(text), 50);
  ASSERT_EQ(report.findings.size(), 1u);
  EXPECT_EQ(report.findings[0].kind, FindingKind::symmetry);
  EXPECT_TRUE(report.findings[0].moves.empty());  // it shows on the empty board
}

TEST(Check, LooksCloselyAtSomePositionsOrAtAll) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  CheckOptions options;
  options.playouts = 2000;
  options.examples = false;
  CheckReport some = check(*game, options);
  options.closely = true;
  CheckReport all = check(*game, options);
  EXPECT_EQ(all.evidence.symmetryTests, all.evidence.choices.count());
  EXPECT_GT(some.evidence.symmetryTests, 50u);
  EXPECT_LT(some.evidence.symmetryTests, all.evidence.symmetryTests / 10);
  EXPECT_EQ(some.evidence.outcomes, all.evidence.outcomes);  // the games are the same
}

TEST(Check, FindsBrokenInvariants) {
  std::string text = test::sheetWith("always\n  count occupied < 3\n  count empty never shrinks\n");
  CheckReport report = checked(*test::fromText(text), 50);
  ASSERT_EQ(report.findings.size(), 2u);
  EXPECT_EQ(report.findings[0].line, 7);
  EXPECT_EQ(report.findings[0].moves.size(), 3u);
  EXPECT_EQ(report.findings[1].line, 8);
  EXPECT_EQ(report.findings[1].moves.size(), 1u);
  EXPECT_TRUE(report.findings[0].shortest && report.findings[1].shortest);
}

TEST(Check, FindsGamesWithoutEnd) {
  std::string text =
      "game walk\nsides Amber and Slate\nboard square 3 x 3\npiece man o x\nstart\n"
      "  . . x\n  . . .\n  o . .\nmove go\n  pick here in mine\n"
      "  pick there in empty on step any from here\n  shift here to there\n"
      "ends\n  draw \"none\" when no mine\n";
  CheckReport report = checked(*test::fromText(text), 3);
  ASSERT_EQ(report.findings.size(), 1u);
  EXPECT_EQ(report.findings[0].kind, FindingKind::endless);
  // The way into a loop: played, it leads to a position that was there before.
  const Finding& finding = report.findings[0];
  EXPECT_NE(finding.message.find("comes again"), std::string::npos) << finding.message;
  auto game = test::fromText(text);
  std::set<std::vector<std::uint64_t>> met;
  Position position = game->start();
  for (std::size_t i = 0; i < finding.moves.size(); ++i) {
    EXPECT_TRUE(met.insert(game->identity(position)).second) << i;
    game->apply(position, matchingMoves(*game, position, finding.moves[i]).at(0));
  }
  EXPECT_EQ(met.count(game->identity(position)), 1u);
  EXPECT_LT(finding.moves.size(), 200u);
}

// A heap that goes below zero: the number that runs away is named.
TEST(Check, FindsNumbersThatRunAway) {
  CheckReport report = checked(
      *test::fromText("game heap\nsides Amber and Slate\nboard square 1 x 1\npiece peg o x\n"
                      "number heap\nstart\n  heap 9\nmove grab\n  choose some from 1 to 3\n"
                      "  set heap to heap - some\nends\n  mover wins \"last\" when heap = 0\n"),
      20);
  const Finding* endless = nullptr;
  for (const Finding& one : report.findings)
    if (one.kind == FindingKind::growing) endless = &one;
  ASSERT_NE(endless, nullptr);
  EXPECT_NE(endless->message.find("heap ran away, from -"), std::string::npos) << endless->message;
  EXPECT_LE(endless->moves.size(), 24u);
  EXPECT_EQ(endless->expects, "heap >= 0");
}

// A fault that no game from the start comes to, from the position of a case.
TEST(Check, SteeredGamesBeginAtCases) {
  std::string text =
      "game rare\nsides Amber and Slate\nboard square 4 x 4\npiece peg o x\npiece saw s z\n"
      "move place\n  pick there in empty\n  put peg on there\n"
      "move press\n  need any my saw\n  pick there in my peg\n  put peg on there\n"
      "ends\n  draw \"long\" when no empty\n"
      "case \"a saw\"\n  position\n    s . . .\n    . o . .\n    . . . .\n    . . . .\n"
      "  expect ongoing\n";
  CheckOptions options;
  options.playouts = 200;
  CheckReport report = check(*test::fromText(text), options);
  ASSERT_EQ(report.ways.size(), 5u);
  ASSERT_EQ(report.findings.size(), 1u);
  EXPECT_EQ(report.findings[0].kind, FindingKind::overwrite);
  EXPECT_EQ(report.findings[0].way, Steer::fromCase);
  EXPECT_TRUE(report.findings[0].from.rfind("s3/1o2/4/4", 0) == 0) << report.findings[0].from;
  EXPECT_EQ(report.findings[0].moves.size(), 1u);
  EXPECT_TRUE(report.findings[0].shortest);
  for (int threads : {1, 3}) {
    options.threads = threads;
    CheckReport again = check(*test::fromText(text), options);
    ASSERT_EQ(again.ways.size(), report.ways.size());
    for (std::size_t i = 0; i < report.ways.size(); ++i) {
      EXPECT_EQ(again.ways[i].uses, report.ways[i].uses);
      EXPECT_EQ(again.ways[i].ends, report.ways[i].ends);
    }
  }
}

// What two moves of one text do is told: on joined edges they may be one piece laid two ways; where
// the board is the same, what else differs.
TEST(Check, TellsWhatMovesOfOneTextAre) {
  auto message = [](const std::string& text) {
    CheckReport report = checked(*test::fromText(text), 5);
    return report.findings.empty() ? std::string() : report.findings[0].message;
  };
  std::string ring =
      "game ring\nsides Amber and Slate\nboard square 5 x 2, joined left to right\n"
      "piece peg o x\nmove lay\n  pick place in lines of 3 in empty along east\n"
      "  put peg on place\n  written as \"bar\"\nends\n  draw \"long\" when plies >= 2 or stuck\n";
  std::string said = message(ring);
  EXPECT_NE(said.find("\"bar\": one changes a"), std::string::npos) << said;
  EXPECT_NE(said.find("may lie across an edge"), std::string::npos) << said;
  ring.replace(ring.find(", joined left to right"), 22, "");
  said = message(ring);
  EXPECT_NE(said.find("one changes a"), std::string::npos) << said;
  EXPECT_EQ(said.find("across an edge"), std::string::npos) << said;
  said = message(
      "game ticks\nsides Amber and Slate\nboard square 2 x 2\npiece peg o x\nnumber ticks\n"
      "move tick\n  choose some from 1 to 2\n  set ticks to ticks + some\n  written as \"tick\"\n"
      "ends\n  draw \"long\" when ticks >= 4\n");
  EXPECT_NE(said.find("the board is the same after either: \"ticks\" is not"), std::string::npos)
      << said;
  // Lying round the whole ring, two ways come to one position, and are one move.
  EXPECT_EQ(message("game whole\nsides Amber and Slate\nboard square 3 x 2, joined left to right\n"
                    "piece peg o x\nmove lay\n  pick place in lines of 3 in empty along east\n"
                    "  put peg on place\n  written as \"bar \" place\n"
                    "ends\n  mover wins \"last\" when stuck\n"),
            "");
}

TEST(Check, FindsMovesWithOneText) {
  std::string text = test::sheetWith("");
  text.replace(text.find("  put peg on there"), 18,
               "  put peg on there\n  written as row of there");
  CheckReport report = checked(*test::fromText(text), 5);
  ASSERT_FALSE(report.findings.empty());
  EXPECT_EQ(report.findings[0].kind, FindingKind::ambiguous);
}

TEST(Check, FindsCasesThatFailAndSaysHow) {
  struct Wrong {
    const char* lines;
    const char* message;
  };
  for (const Wrong& wrong :
       {Wrong{"  play 5, 5", "5 is taken"},
        Wrong{"  play 5\n  expect Nought wins", "expected: Nought wins; but the game goes on"},
        Wrong{"  play 1, 4, 2, 5, 3\n  expect ongoing", "should go on here, but Cross wins"},
        Wrong{"  play 1, 4, 2, 5, 3\n  expect draw \"board full\"", "expected: a draw"},
        Wrong{"  expect legal 10", "should be legal, but: there is no cell"},
        Wrong{"  expect not legal 1", "should not be legal"},
        Wrong{"  expect moves = 1, 2", "expected the moves 1, 2; but there are 1, 2, 3"},
        Wrong{"  expect 8 moves", "expected 8 moves, but there are 9"},
        Wrong{"  expect sequences 1 to 2 = 9 71",
              "expected 71 sequences of depth 2, but there are 72"},
        Wrong{"  play 1\n  expect Cross to move", "Cross should be to move, but Nought is"},
        Wrong{"  play 1\n  leaves\n    . X .\n    . . .\n    . . .", "differs on 1, 2"}}) {
    std::string sheet = readFile(test::shippedSheet("tic-tac-toe"), 10'000);
    sheet = sheet.substr(0, sheet.find("case ")) + "case \"wrong\"\n" + wrong.lines + "\n";
    CheckReport report = checked(*test::fromText(sheet), 1);
    ASSERT_EQ(report.findings.size(), 1u) << wrong.lines;
    EXPECT_EQ(report.findings[0].kind, FindingKind::example);
    EXPECT_NE(report.findings[0].message.find(wrong.message), std::string::npos)
        << report.findings[0].message;
  }
}

TEST(Check, RunsCasesOfVariants) {
  std::string sheet = readFile(test::shippedSheet("tic-tac-toe"), 10'000);
  sheet +=
      "variant misere \"three in a line lose\"\n  ends\n    mover loses \"three\" when any line of "
      "3 in mine\n"
      "    draw \"board full\" when no empty\n"
      "case \"three lose\"\n  in variant misere\n  play 1, 4, 2, 5, 3\n  expect Nought wins "
      "\"three\"\n"
      "case \"three do not win\"\n  in variant misere\n  play 1, 4, 2, 5, 3\n  expect Cross wins\n";
  CheckReport report = checked(*test::fromText(sheet), 10);
  ASSERT_EQ(report.findings.size(), 1u);
  EXPECT_EQ(report.findings[0].example, "three do not win");
  EXPECT_EQ(report.findings[0].variant, "misere");
  EXPECT_TRUE(checked(*test::fromText(sheet, "misere"), 10).examples.size() == 2u);
}

TEST(Shorten, LeavesOutWhatIsNotNeededWhenThereIsNoRoomToTryAll) {
  std::shared_ptr<const Game> game = test::faulty("taken-cell");
  std::vector<Move> moves;
  Position position = game->start();
  for (const char* text : {"1", "2", "3", "9", "7", "2"}) {
    moves.push_back(matchingMoves(*game, position, text).front());
    game->apply(position, moves.back());
  }
  Evidence::FirstSeen seen{0, "", moves, {}, {}};
  auto shortened = [&](ShortenOptions how) {
    return shorten(*game, FindingKind::overwrite, 12, seen, how);
  };
  Shortened all = shortened({.plies = 0});
  EXPECT_TRUE(all.shortest);
  EXPECT_EQ(all.moves.size(), 2u);
  // Parts left out; playouts cut; both leave open whether there is a shorter one.
  for (ShortenOptions how :
       {ShortenOptions{.budget = 1, .plies = 0}, ShortenOptions{.budget = 1}}) {
    Shortened some = shortened(how);
    EXPECT_FALSE(some.shortest);
    EXPECT_EQ(some.moves.size(), 2u);
  }
}

TEST(Evidence, MergesInAnyOrder) {
  Evidence a, b, c;
  a.playouts = 1, b.playouts = 2, c.playouts = 3;
  a.lengths.add(4), b.lengths.add(4), c.lengths.add(9);
  a.uses = {1, 0}, b.uses = {0, 5}, c.uses = {2, 2};
  a.see({FindingKind::noEnd, 3, "late"}, {90, "", {}, {}, {}});
  b.see({FindingKind::noEnd, 3, "early"}, {7, "", {}, {}, {}});
  c.see({FindingKind::noEnd, 4, "other"}, {1, "", {}, {}, {}});
  Evidence one = a, two = c;
  one.merge(b), one.merge(c);
  two.merge(b), two.merge(a);
  for (const Evidence* e : {&one, &two}) {
    EXPECT_EQ(e->playouts, 6u);
    EXPECT_EQ(e->uses, (std::vector<std::uint64_t>{3, 7}));
    EXPECT_EQ(e->lengths.times, (std::map<std::uint64_t, std::uint64_t>{{4, 2}, {9, 1}}));
    ASSERT_EQ(e->faults.size(), 2u);
    EXPECT_EQ(e->faults.at({FindingKind::noEnd, 3}).message, "early");
  }
  EXPECT_DOUBLE_EQ(one.lengths.mean(), 17.0 / 3);
}

}  // namespace check_test
}  // namespace ninepegs::verify
