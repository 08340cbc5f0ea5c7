// Runs a program. One machine holds one position; it is a plain value with all its memory inside,
// cheap to make, never allocating, and not to be shared between threads.
//
//   Machine<1> machine(program);
//   machine.load(position);
//   ListOf<1> moves; machine.generate(moves);
//   machine.apply(group, choices); machine.store(position);
#pragma once

#include <algorithm>
#include <cstdint>
#include <cstring>
#include <span>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/board/bits.hpp"
#include "ninepegs/sheet/program.hpp"

namespace ninepegs::sheet {

// A sink takes the moves that a generator finds: `one` for a single move, `many` for one move a
// cell of the last choice, `pass`. `any` tells whether one came; `enough` that no more are needed.
struct NoSink {
  template <class Set>
  void many(int, const std::uint64_t*, int, const Set&) {}
  void one(int, const std::uint64_t*, int) {}
  void pass() {}
  bool any() const { return false; }
  bool enough() const { return false; }
};

struct AnySink : NoSink {
  bool found = false;
  template <class Set>
  void many(int, const std::uint64_t*, int, const Set& last) {
    found = found || last.any();
  }
  void one(int, const std::uint64_t*, int) { found = true; }
  void pass() { found = true; }
  bool any() const { return found; }
  bool enough() const { return found; }
};

struct CountSink : NoSink {
  std::uint64_t total = 0;
  template <class Set>
  void many(int, const std::uint64_t*, int, const Set& last) {
    total += static_cast<std::uint64_t>(last.count());
  }
  void one(int, const std::uint64_t*, int) { ++total; }
  void pass() { ++total; }
  bool any() const { return total > 0; }
};

template <int W>
class Machine {
 public:
  using Set = Bits<W>;

  explicit Machine(const Program& program) : program_(&program) {
    std::memcpy(memory_ + program.constantsAt, program.constants.data(),
                program.constants.size() * sizeof(std::uint64_t));
    memory_[program.againSlot] = 0;
  }

  void load(const std::uint64_t* position) { std::memcpy(memory_, position, bytes()); }
  void store(std::uint64_t* position) const { std::memcpy(position, memory_, bytes()); }
  std::uint64_t word(Slot slot) const { return memory_[slot]; }
  std::int64_t number(Slot slot) const { return static_cast<std::int64_t>(memory_[slot]); }
  Set set(Slot slot) const {
    Set out;
    std::memcpy(&out, memory_ + slot, sizeof out);
    return out;
  }
  int turn() const { return static_cast<int>(memory_[Layout::turn]); }
  std::uint64_t result() const { return memory_[Layout::result]; }

  // Legal moves of the side to move; nothing if the game has ended.
  template <class Sink>
  void generate(Sink& sink) {
    if (memory_[Layout::result] == 0) run(program_->generate[memory_[Layout::turn]], sink);
  }

  // Plays a legal move: the position becomes the next one, with its result.
  void apply(int group, const std::uint16_t* choices, int count) {
    for (int i = 0; i < count; ++i) memory_[program_->choicesAt + i] = choices[i];
    applyChosen(group);
  }
  // The same, with the choices in memory already.
  void applyChosen(int group) {
    int side = turn();
    NoSink none;
    run(group == passGroup ? program_->passApply[side] : program_->groups[group].apply[side], none);
  }
  void setChoice(int index, std::uint64_t value) { memory_[program_->choicesAt + index] = value; }

  void runRoutine(int routine) {
    NoSink none;
    run(routine, none);
  }
  // Counts into `uses` (one number for each statement) from now on; only for programs with
  // coverage.
  void countInto(std::span<std::uint64_t> uses) { uses_ = uses; }
  void setResult(std::uint64_t result) { memory_[Layout::result] = result; }

