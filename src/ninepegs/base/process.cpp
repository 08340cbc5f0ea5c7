#include "ninepegs/base/process.hpp"

#include <fcntl.h>
#include <poll.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cerrno>
#include <chrono>
#include <csignal>

#include "ninepegs/base/pipe_write.hpp"

extern char** environ;

namespace ninepegs {
namespace {

struct Pipe {
  int ends[2] = {-1, -1};
  Pipe() {
    if (pipe2(ends, O_CLOEXEC) != 0) ends[0] = ends[1] = -1;
  }
  ~Pipe() {
    closeEnd(0);
    closeEnd(1);
  }
  Pipe(const Pipe&) = delete;
  Pipe& operator=(const Pipe&) = delete;
  void closeEnd(int end) {
    if (ends[end] >= 0) close(ends[end]);
    ends[end] = -1;
  }
  bool good() const { return ends[0] >= 0; }
};

// Starts it with the pipes as standard input and output; 0 or an error number.
int start(const std::vector<std::string>& words, const Pipe& in, const Pipe& out, pid_t& child) {
  posix_spawn_file_actions_t actions;
  posix_spawn_file_actions_init(&actions);
  posix_spawn_file_actions_adddup2(&actions, in.ends[0], STDIN_FILENO);
  posix_spawn_file_actions_adddup2(&actions, out.ends[1], STDOUT_FILENO);
  posix_spawn_file_actions_addopen(&actions, STDERR_FILENO, "/dev/null", O_WRONLY, 0);
  posix_spawnattr_t how;
  posix_spawnattr_init(&how);
  sigset_t defaults;
  sigemptyset(&defaults);
  for (int signal : {SIGPIPE, SIGINT, SIGTERM}) sigaddset(&defaults, signal);
  posix_spawnattr_setsigdefault(&how, &defaults);
  posix_spawnattr_setpgroup(&how, 0);
  posix_spawnattr_setflags(&how, POSIX_SPAWN_SETPGROUP | POSIX_SPAWN_SETSIGDEF);
  std::vector<char*> arguments;
  for (const std::string& word : words) arguments.push_back(const_cast<char*>(word.c_str()));
  arguments.push_back(nullptr);
  int error = posix_spawnp(&child, arguments[0], &actions, &how, arguments.data(), environ);
  posix_spawnattr_destroy(&how);
  posix_spawn_file_actions_destroy(&actions);
  return error;
}

}  // namespace

Finished runProcess(const std::vector<std::string>& words, std::string_view input,
                    const ProcessLimits& limits) {
  Finished done;
  Pipe in, out;
  if (!in.good() || !out.good()) return done;
  pid_t child = 0;
  if (int error = start(words, in, out, child); error != 0) {
    done.how = error == ENOENT ? Finished::How::notFound : Finished::How::failed;
    return done;
  }
  in.closeEnd(0);
  out.closeEnd(1);
  fcntl(in.ends[1], F_SETFL, O_NONBLOCK);
  fcntl(out.ends[0], F_SETFL, O_NONBLOCK);
  auto begun = std::chrono::steady_clock::now();
  done.how = Finished::How::exited;
  while (true) {
    if (input.empty()) in.closeEnd(1);
    std::chrono::duration<double> spent = std::chrono::steady_clock::now() - begun;
    if (spent.count() > limits.seconds) done.how = Finished::How::timedOut;
    if (wantsStop(limits.stop)) done.how = Finished::How::stopped;
    if (done.output.size() > limits.outputBytes) done.how = Finished::How::failed;
    if (done.how != Finished::How::exited) break;
    pollfd waits[2] = {{out.ends[0], POLLIN, 0}, {in.ends[1], POLLOUT, 0}};  // -1 is passed over
    if (poll(waits, 2, 50) < 0 && errno != EINTR) break;
    if (waits[1].revents != 0) {
      ssize_t sent = writeToPipe(in.ends[1], input.data(), input.size());
      if (sent > 0)
        input.remove_prefix(static_cast<std::size_t>(sent));
      else if (errno != EAGAIN && errno != EINTR)
        input = {};  // it reads no more
    }
    if (waits[0].revents == 0) continue;
    char buffer[1 << 16];
    ssize_t got = read(out.ends[0], buffer, sizeof buffer);
    if (got > 0) done.output.append(buffer, static_cast<std::size_t>(got));
    if (got == 0 || (got < 0 && errno != EAGAIN && errno != EINTR)) break;
  }
  // It has closed its output; it may still run, and may have started others.
  int status = 0;
  pid_t ended = 0;
  while (done.how == Finished::How::exited && (ended = waitpid(child, &status, WNOHANG)) == 0) {
    std::chrono::duration<double> spent = std::chrono::steady_clock::now() - begun;
    if (spent.count() > limits.seconds) done.how = Finished::How::timedOut;
    if (wantsStop(limits.stop)) done.how = Finished::How::stopped;
    poll(nullptr, 0, 5);
  }
  if (done.how != Finished::How::exited) {
    kill(-child, SIGKILL);
    while (waitpid(child, &status, 0) < 0 && errno == EINTR) {
    }
    return done;
  }
  if (ended == child && WIFEXITED(status))
    done.exitCode = WEXITSTATUS(status);
  else
    done.how = Finished::How::failed;
  return done;
}

}  // namespace ninepegs
