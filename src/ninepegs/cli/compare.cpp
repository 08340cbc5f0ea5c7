#include "ninepegs/compare/compare.hpp"

#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/compare/other_game.hpp"
#include "ninepegs/compare/program.hpp"
#include "ninepegs/report/compare_text.hpp"

namespace ninepegs::cli {
namespace {

struct CompareOptions {
  GameOptions game;
  DrawOptions drawing;
  Said other, otherVariant, program, map;
  std::string playouts = "2000", answerTime = "5", shorten = "20000";
  bool noProbes = false, json = false;
  TimeOption time;
};

// What the game is held against.
struct Other {
  std::shared_ptr<const Game> game;  // null: a program
  compare::Bridge bridge;
  std::string name;
};

Other otherOf(const CompareOptions& options, const std::shared_ptr<const Game>& game,
              const Context& context) {
  Other out{nullptr, compare::Bridge(*game), {}};
  if (options.map) {
    out.bridge =
        compare::Bridge::read(*game, readFile(*options.map, limits::sheetBytes), *options.map);
  }
  if (options.program) {
    if (options.other || options.otherVariant)
      throw BadInput(Place{}, "the game is held against a program or another game, not both",
                     "leave one of them out");
    if (options.program->find_first_not_of(' ') == std::string::npos)
      throw BadInput(Place{"--program", 0, 0, 1, {}}, "a command should follow",
                     "such as --program \"python3 my_game.py\"");
    out.name = *options.program;
    return out;
  }
  if (!options.other && !options.otherVariant)
    throw BadInput(Place{}, "what the game is held against is missing",
                   "name another game, --other-variant or --program");
  if (options.map)
    throw BadInput(Place{}, "--map goes with --program", "two sheets are compared by their texts");
  out.game = context.library.open(options.other.value_or(options.game.game),
                                  options.otherVariant.value_or(""));
  out.name = out.game->info().title;
  if (options.otherVariant) out.name += ", variant " + *options.otherVariant;
  return out;
}

void runCompare(const CompareOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  Other other = otherOf(options, game, context);
  compare::Options how;
  how.playouts = wholeOption(options.playouts, "--playouts", 1, 1'000'000'000);
  options.drawing.into(how);
  how.probes = !options.noProbes && options.program;
  how.shortenBudget = wholeOption(options.shorten, "--shorten", 0, 1'000'000'000);
  ChildLimits limits;
  limits.seconds = static_cast<double>(wholeOption(options.answerTime, "--answer-time", 1, 3600));
  limits.stop = &stopFlag();
  compare::Report found;
  options.time.begin();
  {
    Progress progress(context, "games", how.playouts);
    how.progress = [&](std::uint64_t done) { progress.at(done); };
    compare::MakeCounterpart make = [&]() -> std::unique_ptr<compare::Counterpart> {
      if (other.game) return compare::makeOtherGame(*other.game);
      return compare::makeProgram(*game, other.bridge, *options.program, limits);
    };
    found = compare::compare(*game, other.bridge, make, how);
  }
  report::CompareSaid said{other.name, how.playouts, how.seed};
  // A program that ends before it has answered anything is no other opinion: it does not run.
  bool answered = found.toldMoves || found.toldTurn || found.toldResult || found.toldBoard;
  if (found.difference && found.difference->programExit > 0 && !answered &&
      found.difference->moves.empty())
    throw BadInput({"--program", 1, 1, columnsOf(*options.program), *options.program},
                   found.difference->message,
                   "the command is given to the shell as it stands; does it run by itself?");
  context.exitCode = interrupted() ? exitInterrupted : found.difference ? exitFault : exitFine;
  print(options.json ? report::compareJson(*game, found, said) + "\n"
                     : report::compareText(*game, found, said, context.paint));
}

}  // namespace

void addCompare(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runCompare, "compare",
      "Hold a game against a program in any language, or against another sheet",
      "Both play the same moves. Compared is what the other tells: legal moves, whose turn it is,\n"
      "the result, the board. Both must refuse what is no legal move. The first difference is cut\n"
      "to the shortest game; exit code 1 says that there is one.\n"
      "Examples:\n"
      "  ninepegs compare othello --program \"python3 othello.py\"\n"
      "  ninepegs compare ./my-game.pegs ./my-game-before.pegs\n"
      "  ninepegs compare nim --other-variant normal");
  options.game.addGame(command);
  option(command, "OTHER", options.other, "another game, as GAME");
  option(command, "--other-variant NAME", options.otherVariant,
         "the variant of the other game; without OTHER, of the same one");
  option(command, "--program COMMAND", options.program,
         "a command that answers JSON-RPC 2.0, a line each: docs/programs.md");
  option(command, "--map FILE", options.map, "a JSON file: what the program calls things");
  option(command, "--playouts N", options.playouts, "games to play (default 2000)");
  option(command, "--answer-time SECONDS", options.answerTime,
         "seconds that the program may take for one answer (default 5)");
  option(command, "--shorten N", options.shorten,
         "moves that may be played to cut a difference to the shortest game (default "
         "20000)");
  option(command, "--no-wrong-moves", options.noProbes,
         "do not try inputs that are no legal moves");
  options.drawing.add(command);
  options.time.add(command);
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
