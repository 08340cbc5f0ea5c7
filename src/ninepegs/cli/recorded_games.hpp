// The games that a file of records is of.
#pragma once

#include <cstdint>
#include <memory>
#include <string>

#include "ninepegs/base/diagnostic.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/records/game_record.hpp"

namespace ninepegs::cli {

// The game of a record, opened once for all records of it. `game` and `variant`, if they were said,
// stand for what the records say; all that is handed over must outlive it.
class RecordedGames {
 public:
  RecordedGames(const std::string& source, const Said& game, const Said& variant, Context& context)
      : source_(source), said_(game), saidVariant_(variant), context_(context) {}

  // Valid until the next call. Throws BadInput if neither says which game it is.
  const Game& of(const records::GameRecord& record);

 private:
  void requireShipped(const std::string& name, const records::GameRecord& record);

  const std::string& source_;
  const Said& said_;
  const Said& saidVariant_;
  Context& context_;
  std::string name_, variant_;
  std::shared_ptr<const Game> game_;
};

// What is wrong with a file of records `source`: nothing is in it; a second game, which begins in
// this line, where one was to be named; fewer games than `--number` said.
BadInput noGame(const std::string& source);
BadInput severalGames(const std::string& source, int line);
BadInput onlySoMany(std::uint64_t games, const std::string& said, const std::string& source);

}  // namespace ninepegs::cli
