#include "ninepegs/base/files.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <fstream>
#include <utility>

#include "ninepegs/base/diagnostic.hpp"

namespace ninepegs {
namespace fs = std::filesystem;
namespace {

constexpr std::string_view pendingMark = ".pending-";

[[noreturn]] void refuse(const fs::path& path, const std::string& message,
                         const std::string& hint = {}) {
  throw BadInput(Place{path.string(), 0, 0, 1, {}}, message, hint);
}

// Is it the name that cannot be taken, not the system that does not do its part?
bool isOfTheName(int error) {
  for (int one : {ENOENT, ENOTDIR, EISDIR, EACCES, EPERM, EROFS, ELOOP, ENAMETOOLONG, ENXIO})
    if (error == one) return true;
  return false;
}

[[noreturn]] void refuseFor(const fs::path& path, const char* what, int error) {
  std::string message = fmt::format("{} ({})", what, std::strerror(error));
  if (isOfTheName(error)) refuse(path, message);
  throw SystemFailure(Place{path.string(), 0, 0, 1, {}}, message,
                      error == ENOSPC ? "is the disk full?" : "");
}
[[noreturn]] void refuseWriting(const fs::path& path, int error) {
  refuseFor(path, "the file cannot be written", error);
}
[[noreturn]] void refuseReading(const fs::path& path, int error) {
  refuseFor(path, "the file cannot be read", error);
}

// A file of this process, closed when it is no longer looked at.
struct Open {
  int number = -1;
  explicit Open(int file) : number(file) {}
  ~Open() {
    if (number >= 0) close(number);
  }
  Open(const Open&) = delete;
  Open& operator=(const Open&) = delete;
};

// Where a link leads; the path itself if it is none.
fs::path resolved(const fs::path& path) {
  fs::path at = path;
  for (int links = 0; links < 40; ++links) {
    std::error_code error;
    if (!fs::is_symlink(at, error) || error) return at;
    fs::path to = fs::read_symlink(at, error);
    if (error) return at;
    at = to.is_absolute() ? to : at.parent_path() / to;
  }
  refuse(path, "this is a link that leads to itself");
}

fs::path folderOf(const fs::path& path) {
  return path.has_parent_path() ? path.parent_path() : fs::path(".");
}

std::string pendingPrefix(const fs::path& path) {
  return fmt::format(".{}{}", path.stem().string(), pendingMark);
}

// Removes what runs that were killed left of this file: nobody holds a lock on it.
void removeLeftOvers(const fs::path& path) {
  std::error_code error;
  std::string prefix = pendingPrefix(path);
  for (fs::directory_iterator it(folderOf(path), error), end; !error && it != end;
       it.increment(error)) {
    const fs::path& other = it->path();
    if (other.filename().string().rfind(prefix, 0) != 0 || other.extension() != path.extension())
      continue;
    Open file(open(other.c_str(), O_RDONLY | O_NONBLOCK | O_NOFOLLOW | O_CLOEXEC));
    if (file.number >= 0 && flock(file.number, LOCK_EX | LOCK_NB) == 0) unlink(other.c_str());
  }
}

void writeAll(const fs::path& path, int file, std::string_view bytes) {
  while (!bytes.empty()) {
    ssize_t done = write(file, bytes.data(), bytes.size());
    if (done < 0 && errno == EINTR) continue;
    if (done < 0) refuseWriting(path, errno);
    bytes.remove_prefix(static_cast<std::size_t>(done));
  }
}

bool isSpecial(const struct stat& status) {
  return !S_ISREG(status.st_mode) && !S_ISDIR(status.st_mode);
}

void requireName(const fs::path& path) {
  if (path.empty() || !path.has_filename())
    refuse(path.empty() ? fs::path("\"\"") : path, "this is no name of a file");
}

}  // namespace

// The number of an open file that is plain.
static int openPlain(const fs::path& path, struct stat& status) {
  // Opening a pipe that nobody writes to would wait.
  int number = open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
  if (number < 0) {
    if (errno == ENOENT || errno == ENOTDIR) refuse(path, "there is no such file");
    refuseReading(path, errno);
  }
  Open file(number);
  if (fstat(file.number, &status) != 0) refuseReading(path, errno);
  if (S_ISDIR(status.st_mode)) refuse(path, "this is a folder, not a file");
  if (!S_ISREG(status.st_mode))
    refuse(path, "this is a pipe or a device, not a plain file", "write it to a file first");
  return std::exchange(file.number, -1);
}

std::string readFile(const fs::path& path, std::size_t limitBytes) {
  struct stat status {};
  Open file(openPlain(path, status));
  std::string bytes(std::min<std::size_t>(static_cast<std::size_t>(status.st_size), limitBytes) + 1,
                    '\0');
  std::size_t have = 0;
  while (true) {
    ssize_t got = read(file.number, bytes.data() + have, bytes.size() - have);
    if (got < 0 && errno == EINTR) continue;
    if (got < 0) refuseReading(path, errno);
    if (got == 0) break;
    have += static_cast<std::size_t>(got);
    if (have > limitBytes)
      refuse(path, fmt::format("the file is larger than {} bytes, the limit", limitBytes));
    if (have == bytes.size()) bytes.resize(std::min(2 * bytes.size(), limitBytes + 1));
  }
  bytes.resize(have);
  return bytes;
}

std::unique_ptr<std::istream> openForReading(const fs::path& path) {
  struct stat status {};
  Open(openPlain(path, status));
  auto stream = std::make_unique<std::ifstream>(path, std::ios::binary);
  if (!*stream) refuse(path, "the file cannot be read");
  return stream;
}

PendingFile::PendingFile(const fs::path& path) : path_(resolved(path)) {
  requireName(path_);
  removeLeftOvers(path_);
  // The ending stays, because some writers choose the format by it.
  for (int number = 0; file_ < 0; ++number) {
    temporary_ = path_;
    temporary_.replace_filename(fmt::format("{}{}-{}{}", pendingPrefix(path_), getpid(), number,
                                            path_.extension().string()));
    file_ = open(temporary_.c_str(), O_RDWR | O_CREAT | O_EXCL | O_CLOEXEC, 0666);
    if (file_ < 0 && errno == EEXIST && number < 1000) continue;
    if (file_ < 0) {
      int error = errno;
      temporary_.clear();
      refuseWriting(path_, error);
    }
    // Another run may have taken it for a left-over before it was locked.
    struct stat here {
    }, there{};
    bool locked = flock(file_, LOCK_EX | LOCK_NB) == 0 && fstat(file_, &here) == 0 &&
                  stat(temporary_.c_str(), &there) == 0 && here.st_ino == there.st_ino;
    if (!locked) close(std::exchange(file_, -1));
  }
}

PendingFile::~PendingFile() {
  if (!temporary_.empty()) unlink(temporary_.c_str());
  if (file_ >= 0) close(file_);
}

void PendingFile::keep() {
  struct stat old {};
  if (stat(path_.c_str(), &old) == 0 && fchmod(file_, old.st_mode & 07777) != 0)
    refuseWriting(path_, errno);
  if (fsync(file_) != 0) refuseWriting(path_, errno);
  if (rename(temporary_.c_str(), path_.c_str()) != 0) refuseWriting(path_, errno);
  temporary_.clear();
  // The new name is on the disk when the folder is. Some file systems cannot be asked for that.
  Open folder(open(folderOf(path_).c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
  if (folder.number >= 0) fsync(folder.number);
}

void writeFile(const fs::path& path, std::string_view bytes) {
  requireName(path);
  struct stat status {};
  if (stat(path.c_str(), &status) == 0 && S_ISDIR(status.st_mode))
    refuse(path, "this is a folder, not a file");
  if (stat(path.c_str(), &status) == 0 && isSpecial(status)) {
    Open file(open(path.c_str(), O_WRONLY | O_NONBLOCK | O_CLOEXEC));
    if (file.number < 0 && errno == ENXIO) refuse(path, "nobody reads from this pipe");
    if (file.number < 0) refuseFor(path, "this cannot be written to", errno);
    fcntl(file.number, F_SETFL, 0);  // wait for a slow reader
    writeAll(path, file.number, bytes);
    return;
  }
  PendingFile pending(path);
  {
    Open file(open(pending.temporary().c_str(), O_WRONLY | O_CLOEXEC));
    if (file.number < 0) refuseWriting(path, errno);
    writeAll(path, file.number, bytes);
  }
  pending.keep();
}

void requireWritable(const fs::path& path) {
  requireName(path);
  struct stat status {};
  if (stat(path.c_str(), &status) == 0) {
    if (S_ISDIR(status.st_mode)) refuse(path, "this is a folder, not a file");
    if (isSpecial(status)) {
      if (access(path.c_str(), W_OK) != 0) refuseWriting(path, errno);
      return;
    }
  }
  PendingFile probe(path);
}

void makeFolder(const fs::path& path) {
  if (path.empty()) refuse("\"\"", "this is no name of a folder");
  std::error_code error;
  fs::create_directories(path, error);
  if (error) refuseFor(path, "the folder cannot be made", error.value());
  if (!fs::is_directory(path, error))
    refuse(path, "the folder cannot be made (a file of that name is in the way)");
  if (access(path.c_str(), W_OK) != 0) refuse(path, "the folder cannot be written to");
}

}  // namespace ninepegs
