#include "ninepegs/base/files.hpp"

#include <fmt/format.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <fstream>

#include "ninepegs/base/diagnostic.hpp"

namespace ninepegs {
namespace fs = std::filesystem;
namespace {

[[noreturn]] void refuse(const fs::path& path, const std::string& message,
                         const std::string& hint = {}) {
  throw BadInput(Place{path.string(), 0, 0, 1, {}}, message, hint);
}

}  // namespace

std::string readFile(const fs::path& path, std::size_t limitBytes) {
  std::error_code error;
  fs::file_status status = fs::status(path, error);
  if (!fs::exists(status)) refuse(path, "there is no such file");
  if (fs::is_directory(status)) refuse(path, "this is a folder, not a file");
  std::ifstream in(path, std::ios::binary);
  if (!in) refuse(path, fmt::format("the file cannot be read ({})", std::strerror(errno)));
  std::string bytes(limitBytes + 1, '\0');
  in.read(bytes.data(), static_cast<std::streamsize>(bytes.size()));
  bytes.resize(static_cast<std::size_t>(in.gcount()));
  if (in.bad()) refuse(path, "reading the file failed");
  if (bytes.size() > limitBytes)
    refuse(path, fmt::format("the file is larger than {} bytes, the limit", limitBytes));
  return bytes;
}

PendingFile::PendingFile(fs::path path) : path_(std::move(path)), temporary_(path_) {
  // The ending stays, because some writers choose the format by it.
  temporary_.replace_filename(
      fmt::format(".{}.{}{}", path_.stem().string(), getpid(), path_.extension().string()));
}

PendingFile::~PendingFile() {
  std::error_code ignored;
  if (!temporary_.empty()) fs::remove(temporary_, ignored);
}

void PendingFile::keep() {
  std::error_code error;
  fs::rename(temporary_, path_, error);
  if (error) refuse(path_, fmt::format("the file cannot be written ({})", error.message()));
  temporary_.clear();
}

void writeFile(const fs::path& path, std::string_view bytes) {
  PendingFile pending(path);
  std::ofstream out(pending.temporary(), std::ios::binary);
  if (!out) refuse(path, fmt::format("the file cannot be written ({})", std::strerror(errno)));
  out.write(bytes.data(), static_cast<std::streamsize>(bytes.size()));
  out.close();
  if (!out) refuse(path, "writing the file failed; is the disk full?");
  pending.keep();
}

void makeFolder(const fs::path& path) {
  std::error_code error;
  fs::create_directories(path, error);
  if (error || !fs::is_directory(path))
    refuse(path, fmt::format("the folder cannot be made ({})",
                             error ? error.message() : "a file of that name is in the way"));
  if (access(path.c_str(), W_OK) != 0) refuse(path, "the folder cannot be written to");
}

}  // namespace ninepegs
