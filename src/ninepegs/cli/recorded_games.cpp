#include "ninepegs/cli/recorded_games.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/library.hpp"

namespace ninepegs::cli {

const Game& RecordedGames::of(const records::GameRecord& record) {
  std::string name = said_.value_or(record.tag("Game"));
  std::string variant = saidVariant_.value_or(record.tag("Variant"));
  if (name.empty())
    throw BadInput(Place{source_, record.line, 0, 1, {}},
                   "the record does not say which game it is", "name the game with --game");
  if (game_ && name == name_ && variant == variant_) return *game_;
  if (!said_) requireShipped(name, record);
  bool byRecordOnly = said_ && !saidVariant_ && !variant.empty();
  game_ = context_.library.open(name_ = name, byRecordOnly ? "" : variant);
  variant_ = variant;
  if (!byRecordOnly) return *game_;
  const auto& known = game_->info().variants;
  if (std::any_of(known.begin(), known.end(),
                  [&](const auto& one) { return one.first == variant; }))
    game_ = game_->variant(variant);
  else
    printError(
        fmt::format("{} names the variant \"{}\", which the sheet does not have: read by "
                    "the sheet itself\n",
                    source_, clipped(variant, 40)));
  return *game_;
}

// Of a sheet of one's own a record has the name, and not where it is.
void RecordedGames::requireShipped(const std::string& name, const records::GameRecord& record) {
  std::vector<std::string> shipped = context_.library.names();
  if (Library::isPath(name) || std::find(shipped.begin(), shipped.end(), name) != shipped.end())
    return;
  throw BadInput(Place{source_, record.line, 0, 1, {}},
                 fmt::format("the record is of the game \"{}\", which is none of those shipped",
                             clipped(name, 80)),
                 "say where its sheet is, such as: --game ./" + clipped(name, 80) + ".pegs");
}

BadInput noGame(const std::string& source) {
  return BadInput(Place{source, 0, 0, 1, {}}, "there is no game in it", "");
}

BadInput severalGames(const std::string& source, int line) {
  return BadInput(Place{source, line, 0, 1, {}}, "there is more than one game in it",
                  "say which: --number 1");
}

BadInput onlySoMany(std::uint64_t games, const std::string& said, const std::string& source) {
  return BadInput(Place{"--number", 1, 1, static_cast<int>(said.size()), said},
                  fmt::format("there are only {} games in {}", games, source), "");
}

}  // namespace ninepegs::cli
