// What may be played: the start, legal moves, what a move does, when it is over.
//
//   Position position = game->start();
//   MoveList moves;
//   game->listMoves(position, moves);
//   game->apply(position, moves.front());
//   bool over = game->ended(position);
#pragma once

#include <cstdint>
#include <memory>
#include <span>
#include <vector>

#include "ninepegs/game/values.hpp"

namespace ninepegs {

class LivePosition;

class GameRules {
 public:
  virtual ~GameRules() = default;

  virtual Position start() const = 0;
  virtual int toMove(const Position& position) const = 0;  // 0 or 1
  // All legal moves in a stable order; none if the game has ended, but for an end that is only
  // claimed. Replaces what the list held.
  virtual void listMoves(const Position& position, MoveList& moves) const = 0;
  // Plays a move: the position becomes the next one, with its result. Requires that listMoves gives
  // this move for this position.
  virtual void apply(Position& position, const Move& move) const = 0;
  virtual Result result(const Position& position) const = 0;

  bool ended(const Position& position) const {
    return result(position).kind != ResultKind::ongoing;
  }
  virtual std::uint64_t countMoves(const Position& position) const;
  // Is it one of those that listMoves gives?
  virtual bool isLegal(const Position& position, const Move& move) const;

  // Can what is legal or decided depend on earlier positions?
  virtual bool remembersPositions() const { return false; }
  // Equal for equal positions: the exclusive or of `wordHash` of each word.
  virtual std::uint64_t hash(const Position& position) const;
  // Equal for positions that the rules cannot tell apart: what `count` compares.
  virtual std::vector<std::uint64_t> identity(const Position& position) const {
    return position.words;
  }

  // A position to play many moves on, at the start. For each use of rule line i while moves are
  // played it adds one to `uses[i]`, unless `uses` is empty; `uses` must outlive it, and so must
  // the game.
  virtual std::unique_ptr<LivePosition> live(std::span<std::uint64_t> uses = {}) const = 0;
};

// The part of a position's hash that one word makes.
std::uint64_t wordHash(std::size_t index, std::uint64_t word);

}  // namespace ninepegs
