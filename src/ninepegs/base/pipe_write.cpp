#include "ninepegs/base/pipe_write.hpp"

#include <unistd.h>

#include <cerrno>
#include <csignal>
#include <ctime>

namespace ninepegs {

// The signal goes to the thread that writes: it is held back meanwhile, and taken if it came.
ssize_t writeToPipe(int end, const char* data, std::size_t size) {
  sigset_t signal, before, waiting;
  sigemptyset(&signal);
  sigaddset(&signal, SIGPIPE);
  sigemptyset(&waiting);
  sigpending(&waiting);
  bool waited = sigismember(&waiting, SIGPIPE) == 1;
  pthread_sigmask(SIG_BLOCK, &signal, &before);
  ssize_t wrote = write(end, data, size);
  int error = errno;
  if (wrote < 0 && error == EPIPE && !waited) {
    const timespec none = {};
    while (sigtimedwait(&signal, nullptr, &none) < 0 && errno == EINTR) {
    }
  }
  pthread_sigmask(SIG_SETMASK, &before, nullptr);
  errno = error;
  return wrote;
}

}  // namespace ninepegs