 private:
  std::size_t bytes() const { return program_->layout.words * sizeof(std::uint64_t); }
  Set& at(Slot slot) { return *reinterpret_cast<Set*>(memory_ + slot); }
  std::int64_t num(Slot slot) const { return static_cast<std::int64_t>(memory_[slot]); }
  void setNum(Slot slot, std::int64_t value) { memory_[slot] = static_cast<std::uint64_t>(value); }
  const Set& tableSet(int where) const {
    return *reinterpret_cast<const Set*>(program_->tables.data() + where);
  }
  Set cellAsSet(std::int64_t cell) const {
    return cell < 0 ? Set::none() : Set::of(static_cast<int>(cell));
  }

  Set stepped(const Set& from, int direction) const {
    const std::vector<ShiftPart>& parts = program_->directions[direction];
    Set out = Set::none();
    for (const ShiftPart& part : parts) out |= shifted(from, part.amount) & tableSet(part.mask);
    return out;
  }
  Set slid(const Set& from, const Set& through, int group) const;
  Set bracketed(const Set& run, std::int64_t cell, const Set& by, int group) const;
  Set between(std::int64_t a, std::int64_t b) const;
  std::int64_t beyond(std::int64_t over, std::int64_t from) const;
  Set spread(Set from, const Set& through, int group) const;
  bool hasLine(const Set& in, const LineSet& lines) const;
  Set lineCells(const Set& in, const LineSet& lines) const;
  static Set runs(const Set& in, int amount, int length);
  const Set& lineMask(const LineSet& lines, int index) const {
    return tableSet(lines.masks + index * W);
  }
  bool stuck(int side);

  int kindOf(const Instruction& i) const { return i.n == 0 ? i.c : static_cast<int>(memory_[i.c]); }
  void fault(int statement, int cell) {
    memory_[Layout::result] =
        resultWord(Verdict::fault, 0, false, statement) | static_cast<std::uint64_t>(cell) << 40;
  }
  bool put(const Set& cells, int kind, int side, int statement);
  void take(const Set& cells);
  bool shift(std::int64_t from, std::int64_t to, int statement);
  void flip(const Set& cells);

  template <class Sink>
  void run(int pc, Sink& sink);

