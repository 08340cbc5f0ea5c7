// What a machine does with sets and pieces: the work behind single instructions. Part of
// machine.hpp.
#pragma once

#include "ninepegs/sheet/machine.hpp"

namespace ninepegs::sheet {

template <int W>
Bits<W> Machine<W>::slid(const Set& from, const Set& through, int group) const {
  Set out = Set::none();
  for (int direction : program_->groupsOfDirections[group]) {
    Set passed = Set::none();
    Set front = stepped(from, direction);
    while (front.any()) {
      Set fresh = minus(front, passed);  // round a ring a ray may come by where it was
      passed |= front;
      front = stepped(fresh & through, direction);
    }
    out |= passed;
  }
  return out;
}

template <int W>
Bits<W> Machine<W>::bracketed(const Set& run, std::int64_t cell, const Set& by, int group) const {
  Set out = Set::none();
  if (cell < 0) return out;
  for (int direction : program_->groupsOfDirections[group]) {
    const std::vector<std::int16_t>& next = program_->next[direction];
    Set found = Set::none();
    int at = next[cell];
    for (int length = 0; at >= 0 && run.has(at) && length < limits::cells; ++length) {
      found |= Set::of(at);
      at = next[at];
    }
    if (at >= 0 && by.has(at) && !run.has(at)) out |= found;
  }
  return out;
}

template <int W>
Bits<W> Machine<W>::between(std::int64_t a, std::int64_t b) const {
  if (a < 0 || b < 0 || a == b) return Set::none();
  for (const std::vector<std::int16_t>& next : program_->next) {
    Set passed = Set::none();
    int at = next[a];
    for (int length = 0; at >= 0 && length < limits::cells; ++length) {
      if (at == b) return passed;
      passed |= Set::of(at);
      at = next[at];
    }
  }
  return Set::none();
}

template <int W>
std::int64_t Machine<W>::beyond(std::int64_t over, std::int64_t from) const {
  if (over < 0 || from < 0 || over == from) return -1;
  for (const std::vector<std::int16_t>& next : program_->next) {
    int at = next[from];
    for (int length = 0; at >= 0 && length < limits::cells; ++length) {
      if (at == over) return next[at];
      at = next[at];
    }
  }
  return -1;
}

template <int W>
Bits<W> Machine<W>::spread(Set from, const Set& through, int group) const {
  from &= through;
  while (true) {
    Set more = from;
    for (int direction : program_->groupsOfDirections[group])
      more |= stepped(from, direction) & through;
    if (more == from) return from;
    from = more;
  }
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
  for (int i = 0; i < lines.count; ++i)
    if ((in & lineMask(lines, i)) == lineMask(lines, i)) return true;
  return false;
}

template <int W>
Bits<W> Machine<W>::lineCells(const Set& in, const LineSet& lines) const {
  Set out = Set::none();
  for (int i = 0; i < lines.count; ++i)
    if ((in & lineMask(lines, i)) == lineMask(lines, i)) out |= lineMask(lines, i);
  return out;
}

template <int W>
bool Machine<W>::stuck(int side) {
  AnySink any;
  std::uint64_t turn = memory_[Layout::turn];
  memory_[Layout::turn] = static_cast<std::uint64_t>(side);
  run(program_->generateNoPass[side], any);
  memory_[Layout::turn] = turn;
  return !any.found;
}

template <int W>
bool Machine<W>::put(const Set& cells, int kind, int side, int statement) {
  const Layout& layout = program_->layout;
  Set taken = minus(cells, at(layout.empty));
  if (taken.any()) {
    fault(statement, taken.first());
    return false;
  }
  at(layout.sides[side]) |= cells;
  at(layout.empty).remove(cells);
  if (!layout.kinds.empty()) at(layout.kinds[kind]) |= cells;
  return true;
}

template <int W>
void Machine<W>::take(const Set& cells) {
  const Layout& layout = program_->layout;
  at(layout.sides[0]).remove(cells);
  at(layout.sides[1]).remove(cells);
  for (Slot kind : layout.kinds) at(kind).remove(cells);
  at(layout.empty) |= cells & tableSet(program_->allAt);
}

template <int W>
bool Machine<W>::shift(std::int64_t from, std::int64_t to, int statement) {
  const Layout& layout = program_->layout;
  if (from < 0 || to < 0 || from == to) return true;
  Set source = Set::of(static_cast<int>(from)), target = Set::of(static_cast<int>(to));
  if (at(layout.empty).has(static_cast<int>(from))) return true;
  if (!at(layout.empty).has(static_cast<int>(to))) {
    fault(statement, static_cast<int>(to));
    return false;
  }
  auto carry = [&](Slot plane) {
    if (!at(plane).has(static_cast<int>(from))) return;
    at(plane).remove(source);
    at(plane) |= target;
  };
  carry(layout.sides[0]);
  carry(layout.sides[1]);
  for (Slot kind : layout.kinds) carry(kind);
  at(layout.empty) |= source;
  at(layout.empty).remove(target);
  return true;
}

template <int W>
void Machine<W>::flip(const Set& cells) {
  const Layout& layout = program_->layout;
  Set first = at(layout.sides[0]) & cells, second = at(layout.sides[1]) & cells;
  at(layout.sides[0]).remove(first);
  at(layout.sides[0]) |= second;
  at(layout.sides[1]).remove(second);
  at(layout.sides[1]) |= first;
}

}  // namespace ninepegs::sheet
