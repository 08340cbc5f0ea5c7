// Reading inputs whole and writing results whole: a file is either the old one or the complete new
// one, never half of it.
#pragma once

#include <cstddef>
#include <filesystem>
#include <string>
#include <string_view>

namespace ninepegs {

// The file's bytes. Throws BadInput if it is missing, no plain file, unreadable or over the limit.
std::string readFile(const std::filesystem::path& path, std::size_t limitBytes);

// Writes to a temporary file beside `path` and renames it. Throws BadInput if that cannot be done.
void writeFile(const std::filesystem::path& path, std::string_view bytes);

// A temporary name beside `path` for a writer that needs a file's name; `keep` renames it to
// `path`, and a file that was not kept is removed.
class PendingFile {
 public:
  explicit PendingFile(std::filesystem::path path);
  ~PendingFile();
  PendingFile(const PendingFile&) = delete;
  PendingFile& operator=(const PendingFile&) = delete;
  const std::filesystem::path& temporary() const { return temporary_; }
  void keep();

 private:
  std::filesystem::path path_, temporary_;
};

// Makes the folder, with those above it. Throws BadInput if it cannot be made or written to.
void makeFolder(const std::filesystem::path& path);

}  // namespace ninepegs
