// A position on which many moves are played, one after the other, and taken back.
//
//   std::unique_ptr<LivePosition> live = game->live();
//   while (!live->ended() && live->playDrawn(stream)) {
//   }
//   std::uint64_t key = live->hash();
//   live->takeBack();
//
// It is made once and holds all the memory it needs; a move allocates nothing once the longest
// game was played. It belongs to one thread; its game must outlive it. Rules that come to no end
// within their limits throw RunawayRules; then the position stands as before the call.
#pragma once

#include <cstdint>
#include <span>
#include <vector>

#include "ninepegs/base/random.hpp"
#include "ninepegs/game/values.hpp"

namespace ninepegs {

class LivePosition {
 public:
  virtual ~LivePosition() = default;

  // From now on this position, of the same game; what was played is forgotten.
  virtual void setUp(const Position& position) = 0;
  // The position as a value. Assigning to a position of the same game does not allocate, as long
  // as the game does not remember positions.
  virtual void copyTo(Position& position) const = 0;
  Position position() const {
    Position out;
    copyTo(out);
    return out;
  }

  virtual int toMove() const = 0;  // 0 or 1
  virtual Outcome outcome() const = 0;
  virtual bool ended() const { return outcome().kind != ResultKind::ongoing; }

  // The legal moves in the order of GameRules::listMoves; none if the game has ended, but for an
  // end that is only claimed. They are found once a position.
  virtual std::uint32_t moveCount() = 0;
  virtual Move moveAt(std::uint32_t number) = 0;  // requires number < moveCount()
  virtual void listMoves(MoveList& moves) = 0;    // replaces what the list held

  // Is there a legal move?
  virtual bool canMove() { return moveCount() > 0; }
  // Is one of the cells that the legal move picks one where a piece of the other side stands? A
  // quick look, for the order of moves; never so of a game that does not say it.
  virtual bool takes(const Move&) const { return false; }
  // Whether the moves of the positions that are played to from now on will be asked for: what is
  // found on the way is kept then. Changes no answer.
  virtual void expectMoves(bool) {}

  // Plays a legal move.
  virtual void play(const Move& move) = 0;
  // Draws one of the legal moves, each being equally likely, and plays it; false if there is none.
  virtual bool playDrawn(Stream& stream) {
    std::uint32_t count = moveCount();
    if (count == 0) return false;
    play(moveAt(stream.below(count)));
    return true;
  }
  // Takes the last move back. Requires plies() > 0.
  virtual void takeBack() = 0;
  // Moves played since setUp and not taken back.
  virtual int plies() const = 0;

  // GameRules::hash of the position, kept in step.
  virtual std::uint64_t hash() = 0;
  // What the position is worth for a side. Requires that the game has a measure.
  virtual std::int64_t worth(int side) = 0;
  // The ends that hold, with the position before the last move: GameChecks::endsThatHold. Of a game
  // without checks, the end that decided.
  virtual std::vector<Result> endsThatHold() = 0;
  // GameChecks::invariantValue of this position, and of the one before the last move (requires
  // plies() > 0): of every invariant for both sides, that of `index` for `side` at 2 * index +
  // side. They hold until the position changes. Requires that the game has checks.
  virtual std::span<const std::int64_t> invariantValues() = 0;
  virtual std::span<const std::int64_t> invariantsBefore() = 0;
};

}  // namespace ninepegs
