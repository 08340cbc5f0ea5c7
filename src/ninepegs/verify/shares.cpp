#include "ninepegs/verify/shares.hpp"

#include <boost/math/distributions/binomial.hpp>

#include "ninepegs/base/require.hpp"

namespace ninepegs::verify {

// Not in long doubles on the way, which are wider on some machines than on others.
using Doubles = boost::math::policies::policy<boost::math::policies::promote_double<false>>;
using Binomial = boost::math::binomial_distribution<double, Doubles>;

Interval shareInterval(std::uint64_t seen, std::uint64_t tries, double confidence) {
  Interval out;
  NINEPEGS_REQUIRE(seen <= tries);
  if (tries == 0) return out;
  auto trials = static_cast<double>(tries), successes = static_cast<double>(seen);
  double tail = (1 - confidence) / 2;
  if (seen > 0) out.least = Binomial::find_lower_bound_on_p(trials, successes, tail);
  if (seen < tries) out.greatest = Binomial::find_upper_bound_on_p(trials, successes, tail);
  return out;
}

double unseenBelow(std::uint64_t tries, double confidence) {
  if (tries == 0) return 1;
  return Binomial::find_upper_bound_on_p(static_cast<double>(tries), 0, 1 - confidence);
}

}  // namespace ninepegs::verify
