// How the moves of a game are drawn, so that games reach what random ones seldom do.
//
//   std::vector<std::uint64_t> uses(ruleLinesOf(*game).size());
//   std::unique_ptr<LivePosition> live = game->live(uses);
//   verify::Steering steering(*live, uses);
//   Move move = steering.drawn(moves, verify::Steer::hurry, stream);
#pragma once

#include <cstdint>
#include <span>
#include <string>
#include <vector>

#include "ninepegs/base/random.hpp"
#include "ninepegs/game/live_position.hpp"

namespace ninepegs::verify {

enum class Steer {
  uniform,   // every legal move is equally likely
  putOff,    // none that ends the game, if there is another
  hurry,     // one that ends the game, if there is one
  rare,      // one that uses the lines of the rules that were used least
  fromCase,  // uniform, from the position of a case
  back,      // back and forth, where the game remembers positions
  changed,   // uniform, from a position changed a little (changed.hpp)
};
inline constexpr int steers = 7;
std::string steerName(Steer steer);

class Steering {
 public:
  // `uses` is what the live position counts the uses of the rules' lines into; both must outlive
  // it.
  Steering(LivePosition& live, std::span<std::uint64_t> uses)
      : Steering(live, uses, std::vector<std::uint64_t>(uses.size(), 0)) {}
  // With uses that were seen before: `rare` goes for what is still new.
  Steering(LivePosition& live, std::span<std::uint64_t> uses, std::vector<std::uint64_t> before)
      : live_(live), uses_(uses), total_(std::move(before)) {}

  // One of the legal moves of the live position, which stands as before afterwards. Requires that
  // there are any, and a steer from `uniform` to `rare`.
  Move drawn(const MoveList& moves, Steer steer, Stream& stream);

 private:
  Move spread(const MoveList& moves, Stream& stream);

  LivePosition& live_;
  std::span<std::uint64_t> uses_;
  std::vector<std::uint64_t> total_;   // uses by rare moves that were drawn
  std::vector<std::uint64_t> before_;  // uses before the move that is tried
};

}  // namespace ninepegs::verify
