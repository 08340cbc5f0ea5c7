// Runs a program. One machine holds one position; it is a plain value with all its memory inside,
// cheap to make, never allocating, and not to be shared between threads.
//
//   Machine<1> machine(program);
//   machine.load(position.words.data());
//   CountSink count;
//   machine.generate(count);
//   machine.apply(0, moves[0].choices.data(), moves[0].count);
//   machine.store(position.words.data());
#pragma once

#include <algorithm>
#include <cstdint>
#include <cstring>
#include <span>
#include <utility>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/stop.hpp"
#include "ninepegs/board/bits.hpp"
#include "ninepegs/sheet/program/bundles.hpp"
#include "ninepegs/sheet/program/program.hpp"
#include "ninepegs/sheet/program/sinks.hpp"

namespace ninepegs::sheet {

template <int W>
class Machine {
 public:
  using Set = Bits<W>;

  // A part of a text as a replayed move wrote it: for which channel (0: the move's text, 1: what
  // the other side sees of it, 2: told to both), which part, and its value.
  struct Written {
    int channel = 0;
    int part = 0;
    std::int64_t value = 0;
    Set cells = Set::none();
  };

  explicit Machine(const Program& program) : program_(&program) {
    std::memcpy(memory_ + program.constantsAt, program.constants.data(),
                program.constants.size() * sizeof(std::uint64_t));
    memory_[program.againSlot] = 0;
  }

  void load(const std::uint64_t* position) {
    std::memcpy(memory_, position, bytes());
    memory_[program_->againSlot] = 0;
    carry();
    settled_ = false;
    keepBefore();
  }
  // From now on as if no step was made in this position.
  void refill() {
    exhaustedAt_ = -1;
    tooManyChoices_ = brokenOff_ = false;
    refresh();
  }
  // As if nothing had been played before this position: for rules that ask what was.
  void standAlone() { keepBefore(); }
  // The position before the one that is loaded, for rules that ask what was.
  void loadBefore(const std::uint64_t* position) {
    if (program_->beforeAt != 0) std::memcpy(memory_ + program_->beforeAt, position, bytes());
  }
  // Hashes of earlier positions, as `timesSeen` compares them; must outlive what is run.
  void remember(std::span<const std::uint64_t> earlier) { earlier_ = earlier; }
  // Works out what a repetition compares of this position, and keeps it in the position.
  void noteSeen() {
    if (program_->layout.seen != 0) memory_[program_->layout.seen] = seenHash();
  }
  void store(std::uint64_t* position) const { std::memcpy(position, memory_, bytes()); }
  const std::uint64_t* words() const { return memory_; }
  std::uint64_t word(Slot slot) const { return memory_[slot]; }
  std::int64_t number(Slot slot) const { return static_cast<std::int64_t>(memory_[slot]); }
  Set set(Slot slot) const {
    Set out;
    std::memcpy(&out, memory_ + slot, sizeof out);
    return out;
  }
  int turn() const { return static_cast<int>(memory_[Layout::turn]); }
  // The side that moved last; where it is not known, the one that is not to move.
  int lastMover() const {
    std::uint64_t known = program_->layout.lastMover != 0 ? memory_[program_->layout.lastMover] : 0;
    return known != 0 ? static_cast<int>(known) - 1 : 1 - turn();
  }
  std::uint64_t result() const { return memory_[Layout::result]; }

  // Legal moves of the side to move; nothing if the game has ended.
  template <class Sink>
  void generate(Sink& sink) {
    phase_ = 0;
    if (!isFinal(memory_[Layout::result])) run(program_->generate[memory_[Layout::turn]], sink);
  }

  // From now on, the moves that a test for an end finds after a ply are kept in `room`, which must
  // outlive what is run; nullptr: no longer. `kept` tells whether it holds the legal moves of the
  // side to move: generate() need not be called then. Not where a pass may be made beside moves.
  void keepMovesIn(BundleSink<W>* room) { next_ = program_->passAlone ? room : nullptr; }
  bool kept() const { return room_ != nullptr && settled_ && roomHoldsAll_ && stuck_[turn()] == 0; }
  // Has a test found a move of the side to move?
  bool knownToMove() const { return settled_ && stuck_[turn()] == 0; }

