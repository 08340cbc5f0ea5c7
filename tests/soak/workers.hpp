// Numbered pieces of work in processes of their own, so that a crash or a hang costs one piece, is
// told, and the work goes on.
#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <string>

namespace ninepegs::soak {

struct WorkOptions {
  std::uint64_t from = 0, pieces = 0;
  int processes = 1;
  double hang = 60;  // seconds of one piece after which its process is killed
};

// What all pieces came to: counts by name, and findings.
struct Worked {
  std::map<std::string, std::uint64_t> counts;
  std::uint64_t next = 0;  // all pieces below are done
  bool stopped = false;    // by a signal
};

// What one piece counts, and what it found.
class Tally {
 public:
  explicit Tally(std::map<std::string, std::uint64_t>& counts) : counts_(counts) {}
  void add(const std::string& name, std::uint64_t many = 1) { counts_[name] += many; }

 private:
  std::map<std::string, std::uint64_t>& counts_;
};

// A crash, a hang or an exception of a piece is told by `found`, in the calling process.
// Counts of a process that crashed are lost.
Worked work(const WorkOptions& options,
            const std::function<void(std::uint64_t number, Tally& tally)>& one,
            const std::function<void(std::uint64_t number, const std::string& what)>& found);

// The piece under way takes longer than others, and is no hang.
void takeTime();

// Ends the work under way when the pieces begun are done; from any of its processes.
void stopWork();

// Does it in a process of its own: what it returned, or how it crashed or hung.
std::string apart(const std::function<std::string()>& doIt, double hang);

}  // namespace ninepegs::soak
