// Processes of the built program: started, waited for by the processor time that they take (a clock
// would be wrong on a busy machine), ended at a moment that is the same each time.
#pragma once

#include <sys/types.h>

#include <filesystem>
#include <string>
#include <vector>

namespace ninepegs::test {

struct Streams {
  std::string in = "/dev/null", out = "/dev/null", err = "/dev/null";  // files
  std::filesystem::path folder = {};                                   // to run in; empty: this one
};

// Starts the program; the caller waits for it.
pid_t started(const std::vector<std::string>& arguments, const Streams& streams = {});

// Seconds of processor time that a process has taken, in hundredths, and the letter of its state.
double usedBy(pid_t child, char& state);

// Comes back when the process has taken so much processor time. False: it ended before.
bool hasWorked(pid_t child, double seconds);

// Runs the program and kills it when it is about to make its system call of this number, counted
// from 1. Comes back with how many it made, which is less where it ended before.
int killedAtCall(const std::vector<std::string>& arguments, int call);

}  // namespace ninepegs::test
