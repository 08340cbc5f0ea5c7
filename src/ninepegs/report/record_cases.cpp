#include "ninepegs/report/record_cases.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <istream>

#include "ninepegs/base/files.hpp"
#include "ninepegs/records/game_reader.hpp"

namespace ninepegs::report {
namespace {

namespace fs = std::filesystem;

std::vector<fs::path> recordsIn(const fs::path& folder) {
  std::error_code error;
  std::vector<fs::path> files;
  for (fs::directory_iterator it(folder, error), end; !error && it != end; it.increment(error)) {
    std::string ending = it->path().extension().string();
    if (ending == ".pgn" || ending == ".sgf" || ending == ".txt") files.push_back(it->path());
  }
  if (error)
    throw BadInput(Place{folder.string(), 0, 0, 1, {}},
                   fmt::format("the folder cannot be read ({})", error.message()), "");
  if (files.empty())
    throw BadInput(Place{folder.string(), 0, 0, 1, {}}, "no records are in this folder",
                   "they are files that end in .pgn, .sgf or .txt");
  std::sort(files.begin(), files.end());
  return files;
}

verify::Finding finding(const Game& game, const records::GameRecord& record,
                        const records::Replayed& played, const std::string& name) {
  const Diagnostic& fault = played.faults.front();
  verify::Finding out;
  out.example = name;
  out.variant = game.info().variant;
  out.message = fmt::format("{}, line {}: {}{}{}", name, fault.place.line, fault.message,
                            fault.hint.empty() ? "" : ": ", fault.hint);
  out.from = record.start;
  Position position = played.from;
  for (const Move& move : played.moves) {
    out.moves.push_back(game.moveText(position, move));
    game.apply(position, move);
  }
  out.position = game.positionText(position);
  out.last = position;
  return out;
}

}  // namespace

RecordsHeld addRecords(const Game& game, const fs::path& folder, const StopFlag* stop,
                       verify::CheckReport& report) {
  RecordsHeld out;
  for (const fs::path& file : recordsIn(folder)) {
    ++out.files;
    std::unique_ptr<std::istream> in = openForReading(file);
    std::unique_ptr<records::GameReader> reader = records::openRecords(*in, file.string());
    for (std::uint64_t number = 1; !wantsStop(stop); ++number) {
      std::optional<records::GameRecord> record = reader->next();
      if (!record) break;
      std::string name = record->tag("Game"), variant = record->tag("Variant");
      if (!name.empty() && name != game.info().id)
        throw BadInput(Place{file.string(), record->line, 0, 1, {}},
                       fmt::format("this is a record of {}, not of {}", name, game.info().id),
                       "put the records of each game into a folder of their own");
      std::shared_ptr<const Game> other;
      if (!variant.empty() && variant != game.info().variant) other = game.variant(variant);
      const Game& by = other ? *other : game;
      records::nameCells(by, *record);
      records::Replayed played = records::replay(by, *record, file.string());
      ++out.games;
      if (played.faults.empty()) continue;
      ++out.faulty;
      report.findings.push_back(finding(
          by, *record, played, fmt::format("{}, game {}", file.filename().string(), number)));
    }
  }
  return out;
}

}  // namespace ninepegs::report
