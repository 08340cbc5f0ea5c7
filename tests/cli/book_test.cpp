// book, serve, explain and match with programs, as a person runs them.
#include <gtest/gtest.h>
#include <sys/wait.h>

#include <cstdlib>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/program.hpp"

namespace ninepegs::test {
namespace cli_book_test {

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

TEST(Book, WritesAPageAndAPdf) {
  Folder folder;
  std::string out = (folder / "book").string();
  Ran ran = ninepegs({"book", "tic-tac-toe", "--out", out, "--playouts", "300", "--nodes", "300"});
  ASSERT_EQ(ran.exitCode, 0) << ran.err;
  std::string page = readFile(folder / "book/book.html", 10 << 20),
              pdf = readFile(folder / "book/book.pdf", 10 << 20);
  for (const char* part : {"<h1>Tic-tac-toe</h1>", "How it ends", "What was checked",
                           "data:image/svg+xml;base64,", "Cases of the sheet"})
    EXPECT_TRUE(has(page, part)) << part;
  EXPECT_EQ(pdf.substr(0, 5), "%PDF-");
  // The same seed makes the same files.
  ninepegs({"book", "tic-tac-toe", "--out", out, "--playouts", "300", "--nodes", "300", "--threads",
            "1"});
  EXPECT_EQ(readFile(folder / "book/book.html", 10 << 20), page);
  EXPECT_EQ(readFile(folder / "book/book.pdf", 10 << 20), pdf);
}

TEST(Book, RefusesWhatCannotBe) {
  Folder folder;
  EXPECT_EQ(ninepegs({"book", "tic-tac-toe"}).exitCode, 2);
  EXPECT_EQ(ninepegs({"book", "tic-tac-toe", "--out", "/proc/none"}).exitCode, 2);
  for (const char* number : {"0", "x", "-1", "1.5", "99999999999999999999"})
    EXPECT_EQ(
        ninepegs({"book", "nim", "--out", (folder / "b").string(), "--playouts", number}).exitCode,
        2)
        << number;
}

TEST(Serve, SpeaksUci) {
  Ran ran = ninepegs({"serve", "chess", "--uci"},
                     {.input = "uci\nposition startpos moves f2f3 e7e5 g2g4\ngo depth 2\n"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_TRUE(has(ran.out, "id name Nine Pegs ")) << ran.out;
  EXPECT_TRUE(has(ran.out, "\nuciok\n"));
  EXPECT_TRUE(has(ran.out, "bestmove d8h4\n"));
  EXPECT_EQ(ninepegs({"serve", "chess"}).exitCode, 2);
  EXPECT_EQ(ninepegs({"serve", "othello", "--uci"}).exitCode, 2);
  // A line without an end, and bytes that are no text.
  ran = ninepegs(
      {"serve", "chess", "--uci"},
      {.input = std::string(300'000, 'x') + "\n\xff\xfe\x01\nisready\nquit\ngo infinite\n"});
  EXPECT_EQ(ran.exitCode, 0);
  EXPECT_EQ(ran.out, "readyok\n");
}

// Whoever listens may go away, also while a move is thought about.
TEST(Serve, EndsWhenNobodyListens) {
  Folder folder;
  std::string shell =
      "(printf 'uci\\ngo depth 3\\nisready\\n'; sleep 0.3; printf 'isready\\n') | " +
      std::string(NINEPEGS_PROGRAM) + " serve chess --uci 2>&1 | head -n 1 | grep -c 'id name'";
  EXPECT_EQ(std::system((shell + " > /dev/null").c_str()), 0);
  std::string code =
      "bash -c \"(printf 'uci\\ngo depth 3\\n'; sleep 0.3; printf 'isready\\nuci\\n') | " +
      std::string(NINEPEGS_PROGRAM) + " serve chess --uci | true; exit \\${PIPESTATUS[1]}\"";
  int status = std::system(code.c_str());
  EXPECT_TRUE(WIFEXITED(status) && WEXITSTATUS(status) == 141) << status;
}

TEST(Match, LetsProgramsPlay) {
  const std::string python =
      "program:python3 " + std::string(NINEPEGS_SOURCE) + "/examples/programs/python/othello.py";
  Ran ran = ninepegs({"match", "othello", "search:depth=2", python, "--games", "2"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_TRUE(has(ran.out, "against program:python3")) << ran.out;
  std::string uci = "uci:nodes=50 " + std::string(NINEPEGS_PROGRAM) + " serve chess --uci";
  ran = ninepegs({"match", "chess", "random", uci, "--games", "2", "--json"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_TRUE(has(ran.out, "\"winner\"")) << ran.out;
  ran = ninepegs({"match", "othello", "random", "program:exit 3", "--games", "2"});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "ended with exit code 3")) << ran.err;
  ran = ninepegs({"play", "othello", "--first", "program:", "--second", "random"});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "needs a command")) << ran.err;
}

// Every sentence of the text is in the two columns and in Markdown, too; no line is longer than a
// terminal of 100 columns.
TEST(Explain, BesideAndAsMarkdown) {
  for (const char* name : {"hut-pass", "chess", "nim", "battleship"}) {
    Ran beside = ninepegs({"explain", name, "--beside"}),
        markdown = ninepegs({"explain", name, "--markdown"});
    EXPECT_EQ(beside.exitCode, 0);
    std::size_t longest = 0;
    for (std::size_t from = 0; from < beside.out.size();) {
      std::size_t to = beside.out.find('\n', from);
      longest = std::max(longest, to - from);
      from = to + 1;
    }
    EXPECT_LE(longest, 100u) << name;
    for (const char* part : {"Sides and board", "The end"}) {
      EXPECT_TRUE(has(beside.out, part)) << name;
      EXPECT_TRUE(has(markdown.out, std::string("\n## ") + part + "\n")) << name;
    }
  }
  EXPECT_TRUE(has(ninepegs({"explain", "nim", "--beside"}).out,
                  "Three heaps of 3, 5 and 7.        Sides and board"));
  EXPECT_EQ(ninepegs({"explain", "nim", "--beside", "--json"}).exitCode, 2);
}

TEST(Show, JudgesABoardInAFile) {
  Folder folder;
  std::string file = (folder / "board.csv").string();
  writeFile(file, ",,,,,,\n,,,,,,\n,,,,,,\n,,,,,,\nx,x,x,,,,\no,o,o,o,,,\n");
  Ran ran = ninepegs({"show", "connect-four", "--at-file", file});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_TRUE(has(ran.out, "Amber (o) wins: four in a line")) << ran.out;
  EXPECT_TRUE(has(ran.out, "whose turn it is was not said"));
  Ran csv = ninepegs({"show", "connect-four", "--at-file", file, "--format", "csv"});
  EXPECT_TRUE(has(csv.out, "x,x,x,,,,\no,o,o,o,,,\nSlate to move\n")) << csv.out;
  EXPECT_TRUE(has(ninepegs({"show", "nim", "--format", "text"}).out, " 1  3  5  7\n"));
  EXPECT_EQ(ninepegs({"show", "nim", "--format", "svg"}).out.substr(0, 5), "<?xml");
  EXPECT_EQ(ninepegs({"show", "nim", "--format", "json"}).out,
            ninepegs({"show", "nim", "--json"}).out);
  writeFile(file, ",,,,,,\n,,,\n");
  ran = ninepegs({"show", "connect-four", "--at-file", file});
  EXPECT_EQ(ran.exitCode, 2);
  EXPECT_TRUE(has(ran.err, "board.csv:2:1: this row has 4 fields")) << ran.err;
  EXPECT_EQ(ninepegs({"show", "nim", "--format", "xml"}).exitCode, 2);
  EXPECT_EQ(ninepegs({"show", "nim", "--format", "csv", "--json"}).exitCode, 2);
  EXPECT_EQ(ninepegs({"show", "nim", "--at-file", "no-such.csv"}).exitCode, 2);
}

}  // namespace cli_book_test
}  // namespace ninepegs::test
