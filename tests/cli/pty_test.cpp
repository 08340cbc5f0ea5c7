// `play` on a terminal: driven through a pseudo-terminal, as a person sits at it.
#include <fcntl.h>
#include <gtest/gtest.h>
#include <poll.h>
#include <pty.h>
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <fstream>
#include <string>
#include <vector>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"

namespace ninepegs::test {
namespace pty_test {

class Terminal {
 public:
  Terminal(std::vector<std::string> words, unsigned short columns = 80, unsigned short rows = 24) {
    winsize size{rows, columns, 0, 0};
    pid_ = forkpty(&end_, nullptr, nullptr, &size);
    if (pid_ == 0) {
      setenv("TERM", "xterm", 1);
      setenv("NO_COLOR", "1", 1);
      words.insert(words.begin(), NINEPEGS_PROGRAM);
      std::vector<char*> arguments;
      for (std::string& word : words) arguments.push_back(word.data());
      arguments.push_back(nullptr);
      execv(NINEPEGS_PROGRAM, arguments.data());
      _exit(127);
    }
  }
  ~Terminal() {
    if (pid_ > 0) kill(pid_, SIGKILL), waitpid(pid_, nullptr, 0);
    close(end_);
  }

  void type(const std::string& line) {
    std::string sent = line + "\r";
    EXPECT_EQ(write(end_, sent.data(), sent.size()), static_cast<ssize_t>(sent.size()));
  }
  void press(char key) { EXPECT_EQ(write(end_, &key, 1), 1); }
  // Waits for a text behind what was seen before; what came until then.
  std::string until(const std::string& text) {
    auto begun = std::chrono::steady_clock::now();
    while (std::chrono::steady_clock::now() - begun < std::chrono::seconds(20)) {
      if (std::size_t at = seen_.find(text); at != seen_.npos) {
        std::string out = seen_.substr(0, at + text.size());
        seen_.erase(0, at + text.size());
        return out;
      }
      if (!more()) break;
    }
    ADD_FAILURE() << "\"" << text << "\" did not come; but:\n" << seen_;
    return seen_;
  }
  int exitCode() {
    while (more()) {
    }
    int status = 0;
    waitpid(pid_, &status, 0);
    pid_ = -1;
    return WIFEXITED(status) ? WEXITSTATUS(status) : 256 + WTERMSIG(status);
  }

 private:
  bool more() {
    pollfd wait{end_, POLLIN, 0};
    int ready = poll(&wait, 1, 5000);
    if (ready <= 0) return false;
    char bytes[4096];
    ssize_t got = read(end_, bytes, sizeof bytes);
    if (got <= 0) return false;
    seen_.append(bytes, static_cast<std::size_t>(got));
    return true;
  }

