#include "ninepegs/report/every_text.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"

namespace ninepegs::report {
namespace {

constexpr std::size_t width = 80, movesShown = 40;
const char* const indent = "                         ";

std::string row(const std::string& name, const std::string& text) {
  std::string wide = wrapped(text, width - 25, indent);
  if (name.size() > 21) return "  " + name + "\n" + wide;
  return fmt::format("  {:<23}{}", name, wide.substr(25));
}

std::string line(const Game& game, const std::vector<Move>& moves) {
  std::vector<std::string> texts = textsFromStart(game, moves);
  std::string more;
  if (texts.size() > movesShown) {
    texts.resize(movesShown);
    more = " ...";
  }
  return texts.empty() ? "the start" : joined(texts, ", ") + more;
}

std::string times(std::uint64_t number, const char* noun) {
  return grouped(number) + " " + noun + (number == 1 ? "" : "s");
}

}  // namespace

std::vector<std::string> textsFromStart(const Game& game, const std::vector<Move>& moves) {
  std::vector<std::string> texts;
  Position position = game.start();
  for (const Move& move : moves) {
    texts.push_back(game.moveText(position, move));
    game.apply(position, move);
  }
  return texts;
}

std::string guessText(const verify::Guess& guess) {
  if (!guess.sure)
    return fmt::format(
        "Random games met nearly no position twice: there are more than {} positions, how many "
        "more cannot be guessed.",
        grouped(guess.positions));
  return fmt::format("There are perhaps {} positions, or more.", grouped(guess.positions));
}

std::string bestPlayText(const Game& game, const verify::EveryReport& every) {
  if (every.winner >= 0)
    return fmt::format("{} wins in {}", game.info().sides[every.winner], pliesText(every.plies));
  return every.longest ? "a draw" : "neither side can force a win";
}

std::string everyText(const Game& game, const verify::EveryReport& every, const Paint& paint) {
  std::string out = "\n" + paint.strong("Every position") + "\n";
  if (every.broken == verify::EveryReport::Broken::memory)
    out += paint.bad("  broken off: more positions than --memory has room for\n");
  if (every.broken == verify::EveryReport::Broken::stopped)
    out += paint.bad("  stopped: what follows is of the positions met until then\n");
  std::string count = fmt::format("{} in {}", times(every.positions, "position"),
                                  times(every.levels.size(), "level"));
  if (every.classes) count += fmt::format(", {} up to symmetry", grouped(*every.classes));
  out += row("met", count);
  std::vector<std::string> levels;
  for (std::uint64_t level : every.levels) levels.push_back(grouped(level));
  if (levels.size() <= movesShown) out += row("by fewest plies", joined(levels, ", "));
  out += row(
      every.complete() ? "every check held in" : "every check made in",
      fmt::format("{}, with {}", times(every.goneThrough, "position"), times(every.moves, "move")));
  for (const verify::Reached& one : every.ends) {
    std::string who = one.outcome.winner < 0 ? "draw" : game.info().sides[one.outcome.winner];
    out += row(fmt::format("{}: {}", who, one.name),
               fmt::format("{}, soonest after {}: {}", times(one.positions, "position"),
                           pliesText(one.soonest.size()), line(game, one.soonest)));
  }
  if (!every.solved) return out;
  out += row("best play", bestPlayText(game, every) + ": " + line(game, every.best));
  std::string longest = "none: positions can come again";
  if (every.longest)
    longest = fmt::format("{}: {}", pliesText(*every.longest), line(game, every.longestGame));
  out += row("longest game", longest);
  return out;
}

}  // namespace ninepegs::report
