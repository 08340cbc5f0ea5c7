// Rules written down again as a sheet, and read again: the same rules.
#include "ninepegs/sheet/rules/printer.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>

#include "ninepegs/base/random.hpp"
#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/verify/count.hpp"
#include "ninepegs/verify/examples.hpp"
#include "support/games.hpp"

namespace ninepegs {
namespace printer_test {

// Programs without the lines that they come from.
std::string programOf(const SheetGame& game) {
  sheet::Program program = game.program();
  std::fill(program.statementLines.begin(), program.statementLines.end(), 0);
  for (sheet::GroupCode& group : program.groups) group.classLine = 0;
  return sheet::toText(program);
}

struct Sheet {
  std::string name, path, variant;
};

std::vector<Sheet> allSheets() {
  std::vector<Sheet> out;
  auto add = [&](const std::string& name, const std::string& path) {
    out.push_back({name, path, ""});
    auto game = SheetGame::fromText(path, readFile(path, limits::sheetBytes));
    for (const auto& [variant, says] : game->info().variants)
      out.push_back({name + "_" + variant, path, variant});
  };
  for (const std::string& name : test::shippedLibrary().names())
    add(name, test::shippedSheet(name));
  for (const auto& entry :
       std::filesystem::directory_iterator(std::string(NINEPEGS_SOURCE) + "/tests/corpus"))
    add(entry.path().stem().string(), entry.path().string());
  std::sort(out.begin(), out.end(), [](const Sheet& a, const Sheet& b) { return a.name < b.name; });
  return out;
}

// The same game: plays one of the two at random, the other in step.
void playInStep(const Game& one, const Game& other, std::uint64_t seed) {
  Stream stream(seed, 0);
  Position a = one.start(), b = other.start();
  for (int ply = 0; ply < 40; ++ply) {
    ASSERT_EQ(one.positionText(a), other.positionText(b));
    // A fault shows its line as it is written in each.
    Result is = one.result(a), its = other.result(b);
    ASSERT_EQ(is.kind, its.kind);
    if (is.kind != ResultKind::fault) {
      ASSERT_EQ(resultText(one, is), resultText(other, its));
    }
    MoveList moves, others;
    one.listMoves(a, moves);
    other.listMoves(b, others);
    ASSERT_EQ(moves.size(), others.size());
    if (moves.empty()) return;
    std::size_t at = stream.below(static_cast<std::uint32_t>(moves.size()));
    ASSERT_EQ(one.moveText(a, moves[at]), other.moveText(b, others[at]));
    one.apply(a, moves[at]);
    other.apply(b, others[at]);
  }
}

// The names of a variant's cases, each with whether it fails.
std::vector<std::string> failures(const Game& game, const std::string& variant) {
  std::vector<std::string> out;
  for (const verify::ExampleRun& run : verify::runExamples(game, 1))
    if (run.variant == variant) out.push_back(run.name + (run.findings.empty() ? "" : " fails"));
  return out;
}

TEST(Printer, EverySheetReadFromItsRulesIsTheSameGame) {
  std::vector<Sheet> sheets = allSheets();
  EXPECT_GT(sheets.size(), 40u);
  for (const Sheet& sheet : sheets) {
    SCOPED_TRACE(sheet.name);
    auto game =
        SheetGame::fromText(sheet.path, readFile(sheet.path, limits::sheetBytes), sheet.variant);
    std::string text = rules::toText(game->rules());
    std::shared_ptr<const SheetGame> again;
    try {
      again = SheetGame::fromText("again.pegs", text);
    } catch (const BadInput& error) {
      ADD_FAILURE() << error.what() << "\n" << text;
      continue;
    }
    EXPECT_EQ(rules::toText(again->rules()), text);
    EXPECT_EQ(programOf(*again), programOf(*game));
    playInStep(*game, *again, 7);
    EXPECT_EQ(failures(*again, ""), failures(*game, sheet.variant));
  }
}

// Every form of the language, in places where brackets matter.
TEST(Printer, FormsComeBackAsTheyWereRead) {
  const char* lines[] = {"let x = if any (empty) then a1 else b2",
                         "let x = count lines of 3 in mine along east",
                         "let x = total value of c for c in mine",
                         "let x = total count L for L in lines of 3 in mine",
                         "let x = 2 * (3 + count mine) - 1 - 4",
                         "let x = max(1, min(2, row-no of there))",
                         "need there in (corner or edge) except row 1",
                         "need not (any theirs and no mine)",
                         "need any kinds k in peg where any (their k on all)",
                         "need was there in mine",
                         "need mine within (rows 1 to 2 or columns a to b)",
                         "need mover is Amber",
                         "need kind on there = saw or plies > 3",
                         "need any (empty on slide any from there through all)",
                         "need any groups g in mine along orthogonal where count g > 2",
                         "need any bracketed theirs from there by mine along east",
                         "need value of peg < value of there",
                         "take spread from there through theirs"};
  for (const char* line : lines) {
    std::string text = test::sheetWith(std::string("move more\n  pick there in all\n  ") + line);
    auto game = test::fromText(text);
    std::string printed = rules::toText(game->rules());
    auto again = test::fromText(printed);
    EXPECT_EQ(rules::toText(again->rules()), printed) << line;
    EXPECT_EQ(programOf(*again), programOf(*game)) << line;
  }
}

// Labels are numbers that are counted anew when cells are left out, but not in what leaves them
// out.
TEST(Printer, NumberedCellsHaveTheLabelsOfTheirBoard) {
  std::shared_ptr<const SheetGame> game = test::fromText(R"(game d
sides Amber and Slate
board square 4 x 4, labels numbered, without row 1 except 3
piece peg o x
move place
  pick there in empty except 2
  put peg on there
  written as there
ends
  draw "full" when count empty <= 1
)");
  std::string text = rules::toText(game->rules());
  EXPECT_NE(text.find("without ((rows 1 to 1) except 3)"), std::string::npos) << text;
  EXPECT_NE(text.find("(empty except 2)"), std::string::npos) << text;
  playInStep(*game, *test::fromText(text), 1);
}

TEST(Printer, AGameIsMadeFromRules) {
  auto game = std::dynamic_pointer_cast<const SheetGame>(test::shipped("othello"));
  auto again = SheetGame::fromRules(game->rules());
  EXPECT_EQ(again->info().title, game->info().title);
  EXPECT_TRUE(again->info().variants.empty());
  EXPECT_EQ(programOf(*again), programOf(*game));
  playInStep(*game, *again, 3);
}

}  // namespace printer_test
}  // namespace ninepegs
