// Slips of the hand that people make, each with the hint that they need.
#include <gtest/gtest.h>

#include <fstream>
#include <string>
#include <vector>

#include "support/folder.hpp"
#include "support/program.hpp"

namespace ninepegs::test {
namespace hints_test {

struct Slip {
  std::vector<std::string> arguments;
  std::string hint;
};

class Hints : public testing::TestWithParam<Slip> {};

TEST_P(Hints, SayWhatToType) {
  const Slip& slip = GetParam();
  Ran ran = ninepegs(slip.arguments);
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(ran.out.empty());
  EXPECT_NE(ran.err.find(slip.hint), std::string::npos) << ran.err;
}

INSTANTIATE_TEST_SUITE_P(
    Slips, Hints,
    testing::Values(Slip{{"count", "chess", "-d", "3"}, "did you mean \"--depth\"?"},
                    Slip{{"count", "chess", "--dpeth", "3"}, "did you mean \"--depth\"?"},
                    Slip{{"help", "check"}, "ninepegs check --help"},
                    Slip{{"show", "kala.pegs"}, "there is no such file"},
                    Slip{{"show", "connect-four", "--after", "c d"}, "divided by commas: c, d"},
                    Slip{{"play", "connect-four", "--second", "level=3"},
                         "did you mean \"search:level=3\"?"},
                    Slip{{"check", "nim", "--time", "soon"}, "a number of seconds"},
                    Slip{{"check", "nim", "--plies", "0"}, "a whole number from 1"}));

// Lines in a sheet, each as a line of the move, or of the sheet.
TEST(SheetHints, SayWhatTheLanguageCallsIt) {
  struct Line {
    std::string wrong, hint;
  };
  for (const Line& one : std::vector<Line>{{"  if there in mine\n", "say: when COND"},
                                           {"  need any mine && any theirs\n", "say: and"},
                                           {"  need count mine == 3\n", "say: ="},
                                           {"  at = there\n", "say: let at = ..."},
                                           {"  while any mine\n", "repeat while possible"}}) {
    Folder folder;
    std::string path = (folder / "slip.pegs").string();
    std::ofstream(path)
        << "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\nmove put-one\n"
           "  pick there in empty\n"
        << one.wrong << "  put peg on there\nends\n  draw \"full\" when no empty\n";
    Ran ran = ninepegs({"show", path});
    EXPECT_EQ(ran.exitCode, 2);
    EXPECT_NE(ran.err.find(one.hint), std::string::npos) << one.wrong << ran.err;
  }
}

TEST(SheetHints, OneSlipIsOneMessage) {
  Folder folder;
  std::string path = (folder / "slip.pegs").string();
  std::ofstream(path)
      << "game t\nsides A and B\nboard square 4 x 2\nnumber seeds on cells\n"
         "track round = a1 b1 c1 d1 d2 c2 b2 a2\nstart\n  seeds 3 3 3 3 3 3 3 3\nmove sow\n"
         "  pick house in cells c in row 1 where seeds c > 0\n  let hold = seeds of house\n"
         "  let at = house\n  repeat hold times\n    set at to next along round from at\n"
         "    set seeds of at to seeds of at + 1\n  when at in row 1\n    take at\n"
         "ends\n  draw \"late\" when plies >= 80\n";
  Ran ran = ninepegs({"show", path});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_EQ(ran.err.find("nothing here is called"), std::string::npos) << ran.err;
  EXPECT_NE(ran.err.find("9:"), std::string::npos);
  // A name that is missed twice is told once.
  std::ofstream(path, std::ios::trunc)
      << "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\nmove put-one\n"
         "  pick there in empty\n  need no (lost on row 1)\n  need no (lost on row 2)\n"
         "  put peg on there\nends\n  draw \"full\" when no empty\n";
  ran = ninepegs({"show", path});
  std::size_t first = ran.err.find("nothing here is called");
  ASSERT_NE(first, std::string::npos);
  EXPECT_EQ(ran.err.find("nothing here is called", first + 1), std::string::npos) << ran.err;
}

TEST(SheetHints, ColumnsAreLetters) {
  Folder folder;
  std::string path = (folder / "slip.pegs").string();
  std::ofstream(path) << "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\nmove put-one\n"
                         "  pick at in empty\n  let same = mine on column at\n  put peg on at\n"
                         "ends\n  draw \"full\" when no empty\n";
  Ran ran = ninepegs({"show", path});
  EXPECT_NE(ran.err.find("a column is a letter"), std::string::npos) << ran.err;
  EXPECT_NE(ran.err.find("column of at"), std::string::npos) << ran.err;
}

TEST(SheetHints, MovesMayBeCalledByWordsOfTheLanguage) {
  Folder folder;
  std::string path = (folder / "step.pegs").string();
  std::ofstream(path)
      << "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\nstart\n  x . .\n"
         "  . . .\n  o . .\nmove step\n  pick here in mine\n"
         "  pick there in empty on step any from here\n  shift here to there\n"
         "turn step else pass\nends\n  draw \"late\" when plies >= 9\n";
  Ran ran = ninepegs({"moves", path});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.out.find("a1-b2"), std::string::npos) << ran.out;
}

TEST(SheetHints, ASheetMayComeOnStandardInput) {
  Ran ran =
      ninepegs({"show", "-"}, {.input = "game t\nsides A and B\nboard square 2 x 2\npiece peg o x\n"
                                        "move put-one\n  pick there in empty\n  put peg on there\n"
                                        "ends\n  draw \"full\" when no empty\n"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.out.find("to move"), std::string::npos);
  EXPECT_EQ(ninepegs({"show", "-"}, {.input = ""}).exitCode, 2);
}

// What another program wrote: a variant that the sheet does not name, castling with noughts.
TEST(RecordHints, OthersRecordsAreRead) {
  Folder folder;
  std::string path = (folder / "other.pgn").string();
  std::ofstream(path) << "[Event \"Hut\"]\n[Variant \"Standard\"]\n\n"
                         "1. e4 e5 2. Nf3 Nc6 3. Bc4 Bc5 4. 0-0 Nf6 *\n";
  Ran ran = ninepegs({"replay", path, "--game", "chess"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.err.find("\"Standard\", which the sheet does not have"), std::string::npos);
  EXPECT_NE(ran.out.find(" 1  R  N  B  Q  .  R  K"), std::string::npos) << ran.out;
  ran = ninepegs({"replay", path, "--game", "chess", "--variant", "Standard"});
  EXPECT_EQ(ran.exitCode, 2);
  // A fault is one message, said once.
  std::ofstream(path, std::ios::trunc) << "[Game \"chess\"]\n\n1. e4 e5 2. 0-0 *\n";
  ran = ninepegs({"replay", path});
  EXPECT_EQ(ran.exitCode, 1);
  std::size_t once = ran.err.find("is no legal move here");
  ASSERT_NE(once, std::string::npos);
  EXPECT_EQ(ran.err.find("is no legal move here", once + 1), std::string::npos) << ran.err;
}

TEST(RecordHints, ARecordOfAnOwnSheetSaysToNameIt) {
  Folder folder;
  std::string sheet = (folder / "own.pegs").string(), path = (folder / "r.txt").string();
  std::ofstream(sheet) << "game own\nsides A and B\nboard square 2 x 2\npiece peg o x\n"
                          "move put-one\n  pick there in empty\n  put peg on there\n"
                          "ends\n  draw \"full\" when no empty\n";
  Ran ran =
      ninepegs({"play", sheet, "--second", "human", "--record", path}, {.input = "a1\nquit\n"});
  ASSERT_EQ(ran.exitCode, 0) << ran.err;
  ran = ninepegs({"replay", path});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_NE(ran.err.find("--game ./own.pegs"), std::string::npos) << ran.err;
  EXPECT_EQ(ninepegs({"replay", path, "--game", sheet}).exitCode, 0);
}

// A picture may stand before the lines of a position, or after them.
TEST(SheetHints, APictureMayStandAfterTheLines) {
  Folder folder;
  std::string path = (folder / "after.pegs").string(), outs[2];
  const std::string head = "game t\nsides A and B\nboard square 3 x 2\npiece peg o x\nmark m\n",
                    tail =
                        "move put-one\n  pick there in empty\n  put peg on there\n"
                        "ends\n  draw \"full\" when no empty\n";
  const std::string picture = "  o . x\n  . . o\n", lines = "  m a1 b2\n  B to move\n";
  for (bool after : {false, true}) {
    std::ofstream(path, std::ios::trunc) << head << "start\n"
                                         << (after ? lines + picture : picture + lines) << tail;
    Ran ran = ninepegs({"show", path});
    EXPECT_EQ(ran.exitCode, 0) << ran.err;
    outs[after] = ran.out;
  }
  EXPECT_EQ(outs[0], outs[1]);
  // Not twice, and not in two halves.
  std::ofstream(path, std::ios::trunc) << head << "start\n" << picture << lines << picture << tail;
  EXPECT_EQ(ninepegs({"show", path}).exitCode, 2);
}

// A program that does not run is bad usage, and all that it wrote is told.
TEST(CompareHints, AProgramThatDoesNotRun) {
  Ran ran = ninepegs({"compare", "nim", "--program", "python3 nofile.py"});
  EXPECT_EQ(ran.exitCode, 2) << ran.out;
  EXPECT_NE(ran.err.find("No such file or directory"), std::string::npos) << ran.err;
}

// Who names a computer for the first side plays the other.
TEST(PlayHints, OneComputerLeavesTheOtherSideToThePerson) {
  Ran ran =
      ninepegs({"play", "tic-tac-toe", "--first", "random", "--seed", "1"}, {.input = "quit\n"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.out.find("human"), std::string::npos) << ran.out;
}

}  // namespace hints_test
}  // namespace ninepegs::test
