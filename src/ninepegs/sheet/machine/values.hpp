// What a machine looks up: lines, kinds, hands and numbers. Part of machine.hpp.
#pragma once

#include "ninepegs/sheet/machine/machine.hpp"

namespace ninepegs::sheet {

template <int W>
bool Machine<W>::lineThrough(const Set& in, const LineSet& lines, std::int64_t cell) const {
  if (cell < 0) return false;
  for (int index : lines.through[cell])
    if (lineIn(in, lines, index)) return true;
  return false;
}

template <int W>
const LineSet* Machine<W>::lineSetOf(int family, std::int64_t length) const {
  const std::vector<int>& sets = program_->lineFamilies[family];
  if (length < 0 || length >= static_cast<std::int64_t>(sets.size()) || sets[length] < 0)
    return nullptr;
  return &program_->lineSets[sets[length]];
}

template <int W>
std::int64_t Machine<W>::kindAt(std::int64_t cell, int side, int past) const {
  const Layout& layout = program_->layout;
  if (cell < 0) return -1;
  int where = static_cast<int>(cell);
  auto has = [&](Slot slot) {
    return ((memory_[then(slot, past) + where / 64] >> (where % 64)) & 1) != 0;
  };
  if (side >= 0 && !has(layout.sides[side])) return -1;
  for (int each = side < 0 ? 0 : side; each < (side < 0 ? 2 : side + 1); ++each) {
    if (layout.kinds.empty() && has(layout.sides[each])) return 0;
    for (std::size_t k = 0; k < layout.kinds.size(); ++k)
      if (has(layout.kinds[k][each])) return static_cast<std::int64_t>(k);
  }
  return -1;
}

template <int W>
Bits<W> Machine<W>::kindCells(std::int64_t kind, int side, int past) const {
  const Layout& layout = program_->layout;
  auto plane = [&](Slot slot) { return *reinterpret_cast<const Set*>(memory_ + then(slot, past)); };
  if (kind < 0) return Set::none();
  if (layout.kinds.empty())
    return side >= 0 ? plane(layout.sides[side]) : plane(layout.sides[0]) | plane(layout.sides[1]);
  if (side >= 0) return plane(layout.kinds[kind][side]) & plane(layout.sides[side]);
  return plane(layout.kinds[kind][0]) | plane(layout.kinds[kind][1]);
}

template <int W>
bool Machine<W>::hasLine(const Set& in, const LineSet& lines) const {
  if (lines.axisCount > 0) {
    Set found = Set::none();
    if (lines.shiftCount == 2) {  // three or four in a line
      for (int i = 0; i < lines.axisCount; ++i) {
        const LineAxis& axis = lines.axes[i];
        Set run = in & lowered(in, axis.shifts[0]);
        found |= run & lowered(run, axis.shifts[1]) & tableSet(axis.starts);
      }
      return found.any();
    }
    for (int i = 0; i < lines.axisCount; ++i) {
      Set run = in;
      for (int k = 0; k < lines.shiftCount; ++k) run &= lowered(run, lines.axes[i].shifts[k]);
      found |= run & tableSet(lines.axes[i].starts);
    }
    return found.any();
  }
  spend(static_cast<std::size_t>(lines.count * W) / 8);
  for (int i = 0; i < lines.count; ++i)
    if (lineIn(in, lines, i)) return true;
  return false;
}

template <int W>
Bits<W> Machine<W>::lineCells(const Set& in, const LineSet& lines) const {
  Set out = Set::none();
  spend(static_cast<std::size_t>(lines.count * W) / 8);
  for (int i = 0; i < lines.count; ++i)
    if (lineIn(in, lines, i)) out |= lineMask(lines, i);
  return out;
}

template <int W>
std::int64_t Machine<W>::countLines(const Set& in, const LineSet& lines) const {
  std::int64_t total = 0;
  spend(static_cast<std::size_t>(lines.count * W) / 8);
  for (int index = 0; index < lines.count; ++index) total += lineIn(in, lines, index) ? 1 : 0;
  return total;
}

template <int W>
std::int64_t Machine<W>::countThrough(const Set& in, const LineSet& lines,
                                      std::int64_t cell) const {
  std::int64_t total = 0;
  if (cell < 0) return total;
  for (int index : lines.through[cell]) total += lineIn(in, lines, index) ? 1 : 0;
  return total;
}

template <int W>
Bits<W> Machine<W>::linesThrough(const Set& in, const LineSet& lines, std::int64_t cell) const {
  Set out = Set::none();
  if (cell < 0) return out;
  for (int index : lines.through[cell])
    if (lineIn(in, lines, index)) out |= lineMask(lines, index);
  return out;
}

template <int W>
Bits<W> Machine<W>::linesOfLength(const Set& in, const LineSet* lines) const {
  return lines == nullptr ? Set::none() : lineCells(in, *lines);
}

// The next line within the set c, from number b on, into a; false if there is none.
template <int W>
bool Machine<W>::nextLine(const Instruction& i, const LineSet* lines) {
  std::int64_t index = num(i.b), from = index, count = lines == nullptr ? 0 : lines->count;
  const Set in = at(i.c);
  if (lines != nullptr && lines->exact) {
    while (index < count && !lineIn(in, *lines, static_cast<int>(index))) ++index;
  } else if (lines != nullptr) {
    const Set* mask = &lineMask(*lines, static_cast<int>(index));
    for (; index < count && minus(*mask, in).any(); ++index) ++mask;
  }
  setNum(i.b, index + 1);
  spend(static_cast<std::size_t>((index - from) * W) / 8);
  if (index >= count) return false;
  at(i.a) = lineMask(*lines, static_cast<int>(index));
  return true;
}

// Offers the lines within a set, as many at a time as a set has bits.
template <int W>
template <class Sink>
void Machine<W>::offerLines(const Instruction& i, const LineSet* lines, Sink& sink) {
  if (lines == nullptr) return;
  const std::uint64_t* choices = memory_ + program_->choicesAt;
  const Set in = at(i.b);
  for (int k = 0; lines->ordered && k < lines->axisCount && !sink.enough(); ++k) {
    const LineAxis& axis = lines->axes[k];
    Set run = in, starts = tableSet(axis.starts);
    for (int shift = 0; shift < lines->shiftCount; ++shift) run &= lowered(run, axis.shifts[shift]);
    Set within = gathered(run & starts, starts);
    if (within.any()) sink.many(i.n, choices, i.a, within, axis.first);
  }
  if (lines->ordered) return;
  const Set* mask = &lineMask(*lines, 0);
  for (int base = 0; base < lines->count && !sink.enough(); base += 64 * W) {
    Set within = Set::none();
    int many = std::min(64 * W, lines->count - base);
    for (int k = 0; k < many; ++k, ++mask)
      within.word[k >> 6] |= std::uint64_t{!minus(*mask, in).any()} << (k & 63);
    if (within.any()) sink.many(i.n, choices, i.a, within, base);
  }
  spend(static_cast<std::size_t>(lines->count * W) / 8);
}

template <int W>
void Machine<W>::chooseLine(const Instruction& i, std::uint64_t choice) {
  const LineSet* lines = lineSetOf(i.n, num(i.c));
  if (lines != nullptr) at(i.a) = lineMask(*lines, static_cast<int>(choice));
}

// The group of the first cell, taken out of the set.
template <int W>
Bits<W> Machine<W>::takeGroup(Set& cells, int along) const {
  Set first = cells.any() ? Set::of(cells.first()) : Set::none();
  Set group = spread(first, cells, along);
  cells.remove(group);
  return group;
}

template <int W>
std::int64_t Machine<W>::property(int number, std::int64_t cell, int past) const {
  std::int64_t kind = kindAt(cell, -1, past);
  return kind < 0 ? 0 : program_->properties[number][kind];
}

template <int W>
std::int64_t Machine<W>::edgeOf(std::int64_t cell, std::int64_t towards, int past) const {
  std::int64_t kind = kindAt(cell, -1, past), edge = 0;
  if (kind < 0 || towards < 0) return 0;
  for (std::size_t way = 0; way < program_->next.size(); ++way)
    if (program_->next[way][cell] == towards) edge = program_->edges[kind][way];
  return edge;
}

template <int W>
std::int64_t Machine<W>::alongTrack(int track, std::int64_t cell, std::int64_t places,
                                    std::ptrdiff_t instruction) {
  if (places < 0) return -1;
  for (; places > 0 && cell >= 0 && !outOfSteps(instruction); --places)
    cell = program_->tracks[track][cell];
  return cell;
}

template <int W>
Bits<W> Machine<W>::handKinds(int side, int past) const {
  Set kinds = Set::none();
  for (int kind = 0; kind < program_->kinds; ++kind)
    if (memory_[then(program_->layout.hands[side], past) + kind] > 0) kinds |= Set::of(kind);
  return kinds;
}

template <int W>
std::int64_t Machine<W>::handTotal(int side, int past) const {
  std::uint64_t total = 0;
  for (int kind = 0; kind < program_->kinds; ++kind)
    total += memory_[then(program_->layout.hands[side], past) + kind];
  return static_cast<std::int64_t>(total);
}

}  // namespace ninepegs::sheet
