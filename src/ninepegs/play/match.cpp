#include "ninepegs/play/match.hpp"

#include "ninepegs/play/knowledge.hpp"

namespace ninepegs::play {

Played playGame(const Game& game, const Position& from, Opponent* const sides[2], Stream& stream,
                int plyLimit) {
  Played played;
  played.last = from;
  Sides known(game, from);
  while (!game.ended(played.last) && static_cast<int>(played.moves.size()) < plyLimit &&
         game.countMoves(played.last) > 0) {
    Opponent& opponent = *sides[game.toMove(played.last)];
    Move move = known.choose(opponent, played.last, stream).move;
    known.note(played.last, move);
    played.moves.push_back(move);
    game.apply(played.last, move);
  }
  played.result = game.result(played.last);
  return played;
}

}  // namespace ninepegs::play
