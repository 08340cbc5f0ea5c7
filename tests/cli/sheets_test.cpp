// The built program on sheets: explain, lint, tidy, new, views, and positions in FEN.
#include <gtest/gtest.h>

#include <fstream>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/json.hpp"
#include "support/program.hpp"

namespace ninepegs::test {
namespace sheets_test {

const std::string sheets = std::string(NINEPEGS_SOURCE) + "/sheets/";

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

// Lines that were broken between words, as one.
std::string unwrapped(std::string text) {
  for (std::size_t at; (at = text.find("\n  ")) != text.npos;) text.replace(at, 3, " ");
  return text;
}

TEST(Explain, SaysTheRulesOfEveryShippedSheet) {
  for (const auto& entry : std::filesystem::directory_iterator(sheets)) {
    if (entry.is_directory() || entry.path().stem().extension() == ".cases") continue;
    Ran ran = ninepegs({"explain", entry.path().string()});
    EXPECT_EQ(ran.exitCode, 0) << entry.path();
    EXPECT_TRUE(has(ran.out, "moves first")) << ran.out;
    EXPECT_TRUE(has(ran.out, "The end")) << ran.out;
  }
  Ran ran = ninepegs({"explain", "connect-four"});
  EXPECT_TRUE(has(unwrapped(ran.out),
                  "Pick `there` from the empty cells, but not the cells one step north of"))
      << ran.out;
  EXPECT_TRUE(has(ran.out, "The move is written: the column of `there`.")) << ran.out;
  Ran json = ninepegs({"explain", "chess", "--json"});
  EXPECT_GT(readJson(json.out).size(), 50u);
}

TEST(Explain, PrintsTheProgramWithClassesAndLines) {
  Ran ran = ninepegs({"explain", "chess", "--program"});
  EXPECT_EQ(ran.exitCode, 0);
  EXPECT_TRUE(has(ran.out, "move pawn-move: walked, by line"));
  EXPECT_TRUE(has(ran.out, "try castle (second side):"));
  EXPECT_TRUE(has(ninepegs({"explain", "othello", "--program"}).out, "move place: "));
}

TEST(Lint, IsQuietAboutShippedSheets) {
  for (const auto& entry : std::filesystem::directory_iterator(sheets)) {
    if (entry.is_directory() || entry.path().stem().extension() == ".cases") continue;
    Ran ran = ninepegs({"lint", entry.path().string(), "--playouts", "60"});
    EXPECT_EQ(ran.exitCode, 0) << ran.out;
  }
}

TEST(Lint, FindsWhatIsSuspect) {
  Folder folder;
  writeFile(folder / "odd.pegs",
            "game odd\nsides Amber and Slate\nboard square 3 x 3\npiece peg o x weight 3\n"
            "piece saw s z\ngroup tool = peg, saw\nzone home = row 1\nmark met\nnumber debt\n"
            "define free = empty\n"
            "move place\n  pick there in empty\n  put peg on there\n  set debt to debt - 1\n"
            "move never\n  pick there in my saw\n  take there\n"
            "ends\n  draw \"full\" when no empty\n  draw \"full and even\" when no empty and count "
            "mine = 4\n"
            "  mover wins \"line\" when any line of 3 in mine\n");
  Ran ran = ninepegs({"lint", (folder / "odd.pegs").string()});
  EXPECT_EQ(ran.exitCode, 1) << ran.err;
  for (const char* part :
       {"\"full and even\" can never be reached", "no saw ever comes onto the board",
        "nothing reads the group \"tool\"", "nothing reads the zone \"home\"",
        "nothing reads the mark \"met\"", "nothing reads the definition \"free\"",
        "nothing reads the word \"weight\"", "the number \"debt\" went below 0",
        "the move \"never\" was never legal", "stands before the win \"line\""})
    EXPECT_TRUE(has(unwrapped(ran.out), part)) << part << "\n" << ran.out;
  Ran json = ninepegs({"lint", (folder / "odd.pegs").string(), "--json"});
  EXPECT_EQ(readJson(json.out)["remarks"].size(), 10u) << json.out;
  Ran stuck = ninepegs({"lint", std::string(NINEPEGS_SOURCE) + "/examples/faulty/no-end.pegs"});
  EXPECT_TRUE(has(unwrapped(stuck.out), "a side had no move and no end held")) << stuck.out;
}

TEST(Tidy, ChangesNothingTheSecondTime) {
  Folder folder;
  for (const auto& entry : std::filesystem::directory_iterator(sheets)) {
    if (entry.is_directory()) continue;
    std::filesystem::path copy = folder / entry.path().filename().string();
    std::filesystem::copy_file(entry.path(), copy);
    EXPECT_EQ(ninepegs({"tidy", copy.string()}).exitCode, 0);
    std::string once = readFile(copy, 1'000'000);
    Ran again = ninepegs({"tidy", copy.string()});
    EXPECT_TRUE(has(again.out, "is tidy")) << again.out;
    EXPECT_EQ(readFile(copy, 1'000'000), once);
    EXPECT_EQ(ninepegs({"tidy", copy.string(), "--check"}).exitCode, 0);
    // It says the same: the compiled programs are equal but for their line numbers.
    Ran before = ninepegs({"count", entry.path().string(), "--depth", "1"});
    EXPECT_EQ(ninepegs({"count", copy.string(), "--depth", "1"}).out.substr(0, 20),
              before.out.substr(0, 20));
  }
}

TEST(Tidy, KeepsCommentsAndMendsIndentation) {
  Folder folder;
  std::filesystem::path file = folder / "loose.pegs";
  writeFile(file,
            "game   loose   # a name\n# about the sides\nsides Amber   and Slate\n\n\n"
            "board square 3 x 3\npiece peg o x\nmove place\n      pick there in empty   # any\n"
            "      put peg on there # there\nends\n    draw \"a  b\" when no empty\n");
  EXPECT_EQ(ninepegs({"tidy", file.string(), "--check"}).exitCode, 1);
  EXPECT_EQ(ninepegs({"tidy", file.string()}).exitCode, 0);
  EXPECT_EQ(
      readFile(file, 10'000),
      "game loose  # a name\n# about the sides\nsides Amber and Slate\n\nboard square 3 x 3\n"
      "piece peg o x\nmove place\n  pick there in empty  # any\n  put peg on there     # there\n"
      "ends\n  draw \"a  b\" when no empty\n");
  writeFile(file, "game x\n\tboard\n");
  Ran bad = ninepegs({"tidy", file.string()});
  EXPECT_EQ(bad.exitCode, 2);
  EXPECT_TRUE(has(bad.err, "holds a tab")) << bad.err;
  EXPECT_EQ(readFile(file, 10'000), "game x\n\tboard\n");
}

TEST(New, WritesASheetThatWorks) {
  Folder folder;
  Ran ran = ninepegs({"new", "peg-race"}, {.folder = folder.path()});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  Ran check = ninepegs({"check", "peg-race.pegs", "--playouts", "300"}, {.folder = folder.path()});
  EXPECT_EQ(check.exitCode, 0) << check.out;
  EXPECT_EQ(ninepegs({"tidy", "peg-race.pegs", "--check"}, {.folder = folder.path()}).exitCode, 0);
  EXPECT_EQ(ninepegs({"lint", "peg-race.pegs"}, {.folder = folder.path()}).exitCode, 0);
  Ran again = ninepegs({"new", "peg-race"}, {.folder = folder.path()});
  EXPECT_EQ(again.exitCode, 2);
  EXPECT_TRUE(has(again.err, "there already"));
  for (const char* name : {"Peg", "", "a/b", "../x", "a b", "-a"})
    EXPECT_NE(ninepegs({"new", name}, {.folder = folder.path()}).exitCode, 0) << name;
}

TEST(Show, AsASideHidesSecretPieces) {
  const std::string moves = "ferry a1-e1, ferry a10-e10";
  Ran all = ninepegs({"show", "battleship", "--after", moves});
  Ran amber = ninepegs({"show", "battleship", "--after", moves, "--as", "Amber"});
  Ran slate = ninepegs({"show", "battleship", "--after", moves, "--as", "Slate"});
  EXPECT_TRUE(has(all.out, " 10  F  F")) << all.out;
  EXPECT_FALSE(has(amber.out, " 10  F  F")) << amber.out;
  EXPECT_TRUE(has(amber.out, "  1  F  F"));
  EXPECT_FALSE(has(slate.out, "  1  F  F")) << slate.out;
  EXPECT_FALSE(has(slate.out, "FFFFF5/10"));  // nor in the position's text
  Ran json = ninepegs({"show", "battleship", "--after", moves, "--as", "Amber", "--json"});
  EXPECT_EQ(readJson(json.out)["pieces"].size(), 5u) << json.out;
  EXPECT_EQ(ninepegs({"show", "battleship", "--as", "Ambre"}).exitCode, 2);
}

TEST(Play, TheComputerDoesNotTellWhereItsShipsLie) {
  Ran ran = ninepegs({"play", "battleship", "--second", "random", "--seed", "3"},
                     {.input = "ferry a1-e1\nquit\n"});
  EXPECT_TRUE(has(ran.out, "Slate plays ")) << ran.out;
  std::size_t at = ran.out.find("Slate plays ");
  std::string line = ran.out.substr(at, ran.out.find('\n', at) - at);
  EXPECT_EQ(line.find_first_of("0123456789"), std::string::npos) << line;
}

TEST(Fen, IsReadAndWritten) {
  const std::string fen = "r3k2r/p1ppqpb1/bn2pnp1/3PN3/1p2P3/2N2Q1p/PPPBBPPP/R3K2R w KQkq - 3 7";
  EXPECT_TRUE(has(ninepegs({"show", "chess", "--at", fen}).out, "FEN: " + fen + "\n"));
  Ran castled = ninepegs({"show", "chess", "--at", fen, "--after", "O-O, O-O-O"});
  EXPECT_TRUE(
      has(castled.out, "FEN: 2kr3r/p1ppqpb1/bn2pnp1/3PN3/1p2P3/2N2Q1p/PPPBBPPP/R4RK1 w - - 5 8"))
      << castled.out << castled.err;
  Ran passant = ninepegs({"show", "chess", "--after", "e4, a6, e2e4"});
  EXPECT_EQ(passant.exitCode, 2);
  EXPECT_TRUE(has(ninepegs({"show", "chess", "--after", "e2e4, a7a6, e5, d5, exd6"}).out,
                  "FEN: rnbqkbnr/1pp1pppp/p2P4/8/8/8/PPPP1PPP/RNBQKBNR b KQkq - 0 3"));
  Ran mate = ninepegs({"show", "chess", "--after", "f3, e5, g4, Qh4#"});
  EXPECT_TRUE(has(mate.out, "Black wins: checkmate")) << mate.out << mate.err;
}

TEST(Fen, FaultsAreNamed) {
  struct Wrong {
    const char* fen;
    const char* message;
  };
  for (Wrong wrong :
       {Wrong{"rnbqkbnrr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq - 0 1",
              "longer than the board's 8"},
        {"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP w KQkq - 0 1", "7 rows"},
        {"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBKKBNR w kq - 0 1", "count my king = 1"},
        {"rnbqkbnP/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQq - 0 1", "no pawn on (row 1 or row 8)"},
        {"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq e5 0 1", "passed within"},
        {"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq z9 0 1", "no cell that a pawn"},
        {"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQxq - 0 1", "no right to castle"},
        {"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBN1 w KQkq - 0 1", "rights within"},
        {"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq - x 1", "no clock"},
        {"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq", "ends too early"},
        {"rnbqkbnr/ppppXppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq - 0 1", "\"X\" is no piece"},
        {"7/7/7/7/7/7; Cross to move", "the picture has 6 rows"}}) {
    Ran ran = ninepegs({"show", "chess", "--at", wrong.fen});
    EXPECT_EQ(ran.exitCode, 2) << wrong.fen;
    EXPECT_TRUE(has(ran.err, wrong.message)) << ran.err;
    EXPECT_TRUE(ran.out.empty());
  }
  Ran elsewhere = ninepegs({"show", "chess", "--after", "e5"});
  EXPECT_EQ(elsewhere.exitCode, 2);
  EXPECT_TRUE(has(elsewhere.err, "move 1")) << elsewhere.err;
}

}  // namespace sheets_test
}  // namespace ninepegs::test
