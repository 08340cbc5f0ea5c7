#include "ninepegs/engines/coordinates.hpp"

#include <algorithm>

namespace ninepegs::engines {

std::string coordinatesOf(const Game& game, const Position& position, const Move& move) {
  std::vector<std::string> texts = game.otherTexts(position, move);
  return texts.empty() ? game.moveText(position, move) : texts.front();
}

std::optional<Move> moveOfCoordinates(const Game& game, const Position& position,
                                      const std::string& text) {
  MoveList legal;
  game.listMoves(position, legal);
  auto found = std::find_if(legal.begin(), legal.end(), [&](const Move& move) {
    return coordinatesOf(game, position, move) == text;
  });
  return found == legal.end() ? std::nullopt : std::optional<Move>(*found);
}

}  // namespace ninepegs::engines
