// Shipped sheets, samples and faulty sheets, played beside the slow judge.
#include <filesystem>

#include "judge/compare.hpp"
#include "support/games.hpp"

namespace ninepegs::judge {
namespace {

std::vector<std::string> sheetsIn(const std::string& folder) {
  std::vector<std::string> out;
  for (const auto& entry :
       std::filesystem::directory_iterator(std::string(NINEPEGS_SOURCE) + "/" + folder))
    if (entry.path().extension() == ".pegs") out.push_back(entry.path().string());
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

INSTANTIATE_TEST_SUITE_P(Shipped, BesideTheSlowJudge, testing::ValuesIn(sheetsIn("sheets")), nameOf);
INSTANTIATE_TEST_SUITE_P(Faulty, BesideTheSlowJudge, testing::ValuesIn(sheetsIn("examples/faulty")),
                         nameOf);

}  // namespace
}  // namespace ninepegs::judge
