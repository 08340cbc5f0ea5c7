// What positions are worth, worked out from games played at random from where the search begins:
// for games whose sheet does not say. Internal to the room.
//
//   WorkedOut measure;
//   measure.learn(*game, position, {.games = 200}, stream);
//   score = measure.worth(*game->live(), 0);
//
// A position is a row of bits: what stands on which cell, numbers, hands. Each bit gets a weight by
// how the games went in which it was set: logistic regression (J. Berkson, 1944) with an algebraic
// curve, so that every machine comes to the same. Weights go on from one search to the next.
#pragma once

#include <cstdint>
#include <vector>

#include "ninepegs/game/game.hpp"

namespace ninepegs::play {

class WorkedOut {
 public:
  struct Limits {
    std::uint64_t games = 400;
    std::uint64_t plies = 0;  // of all of them, but for a few games; 0: no limit
    double seconds = 0;       // likewise
  };
  // Plays games from the position, which must not be the end.
  void learn(const Game& game, const Position& from, const Limits& limits, Stream& stream);
  bool known() const { return !weights_.empty(); }
  // For a side; 1000 is about what decides half of all games. Requires known().
  std::int64_t worth(const LivePosition& live, int side);

 private:
  struct Example {
    std::vector<std::uint32_t> bits;
    double result = 0;  // of the first side: 1 a win, -1 a loss
  };
  void listBits(const Position& position, std::vector<std::uint32_t>& bits) const;
  void fit(Stream& stream);

  std::size_t words_ = 0;        // of a position that are looked at
  std::vector<double> weights_;  // of bits, and last of every position
  std::vector<Example> examples_;
  std::vector<std::uint32_t> bits_;
  Position at_;
};

}  // namespace ninepegs::play
