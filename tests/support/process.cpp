#include "support/process.hpp"

#include <fcntl.h>
#include <signal.h>
#include <sys/ptrace.h>
#include <sys/wait.h>
#include <unistd.h>

#include <fstream>
#include <sstream>

namespace ninepegs::test {

namespace {

pid_t startedSo(const std::vector<std::string>& arguments, const Streams& streams, bool traced) {
  pid_t child = fork();
  if (child != 0) return child;
  dup2(open(streams.in.c_str(), O_RDONLY), 0);
  dup2(open(streams.out.c_str(), O_WRONLY | O_CREAT | O_TRUNC, 0600), 1);
  dup2(open(streams.err.c_str(), O_WRONLY | O_CREAT | O_TRUNC, 0600), 2);
  if (!streams.folder.empty() && chdir(streams.folder.c_str()) != 0) _exit(99);
  std::vector<char*> words = {const_cast<char*>(NINEPEGS_PROGRAM)};
  for (const std::string& one : arguments) words.push_back(const_cast<char*>(one.c_str()));
  words.push_back(nullptr);
  if (traced) ptrace(PTRACE_TRACEME, 0, nullptr, nullptr);
  execv(NINEPEGS_PROGRAM, words.data());
  _exit(98);
}

}  // namespace

pid_t started(const std::vector<std::string>& arguments, const Streams& streams) {
  return startedSo(arguments, streams, false);
}

double usedBy(pid_t child, char& state) {
  std::ifstream in("/proc/" + std::to_string(child) + "/stat");
  std::string all;
  std::getline(in, all);
  std::istringstream rest(all.substr(all.rfind(')') + 2));
  std::string skipped;
  rest >> state;
  for (int i = 0; i < 10; ++i) rest >> skipped;
  long user = 0, system = 0;
  rest >> user >> system;
  return static_cast<double>(user + system) / static_cast<double>(sysconf(_SC_CLK_TCK));
}

bool hasWorked(pid_t child, double seconds) {
  char state = ' ';
  while (usedBy(child, state) < seconds && state != 'Z') usleep(2000);
  return state != 'Z';
}

int killedAtCall(const std::vector<std::string>& arguments, int call) {
  pid_t child = startedSo(arguments, {}, true);
  int status = 0, made = 0;
  bool inside = false;  // a call: the next stop is its end
  waitpid(child, &status, 0);
  ptrace(PTRACE_SETOPTIONS, child, nullptr, PTRACE_O_TRACESYSGOOD | PTRACE_O_EXITKILL);
  while (WIFSTOPPED(status)) {
    bool atCall = WSTOPSIG(status) == (SIGTRAP | 0x80);
    if (atCall) {
      if (!inside && ++made == call) kill(child, SIGKILL);
      inside = !inside;
    }
    // A signal that is not the tracer's own is handed on.
    long signal = atCall || WSTOPSIG(status) == SIGTRAP ? 0 : WSTOPSIG(status);
    ptrace(PTRACE_SYSCALL, child, nullptr, signal);
    if (waitpid(child, &status, 0) < 0) break;
  }
  return made;
}

}  // namespace ninepegs::test
