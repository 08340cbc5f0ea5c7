// Steps of rules, as those of one position (limits::loopSteps), that a piece of work may take
// together. What takes more is given up, and that is told. A second of one core makes some 10 to
// 200 million of them.
#pragma once

#include <cstdint>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs::limits {

inline constexpr std::int64_t gameSteps = 60'000'000;     // a game of a check
inline constexpr std::int64_t partSteps = 200'000'000;    // a part of a check beside its playouts
inline constexpr std::int64_t shortenSteps = 40'000'000;  // the shortest game of one fault
inline constexpr std::int64_t mutantSteps = 30'000'000;   // a mutant, in all positions

}  // namespace ninepegs::limits

namespace ninepegs::verify {

enum class Attempt {
  done,
  failed,  // no end, or too many moves: `check` reports that by itself
  over     // asked to stop, or all of it takes too many steps: nothing more is to be tried
};

// One game, or one position, of a part of a check.
template <class Work>
Attempt attempt(Work work) {
  try {
    work();
    return Attempt::done;
  } catch (const Stopped&) {
    return Attempt::over;
  } catch (const TooMuchWork&) {
    return Attempt::over;
  } catch (const BadInput&) {
    return Attempt::failed;
  }
}

}  // namespace ninepegs::verify
