// What a machine does with sets and pieces: the work behind single instructions. Part of
// machine.hpp.
#pragma once

#include <utility>

#include "ninepegs/base/random.hpp"
#include "ninepegs/sheet/machine/fills.hpp"
#include "ninepegs/sheet/machine/machine.hpp"

namespace ninepegs::sheet {

// What can be slid to from one cell, from the tables of the group; only boards of one word have
// any.
template <int W>
Bits<W> Machine<W>::slidByTable(std::int64_t cell, const Set& through, int group) const {
  Set out = Set::none();
  for (int table : program_->slidesOfGroups[group]) {
    const SlideCell& at = program_->slideTables[table][static_cast<std::size_t>(cell)];
    out.word[0] |= program_->slideSets[at.first + gathered(~through.word[0], at.mask)];
  }
  return out;
}

template <int W>
Bits<W> Machine<W>::slidFrom(std::int64_t cell, const Set& through, int group) const {
  if (cell < 0) return Set::none();
  if (program_->slidesByTable(group)) return slidByTable(cell, through, group);
  return slid(cellAsSet(cell), through, group);
}

template <int W>
Bits<W> Machine<W>::slid(const Set& from, const Set& through, int group) const {
  Set out = Set::none();
  if (program_->slidesByTable(group)) {
    for (Set rest = from; rest.any(); rest.dropFirst())
      out |= slidByTable(rest.first(), through, group);
    return out;
  }
  if (!program_->rays.empty()) {
    const std::vector<RayPart>& rays = program_->raysOfGroups[group];
    const std::uint64_t* tables = program_->tables.data();
    spend(rays.size() * static_cast<std::size_t>(from.count() * W) / 8);
    for (Set rest = from; rest.any(); rest.dropFirst()) {
      int cell = rest.first();
      for (const RayPart& way : rays) {
        const Set* all = reinterpret_cast<const Set*>(tables + way.at);
        Set stops = minus(all[cell], through);
        Set ray = all[cell];
        if (stops.any()) ray.remove(all[way.up ? stops.first() : stops.last()]);
        out |= ray;
      }
    }
    return out;
  }
  for (int direction : program_->groupsOfDirections[group]) {
    Set passed = Set::none();
    Set front = stepped(from, direction);
    while (front.any()) {
      spend(W);
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
  if constexpr (W == 1) {
    const std::vector<FourTurns>& turns = program_->turnsOfGroups[group];
    if (!turns.empty() && processor.wide) {
      out.word[0] = runsBetween(run.word[0], static_cast<int>(cell), by.word[0], turns,
                                program_->fillDoublings);
      return out;
    }
    if (!program_->rays.empty()) {
      std::uint64_t found = 0;
      for (const RayPart& way : program_->raysOfGroups[group]) {
        std::uint64_t ray = program_->tables[way.at + static_cast<int>(cell)];
        std::uint64_t stops = ray & ~run.word[0];
        // The run ends on the first other cell of the ray; no branch foretells where that is.
        std::uint64_t end = way.up ? stops & (0 - stops) : std::bit_floor(stops);
        end &= by.word[0];
        found |= ray & (way.up ? end - (end != 0 ? 1 : 0) : 0 - (end << 1));
      }
      out.word[0] = found;
      return out;
    }
  }
  for (int direction : program_->groupsOfDirections[group]) {
    if (!program_->rays.empty()) {
      int rays = program_->rays[direction];
      const Set& ray = tableSet(rays + static_cast<int>(cell) * W);
      Set stops = minus(ray, run);
      if (!stops.any()) continue;
      int stop = program_->rayUp[direction] ? stops.first() : stops.last();
      if (by.has(stop)) out |= minus(minus(ray, tableSet(rays + stop * W)), Set::of(stop));
      continue;
    }
    const std::vector<std::int16_t>& next = program_->next[direction];
    Set found = Set::none();
    int at = next[cell];
    std::size_t length = 0;
    while (at >= 0 && at != cell && run.has(at) &&
           length < limits::cells) {  // round a ring it comes back to the cell
      found |= Set::of(at);
      at = next[at];
      ++length;
    }
    spend(length / 8);
    if (at >= 0 && by.has(at) && !run.has(at)) out |= found;
  }
  return out;
}

// Runs grow from where they end, against each direction in turn.
template <int W>
Bits<W> Machine<W>::bracketing(const Set& run, const Set& by, int group) const {
  Set out = Set::none(), last = minus(by, run);
  if constexpr (W == 1) {
    const std::vector<FourTurns>& turns = program_->turnsOfGroups[group];
    if (!turns.empty()) {
      out.word[0] = behindRuns(run.word[0], last.word[0], turns, program_->fillDoublings);
      return out;
    }
  }
  for (int direction : program_->groupsOfDirections[group]) {
    Set front = stepped(last, direction) & run, all = front;
    while (front.any()) {
      spend(W);
      front = minus(stepped(front, direction) & run, all);
      all |= front;
    }
    out |= stepped(all, direction);
  }
  return out;
}

template <int W>
Bits<W> Machine<W>::touched() const {
  const Layout& layout = program_->layout;
  Set out = Set::none();
  for (int at = layout.sides[0]; at < layout.planesEnd; at += W)
    for (int k = 0; k < W; ++k)
      out.word[k] |= memory_[at + k] ^ memory_[program_->beforeAt + at + k];
  return out;
}

template <int W>
Bits<W> Machine<W>::between(std::int64_t a, std::int64_t b) const {
  if (a < 0 || b < 0 || a == b) return Set::none();
  for (const std::vector<std::int16_t>& next : program_->next) {
    Set passed = Set::none();
    std::size_t length = 0;
    for (int at = next[a]; at >= 0 && at != a && length < limits::cells; at = next[at], ++length) {
      if (at == b) return passed;
      passed |= Set::of(at);
    }
    spend(length / 8);
  }
  return Set::none();
}

template <int W>
std::int64_t Machine<W>::beyond(std::int64_t over, std::int64_t from) const {
  if (over < 0 || from < 0 || over == from) return -1;
  for (const std::vector<std::int16_t>& next : program_->next) {
    std::size_t length = 0;
    for (int at = next[from]; at >= 0 && at != from && length < limits::cells;
         at = next[at], ++length)
      if (at == over) return next[at];
    spend(length / 8);
  }
  return -1;
}

template <int W>
Bits<W> Machine<W>::spread(Set from, const Set& through, int group) const {
  from &= through;
  const std::size_t round = program_->groupsOfDirections[group].size() * (W + 1) / 2;
  while (true) {
    spend(round);
    Set more = from;
    for (int direction : program_->groupsOfDirections[group])
      more |= stepped(from, direction) & through;
    if (more == from) return from;
    from = more;
  }
}

template <int W>
template <class Sink>
void Machine<W>::offer(int side, Sink& sink) {
  std::uint64_t turn = memory_[Layout::turn];
  memory_[Layout::turn] = static_cast<std::uint64_t>(side);
  int phase = std::exchange(phase_, 0);  // moves may be asked for while others are measured
  run(program_->generateNoPass[side], sink);
  phase_ = phase;
  memory_[Layout::turn] = turn;
}

template <int W>
bool Machine<W>::stuck(int side) {
  AnySink any;
  offer(side, any);
  return !any.found;
}

// The same for a position whose ply is over: asked once, and the moves of the side to move are kept
// for whoever plays on.
template <int W>
bool Machine<W>::stuckNow(int side) {
  if (!settled_) return stuck(side);
  if (stuck_[side] >= 0) return stuck_[side] == 1;
  int left = std::exchange(steps_, limits::loopSteps);
  int lookAt = std::exchange(lookAt_, limits::loopSteps - static_cast<int>(stepsALook));
  if (room_ != nullptr && side == turn()) {
    room_->clear();
    offer(side, *room_);
    roomHoldsAll_ = exhaustedAt_ < 0;
    if (roomHoldsAll_) {
      stuck_[side] = room_->total > 0 ? 0 : 1;
    } else if (!brokenOff_) {  // too many to find them all, but is there one?
      exhaustedAt_ = -1;
      tooManyChoices_ = false;
      steps_ = limits::loopSteps;
    }
  }
  if (stuck_[side] < 0 && !brokenOff_) stuck_[side] = stuck(side) ? 1 : 0;
  aside_ += limits::loopSteps - std::int64_t{steps_};
  if (exhaustedAt_ < 0) steps_ = left, lookAt_ = lookAt;
  return stuck_[side] == 1;
}

template <int W>
std::int64_t Machine<W>::movesOf(int side) {
  CountSink count;
  offer(side, count);
  return static_cast<std::int64_t>(count.total);
}

// A sum of one scrambled number for each word and each move.
template <int W>
std::uint64_t Machine<W>::seenHash() {
  spend(bytes() / 32);
  std::uint64_t hash = program_->seenTurn ? memory_[Layout::turn] : 0;
  for (const auto& [from, count] : program_->seenWords)
    for (int i = from; i < from + count; ++i)
      hash += scrambled(memory_[i] ^ scrambled(static_cast<std::uint64_t>(i)));
  struct HashSink : NoSink {
    std::uint64_t hash = 0;
    void add(int group, const std::uint64_t* choices, int count) {
      std::uint64_t move = static_cast<std::uint64_t>(group);
      for (int i = 0; i < count; ++i) move = scrambled(move ^ choices[i]);
      hash += scrambled(move);
    }
    void many(int group, const std::uint64_t* choices, int count, const Set& last, int base = 0) {
      std::uint64_t all[limits::choices];
      std::copy(choices, choices + count, all);
      for (Set rest = last; rest.any(); rest.dropFirst()) {
        all[count - 1] = static_cast<std::uint64_t>(base + rest.first());
        add(group, all, count);
      }
    }
    void one(int group, const std::uint64_t* choices, int count) { add(group, choices, count); }
  } sink;
  int phase = std::exchange(phase_, 0);
  for (const auto& routines : program_->seenMoves) run(routines[memory_[Layout::turn]], sink);
  phase_ = phase;
  return hash + sink.hash;
}

template <int W>
bool Machine<W>::put(Set cells, int kind, int side, int statement) {
  const Layout& layout = program_->layout;
  if (kind < 0) return fault(statement, FaultReason::noKind);
  if (program_->kindsDiffer) {
    if (program_->kindSides[kind] == 3) side = 2;  // a chosen kind may be nobody's
    if (!mayBelong(kind, side)) return fault(statement, FaultReason::wrongSide);
  }
  int layer = side > 1 ? 0 : side;  // of nobody: 2
  Set taken = minus(cells, at(layout.empty[layer]));
  if (taken.any()) return fault(statement, FaultReason::occupied, taken.first());
  if (side <= 1) at(layout.sides[side]) |= cells;
  at(layout.empty[layer]).remove(cells);
  if (!layout.kinds.empty()) at(layout.kinds[kind][layer]) |= cells;
  return true;
}

// On a board of one each, what a side moves and takes is its own.
template <int W>
void Machine<W>::take(Set cells) {
  const Layout& layout = program_->layout;
  int mover = turn();
  for (int side = 0; side < 2; ++side) {
    if (layout.layered && side != mover) continue;
    at(layout.sides[side]).remove(cells);
    for (const Layout::BySide& kind : layout.kinds) at(kind[side]).remove(cells);
  }
  at(layout.empty[mover]) |= cells & tableSet(program_->allAt);
}

template <int W>
bool Machine<W>::shift(std::int64_t from, std::int64_t to, int statement) {
  const Layout& layout = program_->layout;
  if (from < 0 || to < 0 || from == to) return true;
  int mover = turn();
  Set source = Set::of(static_cast<int>(from)), target = Set::of(static_cast<int>(to));
  Set& empty = at(layout.empty[mover]);
  if (empty.has(static_cast<int>(from))) return true;
  if (!empty.has(static_cast<int>(to))) return fault(statement, FaultReason::occupied, to);
  auto carry = [&](Slot plane) {
    if (!at(plane).has(static_cast<int>(from))) return;
    at(plane).remove(source);
    at(plane) |= target;
  };
  if (!layout.layered || mover == 0) carry(layout.sides[0]);
  if (!layout.layered || mover == 1) carry(layout.sides[1]);
  for (const Layout::BySide& kind : layout.kinds) carry(kind[mover]);
  empty |= source;
  empty.remove(target);
  return true;
}

// All at once; what would leave the board stays. Two pieces never come to the same cell by one
// direction, so only a piece that stays can be in the way.
template <int W>
bool Machine<W>::shiftAll(Set cells, int direction, int statement) {
  const Layout& layout = program_->layout;
  int mover = turn();
  Set go = minus(cells, at(layout.empty[mover])), arrive = Set::none();
  const std::vector<std::int16_t>& next = program_->next[direction];
  spend(static_cast<std::size_t>(go.count()) / 8);
  for (Set rest = go; rest.any(); rest.dropFirst())
    if (next[rest.first()] < 0) go.remove(Set::of(rest.first()));
  arrive = stepped(go, direction);
  Set taken = minus(arrive, at(layout.empty[mover]) | go);
  if (taken.any()) return fault(statement, FaultReason::occupied, taken.first());
  auto carry = [&](Slot plane) {
    Set moving = at(plane) & go;
    at(plane).remove(go);
    at(plane) |= stepped(moving, direction);
  };
  for (int side = 0; side < 2; ++side)
    if (!layout.layered || side == mover) carry(layout.sides[side]);
  for (const Layout::BySide& kind : layout.kinds) carry(kind[mover]);
  at(layout.empty[mover]) |= go;
  at(layout.empty[mover]).remove(arrive);
  return true;
}

template <int W>
bool Machine<W>::flip(Set cells, int statement) {
  const Layout& layout = program_->layout;
  Set first = at(layout.sides[0]) & cells, second = at(layout.sides[1]) & cells;
  for (int kind = 0; program_->kindsDiffer && kind < program_->kinds; ++kind) {
    if (program_->kindSides[kind] == 0) continue;
    Set bound = first | second;
    if (!layout.kinds.empty()) bound &= at(layout.kinds[kind][0]);
    if (bound.any()) return fault(statement, FaultReason::wrongSide, bound.first());
  }
  at(layout.sides[0]).remove(first);
  at(layout.sides[0]) |= second;
  at(layout.sides[1]).remove(second);
  at(layout.sides[1]) |= first;
  return true;
}

template <int W>
bool Machine<W>::change(Set cells, int kind, int statement) {
  const Layout& layout = program_->layout;
  if (kind < 0) return fault(statement, FaultReason::noKind);
  int mover = turn();
  Set here = minus(cells, at(layout.empty[mover]));
  if (program_->kindsDiffer) {
    Set wrong = Set::none(), nobodys = here;
    for (int side = 0; side < 2; ++side) {
      nobodys.remove(at(layout.sides[side]));
      if (!mayBelong(kind, side) && (!layout.layered || side == mover))
        wrong |= here & at(layout.sides[side]);
    }
    if (!mayBelong(kind, 2)) wrong |= nobodys;
    if (wrong.any()) return fault(statement, FaultReason::wrongSide, wrong.first());
  }
  if (layout.kinds.empty()) return true;
  for (const Layout::BySide& plane : layout.kinds) at(plane[mover]).remove(here);
  at(layout.kinds[kind][mover]) |= here;
  return true;
}

}  // namespace ninepegs::sheet
