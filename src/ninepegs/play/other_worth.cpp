#include "ninepegs/play/other_worth.hpp"

#include <fmt/format.h>

#include <set>
#include <sstream>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/printer.hpp"

namespace ninepegs::play {
namespace {

// The sheet as it was understood, without its worth.
std::string textWithoutWorth(const SheetGame& game) {
  std::string out;
  bool inWorth = false;
  std::istringstream lines(rules::toText(game.rules()));
  for (std::string line; std::getline(lines, line);) {
    bool begins = !line.empty() && line.front() != ' ';
    if (begins) inWorth = line == "worth" || line.rfind("worth ", 0) == 0;
    if (begins && line.rfind("case ", 0) == 0) break;  // cases come last, and tell nothing here
    if (!inWorth) out += line + "\n";
  }
  return out;
}

// How long the lines are that the rules speak of.
std::set<int> lineLengths(const std::string& text) {
  std::set<int> out;
  for (const char* words : {"line of ", "lines of "})
    for (std::size_t at = text.find(words); at != text.npos; at = text.find(words, at + 1)) {
      std::size_t from = at + std::string_view(words).size(), to = from;
      while (to < text.size() && text[to] >= '0' && text[to] <= '9') ++to;
      if (auto number = wholeNumber(text.substr(from, to - from), 100); number && *number > 1)
        out.insert(static_cast<int>(*number));
    }
  return out;
}

}  // namespace

std::shared_ptr<const SheetGame> withWorth(const SheetGame& game, const std::string& term) {
  return SheetGame::fromText(game.rules().source->name(),
                             textWithoutWorth(game) + "worth " + term + "\n");
}

std::vector<std::string> openLineTerms(const SheetGame& game) {
  std::vector<std::string> out;
  for (int length : lineLengths(rules::toText(game.rules())))
    out.push_back(
        fmt::format("(total (count L on mine) * (count L on mine) for L in lines of {} in (mine or "
                    "empty))",
                    length));
  return out;
}

std::shared_ptr<const SheetGame> withOpenLines(const Game& game) {
  const auto* sheet = dynamic_cast<const SheetGame*>(&game);
  if (sheet == nullptr) return nullptr;
  std::string all;
  for (const std::string& term : openLineTerms(*sheet)) all += (all.empty() ? "" : " + ") + term;
  if (all.empty()) return nullptr;
  try {
    std::shared_ptr<const SheetGame> lines = withWorth(*sheet, all);
    return lines->start() == game.start() ? lines : nullptr;  // it must read the same positions
  } catch (const BadInput&) {                                 // no such thing on this board
    return nullptr;
  }
}

}  // namespace ninepegs::play
