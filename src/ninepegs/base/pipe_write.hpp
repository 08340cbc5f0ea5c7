// Writing to a pipe whose reader may be gone.
//
//   ssize_t wrote = writeToPipe(1, text.data(), text.size());
#pragma once

#include <sys/types.h>

#include <cstddef>

namespace ninepegs {

// As write(2), but a reader that is gone is an error, EPIPE, and never the signal SIGPIPE, whatever
// the process does with that signal. Any thread may call it.
ssize_t writeToPipe(int end, const char* data, std::size_t size);

}  // namespace ninepegs
