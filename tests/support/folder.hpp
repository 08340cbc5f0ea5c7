// A temporary folder that goes away with its contents.
#pragma once

#include <stdlib.h>

#include <filesystem>
#include <string>

namespace ninepegs::test {

class Folder {
 public:
  Folder() {
    std::string name = (std::filesystem::temp_directory_path() / "ninepegs-test-XXXXXX").string();
    path_ = mkdtemp(name.data());
  }
  ~Folder() {
    std::error_code ignored;
    std::filesystem::remove_all(path_, ignored);
  }
  Folder(const Folder&) = delete;
  Folder& operator=(const Folder&) = delete;
  const std::filesystem::path& path() const { return path_; }
  std::filesystem::path operator/(const std::string& name) const { return path_ / name; }

 private:
  std::filesystem::path path_;
};

}  // namespace ninepegs::test
