// The hand-written games by name: made for a processor that counts and packs bits (POPCNT, BMI2),
// which the rest of the program may do without.
#pragma once

#include <cstdint>
#include <string>

namespace yardstick {

// Plays so many games at random, and says how many the first side won; `random` goes on.
using FirstWins = int (*)(std::uint64_t& random, int games);
// By the name of its sheet: tic-tac-toe, connect-four, othello, chess, hex, five-in-a-row,
// battleship.
FirstWins byHand(const std::string& name);

// Sequences of moves of that length from the start of chess.
std::uint64_t chessSequences(int depth);

}  // namespace yardstick
