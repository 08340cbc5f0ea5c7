#include "ninepegs/sheet/program/program.hpp"

#include <fmt/format.h>

#include <map>

namespace ninepegs::sheet {

namespace {

struct Declared {
  std::string_view name, roles, meaning;
};

constexpr Declared declared[] = {
#define NINEPEGS_DECLARED(name, roles, meaning) {#name, roles, meaning},
    NINEPEGS_INSTRUCTIONS(NINEPEGS_DECLARED)
#undef NINEPEGS_DECLARED
};

}  // namespace

std::string_view name(Op op) {
  return declared[static_cast<std::size_t>(op)].name;
}

std::string_view roles(Op op) {
  return declared[static_cast<std::size_t>(op)].roles;
}

std::string_view meaning(Op op) {
  return declared[static_cast<std::size_t>(op)].meaning;
}

std::string_view name(MoveClass moveClass) {
  static constexpr std::string_view names[] = {"mask", "flat", "tested", "walked"};
  return names[static_cast<std::size_t>(moveClass)];
}

std::string toText(const Program& program) {
  std::string out = fmt::format("{} words a set, {} words a position, {} instructions\n",
                                program.words, program.layout.words, program.code.size());
  for (const GroupCode& group : program.groups)
    out += fmt::format("move {}: {}, by line {}\n", group.name, name(group.moveClass),
                       group.classLine);
  std::map<int, std::string> labels;
  for (int side = 0; side < 2; ++side) {
    std::string of = side == 0 ? " (first side)" : " (second side)";
    labels[program.generate[side]] = "legal moves" + of;
    labels[program.generateNoPass[side]] = "legal moves without passes" + of;
    labels[program.ends[side]] = "ends" + of;
    for (const GroupCode& group : program.groups) {
      labels[group.apply[side]] = "make " + group.name + of;
      if (group.trial[side] >= 0) labels[group.trial[side]] = "try " + group.name + of;
      labels[group.text[side]] = "text of " + group.name + of;
    }
  }
  out += "\n line   number  instruction       a     b     c     d       n   meaning\n";
  for (std::size_t i = 0; i < program.code.size(); ++i) {
    if (auto it = labels.find(static_cast<int>(i)); it != labels.end()) out += it->second + ":\n";
    const Instruction& one = program.code[i];
    int statement = program.statementOf[i];
    std::string line = statement < 0 ? "" : std::to_string(program.statementLines[statement]);
    out += fmt::format("{:>5}  {:6}  {:<14} {:5} {:5} {:5} {:5} {:7}   {}\n", line, i, name(one.op),
                       one.a, one.b, one.c, one.d, one.n, meaning(one.op));
  }
  return out;
}

}  // namespace ninepegs::sheet
