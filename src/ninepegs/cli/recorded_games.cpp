#include "ninepegs/cli/recorded_games.hpp"

#include "ninepegs/base/diagnostic.hpp"
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

}  // namespace ninepegs::cli
