// What the built program keeps whatever happens around it: files, exit codes, options that are
// said.
#include <gtest/gtest.h>
#include <signal.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <fstream>
#include <limits>
#include <thread>

#include "ninepegs/base/diagnostic.hpp"
#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/many.hpp"
#include "support/process.hpp"
#include "support/program.hpp"

namespace ninepegs::test {
namespace keeps_test {

namespace fs = std::filesystem;

const std::string faulty = std::string(NINEPEGS_SOURCE) + "/examples/faulty/";

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

// The exit code of a line of shell.
int shell(const std::string& line) {
  int status = std::system(("bash -c '" + line + "'").c_str());
  return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
}

TEST(Keeps, TidyKeepsALinkAndTheFilesMode) {
  Folder folder;
  writeFile(folder / "real.pegs", "game   t\n");
  fs::permissions(folder / "real.pegs", fs::perms::owner_all);
  fs::create_symlink("real.pegs", folder / "link.pegs");
  Ran ran = ninepegs({"tidy", (folder / "link.pegs").string()});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_TRUE(fs::is_symlink(folder / "link.pegs"));
  EXPECT_EQ(readFile(folder / "real.pegs", 100), "game t\n");
  EXPECT_EQ(fs::status(folder / "real.pegs").permissions(), fs::perms::owner_all);
}

TEST(Keeps, ARecordGoesIntoADeviceOrAPipe) {
  std::vector<std::string> play = {"play",   "tic-tac-toe", "--first", "random",  "--second",
                                   "random", "--seed",      "1",       "--record"};
  play.emplace_back("/dev/null");
  EXPECT_EQ(ninepegs(play).exitCode, 0);
  EXPECT_TRUE(fs::is_character_file("/dev/null"));
  Folder folder;
  std::string pipe = (folder / "pipe").string();
  ASSERT_EQ(mkfifo(pipe.c_str(), 0600), 0);
  play.back() = pipe;
  EXPECT_EQ(ninepegs(play).exitCode, 2);  // nobody reads
  std::string got;
  std::thread reader([&] {
    std::ifstream in(pipe);
    std::string line;
    while (std::getline(in, line)) got += line + "\n";
  });
  EXPECT_EQ(ninepegs(play).exitCode, 0);
  reader.join();
  EXPECT_TRUE(has(got, "tic-tac-toe")) << got;
  EXPECT_TRUE(fs::is_fifo(pipe));
}

TEST(Keeps, APipeIsNoSheetAndIsNotWaitedFor) {
  Folder folder;
  std::string pipe = (folder / "sheet.pegs").string();
  ASSERT_EQ(mkfifo(pipe.c_str(), 0600), 0);
  Ran ran = ninepegs({"show", pipe});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "pipe")) << ran.err;
}

TEST(Keeps, AReaderThatGoesAwayHearsNoLie) {
  std::string program = NINEPEGS_PROGRAM;
  std::string bad = faulty + "draw-before-win.pegs";
  EXPECT_EQ(shell(program + " check " + bad + " --playouts 2000 | true; exit ${PIPESTATUS[0]}"), 1);
  EXPECT_EQ(shell(program + " check tic-tac-toe --playouts 2000 | true; exit ${PIPESTATUS[0]}"),
            141);
  EXPECT_EQ(shell(program + " show tic-tac-toe > /dev/full 2>/dev/null"), 2);
}

TEST(Keeps, AnEmptyOptionIsSaid) {
  std::vector<std::vector<std::string>> commands = {
      {"show", "tic-tac-toe", "--at", ""},      {"show", "tic-tac-toe", "--from", ""},
      {"show", "tic-tac-toe", "--figure", ""},  {"show", "battleship", "--as", ""},
      {"show", "tic-tac-toe", "--variant", ""}, {"check", "tic-tac-toe", "--out", ""},
      {"play", "tic-tac-toe", "--record", ""},  {"play", "tic-tac-toe", "--second", ""},
      {"play", "tic-tac-toe", "--seed", ""}};
  for (const auto& command : commands) {
    Ran ran = ninepegs(command);
    EXPECT_EQ(ran.exitCode, 2) << command[2];
    EXPECT_EQ(ran.out, "") << command[2];
    EXPECT_NE(ran.err, "") << command[2];
  }
}

