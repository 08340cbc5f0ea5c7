// A played game as text: tag pairs as in PGN, then the moves, numbered by the pair.
//
//   [Game "tic-tac-toe"]
//   [Cross "human"]
//   [Nought "search:depth=6"]
//   [Seed "7"]
//   [Result "Cross wins: three in a line"]
//
//   1. 5, 1; 2. 3, 7; ...
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "ninepegs/game/game.hpp"

namespace ninepegs::records {

struct GameRecord {
  std::vector<std::pair<std::string, std::string>> tags;
  std::string start;  // text of the position the moves start from; empty: the start
  std::vector<std::string> moves;
};

GameRecord makeRecord(const Game& game, const Position& from, const std::vector<Move>& moves);

std::string toText(const GameRecord& record);

// Throws BadInput with line and column; `source` is the file's name.
GameRecord readRecord(const std::string& text, const std::string& source);

}  // namespace ninepegs::records
