#include "soak/workers.hpp"

#include <fmt/format.h>
#include <signal.h>
#include <sys/mman.h>
#include <sys/wait.h>
#include <time.h>
#include <unistd.h>

#include <array>
#include <atomic>
#include <chrono>
#include <cstdio>
#include <cstring>
#include <new>
#include <thread>
#include <vector>

namespace ninepegs::soak {
namespace {

constexpr int mostProcesses = 64;
constexpr std::uint64_t idle = ~0ull;

// Milliseconds that a process has worked (0: this one). On a busy machine that is less than what
// has passed.
std::int64_t worked(pid_t pid = 0) {
  clockid_t clock = CLOCK_PROCESS_CPUTIME_ID;
  timespec time{};
  if (pid != 0 && clock_getcpuclockid(pid, &clock) != 0) return 0;
  if (clock_gettime(clock, &time) != 0) return 0;
  return std::int64_t{time.tv_sec} * 1000 + time.tv_nsec / 1'000'000;
}

// What all processes see.
struct Shared {
  std::atomic<std::uint64_t> next{0};
  std::atomic<bool> stop{false};
  struct Slot {
    std::atomic<std::uint64_t> number{idle};
    std::atomic<std::int64_t> since{0};
  };
  std::array<Slot, mostProcesses> slots;
};

Shared* shared = nullptr;
Shared::Slot* own = nullptr;  // in a process that works

void onSignal(int) {
  if (shared->stop.exchange(true)) _exit(130);
}

std::string ending(int status) {
  if (WIFSIGNALED(status)) return fmt::format("crashed: {}", strsignal(WTERMSIG(status)));
  return fmt::format("crashed: ended with {}", WEXITSTATUS(status));
}

void runChild(int index, std::FILE* out, std::uint64_t end,
              const std::function<void(std::uint64_t, Tally&)>& one) {
  signal(SIGINT, SIG_IGN);
  signal(SIGTERM, SIG_DFL);
  std::map<std::string, std::uint64_t> counts;
  Tally tally(counts);
  Shared::Slot& slot = shared->slots[static_cast<std::size_t>(index)];
  own = &slot;
  while (!shared->stop) {
    std::uint64_t number = shared->next.fetch_add(1);
    if (number >= end) break;
    slot.since = worked();
    slot.number = number;
    one(number, tally);
    slot.number = idle;
  }
  for (const auto& [name, many] : counts) fmt::print(out, "{}\t{}\n", name, many);
  std::fflush(out);
}

}  // namespace

Worked work(const WorkOptions& options, const std::function<void(std::uint64_t, Tally&)>& one,
            const std::function<void(std::uint64_t, const std::string&)>& found) {
  void* memory =
      mmap(nullptr, sizeof(Shared), PROT_READ | PROT_WRITE, MAP_SHARED | MAP_ANONYMOUS, -1, 0);
  shared = new (memory) Shared;
  shared->next = options.from;
  std::uint64_t end = options.from + options.pieces;
  signal(SIGINT, onSignal);
  signal(SIGTERM, onSignal);
  int processes = std::min(options.processes, mostProcesses);
  struct Child {
    pid_t pid = 0;
    std::FILE* out = nullptr;
    bool hung = false;
  };
  std::vector<Child> children(static_cast<std::size_t>(processes));
  auto begin = [&](int index) {
    Child& child = children[static_cast<std::size_t>(index)];
    if (child.out == nullptr) child.out = std::tmpfile();
    shared->slots[static_cast<std::size_t>(index)].number = idle;
    child.hung = false;
    std::fflush(stdout);
    child.pid = fork();
    if (child.pid == 0) {
      runChild(index, child.out, end, one);
      std::fflush(stdout);
      _exit(0);
    }
  };
  for (int index = 0; index < processes; ++index) begin(index);
  int running = processes;
  while (running > 0) {
    std::this_thread::sleep_for(std::chrono::milliseconds(20));
    for (int index = 0; index < processes; ++index) {
      Child& child = children[static_cast<std::size_t>(index)];
      if (child.pid == 0) continue;
      Shared::Slot& slot = shared->slots[static_cast<std::size_t>(index)];
      int status = 0;
      if (waitpid(child.pid, &status, WNOHANG) == child.pid) {
        std::uint64_t number = slot.number;
        bool crashed = number != idle;
        if (crashed) found(number, child.hung ? "hangs" : ending(status));
        child.pid = 0;
        if (crashed && !shared->stop)
          begin(index);
        else
          --running;
      } else if (slot.number != idle && !child.hung &&
                 static_cast<double>(worked(child.pid) - slot.since) > options.hang * 1000) {
        child.hung = true;
        kill(child.pid, SIGKILL);
      }
    }
  }
  Worked out;
  for (Child& child : children) {
    if (child.out == nullptr) continue;
    std::rewind(child.out);
    char line[1024];
    while (std::fgets(line, sizeof line, child.out) != nullptr)
      if (char* tab = std::strchr(line, '\t'))
        out.counts[std::string(line, tab)] += std::strtoull(tab + 1, nullptr, 10);
    std::fclose(child.out);
  }
  out.next = std::min<std::uint64_t>(shared->next, end);
  out.stopped = shared->stop;
  munmap(memory, sizeof(Shared));
  shared = nullptr;
  return out;
}

void takeTime() {
  if (own != nullptr) own->since = worked() + 1'000'000'000;
}

void stopWork() {
  shared->stop = true;
}

std::string apart(const std::function<std::string()>& doIt, double hang) {
  int ends[2];
  if (pipe(ends) != 0) return "no pipe";
  std::fflush(stdout);
  pid_t child = fork();
  if (child == 0) {
    close(ends[0]);
    if (std::FILE* none = std::freopen("/dev/null", "w", stderr); none == nullptr) _exit(1);
    alarm(static_cast<unsigned>(hang) + 1);
    std::string text = doIt();
    std::size_t done = 0;
    while (done < text.size()) {
      ssize_t wrote = write(ends[1], text.data() + done, text.size() - done);
      if (wrote <= 0) break;
      done += static_cast<std::size_t>(wrote);
    }
    _exit(0);
  }
  close(ends[1]);
  std::string text;
  char part[4096];
  for (ssize_t got = 0; (got = read(ends[0], part, sizeof part)) > 0;)
    text.append(part, static_cast<std::size_t>(got));
  close(ends[0]);
  int status = 0;
  waitpid(child, &status, 0);
  if (WIFSIGNALED(status) && WTERMSIG(status) == SIGALRM) return "hangs";
  if (!WIFEXITED(status) || WEXITSTATUS(status) != 0) return ending(status);
  return text;
}

}  // namespace ninepegs::soak
