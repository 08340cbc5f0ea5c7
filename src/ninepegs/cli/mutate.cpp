#include <fmt/format.h>

#include "ninepegs/cli/context.hpp"
#include "ninepegs/cli/slips_run.hpp"
#include "ninepegs/report/mutants_text.hpp"

namespace ninepegs::cli {
namespace {

struct MutateOptions {
  GameOptions game;
  DrawOptions drawing;
  std::string playouts = std::to_string(usualMutantPlayouts), most = "0", atLeast = "0";
  TimeOption time;
  bool all = false, json = false;
};

void runMutate(const MutateOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  verify::MutantOptions how;
  options.drawing.into(how);
  how.playouts = wholeOption(options.playouts, "--playouts", 0, 1'000'000);
  how.most = wholeOption(options.most, "--mutants", 0, 1'000'000);
  std::uint64_t atLeast = wholeOption(options.atLeast, "--at-least", 0, 100);
  options.time.begin();
  auto [ran, said] = runMutants(*game, how, context);
  const verify::Mutants& mutants = *ran;
  said.everyOne = options.all;
  print(options.json ? report::mutantsJson(mutants, said) + "\n"
                     : report::mutantsText(mutants, said, context.paint));
  bool enough = report::totalsOf(mutants).noticed() >= static_cast<double>(atLeast);
  if (!enough && said.stopped)
    printError("note: not all mutants were looked at, so that --at-least says nothing\n");
  context.exitCode = interrupted()            ? exitInterrupted
                     : enough || said.stopped ? exitFine
                                              : exitFault;
}

}  // namespace

void addMutate(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runMutate, "mutate",
      "Put one slip at a time into the rules, and see whether the sheet notices",
      "A mutant is the sheet with one realistic slip: a direction forgotten, a number by one, "
      "mine\n"
      "for theirs, a line left out. It is noticed if a case of the sheet fails, or if playouts "
      "find\n"
      "a fault. What nothing notices could be a mistake in your sheet, too: `ninepegs ask` asks.\n"
      "Examples:\n"
      "  ninepegs mutate connect-four\n"
      "  ninepegs mutate ./my-game.pegs --at-least 95 --json");
  options.game.addGame(command);
  options.drawing.add(command);
  options.time.add(command);
  option(command, "--playouts N", options.playouts,
         "random games that look for faults in each mutant (default 50)");
  option(command, "--mutants N", options.most, "so many, drawn from all (default: all)");
  option(command, "--at-least PERCENT", options.atLeast,
         "exit code 1 if less than so many in a hundred are noticed");
  option(command, "--all", options.all, "list the mutants that are noticed, too");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
