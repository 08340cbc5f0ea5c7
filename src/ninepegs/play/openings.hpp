// Random openings of a series of games.
//
//   play::Openings openings(*game, {.plies = 2, .seed = 1, .balanced = true});
//   play::Opening opening = openings.at(0);  // of the first pair of games
#pragma once

#include <cstdint>
#include <map>
#include <memory>
#include <mutex>
#include <optional>

#include "ninepegs/play/chances.hpp"
#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

struct OpeningOptions {
  int plies = 2;
  std::uint64_t seed = 1;
  // Looks, by a search of each, for one after which neither side has much better chances. Not in
  // games with secrets.
  bool balanced = false;
  const StopFlag* stop = nullptr;
};

struct Opening {
  MoveList moves;        // fewer than asked for where the game would be over
  bool decided = false;  // of a balanced one: a side wins after each that was tried
};

class Openings {
 public:
  // `game` must outlive it.
  Openings(const Game& game, const OpeningOptions& options);
  // The same for the same seed and number. From any thread.
  Opening at(std::uint64_t number) const;

 private:
  Opening sampled(Stream& stream) const;
  Opening balanced(std::uint64_t number) const;
  Choice look(const Position& position) const;
  double chance(const Opening& opening, bool& decided) const;

  const Game& game_;
  OpeningOptions options_;
  std::shared_ptr<WorkedOut> measure_;
  std::optional<Chances> chances_;
  mutable std::mutex mutex_;
  mutable std::map<std::uint64_t, Opening> known_;  // the balanced ones
};

}  // namespace ninepegs::play
