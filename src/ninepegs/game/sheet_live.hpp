// The live position of a game from a sheet: one machine on which all is played. Internal to
// SheetGame.
#pragma once

#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/sheet/machine/machine.hpp"

namespace ninepegs {

template <int W>
class SheetLive final : public LivePosition {
 public:
  // `program` is the game's, or the one that counts uses. `uses` is empty or has a number for each
  // rule line.
  SheetLive(const SheetGame& game, const sheet::Program& program, std::span<std::uint64_t> uses);

  void setUp(const Position& position) override;
  void copyTo(Position& position) const override;
  int toMove() const override { return machine_.turn(); }
  bool ended() const override { return machine_.result() != 0; }
  Outcome outcome() const override { return SheetGame::outcomeOf(machine_.result()); }
  std::uint32_t moveCount() override;
  Move moveAt(std::uint32_t number) override;
  void listMoves(MoveList& moves) override;
  bool canMove() override;
  bool takes(const Move& move) const override;
  void expectMoves(bool expected) override;
  void play(const Move& move) override;
  bool playDrawn(Stream& stream) override;
  void takeBack() override;
  int plies() const override { return plies_; }
  std::uint64_t hash() override;
  std::int64_t worth(int side) override;
  std::vector<Result> endsThatHold() override;
  std::span<const std::int64_t> invariantValues() override;
  std::span<const std::int64_t> invariantsBefore() override;

 private:
  using Bundles = sheet::BundleSink<W>;
  // Where the moves of this position are found.
  enum class Found : std::uint8_t {
    none,     // not looked for yet
    cells,    // the cells of one set
    bundles,  // in `from_`
    list,     // in `list_`
  };
  struct Known {
    std::uint64_t value = 0;
    bool known = false;
  };

  void findMoves();
  void findEach();
  void writeDown();
  // Runs what may come to no end within its limits.
  template <class Body>
  void within(Body body);
  template <class Undo>
  void refuseIfExhausted(Undo undo);
  template <class Give>
  int choicesAt(std::uint32_t number, Give give) const;
  std::int64_t valueOf(int routine);
  void workOutValues(std::size_t ply);
  std::span<const std::int64_t> valuesAt(std::size_t ply) const {
    std::size_t count = program_.invariants.size() * 2;
    return std::span(values_).subspan(ply * count, count);
  }
  void forget(std::size_t ply);  // what is known of the position after so many plies
  // A ply: what was is kept; then the move is made, with the choices in the machine.
  [[gnu::always_inline]] inline void begin();
  [[gnu::always_inline]] inline void made(int group);
  const std::uint64_t* before() const { return line_.data() + (plies_ - 1) * stride_; }

  const SheetGame& game_;
  const sheet::Program& program_;
  std::span<std::uint64_t> uses_;
  std::size_t words_;   // of a position
  std::size_t stride_;  // the same in whole blocks
  int plies_ = 0;
  std::vector<std::uint64_t> line_;     // the words of the positions before this one
  std::vector<std::uint64_t> earlier_;  // hashes of earlier positions, where the game keeps them
  std::vector<Known> hashes_;           // of the positions before this one, and of this one
  std::vector<std::int64_t> values_;    // of invariants, by ply, each for both sides
  std::vector<char> valuesKnown_;       // by ply
  std::vector<std::uint64_t> pending_;  // uses seen while looking for moves
  bool remembers_ = false;              // earlier positions
  bool hashed_ = false;                 // somebody has asked: before that nothing is known
  Found found_ = Found::none;
  std::uint32_t total_ = 0;
  const sheet::Instruction* onlyOf_[2] = {};  // by side: all moves are the cells of its set
  bool worksOut_ = false;                     // ... which is worked out first
  const sheet::Instruction* only_ = nullptr;
  Bits<W> cells_;
  const Bundles* from_ = nullptr;
  MoveList list_;
  Position here_;
  Bundles kept_, looked_;  // by the tests for an end, and by a look of our own
  sheet::Machine<W> machine_;
};

template <int W>
bool SheetLive<W>::takes(const Move& move) const {
  if (move.group == sheet::passGroup || program_.layout.layered) return false;
  const sheet::GroupCode& group = program_.groups[move.group];
  const std::uint64_t* theirs = machine_.words() + program_.layout.sides[1 - toMove()];
  for (int i = 0; i < std::min<int>(group.choices, move.count); ++i)
    if (group.choiceIsCell[i] && (theirs[move.choices[i] / 64] >> (move.choices[i] % 64) & 1) != 0)
      return true;
  return false;
}

}  // namespace ninepegs
