// What a share that was counted says of the true one.
//
//   verify::Interval share = verify::shareInterval(480, 1000, 0.95);
//   double least = share.least;
#pragma once

#include <cstdint>

namespace ninepegs::verify {

struct Interval {
  double least = 0, greatest = 1;
};

// The exact interval of Clopper and Pearson (1934, Biometrika 26): the true share of something seen
// `seen` times in `tries` lies in it with at least this confidence. Requires seen <= tries and a
// confidence between 0 and 1; of no tries the interval is everything.
Interval shareInterval(std::uint64_t seen, std::uint64_t tries, double confidence);

// The share that something stays under, with that confidence, if it was seen in none of the tries.
double unseenBelow(std::uint64_t tries, double confidence);

}  // namespace ninepegs::verify
