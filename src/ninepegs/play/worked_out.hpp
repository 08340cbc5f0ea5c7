// What positions are worth, worked out from games played at random from where the search begins:
// for games whose sheet does not say. Internal to the room.
//
//   WorkedOut measure;
//   measure.learn(*game, position, {.games = 200}, stream);
//   score = measure.worth(*game->live(), 0);
//
// A position is a row of bits: what stands on which cell, numbers, hands. Each bit gets a weight,
// and so does how many there are in a word, which tells pieces, by how the games went in which it
// was set: logistic regression (J. Berkson, 1944) with an algebraic curve, so that every machine
// comes to the same. A measure that the game itself has, such as lines that are still open, gets a
// weight like a bit. Weights go on from one search to the next.
#pragma once

#include <cstdint>
#include <functional>
#include <memory>
#include <vector>

#include "ninepegs/game/game.hpp"

namespace ninepegs::play {

class WorkedOut {
 public:
  struct Limits {
    std::uint64_t games = 400;
    std::uint64_t plies = 0;  // of all of them, but for a few games; 0: no limit
    double seconds = 0;       // likewise
    std::int64_t steps = 0;   // of rules; likewise
  };
  // Plays games from the position, which must not be the end.
  void learn(const Game& game, const Position& from, const Limits& limits, Stream& stream);
  bool known() const { return !weights_.empty(); }
  // What is learned of: the game measured by open lines, or null where it is the game itself.
  std::shared_ptr<const Game> byLines = nullptr;
  // For a side; 1000 is about what decides half of all games. Requires known().
  std::int64_t worth(LivePosition& live, int side);

 private:
  struct Example {
    std::vector<std::uint32_t> bits;
    std::vector<double> counts;  // of bits in each word
    double measure = 0;          // of the first side, as the game says
    double result = 0;           // of the first side: 1 a win, -1 a loss
  };
  // Bits are left out where the game has a measure: it says more of a cell than so few games do.
  void listBits(const Position& position, std::vector<std::uint32_t>& bits,
                std::vector<double>& counts) const;
  double spreadOf(const std::function<double(const Example&)>& value) const;
  double sumOf(const std::vector<std::uint32_t>& bits, const std::vector<double>& counts) const;
  double holdOfBits() const;
  void fit(Stream& stream);

  std::size_t words_ = 0;                  // of a position that are looked at
  std::vector<double> weights_;            // of bits, and last of every position
  bool measured_ = false;                  // the game has a measure ...
  double spread_ = 1, weight_ = 0;         // ... whose values lie so far apart, and count so much
  std::vector<double> counted_, spreads_;  // the same of counts, by word
  std::vector<Example> examples_;
  std::vector<std::uint32_t> bits_;
  std::vector<double> counts_;
  Position at_;
};

}  // namespace ninepegs::play
