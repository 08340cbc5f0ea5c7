// A live position of any game, by copies of positions. What a game has that does not make its own.
#pragma once

#include "ninepegs/game/game.hpp"

namespace ninepegs {

class PlainLive final : public LivePosition {
 public:
  explicit PlainLive(const Game& game) : game_(game) { setUp(game.start()); }

  void setUp(const Position& position) override;
  void copyTo(Position& position) const override { position = line_.back(); }
  int toMove() const override { return game_.toMove(line_.back()); }
  Outcome outcome() const override { return game_.result(line_.back()).outcome(); }
  std::uint32_t moveCount() override;
  Move moveAt(std::uint32_t number) override;
  void listMoves(MoveList& moves) override;
  void play(const Move& move) override;
  void takeBack() override;
  int plies() const override { return static_cast<int>(line_.size()) - 1; }
  std::uint64_t hash() override { return game_.hash(line_.back()); }
  std::int64_t worth(int side) override { return game_.measure()->worth(line_.back(), side); }
  std::vector<Result> endsThatHold() override;
  std::span<const std::int64_t> invariantValues() override {
    return valuesOf(line_.back(), values_);
  }
  std::span<const std::int64_t> invariantsBefore() override {
    return valuesOf(line_[line_.size() - 2], before_);
  }

 private:
  void findMoves();
  std::span<const std::int64_t> valuesOf(const Position& position,
                                         std::vector<std::int64_t>& values) const;

  const Game& game_;
  std::vector<Position> line_;  // from the position that was set up to this one
  MoveList moves_;
  std::vector<std::int64_t> values_, before_;  // of invariants
  bool found_ = false;                         // the moves are this position's
};

}  // namespace ninepegs
