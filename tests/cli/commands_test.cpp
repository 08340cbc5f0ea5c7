// The built program: what each command prints, and its exit code.
#include <gtest/gtest.h>

#include <fstream>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/program.hpp"

namespace ninepegs::test {
namespace commands_test {

namespace fs = std::filesystem;

const std::string faultyFolder = std::string(NINEPEGS_SOURCE) + "/examples/faulty/";

std::size_t filesIn(const fs::path& folder) {
  return static_cast<std::size_t>(std::distance(fs::directory_iterator(folder), {}));
}

void expectParts(const std::string& text, const std::vector<std::string>& parts) {
  for (const std::string& part : parts)
    EXPECT_NE(text.find(part), std::string::npos) << "missing: " << part << "\n" << text;
}

TEST(Program, VersionAndHelp) {
  Ran version = ninepegs({"--version"});
  EXPECT_EQ(version.exitCode, 0);
  EXPECT_EQ(version.out, "ninepegs 0.1.0\n");
  Ran help = ninepegs({"--help"});
  EXPECT_EQ(help.exitCode, 0);
  expectParts(help.out, {"show", "moves", "count", "play", "check", "demo", "Exit codes"});
  for (const char* command : {"show", "moves", "count", "play", "check", "explain", "lint", "tidy",
                              "new", "demo", "completion", "mutate", "ask"}) {
    Ran one = ninepegs({command, "--help"});
    EXPECT_EQ(one.exitCode, 0) << command;
    expectParts(one.out, {"Example", std::string("ninepegs ") + command});
    EXPECT_TRUE(one.err.empty());
  }
}

// Made when the program is built.
TEST(Program, EachCommandHasAManPageWithItsOptions) {
  std::filesystem::path folder =
      std::filesystem::path(NINEPEGS_PROGRAM).parent_path() / "said" / "man";
  std::string all = ninepegs({"--help"}).out, mainPage = readFile(folder / "ninepegs.1", 1 << 20);
  int commands = 0;
  std::istringstream lines(all.substr(all.find("Subcommands:")));
  std::string line;
  for (std::getline(lines, line); std::getline(lines, line) && line.starts_with("  "); ++commands) {
    std::string command = line.substr(2, line.find(' ', 2) - 2);
    EXPECT_NE(mainPage.find(".B " + command + "\n"), std::string::npos) << command;
    std::string page = readFile(folder / ("ninepegs-" + command + ".1"), 1 << 20);
    std::string help = ninepegs({command, "--help"}).out;
    for (std::size_t at = help.find("\n  --"); at != std::string::npos;
         at = help.find("\n  --", at + 1)) {
      std::string name = help.substr(at + 5, help.find_first_of(" ,\n", at + 5) - at - 5);
      for (std::size_t dash = name.find('-'); dash != std::string::npos;
           dash = name.find('-', dash + 2))
        name.insert(dash, "\\");
      EXPECT_NE(page.find("\n.B \\-\\-" + name), std::string::npos) << command << " --" << name;
    }
  }
  EXPECT_EQ(commands, 23);
}

TEST(Program, CompletionIsAScriptThatBashTakes) {
  Ran script = ninepegs({"completion", "bash"});
  EXPECT_EQ(script.exitCode, 0);
  expectParts(script.out, {"complete", "show", "--playouts", "tic-tac-toe"});
  Folder folder;
  std::ofstream(folder / "script")
      << script.out << "\nCOMP_WORDS=(ninepegs che); COMP_CWORD=1; _ninepegs\n"
      << "echo \"${COMPREPLY[*]}\" > " << (folder / "reply").string() << "\n";
  ASSERT_EQ(std::system(("bash " + (folder / "script").string()).c_str()), 0);
  std::ifstream reply(folder / "reply");
  std::string line;
  std::getline(reply, line);
  EXPECT_EQ(line, "check");
}

TEST(Show, BoardTurnResultAndFigure) {
  Folder folder;
  Ran ran = ninepegs({"show", "connect-four", "--after", "a,b,b,c,d,c,c,d,e,d,d", "--figure",
                      (folder / "b.svg").string()});
  EXPECT_EQ(ran.exitCode, 0);
  expectParts(ran.out, {" 4  .  .  . [o] .  .  .\n", "Amber (o) wins: four in a line",
                        "position: 7/7/3o3/2ox3/1oxx3/oxxoo2; Slate to move"});
  EXPECT_TRUE(fs::exists(folder / "b.svg"));
  EXPECT_EQ(ran.out.find('\x1b'), std::string::npos);  // a pipe gets no colours
  Ran json = ninepegs({"show", "hut-pass", "--from", "c2", "--json"});
  EXPECT_EQ(readJson(json.out)["goes_to"], Json({"b3", "d3", "a4", "e4"}));
  expectParts(ninepegs({"show", "hut-pass", "--from", "a6"}).out, {"is Slate's"});
}

TEST(Moves, ListOrReason) {
  Ran ran = ninepegs({"moves", "connect-four", "--after", "d,d,d,d,d,d"});
  EXPECT_EQ(ran.out, "Amber: 6 legal moves\na, b, c, e, f, g\n");
  ran = ninepegs({"moves", "tic-tac-toe", "--after", "1,4,2,5,3"});
  EXPECT_EQ(ran.exitCode, 0);
  expectParts(ran.out, {"no legal moves", "Cross wins: three in a line"});
  ran = ninepegs({"moves", "hut-pass", "--from", "c1"});
  EXPECT_EQ(ran.out, "Amber: 3 legal moves\nc1-b2, c1-d2, c1^c3\n");
  ran = ninepegs({"moves", "tic-tac-toe", "--at", "X1X/OO1/3; Cross to move", "--json"});
  EXPECT_EQ(readJson(ran.out)["moves"], Json({"2", "6", "7", "8", "9"}));
  ran = ninepegs({"moves", faultyFolder + "no-end.pegs", "--after", "1,2,3,5,4,6,8,7,9"});
  expectParts(ran.out, {"no end of the sheet holds"});
}

TEST(Count, FiguresAndJson) {
  Ran ran =
      ninepegs({"count", "tic-tac-toe", "--depth", "9", "--ends", "--positions", "--each-move"});
  EXPECT_EQ(ran.exitCode, 0);
  expectParts(ran.out, {"127,872 sequences", "255,168", "131,184", "77,904", "46,080", "5,478"});
  ran = ninepegs({"count", "connect-four", "--depth", "8", "--json"});
  Json json = readJson(ran.out);
  EXPECT_EQ(json["game"], "connect-four");
  EXPECT_EQ(json["depth"], 8);
  EXPECT_EQ(json["sequences"], 5673234);
  EXPECT_TRUE(json["seconds"].is_number());
  EXPECT_EQ(ninepegs({"count", faultyFolder + "taken-cell.pegs", "--depth", "3"}).exitCode, 1);
}

TEST(Check, SameJsonOnAnyNumberOfThreads) {
  std::vector<std::string> arguments = {"check", "tic-tac-toe", "--playouts", "100000", "--seed",
                                        "1",     "--json",      "--threads",  "1"};
  Ran one = ninepegs(arguments);
  arguments.back() = "2";
  Ran two = ninepegs(arguments);
  EXPECT_EQ(one.exitCode, 0);
  EXPECT_EQ(one.out, two.out);
  Json json = readJson(one.out);
  EXPECT_EQ(json["playouts"], 100000);
  EXPECT_EQ(json["results"].size(), 3u);
  EXPECT_TRUE(json["unused"].empty());
  EXPECT_TRUE(json["findings"].empty());
}

TEST(Check, FaultsGiveExitCodeOneAndFiles) {
  for (const char* name : {"draw-before-win", "joined-edge", "taken-cell", "no-end"}) {
    Folder folder;
    Ran ran = ninepegs({"check", faultyFolder + name + ".pegs", "--playouts", "500", "--out",
                        (folder / "report").string()});
    EXPECT_EQ(ran.exitCode, 1) << name << ran.err;
    expectParts(ran.out, {"Fault 1", "leads to", "check.json", "junit.xml", "check.sarif",
                          "report.html", "check.png", "fault.png", "faults.pgn"});
    EXPECT_EQ(filesIn(folder / "report"), 7u);
    std::string file = readFile(folder / "report/check.json", 10'000'000);
    EXPECT_EQ(readJson(file)["findings"].size(), 1u);
    // A second check without a fault leaves no figure of the old one.
    ninepegs({"check", "tic-tac-toe", "--playouts", "50", "--out", (folder / "report").string()});
    EXPECT_FALSE(fs::exists(folder / "report/fault.png"));
    EXPECT_FALSE(fs::exists(folder / "report/faults.pgn"));
  }
}

TEST(Demo, WritesWhatItSays) {
  Folder folder;
  Ran ran = ninepegs({"demo", "--out", "box"}, {.folder = folder.path()});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  std::size_t at = ran.out.find("Files written");
  ASSERT_NE(at, std::string::npos);
  std::istringstream lines(ran.out.substr(at));
  std::string line;
  std::getline(lines, line);
  int files = 0;
  while (std::getline(lines, line)) {
    if (line.empty()) continue;
    std::string path = line.substr(2, line.find("  ", 2) - 2);
    EXPECT_TRUE(fs::is_regular_file(folder / path)) << path;
    EXPECT_GT(fs::file_size(folder / path), 0u);
    ++files;
  }
  EXPECT_EQ(files, 27);
}

TEST(Interrupt, ReportsWhatWasDone) {
  Ran count = ninepegs({"count", "connect-four", "--depth", "40"}, {.interrupt = true});
  EXPECT_EQ(count.exitCode, 130);
  expectParts(count.out, {"stopped early"});
  Ran check = ninepegs({"check", "hut-pass", "--playouts", "1000000000000"}, {.interrupt = true});
  EXPECT_EQ(check.exitCode, 130);
  expectParts(check.out, {"stopped early; not looked at:", "of 1,000,000,000,000 random",
                          "How the games ended"});
  Ran json =
      ninepegs({"check", "hut-pass", "--playouts", "1000000000000", "--json"}, {.interrupt = true});
  EXPECT_EQ(json.exitCode, 130);
  EXPECT_FALSE(readJson(json.out)["complete"]);
  EXPECT_GT(readJson(json.out)["playouts"], 0);
  Ran play = ninepegs({"play", "connect-four", "--first", "search:time=1000", "--second", "random"},
                      {.interrupt = true});
  EXPECT_EQ(play.exitCode, 130);
}

// --- Bad input: exit code 2, one message, nothing written.

struct Bad {
  std::vector<const char*> arguments;
  const char* message;
};
void PrintTo(const Bad& bad, std::ostream* out) {
  for (std::string_view one : bad.arguments) *out << one.substr(0, 40) << " ";
}
class BadUse : public testing::TestWithParam<Bad> {};

TEST_P(BadUse, ExitsWithTwoAndAMessage) {
  Folder folder;
  Ran ran = ninepegs({GetParam().arguments.begin(), GetParam().arguments.end()},
                     {.folder = folder.path()});
  EXPECT_EQ(ran.exitCode, 2) << ran.out;
  EXPECT_TRUE(ran.out.empty()) << ran.out;
  expectParts(ran.err, {GetParam().message});
  EXPECT_LT(ran.err.size(), 2000u);
  EXPECT_TRUE(fs::is_empty(folder.path()));
}

INSTANTIATE_TEST_SUITE_P(
    Arguments, BadUse,
    testing::ValuesIn(std::vector<Bad>{
        Bad{{}, "a command should follow"},
        Bad{{"chekc"}, "did you mean \"check\"?"},
        Bad{{"--verison"}, "no option --verison"},
        Bad{{"show"}, "GAME is missing"},
        Bad{{"show", "tic-tac-toe", "extra"}, "too many arguments"},
        Bad{{"show", "tic-tac-to"}, "did you mean \"tic-tac-toe\"?"},
        Bad{{"show", "tic-tac-toe", "--afer", "5"}, "did you mean \"--after\"?"},
        Bad{{"show", "tic-tac-toe", "--after"}, "should be followed by a value"},
        Bad{{"show", "tic-tac-toe", "--from", "0"}, "no cell \"0\""},
        Bad{{"show", "tic-tac-toe", "--from", "-1"}, "no cell \"-1\""},
        Bad{{"show", "hut-pass", "--from", "9z"}, "no cell \"9z\""},
        Bad{{"show", "tic-tac-toe", "--figure", "b.gif"}, "cannot be written as \".gif\""},
        Bad{{"show", "tic-tac-toe", "--figure", "no/b.png"}, "cannot be written"},
        Bad{{"show", "tic-tac-toe", "--variant", "odd"}, "no variant \"odd\""},
        Bad{{"show", "tic-tac-toe", "--at", "3/3"}, "2 rows"},
        Bad{{"moves", "tic-tac-toe", "--after", "5, 5"}, "move 2: 5 is taken"},
        Bad{{"moves", "connect-four", "--after", "d,d,d,d,d,d,d"}, "move 7: column d is full"},
        Bad{{"moves", "./none.pegs"}, "no such file"},
        Bad{{"moves", "/"}, "folder"},
        Bad{{"count", "tic-tac-toe"}, "--depth is missing"},
        Bad{{"count", "tic-tac-toe", "--depth", "0"}, "from 1 to 100"},
        Bad{{"count", "tic-tac-toe", "--depth", "-5"}, "from 1 to 100"},
        Bad{{"count", "tic-tac-toe", "--depth", "99999999999999999999"}, "from 1 to 100"},
        Bad{{"count", "tic-tac-toe", "--depth", "2x"}, "from 1 to 100"},
        Bad{{"count", "tic-tac-toe", "--depth", "3", "--threads", "-1"}, "from 0 to 256"},
        Bad{{"check", "tic-tac-toe", "--playouts", "0"}, "from 1 to"},
        Bad{{"check", "tic-tac-toe", "--seed", "one"}, "a whole number"},
        Bad{{"check", "tic-tac-toe", "--out", "/proc/none"}, "cannot be made"},
        Bad{{"play", "tic-tac-toe", "--second", "serch"}, "did you mean \"search\"?"},
        Bad{{"play", "tic-tac-toe", "--first", "search:depth=0"}, "from 1 to 60"},
        Bad{{"play", "tic-tac-toe", "--record", "no/game.txt"}, "cannot be written"},
        Bad{{"play", "tic-tac-toe", "--record", "/tmp"}, "this is a folder"},
        Bad{{"play", "tic-tac-toe", "--seed", "1.5"}, "a whole number"},
        Bad{{"completion", "fsh"}, "no completion"}}));

TEST(BadSheets, OneClearMessageEach) {
  Folder folder;
  auto message = [&](const std::string& text) {
    std::ofstream(folder / "g.pegs", std::ios::binary) << text;
    Ran ran = ninepegs({"check", (folder / "g.pegs").string()});
    EXPECT_EQ(ran.exitCode, 2);
    EXPECT_TRUE(ran.out.empty());
    return ran.err;
  };
  expectParts(message(""), {"the sheet is empty"});
  expectParts(message(std::string(10'000'000, 'x')), {"larger than 1048576 bytes"});
  std::string binary;
  for (int i = 0; i < 5000; ++i) binary += static_cast<char>(i * 37);
  expectParts(message(binary), {"not UTF-8 text"});
  std::string sheet = readFile(std::string(NINEPEGS_SOURCE) + "/sheets/connect-four.pegs", 1 << 20);
  // Every truncation is a message or a sheet, never a crash.
  for (std::size_t length = 0; length < sheet.size(); length += 97) {
    std::ofstream(folder / "g.pegs", std::ios::binary) << sheet.substr(0, length);
    int code = ninepegs({"moves", (folder / "g.pegs").string()}).exitCode;
    EXPECT_TRUE(code == 0 || code == 2) << length;
  }
  std::string wrong = sheet;
  wrong.replace(wrong.find("empty except"), 12, "emty except ");
  expectParts(message(wrong), {"g.pegs:", "nothing here is called \"emty\"", "pick there in emty",
                               "^^^^", "hint: did you mean \"empty\"?"});
}

TEST(Output, FolderThatCannotBeWrittenStopsBeforeTheWork) {
  Folder folder;
  std::ofstream(folder / "file") << "x";
  Ran ran = ninepegs({"check", "tic-tac-toe", "--out", (folder / "file").string()});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(ran.out.empty());
  expectParts(ran.err, {"cannot be made"});
}

TEST(EveryPositionOfTheProgram, IsToldAndWritten) {
  Ran ran = ninepegs({"check", "tic-tac-toe", "--playouts", "10", "--every-position"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  for (const char* part : {"5,478 positions", "765 up to symmetry", "a draw"})
    EXPECT_NE(ran.out.find(part), std::string::npos) << part;
  ran = ninepegs({"check", "nim", "--playouts", "10", "--every-position", "--json"});
  Json every = readJson(ran.out)["every_position"];
  EXPECT_TRUE(every["complete"]);
  EXPECT_EQ(every["best_play"]["winner"], "First");
  EXPECT_EQ(every["best_play"]["moves"].size(), every["best_play"]["plies"]);
  EXPECT_EQ(every["longest_plies"], 15);
  ran = ninepegs({"check", "chess", "--playouts", "10", "--every-position", "--memory", "4"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.out.find("broken off"), std::string::npos);
}

TEST(EveryPositionOfTheProgram, RefusesWhatIsNoMemory) {
  for (const char* memory : {"0", "-1", "lots", "", "99999999999"}) {
    Ran ran = ninepegs({"check", "nim", "--every-position", "--memory", memory});
    EXPECT_EQ(ran.exitCode, 2) << memory;
    EXPECT_NE(ran.err.find("--memory"), std::string::npos) << ran.err;
  }
  Ran ran = ninepegs({"check", "nim", "--memory", "10"});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_NE(ran.err.find("--every-position"), std::string::npos);
}

}  // namespace commands_test
}  // namespace ninepegs::test
