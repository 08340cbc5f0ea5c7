#include "ninepegs/cli/context.hpp"
#include "ninepegs/play/solver.hpp"
#include "ninepegs/report/solved_text.hpp"

namespace ninepegs::cli {
namespace {

struct Options {
  GameOptions game;
  std::string nodes = "20000000", memory = "256", threads = "1";
  Said time;
  bool json = false;
};

void run(const Options& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  Position position = options.game.position(*game);
  if (game->secrets() != nullptr)
    throw BadInput(Place{}, "best play is not known where a side does not see all",
                   "`solve` is for games without secrets");
  if (game->ended(position) || game->countMoves(position) == 0)
    throw BadInput(Place{}, "there is nothing to solve: the game is over",
                   "name another position with --at or --after");
  play::SolveOptions how;
  how.nodes = wholeOption(options.nodes, "--nodes", 1, 1'000'000'000'000ull);
  how.megabytes = wholeOption(options.memory, "--memory", 1, 65536);
  how.threads = static_cast<int>(wholeOption(options.threads, "--threads", 1, 64));
  if (options.time)
    how.seconds = static_cast<double>(wholeOption(*options.time, "--time", 1, 86400));
  how.stop = &stopFlag();
  play::Solved solved = play::solve(*game, position, how);
  if (wantsStop(&stopFlag())) context.exitCode = exitInterrupted;
  print(options.json ? report::solvedJson(*game, position, solved) + "\n"
                     : report::solvedText(*game, position, solved, context.paint));
}

}  // namespace

void addSolve(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, run, "solve", "The exact result of a position, and of each of its moves",
      "For small boards and late positions; stopped, it says what it knows.\n"
      "Examples:\n"
      "  ninepegs solve tic-tac-toe\n"
      "  ninepegs solve othello --variant four\n"
      "  ninepegs solve connect-four --variant four --after a,b");
  options.game.addGame(command);
  options.game.addPosition(command);
  option(command, "--nodes N", options.nodes,
         "positions to look at from the position and from each move (default 20000000)");
  option(command, "--time SECONDS", options.time, "seconds, likewise; then the result may differ");
  option(command, "--memory N", options.memory, "megabytes of the table (default 256)");
  option(command, "--threads N", options.threads,
         "threads (default 1); with more, what is known when a limit is reached may differ");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
