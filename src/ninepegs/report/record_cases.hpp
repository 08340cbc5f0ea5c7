// A folder of recorded games as a test: each must be a game by the rules.
//
//   verify::CheckReport found;
//   report::RecordsHeld held = report::addRecords(*game, "games", nullptr, found);
#pragma once

#include <cstdint>
#include <filesystem>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/verify/check.hpp"

namespace ninepegs::report {

struct RecordsHeld {
  std::uint64_t files = 0, games = 0, faulty = 0;
};

// Reads the folder's .pgn, .sgf and .txt files in the order of their names and adds a finding, as
// of a case, for each game that the rules do not allow. A record that names a variant is held
// against that. Throws BadInput for what is no folder or no record, and for records of another
// game.
RecordsHeld addRecords(const Game& game, const std::filesystem::path& folder, const StopFlag* stop,
                       verify::CheckReport& report);

}  // namespace ninepegs::report
