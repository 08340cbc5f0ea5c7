// Moves and positions as text, both ways.
//
//   std::string before = game->positionText(position);
//   for (const Move& move : moves) texts.push_back(game->moveText(position, move));
//   Position again = game->readPosition(before, "--at");
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/game/values.hpp"

namespace ninepegs {

class GameNotation {
 public:
  virtual ~GameNotation() = default;

  // Two legal moves of a position have two texts, or lead to the same position. Requires that the
  // move is legal, here and below.
  virtual std::string moveText(const Position& position, const Move& move) const = 0;
  // The move's text and what else it says. A game without secrets says its text only.
  virtual MoveTexts textsOf(const Position& position, const Move& move) const;
  // Other notations of the move, as people may type it; none: there is only its text.
  virtual std::vector<std::string> otherTexts(const Position& position, const Move& move) const;
  // One line, which readPosition reads.
  virtual std::string positionText(const Position& position) const = 0;
  // The position in an open notation such as FEN; empty if the game has none, or if the position
  // holds what it cannot say, which besideNotation names.
  virtual std::string notation(const Position& position) const;
  virtual std::vector<std::string> besideNotation(const Position& position) const;
  // Throws BadInput for what is no position of the game; `source` names where the text came from,
  // such as --at. A game that reads none says so.
  virtual Position readPosition(std::string_view text, const std::string& source) const;
};

}  // namespace ninepegs