TEST(Keeps, WhatIsSaidTwiceIsToldSo) {
  Ran ran = ninepegs({"show", "tic-tac-toe", "--at", "3/3/3", "--at", "3/3/3"});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "more than once")) << ran.err;
  ran = ninepegs({"play", "tic-tac-toe", "--second", "search:depth=1,depth=2"});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "said twice")) << ran.err;
}

TEST(Keeps, AFolderOfSheetsThatIsNoneIsToldSo) {
  Folder folder;
  std::string program = NINEPEGS_PROGRAM;
  EXPECT_EQ(shell("NINEPEGS_SHEETS=/none " + program + " show tic-tac-toe 2>/dev/null"), 2);
  EXPECT_EQ(shell("NINEPEGS_SHEETS=" + folder.path().string() + " " + program +
                  " show tic-tac-toe 2>/dev/null"),
            2);
}

TEST(Keeps, SheetsAreFoundWithoutProc) {
  std::string hidden = "unshare -rm sh -c \"mount -t tmpfs none /proc && ";
  if (shell(hidden + "true\" 2>/dev/null") != 0) GTEST_SKIP() << "needs a namespace of its own";
  std::string program = NINEPEGS_PROGRAM;
  EXPECT_EQ(shell(hidden + program + " show tic-tac-toe\" >/dev/null"), 0);
}

