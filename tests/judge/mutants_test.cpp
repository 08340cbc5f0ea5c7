// Mutants and questions of drawn sheets, which use the language in every odd way.
#include "ninepegs/verify/mutants.hpp"

#include <gtest/gtest.h>

#include <map>

#include "judge/generate.hpp"
#include "ninepegs/verify/examples.hpp"
#include "ninepegs/verify/questions.hpp"

namespace ninepegs::judge {
namespace judge_mutants_test {

// Nothing is thrown, whatever a mutant does, and the questions, kept as cases, pass on the sheet.
TEST(MutantsOfDrawnSheets, QuestionsPassOnTheSheet) {
  std::size_t sheets = 0, questions = 0;
  for (std::uint64_t number = 0; number < 12; ++number) {
    std::string text = generateSheet(21, number).text;
    std::shared_ptr<const SheetGame> game;
    try {
      game = SheetGame::fromText("drawn.pegs", text);
    } catch (const BadInput&) {
      continue;
    }
    SCOPED_TRACE(text);
    verify::MutantOptions options;
    options.scenes.games = 2;
    options.scenes.most = 20;
    options.cases = false;
    options.most = 25;
    verify::Mutants mutants(*game, options);
    mutants.run();
    ++sheets;
    std::map<std::string, std::string> asked;
    std::string cases;
    for (const verify::Question& one : verify::chooseQuestions(mutants, {.most = 6})) {
      asked[one.name] = verify::caseOf(mutants, one);
      cases += asked[one.name];
    }
    questions += asked.size();
    auto kept = SheetGame::fromText("kept.pegs", text + "\n" + cases);
    for (const verify::ExampleRun& run : verify::runExamples(*kept, 1)) {
      if (asked.count(run.name) > 0) {
        EXPECT_TRUE(run.findings.empty()) << run.findings.front().message;
      }
    }
  }
  EXPECT_GT(sheets, 5u);
  EXPECT_GT(questions, 8u);
}

}  // namespace judge_mutants_test
}  // namespace ninepegs::judge
