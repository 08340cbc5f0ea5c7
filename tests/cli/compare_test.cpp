// `compare` as it is run: good programs in three languages, planted faults, programs that
// misbehave.
#include <gtest/gtest.h>
#include <signal.h>

#include <algorithm>
#include <chrono>
#include <cstdlib>
#include <fstream>
#include <map>

#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/many.hpp"
#include "support/program.hpp"

namespace ninepegs {
namespace compare_test {

using test::Folder;
using test::ninepegs;
using test::Ran;

const std::string examples = std::string(NINEPEGS_SOURCE) + "/examples/programs";

Ran compared(const std::string& program, const std::string& playouts,
             std::vector<std::string> more = {}) {
  std::vector<std::string> words = {"compare",    "othello", "--program", program,
                                    "--playouts", playouts,  "--json"};
  words.insert(words.end(), more.begin(), more.end());
  return ninepegs(words);
}

class GoodProgram : public testing::TestWithParam<const char*> {};

TEST_P(GoodProgram, Agrees) {
  std::string language = GetParam();
  std::string program = language == "python"       ? "python3 " + examples + "/python/othello.py"
                        : language == "javascript" ? "node " + examples + "/javascript/othello.js"
                                                   : std::string(NINEPEGS_OTHELLO);
  int playouts = test::many(5, 24);
  Ran ran = compared(program, std::to_string(playouts));
  EXPECT_EQ(ran.exitCode, 0) << ran.out << ran.err;
  Json json = readJson(ran.out);
  EXPECT_EQ(json["playouts"], playouts);
  EXPECT_GT(json["positions"], playouts * 50);
  EXPECT_GT(json["refused_by_both"], playouts * 50);
  for (const char* what : {"moves", "turn", "result", "board"})
    EXPECT_TRUE(json["compared"][what]) << what;
  EXPECT_TRUE(json["difference"].is_null());
}
INSTANTIATE_TEST_SUITE_P(Compare, GoodProgram, testing::Values("python", "javascript", "cpp"));

struct Planted {
  const char* fault;
  std::vector<std::string> kinds;  // of the difference that shows it
  const char* seed = "3";          // one that soon comes to it
};
void PrintTo(const Planted& one, std::ostream* out) {
  *out << one.fault;
}
class PlantedFault : public testing::TestWithParam<Planted> {};

TEST_P(PlantedFault, IsFound) {
  std::string program = "python3 " + std::string(NINEPEGS_SOURCE) +
                        "/tests/programs/faulty_othello.py " + examples + "/python " +
                        GetParam().fault;
  Ran ran =
      compared(program, "400", {"--seed", GetParam().seed, "--shorten", test::many("15", "60")});
  EXPECT_EQ(ran.exitCode, 1) << ran.err;
  Json found = readJson(ran.out)["difference"];
  ASSERT_TRUE(found.is_object());
  const std::vector<std::string>& kinds = GetParam().kinds;
  EXPECT_NE(std::find(kinds.begin(), kinds.end(), found["kind"]), kinds.end()) << found;
}
INSTANTIATE_TEST_SUITE_P(
    Compare, PlantedFault,
    testing::Values(Planted{"RowForColumn", {"refused", "board", "accepted"}},
                    Planted{"NegativeIndex", {"accepted", "failed"}},
                    Planted{"AcrossTheEdge", {"moves", "board", "accepted"}},
                    Planted{"AfterTheEnd", {"accepted"}}, Planted{"NoPass", {"result", "moves"}},
                    Planted{"SevenDirections", {"moves", "board"}},
                    Planted{"OneLeftLying", {"board"}}, Planted{"Overwritten", {"accepted"}},
                    Planted{"DrawIsAWin", {"result"}, "2"}, Planted{"EmptyIsAPass", {"accepted"}},
                    Planted{"WinnerIsTheLast", {"result"}},
                    Planted{"ForcedPassIsOptional", {"moves"}}));

// A program that misbehaves is told of within its limit, and leaves nothing running.
struct Bad {
  const char* name;
  const char* command;
  const char* says;
  int exitCode = 1;  // 2: it never ran
};
void PrintTo(const Bad& one, std::ostream* out) {
  *out << one.name;
}
class BadProgram : public testing::TestWithParam<Bad> {};

TEST_P(BadProgram, IsToldOf) {
  Folder folder;
  std::string pid = (folder / "pid").string();
  auto begun = std::chrono::steady_clock::now();
  Ran ran = compared("echo $$ > " + pid + "; " + GetParam().command, "4", {"--answer-time", "1"});
  std::chrono::duration<double> spent = std::chrono::steady_clock::now() - begun;
  EXPECT_EQ(ran.exitCode, GetParam().exitCode) << ran.err;
  EXPECT_LT(spent.count(), 60);
  std::string message = ran.err;
  if (GetParam().exitCode == 1) {
    Json found = readJson(ran.out)["difference"];
    EXPECT_EQ(found["kind"], "failed");
    message = found["message"];
  }
  EXPECT_NE(message.find(GetParam().says), std::string::npos) << message;
  int number = 0;
  ASSERT_TRUE(std::ifstream(pid) >> number);
  EXPECT_NE(kill(number, 0), 0) << "still runs";
}
INSTANTIATE_TEST_SUITE_P(
    Compare, BadProgram,
    testing::Values(
        Bad{"sleeps", "sleep 1000", "gave no answer to \"start\" within 1 seconds"},
        Bad{"sleeps behind another", "sleep 1000 & wait", "gave no answer"},
        Bad{"ends", "exit 3", "ended with exit code 3", 2},
        Bad{"dies", "kill -9 $$", "was ended by signal 9"},
        Bad{"says why", "echo no board today >&2; exit 1", "it wrote: no board today", 2},
        Bad{"binary", "head -c 4000 /dev/urandom; echo; cat", "JSON"},
        Bad{"a gigabyte", "head -c 1000000000 /dev/zero; cat",
            "a line of more than 1,048,576 bytes"},
        Bad{"many lines", "yes '{}'", "neither a result nor an error"},
        Bad{"another number", "read line; echo '{\"id\":7,\"result\":{}}'; cat", "another number"},
        Bad{"no object", "read line; echo '{\"id\":1,\"result\":[1]}'; cat", "no object"},
        Bad{"another side", "read l; echo '{\"id\":1,\"result\":{\"turn\":\"Red\"}}'; cat",
            "no side of the game: Red"},
        Bad{"half a board", "read l; echo '{\"id\":1,\"result\":{\"board\":[\"..\"]}}'; cat",
            "gave a \"board\" that cannot be understood"},
        Bad{"no word on it", "read l; echo '{\"id\":1,\"result\":{}}'; sleep 1000",
            "gave no answer to"}));

TEST(Compare, AProgramThatIsNotThereIsBadInput) {
  for (const char* program : {"./no-such-program", "", " ", "/dev/null"}) {
    Ran ran = compared(program, "4");
    EXPECT_EQ(ran.exitCode, 2) << program;
    EXPECT_NE(ran.err.find("--program"), std::string::npos) << ran.err;
    EXPECT_TRUE(ran.out.empty());
  }
}

TEST(Compare, RefusesWhatDoesNotGoTogether) {
  for (const std::vector<std::string>& words : std::vector<std::vector<std::string>>{
           {"compare", "othello"},
           {"compare", "othello", "nim", "--program", "cat"},
           {"compare", "othello", "no-such-game"},
           {"compare", "othello", "--other-variant", "no-such"},
           {"compare", "othello", "--program", "cat", "--answer-time", "0"},
           {"compare", "othello", "--program", "cat", "--map", "no-such-file"}}) {
    Ran ran = ninepegs(words);
    EXPECT_EQ(ran.exitCode, 2) << words.back();
    EXPECT_FALSE(ran.err.empty());
  }
}

TEST(Compare, AMapIsReadWithItsPlaces) {
  Folder folder;
  std::string map = (folder / "map.json").string();
  for (const auto& [text, says] : std::map<std::string, std::string>{
           {"{\"sides\": ", "map.json:1:11: this is no JSON"},
           {"{}", "names something"},
           {"{\n \"colours\": {}}", "map.json:2:2: a map has no \"colours\""},
           {"{\"sides\": {\"Red\": \"R\"}}", "no such side: \"Red\""},
           {"{\"letters\": {\"q\": \"R\"}}", "no such letter: \"q\""},
           {"{\"cells\": {\"z9\": \"R\"}}", "no such cell: \"z9\""},
           {"{\"cells\": \"cell\"}", "the same for all cells"},
           {"{\"moves\": {\"pass\": 3}}", "is a text"}}) {
    std::ofstream(map) << text;
    Ran ran = compared("cat", "4", {"--map", map});
    EXPECT_EQ(ran.exitCode, 2) << text;
    EXPECT_NE(ran.err.find(says), std::string::npos) << ran.err;
  }
}

// A program with names of its own: numbers for cells, counted from 0, and other letters.
TEST(Compare, AMapBridgesNames) {
  Folder folder;
  std::string map = (folder / "map.json").string(), game = (folder / "game.py").string();
  std::ofstream(game) << R"(import sys
sys.path.insert(0, sys.argv[1])
import adapter
from othello import Othello
class Numbered(Othello):
    @staticmethod
    def name(column, row): return f"{row},{column}"
    @staticmethod
    def place(move):
        parts = move.split(",")
        if len(parts) != 2 or not all(p.isdigit() for p in parts): raise ValueError("no cell")
        row, column = int(parts[0]), int(parts[1])
        if row > 7 or column > 7: raise ValueError("off the board")
        return column, row
    def moves(self): return ["-" if m == "pass" else m for m in super().moves()]
    def play(self, move): super().play("pass" if move == "-" else move)
    def turn(self): return "1" if self.mover == "x" else "2"
    def result(self):
        out = super().result()
        return out and ({"Black": "1", "White": "2", None: None}[out[0]],)
    def board(self): return [[{".": 0, "x": 1, "o": 2}[c] for c in row] for row in self.cells]
adapter.serve(Numbered)
)";
  std::ofstream(map) << R"({
  "sides": {"Black": "1", "White": "2"},
  "letters": {".": "0", "x": "1", "o": "2"},
  "cells": "{row0},{column0}",
  "moves": {"pass": "-", "castle": "O-O"}
})";
  std::string program = "python3 " + game + " " + examples + "/python";
  Ran ran = compared(program, "10", {"--map", map, "--answer-time", "120"});
  EXPECT_EQ(ran.exitCode, 0) << ran.out << ran.err;
  Json json = readJson(ran.out);
  EXPECT_EQ(json["moves_of_the_map_never_legal"], Json({"castle"}));
  EXPECT_GT(json["refused_by_both"], 10 * 50);
  EXPECT_NE(compared(program, "4").exitCode, 0);  // without the map
}

