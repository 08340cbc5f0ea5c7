// How many positions there are, guessed from random games.
#include <algorithm>
#include <unordered_map>

#include "ninepegs/base/random.hpp"
#include "ninepegs/verify/every.hpp"

namespace ninepegs::verify {

constexpr int playoutPlies = 2000;

Guess guessedPositions(const Game& game, std::uint64_t playouts, std::uint64_t seed,
                       const StopFlag* stop) {
  std::unordered_map<std::uint64_t, std::uint32_t> seen;
  std::unique_ptr<LivePosition> live = game.live();
  Position start = game.start();
  for (std::uint64_t number = 0; number < playouts && !wantsStop(stop); ++number) {
    Stream stream(seed, number);
    live->setUp(start);
    try {
      for (int ply = 0; ply < playoutPlies; ++ply) {
        ++seen[live->hash()];
        if (live->ended() || !live->playDrawn(stream)) break;
      }
    } catch (const RunawayRules&) {
      continue;
    }
  }
  double once = 0, twice = 0;
  for (const auto& [hash, times] : seen) once += times == 1, twice += times == 2;
  Guess guess;
  double unseen = once * (once - 1) / (2 * (twice + 1));
  guess.positions = seen.size() + static_cast<std::uint64_t>(std::max(0.0, unseen));
  guess.sure = twice >= 10 || once == 0;
  return guess;
}

}  // namespace ninepegs::verify
