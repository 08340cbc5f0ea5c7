// Puts a program together: instructions with labels, scratch slots, pooled constants and tables.
// Internal to compile().
#pragma once

#include <functional>
#include <map>
#include <string>
#include <tuple>
#include <vector>

#include "ninepegs/sheet/plan/facts.hpp"
#include "ninepegs/sheet/plan/shortcuts.hpp"
#include "ninepegs/sheet/program/program.hpp"
#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::sheet {

// Where a routine keeps what it works out.
enum class Scratch { generator, other, trial };

class Emitter {
 public:
  Emitter(const rules::Rules& rules, Program& program, Shortcuts without = 0);

  bool takes(Shortcut one) const { return sheet::takes(without_, one); }

  // Code. A label is placed once and may be jumped to before or after.
  int here() const { return static_cast<int>(program_.code.size()); }
  int label();
  void place(int label);
  void add(Op op, Slot a = 0, Slot b = 0, Slot c = 0, Slot d = 0, int n = 0);
  void jump(Op op, int label, Slot a = 0, Slot b = 0, Slot c = 0, Slot d = 0);
  // What one turn of a loop costs, by its length: for the loop over cells that began at an
  // instruction, and as an instruction of its own for any other.
  void weighLoop(int begun);
  void weighLoops(int begun);  // those from there on that are not weighed yet
  void weighPicks(int begun);  // each with what follows it up to the next
  void weigh(int begun);
  Slot weightBetween(int begun, int end) const;
  Slot weightSince(int begun) const;  // steps that what was added since then costs
  // Is what was added since `between` the same as what was added from `from` to there? All labels
  // of it must be placed.
  bool sameSince(int from, int between) const;
  bool mayLoop(int from) const;  // could what was added since then use up its steps?
  void cutBack(int to);          // takes away what was added since then
  void finish();  // settles all jumps, makes the tables that only what was used needs
  void setStatement(int statement) { statement_ = statement; }

  // Scratch: one region for generators, one for moves on trial, one for everything else, so that a
  // routine may ask whether a side has a move in the middle of its own work.
  void begin(Scratch scratch);
  Slot newSet();
  Slot newNumber();
  // What was taken since the mark is given back.
  using Mark = Slot;
  Mark mark() const { return scratch_; }
  void release(Mark mark) { scratch_ = mark; }
  bool overflown() const { return overflown_; }

  Slot constantSet(const CellSet& set);
  Slot constantNumber(std::int64_t value);
  Slot constantKinds(const std::vector<int>& kinds);  // as bits of a set
  int directionGroup(const std::vector<int>& directions);
  int cellTable(const std::string& key, const std::function<CellSet(Cell)>& cells);
  // What lines are looked up for: `plain` ones are tested by shifts where that is possible, those
  // of a family of many lengths are only gone through.
  enum class LineUse { plain, exact, family };
  int lineSet(int length, const std::vector<int>& axes, LineUse use);
  int lineFamily(const std::vector<int>& lengths, const std::vector<int>& axes);

 private:
  std::vector<std::uint64_t> words(const CellSet& set) const;
  int tableSet(const CellSet& set);
  void fuse();
  void makeLayout();
  void makeDirections();
  void makeRays();
  void makePieces();
  void makeTurns();
  void makeSlides();
  std::vector<std::uint64_t> slideMasks(const std::vector<int>& directions) const;
  std::size_t slideTableSize(const std::vector<int>& directions) const;
  int slideTable(const std::vector<int>& directions);
  void orderLines(LineSet& lines, const std::vector<CellSet>& masks);
  void shiftedLines(LineSet& lines, const std::vector<int>& axes);
  Slot pooled(const std::vector<std::uint64_t>& words);

  const rules::Rules& rules_;
  Program& program_;
  Shortcuts without_ = 0;
  int statement_ = -1;
  std::vector<int> labels_;                 // where each was placed
  std::vector<std::pair<int, int>> jumps_;  // instruction, label
  Slot scratch_ = 0, scratchEnd_ = 0;
  Slot generatorFrom_ = 0, otherFrom_ = 0, otherEnd_ = 0;
  bool overflown_ = false;
  std::map<std::vector<std::uint64_t>, Slot> pool_;
  std::map<std::string, int> tableKeys_;
  std::map<std::vector<int>, int> slideKeys_;
  std::map<std::tuple<int, std::vector<int>, LineUse>, int> lineKeys_;
};

}  // namespace ninepegs::sheet