  // Plays a legal move: the position becomes the next one, with its result.
  void apply(int group, const std::uint16_t* choices, int count) {
    for (int i = 0; i < count; ++i) memory_[program_->choicesAt + i] = choices[i];
    applyChosen(group);
  }
  // The same, with the choices in memory already.
  void applyChosen(int group) {
    refresh();
    room_ = next_;
    memory_[program_->againSlot] = 0;
    memory_[Layout::result] = 0;  // an end that was not claimed is passed over
    int side = turn();
    keepBefore();
    settled_ = false;
    trail_ = group == passGroup ? 0 : program_->groups[group].choices;
    NoSink none;
    run(group == passGroup ? program_->passApply[side] : program_->groups[group].apply[side], none);
  }
  void setChoice(int index, std::uint64_t value) { memory_[program_->choicesAt + index] = value; }

  // Replays a move and collects the texts it writes; what the position is afterwards is of no use.
  template <class List>
  void replay(int group, const std::uint16_t* choices, int count, List& written) {
    for (int i = 0; i < count; ++i) memory_[program_->choicesAt + i] = choices[i];
    trail_ = program_->groups[group].choices;
    keepBefore();
    struct Collector : NoSink {
      List* list;
    } collector{{}, &written};
    run(program_->groups[group].text[turn()], collector);
  }

  void runRoutine(int routine) {
    NoSink none;
    run(routine, none);
  }
  // Counts into `uses` (one number for each statement) from now on; only for programs with
  // coverage.
  void countInto(std::span<std::uint64_t> uses) { uses_ = uses; }
  void setResult(std::uint64_t result) { memory_[Layout::result] = result; }

  // Whether a side is stuck once the ply is over is a piece of work of its own, with as many steps.
  // Loops over cells end when limits::loopSteps steps were made since the last load or apply. Then
  // what was worked out is worthless. -1: the limit was not reached; else the statement that was
  // running, or the number of statements if none.
  int exhaustedAt() const { return exhaustedAt_; }
  // It ended early because it is to stop, or all takes too many steps; exhaustedAt() is not -1.
  bool brokenOff() const { return brokenOff_; }
  // Counts the steps that were made since the last load, refill or apply for the work as a whole.
  // True: that was too much, or it is to stop.
  bool settle() {
    carry();
    return countsAsTooMuch(std::exchange(carried_, 0));
  }
  // Steps made since the last load or apply.
  std::int64_t spent() const { return limits::loopSteps - std::int64_t{steps_} + aside_; }
  bool tooManyChoices() const { return tooManyChoices_; }  // it was limits::choices, not steps

 private:
  std::size_t bytes() const { return program_->layout.words * sizeof(std::uint64_t); }
  Set& at(Slot slot) { return *reinterpret_cast<Set*>(memory_ + slot); }
  // Where a part of the position stands, or (past = 1) stood before the move.
  int then(Slot slot, int past) const { return past == 0 ? slot : slot + program_->beforeAt; }
  std::int64_t num(int slot) const { return static_cast<std::int64_t>(memory_[slot]); }
  void setNum(Slot slot, std::int64_t value) { memory_[slot] = static_cast<std::uint64_t>(value); }
  const Set& tableSet(int where) const {
    return *reinterpret_cast<const Set*>(program_->tables.data() + where);
  }
  Set cellAsSet(std::int64_t cell) const {
    return cell < 0 ? Set::none() : Set::of(static_cast<int>(cell));
  }

