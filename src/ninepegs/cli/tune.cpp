#include "ninepegs/base/files.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/play/tuning.hpp"
#include "ninepegs/report/tuning_text.hpp"

namespace ninepegs::cli {
namespace {

struct TuneOptions {
  GameOptions game;
  DrawOptions drawing;
  std::string games = "400", tests = "100", nodes = "500";
  Said out;
  bool json = false;
};

void runTune(const TuneOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  const SheetGame& sheet = sheetOf(*game, "a worth can be fitted for a sheet only");
  if (game->secrets() != nullptr)
    throw BadInput(Place{}, "the search would see the other side's secret pieces",
                   "`tune` is for games without secrets");
  play::TuneOptions how;
  how.games = wholeOption(options.games, "--games", 2, 1'000'000);
  how.tests = wholeOption(options.tests, "--tests", 0, 1'000'000);
  how.nodes = wholeOption(options.nodes, "--nodes", 1, 1'000'000'000);
  options.drawing.into(how);
  if (options.out) requireWritable(*options.out);
  play::Tuned tuned;
  {
    Progress progress(context, "games", how.games + how.tests);
    how.progress = [&](std::uint64_t done) { progress.at(done); };
    tuned = play::tune(sheet, how);
  }
  if (tuned.stopped) context.exitCode = exitInterrupted;
  if (options.out && !tuned.worth.empty()) writeFile(*options.out, tuned.worth + "\n");
  print(options.json ? report::tuningJson(*game, tuned, how.seed) + "\n"
                     : report::tuningText(*game, tuned, how.seed, context.paint));
}

}  // namespace

void addTune(CLI::App& app, Context& context) {
  auto [options, command] =
      newCommand(app, context, runTune, "tune",
                 "Find out what tells the winner, and write the line `worth` for the sheet",
                 "Games that the search plays against itself are learned from; then it plays with "
                 "the new line\n"
                 "against the sheet as it is.\n"
                 "Examples:\n"
                 "  ninepegs tune draughts\n"
                 "  ninepegs tune my-game.pegs --games 2000 --nodes 2000 --out worth.txt");
  options.game.addGame(command);
  option(command, "--games N", options.games, "games to learn from (default 400)");
  option(command, "--tests N", options.tests,
         "games between the new line and the sheet as it is (default 100)");
  option(command, "--nodes N", options.nodes, "positions to look at for each move (default 500)");
  options.drawing.add(command);
  option(command, "--out FILE", options.out, "also write the line to this file");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
