#include "ninepegs/cli/context.hpp"
#include "ninepegs/play/solver.hpp"
#include "ninepegs/report/solved_text.hpp"

namespace ninepegs::cli {
namespace {

struct SolveOptions {
  GameOptions game;
  std::string memory = "256", threads = "1";
  Said nodes, time;
  bool backwards = false, lead = false, json = false;
};

void runBackwards(const SolveOptions& options, Context& context, const Game& game,
                  const Position& position) {
  if (options.lead)
    throw BadInput(Place{}, "--backwards does not go with --lead", "leave one of them out");
  if (options.nodes || options.time)
    throw BadInput(Place{}, "--backwards has no limit but --memory",
                   "leave --nodes and --time out");
  verify::EveryOptions how;
  how.memory = wholeOption(options.memory, "--memory", 1, 65536) << 20;
  how.threads = static_cast<int>(wholeOption(options.threads, "--threads", 1, 64));
  how.stop = &stopFlag();
  const SheetGame& sheet = sheetOf(game, "only sheets are solved backwards");
  verify::Ending ending;
  {
    Progress progress(context, "positions", 0, true);
    how.progress = [&](std::uint64_t done) { progress.at(done); };
    ending = verify::solveBackwards(sheet, position, how);
  }
  if (wantsStop(&stopFlag())) context.exitCode = exitInterrupted;
  print(options.json ? report::endingJson(ending) + "\n"
                     : report::endingText(ending, context.paint));
}

void runSolve(const SolveOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  Position position = options.game.position(*game);
  if (game->secrets() != nullptr)
    throw BadInput(Place{}, "best play is not known where a side does not see all",
                   "`solve` is for games without secrets");
  if (game->ended(position) || game->countMoves(position) == 0)
    throw BadInput(Place{}, "there is nothing to solve: the game is over",
                   "name another position with --at or --after");
  if (options.backwards) return runBackwards(options, context, *game, position);
  play::SolveOptions how;
  how.nodes = wholeOption(options.nodes.value_or("20000000"), "--nodes", 1, 1'000'000'000'000ull);
  how.megabytes = wholeOption(options.memory, "--memory", 1, 65536);
  how.threads = static_cast<int>(wholeOption(options.threads, "--threads", 1, 64));
  if (options.time)
    how.seconds = static_cast<double>(wholeOption(*options.time, "--time", 1, 86400));
  how.stop = &stopFlag();
  const SheetGame* sheet = dynamic_cast<const SheetGame*>(game.get());
  if (options.lead && (sheet == nullptr || !play::leadDecides(*sheet)))
    throw BadInput(Place{}, "--lead is for games that end with one side in the lead",
                   "in this one an end is not of the form `leader in ... wins`");
  play::Solved solved;
  std::optional<play::Margins> margins;
  {
    Progress progress(context, "positions", 0, true);
    how.progress = [&](std::uint64_t done) { progress.at(done); };
    how.found = [&](const play::Solved& so) {
      progress.says(report::solvedSoFar(*game, position, so));
    };
    solved = play::solve(*game, position, how);
    how.progress = [&](std::uint64_t done) { progress.at(solved.nodes + done); };
    if (options.lead) {
      margins = play::margins(*sheet, position, solved, how);
      solved.nodes += margins->nodes;
      solved.seconds += margins->seconds;
      solved.brokenOff = solved.brokenOff || margins->brokenOff;
    }
  }
  const play::Margins* lead = margins ? &*margins : nullptr;
  if (wantsStop(&stopFlag())) context.exitCode = exitInterrupted;
  print(options.json ? report::solvedJson(*game, position, solved, lead) + "\n"
                     : report::solvedText(*game, position, solved, lead, context.paint));
}

}  // namespace

void addSolve(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runSolve, "solve", "The exact result of a position, and of each of its moves",
      "For small boards and late positions; stopped, it says what it knows.\n"
      "Examples:\n"
      "  ninepegs solve tic-tac-toe\n"
      "  ninepegs solve othello --variant four --lead\n"
      "  ninepegs solve connect-four --variant four --after a,b\n"
      "  ninepegs solve chess --at \"8/8/8/4k3/8/8/8/4K2Q w - - 0 1\" --backwards");
  options.game.addGame(command);
  options.game.addPosition(command);
  option(command, "--nodes N", options.nodes,
         "positions to look at from the position and from each move (default 20000000)");
  option(command, "--time SECONDS", options.time, "seconds, likewise; then the result may differ");
  option(command, "--memory N", options.memory,
         "megabytes of the table, or of the positions listed (default 256)");
  option(command, "--backwards", options.backwards,
         "list every position that can come, and follow wins back from the ends: for few pieces, "
         "also where positions come again");
  option(command, "--lead", options.lead,
         "also by how much a side leads at the end, if both play for that: where all ends are of "
         "`leader in`");
  option(command, "--threads N", options.threads,
         "threads (default 1); with more, what is known when a limit is reached may differ");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