  Set inTable(int table, std::int64_t cell) const {
    return cell < 0 ? Set::none()
                    : tableSet(program_->cellTables[table] + static_cast<int>(cell) * W);
  }
  Set stepped(const Set& from, int direction) const {
    const std::vector<ShiftPart>& parts = program_->directions[direction];
    if constexpr (W == 1) {
      if (parts.size() == 1) return shifted(from, parts[0].amount) & tableSet(parts[0].mask);
    }
    Set out = Set::none();
    for (const ShiftPart& part : parts) out |= shifted(from, part.amount) & tableSet(part.mask);
    return out;
  }
  Set slid(const Set& from, const Set& through, int group) const;
  Set slidByTable(std::int64_t cell, const Set& through, int group) const;
  Set slidFrom(std::int64_t cell, const Set& through, int group) const;
  Set bracketed(const Set& run, std::int64_t cell, const Set& by, int group) const;
  Set between(std::int64_t a, std::int64_t b) const;
  std::int64_t beyond(std::int64_t over, std::int64_t from) const;
  Set spread(Set from, const Set& through, int group) const;
  bool hasLine(const Set& in, const LineSet& lines) const;
  Set lineCells(const Set& in, const LineSet& lines) const;
  const Set& lineMask(const LineSet& lines, int index) const {
    return tableSet(lines.masks + index * W);
  }
  // The moves of a side, without passes, as if it were to move.
  template <class Sink>
  void offer(int side, Sink& sink);
  bool stuck(int side);
  bool stuckNow(int side);
  std::int64_t movesOf(int side);
  std::uint64_t seenHash();
  Set touched() const;
  Set bracketing(const Set& run, const Set& by, int group) const;
  bool lineIn(const Set& in, const LineSet& lines, int index) const {
    return (in & lineMask(lines, index)) == lineMask(lines, index) &&
           !(lines.exact && (in & tableSet(lines.ends + index * W)).any());
  }
  bool lineThrough(const Set& in, const LineSet& lines, std::int64_t cell) const;
  const LineSet* lineSetOf(int family, std::int64_t length) const;
  std::int64_t countLines(const Set& in, const LineSet& lines) const;
  std::int64_t countThrough(const Set& in, const LineSet& lines, std::int64_t cell) const;
  Set linesThrough(const Set& in, const LineSet& lines, std::int64_t cell) const;
  Set linesOfLength(const Set& in, const LineSet* lines) const;
  bool nextLine(const Instruction& i, const LineSet* lines);
  template <class Sink>
  void offerLines(const Instruction& i, const LineSet* lines, Sink& sink);
  void chooseLine(const Instruction& i, std::uint64_t choice);
  Set takeGroup(Set& cells, int along) const;
  std::int64_t property(int number, std::int64_t cell, int past) const;
  std::int64_t edgeOf(std::int64_t cell, std::int64_t towards, int past) const;
  std::int64_t alongTrack(int track, std::int64_t cell, std::int64_t places,
                          std::ptrdiff_t instruction);
  Set handKinds(int side, int past) const;
  std::int64_t handTotal(int side, int past) const;
  // By words, so that no overflow is undefined; what cannot be divided gives 0.
  static std::int64_t quotient(std::int64_t a, std::int64_t b) {
    if (b == -1) return static_cast<std::int64_t>(0 - static_cast<std::uint64_t>(a));
    return b == 0 ? 0 : a / b;
  }
  static std::int64_t remainder(std::int64_t a, std::int64_t b) {
    return b == 0 || b == -1 ? 0 : a % b;
  }
  std::int64_t kindAt(std::int64_t cell, int side, int past) const;
  Set kindCells(std::int64_t kind, int side, int past) const;

  static constexpr std::int64_t leastSteps = 2;  // of a position, for what takes none
  // A whole budget of steps again; those that were made are kept for settle().
  void carry() {
    carried_ += spent() + leastSteps;
    steps_ = limits::loopSteps, lookAt_ = limits::loopSteps - static_cast<int>(stepsALook);
    aside_ = 0;
  }
  void refresh() {
    if (!settle()) [[likely]]
      return;
    brokenOff_ = true;
    exhaustedAt_ = static_cast<int>(program_->statementLines.size());
    steps_ = -1;
  }

  // -1: none
  int kindOf(const Instruction& i) const { return i.n == 0 ? i.c : static_cast<int>(memory_[i.c]); }
  // The rules went wrong: always false, so that an effect can end with it.
  bool fault(int statement, FaultReason reason, std::int64_t cell = -1) {
    memory_[Layout::result] = resultWord(Verdict::fault, 0, false, statement) |
                              static_cast<std::uint64_t>(reason) << 10 |
                              static_cast<std::uint64_t>(cell & 0xffff) << 40;
    return false;
  }
  // Effects; false if the rules went wrong. Sets are values: they may be part of the position.
  bool put(Set cells, int kind, int side, int statement);
  void take(Set cells);
  bool shift(std::int64_t from, std::int64_t to, int statement);
  bool shiftAll(Set cells, int direction, int statement);
  bool flip(Set cells, int statement);
  bool change(Set cells, int kind, int statement);
  // Can a piece of the kind belong to the side (2: to nobody)?
  bool mayBelong(int kind, int side) const {
    int sides = program_->kindSides[kind];
    return side == 2 ? sides == 3 : sides == 0 || sides == side + 1;
  }

