#include "ninepegs/sheet/program/verify.hpp"

#include <fmt/format.h>

#include <bitset>
#include <deque>
#include <optional>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/sheet/program/instructions.hpp"

namespace ninepegs::sheet {

namespace {

using Written = std::bitset<limits::memoryWords + 8>;

bool goesOn(Op op) {  // to the next instruction, or the one behind it
  switch (op) {
    case Op::stop:
    case Op::fail:
    case Op::complete:
    case Op::emitLast:
    case Op::jump:
    case Op::turnOver:
    case Op::copySetGo:
    case Op::emitManyGo:
    case Op::weighGo:
    case Op::attempted:
    case Op::putCellOver:
      return false;
    default:
      return true;
  }
}

int lengthOf(Op op) {
  switch (op) {
    case Op::stepMinus:
    case Op::tableOn:
    case Op::slideFrom:
    case Op::bothAny:
    case Op::bothNone:
    case Op::countBoth:
      return 2;
    default:
      return 1;
  }
}

class Verifier {
 public:
  explicit Verifier(const Program& program) : program_(program) {}

  std::vector<std::string> run() {
    for (std::size_t at = 0; at < program_.code.size(); ++at) operands(static_cast<int>(at));
    if (faults_.empty()) flow();
    return faults_;
  }

 private:
  void fault(int at, const std::string& what) {
    if (faults_.size() < 20)
      faults_.push_back(fmt::format("{} {}: {}", at, name(program_.code[at].op), what));
  }

  // How many there are of what a role counts; none if it counts nothing.
  std::optional<std::size_t> countOf(char role) const {
    switch (role) {
      case 'j':
        return program_.code.size();
      case 't':
        return program_.cellTables.size();
      case 'g':
        return program_.groupsOfDirections.size();
      case 'd':
        return program_.directions.size();
      case 'l':
        return program_.lineSets.size();
      case 'f':
        return program_.lineFamilies.size();
      case 'p':
        return program_.properties.size();
      case 'r':
        return program_.tracks.size();
      case 'm':
        return program_.groups.size();
      case 'e':
        return program_.statementLines.size();
      case 'x':
        return program_.parts.size();
      default:
        return std::nullopt;
    }
  }

  static bool isSet(char role) { return role == 's' || role == 'S' || role == 'U'; }
  static bool isNumber(char role) { return role == 'i' || role == 'I' || role == 'V'; }
  static bool writes(char role) {
    return role == 'S' || role == 'U' || role == 'I' || role == 'V' || role == 'X';
  }
  bool constant(int slot) const {
    return slot >= program_.constantsAt &&
           slot < program_.constantsAt + static_cast<int>(program_.constants.size());
  }
  bool past(int slot) const {
    return program_.beforeAt != 0 && slot >= program_.beforeAt &&
           slot < program_.beforeAt + program_.layout.words;
  }

  void operand(int at, char role, int value) {
    if (std::optional<std::size_t> count = countOf(role)) {
      if (value < 0 || static_cast<std::size_t>(value) >= *count)
        fault(at, fmt::format("there is no number {} of {} ({})", value, *count, role));
      return;
    }
    if (!isSet(role) && !isNumber(role) && role != 'w' && role != 'X') return;
    int words = isSet(role) ? program_.words : 1;
    if (value < 0 || value + words > limits::memoryWords + program_.words)
      fault(at, fmt::format("the place {} lies outside of memory", value));
    if (writes(role) && (constant(value) || past(value)))
      fault(at, fmt::format("writes to {}, which must stay as it is", value));
  }

  // The roles of one instruction; a kind is a place only if n says so.
  std::string rolesAt(int at) const {
    const Instruction& one = program_.code[at];
    std::string out(roles(one.op));
    if (out[2] == 'k') out[2] = one.op != Op::putCellOver && one.n == 1 ? 'i' : '#';
    // Where a choice is read back, what it was chosen from is not worked out.
    bool read = one.op == Op::pickCell || one.op == Op::pickNumber || one.op == Op::pickLine;
    if (read && one.b == 0) out[1] = '-', out[2] = one.op == Op::pickLine ? out[2] : '-';
    if (one.op == Op::round && one.b == 0) out[1] = '-';
    if (one.op == Op::countLines && one.d == 0) out[2] = '-';
    if (one.op == Op::complete && one.a == 0) out[0] = '-';
    return out;
  }

