// Mutants beside their sheet, and the questions that tell them apart.
#include "ninepegs/verify/mutants.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <map>
#include <set>

#include "ninepegs/verify/case_text.hpp"
#include "ninepegs/verify/examples.hpp"
#include "ninepegs/verify/questions.hpp"
#include "support/games.hpp"
#include "support/many.hpp"

namespace ninepegs::verify {
namespace verify_mutants_test {

// A shipped sheet without its cases, invariants and symmetries.
std::string bare(const std::string& name) {
  std::string text = readFile(test::shippedSheet(name), limits::sheetBytes), out;
  bool inside = false;
  for (std::size_t from = 0; from < text.size();) {
    std::size_t to = std::min(text.find('\n', from), text.size());
    std::string line = text.substr(from, to - from);
    from = to + 1;
    if (!line.empty() && line[0] != ' ' && line[0] != '#')
      inside = line.rfind("case ", 0) == 0 || line.rfind("always", 0) == 0 ||
               line.rfind("symmetric", 0) == 0;
    if (!inside) out += line + "\n";
  }
  return out;
}

MutantOptions quick() {
  MutantOptions options;
  options.scenes.games = 20;
  options.scenes.most = 200;
  options.threads = 2;
  return options;
}

TEST(Scenes, AreDifferentPositionsTheSameForTheSameSeed) {
  auto game = test::fromText(bare("othello"));
  SceneOptions options;
  options.games = 10;
  options.most = 50;
  Scenes one = findScenes(*game, options), two = findScenes(*game, options);
  ASSERT_EQ(one.all.size(), two.all.size());
  EXPECT_EQ(one.all.front().position, game->start());
  std::set<std::string> texts;
  for (std::size_t i = 0; i < one.all.size(); ++i) {
    EXPECT_EQ(one.all[i].position, two.all[i].position);
    EXPECT_TRUE(texts.insert(game->positionText(one.all[i].position)).second);
    EXPECT_FALSE(game->ended(one.all[i].position));
  }
  options.seed = 2;
  Scenes other = findScenes(*game, options);
  bool differs = other.all.size() != one.all.size();
  for (std::size_t i = 0; i < std::min(one.all.size(), other.all.size()); ++i)
    differs = differs || !(one.all[i].position == other.all[i].position);
  EXPECT_TRUE(differs);
}

// A line that uniform games seldom use has its positions all the same: a full board of hex tiles,
// the pass of othello.
TEST(Scenes, ShowEveryLineThatGamesCanUse) {
  auto game = test::fromText(bare("othello"));
  Scenes scenes = findScenes(*game, {});
  std::size_t passes = 0;
  MoveList moves;
  for (const Scene& scene : scenes.all) {
    game->listMoves(scene.position, moves);
    passes += moves.size() == 1 && game->moveText(scene.position, moves[0]) == "pass";
  }
  EXPECT_GE(passes, 5u);
}

TEST(Mutants, OfASheetThatSaysNothingAreNoticedByNothing) {
  auto game = test::fromText(bare("tic-tac-toe"));
  MutantOptions options = quick();
  Mutants mutants(*game, options);
  mutants.run();
  std::map<std::string, std::size_t> shows;
  for (const Mutant& one : mutants.all()) {
    EXPECT_EQ(one.noticedBy, "");
    shows[rules::toText(one.mutation)] = one.shows.size();
  }
  // Told apart by hand: three of four in a row is no three; no row of three goes on to a fourth.
  EXPECT_GT(shows["`4` where it says `3`"], 0u);
  EXPECT_EQ(
      shows["`line of exactly 3 in mine along any` where it says `line of 3 in mine along any`"],
      0u);
  EXPECT_EQ(shows["`turn place else pass` where it says `turn place`"], 0u);
}

// Threads change no result.
TEST(Mutants, AreTheSameOnAnyNumberOfThreads) {
  auto game = test::fromText(readFile(test::shippedSheet("connect-four"), limits::sheetBytes));
  std::vector<std::string> said[2];
  for (int run = 0; run < 2; ++run) {
    MutantOptions options = quick();
    options.threads = run == 0 ? 1 : 3;
    options.playouts = 10;
    Mutants mutants(*game, options);
    mutants.run();
    for (const Mutant& one : mutants.all())
      said[run].push_back(rules::toText(one.mutation) + one.noticedBy + one.noticed + one.refused +
                          std::to_string(one.shows.size()));
  }
  EXPECT_EQ(said[0], said[1]);
}

// What a case notices needs no look at the scenes: the questions are the same.
TEST(Mutants, OnlyUnnoticedGiveTheSameQuestions) {
  for (const char* name : {"hut-pass", "othello"}) {
    auto game = test::fromText(readFile(test::shippedSheet(name), limits::sheetBytes));
    std::vector<std::string> asked[2];
    std::size_t shown[2] = {0, 0};
    for (bool unnoticed : {false, true}) {
      MutantOptions options = quick();
      options.playouts = 10;
      options.unnoticed = unnoticed;
      Mutants mutants(*game, options);
      mutants.run();
      for (const Mutant& one : mutants.all()) shown[unnoticed] += one.shows.empty() ? 0 : 1;
      for (const Question& one : chooseQuestions(mutants, {.most = 10}))
        asked[unnoticed].push_back(caseOf(mutants, one));
    }
    EXPECT_EQ(asked[0], asked[1]) << name;
    EXPECT_FALSE(asked[0].empty()) << name;
    EXPECT_LT(shown[1], shown[0]) << name;
  }
}

TEST(Mutants, OfAHeavyGameAreFewer) {
  auto game = test::fromText(bare("othello"));
  std::size_t many[3];
  for (int i = 0; i < 3; ++i) {
    MutantOptions options = quick();
    options.scenes.most = 20;
    options.plays = std::size_t{1} << (20 - 8 * i);
    Mutants mutants(*game, options);
    mutants.run();
    many[i] = mutants.all().size();
    EXPECT_FALSE(chooseQuestions(mutants, {.most = 1}).empty());
  }
  EXPECT_GT(many[0], many[1]);
  EXPECT_EQ(many[2], 8u);
}

// The shortest game on which a mutant parts, by a plain search over all games.
TEST(Mutants, PartAfterTheShortestGame) {
  auto game = test::fromText(bare("tic-tac-toe"));
  Mutants mutants(*game, quick());
  mutants.run();
  int looked = 0;
  for (const Mutant& one : mutants.all()) {
    if (one.game == nullptr || one.shows.empty()) continue;
    if (one.shows.front().kind == Difference::Kind::start) continue;
    Parting parting = mutants.parting(one, 20'000);
    ASSERT_TRUE(parting.shortest) << rules::toText(one.mutation);
    ++looked;
    // All games of both that are shorter agree.
    std::size_t length = parting.moves.size();
    bool legal = parting.difference.kind == Difference::Kind::notLegal ||
                 parting.difference.kind == Difference::Kind::extra;
    std::vector<std::pair<Position, Position>> level = {{game->start(), one.game->start()}};
    std::size_t depth = 0, found = 99;
    for (; depth <= 9 && found == 99; ++depth) {
      std::vector<std::pair<Position, Position>> next;
      std::set<std::string> met;
      for (const auto& [a, b] : level) {
        std::vector<std::string> mine = moveTexts(*game, a), its = moveTexts(*one.game, b);
        if (mine != its) found = depth;
        for (const std::string& move : mine) {
          if (mine != its) break;
          Position x = playMoves(*game, a, move, "a"), y = playMoves(*one.game, b, move, "b");
          if (game->positionText(x) != one.game->positionText(y) ||
              resultText(*game, game->result(x)) != resultText(*one.game, one.game->result(y)))
            found = std::min(found, depth + 1);
          else if (met.insert(game->positionText(x)).second)
            next.emplace_back(x, y);
        }
      }
      level = std::move(next);
    }
    EXPECT_EQ(length, found) << rules::toText(one.mutation) << (legal ? " legal" : "");
  }
  EXPECT_GT(looked, 10);
}

class Asked : public testing::TestWithParam<const char*> {};

// Kept as cases, the questions pass on the sheet, and each fails on every mutant that it tells.
TEST_P(Asked, QuestionsKeptAsCasesTellTheirMutants) {
  std::string text = bare(GetParam());
  if (text.starts_with("game chess") && !test::looksAtAll()) GTEST_SKIP() << "./run long";
  auto game = test::fromText(text);
  MutantOptions options = quick();
  bool large = game->info().id == "chess" || game->info().id == "battleship";
  if (large) options.scenes.most = test::many(10, 200);
  Mutants mutants(*game, options);
  mutants.run();
  std::vector<Question> questions = chooseQuestions(mutants, {.most = 12});
  ASSERT_GE(questions.size(), 3u);
  std::string cases;
  std::size_t last = 99999;
  for (const Question& one : questions) {
    EXPECT_LE(one.tells.size(), last);  // those that tell most come first
    last = one.tells.size();
    cases += caseOf(mutants, one);
  }
  auto kept = test::fromText(text + cases);
  std::vector<ExampleRun> runs = runExamples(*kept, 1);
  ASSERT_EQ(runs.size(), questions.size());
  for (const ExampleRun& run : runs)
    EXPECT_TRUE(run.findings.empty()) << run.findings.front().message << "\n" << cases;
  // The same mutants again, now of a sheet that has the case that tells them.
  for (const Question& one : questions) {
    auto alone = test::fromText(text + caseOf(mutants, one));
    std::vector<rules::Mutation> all = rules::mutationsOf(alone->rules());
    ASSERT_EQ(all.size(), mutants.all().size());
    for (std::size_t number : one.tells) {
      std::shared_ptr<const SheetGame> mutant;
      try {
        mutant = SheetGame::fromRules(rules::mutated(alone->rules(), all[number]));
      } catch (const RunawayRules&) {  // in the position of the case
        continue;
      }
      EXPECT_FALSE(runExamples(*mutant, 1).front().findings.empty())
          << rules::toText(all[number]) << "\n"
          << caseOf(mutants, one);
    }
  }
}

INSTANTIATE_TEST_SUITE_P(Sheets, Asked,
                         testing::Values("tic-tac-toe", "connect-four", "othello", "draughts",
                                         "morris", "hut-pass", "battleship", "nim", "hex",
                                         "hex-tiles", "chess"));

TEST(CaseText, IsReadBack) {
  for (const char* name : {"battleship", "morris", "chess", "hex", "hex-tiles", "nim"}) {
    std::string text = bare(name);
    auto game = test::fromText(text);
    Stream stream(5, 0);
    Position position = game->start();
    MoveList moves;
    for (int ply = 0; ply < 25; ++ply) {
      game->listMoves(position, moves);
      if (moves.empty()) break;
      Position before = position;
      Move move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
      game->apply(position, move);
      std::string block = caseText(*game, {"a \"move\"",
                                           before,
                                           {game->moveText(before, move)},
                                           position,
                                           {expectedResult(*game, game->result(position))}});
      auto with = test::fromText(text + block);
      ExampleRun run = runExamples(*with, 1).front();
      EXPECT_TRUE(run.findings.empty()) << run.findings.front().message << block;
      EXPECT_EQ(run.name, "a 'move'");
    }
  }
}

// With a line beside the picture, `leaves` is the whole position.
TEST(Leaves, ComparesWhatIsSaidBesideThePicture) {
  const std::string sheet =
      "game t\nsides Amber and Slate\nboard square 3 x 1\npiece peg o x\nnumber left\nmark met\n"
      "move go\n  pick there in empty\n  put peg on there\n  set left to left + 1\n  add there to "
      "met\n"
      "ends\n  draw \"full\" when no empty\n";
  auto fails = [&](const std::string& lines) {
    auto game = test::fromText(sheet + "case \"c\"\n  play b1\n  leaves\n    . o .\n" + lines);
    return !runExamples(*game, 1).front().findings.empty();
  };
  EXPECT_FALSE(fails(""));
  EXPECT_FALSE(fails("    left 1\n    met b1\n    Slate to move\n"));
  EXPECT_TRUE(fails("    left 1\n    met b1\n    Amber to move\n"));
  EXPECT_TRUE(fails("    left 2\n    met b1\n    Slate to move\n"));
  EXPECT_TRUE(fails("    left 1\n    Slate to move\n"));
  EXPECT_TRUE(fails("    left 1\n    met b1 c1\n    Slate to move\n"));
}

}  // namespace verify_mutants_test
}  // namespace ninepegs::verify