  // Moves on trial (machine_trial.hpp).
  void keepBefore() {
    if (program_->beforeAt != 0) std::memcpy(memory_ + program_->beforeAt, memory_, bytes());
  }
  template <class Sink>
  void onTrial(int group, int choices, Sink& sink);
  void playOnTrial(int group, int choices, TrialSink& sink);
  template <class Option>
  void branch(const Instruction* i, TrialSink& sink, Option nextOption);
  void branchElements(const Instruction* i, TrialSink& sink);
  void branchNumbers(const Instruction* i, TrialSink& sink);
  void branchLines(const Instruction* i, TrialSink& sink);
  void branchRound(const Instruction* i, TrialSink& sink);
  void branchAttempt(const Instruction* i, TrialSink& sink);
  void complete(const Instruction& i, TrialSink& sink);
  void goneWrong(TrialSink& sink);
  std::int64_t timesSeen(bool trial);
  bool chose(std::uint64_t choice, const Instruction* i);
  std::uint64_t nextChoice() { return memory_[program_->choicesAt + trail_++]; }
  std::size_t savedWords() const {
    return trialWords_ + program_->trialEnd - program_->trialAt + 1;
  }
  void save(std::uint64_t* to) const {
    std::memcpy(to, memory_, trialWords_ * sizeof *to);
    std::memcpy(to + trialWords_, memory_ + program_->trialAt,
                (program_->trialEnd - program_->trialAt) * sizeof *to);
    to[savedWords() - 1] = memory_[program_->againSlot];
  }
  void restore(const std::uint64_t* from) {
    std::memcpy(memory_, from, trialWords_ * sizeof *from);
    std::memcpy(memory_ + program_->trialAt, from + trialWords_,
                (program_->trialEnd - program_->trialAt) * sizeof *from);
    memory_[program_->againSlot] = from[savedWords() - 1];
  }

  int statementAt(std::ptrdiff_t instruction) const {
    return program_->statementOf[static_cast<std::size_t>(instruction)];
  }
  void passTurn() {
    if (program_->layout.lastMover != 0)
      memory_[program_->layout.lastMover] = memory_[Layout::turn] + 1;
    ++memory_[Layout::plies];
    memory_[Layout::turn] ^= 1 ^ memory_[program_->againSlot];
    memory_[program_->againSlot] = 0;
  }
  void turnOver() {
    passTurn();
    settled_ = true;
    stuck_[0] = stuck_[1] = -1;
    if (program_->layout.seen != 0) memory_[program_->layout.seen] = seenHash();
  }

  template <class Sink>
  void run(int pc, Sink& sink);

  // What an instruction costs beside its own dispatch: the next loop ends the work if it was too
  // much.
  void spend(std::size_t steps) const {
    steps_ -= static_cast<int>(std::min<std::size_t>(steps, 1u << 24));
    if (steps_ < -(1 << 30)) steps_ = -(1 << 30);
  }
  bool outOfSteps(std::ptrdiff_t instruction, int cost = 1) {
    steps_ -= cost;
    if (steps_ >= lookAt_) return false;
    if (steps_ >= 0) {
      lookAt_ = std::max(0, steps_ - static_cast<int>(stepsALook));
      if (!wantsStop(ambient.stop)) return false;
      brokenOff_ = true;
    }
    int statement = statementAt(instruction);
    exhaustedAt_ = statement < 0 ? static_cast<int>(program_->statementLines.size()) : statement;
    return true;
  }

  const Program* program_;
  std::span<std::uint64_t> uses_;
  BundleSink<W>* room_ = nullptr;    // for this ply
  BundleSink<W>* next_ = nullptr;    // for the plies to come
  bool settled_ = false;             // the ply is over: only the tests for an end are still to come
  std::int8_t stuck_[2] = {-1, -1};  // then: what is known of each side
  bool roomHoldsAll_ = false;        // what `room_` holds are all legal moves
  mutable int steps_ = limits::loopSteps;
  std::int64_t aside_ = 0;    // steps of looks for moves that had a budget of their own
  std::int64_t carried_ = 0;  // steps before this position that settle() has not seen
  int exhaustedAt_ = -1;
  bool tooManyChoices_ = false;
  bool brokenOff_ = false;
  int lookAt_ = 0;  // steps left, when it is looked whether to stop
  std::span<const std::uint64_t> earlier_;
  int trail_ = 0;               // choices made so far in a move
  int trialGroup_ = 0;          // which move is on trial
  std::size_t trialWords_ = 0;  // of a position that moves on trial can change
  int phase_ = 0;               // 1: measure moves on trial, 2: keep the best
  std::int64_t best_ = 0;
  int attempts_ = 0;  // rounds that are being attempted, one inside the other
  bool made_[limits::choices + 1] = {};
  // A number may be read as a set, W words from its place on: the last words are room for that.
  alignas(64) std::uint64_t memory_[limits::memoryWords + W];
};

}  // namespace ninepegs::sheet

#include "ninepegs/sheet/machine/compiled.hpp"  // IWYU pragma: keep
#include "ninepegs/sheet/machine/run.hpp"       // IWYU pragma: keep
#include "ninepegs/sheet/machine/sets.hpp"      // IWYU pragma: keep
#include "ninepegs/sheet/machine/trial.hpp"     // IWYU pragma: keep
#include "ninepegs/sheet/machine/values.hpp"    // IWYU pragma: keep
