// One game between two opponents.
#pragma once

#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

struct Played {
  std::vector<Move> moves;
  Position last;
  Result result;  // ongoing if nobody could move or the limit of plies was reached
};

// Plays from a position; `sides[i]` moves for side i.
Played playGame(const Game& game, const Position& from, Opponent* const sides[2], Stream& stream,
                int plyLimit);

}  // namespace ninepegs::play
