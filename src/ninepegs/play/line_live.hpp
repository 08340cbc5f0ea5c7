// The live position of a game in which the sides fill the board cell by cell and the first line
// wins (rules::LineGame), for searches: a move changes some masks, and it is known which cells win
// at once. It has no measure, no invariants and no list of ends. Internal to the room.
//
//   std::unique_ptr<LineLive> lines = LineLive::of(*game, position, {});
//   bool wins = lines && lines->winning() != 0;
#pragma once

#include <array>
#include <bit>
#include <memory>

#include "ninepegs/base/processor.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs {
class SheetGame;
namespace rules {
struct LineGame;
}
}  // namespace ninepegs

namespace ninepegs::play {

class LineLive final : public LivePosition {
 public:
  static constexpr int most = 64;  // cells

  // Null if the game is of another form, if the board has more than 64 cells, or if somebody has
  // a line already. The game must outlive it. `images`: symmetries that change nothing.
  static std::unique_ptr<LineLive> of(const Game& game, const Position& position,
                                      const std::vector<Symmetry>& images);

  void setUp(const Position& position) override;  // requires that nobody has a line there
  void copyTo(Position& position) const override;
  int toMove() const override { return turn_; }
  bool ended() const override { return now().winner >= 0 || isFull(); }
  Outcome outcome() const override;
  std::uint32_t moveCount() override {
    return ended() ? 0 : static_cast<std::uint32_t>(bitsIn(now().open));
  }
  Move moveAt(std::uint32_t number) override;
  void listMoves(MoveList& moves) override;
  void play(const Move& move) override;
  void takeBack() override;
  int plies() const override { return static_cast<int>(at_); }
  std::uint64_t hash() override { return now().hash; }
  std::int64_t worth(int) override { return 0; }
  std::vector<Result> endsThatHold() override { return {}; }
  std::span<const std::int64_t> invariantValues() override { return {}; }
  std::span<const std::int64_t> invariantsBefore() override { return {}; }

  // Cells are masks, by their numbers. Those of the moves that win at once.
  std::uint64_t winning() const { return now().open & now().wins[turn_]; }
  // Those of the moves behind which the other side cannot win at once. Requires winning() == 0.
  std::uint64_t safe() const;
  // Cells that would complete a line of the side to move, and do not yet, if it filled `cell`.
  std::uint64_t threatsBehind(Cell cell) const;
  int linesThrough(Cell cell) const { return static_cast<int>(through_[cell].size()); }
  Move moveTo(Cell cell) const { return Move::of(static_cast<std::uint16_t>(cell), group_); }
  int left() const { return bitsIn(all_ & ~now().filled()); }  // empty cells
  // The hash behind the move to the cell.
  std::uint64_t hashBehind(Cell cell) const {
    return now().hash ^ keys_[static_cast<std::size_t>(turn_)][cell] ^ turnKey_;
  }
  // The least hash of the position and its images.
  std::uint64_t leastHash() const;

 private:
  struct State {
    std::uint64_t own[2] = {0, 0};   // by side
    std::uint64_t open = 0;          // cells that a move may fill
    std::uint64_t wins[2] = {0, 0};  // empty cells that complete a line of the side
    std::uint64_t hash = 0;
    int winner = -1;
    std::uint64_t filled() const { return own[0] | own[1]; }
  };

  LineLive(const SheetGame& game, const rules::LineGame& rules,
           const std::vector<Symmetry>& images);
  const State& now() const { return states_[at_]; }
  bool isFull() const { return full_ >= 0 && now().filled() == all_; }
  // Adds to `wins` the cells that complete a line of `side` through the cell.
  void addWins(State& state, int side, Cell cell) const;

  const SheetGame& game_;
  int win_, full_;  // ends
  std::uint8_t group_ = 0;
  std::uint64_t all_ = 0;
  std::array<std::uint64_t, most> needs_{};               // of cells that can be filled
  std::array<std::vector<std::uint64_t>, most> through_;  // lines
  std::array<std::vector<Cell>, most> opened_;            // cells that need this one
  std::array<std::array<std::uint64_t, most>, 2> keys_{};
  std::uint64_t turnKey_;
  std::vector<std::vector<Cell>> images_;
  std::vector<Cell> playable_;
  std::size_t at_ = 0;
  int turn_ = 0;
  std::array<State, most + 1> states_;
  std::array<Move, most> played_;
  Position root_;
};

}  // namespace ninepegs::play
