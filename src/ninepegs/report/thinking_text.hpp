// How an opponent came to its move, as text, JSON and rows.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/play/thinking.hpp"
#include "ninepegs/report/paint.hpp"

namespace ninepegs::report {

std::string thinkingText(const Game& game, const Position& position, const play::Thinking& thought,
                         const Paint& paint);
// The seconds are left out: for the same options it is the same.
std::string thinkingJson(const Game& game, const Position& position, const play::Thinking& thought);
// Comma-separated: depth, move, score, nodes, seconds, minimax_nodes; of playouts: playouts, move,
// won, seconds.
std::string thinkingCsv(const Game& game, const Position& position, const play::Thinking& thought);

// The moves of a line, each as it is written where it is played; so many of them at the most.
std::vector<std::string> lineTexts(const Game& game, Position position,
                                   const std::vector<Move>& line,
                                   std::size_t most = ~std::size_t{0});

// "+35", "wins in 3 plies", "loses in 4 plies".
std::string scoreText(std::int64_t score);
// Of playouts: "57.3 %", "wins", "loses".
std::string shareText(std::int64_t score);
// "4 plies ahead, 1,234 positions, +35"; of playouts: "500 playouts, 57.3 %".
// What scores of a game count, in a sentence.
std::string scaleText(const Game& game);
std::string stepText(const play::Choice::Step& step);

}  // namespace ninepegs::report
