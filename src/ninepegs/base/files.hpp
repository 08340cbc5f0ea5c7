// Reading inputs whole and writing results whole: a file is either the old one or the complete new
// one, never half of it, and what a killed run left behind is removed by the next one.
// Where nothing is wrong with the name or the file, and the system does not do its part (a full
// disk), all throw SystemFailure.
#pragma once

#include <cstddef>
#include <filesystem>
#include <iosfwd>
#include <memory>
#include <string>
#include <string_view>

namespace ninepegs {

// The file's bytes. Throws BadInput if it is missing, no plain file (a pipe could be waited for
// without end), unreadable or over the limit.
std::string readFile(const std::filesystem::path& path, std::size_t limitBytes);

// The file as a stream, for one that may be larger than memory. Throws BadInput as readFile.
std::unique_ptr<std::istream> openForReading(const std::filesystem::path& path);

// Writes a new file beside `path`, brings it to the disk (fsync) and renames it, so that `path` is
// replaced at once; it keeps its permissions. A link stays one: what it names is replaced. Into a
// pipe or a device the bytes are written as they are. Throws BadInput if that cannot be done.
void writeFile(const std::filesystem::path& path, std::string_view bytes);

// Throws BadInput if writeFile(path) could not work; changes nothing.
void requireWritable(const std::filesystem::path& path);

// A temporary file beside `path` for a writer that needs a file's name; `keep` brings it to the
// disk and renames it to `path`, and a file that was not kept is removed. While it is there it is
// locked (flock): one without a lock was left by a run that was killed.
class PendingFile {
 public:
  explicit PendingFile(const std::filesystem::path& path);
  ~PendingFile();
  PendingFile(const PendingFile&) = delete;
  PendingFile& operator=(const PendingFile&) = delete;
  const std::filesystem::path& temporary() const { return temporary_; }
  void keep();

 private:
  std::filesystem::path path_, temporary_;
  int file_ = -1;
};

// Makes the folder, with those above it. Throws BadInput if it cannot be made or written to.
void makeFolder(const std::filesystem::path& path);

}  // namespace ninepegs
