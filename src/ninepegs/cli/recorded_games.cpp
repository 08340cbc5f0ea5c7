#include "ninepegs/cli/recorded_games.hpp"

#include <fmt/format.h>

#include "ninepegs/game/library.hpp"

namespace ninepegs::cli {

const Game& RecordedGames::of(const records::GameRecord& record) {
  std::string name = said_.value_or(record.tag("Game"));
  std::string variant = saidVariant_.value_or(record.tag("Variant"));
  if (name.empty())
    throw BadInput(Place{source_, record.line, 0, 1, {}},
                   "the record does not say which game it is", "name the game with --game");
  if (!game_ || name != name_ || variant != variant_)
    game_ = context_.library.open(name_ = name, variant_ = variant);
  return *game_;
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
