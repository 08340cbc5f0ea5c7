// A recorded game, as text and JSON.
#pragma once

#include <string>

#include "ninepegs/records/game_record.hpp"
#include "ninepegs/report/paint.hpp"

namespace ninepegs::report {

// Who played, when and how it ended. `played` is the record by the rules, here and below.
std::string replayText(const Game& game, const records::GameRecord& record,
                       const records::Replayed& played, const Paint& paint);

// The board behind so many plies, with the cells of the move that comes next (nullptr: none).
std::string plyText(const Game& game, const Position& position, std::size_t ply, const Move* next,
                    const Paint& paint);

std::string replayJson(const Game& game, const records::GameRecord& record,
                       const records::Replayed& played);

}  // namespace ninepegs::report
