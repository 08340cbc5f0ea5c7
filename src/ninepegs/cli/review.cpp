#include <fmt/format.h>

#include <fstream>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/draw/play_charts.hpp"
#include "ninepegs/play/review.hpp"
#include "ninepegs/records/game_reader.hpp"
#include "ninepegs/report/review_text.hpp"

namespace ninepegs::cli {
namespace {

struct Options {
  std::string record;
  Said game, figure;
  std::string nodes = "50000", seed = "1";
  bool json = false;
};

void run(const Options& options, Context& context) {
  requirePicture(options.figure);
  std::unique_ptr<std::istream> in = openForReading(options.record);
  std::unique_ptr<records::GameReader> reader = records::openRecords(*in, options.record);
  std::optional<records::GameRecord> found = reader->next();
  if (!found) throw BadInput(Place{options.record, 0, 0, 1, {}}, "there is no game in it", "");
  records::GameRecord& record = *found;
  if (!options.game && record.tag("Game").empty())
    throw BadInput(Place{options.record, 0, 0, 1, {}}, "the record does not say which game it is",
                   "name the game with --game");
  std::shared_ptr<const Game> game =
      context.library.open(options.game.value_or(record.tag("Game")), record.tag("Variant"));
  if (game->secrets() != nullptr)
    throw BadInput(Place{}, "the search would see the other side's secret pieces",
                   "`review` is for games without secrets");
  records::nameCells(*game, record);
  records::Replayed played = records::replay(*game, record, options.record);
  if (played.moves.size() < record.moves.size()) throw BadInput(played.faults);
  const Position& from = played.from;
  const std::vector<Move>& moves = played.moves;
  play::ReviewOptions how;
  how.nodes = wholeOption(options.nodes, "--nodes", 1, 1'000'000'000'000ull);
  how.seed = wholeOption(options.seed, "--seed", 0, ~0ull);
  how.stop = &stopFlag();
  std::vector<play::ReviewedPly> plies;
  {
    Progress progress(context, "plies", moves.size());
    how.progress = [&](std::uint64_t done) { progress.at(done); };
    plies = play::review(*game, from, moves, how);
  }
  if (wantsStop(&stopFlag())) context.exitCode = exitInterrupted;
  if (options.figure && !plies.empty())
    writeFile(*options.figure,
              draw::reviewChart(*game, from, plies, chartOptions(*options.figure)));
  print(options.json ? report::reviewJson(*game, from, plies) + "\n"
                     : report::reviewText(*game, from, plies, context.paint));
}

}  // namespace

void addReview(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, run, "review", "Look at a recorded game again: which moves gave a result away",
      "What it says holds as far as the search sees: more --nodes see more.\n"
      "Example:\n"
      "  ninepegs play tic-tac-toe --first random --second greedy --seed 7 --record game.txt\n"
      "  ninepegs review game.txt");
  option(command, "RECORD", options.record, "a file that `play --record` wrote")->required();
  option(command, "--game GAME", options.game,
         "the game or its sheet, if the record's name is none");
  option(command, "--nodes N", options.nodes, "positions to look at for each ply (default 50000)");
  option(command, "--seed N", options.seed, "draws among equal moves (default 1)");
  option(command, "--figure FILE", options.figure,
         "also draw the score after each ply: .png or .svg");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
