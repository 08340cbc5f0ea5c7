// What one side knows of a game in which something is hidden from it: how it began, its own moves,
// what it saw of the other's, what was told.
//
//   Knowledge mine(*game, game->start(), 0);
//   mine.note(position, move);  // before the move is played
//   mine.turn(position);
//
// Belongs to one thread; the game must outlive it.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/game/game.hpp"
#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

class Knowledge {
 public:
  // A ply as this side knows it.
  struct Ply {
    bool own = false;
    Move move;         // of an own move; else it is empty
    std::string seen;  // what is seen of the move
    std::vector<std::string> told;
    friend bool operator==(const Ply&, const Ply&) = default;
  };

  // Of a side, 0 or 1. Requires `knowable(game, from)`.
  Knowledge(const Game& game, const Position& from, int side);
  // How the game began is known: it is where the rules begin, or nothing is hidden in it.
  static bool knowable(const Game& game, const Position& from);

  // A move that is about to be played. Requires that it is legal.
  void note(const Position& before, const Move& move);
  // The side's turn has come: the moves that it has are known to it.
  void turn(const Position& position);

  int side() const { return side_; }
  const Position& start() const { return start_; }
  const std::vector<Ply>& plies() const { return plies_; }
  const MoveList& moves() const { return moves_; }

 private:
  const Game* game_;
  int side_;
  Position start_;
  std::vector<Ply> plies_;
  MoveList moves_;
};

// What both sides know while a game goes on; in a game without secrets, where opponents see all,
// how it began and what was played.
//
//   Sides sides(*game, position);
//   Move move = sides.choose(*opponent, position, stream).move;
//   sides.note(position, move);
//   game->apply(position, move);
class Sides {
 public:
  // Requires `Knowledge::knowable(game, from)`, unless only opponents that draw moves are asked.
  Sides(const Game& game, const Position& from);

  // The opponent's choice for the side to move, which must have a move.
  Choice choose(Opponent& opponent, const Position& position, Stream& stream);
  void note(const Position& before, const Move& move);

 private:
  const Game* game_;
  std::vector<Knowledge> known_;  // by side
  Position start_;                // else: what every opponent may see
  MoveList moves_;
};

}  // namespace ninepegs::play
