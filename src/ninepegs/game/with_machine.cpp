#include "ninepegs/game/with_machine.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"

namespace ninepegs {
namespace {

constexpr std::int64_t farAway = 100'000;  // no number of a game that people play comes there

// The number that has gone farthest, if one has run away; its line, and what is said of it.
struct Farthest {
  int line = 0;
  std::string says;
};
Farthest farthest(const sheet::Program& program, const std::uint64_t* words) {
  const sheet::Program::NumberName* found = nullptr;
  std::int64_t most = farAway;
  auto valueOf = [&](const sheet::Program::NumberName& one) {
    return static_cast<std::int64_t>(words[one.slot]);
  };
  for (const auto& one : program.numberNames) {
    std::int64_t value = valueOf(one), size = value < 0 ? -(value + 1) : value;
    if (size > most) found = &one, most = size;
  }
  if (found == nullptr) return {};
  std::int64_t value = valueOf(*found);
  return {found->line, fmt::format("; {} is {}{} here", found->name, value < 0 ? "-" : "",
                                   grouped(value < 0 ? 0 - static_cast<std::uint64_t>(value)
                                                     : static_cast<std::uint64_t>(value)))};
}

}  // namespace

void refuseLongLoop(const sheet::Program& program, int statement, bool choices,
                    const std::uint64_t* words) {
  int line = statement < static_cast<int>(program.statementLines.size())
                 ? program.statementLines[statement]
                 : 0;
  Place place{program.source, line, 0, 1, {}};
  if (choices)
    throw RunawayRules(
        place,
        fmt::format("a move makes more than {} choices here, the limit; every round of a "
                    "`repeat` is one",
                    limits::choices),
        "does every round bring the end of the `repeat` nearer?");
  std::string number = farthest(program, words).says;
  throw RunawayRules(place,
                     fmt::format("this takes more than {} steps in one position, the limit{}",
                                 grouped(limits::loopSteps), number),
                     number.empty() ? "pick from smaller sets, or nest fewer loops"
                                    : "does something take away as much as is added?");
}

void throwBrokenOff(const sheet::Program& program, const std::uint64_t* words) {
  if (ambient.left >= 0) throw Stopped{};
  Farthest number = farthest(program, words);
  throw TooMuchWork(
      Place{program.source, number.line, 0, 1, {}},
      "the rules take too many steps here, all positions of the game together" + number.says,
      number.line == 0 ? "" : "does something take away as much as is added?");
}

}  // namespace ninepegs
