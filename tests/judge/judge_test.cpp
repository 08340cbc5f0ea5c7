// Shipped sheets, samples and faulty sheets, played beside the slow judge.
#include <filesystem>

#include "judge/compare.hpp"
#include "judge/generate.hpp"
#include "support/games.hpp"
#include "support/live.hpp"
#include "support/many.hpp"

namespace ninepegs::judge {
namespace judge_test {

std::vector<std::string> sheetsIn(const std::string& folder) {
  std::vector<std::string> out;
  for (const auto& entry :
       std::filesystem::directory_iterator(std::string(NINEPEGS_SOURCE) + "/" + folder))
    if (entry.path().extension() == ".pegs" && entry.path().stem().extension() != ".cases")
      out.push_back(entry.path().string());
  std::sort(out.begin(), out.end());
  return out;
}

class BesideTheSlowJudge : public testing::TestWithParam<std::string> {};

TEST_P(BesideTheSlowJudge, AllIsTheSame) {
  std::string text = readFile(GetParam(), 1 << 20);
  std::shared_ptr<const SheetGame> game = SheetGame::fromText(GetParam(), text);
  std::vector<std::string> variants = {""};
  for (const auto& [name, says] : game->info().variants) variants.push_back(name);
  bool large = game->board().size() > 100;
  for (const std::string& variant : variants) {
    CompareOptions options;
    options.games = 1;
    options.plies = large ? 2 : game->info().id == "chess" ? 4 : 12;
    options.cases = !large;
    Compared compared = compare(*SheetGame::fromText(GetParam(), text, variant), text, options);
    EXPECT_EQ(compared.difference, "") << variant;
    EXPECT_GT(compared.positions, 0u);
  }
}

std::string nameOf(const testing::TestParamInfo<std::string>& info) {
  std::string name = std::filesystem::path(info.param).stem().string();
  std::replace(name.begin(), name.end(), '-', '_');
  return name;
}

INSTANTIATE_TEST_SUITE_P(Shipped, BesideTheSlowJudge, testing::ValuesIn(sheetsIn("sheets")),
                         nameOf);
INSTANTIATE_TEST_SUITE_P(Faulty, BesideTheSlowJudge, testing::ValuesIn(sheetsIn("examples/faulty")),
                         nameOf);

INSTANTIATE_TEST_SUITE_P(New, BesideTheSlowJudge, testing::ValuesIn(sheetsIn("examples/new")),
                         nameOf);

// Sheets drawn at random, each with all shortcuts and without them.
class DrawnSheets : public testing::TestWithParam<int> {};

TEST_P(DrawnSheets, AreTheSame) {
  int played = 0;
  std::uint64_t positions = 0;
  for (std::uint64_t number = static_cast<std::uint64_t>(GetParam()) * 1000;
       played < test::many(15, 30); ++number) {
    Generated one = generateSheet(7, number);
    CompareOptions options;
    options.seed = number;
    options.games = 1;
    options.plies = 6;
    Compared compared = compare(one.text, one.variant, options);
    if (compared.refused) continue;
    ++played;
    positions += compared.positions;
    ASSERT_EQ(compared.difference, "") << "sheet " << number << " of seed 7\n" << one.text;
    auto slower = SheetGame::fromText("drawn.pegs", one.text, one.variant, sheet::allShortcuts);
    ASSERT_EQ(compare(*slower, one.text, options).difference, "")
        << "without shortcuts, sheet " << number << "\n"
        << one.text;
  }
  EXPECT_GT(positions, 30u);
}

INSTANTIATE_TEST_SUITE_P(Seed7, DrawnSheets, testing::Range(0, 10));

// What was found once stays found: sheets on which the two parted before.
class Corpus : public testing::TestWithParam<std::string> {};

TEST_P(Corpus, IsTheSame) {
  std::string text = readFile(GetParam(), 1 << 20);
  for (sheet::Shortcuts without : {sheet::Shortcuts{0}, sheet::allShortcuts}) {
    std::shared_ptr<const SheetGame> game;
    try {
      game = SheetGame::fromText(GetParam(), text, "", without);
    } catch (const BadInput&) {
      GTEST_SKIP() << "refused: " << GetParam();
    }
    CompareOptions options;
    options.games = 2;
    options.plies = 6;
    options.moves = test::many<std::uint64_t>(250, ~0ull);
    EXPECT_EQ(compare(*game, text, options).difference, "");
    for (const auto& [name, says] : game->info().variants)
      EXPECT_EQ(compare(text, name, options).difference, "") << name;
    for (std::uint64_t number = 0; number < test::many(2u, 4u); ++number)
      EXPECT_EQ(test::liveParted(*game, Stream(1, number), test::many(8, 20)), "");
  }
}

INSTANTIATE_TEST_SUITE_P(Sheets, Corpus, testing::ValuesIn(sheetsIn("tests/corpus")), nameOf);

}  // namespace judge_test
}  // namespace ninepegs::judge
