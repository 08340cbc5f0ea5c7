#include "ninepegs/sheet/program/verify.hpp"

#include <filesystem>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/program/instructions.hpp"
#include "support/games.hpp"

namespace ninepegs::sheet {
namespace verify_test {

std::string joinedFaults(const Program& program) {
  return joined(unsound(program), "\n");
}

TEST(Verify, ProgramsOfAllSheetsAreSound) {
  int seen = 0;
  for (const char* folder : {"/sheets", "/examples/faulty", "/tests/corpus"})
    for (const auto& entry :
         std::filesystem::directory_iterator(std::string(NINEPEGS_SOURCE) + folder)) {
      if (entry.path().extension() != ".pegs") continue;
      if (entry.path().stem().extension() == ".cases") continue;
      std::string text = readFile(entry.path().string(), 1 << 20);
      try {
        std::shared_ptr<const SheetGame> game = SheetGame::fromText("test.pegs", text);
        EXPECT_EQ(joinedFaults(game->program()), "") << entry.path();
        ++seen;
        EXPECT_EQ(joinedFaults(SheetGame::fromText("test.pegs", text, {}, allShortcuts)->program()),
                  "")
            << entry.path();
        for (const auto& [name, says] : game->info().variants)
          EXPECT_EQ(joinedFaults(SheetGame::fromText("test.pegs", text, name)->program()), "")
              << entry.path() << " " << name;
      } catch (const BadInput&) {  // some are kept because they are refused
      }
    }
  EXPECT_GT(seen, 50);
}

// A fault put into a sound program is seen.
TEST(Verify, ChangedProgramsAreNotSound) {
  const Program sound = test::fromText(test::sheetWith("define last(s) = s on edge\n"
                                                       "worth count last(mine)\n"))
                            ->program();
  ASSERT_EQ(joinedFaults(sound), "");
  auto first = [&](Op op) {
    for (std::size_t i = 0; i < sound.code.size(); ++i)
      if (sound.code[i].op == op) return i;
    ADD_FAILURE() << name(op);
    return std::size_t{0};
  };
  Program one = sound;
  one.code[first(Op::turnOver)].n = static_cast<int>(one.code.size());
  EXPECT_NE(joinedFaults(one), "");
  one = sound;
  one.code[first(Op::countBoth)].b = static_cast<Slot>(one.trialAt + 7);  // never written there
  EXPECT_NE(joinedFaults(one), "");
  one = sound;
  one.code[first(Op::copyNumber)].a = one.constantsAt;
  EXPECT_NE(joinedFaults(one), "");
  one = sound;
  one.code[first(Op::emitLast)].n = 9;
  EXPECT_NE(joinedFaults(one), "");
  one = sound;
  one.code.pop_back();
  EXPECT_NE(joinedFaults(one), "");
}

TEST(Verify, EveryInstructionHasRoles) {
  auto says = [](std::string_view text, const char* what) {
    return text.find(what) != std::string_view::npos;
  };
  struct Row {
    Op op;
    const char* name;
    std::string_view text;
  };
#define NINEPEGS_TEST(op, does, text) {Op::op, #op, text},
  for (const Row& row : std::vector<Row>{NINEPEGS_INSTRUCTIONS(NINEPEGS_TEST)}) {
    EXPECT_EQ(roles(row.op).size(), 5u) << row.name;
    EXPECT_EQ(says(row.text, "go on at n") || says(row.text, "turnOver"), roles(row.op)[4] == 'j')
        << row.name;
    EXPECT_LE(says(row.text, "a = "),
              std::string_view("SIV").find(roles(row.op)[0]) != std::string_view::npos)
        << row.name;
  }
#undef NINEPEGS_TEST
}

}  // namespace verify_test
}  // namespace ninepegs::sheet
