// From what a person typed to a legal move, or to the reason why there is none.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/game/game.hpp"

namespace ninepegs {

// The legal moves whose text is the typed one: exactly, else ignoring case, blanks, '-' and '='.
std::vector<Move> matchingMoves(const Game& game, const Position& position, std::string_view typed);

// One sentence that says why the typed text is no legal move here: no such cell, taken, column
// full, not your piece, game over ... It is not to be called for a text that is one.
std::string whyNot(const Game& game, const Position& position, std::string_view typed);

// The texts of all legal moves in natural order: a2 before a10 before b1.
std::vector<std::string> moveTexts(const Game& game, const Position& position);

// Plays moves divided by commas. Throws BadInput that points at the first that cannot be played.
// They are added to `played`, if it is there.
Position playMoves(const Game& game, Position position, std::string_view moves,
                   const std::string& source, MoveList* played = nullptr);

}  // namespace ninepegs
