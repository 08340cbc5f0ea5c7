#include "support/program.hpp"

#include <signal.h>
#include <sys/wait.h>

#include <chrono>
#include <fstream>
#include <thread>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/process.hpp"

namespace ninepegs::test {
namespace {

// Does the process catch SIGINT yet?
bool catchesInterrupt(pid_t child) {
  std::ifstream status("/proc/" + std::to_string(child) + "/status");
  std::string line;
  while (std::getline(status, line))
    if (line.rfind("SigCgt:", 0) == 0)
      return (std::stoull(line.substr(7), nullptr, 16) >> (SIGINT - 1) & 1) != 0;
  return false;
}

}  // namespace

Ran ninepegs(const std::vector<std::string>& arguments, const RunOptions& options) {
  Folder folder;
  std::ofstream(folder / "in", std::ios::binary) << options.input;
  pid_t child = started(arguments, {.in = (folder / "in").string(),
                                    .out = (folder / "out").string(),
                                    .err = (folder / "err").string(),
                                    .folder = options.folder});
  auto said = [&](const char* stream) { return readFile(folder / stream, 1 << 30); };
  if (options.interrupt) {
    for (int tries = 0; tries < 2000 && !catchesInterrupt(child); ++tries)
      std::this_thread::sleep_for(std::chrono::milliseconds(5));
    if (options.meanwhile)
      options.meanwhile([&] { return said("out") + said("err"); });
    else
      hasWorked(child, 0.2);
    kill(child, SIGINT);
  }
  int status = 0;
  waitpid(child, &status, 0);
  return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, said("out"), said("err")};
}

}  // namespace ninepegs::test