  const Program* program_;
  std::span<std::uint64_t> uses_;
  alignas(64) std::uint64_t memory_[limits::memoryWords];
};

template <int W>
Bits<W> Machine<W>::slid(const Set& from, const Set& through, int group) const {
  Set out = Set::none();
  for (int direction : program_->groupsOfDirections[group]) {
    Set front = stepped(from, direction);
    while (front.any()) {
      Set fresh = minus(front, out);
      out |= front;
      front = stepped(fresh & through, direction);
    }
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

// The cells from which `length` cells, each `amount` bits on, are all in the set.
template <int W>
Bits<W> Machine<W>::runs(const Set& in, int amount, int length) {
  Set out = in;
  for (int have = 1; have < length;) {
    int more = std::min(have, length - have);
    out &= shifted(out, -amount * more);
    have += more;
  }
  return out;
}

template <int W>
bool Machine<W>::hasLine(const Set& in, const LineSet& lines) const {
  if (!lines.axes.empty()) {
    for (const LineAxis& axis : lines.axes)
      if ((runs(in, axis.amount, lines.length) & tableSet(axis.starts)).any()) return true;
    return false;
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

template <int W>
template <class Sink>
void Machine<W>::run(int pc, Sink& sink) {
  const Instruction* const code = program_->code.data();
  const std::uint64_t* const choices = memory_ + program_->choicesAt;
  const Instruction* at_ = code + pc;
  while (true) {
    const Instruction& i = *at_++;
    auto go = [&](bool when) {
      if (when) at_ = code + i.n;
    };
    auto statement = [&] { return program_->statementOf[&i - code]; };
    switch (i.op) {
      case Op::stop:
        return;
      case Op::jump:
        at_ = code + i.n;
        break;
      case Op::copySet:
        at(i.a) = at(i.b);
        break;
      case Op::both:
        at(i.a) = at(i.b) & at(i.c);
        break;
      case Op::either:
        at(i.a) = at(i.b) | at(i.c);
        break;
      case Op::minus:
        at(i.a) = minus(at(i.b), at(i.c));
        break;
      case Op::clear:
        at(i.a) = Set::none();
        break;
      case Op::cellSet:
        at(i.a) = cellAsSet(num(i.b));
        break;
      case Op::setCell:
        setNum(i.a, at(i.b).first());
        break;
      case Op::step:
        at(i.a) = stepped(at(i.b), i.n);
        break;
      case Op::steps: {
        Set out = Set::none();
        for (int direction : program_->groupsOfDirections[i.n]) out |= stepped(at(i.b), direction);
        at(i.a) = out;
        break;
      }
      case Op::table: {
        std::int64_t cell = num(i.b);
        at(i.a) = cell < 0 ? Set::none()
                           : tableSet(program_->cellTables[i.n] + static_cast<int>(cell) * W);
        break;
      }
      case Op::tableAll: {
        Set rest = at(i.b), out = Set::none();
        for (; rest.any(); rest.dropFirst())
          out |= tableSet(program_->cellTables[i.n] + rest.first() * W);
        at(i.a) = out;
        break;
      }
      case Op::slide:
        at(i.a) = slid(at(i.b), at(i.c), i.n);
        break;
      case Op::between:
        at(i.a) = between(num(i.b), num(i.c));
        break;
      case Op::beyond:
        setNum(i.a, beyond(num(i.b), num(i.c)));
        break;
      case Op::bracketed:
        at(i.a) = bracketed(at(i.b), num(i.c), at(i.d), i.n);
        break;
      case Op::lineCells:
        at(i.a) = lineCells(at(i.b), program_->lineSets[i.n]);
        break;
      case Op::spread:
        at(i.a) = spread(at(i.b), at(i.c), i.n);
        break;
      case Op::count:
        setNum(i.a, at(i.b).count());
        break;
      case Op::countLines: {
        const LineSet& lines = program_->lineSets[i.n];
        std::int64_t total = 0;
        for (int k = 0; k < lines.count; ++k)
          total += (at(i.b) & lineMask(lines, k)) == lineMask(lines, k) ? 1 : 0;
        setNum(i.a, total);
        break;
      }
      case Op::copyNumber:
        memory_[i.a] = memory_[i.b];
        break;
      // Unsigned words, so that no overflow is undefined.
      case Op::add:
        memory_[i.a] = memory_[i.b] + memory_[i.c];
        break;
      case Op::subtract:
        memory_[i.a] = memory_[i.b] - memory_[i.c];
        break;
      case Op::multiply:
        memory_[i.a] = memory_[i.b] * memory_[i.c];
        break;
      case Op::divide: {
        std::int64_t by = num(i.c);
        setNum(i.a, by == 0    ? 0
                    : by == -1 ? static_cast<std::int64_t>(0 - memory_[i.b])
                               : num(i.b) / by);
        break;
      }
      case Op::remainder: {
        std::int64_t by = num(i.c);
        setNum(i.a, by == 0 || by == -1 ? 0 : num(i.b) % by);
        break;
      }
      case Op::least:
        setNum(i.a, std::min(num(i.b), num(i.c)));
        break;
      case Op::greatest:
        setNum(i.a, std::max(num(i.b), num(i.c)));
        break;
      case Op::property: {
        const std::vector<std::int64_t>& values = program_->properties[i.n];
        const Layout& layout = program_->layout;
        std::int64_t cell = num(i.b), value = 0;
        if (cell >= 0 && !at(layout.empty).has(static_cast<int>(cell))) {
          if (layout.kinds.empty()) value = values[0];
          for (std::size_t k = 0; k < layout.kinds.size(); ++k)
            if (at(layout.kinds[k]).has(static_cast<int>(cell))) value = values[k];
        }
        setNum(i.a, value);
        break;
      }
      case Op::rowNumber:
        setNum(i.a, num(i.b) < 0 ? 0 : program_->rowNumbers[num(i.b)]);
        break;
      case Op::columnNumber:
        setNum(i.a, num(i.b) < 0 ? 0 : program_->columnNumbers[num(i.b)]);
        break;
      case Op::jumpAny:
        go(at(i.b).any());
        break;
      case Op::jumpNone:
        go(!at(i.b).any());
        break;
      case Op::jumpIn:
        go(num(i.b) >= 0 && at(i.c).has(static_cast<int>(num(i.b))));
        break;
      case Op::jumpOut:
        go(num(i.b) < 0 || !at(i.c).has(static_cast<int>(num(i.b))));
        break;
      case Op::jumpWithin:
        go(!minus(at(i.b), at(i.c)).any());
        break;
      case Op::jumpBeyond:
        go(minus(at(i.b), at(i.c)).any());
        break;
      case Op::jumpLine:
        go(hasLine(at(i.b), program_->lineSets[i.c]));
        break;
      case Op::jumpNoLine:
        go(!hasLine(at(i.b), program_->lineSets[i.c]));
        break;
      case Op::jumpEqual:
        go(memory_[i.b] == memory_[i.c]);
        break;
      case Op::jumpUnequal:
        go(memory_[i.b] != memory_[i.c]);
        break;
      case Op::jumpLess:
        go(num(i.b) < num(i.c));
        break;
      case Op::jumpLessEqual:
        go(num(i.b) <= num(i.c));
        break;
      case Op::jumpStuck:
        go(stuck(turn()));
        break;
      case Op::jumpUnstuck:
        go(!stuck(turn()));
        break;
      case Op::jumpNobody:
        go(stuck(0) && stuck(1));
        break;
      case Op::jumpSomebody:
        go(!stuck(0) || !stuck(1));
        break;
      case Op::nextCell:
        if (at(i.b).any()) {
          setNum(i.a, at(i.b).first());
          at(i.b).dropFirst();
        } else {
          at_ = code + i.n;
        }
        break;
      case Op::nextLine: {
        const LineSet& lines = program_->lineSets[i.d];
        std::int64_t index = num(i.b);
        while (index < lines.count && (at(i.c) & lineMask(lines, static_cast<int>(index))) !=
                                          lineMask(lines, static_cast<int>(index)))
          ++index;
        setNum(i.b, index + 1);
        if (index < lines.count)
          at(i.a) = lineMask(lines, static_cast<int>(index));
        else
          at_ = code + i.n;
        break;
      }
      case Op::emitOne:
        sink.one(i.n, choices, i.a);
        if (sink.enough()) return;
        break;
      case Op::emitMany:
        sink.many(i.n, choices, i.a, at(i.b));
        if (sink.enough()) return;
        break;
      case Op::emitPass:
        sink.pass();
        if (sink.enough()) return;
        break;
      case Op::tierEnd:
        if (sink.any()) return;
        break;
      case Op::put:
        if (!put(at(i.b), kindOf(i), i.d, statement())) return;
        break;
      case Op::putCell:
        if (!put(cellAsSet(num(i.b)), kindOf(i), i.d, statement())) return;
        break;
      case Op::take:
        take(at(i.b));
        break;
      case Op::shift:
        if (!shift(num(i.b), num(i.c), statement())) return;
        break;
      case Op::flip:
        flip(at(i.b));
        break;
      case Op::change: {
        const Layout& layout = program_->layout;
        Set cells = minus(at(i.b), at(layout.empty));
        for (Slot kind : layout.kinds) at(kind).remove(cells);
        if (!layout.kinds.empty()) at(layout.kinds[kindOf(i)]) |= cells;
        break;
      }
      case Op::again:
        memory_[program_->againSlot] = 1;
        break;
      case Op::turnOver:
        ++memory_[Layout::plies];
        memory_[Layout::turn] ^= 1 ^ memory_[program_->againSlot];
        memory_[program_->againSlot] = 0;
        at_ = code + i.n;
        break;
      case Op::cover:
        if (!uses_.empty()) ++uses_[i.n];
        break;
    }
  }
}

}  // namespace ninepegs::sheet
