#include "ninepegs/sheet/emitter.hpp"

#include <algorithm>

namespace ninepegs::sheet {

Emitter::Emitter(const Checked& sheet, Program& program) : sheet_(sheet), program_(program) {
  int size = sheet.board.size();
  program_.words = size <= 64 ? 1 : size <= 128 ? 2 : size <= 256 ? 4 : 8;
  int w = program_.words;
  Layout& layout = program_.layout;
  int at = 3;
  auto take = [&](int words) {
    Slot slot = static_cast<Slot>(at);
    at += words;
    return slot;
  };
  layout.sides[0] = take(w);
  layout.sides[1] = take(w);
  layout.empty = take(w);
  program_.kinds = static_cast<int>(sheet.tree.pieces.size());
  if (program_.kinds > 1)
    for (int kind = 0; kind < program_.kinds; ++kind) layout.kinds.push_back(take(w));
  auto state = [&](const std::vector<StateDecl>& list, int words,
                   std::vector<std::array<Slot, 2>>& slots) {
    for (const StateDecl& one : list) {
      Slot first = take(words);
      slots.push_back({first, one.each ? take(words) : first});
    }
  };
  state(sheet.tree.marks, w, layout.marks);
  state(sheet.tree.numbers, 1, layout.numbers);
  layout.words = at;
  program_.choicesAt = take(limits::choices);
  generatorFrom_ = static_cast<Slot>(at);
  at += 64 * w + 96;
  program_.againSlot = take(1);
  program_.valueSlot = take(1);
  program_.shownSlot = take(w);
  otherFrom_ = static_cast<Slot>(at);
  at += 96 * w + 160;
  program_.constantsAt = static_cast<Slot>(at);
  overflown_ = at >= limits::memoryWords;
  program_.allAt = tableSet(sheet.board.all());
  makeDirections();
}

void Emitter::makeDirections() {
  const Geometry& board = sheet_.board;
  for (const Direction& direction : board.directions()) {
    // All cells that move by the same amount make one shift.
    std::map<int, CellSet> arrive;
    for (Cell cell = 0; cell < board.size(); ++cell)
      if (direction.next[cell] >= 0) arrive[direction.next[cell] - cell].set(direction.next[cell]);
    std::vector<ShiftPart> parts;
    for (const auto& [amount, mask] : arrive) parts.push_back({amount, tableSet(mask)});
    program_.directions.push_back(std::move(parts));
    program_.next.emplace_back(direction.next.begin(), direction.next.end());
  }
  for (Cell cell = 0; cell < board.size(); ++cell) {
    program_.rowNumbers.push_back(static_cast<std::int16_t>(board.rowNumber(cell)));
    program_.columnNumbers.push_back(static_cast<std::int16_t>(board.columnNumber(cell)));
  }
}

int Emitter::label() {
  labels_.push_back(-1);
  return static_cast<int>(labels_.size()) - 1;
}

void Emitter::place(int label) {
  labels_[label] = here();
}

void Emitter::add(Op op, Slot a, Slot b, Slot c, Slot d, int n) {
  program_.code.push_back({op, a, b, c, d, n});
  program_.statementOf.push_back(statement_);
}

void Emitter::jump(Op op, int label, Slot a, Slot b, Slot c, Slot d) {
  jumps_.emplace_back(here(), label);
  add(op, a, b, c, d);
}

void Emitter::finish() {
  for (const auto& [instruction, label] : jumps_) program_.code[instruction].n = labels_[label];
  fuse();
}

// Puts pairs that come together often into one instruction. The second of a pair stays where it is,
// so that no jump changes.
void Emitter::fuse() {
  std::vector<Instruction>& code = program_.code;
  for (std::size_t k = 0; k + 1 < code.size(); ++k) {
    Instruction& one = code[k];
    const Instruction& next = code[k + 1];
    if (one.op == Op::step && next.op == Op::minus && next.c == one.a)
      one = {Op::stepMinus, next.a, next.b, one.b, one.a, one.n};
    else if (one.op == Op::jumpAny && code[one.n].op == Op::stop)
      one.op = Op::stopAny;
    else if (one.op == Op::emitMany && next.op == Op::stop)
      one.op = Op::emitLast;
    else if (one.op == Op::putCell && one.n == 0 && next.op == Op::turnOver)
      one.op = Op::putCellOver, one.n = next.n;
  }
}

void Emitter::begin(bool generator) {
  scratch_ = generator ? generatorFrom_ : otherFrom_;
  scratchEnd_ = generator ? program_.againSlot : program_.constantsAt;
  statement_ = -1;
}

Slot Emitter::newSet() {
  Slot slot = scratch_;
  scratch_ = static_cast<Slot>(scratch_ + program_.words);
  if (scratch_ > scratchEnd_) {
    overflown_ = true;
    scratch_ = slot;
  }
  return slot;
}

Slot Emitter::newNumber() {
  Slot slot = scratch_;
  if (scratch_ + 1 > scratchEnd_)
    overflown_ = true;
  else
    ++scratch_;
  return slot;
}

std::vector<std::uint64_t> Emitter::words(const CellSet& set) const {
  std::vector<std::uint64_t> out(program_.words, 0);
  for (int cell = 0; cell < program_.words * 64 && cell < limits::cells; ++cell)
    if (set[cell]) out[cell / 64] |= std::uint64_t{1} << (cell % 64);
  return out;
}

int Emitter::tableSet(const CellSet& set) {
  int where = static_cast<int>(program_.tables.size());
  std::vector<std::uint64_t> bits = words(set);
  program_.tables.insert(program_.tables.end(), bits.begin(), bits.end());
  return where;
}

Slot Emitter::pooled(const std::vector<std::uint64_t>& words) {
  auto it = pool_.find(words);
  if (it != pool_.end()) return it->second;
  std::size_t at = program_.constantsAt + program_.constants.size();
  if (at + words.size() > limits::memoryWords) {
    overflown_ = true;
    return program_.constantsAt;
  }
  program_.constants.insert(program_.constants.end(), words.begin(), words.end());
  return pool_[words] = static_cast<Slot>(at);
}

Slot Emitter::constantSet(const CellSet& set) {
  return pooled(words(set));
}

Slot Emitter::constantNumber(std::int64_t value) {
  return pooled({static_cast<std::uint64_t>(value)});
}

Slot Emitter::constantKinds(const std::vector<int>& kinds) {
  CellSet set;
  for (int kind : kinds) set.set(kind);
  return constantSet(set);
}

int Emitter::directionGroup(const std::vector<int>& directions) {
  auto& all = program_.groupsOfDirections;
  auto it = std::find(all.begin(), all.end(), directions);
  if (it == all.end()) it = all.insert(all.end(), directions);
  return static_cast<int>(it - all.begin());
}

int Emitter::cellTable(const std::string& key, const std::function<CellSet(Cell)>& cells) {
  auto it = tableKeys_.find(key);
  if (it != tableKeys_.end()) return it->second;
  int where = static_cast<int>(program_.tables.size());
  for (Cell cell = 0; cell < sheet_.board.size(); ++cell)
    tableSet(sheet_.board.has(cell) ? cells(cell) : CellSet{});
  program_.cellTables.push_back(where);
  return tableKeys_[key] = static_cast<int>(program_.cellTables.size()) - 1;
}

int Emitter::lineSet(int length, const std::vector<int>& axes) {
  auto it = lineKeys_.find({length, axes});
  if (it != lineKeys_.end()) return it->second;
  const Geometry& board = sheet_.board;
  LineSet lines;
  lines.length = length;
  // Where every step of an axis is the same shift, a line is found by shifting; elsewhere (joined
  // edges) each line is a mask of its own.
  bool uniform = true;
  for (int axis : axes) uniform = uniform && program_.directions[axis].size() <= 1;
  if (uniform) {
    // Each shift as far as the runs known so far are long.
    std::vector<int> strides;
    for (int have = 1; have < length; have += strides.back())
      strides.push_back(std::min(have, length - have));
    lines.shiftCount = static_cast<int>(strides.size());
    for (int axis : axes) {
      if (program_.directions[axis].empty()) continue;
      // Shift downwards in memory, whichever way the axis is named.
      int direction = program_.directions[axis][0].amount > 0 ? axis : board.opposite(axis);
      CellSet starts;
      for (const std::vector<Cell>& line : board.lines(length, {direction})) starts.set(line[0]);
      if (starts.none()) continue;
      LineAxis& one = lines.axes[lines.axisCount++];
      one.starts = tableSet(starts);
      for (std::size_t k = 0; k < strides.size(); ++k)
        one.shifts[k] = strides[k] * program_.directions[direction][0].amount;
    }
  }
  lines.masks = static_cast<int>(program_.tables.size());
  for (const std::vector<Cell>& line : board.lines(length, axes)) {
    CellSet mask;
    for (Cell cell : line) mask.set(cell);
    tableSet(mask);
    ++lines.count;
  }
  program_.lineSets.push_back(std::move(lines));
  return lineKeys_[{length, axes}] = static_cast<int>(program_.lineSets.size()) - 1;
}

}  // namespace ninepegs::sheet
