// Compiled programs: what they are made of, and that no operand can point outside.
#include "ninepegs/sheet/program/program.hpp"

#include <algorithm>
#include <map>
#include <set>

#include "ninepegs/sheet/compile/compiler.hpp"
#include "ninepegs/sheet/machine/machine.hpp"
#include "ninepegs/sheet/rules/checker.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"
#include "support/games.hpp"

namespace ninepegs::sheet {
namespace program_test {

Program compiled(const std::string& text, bool coverage = false, const std::string& variant = {}) {
  auto source = std::make_shared<const Source>("test.pegs", text);
  std::vector<Diagnostic> found;
  Tree tree = parse(*source, variant, found);
  rules::Rules rules = check(tree, source, found);
  EXPECT_TRUE(found.empty());
  return compile(rules, {.coverage = coverage});
}

std::string shippedText(const std::string& name) {
  return readFile(test::shippedSheet(name), limits::sheetBytes);
}

std::vector<Op> routine(const Program& program, int at) {
  std::vector<Op> out;
  for (; program.code[at].op != Op::stop && program.code[at].op != Op::emitLast; ++at) {
    out.push_back(program.code[at].op);
    if (program.code[at].op == Op::stepMinus) ++at;
  }
  out.push_back(program.code[at].op);
  return out;
}

TEST(Program, EveryInstructionHasANameAndAMeaning) {
  std::set<std::string> names;
  int count = 0;
#define NINEPEGS_TEST(op, does, text) {Op::op, #op},
  for (const auto& [op, called] :
       std::vector<std::pair<Op, const char*>>{NINEPEGS_INSTRUCTIONS(NINEPEGS_TEST)}) {
    EXPECT_EQ(name(op), called);
    EXPECT_FALSE(meaning(op).empty()) << called;
    names.insert(std::string(name(op)));
    ++count;
  }
#undef NINEPEGS_TEST
  EXPECT_EQ(static_cast<int>(names.size()), count);
}

TEST(Program, GeneratorsOfSimpleGamesAreAFewInstructions) {
  Program small = compiled(shippedText("tic-tac-toe"));
  EXPECT_EQ(routine(small, small.generate[0]), std::vector<Op>{Op::emitLast});
  Program four = compiled(shippedText("connect-four"));
  EXPECT_EQ(routine(four, four.generate[1]), (std::vector<Op>{Op::stepMinus, Op::emitLast}));
  EXPECT_EQ(four.code[four.groups[0].apply[0]].op, Op::putCellOver);
}

TEST(Program, WidthFollowsTheBoard) {
  for (auto [size, words] : {std::pair{"8 x 8", 1},
                             {"9 x 8", 2},
                             {"16 x 8", 2},
                             {"15 x 15", 4},
                             {"16 x 16", 4},
                             {"17 x 16", 8},
                             {"32 x 16", 8}})
    EXPECT_EQ(compiled(test::sheetWith("", std::string("square ") + size)).words, words) << size;
}

TEST(Program, CoverageCountsEveryStatementForBothSides) {
  std::string text = shippedText("hut-pass");
  Program plain = compiled(text), counting = compiled(text, true);
  std::map<int, int> covers;
  for (const Instruction& one : counting.code)
    if (one.op == Op::cover) ++covers[one.n];
  EXPECT_EQ(covers.size(), counting.statementLines.size());
  for (const auto& [statement, times] : covers) EXPECT_EQ(times, 2) << statement;
  for (const Instruction& one : plain.code) EXPECT_NE(one.op, Op::cover);
}

// Jumps stay inside the code, slots inside the memory.
TEST(Program, PointsNowhereOutside) {
  std::vector<std::string> sheets;
  for (const std::string& name : test::shippedLibrary().names())
    sheets.push_back(shippedText(name));
  sheets.push_back(test::sheetWith("worth total value of c for c in mine\n", "square 32 x 16"));
  for (const std::string& text : sheets) {
    Program program = compiled(text);
    std::size_t memory = program.constantsAt + program.constants.size();
    EXPECT_LE(memory, static_cast<std::size_t>(limits::memoryWords));
    EXPECT_EQ(program.code.size(), program.statementOf.size());
    for (const Instruction& one : program.code) {
      std::string op(name(one.op));
      bool jumps = op.rfind("jump", 0) == 0 || one.op == Op::nextCell || one.op == Op::nextLine ||
                   one.op == Op::turnOver || one.op == Op::putCellOver;
      if (jumps) {
        EXPECT_GE(one.n, 0) << op;
        EXPECT_LT(one.n, static_cast<int>(program.code.size())) << op;
      }
      for (Slot slot : {one.a, one.b}) EXPECT_LT(slot, memory) << op;
    }
    EXPECT_EQ(program.code.back().op, Op::stop);
  }
}

TEST(Program, DumpsOneInstructionALine) {
  Program program = compiled(shippedText("connect-four"));
  std::string text = toText(program);
  // A line an instruction, and a heading for every routine.
  std::size_t lines = static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n'));
  EXPECT_GE(lines, program.code.size());
  EXPECT_LE(lines, program.code.size() + 20);
  EXPECT_NE(text.find("move drop: mask, by line 12"), std::string::npos) << text.substr(0, 200);
  EXPECT_NE(text.find("jumpNoLine"), std::string::npos);
}

TEST(Program, MemoryHasALimit) {
  std::string text = "game big\nsides Amber and Slate\nboard square 32 x 16\n";
  const std::string letters = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789";
  for (int i = 0; i < 24; ++i)
    text +=
        "piece kind-" + std::to_string(i) + " " + letters[2 * i] + " " + letters[2 * i + 1] + "\n";
  for (int i = 0; i < 300; ++i) text += "mark mark-" + std::to_string(i) + "\n";
  text +=
      "move place\n  pick there in empty\n  put kind-0 on there\nends\n  draw \"x\" when no "
      "empty\n";
  std::vector<Diagnostic> found = test::messages(text);
  ASSERT_EQ(found.size(), 1u);
  EXPECT_NE(found[0].message.find("more than 4096 words"), std::string::npos) << toText(found[0]);
}

TEST(Machine, ConstructionAndPositionAreSeparate) {
  Program program = compiled(shippedText("tic-tac-toe"));
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Machine<1> one(program), two(program);
  Position start = game->start(), out = start;
  one.load(start.words.data());
  two.load(start.words.data());
  std::uint16_t choice = 4;
  one.apply(0, &choice, 1);
  two.store(out.words.data());
  EXPECT_EQ(out, start);
  one.store(out.words.data());
  EXPECT_EQ(game->positionText(out), "3/1X1/3; Nought to move");
  CountSink count;
  one.generate(count);
  EXPECT_EQ(count.total, 8u);
}

}  // namespace program_test
}  // namespace ninepegs::sheet
