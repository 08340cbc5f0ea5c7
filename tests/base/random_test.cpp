#include "ninepegs/base/random.hpp"

#include <gtest/gtest.h>

#include <boost/random/uniform_int_distribution.hpp>
#include <cmath>
#include <set>
#include <vector>

namespace ninepegs {
namespace random_test {

// taus88 written down a second time from the paper's formulas.
struct PlainTaus88 {
  std::uint32_t s1, s2, s3;
  std::uint32_t next() {
    std::uint32_t b = ((s1 << 13) ^ s1) >> 19;
    s1 = ((s1 & 4294967294u) << 12) ^ b;
    b = ((s2 << 2) ^ s2) >> 25;
    s2 = ((s2 & 4294967288u) << 4) ^ b;
    b = ((s3 << 3) ^ s3) >> 11;
    s3 = ((s3 & 4294967280u) << 17) ^ b;
    return s1 ^ s2 ^ s3;
  }
};

TEST(Stream, FollowsThePublishedRecurrence) {
  for (std::uint64_t seed : {0ull, 1ull, 77ull, ~0ull}) {
    std::uint64_t state = scrambled(scrambled(seed) + 5);
    auto word = [&](std::uint32_t least) {
      for (int drawn = 0; drawn < 4; ++drawn) state = scrambled(state);  // Boost uses every fourth
      std::uint32_t value = static_cast<std::uint32_t>(state >> 32);
      return value < least ? value + least : value;
    };
    PlainTaus88 plain{};
    plain.s1 = word(2);
    plain.s2 = word(8);
    plain.s3 = word(16);
    Stream stream(seed, 5);
    for (int i = 0; i < 100; ++i) ASSERT_EQ(stream.next(), plain.next()) << seed << " " << i;
  }
}

TEST(Stream, SplitmixFinalizerIsThePublishedOne) {
  // First outputs of splitmix64 with seed 0, as widely tabulated.
  EXPECT_EQ(scrambled(0), 0xe220a8397b1dcdafull);
  EXPECT_EQ(scrambled(0x9e3779b97f4a7c15ull), 0x6e789e6aa1b965f4ull);
}

TEST(Stream, EqualNamesGiveEqualNumbersAndOthersDoNot) {
  std::set<std::vector<std::uint32_t>> seen;
  for (std::uint64_t seed = 0; seed < 20; ++seed) {
    for (std::uint64_t number = 0; number < 50; ++number) {
      Stream one(seed, number), two(seed, number);
      std::vector<std::uint32_t> draws;
      for (int i = 0; i < 4; ++i) {
        draws.push_back(one.next());
        EXPECT_EQ(draws.back(), two.next());
      }
      seen.insert(draws);
    }
  }
  EXPECT_EQ(seen.size(), 1000u);
}

TEST(Stream, BelowIsUniform) {
  // Chi-square at a level of about one in a million, for bounds with and without rejection.
  for (std::uint32_t bound : {2u, 3u, 7u, 10u, 64u}) {
    Stream stream(9, bound);
    constexpr int draws = 200000;
    std::vector<int> times(bound, 0);
    for (int i = 0; i < draws; ++i) {
      std::uint32_t value = stream.below(bound);
      ASSERT_LT(value, bound);
      ++times[value];
    }
    double expected = static_cast<double>(draws) / bound, chi = 0;
    for (int n : times) chi += (n - expected) * (n - expected) / expected;
    double freedom = bound - 1;
    EXPECT_LT(chi, freedom + 5 * std::sqrt(2 * freedom) + 15) << bound;
  }
}

TEST(Stream, BelowOneIsZeroAndLargeBoundsReject) {
  Stream stream(1, 1);
  for (int i = 0; i < 100; ++i) EXPECT_EQ(stream.below(1), 0u);
  std::uint32_t bound = 0xc0000000u;  // a quarter of all words is rejected
  for (int i = 0; i < 1000; ++i) EXPECT_LT(stream.below(bound), bound);
}

}  // namespace random_test
}  // namespace ninepegs