TEST(Keeps, AProgramWithoutItsSheetsSaysSo) {
  Folder folder;
  std::filesystem::copy_file(NINEPEGS_PROGRAM, folder / "ninepegs");
  std::string alone =
      (folder / "ninepegs").string() + " show tic-tac-toe 2>" + (folder / "err").string();
  EXPECT_EQ(shell(alone), 2);
  EXPECT_TRUE(has(readFile(folder / "err", 10'000), "sheets is missing"));
}

// Is what the file holds complete?
bool isWhole(const fs::path& path) {
  std::string text = readFile(path, 10'000'000), kind = path.extension();
  if (kind == ".json" || kind == ".sarif") return !readJsonOrNone(text).is_discarded();
  if (kind == ".xml") return text.ends_with("</testsuite>\n");
  if (kind == ".png")
    return has(text.substr(text.size() - std::min<std::size_t>(text.size(), 12)), "IEND");
  if (kind == ".html") return text.ends_with("</html>\n");
  if (kind == ".svg") return text.ends_with("</svg>\n");
  if (kind == ".txt") return has(text, "[Result ") && text.ends_with("\n");
  return false;
}

std::size_t times(const std::string& text, const std::string& part) {
  std::size_t many = 0;
  for (std::size_t at = text.find(part); at != text.npos; at = text.find(part, at + 1)) ++many;
  return many;
}

// Killed many times and resumed, a check comes to what one that was left alone comes to.
TEST(Keeps, AKilledCheckGoesOnWhereItWas) {
  Folder folder;
  std::string file = (folder / "begun.json").string();
  // With a fault, whose game is kept, too.
  std::string sheet = faulty + "draw-before-win.pegs";
  std::vector<std::string> alone = {"check", sheet,       "--playouts", "120000", "--seed",
                                    "5",     "--threads", "2",          "--json"},
                           kept = alone;
  kept.insert(kept.end(), {"--resume", file});
  Ran whole = ninepegs(alone);
  EXPECT_EQ(whole.exitCode, 1);
  for (int round = 0; round < many(6, 20); ++round) {
    pid_t child = started(kept);
    hasWorked(child, 0.02 + 0.01 * (round * 7 % 20));
    kill(child, SIGKILL);
    waitpid(child, nullptr, 0);
    if (fs::exists(file)) {
      EXPECT_TRUE(isWhole(file));
    }
  }
  EXPECT_EQ(ninepegs(kept).out, whole.out);
  // Once more: there is nothing left to play. And with more playouts, it goes on.
  EXPECT_EQ(ninepegs(kept).out, whole.out);
  // A short one is kept as well.
  std::string brief = (folder / "brief.json").string();
  EXPECT_EQ(ninepegs({"check", sheet, "--playouts", "20", "--resume", brief}).exitCode, 1);
  EXPECT_TRUE(isWhole(brief));
  fs::remove(brief);
  for (auto* arguments : {&alone, &kept}) (*arguments)[3] = "130000";
  Ran more = ninepegs(kept);
  EXPECT_EQ(more.out, ninepegs(alone).out);
  EXPECT_TRUE(has(more.err, "goes on behind 120000 playouts")) << more.err;
  EXPECT_EQ(std::distance(fs::directory_iterator(folder.path()), {}), 1);
}

TEST(Keeps, WhatIsNoBegunCheckIsRefused) {
  Folder folder;
  std::string file = (folder / "begun.json").string();
  auto check = [&](const std::string& game, std::vector<std::string> more = {}) {
    std::vector<std::string> arguments = {"check", game, "--playouts", "300", "--resume", file};
    arguments.insert(arguments.end(), more.begin(), more.end());
    return ninepegs(arguments);
  };
  ASSERT_EQ(check("tic-tac-toe").exitCode, 0);
  std::string good = readFile(file, 1'000'000);
  auto refused = [&](const Ran& ran, const char* part) {
    EXPECT_EQ(ran.exitCode, 2) << part;
    EXPECT_TRUE(has(ran.err, part)) << ran.err;
    EXPECT_TRUE(ran.out.empty());
  };
  refused(check("othello"), "of another game");
  refused(check("tic-tac-toe", {"--seed", "2"}), "of another seed");
  refused(check("tic-tac-toe", {"--closely"}), "with --closely");
  refused(check("tic-tac-toe", {"--variant", "none"}), "has no variant");
  refused(check("tic-tac-toe", {"--all-variants"}), "do not go together");
  refused(ninepegs({"check", "tic-tac-toe", "--playouts", "100", "--resume", file}),
          "holds 300 playouts already");
  refused(ninepegs({"check", "tic-tac-toe", "--resume", (folder / "none" / "x").string()}),
          "cannot be written");
  for (std::size_t part = 0; part < 8; ++part) {
    writeFile(file, good.substr(0, good.size() * part / 8));
    refused(check("tic-tac-toe"), "was cut short");
  }
  // What is not as the program writes it: numbers below zero, too large or none, moves that are not
  // legal, other counts.
  for (const auto& [was, now] : std::vector<std::pair<std::string, std::string>>{
           {"\"playouts\":300", "\"playouts\":-300"},
           {"\"playouts\":300", "\"playouts\":\"300\""},
           {"\"playouts\":300", "\"playouts\":299"},
           {"\"uses\":[", "\"uses\":[1,"},
           {"\"outcomes\":[[0,", "\"outcomes\":[[9,"},
           {"\"outcomes\":[[0,", "\"outcomes\":[[0.5,"},
           {"\"faults\":[]",
            "\"faults\":[{\"kind\":1,\"line\":3,\"playout\":0,\"message\":\"\",\"moves\":[[0,99]]}"
            "]"},
           {"\"faults\":[]", "\"faults\":[{\"kind\":77}]"},
           {"\"faults\":[]", "\"faults\":7"}}) {
    std::string bad = good;
    std::size_t at = bad.find(was);
    ASSERT_NE(at, bad.npos) << was << " in " << good;
    writeFile(file, bad.replace(at, was.size(), now));
    refused(check("tic-tac-toe"), "was cut short");
    EXPECT_EQ(readFile(file, 1'000'000), bad);
  }
}

// Saved, the sheet is checked again, and what changed is said; half a sheet is told and waited for.
TEST(Keeps, AWatchedSheetIsCheckedWhenItIsSaved) {
  Folder folder;
  std::string file = (folder / "rows.pegs").string();
  std::string sheet = readFile(std::string(NINEPEGS_SOURCE) + "/sheets/tic-tac-toe.pegs", 100'000),
              three = "any line of 3";
  writeFile(file, sheet);
  RunOptions options;
  options.interrupt = true;
  options.meanwhile = [&](const std::function<std::string()>& printed) {
    auto until = [&](std::size_t rounds) {
      for (int tries = 0; tries < 15'000; ++tries) {
        if (times(printed(), "waits until") >= rounds) return;
        std::this_thread::sleep_for(std::chrono::milliseconds(20));
      }
      ADD_FAILURE() << printed();
    };
    until(1);
    std::string changed = sheet;
    writeFile(file, changed.replace(changed.find(three), three.size(), "any line of 2"));
    until(2);
    writeFile(file, "game rows\nboard");
    until(3);
    writeFile(file, sheet);
    until(4);
  };
  Ran ran = ninepegs({"check", file, "--playouts", "300", "--watch"}, options);
  EXPECT_EQ(ran.exitCode, 130);
  EXPECT_EQ(times(ran.out, "Since the check before"), 2u) << ran.out;
  EXPECT_TRUE(has(ran.out, "new   the case ")) << ran.out;
  EXPECT_TRUE(has(ran.out, "gone  the case ")) << ran.out;
  EXPECT_TRUE(has(ran.err, "rows.pegs:2")) << ran.err;
}

// Killed many times, at system calls all along their way, runs leave whole files, and the next
// ones nothing else.
TEST(Keeps, KilledRunsLeaveNoHalfFile) {
  Folder folder;
  auto at = [&](const char* name) { return (folder / name).string(); };
  std::string untidy = "game   t\n", tidy = "game t\n";
  for (int i = 0; i < 20'000; ++i)
    untidy += "zone   a" + std::to_string(i) + "  =  row   1\n",
        tidy += "zone a" + std::to_string(i) + " = row 1\n";
  std::vector<std::vector<std::string>> commands = {
      {"check", "tic-tac-toe", "--playouts", "100", "--out", at("report")},
      {"show", "othello", "--figure", at("board.png")},
      {"show", "othello", "--figure", at("board.svg")},
      {"play", "tic-tac-toe", "--first", "random", "--second", "random", "--seed", "1", "--record",
       at("game.txt")},
      {"tidy", at("rules.pegs")}};
  const int rounds = many(4, 20);
  int kills = 0;
  for (const auto& command : commands) {
    writeFile(at("rules.pegs"), untidy);
    ASSERT_EQ(ninepegs(command).exitCode, 0) << command[0];
    int calls = killedAtCall(command, std::numeric_limits<int>::max());
    for (int round = 0; round < rounds; ++round) {
      if (command[0] == "tidy") writeFile(at("rules.pegs"), untidy);
      // The first half of them is spent on beginning; the last ones are what matters.
      int call = calls / 2 + round * calls / (2 * rounds);
      kills += killedAtCall(command, call) == call;
      std::string rules = readFile(at("rules.pegs"), 10'000'000);
      EXPECT_TRUE(rules == untidy || rules == tidy);
      for (const auto& entry : fs::recursive_directory_iterator(folder.path())) {
        const fs::path& path = entry.path();
        bool temporary = path.filename().string().front() == '.';
        if (entry.is_regular_file() && !temporary && path.extension() != ".pegs") {
          EXPECT_TRUE(isWhole(path)) << path;
        }
      }
    }
    ASSERT_EQ(ninepegs(command).exitCode, 0) << command[0];
  }
  EXPECT_GE(kills, 4 * rounds);  // threads make a few calls more or fewer
  std::vector<std::string> files;
  for (const auto& entry : fs::recursive_directory_iterator(folder.path()))
    if (!entry.is_directory()) files.push_back(entry.path().filename());
  std::sort(files.begin(), files.end());
  EXPECT_EQ(files, (std::vector<std::string>{"board.png", "board.svg", "check.json", "check.png",
                                             "check.sarif", "game.txt", "junit.xml", "report.html",
                                             "rules.pegs"}));
}

TEST(Keeps, AReportIsPrintedThoughItsFilesCannotBe) {
  Folder folder;
  fs::create_directories(folder / "out/check.json");
  Ran ran =
      ninepegs({"check", "tic-tac-toe", "--playouts", "100", "--out", (folder / "out").string()});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.out, "No fault found")) << ran.out;
  EXPECT_TRUE(has(ran.err, "folder")) << ran.err;
}

TEST(Keeps, TermEndsTheProgramAtAnyTime) {
  for (int signal : {SIGTERM, SIGINT}) {
    pid_t child = started({"check", "othello", "--playouts", "100000000"});
    ASSERT_TRUE(hasWorked(child, 0.2));
    kill(child, signal);
    int status = 0;
    waitpid(child, &status, 0);
    EXPECT_TRUE(WIFEXITED(status) && WEXITSTATUS(status) == 130) << status;
  }
}

std::string written(const Folder& folder, const std::string& text) {
  writeFile(folder / "game.pegs", text);
  return (folder / "game.pegs").string();
}
const std::string head =
    "game t\nsides A and B\nboard square 3 x 3\npiece peg o x\nmove place\n  pick there in empty\n"
    "  put peg on there\nends\n  draw \"full\" when no empty\n";

TEST(Keeps, VariantsAreJudgedWithTheirSheet) {
  Folder folder;
  for (const char* change :
       {"  ends\n    draw \"full\" when no emty\n", "  move place\n    pik there in empty\n",
        "  start\n    . .\n    . .\n"}) {
    std::string file = written(folder, head + "variant odd \"odd\"\n" + change);
    for (const char* command : {"check", "lint", "explain"}) {
      Ran ran = ninepegs({command, file});
      EXPECT_EQ(ran.exitCode, 2) << command << change;
      EXPECT_TRUE(has(ran.err, "in the variant \"odd\"")) << ran.err;
    }
  }
  std::string file =
      written(folder, head +
                          "variant odd \"odd\"\n  ends\n    draw \"early\" when plies = 2\n"
                          "  case \"inside\"\n    play a1\n    expect draw \"early\"\n");
  Ran ran = ninepegs({"check", file, "--playouts", "50"});
  EXPECT_EQ(ran.exitCode, 1) << ran.out;
  EXPECT_TRUE(has(ran.out, "inside (variant odd)")) << ran.out;
  ran = ninepegs({"check", file, "--playouts", "50", "--all-variants", "--json"});
  Json all = readJson(ran.out);
  ASSERT_EQ(all.size(), 2u);
  EXPECT_EQ(all[1]["game"], "t:odd");
  EXPECT_EQ(all[1]["playouts"], 50);
  ran = ninepegs({"explain", file});
  EXPECT_TRUE(has(ran.out, "Variant \"odd\"")) << ran.out;
  EXPECT_TRUE(has(ran.out, "(early)")) << ran.out;
}

TEST(Keeps, AnEndlessRepeatIsAFindingWithItsMoves) {
  Folder folder;
  std::string file = written(folder,
                             "game t\nsides A and B\nboard square 3 x 1\npiece peg o x\nmark "
                             "met\nmove place\n  pick there in empty\n"
                             "  put peg on there\n  when count occupied = 2\n    repeat while "
                             "possible\n      add there to met\n"
                             "ends\n  draw \"full\" when no empty\n");
  Ran ran = ninepegs({"check", file, "--playouts", "20", "--json"});
  EXPECT_EQ(ran.exitCode, 1) << ran.err;
  Json found = readJson(ran.out)["findings"];
  ASSERT_EQ(found.size(), 1u);
  EXPECT_EQ(found[0]["kind"], "endless move");
  EXPECT_EQ(found[0]["moves"].size(), 1u);
  EXPECT_TRUE(found[0]["shortest"]);
}

TEST(Keeps, MovesOfOneTextAreCountedEach) {
  Folder folder;
  std::string file =
      written(folder,
              "game t\nsides A and B\nboard square 2 x 1\npiece peg o x\nmove place\n  pick there "
              "in empty\n"
              "  put peg on there\n  written as \"m\"\nends\n  draw \"full\" when no empty\n");
  Ran ran = ninepegs({"count", file, "--depth", "2", "--each-move", "--json"});
  Json counts = readJson(ran.out);
  EXPECT_EQ(counts["by_first_move"]["m"], 2);
  EXPECT_EQ(counts["first_moves"].size(), 2u);
}

TEST(Keeps, APositionThatBreaksTheRulesIsNamed) {
  Folder folder;
  std::string file = written(folder, head +
                                         "always\n  count occupied < 3\ncase \"odd\"\n"
                                         "  position ooo/3/3; A to move\n  expect ongoing\n");
  Ran ran = ninepegs({"show", file, "--at", "ooo/3/3; A to move"});
  EXPECT_EQ(ran.exitCode, 0);
  EXPECT_TRUE(has(ran.err, "count occupied < 3")) << ran.err;
  ran = ninepegs({"check", file, "--playouts", "1"});
  EXPECT_TRUE(has(ran.out, "its position is none of the game")) << ran.out;
}

}  // namespace keeps_test
}  // namespace ninepegs::test
