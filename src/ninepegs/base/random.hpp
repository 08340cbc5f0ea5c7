// Random numbers that are the same on every machine and for any number of threads: each piece of
// work (a playout, a game of a match) draws from a stream of its own, named by a seed and a number.
//
//   Stream stream(seed, playoutNumber);
//   std::uint32_t die = 1 + stream.below(6);
//
// The engine is taus88 of Boost.Random (P. L'Ecuyer, "Maximally equidistributed combined Tausworthe
// generators", Math. Comp. 65, 1996): small enough to be seeded anew for every playout. Its words
// come from the finalizer of splitmix64 (Steele, Lea, Flood, OOPSLA 2014). `below` is the unbiased
// multiply-and-reject of D. Lemire (ACM TOMACS 29, 2019).
// A Stream is a plain value; it is not to be shared between threads.
#pragma once

#include <boost/random/taus88.hpp>
#include <cstdint>

#include "ninepegs/base/require.hpp"

namespace ninepegs {

// A bijective scrambling of 64 bits: equal only for equal arguments, else as good as unrelated.
constexpr std::uint64_t scrambled(std::uint64_t x) {
  x += 0x9e3779b97f4a7c15u;
  x = (x ^ (x >> 30)) * 0xbf58476d1ce4e5b9u;
  x = (x ^ (x >> 27)) * 0x94d049bb133111ebu;
  return x ^ (x >> 31);
}

class Stream {
 public:
  Stream(std::uint64_t seed, std::uint64_t number) {
    Words words{scrambled(scrambled(seed) + number)};
    engine_.seed(words);
  }

  std::uint32_t next() { return engine_(); }

  // Uniform in 0 .. bound-1. The bound is at least 1.
  std::uint32_t below(std::uint32_t bound) {
    NINEPEGS_REQUIRE(bound > 0);
    std::uint64_t product = std::uint64_t{engine_()} * bound;
    if (static_cast<std::uint32_t>(product) < bound) {
      std::uint32_t threshold = (0u - bound) % bound;
      while (static_cast<std::uint32_t>(product) < threshold)
        product = std::uint64_t{engine_()} * bound;
    }
    return static_cast<std::uint32_t>(product >> 32);
  }

 private:
  struct Words {  // what Boost calls a seed sequence
    std::uint64_t state;
    template <class Iterator>
    void generate(Iterator begin, Iterator end) {
      for (; begin != end; ++begin) {
        state = scrambled(state);
        *begin = static_cast<std::uint32_t>(state >> 32);
      }
    }
  };

  boost::random::taus88 engine_;
};

}  // namespace ninepegs
