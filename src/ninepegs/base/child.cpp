#include "ninepegs/base/child.hpp"

#include <fcntl.h>
#include <poll.h>
#include <sys/prctl.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cerrno>
#include <chrono>
#include <csignal>

#include "ninepegs/base/pipe_write.hpp"

namespace ninepegs {
namespace {

constexpr std::size_t errorsKept = 2000;

// Runs in the child between fork and exec: nothing but system calls.
[[noreturn]] void become(const char* command, const int (&ends)[3], pid_t parent) {
  setpgid(0, 0);
  prctl(PR_SET_PDEATHSIG, SIGKILL);
  if (getppid() != parent) _exit(127);
  for (int i = 0; i < 3; ++i)
    if (dup2(ends[i], i) < 0) _exit(127);
  for (int signal : {SIGPIPE, SIGINT, SIGTERM}) std::signal(signal, SIG_DFL);
  execl("/bin/sh", "sh", "-c", command, static_cast<char*>(nullptr));
  _exit(127);
}

}  // namespace

Child::Child(const std::string& command, const ChildLimits& limits) : limits_(limits) {
  int in[2], out[2], err[2];
  if (pipe2(in, O_CLOEXEC) != 0) return;
  if (pipe2(out, O_CLOEXEC) != 0) {
    ::close(in[0]), ::close(in[1]);
    return;
  }
  if (pipe2(err, O_CLOEXEC) != 0) {
    for (int end : {in[0], in[1], out[0], out[1]}) ::close(end);
    return;
  }
  const int ends[3] = {in[0], out[1], err[1]};
  pid_t parent = getpid();
  pid_ = fork();
  if (pid_ == 0) become(command.c_str(), ends, parent);
  for (int end : ends) ::close(end);
  in_ = in[1], out_ = out[0], err_ = err[0];
  if (pid_ < 0) {
    close();
    return;
  }
  setpgid(pid_, pid_);  // here too: whichever comes first
  for (int end : {in_, out_, err_}) fcntl(end, F_SETFL, O_NONBLOCK);
}

void Child::close() {
  for (int* end : {&in_, &out_, &err_}) {
    if (*end >= 0) ::close(*end);
    *end = -1;
  }
}

Child::~Child() {
  close();
  if (pid_ <= 0) return;
  kill(-pid_, SIGKILL);
  while (waitpid(pid_, nullptr, 0) < 0 && errno == EINTR) {
  }
}

void Child::readErrors() {
  char buffer[4096];
  ssize_t got = read(err_, buffer, sizeof buffer);
  if (got > 0) {
    errors_.append(buffer, static_cast<std::size_t>(got));
    if (errors_.size() > errorsKept) errors_.erase(0, errors_.size() - errorsKept);
  } else if (got == 0 || (errno != EAGAIN && errno != EINTR)) {
    ::close(err_);
    err_ = -1;
  }
}

Child::Came Child::ask(std::string_view line, std::string& answer) {
  return exchange(std::string(line) + '\n', answer);
}

Child::Came Child::next(std::string& answer) {
  return exchange("", answer);
}

Child::Came Child::exchange(std::string_view sent, std::string& answer) {
  if (pid_ <= 0) return Came::end;
  std::string_view left = sent;
  auto begun = std::chrono::steady_clock::now();
  std::size_t looked = 0;
  while (true) {
    std::size_t end = left.empty() ? pending_.find('\n', looked) : std::string::npos;
    if (end != std::string::npos) {
      answer.assign(pending_, 0, end);
      pending_.erase(0, end + 1);
      return Came::line;
    }
    looked = left.empty() ? pending_.size() : 0;
    if (pending_.size() > limits_.lineBytes) return Came::tooMuch;
    if (wantsStop(limits_.stop)) return Came::stopped;
    std::chrono::duration<double> spent = std::chrono::steady_clock::now() - begun;
    if (spent.count() > limits_.seconds) return Came::nothing;
    pollfd waits[3] = {{out_, POLLIN, 0}, {left.empty() ? -1 : in_, POLLOUT, 0}, {err_, POLLIN, 0}};
    if (poll(waits, 3, 50) < 0) {
      if (errno != EINTR) return Came::end;
      continue;
    }
    if (waits[1].revents != 0) {
      ssize_t wrote = writeToPipe(in_, left.data(), left.size());
      if (wrote > 0)
        left.remove_prefix(static_cast<std::size_t>(wrote));
      else if (errno != EAGAIN && errno != EINTR)
        left = {};  // it reads no more; what it still says is taken
    }
    if (waits[2].revents != 0) readErrors();
    if (waits[0].revents == 0) continue;
    char buffer[1 << 16];
    ssize_t got = read(out_, buffer, sizeof buffer);
    if (got > 0) pending_.append(buffer, static_cast<std::size_t>(got));
    if (got == 0 || (got < 0 && errno != EAGAIN && errno != EINTR)) return Came::end;
  }
}

std::string Child::howItEnded() {
  if (pid_ <= 0) return "could not be started";
  for (int i = 0; err_ >= 0 && i < 60; ++i) {  // its last words, until it has closed them
    pollfd wait = {err_, POLLIN, 0};
    if (poll(&wait, 1, 50) > 0) readErrors();
  }
  int status = 0;
  for (int i = 0; i < 100; ++i) {
    pid_t ended = waitpid(pid_, &status, WNOHANG);
    if (ended == pid_) {
      kill(-pid_, SIGKILL);  // what it started itself
      pid_ = -1;
      if (WIFSIGNALED(status)) return "was ended by signal " + std::to_string(WTERMSIG(status));
      exitCode_ = WEXITSTATUS(status);
      return "ended with exit code " + std::to_string(exitCode_);
    }
    poll(nullptr, 0, 10);
  }
  return "closed its output";
}

}  // namespace ninepegs
