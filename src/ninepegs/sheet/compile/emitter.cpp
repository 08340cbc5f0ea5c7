#include "ninepegs/sheet/compile/emitter.hpp"

#include <algorithm>

namespace ninepegs::sheet {

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

namespace {

// How many plain instructions one takes the time of.
int weightOf(Op op) {
  switch (op) {
    case Op::bracketed:
    case Op::bracketing:
    case Op::lineCells:
    case Op::countLines:
    case Op::linesThrough:
    case Op::linesOfLength:
    case Op::jumpLine:
    case Op::jumpNoLine:
    case Op::spread:
    case Op::groups:
      return 8;
    default:
      return 1;
  }
}

}  // namespace

// A step of limits::loopSteps is about what four instructions on a board of one word take.
Slot Emitter::weightSince(int begun) const {
  return weightBetween(begun, here());
}

Slot Emitter::weightBetween(int begun, int end) const {
  int weight = 0;
  for (int at = begun; at < end; ++at) weight += weightOf(program_.code[at].op);
  weight = 1 + weight * std::max(1, program_.words / 2) / 4;
  return static_cast<Slot>(std::min(weight, 0xffff));
}

void Emitter::weighLoop(int begun) {
  program_.code[begun].d = weightSince(begun);
}

void Emitter::weighLoops(int begun) {
  for (int at = begun; at < here(); ++at)
    if (program_.code[at].op == Op::nextCell && program_.code[at].d == 0) weighLoop(at);
}

void Emitter::weighPicks(int begun) {
  for (int at = here() - 1, end = here(); at >= begun; --at) {
    Instruction& one = program_.code[at];
    if (one.op != Op::pickCell && one.op != Op::pickNumber && one.op != Op::pickLine) continue;
    one.d = weightBetween(at, end);
    end = at;
  }
}

void Emitter::weigh(int begun) {
  add(Op::weigh, 0, 0, 0, weightSince(begun));
}

bool Emitter::sameSince(int from, int between) const {
  int length = between - from;
  if (here() - between != length) return false;
  for (int k = 0; k < length; ++k) {
    const Instruction &one = program_.code[from + k], &other = program_.code[between + k];
    if (one.op != other.op || one.a != other.a || one.b != other.b || one.c != other.c ||
        one.d != other.d || one.n != other.n ||
        program_.statementOf[from + k] != program_.statementOf[between + k])
      return false;
  }
  // Where their jumps lead, in the order in which they were added.
  std::vector<std::pair<int, int>> first, second;
  for (const auto& [instruction, label] : jumps_) {
    if (instruction >= between)
      second.emplace_back(instruction - between, labels_[label] - between);
    else if (instruction >= from)
      first.emplace_back(instruction - from, labels_[label] - from);
  }
  return first == second;
}

bool Emitter::mayLoop(int from) const {
  auto straight = [](Op op) {
    switch (op) {
      case Op::copySet:
      case Op::both:
      case Op::either:
      case Op::minus:
      case Op::clear:
      case Op::cellSet:
      case Op::setCell:
      case Op::step:
      case Op::steps:
      case Op::count:
      case Op::copyNumber:
      case Op::add:
      case Op::subtract:
      case Op::multiply:
      case Op::least:
      case Op::greatest:
      case Op::handTotal:
      case Op::handOf:
      case Op::kindPlane:
      case Op::jump:
      case Op::jumpAny:
      case Op::jumpNone:
      case Op::jumpIn:
      case Op::jumpOut:
      case Op::jumpWithin:
      case Op::jumpBeyond:
      case Op::jumpSame:
      case Op::jumpOther:
      case Op::jumpEqual:
      case Op::jumpUnequal:
      case Op::jumpLess:
      case Op::jumpLessEqual:
        return true;
      default:
        return false;
    }
  };
  return std::any_of(program_.code.begin() + from, program_.code.end(),
                     [&](const Instruction& one) { return !straight(one.op); });
}

void Emitter::cutBack(int to) {
  std::erase_if(jumps_, [&](const auto& jump) { return jump.first >= to; });
  program_.code.resize(static_cast<std::size_t>(to));
  program_.statementOf.resize(static_cast<std::size_t>(to));
}

void Emitter::finish() {
  for (const auto& [instruction, label] : jumps_) program_.code[instruction].n = labels_[label];
  if (takes(Shortcut::fused)) fuse();
  program_.turnsOfGroups.resize(program_.groupsOfDirections.size());
  if (takes(Shortcut::turns)) makeTurns();
  if (takes(Shortcut::slideTables)) makeSlides();
}

// Puts pairs that come together often into one instruction. The second of a pair stays where it is,
// so that no jump changes.
void Emitter::fuse() {
  std::vector<Instruction>& code = program_.code;
  for (std::size_t k = 0; k + 1 < code.size(); ++k) {
    Instruction& one = code[k];
    const Instruction& next = code[k + 1];
    auto pair = [&](Op first, Op second) { return one.op == first && next.op == second; };
    if (one.op == Op::jumpAny && code[one.n].op == Op::stop)
      one.op = Op::stopAny;
    else if (pair(Op::step, Op::minus) && next.c == one.a)
      one = {Op::stepMinus, next.a, next.b, one.b, one.a, one.n};
    else if (pair(Op::cellSet, Op::slide) && next.b == one.a)
      one = {Op::slideFrom, next.a, one.b, next.c, one.a, next.n};
    else if (pair(Op::table, Op::both) && next.b == one.a)
      one = {Op::tableOn, next.a, one.b, next.c, one.a, one.n};
    else if (pair(Op::both, Op::jumpAny) && next.b == one.a)
      one.op = Op::bothAny, one.n = next.n;
    else if (pair(Op::both, Op::jumpNone) && next.b == one.a)
      one.op = Op::bothNone, one.n = next.n;
    else if (pair(Op::both, Op::count) && next.b == one.a)
      one = {Op::countBoth, next.a, one.b, one.c, one.a, 0};
    else if (pair(Op::weigh, Op::jump))
      one.op = Op::weighGo, one.n = next.n;
    else if (pair(Op::copySet, Op::jump))
      one.op = Op::copySetGo, one.n = next.n;
    else if (pair(Op::emitMany, Op::jump))
      one = {Op::emitManyGo, one.a, one.b, 0, static_cast<Slot>(one.n), next.n};
    else if (pair(Op::emitMany, Op::stop))
      one.op = Op::emitLast;
    else if (pair(Op::putCell, Op::turnOver) && one.n == 0)
      one.op = Op::putCellOver, one.n = next.n;
  }
}

void Emitter::begin(Scratch scratch) {
  scratch_ = scratch == Scratch::generator ? generatorFrom_
             : scratch == Scratch::trial   ? program_.trialAt
                                           : otherFrom_;
  scratchEnd_ = scratch == Scratch::generator ? program_.againSlot
                : scratch == Scratch::trial   ? program_.constantsAt
                                              : otherEnd_;
  statement_ = -1;
}

Slot Emitter::newSet() {
  Slot slot = scratch_;
  scratch_ = static_cast<Slot>(scratch_ + program_.words);
  if (scratch_ > scratchEnd_) {
    overflown_ = true;
    scratch_ = slot;
  }
  if (slot >= program_.trialAt) program_.trialEnd = std::max<int>(program_.trialEnd, scratch_);
  return slot;
}

Slot Emitter::newNumber() {
  Slot slot = scratch_;
  if (scratch_ + 1 > scratchEnd_)
    overflown_ = true;
  else
    ++scratch_;
  if (slot >= program_.trialAt) program_.trialEnd = std::max<int>(program_.trialEnd, scratch_);
  return slot;
}

std::vector<std::uint64_t> Emitter::words(const CellSet& set) const {
  std::vector<std::uint64_t> out(program_.words, 0);
  for (std::size_t cell = set._Find_first(); cell < limits::cells; cell = set._Find_next(cell))
    if (cell < out.size() * 64) out[cell / 64] |= std::uint64_t{1} << (cell % 64);
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
  if (it == all.end()) {
    it = all.insert(all.end(), directions);
    program_.raysOfGroups.emplace_back();
    for (int direction : directions)
      if (!program_.rays.empty())
        program_.raysOfGroups.back().push_back(
            {program_.rays[direction], program_.rayUp[direction]});
  }
  return static_cast<int>(it - all.begin());
}

int Emitter::cellTable(const std::string& key, const std::function<CellSet(Cell)>& cells) {
  auto it = tableKeys_.find(key);
  if (it != tableKeys_.end()) return it->second;
  int where = static_cast<int>(program_.tables.size());
  for (Cell cell = 0; cell < rules_.board.size(); ++cell)
    tableSet(rules_.board.has(cell) ? cells(cell) : CellSet{});
  program_.cellTables.push_back(where);
  return tableKeys_[key] = static_cast<int>(program_.cellTables.size()) - 1;
}

}  // namespace ninepegs::sheet
