#include "support/program.hpp"

#include <fcntl.h>
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <fstream>
#include <sstream>
#include <thread>

#include "support/folder.hpp"

namespace ninepegs::test {
namespace {

std::string contents(const std::filesystem::path& path) {
  std::ifstream in(path, std::ios::binary);
  std::ostringstream text;
  text << in.rdbuf();
  return text.str();
}

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
  pid_t child = fork();
  if (child == 0) {
    int in = open((folder / "in").c_str(), O_RDONLY);
    int out = open((folder / "out").c_str(), O_WRONLY | O_CREAT, 0600);
    int err = open((folder / "err").c_str(), O_WRONLY | O_CREAT, 0600);
    dup2(in, 0);
    dup2(out, 1);
    dup2(err, 2);
    if (!options.folder.empty() && chdir(options.folder.c_str()) != 0) _exit(99);
    std::vector<char*> words = {const_cast<char*>(NINEPEGS_PROGRAM)};
    for (const std::string& argument : arguments)
      words.push_back(const_cast<char*>(argument.c_str()));
    words.push_back(nullptr);
    execv(NINEPEGS_PROGRAM, words.data());
    _exit(98);
  }
  if (options.interrupt) {
    for (int tries = 0; tries < 2000 && !catchesInterrupt(child); ++tries)
      std::this_thread::sleep_for(std::chrono::milliseconds(5));
    if (options.meanwhile)
      options.meanwhile([&] { return contents(folder / "out") + contents(folder / "err"); });
    else
      std::this_thread::sleep_for(std::chrono::milliseconds(500));  // let it begin its work
    kill(child, SIGINT);
  }
  int status = 0;
  waitpid(child, &status, 0);
  return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, contents(folder / "out"),
          contents(folder / "err")};
}

}  // namespace ninepegs::test
