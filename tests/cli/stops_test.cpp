// Every command answers Ctrl-C within a second of processor time, wherever it is, with exit code
// 130, and what it then says claims no more than was looked at. Time is processor time of the
// program, so that a busy machine changes nothing.
#include <gtest/gtest.h>
#include <signal.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <string>
#include <vector>

#include "judge/generate.hpp"
#include "ninepegs/base/files.hpp"
#include "ninepegs/base/random.hpp"
#include "support/example_names.hpp"
#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/many.hpp"
#include "support/process.hpp"

namespace ninepegs::test {
namespace stops_test {

struct Stopped {
  int exitCode = -1;
  double after = 0;     // seconds of processor time from the signal to the end
  bool sooner = false;  // it ended by itself
  std::string out, err;
};

Stopped stopped(const std::vector<std::string>& words, double seconds, const Folder& folder) {
  pid_t child =
      started(words, {.out = (folder / "out").string(), .err = (folder / "err").string()});
  Stopped out;
  char state = ' ';
  auto ended = [&] { return state == 'Z'; };
  hasWorked(child, seconds);
  // It stands still while its time is read, for this process may be kept waiting.
  kill(child, SIGSTOP);
  double before = usedBy(child, state);
  while (!ended() && state != 'T') usleep(200), before = usedBy(child, state);
  out.sooner = ended();
  kill(child, SIGINT);
  kill(child, SIGCONT);
  int status = 0;
  rusage used{};
  wait4(child, &status, 0, &used);
  auto secondsOf = [](const timeval& time) {
    return static_cast<double>(time.tv_sec) + static_cast<double>(time.tv_usec) / 1e6;
  };
  out.after = secondsOf(used.ru_utime) + secondsOf(used.ru_stime) - before;
  out.exitCode = WIFEXITED(status) ? WEXITSTATUS(status) : -1;
  out.out = readFile(folder / "out", 1 << 30), out.err = readFile(folder / "err", 1 << 20);
  return out;
}

bool isComplete(const std::string& report) {
  Json json = readJsonOrNone(report);
  return json.is_object() && json.value("complete", false);
}

// What must be so of a report that is not complete.
void expectNoMore(const std::string& command, const Json& json) {
  if (!json.is_object() || !json.contains("complete") || json["complete"] == true) return;
  if (command == "check") {
    EXPECT_LE(json["playouts"], json["playouts_asked"]);
    for (const Json& one : json["symmetries"])
      EXPECT_TRUE(one["positions"] > 0 || one["stands"] == "not looked at") << one;
    EXPECT_FALSE(json["not_looked_at"].empty());
    if (json["looked_at"]["parts of conditions"] == "nothing") {
      EXPECT_TRUE(json["condition_parts"].empty());
    }
  }
  if (command == "mutate") {
    std::size_t unlooked = 0;
    for (const Json& one : json["mutants"]) {
      if (one["standing"] == "not looked at") ++unlooked;
      if (one["standing"] == "refused") {
        EXPECT_FALSE(one["refused"].get<std::string>().empty());
      }
    }
    EXPECT_EQ(json["totals"]["not_looked_at"], unlooked);
  }
}

struct Command {
  const char* name;
  std::vector<std::string> arguments;  // GAME and FOLDER are replaced
};
void PrintTo(const Command& command, std::ostream* out) {
  *out << command.name;
}

std::vector<Command> commands() {
  return {
      {"check", {"check", "GAME", "--playouts", "100000000", "--json"}},
      {"checkOut", {"check", "GAME", "--playouts", "3000", "--out", "FOLDER/report"}},
      {"checkEvery", {"check", "GAME", "--playouts", "10", "--every-position", "--json"}},
      {"mutate", {"mutate", "GAME", "--json"}},
      {"ask", {"ask", "GAME", "--json"}},
      {"lint", {"lint", "GAME", "--playouts", "1000000", "--json"}},
      {"count", {"count", "GAME", "--depth", "60", "--json"}},
      {"vectors", {"vectors", "GAME", "--out", "FOLDER/vectors.jsonl"}},
      {"book", {"book", "GAME", "--out", "FOLDER/book"}},
      {"solve", {"solve", "GAME", "--json"}},
      {"think", {"think", "GAME", "--nodes", "100000000000", "--json"}},
      {"match", {"match", "GAME", "search:nodes=2000", "playouts:playouts=300", "--json"}},
      {"compare", {"compare", "GAME", "GAME", "--playouts", "100000000", "--json"}},
      {"tune", {"tune", "GAME", "--json"}},
      {"play", {"play", "GAME", "--first", "search:time=1000", "--second", "random"}},
      {"explain", {"explain", "GAME"}},
  };
}

std::vector<std::string> sheets() {
  std::vector<std::string> out = {"tic-tac-toe", "connect-four",  "othello",    "chess",
                                  "draughts",    "morris",        "nim",        "hex",
                                  "hex-tiles",   "five-in-a-row", "battleship", "hut-pass"};
  for (const auto& file :
       std::filesystem::directory_iterator(std::string(NINEPEGS_SOURCE) + "/tests/heavy"))
    out.push_back(file.path().string());
  std::sort(out.begin(), out.end());
  return out;
}

class Stops : public testing::TestWithParam<Command> {};

// Runs the command on the sheet and stops it at a moment that the number settles.
void expectStops(const Command& command, const std::string& sheet, std::uint64_t number) {
  Folder folder;
  std::vector<std::string> words;
  for (std::string word : command.arguments) {
    if (word == "GAME") word = sheet;
    if (std::size_t at = word.find("FOLDER"); at != std::string::npos)
      word.replace(at, 6, folder.path().string());
    words.push_back(word);
  }
  Stream stream(std::hash<std::string>()(command.name), number);
  double when = 0.02 + 0.4 * stream.below(1000) / 1000.0;
  Stopped ran = stopped(words, when, folder);
  SCOPED_TRACE(sheet + " after " + std::to_string(when) + " s: " + ran.err);
  if (ran.sooner) {  // it ended by itself, and says so
    EXPECT_TRUE(ran.exitCode == 0 || ran.exitCode == 1 || ran.exitCode == 2) << ran.exitCode;
    return;
  }
  // It may have been at its last words when the signal came: then all was looked at, or it
  // refuses rules that take too long.
  bool refused = ran.exitCode == 2 && ran.err.find("steps in one position") != std::string::npos;
  EXPECT_TRUE(ran.exitCode == 130 || ran.after < 0.2 || isComplete(ran.out) || refused)
      << ran.exitCode;
  EXPECT_LT(ran.after, 1.05);
  if (ran.exitCode != 130) return;
  if (!ran.out.empty() && ran.out[0] == '{') {
    Json json = readJsonOrNone(ran.out);
    ASSERT_FALSE(json.is_discarded()) << ran.out.substr(0, 200);
    expectNoMore(words.front(), json);
  }
  EXPECT_FALSE(std::filesystem::exists(folder / "vectors.jsonl"));
  EXPECT_FALSE(std::filesystem::exists(folder / "book/book.pdf"));
}

TEST_P(Stops, WithinASecondOfProcessorTime) {
  // Of few, other ones for each command.
  std::uint64_t number = 0, step = many(8u, 1u), begin = std::string(GetParam().name).size();
  for (const std::string& sheet : sheets()) {
    if ((begin + number) % step == 0) expectStops(GetParam(), sheet, number);
    ++number;
  }
}

// NINEPEGS_STOPS_SHEETS: so many for each command.
TEST_P(Stops, OnSheetsMadeAtRandom) {
  const char* asked = std::getenv("NINEPEGS_STOPS_SHEETS");
  std::uint64_t many = asked == nullptr ? test::many(2u, 12u) : std::strtoull(asked, nullptr, 10);
  Folder folder;
  std::string sheet = (folder / "sheet.pegs").string();
  for (std::uint64_t number = 0; number < many; ++number) {
    std::uint64_t own = std::hash<std::string>()(GetParam().name) % 1000 + number;
    std::ofstream(sheet, std::ios::trunc) << judge::generateSheet(77, own).text;
    SCOPED_TRACE("sheet " + std::to_string(own) + " of seed 77");
    expectStops(GetParam(), sheet, 100 + number);
  }
}

INSTANTIATE_TEST_SUITE_P(Commands, Stops, testing::ValuesIn(commands()),
                         [](const auto& command) { return std::string(command.param.name); });

}  // namespace stops_test
}  // namespace ninepegs::test
