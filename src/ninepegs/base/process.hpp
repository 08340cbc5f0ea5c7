// Runs another program on a text and takes what it prints.
//
//   Finished done = runProcess({"gnuplot", "-d"}, script, {.seconds = 20});
//   if (done.exitCode == 0) text = done.output;
//
// The program runs in a process group of its own, so that Ctrl-C on the terminal does not reach it,
// and the whole group is killed when its time is over. Nothing goes through a shell.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/base/stop.hpp"

namespace ninepegs {

struct ProcessLimits {
  double seconds = 20;                 // then it is killed
  std::size_t outputBytes = 1u << 26;  // more than this is no result
  const StopFlag* stop = nullptr;      // killed when set
};

struct Finished {
  enum class How { exited, notFound, failed, timedOut, stopped } how = How::failed;
  int exitCode = -1;   // if it exited
  std::string output;  // what it printed to standard output; standard error is dropped
};

// `words` are the program, looked for in PATH, and its arguments. Blocks until it has ended.
Finished runProcess(const std::vector<std::string>& words, std::string_view input,
                    const ProcessLimits& limits);

}  // namespace ninepegs
