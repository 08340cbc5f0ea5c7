// `vectors`, and the unit tests in three languages that read them.
#include <gtest/gtest.h>

#include <cstdlib>
#include <filesystem>
#include <set>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/lines.hpp"
#include "support/many.hpp"
#include "support/program.hpp"

namespace ninepegs {
namespace vectors_test {

using test::Folder;
using test::ninepegs;
using test::Ran;

const std::string source = NINEPEGS_SOURCE;

bool runs(const std::string& command) {
  return std::system((command + " >/dev/null 2>&1").c_str()) == 0;
}

std::vector<Json> linesOf(const std::string& path) {
  std::vector<Json> out;
  for (const std::string& line : test::linesOf(readFile(path, 100'000'000)))
    out.push_back(readJson(line));
  return out;
}

TEST(Vectors, HoldInThreeLanguagesAndNoticePlantedFaults) {
  Folder folder;
  std::string file = (folder / "othello.jsonl").string();
  Ran ran = ninepegs({"vectors", "othello", "--out", file});
  ASSERT_EQ(ran.exitCode, 0) << ran.err;
  std::string programs = source + "/examples/programs";
  EXPECT_TRUE(runs("python3 " + programs + "/python/vectors_test.py " + file));
  EXPECT_TRUE(runs("node " + programs + "/javascript/vectors_test.js " + file));
  EXPECT_TRUE(runs(std::string(NINEPEGS_OTHELLO_VECTORS) + " " + file));
  std::string faulty =
      "python3 " + source + "/tests/programs/faulty_vectors.py " + programs + "/python ";
  EXPECT_TRUE(runs(faulty + "Othello " + file));
  std::vector<const char*> faults = {"RowForColumn", "NoPass"};
  if (test::looksAtAll())
    faults.insert(faults.end(),
                  {"AcrossTheEdge", "SevenDirections", "OneLeftLying", "WinnerIsTheLast"});
  for (const char* fault : faults) EXPECT_FALSE(runs(faulty + fault + " " + file)) << fault;
}

TEST(Vectors, TellWhatTheSheetSays) {
  Folder folder;
  std::string file = (folder / "vectors.jsonl").string();
  for (const char* game : {"tic-tac-toe", "connect-four", "nim"}) {
    ASSERT_EQ(ninepegs({"vectors", game, "--out", file, "--vectors", "12"}).exitCode, 0);
    std::vector<Json> lines = linesOf(file);
    ASSERT_GT(lines.size(), 1u) << game;
    EXPECT_EQ(lines[0]["vectors"], lines.size() - 1);
    EXPECT_GT(lines[0]["mutants_noticed"], 0.7 * lines[0]["mutants"].get<double>()) << game;
    for (std::size_t i = 1; i < lines.size(); ++i) {
      std::string moves;
      for (const Json& move : lines[i]["play"])
        moves += (moves.empty() ? "" : ", ") + move.get<std::string>();
      std::vector<std::string> words = {"moves", game, "--json"};
      if (!moves.empty()) words.insert(words.end(), {"--after", moves});
      Json told = readJson(ninepegs(words).out);
      std::set<std::string> legal;
      for (const Json& move : told["moves"])
        legal.insert(move.is_object() ? move["move"].get<std::string>() : move.get<std::string>());
      EXPECT_EQ(std::set<std::string>(lines[i]["stands"]["moves"].begin(),
                                      lines[i]["stands"]["moves"].end()),
                legal);
      EXPECT_EQ(lines[i]["after"].size(), legal.size());
      EXPECT_EQ(lines[i]["position"], told["position"]);
      if (!told["result"].is_null()) {
        EXPECT_EQ(lines[i]["stands"]["result"]["winner"], told["result"]["winner"]);
      }
    }
  }
}

TEST(Vectors, AreTheSameOnAnyNumberOfThreads) {
  Folder folder;
  std::string first;
  for (const char* threads : {"1", "2", "7"}) {
    std::string file = (folder / "vectors.jsonl").string();
    ASSERT_EQ(ninepegs({"vectors", test::many("tic-tac-toe", "othello"), "--out", file, "--threads",
                        threads, "--seed", "5"})
                  .exitCode,
              0);
    std::string text = readFile(file, 100'000'000);
    if (first.empty()) first = text;
    EXPECT_EQ(text, first);
  }
}

TEST(Vectors, RefusesWhatItCannotWrite) {
  EXPECT_EQ(ninepegs({"vectors", "nim"}).exitCode, 2);
  EXPECT_EQ(ninepegs({"vectors", "nim", "--out", "/no/such/folder/x"}).exitCode, 2);
  Folder folder;
  EXPECT_EQ(
      ninepegs({"vectors", "nim", "--out", (folder / "x").string(), "--vectors", "0"}).exitCode, 2);
  EXPECT_FALSE(std::filesystem::exists(folder / "x"));
}

}  // namespace vectors_test
}  // namespace ninepegs
