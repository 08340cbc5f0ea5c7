// match, think, solve and review, as a person runs them.
#include <gtest/gtest.h>

#include "ninepegs/base/diagnostic.hpp"
#include "ninepegs/base/files.hpp"
#include "ninepegs/base/process.hpp"
#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/many.hpp"
#include "support/program.hpp"

namespace ninepegs::test {
namespace opponents_commands_test {

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

// Where something is hidden, what is said is what the side knows: not where the ships lie.
TEST(Think, TellsWhatASideKnows) {
  Folder folder;
  std::string sheet = (folder / "hiding.pegs").string();
  writeFile(
      sheet,
      "game hiding\nsides Amber and Slate\nboard square 3 x 2, one each\npiece peg P secret\n"
      "mark guessed each\nmove hide\n  need no mine\n  pick there in all\n  put peg on there\n"
      "  written as \"hide \" there\n  seen as \"hidden\"\nmove guess\n"
      "  pick there in all except my guessed\n  add there to my guessed\n"
      "  when there in theirs\n    tell \"found\"\n  otherwise\n    tell \"nothing\"\n"
      "  written as there\nturn hide else guess\nends\n  mover wins \"found\" when any theirs "
      "and theirs within my guessed\nworth count (my guessed on theirs)\n");
  auto think = [&](const std::string& hidden, bool json) {
    std::vector<std::string> words = {"think", sheet,     "--nodes",
                                      "2000",  "--after", "hide a1, hide " + hidden + ", a1, a2"};
    if (json) words.push_back("--json");
    Ran ran = ninepegs(words);
    EXPECT_EQ(ran.exitCode, 0) << ran.err;
    return ran.out;
  };
  std::string text = think("c1", false);
  EXPECT_TRUE(has(text, "with what the side knows")) << text;
  EXPECT_TRUE(has(text, "Cell by cell")) << text;
  std::string json = think("c1", true);
  EXPECT_EQ(json, think("b2", true));
  EXPECT_EQ(readJson(json)["moves"].size(), 5u);
  EXPECT_FALSE(readJson(json).contains("position"));
}

TEST(Match, TellsWhoIsStronger) {
  Ran ran =
      ninepegs({"match", "tic-tac-toe", "search:depth=4", "random", "greedy", "--games", "10"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  for (const char* part : {"30 games", "search:depth=4", "against random", "Ratings", "who begins"})
    EXPECT_TRUE(has(ran.out, part)) << part << "\n" << ran.out;
  Json json = readJson(
      ninepegs({"match", "tic-tac-toe", "search:depth=4", "random", "--games", "10", "--json"})
          .out);
  EXPECT_EQ(json["games"].size(), 10u);
  EXPECT_GT(json["pairings"][0]["wins"], 5);
}

// Broken off by Ctrl-C and resumed, it comes to what it would have come to.
TEST(Match, GoesOnWhereItWas) {
  Folder folder;
  std::string file = (folder / "match.json").string();
  std::vector<std::string> arguments = {
      "match",          "connect-four", "search:nodes=3000", "playouts:playouts=150", "--games",
      many("24", "60"), "--json"};
  std::string whole = ninepegs(arguments).out;
  arguments.insert(arguments.end(), {"--resume", file});
  RunOptions interrupt;
  interrupt.interrupt = true;
  EXPECT_EQ(ninepegs(arguments, interrupt).exitCode, 130);
  EXPECT_EQ(readJson(readFile(file, 10'000'000))["complete"], false);
  Ran rest = ninepegs(arguments);
  EXPECT_EQ(rest.out, whole);
  EXPECT_TRUE(readFile(file, 10'000'000) == whole);  // not EXPECT_EQ: it would print both
}

// Games of other rules, or of another measure, are not counted among those of today.
TEST(Match, GoesOnWithTheSameSheetOnly) {
  Folder folder;
  std::string sheet = (folder / "hut.pegs").string(), file = (folder / "match.json").string();
  std::string text = readFile(NINEPEGS_SOURCE "/sheets/tic-tac-toe.pegs", 100'000);
  writeFile(sheet, text);
  std::vector<std::string> arguments = {"match",   sheet, "greedy",   "random",
                                        "--games", "6",   "--resume", file};
  EXPECT_EQ(ninepegs(arguments).exitCode, 0);
  arguments[5] = "2";
  EXPECT_TRUE(has(ninepegs(arguments).out, "2 games"));
  EXPECT_EQ(readJson(readFile(file, 1'000'000))["games"].size(), 6u);
  writeFile(sheet, text + "\nworth count mine\n");
  Ran ran = ninepegs(arguments);
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "another sheet")) << ran.err;
  EXPECT_EQ(readJson(readFile(file, 1'000'000))["games"].size(), 6u);
}

TEST(Solve, AnswersAndSaysWhatItKnows) {
  Ran ran = ninepegs({"solve", "tic-tac-toe", "--after", "1, 2", "--memory", "4"});
  EXPECT_TRUE(has(ran.out, "Cross wins in 5 plies")) << ran.out;
  ran = ninepegs({"solve", "connect-four", "--nodes", "2000", "--memory", "4"});
  EXPECT_EQ(ran.exitCode, 0);
  EXPECT_TRUE(has(ran.out, "nobody can force a win within")) << ran.out;
  Json json = readJson(ninepegs({"solve", "nim", "--json", "--memory", "4"}).out);
  EXPECT_EQ(json["winner"], "First");
  EXPECT_EQ(json["line"].size(), json["plies"]);
}

TEST(Solve, TellsTheLead) {
  std::vector<std::string> four = {"solve",  "othello",  "--variant", "four",
                                   "--lead", "--memory", "1"};
  Ran ran = ninepegs(four);
  EXPECT_TRUE(has(ran.out, "White leads by 8 if both play for that")) << ran.out;
  EXPECT_TRUE(has(ran.out, "b1           White wins in 12 plies       White leads by 8"))
      << ran.out;
  four.push_back("--json");
  Json json = readJson(ninepegs(four).out);
  EXPECT_EQ(json["lead_least"], -8);
  EXPECT_EQ(json["moves"][3]["lead_most"], -8);
  ran = ninepegs({"solve", "othello", "--lead", "--nodes", "100", "--memory", "1"});
  EXPECT_TRUE(has(ran.out, "margin not known")) << ran.out;
}

TEST(Think, ShowsDepths) {
  Folder folder;
  Ran ran =
      ninepegs({"think", "connect-four", "--depth", "4", "--csv", (folder / "d.csv").string()});
  EXPECT_TRUE(has(ran.out, "2,800")) << ran.out;  // all sequences of up to four plies
  EXPECT_TRUE(has(readFile(folder / "d.csv", 10'000), "\n4,\"")) << ran.out;
  std::vector<std::string> json = {"think", "othello", "--nodes", "3000", "--json"};
  EXPECT_EQ(ninepegs(json).out, ninepegs(json).out);
}

TEST(Think, ShowsWhoeverThinks) {
  Folder folder;
  std::string chart = (folder / "p.svg").string(), rows = (folder / "p.csv").string();
  std::vector<std::string> said = {"think",    "hut-pass", "--with", "playouts:playouts=100",
                                   "--figure", chart,      "--csv",  rows};
  Ran ran = ninepegs(said);
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_TRUE(has(ran.out, "share of its playouts")) << ran.out;
  EXPECT_TRUE(has(readFile(chart, 1 << 20), "</svg>"));
  EXPECT_TRUE(has(readFile(rows, 10'000), "\n100,\""));
  said = {"think", "hut-pass", "--with", "playouts:playouts=100", "--json"};
  Json json = readJson(ninepegs(said).out);
  EXPECT_EQ(json["steps"].back()["playouts"], 100);
  std::uint64_t all = 0;
  for (const Json& move : json["moves"]) all += move["playouts"].get<std::uint64_t>();
  EXPECT_EQ(all, 100u);
  // Minimax looks at what its own column says.
  json = readJson(ninepegs({"think", "othello", "--with", "minimax:depth=3", "--json"}).out);
  ASSERT_EQ(json["depths"].size(), 3u);
  for (const Json& depth : json["depths"]) EXPECT_EQ(depth["nodes"], depth["minimax_nodes"]);
}

TEST(Match, WritesRows) {
  Folder folder;
  std::string rows = (folder / "m.csv").string();
  EXPECT_EQ(
      ninepegs({"match", "tic-tac-toe", "greedy", "minimax:depth=2", "--games", "4", "--csv", rows})
          .exitCode,
      0);
  std::string text = readFile(rows, 10'000);
  EXPECT_TRUE(has(text, "number,first,second,opening_plies,plies,winner,result\n1,\"")) << text;
  EXPECT_EQ(std::count(text.begin(), text.end(), '\n'), 5) << text;
  EXPECT_TRUE(has(text, "\"greedy\",\"minimax:depth=2\"")) << text;
  EXPECT_TRUE(has(text, "\"minimax:depth=2\",\"greedy\"")) << text;
}

// Three of a kind stand open: one side does not see it, then the other lets it stand.
TEST(Review, NamesTheMovesThatGaveTheResultAway) {
  Folder folder;
  auto review = [&](const std::string& moves, std::vector<std::string> more = {}) {
    writeFile(folder / "game.txt", "[Game \"tic-tac-toe\"]\n\n" + moves + "\n");
    more.insert(more.begin(), {"review", (folder / "game.txt").string()});
    return ninepegs(more);
  };
  Json json = readJson(review("1. 1 2 2. 5 3 3. 4 9", {"--json"}).out);
  std::vector<std::string> verdicts;
  for (const Json& ply : json["plies"]) verdicts.push_back(ply["verdict"]);
  // 2 lets Cross win; 5 keeps it; 3 is lost anyway; 4 wins still; 9 is lost anyway.
  EXPECT_EQ(verdicts, (std::vector<std::string>{"plain", "lets the other side win", "plain",
                                                "plain", "plain", "plain"}));
  Ran ran = review("1. 1 2 2. 9 5");
  EXPECT_EQ(ran.exitCode, 0);
  EXPECT_TRUE(has(ran.out, "would have stopped that")) << ran.out;
  // A win that is passed over.
  json = readJson(review("1. 1 4 2. 2 5 3. 9", {"--json"}).out);
  EXPECT_EQ(json["plies"][4]["verdict"], "missed win");
  EXPECT_EQ(json["plies"][4]["best_move"], "3");
}

struct Bad {
  std::vector<const char*> arguments;
  const char* says;
};
class BadCommand : public testing::TestWithParam<Bad> {};
TEST_P(BadCommand, IsRefused) {
  Ran ran = ninepegs({GetParam().arguments.begin(), GetParam().arguments.end()});
  EXPECT_EQ(ran.exitCode, 2) << ran.out;
  EXPECT_TRUE(has(ran.err, GetParam().says)) << ran.err;
  EXPECT_TRUE(ran.out.empty());
}
INSTANTIATE_TEST_SUITE_P(
    Opponents, BadCommand,
    testing::ValuesIn(std::vector<Bad>{
        Bad{{"match", "tic-tac-toe", "search"}, "two opponents"},
        Bad{{"match", "tic-tac-toe", "search", "serch"}, "did you mean \"search\"?"},
        Bad{{"play", "battleship", "--at", "skiff of Slate a1 b1; Amber to move"},
            "cannot know what led to"},
        Bad{{"match", "tic-tac-toe", "greedy", "random", "--games", "0"}, "--games"},
        Bad{{"match", "tic-tac-toe", "greedy", "random", "search", "--settle", "9"}, "--settle"},
        Bad{{"match", "tic-tac-toe", "greedy", "random", "--resume", "/none/x"},
            "cannot be written"},
        Bad{{"solve", "battleship"}, "does not see all"},
        Bad{{"solve", "tic-tac-toe", "--lead"}, "in the lead"},
        Bad{{"solve", "othello", "--lead", "--backwards"}, "--backwards does not go with"},
        Bad{{"solve", "tic-tac-toe", "--after", "1, 2, 4, 3, 7"}, "is over"},
        Bad{{"solve", "tic-tac-toe", "--memory", "0"}, "--memory"},
        Bad{{"think", "battleship", "--csv", "d.csv"}, "no depths"},
        Bad{{"think", "battleship", "--figure", "d.png"}, "no depths"},
        Bad{{"think", "battleship", "--at",
             "10/10/10/10/10/10/10/10/10/SS8 | 10/10/10/10/10/10/10/10/10/SS8; Amber "
             "to move"},
            "--at"},
        Bad{{"think", "tic-tac-toe", "--depth", "61"}, "--depth"},
        Bad{{"think", "tic-tac-toe", "--with", "greedy"}, "weighs nothing"},
        Bad{{"think", "tic-tac-toe", "--with", "serch"}, "did you mean \"search\"?"},
        Bad{{"think", "tic-tac-toe", "--with", "search", "--depth", "2"}, "do not go with it"},
        Bad{{"think", "tic-tac-toe", "--figure", "d.gif"}, ".png or .svg"},
        Bad{{"match", "tic-tac-toe", "greedy", "random", "--csv", "/none/x"}, "cannot be written"},
        Bad{{"think", "tic-tac-toe", "--csv", "/none/x"}, "cannot be written"},
        Bad{{"review", "/none"}, "/none"},
        Bad{{"review"}, "RECORD"}}));

TEST(Replay, ShowsBoardsAndHoldsMovesAgainstTheRules) {
  Folder folder;
  std::string path = (folder / "g.txt").string(), sgf = (folder / "g.sgf").string(),
              back = (folder / "b.txt").string(), two = (folder / "two.txt").string();
  writeFile(path, "[Game \"tic-tac-toe\"]\n[Result \"*\"]\n\n1. 5 1 2. 3 7 3. 4 6 4. 2 8 5. 9 *\n");
  Ran ran = ninepegs({"replay", path, "--ply", "1"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_TRUE(has(ran.out, "   4  X  6")) << ran.out;
  EXPECT_TRUE(has(ran.out, "9 of 9 moves")) << ran.out;
  // There and back in the other notation.
  EXPECT_EQ(ninepegs({"replay", path, "--to", sgf}).exitCode, 0);
  EXPECT_EQ(ninepegs({"replay", sgf, "--to", back}).exitCode, 0);
  EXPECT_EQ(ninepegs({"replay", back, "--json"}).out, ninepegs({"replay", path, "--json"}).out);
  EXPECT_EQ(ninepegs({"replay", path, "--ply", "10"}).exitCode, 2);
  EXPECT_EQ(ninepegs({"replay", path, "--number", "2"}).exitCode, 2);
  EXPECT_EQ(ninepegs({"replay", path, "--to", (folder / "g.doc").string()}).exitCode, 2);
  // Two games, the second with a move that is not legal.
  writeFile(two, "[Game \"nim\"]\n\n*\n\n[Game \"tic-tac-toe\"]\n\n1. 5 5 *\n");
  ran = ninepegs({"replay", two});
  EXPECT_EQ(ran.exitCode, 1);
  EXPECT_TRUE(has(ran.out, "2 games, 1 not by the rules")) << ran.out;
  EXPECT_TRUE(has(ran.err, "two.txt:7:6: \"5\" is no legal move here")) << ran.err;
  EXPECT_EQ(ninepegs({"replay", two, "--ply", "0"}).exitCode, 2);
}

TEST(Match, WritesItsGamesAsRecords) {
  Folder folder;
  std::string file = (folder / "m.pgn").string();
  EXPECT_EQ(ninepegs({"match", "hut-pass", "search:nodes=200", "random", "--games", "4", "--seed",
                      "1", "--records", file})
                .exitCode,
            0);
  Ran ran = ninepegs({"replay", file});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_TRUE(has(ran.out, "4 games, all by the rules")) << ran.out;
  ran = ninepegs({"replay", file, "--number", "2"});
  EXPECT_TRUE(has(ran.out, "Amber: random")) << ran.out;
}

TEST(Records, OfAFolderAreATest) {
  Folder folder;
  auto check = [&] {
    return ninepegs({"check", "connect-four", "--playouts", "50", "--seed", "1", "--records",
                     folder.path().string()});
  };
  EXPECT_EQ(check().exitCode, 2);  // none are there
  writeFile(folder / "a.pgn",
            "1. d d 2. d *\n\n[Game \"connect-four\"]\n1. a b 2. a b 3. a b 4. a 1-0\n");
  writeFile(folder / "notes.md", "no record");
  Ran ran = check();
  EXPECT_EQ(ran.exitCode, 0) << ran.out << ran.err;
  EXPECT_TRUE(has(ran.out, "records: 2 games in 1 file, all by the rules")) << ran.out;
  writeFile(folder / "b.pgn", "1. d d 2. d d 3. d d 4. d *\n");
  ran = check();
  EXPECT_EQ(ran.exitCode, 1);
  EXPECT_TRUE(has(ran.out, "b.pgn, game 1")) << ran.out;
  EXPECT_TRUE(has(ran.out, "\"d\" is no legal move here")) << ran.out;
  // Every file that is written says so.
  std::string out = (folder / "out").string();
  EXPECT_EQ(ninepegs({"check", "connect-four", "--playouts", "50", "--seed", "1", "--records",
                      folder.path().string(), "--out", out})
                .exitCode,
            1);
  for (const char* name : {"junit.xml", "check.sarif", "check.json", "report.html"})
    EXPECT_TRUE(has(readFile(folder / "out" / name, 1 << 24), "b.pgn, game 1")) << name;
  EXPECT_TRUE(has(readFile(folder / "out" / "junit.xml", 1 << 24), "failures=\"1\""));
  writeFile(folder / "b.pgn", "[Game \"nim\"]\n*\n");
  ran = check();
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "a record of nim, not of connect-four")) << ran.err;
}

TEST(Review, WhatIsNoRecordOfTheGameIsRefused) {
  Folder folder;
  auto refused = [&](const std::string& text, const char* says) {
    writeFile(folder / "game.txt", text);
    Ran ran = ninepegs({"review", (folder / "game.txt").string()});
    EXPECT_EQ(ran.exitCode, 2) << text;
    EXPECT_TRUE(has(ran.err, says)) << ran.err;
  };
  refused("[Game \"tic-tac-toe\"]\n\n1. 1 1\n", "game.txt:3:6: \"1\" is no legal move");
  refused("[Game \"tic-tac-toe\"]\n\n1. 1 2 2. 4 3 3. 7 5\n", "though the game is over");
  refused("[Game \"tic-tac-toe\"]\n\n1. 1, 2; 2. 4, 3\n", "begins a comment");
  refused("[Game \"none\"]\n\n1. 1 1\n", "none");
  refused("1. 1 2\n", "which game");
  refused("\xff\xfe", "game.txt");
  refused("", "game.txt");
}

TEST(Replay, DrawsAStrip) {
  Folder folder;
  std::string game = (folder / "game.txt").string();
  ninepegs({"play", "tic-tac-toe", "--first", "random", "--second", "greedy", "--seed", "7",
            "--record", game});
  for (const auto& [ending, begins] : {std::pair<std::string, std::string>{".svg", "<?xml"},
                                       {".pdf", "%PDF-"},
                                       {".png", "\x89PNG"}}) {
    std::string file = (folder / ("strip" + ending)).string();
    Ran ran = ninepegs({"replay", game, "--strip", file});
    EXPECT_EQ(ran.exitCode, 0) << ran.err;
    EXPECT_EQ(readFile(file, 20 << 20).substr(0, begins.size()), begins);
  }
  Ran ran = ninepegs({"replay", game, "--strip", (folder / "strip.gif").string()});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, ".svg, .png or .pdf")) << ran.err;
  EXPECT_FALSE(std::filesystem::exists(folder / "strip.gif"));
}

// Every record that a check wrote is a game by the faulty rules.
TEST(Replay, PlaysTheGamesThatLeadToFaults) {
  int written = 0;
  for (const auto& one :
       std::filesystem::directory_iterator(std::string(NINEPEGS_SOURCE) + "/examples/faulty")) {
    std::string sheet = one.path().string();
    if (!sheet.ends_with(".pegs") || sheet.ends_with(".cases.pegs")) continue;
    if (one.path().stem().string().size() % many(3u, 1u) != 0) continue;  // a third of them
    Folder folder;
    ninepegs({"check", sheet, "--playouts", many("100", "300"), "--out", folder.path().string()});
    std::filesystem::path games = folder / "faults.pgn";
    if (!std::filesystem::exists(games)) continue;
    ++written;
    Ran ran = ninepegs({"replay", games.string(), "--game", sheet});
    EXPECT_EQ(ran.exitCode, 0) << sheet << ran.out << ran.err;
  }
  EXPECT_GE(written, many(3, 8));
}

// Read by another program, by the specification: sums, order, and as many rows as it is high.
TEST(Replay, Animates) {
  Folder folder;
  std::string game = (folder / "game.txt").string(), file = (folder / "game.png").string();
  ninepegs({"play", "tic-tac-toe", "--first", "random", "--second", "greedy", "--seed", "7",
            "--record", game});
  Ran ran = ninepegs({"replay", game, "--animate", file});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_TRUE(has(ran.out, "animated: " + file)) << ran.out;
  const char* reader = R"(
import struct, sys, zlib
data = open(sys.argv[1], 'rb').read()
assert data[:8] == b'\x89PNG\r\n\x1a\n'
at, chunks = 8, []
while at < len(data):
    size, name = struct.unpack('>I4s', data[at:at + 8])
    body = data[at + 8:at + 8 + size]
    assert struct.unpack('>I', data[at + 8 + size:at + 12 + size])[0] == zlib.crc32(name + body)
    chunks.append((name.decode(), body))
    at += 12 + size
assert at == len(data) and chunks[0][0] == 'IHDR' and chunks[1][0] == 'acTL' and chunks[-1][0] == 'IEND'
width, height, depth, colours = struct.unpack('>IIBB', chunks[0][1][:10])
assert (depth, colours) == (8, 2)
frames, loops = struct.unpack('>II', chunks[1][1])
sequence, drawn, seen = 0, 0, set()
for name, body in chunks[2:-1]:
    if name == 'fcTL':
        assert struct.unpack('>I', body[:4])[0] == sequence and struct.unpack('>II', body[4:12]) == (width, height)
        sequence += 1
        continue
    if name == 'fdAT':
        assert struct.unpack('>I', body[:4])[0] == sequence
        sequence, body = sequence + 1, body[4:]
    rows = zlib.decompress(body)
    assert len(rows) == height * (width * 3 + 1)
    drawn += 1
    seen.add(rows)
assert frames == drawn == len(seen) and loops == 0
print(frames)
)";
  Finished read = runProcess({"python3", "-c", reader, file}, "", {});
  EXPECT_EQ(read.exitCode, 0);
  EXPECT_GE(std::atoi(read.output.c_str()), 6);
  Ran other = ninepegs({"replay", game, "--animate", (folder / "game.gif").string()});
  EXPECT_EQ(other.exitCode, 2);
  EXPECT_TRUE(has(other.err, "is written as .png")) << other.err;
}

}  // namespace opponents_commands_test
}  // namespace ninepegs::test
