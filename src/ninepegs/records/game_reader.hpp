// Reads the games of a file one after the other, whatever notation they are in.
//
//   std::istringstream in(text);
//   auto reader = records::openRecords(in, "games.sgf");
//   while (auto record = reader->next()) texts.push_back(record->result);
#pragma once

#include <istream>
#include <memory>
#include <optional>
#include <string>

#include "ninepegs/records/game_record.hpp"

namespace ninepegs::records {

class GameReader {
 public:
  virtual ~GameReader() = default;
  // The next game; nothing at the end. Throws BadInput with line and column.
  virtual std::optional<GameRecord> next() = 0;
};

// Smart Game Format if the first sign is a bracket, else movetext. `in` must outlive the reader;
// `source` is its name in messages.
std::unique_ptr<GameReader> openRecords(std::istream& in, const std::string& source);

}  // namespace ninepegs::records
