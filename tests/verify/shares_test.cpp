// Shares with their intervals: published tables.
#include "ninepegs/verify/shares.hpp"

#include <gtest/gtest.h>

#include <cmath>

namespace ninepegs::verify {
namespace shares_test {

TEST(Shares, TablesOfClopperAndPearson) {
  Interval none = shareInterval(0, 10, 0.95);
  EXPECT_EQ(none.least, 0);
  EXPECT_NEAR(none.greatest, 0.3085, 1e-4);
  Interval half = shareInterval(5, 10, 0.95);
  EXPECT_NEAR(half.least, 0.1871, 1e-4);
  EXPECT_NEAR(half.greatest, 0.8129, 1e-4);
  Interval all = shareInterval(10, 10, 0.95);
  EXPECT_NEAR(all.least, 0.6915, 1e-4);
  EXPECT_EQ(all.greatest, 1);
  EXPECT_EQ(shareInterval(0, 0, 0.95).greatest, 1);
}

// Nothing seen in n tries: the greatest share p has (1 - p)^n = 5 %.
TEST(Shares, WhatWasNeverSeenIsRare) {
  for (std::uint64_t tries : {1u, 10u, 3000u, 1000000u})
    EXPECT_NEAR(std::pow(1 - unseenBelow(tries, 0.95), static_cast<double>(tries)), 0.05, 1e-6);
  EXPECT_EQ(unseenBelow(0, 0.95), 1);
}

}  // namespace shares_test
}  // namespace ninepegs::verify
