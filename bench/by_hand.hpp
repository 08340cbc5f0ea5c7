// The hand-written games by name: made for a processor that counts and packs bits (POPCNT, BMI2),
// which the rest of the program may do without.
#pragma once

#include <cstdint>
#include <vector>

namespace yardstick {

struct ByHand {
  const char* name;
  // Plays so many games at random, and says how many the first side won; `random` goes on.
  int (*firstWins)(std::uint64_t& random, int games);
};
// Tic-tac-toe, connect four, othello, chess, hex, five in a row, battleship.
const std::vector<ByHand>& byHand();

// Sequences of moves of that length from the start of chess.
std::uint64_t chessSequences(int depth);

}  // namespace yardstick
