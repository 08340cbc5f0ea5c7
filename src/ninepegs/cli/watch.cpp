#include "ninepegs/cli/watch.hpp"

#include <fmt/format.h>

#include <chrono>
#include <thread>

namespace ninepegs::cli {

constexpr std::chrono::milliseconds pause(100);

Watch::Watch(std::vector<std::filesystem::path> files) : files_(std::move(files)) {
  state_ = stateOfAll();
}

std::string Watch::stateOfAll() const {
  std::string out;
  for (const std::filesystem::path& file : files_) {
    std::error_code error;
    auto written = std::filesystem::last_write_time(file, error);
    if (error) {
      out += "none;";
      continue;
    }
    auto size = std::filesystem::file_size(file, error);
    out += fmt::format("{} {};", written.time_since_epoch().count(), error ? 0 : size);
  }
  return out;
}

bool Watch::wait(const StopFlag& stop) {
  while (!wantsStop(&stop)) {
    std::string now = stateOfAll();
    if (now != state_) {
      // Until it is at rest: an editor may write in several steps.
      do {
        state_ = now;
        std::this_thread::sleep_for(pause);
        now = stateOfAll();
      } while (now != state_ && !wantsStop(&stop));
      return !wantsStop(&stop);
    }
    std::this_thread::sleep_for(pause);
  }
  return false;
}

}  // namespace ninepegs::cli