  void operands(int at) {
    const Instruction& one = program_.code[at];
    std::string role = rolesAt(at);
    const int values[] = {one.a, one.b, one.c, one.d, one.n};
    for (int i = 0; i < 5; ++i) operand(at, role[static_cast<std::size_t>(i)], values[i]);
    int next = at + lengthOf(one.op);
    if (goesOn(one.op) && next >= static_cast<int>(program_.code.size()))
      fault(at, "the code ends behind it");
  }

  std::vector<int> entries() const {
    std::vector<int> out;
    auto both = [&](const std::array<int, 2>& routines) {
      for (int routine : routines)
        if (routine >= 0) out.push_back(routine);
    };
    both(program_.generate), both(program_.generateNoPass), both(program_.passApply);
    both(program_.ends), both(program_.worth), both(program_.check);
    for (const GroupCode& one : program_.groups) both(one.apply), both(one.trial), both(one.text);
    for (const EndCode& one : program_.endCodes) both(one.test), both(one.shown);
    for (const InvariantCode& one : program_.invariants) both(one.value);
    if (program_.invariantsAt >= 0) out.push_back(program_.invariantsAt);
    for (const SeenCode& one : program_.sees) both(one.value);
    for (const ForbidCode& one : program_.forbids) both(one.value);
    for (const ComparedCode& one : program_.compared)
      if (!one.word.empty()) both(one.value);
    for (int one : program_.expectations) out.push_back(one);
    for (const std::array<int, 2>& one : program_.seenMoves) both(one);
    return out;
  }

  // What was written on every way to each instruction.
  void flow() {
    Written known;
    auto mark = [&](int from, int words) {
      for (int i = from; i < from + words; ++i) known.set(static_cast<std::size_t>(i));
    };
    mark(0, program_.layout.words);
    mark(program_.choicesAt, limits::choices);
    mark(program_.constantsAt, static_cast<int>(program_.constants.size()));
    mark(program_.againSlot, 1);
    if (program_.beforeAt != 0) mark(program_.beforeAt, program_.layout.words);
    std::vector<std::optional<Written>> before(program_.code.size());
    std::deque<int> open;
    auto reach = [&](int at, const Written& written) {
      std::optional<Written>& there = before[static_cast<std::size_t>(at)];
      Written meet = there ? *there & written : written;
      if (there && meet == *there) return;
      there = meet;
      open.push_back(at);
    };
    for (int entry : entries()) reach(entry, known);
    while (!open.empty()) {
      int at = open.front();
      open.pop_front();
      const Instruction& one = program_.code[at];
      std::string role = rolesAt(at);
      Written written = *before[static_cast<std::size_t>(at)];
      const Slot slots[] = {one.a, one.b, one.c, one.d};
      for (std::size_t i = 0; i < 4; ++i)
        if (writes(role[i]))
          for (int k = 0; k < (isSet(role[i]) ? program_.words : 1); ++k)
            written.set(static_cast<std::size_t>(slots[i] + k));
      if (role[4] == 'j') reach(one.n, written);
      if (goesOn(one.op)) reach(at + lengthOf(one.op), written);
    }
    for (std::size_t at = 0; at < program_.code.size(); ++at)
      if (before[at]) reads(static_cast<int>(at), *before[at]);
  }

  void reads(int at, const Written& written) {
    const Instruction& one = program_.code[at];
    std::string role = rolesAt(at);
    const Slot slots[] = {one.a, one.b, one.c, one.d};
    for (std::size_t i = 0; i < 4; ++i) {
      bool read = role[i] == 's' || role[i] == 'U' || role[i] == 'i' || role[i] == 'V';
      if (read && !written[slots[i]])
        fault(at, fmt::format("reads {}, which was not written on every way", slots[i]));
    }
  }

  const Program& program_;
  std::vector<std::string> faults_;
};

}  // namespace

std::vector<std::string> unsound(const Program& program) {
  return Verifier(program).run();
}

}  // namespace ninepegs::sheet
