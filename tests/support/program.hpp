// Runs the built program.
#pragma once

#include <filesystem>
#include <functional>
#include <string>
#include <vector>

namespace ninepegs::test {

struct Ran {
  int exitCode = -1;  // -1: it was ended by a signal
  std::string out, err;
};

struct RunOptions {
  std::string input = {};
  std::filesystem::path folder = {};  // to run in; empty: this one
  bool interrupt = false;             // send SIGINT once the program is ready to take it
  // What is done before that; it is told what the program has printed by now.
  std::function<void(const std::function<std::string()>& printed)> meanwhile = {};
};

Ran ninepegs(const std::vector<std::string>& arguments, const RunOptions& options = {});

}  // namespace ninepegs::test
