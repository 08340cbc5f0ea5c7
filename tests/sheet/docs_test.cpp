// The samples of the documentation are sheets, or parts of one.
#include "ninepegs/sheet/text/tidy.hpp"
#include "support/games.hpp"

namespace ninepegs {
namespace docs_test {

std::vector<std::string> samples(const std::string& file) {
  std::string text = readFile(std::string(NINEPEGS_SOURCE) + "/" + file, 1'000'000);
  std::vector<std::string> out;
  const std::string open = "```pegs\n", close = "```";
  for (std::size_t at = text.find(open); at != std::string::npos; at = text.find(open, at)) {
    at += open.size();
    std::size_t end = text.find(close, at);
    out.push_back(text.substr(at, end - at));
    EXPECT_EQ(sheet::tidied(sheet::Source(file, out.back())), out.back()) << file;
    at = end;
  }
  return out;
}

void mustCompile(const std::string& sheet) {
  for (const Diagnostic& one : test::messages(sheet)) ADD_FAILURE() << toText(one) << "\n" << sheet;
}

TEST(Docs, ReadmeSamplesMakeOneSheet) {
  std::vector<std::string> parts = samples("README.md");
  ASSERT_EQ(parts.size(), 2u);
  mustCompile(parts[0]);
  mustCompile(parts[0] + parts[1]);
}

TEST(Docs, LanguageSamplesCompile) {
  std::vector<std::string> parts = samples("docs/language.md");
  EXPECT_GE(parts.size(), 8u);
  for (const std::string& part : parts) {
    bool whole = part.rfind("game ", 0) == 0;
    mustCompile(whole ? part : test::sheetWith(part));
    if (part.find("variant lose") != std::string::npos) {
      EXPECT_TRUE(test::messages(test::sheetWith(part), "lose").empty());
    }
  }
}

// The sheet of the first game, with each of the parts that are added to it later.
TEST(Docs, FirstGameCompiles) {
  std::vector<std::string> parts = samples("docs/first-game.md");
  ASSERT_GE(parts.size(), 1u);
  mustCompile(parts[0]);
  std::string text = readFile(std::string(NINEPEGS_SOURCE) + "/docs/first-game.md", 1'000'000);
  const std::string open = "```pegs-part\n";
  int added = 0;
  for (std::size_t at = text.find(open); at != text.npos; at = text.find(open, at + 1)) {
    std::size_t from = at + open.size();
    std::string part = text.substr(from, text.find("```", from) - from), sheet = parts[0];
    if (part.rfind("ends", 0) == 0) sheet.erase(sheet.find("ends\n"));
    mustCompile(sheet + part);
    ++added;
  }
  EXPECT_EQ(added, 2);
}

TEST(Docs, LimitsAreTheOnesInForce) {
  std::string text = readFile(std::string(NINEPEGS_SOURCE) + "/docs/language.md", 1'000'000);
  for (const std::string& number :
       {std::to_string(limits::cells), std::to_string(limits::kinds),
        std::to_string(limits::lineBytes), std::to_string(limits::nesting),
        std::to_string(limits::memoryWords), std::to_string(limits::choices),
        std::to_string(limits::moveGroups)})
    EXPECT_NE(text.find(number, text.find("## Limits")), std::string::npos) << number;
}

}  // namespace docs_test
}  // namespace ninepegs