TEST(Compare, TwoSheetsAreCutToTheShortestGame) {
  Ran ran = ninepegs({"compare", "nim", "--other-variant", "normal", "--json"});
  EXPECT_EQ(ran.exitCode, 1);
  Json found = readJson(ran.out)["difference"];
  EXPECT_EQ(found["kind"], "result");
  EXPECT_EQ(found["moves"].size(), 3u);
  EXPECT_TRUE(found["shortest"]);
  ran = ninepegs({"compare", "five-in-a-row", "--other-variant", "exact", "--shorten", "500"});
  EXPECT_EQ(ran.exitCode, 1);
  for (const char* part : {"They differ: result", "the sheet", "the other"})
    EXPECT_NE(ran.out.find(part), std::string::npos) << ran.out;
  // A draw that hides a win is rare, and still cut to few plies.
  ran = ninepegs({"compare", "othello:four", "othello:four", "--playouts", "20"});
  EXPECT_EQ(ran.exitCode, 2);  // a variant is no name of a game
  EXPECT_EQ(ninepegs({"compare", "hex", "hex", "--playouts", "20"}).exitCode, 0);
  EXPECT_EQ(ninepegs({"compare", "chess", "chess", "--playouts", "8"}).exitCode, 0);
  EXPECT_EQ(ninepegs({"compare", "battleship", "battleship", "--playouts", "4"}).exitCode, 0);
}

TEST(Compare, SameOnAnyNumberOfThreads) {
  std::string first;
  for (const char* threads : {"1", "2", "5"}) {
    Ran ran = ninepegs({"compare", "nim", "--other-variant", "normal", "--seed", "4", "--json",
                        "--threads", threads});
    if (first.empty()) first = ran.out;
    EXPECT_EQ(ran.out, first) << threads;
  }
}

}  // namespace compare_test
}  // namespace ninepegs