  pid_t pid_ = -1;
  int end_ = -1;
  std::string seen_;
};

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

// Pick a piece, see where it may go, play there, go back three, branch, look at the lines, leave,
// and go on another day.
TEST(OnATerminal, PickBranchKeepAndGoOn) {
  Folder folder;
  std::string file = (folder / "game.pgn").string();
  {
    Terminal play({"play", "chess", "--second", "human", "--resume", file});
    play.until("White> ");
    play.type("b1");
    std::string board = play.until("from b1: b1-a3, b1-c3");
    EXPECT_TRUE(has(board, "<N>")) << board;
    EXPECT_TRUE(has(board, "(.) .  .  .  .  .")) << board;
    play.type("c3");
    EXPECT_TRUE(has(play.until("Black> "), "last move: White b1-c3"));
    play.type("e7e5");
    play.until("White> ");
    play.type("Nf3");
    play.until("Black> ");
    play.type("back 3");
    play.until("ply 0 of 3");
    play.until("White> ");
    play.type("d2d4");
    play.until("Black> ");
    play.type("lines");
    std::string lines = play.until("left, 1: b1-c3 e7-e5 g1-f3");
    EXPECT_TRUE(has(lines, "this line, at ply 1: d2-d4")) << lines;
    play.until("Black> ");
    play.type("flip");
    EXPECT_TRUE(has(play.until("Black> "), "h  g  f  e  d  c  b  a"));
    play.type("quit");
    EXPECT_EQ(play.exitCode(), 0);
  }
  EXPECT_TRUE(has(readFile(file, 10'000), "1. d4 ( 1. Nc3 e5 2. Nf3 ) *"));
  Terminal play({"play", "chess", "--second", "human", "--resume", file});
  EXPECT_TRUE(has(play.until("Black> "), "last move: White d2-d4"));
  play.type("lines");
  play.until("left, 1: b1-c3 e7-e5 g1-f3");
  play.until("Black> ");
  play.type("quit");
  EXPECT_EQ(play.exitCode(), 0);
}

// Ctrl-C ends it at once, and nothing is lost.
TEST(OnATerminal, CtrlCKeepsTheGame) {
  Folder folder;
  std::string file = (folder / "game.txt").string();
  Terminal play({"play", "connect-four", "--second", "human", "--resume", file});
  play.until("Amber> ");
  play.type("d");
  play.until("Slate> ");
  play.type("c");
  play.until("Amber> ");
  play.press('\x03');
  EXPECT_EQ(play.exitCode(), 130);
  EXPECT_TRUE(has(readFile(file, 10'000), "1. d c *")) << readFile(file, 10'000);
}

TEST(OnATerminal, OfTwentyColumnsShowsAllTheSame) {
  Terminal play({"play", "tic-tac-toe", "--second", "human"}, 20);
  play.until("Cross> ");
  play.type("5");
  play.until("Nought> ");
  play.type("quit");
  EXPECT_EQ(play.exitCode(), 0);
}

// The board stays at the top, with what was said since the last one below it.
TEST(OnATerminal, TheBoardStaysInPlace) {
  Terminal play({"play", "tic-tac-toe", "--second", "random", "--seed", "3"});
  std::string first = play.until("Cross> ");
  EXPECT_TRUE(has(first, "\x1b[H\x1b[2J\r\n")) << first;
  EXPECT_LT(first.find("\x1b[H"), first.rfind("Tic-tac-toe. Cross: human"));  // said before it
  play.type("5");
  std::string second = play.until("Cross> ");
  std::string last = second.substr(second.rfind("\x1b[H"));
  EXPECT_TRUE(has(last, "last move: Nought")) << last;
  EXPECT_LT(last.find("last move"), last.find("Nought plays")) << last;
  play.type("quit");
  EXPECT_EQ(play.exitCode(), 0);
  Terminal plain({"play", "tic-tac-toe", "--second", "human", "--plain"});
  EXPECT_FALSE(has(plain.until("Cross> "), "\x1b[H"));
  plain.type("quit");
  EXPECT_EQ(plain.exitCode(), 0);
}

// Where there is no room for it, it scrolls.
TEST(OnATerminal, ALargeBoardScrolls) {
  Terminal play({"play", "five-in-a-row", "--second", "human"}, 80, 16);
  EXPECT_FALSE(has(play.until("Black> "), "\x1b[H"));
  play.type("quit");
  EXPECT_EQ(play.exitCode(), 0);
}

TEST(OnATerminal, TabCompletesMoves) {
  Terminal play({"play", "chess", "--second", "human"});
  play.until("White> ");
  play.press('g');
  play.press('1');
  play.press('\t');
  play.press('\t');
  std::string listed = play.until("g1-f3, g1-h3");
  EXPECT_TRUE(has(listed, "g1-"));
  play.press('h');
  play.press('\t');
  play.type("");
  EXPECT_TRUE(has(play.until("Black> "), "last move: White g1-h3"));
  play.type("quit");
  EXPECT_EQ(play.exitCode(), 0);
}

TEST(OnATerminal, AColumnsNumberNamesIt) {
  Terminal play({"play", "connect-four", "--second", "human"});
  play.until("Amber> ");
  play.type("4");
  EXPECT_TRUE(has(play.until("Slate> "), "last move: Amber d"));
  play.type("8");
  EXPECT_TRUE(has(play.until("Slate> "), "8"));
  play.type("quit");
  EXPECT_EQ(play.exitCode(), 0);
}

// Ctrl-C while the computer thinks ends only that.
TEST(OnATerminal, CtrlCEndsTheThinking) {
  Terminal play({"play", "chess", "--second", "search:time=600", "--plain"});
  play.until("White> ");
  play.type("e2-e4");
  play.until("Black thinks: 3 plies ahead");
  play.press('\x03');
  std::string said = play.until("White> ");
  EXPECT_TRUE(has(said, "broken off: the best so far")) << said;
  EXPECT_TRUE(has(said, "Black plays")) << said;
  play.type("quit");
  EXPECT_EQ(play.exitCode(), 0);
}

}  // namespace pty_test
}  // namespace ninepegs::test
