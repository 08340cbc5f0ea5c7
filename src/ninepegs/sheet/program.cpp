#include "ninepegs/sheet/program.hpp"

#include <fmt/format.h>

namespace ninepegs::sheet {

std::string_view name(Op op) {
  static constexpr std::string_view names[] = {
#define NINEPEGS_NAME(name, meaning) #name,
      NINEPEGS_INSTRUCTIONS(NINEPEGS_NAME)
#undef NINEPEGS_NAME
  };
  return names[static_cast<std::size_t>(op)];
}

std::string_view meaning(Op op) {
  static constexpr std::string_view meanings[] = {
#define NINEPEGS_MEANING(name, meaning) meaning,
      NINEPEGS_INSTRUCTIONS(NINEPEGS_MEANING)
#undef NINEPEGS_MEANING
  };
  return meanings[static_cast<std::size_t>(op)];
}

std::string toText(const Program& program) {
  std::string out;
  for (std::size_t i = 0; i < program.code.size(); ++i) {
    const Instruction& one = program.code[i];
    out += fmt::format("{:5}  {:<12} {:5} {:5} {:5} {:5} {:7}   {}\n", i, name(one.op), one.a,
                       one.b, one.c, one.d, one.n, meaning(one.op));
  }
  return out;
}

}  // namespace ninepegs::sheet
