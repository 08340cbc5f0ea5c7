// Waits for files to be saved.
#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"

namespace ninepegs::cli {

class Watch {
 public:
  explicit Watch(std::vector<std::filesystem::path> files);

  // Returns when one of the files was written, or when `stop` is set: then false. A file may come,
  // go and be replaced meanwhile, as editors do it.
  bool wait(const StopFlag& stop);

 private:
  std::string stateOfAll() const;

  std::vector<std::filesystem::path> files_;
  std::string state_;
};

}  // namespace ninepegs::cli
