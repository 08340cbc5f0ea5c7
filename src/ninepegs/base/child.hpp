// Another program that runs beside this one and is asked line by line.
//
//   Child child("python3 my_game.py", {});
//   std::string answer;
//   if (child.ask("{}", answer) == Child::Came::line) texts.push_back(answer);
//
// The command goes to /bin/sh, since a person wrote it. It runs in a process group of its own,
// which is killed when the child is no longer needed, and the kernel ends it should this program be
// killed. It belongs to the thread that made it.
#pragma once

#include <sys/types.h>

#include <cstddef>
#include <string>
#include <string_view>

#include "ninepegs/base/stop.hpp"

namespace ninepegs {

struct ChildLimits {
  double seconds = 5;                // to answer one line
  std::size_t lineBytes = 1u << 20;  // an answer is no longer
  const StopFlag* stop = nullptr;    // asked while waiting
};

class Child {
 public:
  Child(const std::string& command, const ChildLimits& limits);
  ~Child();
  Child(const Child&) = delete;
  Child& operator=(const Child&) = delete;

  enum class Came { line, end, nothing, tooMuch, stopped };
  // Sends a line and waits for the next one. `end`: it has closed its output; `nothing`: not within
  // the time; `tooMuch`: a line longer than the limit. After any but `line` it is of no more use.
  Came ask(std::string_view line, std::string& answer);
  // Waits for a further line, without sending one.
  Came next(std::string& answer);

  // How it ended, after Came::end: "ended with exit code 3", "was ended by signal 11".
  std::string howItEnded();
  int exitCode() const { return exitCode_; }  // -1: unknown, or by a signal
  // The last of what it wrote to standard error.
  const std::string& errors() const { return errors_; }

 private:
  Came exchange(std::string_view sent, std::string& answer);
  void readErrors();
  void close();

  ChildLimits limits_;
  pid_t pid_ = -1;
  int in_ = -1, out_ = -1, err_ = -1;  // of the child
  int exitCode_ = -1;
  std::string pending_, errors_;
};

}  // namespace ninepegs
