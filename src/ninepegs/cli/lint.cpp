#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/verify/lint.hpp"

namespace ninepegs::cli {
namespace {

struct LintOptions {
  GameOptions game;
  std::string playouts = "200", seed = "1";
  TimeOption time;
  bool json = false;
};

void runLint(const LintOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.openWithVariants(context);
  const SheetGame& sheet = sheetOf(*game, "only a game with a sheet can be read for lint");
  verify::LintOptions lint;
  lint.playouts = wholeOption(options.playouts, "--playouts", 0, 1'000'000);
  lint.seed = wholeOption(options.seed, "--seed", 0, ~0ull);
  lint.stop = &stopFlag();
  options.time.begin();
  verify::LintReport found = verify::lint(sheet, lint);
  context.exitCode = interrupted() ? exitInterrupted : found.remarks.empty() ? exitFine : exitFault;
  if (options.json) {
    Json out;
    out["game"] = game->info().id;
    out["seed"] = lint.seed;
    out["playouts"] = found.playouts;
    out["playouts_asked"] = lint.playouts;
    out["complete"] = found.complete;
    out["remarks"] = Json::array();
    for (const verify::Remark& one : found.remarks)
      out["remarks"].push_back({{"line", one.line}, {"message", one.message}, {"hint", one.hint}});
    print(jsonText(out, 2) + "\n");
    return;
  }
  std::string out;
  for (const verify::Remark& one : found.remarks) {
    out += context.paint.strong(fmt::format("{}:{}", game->info().source, one.line)) + "\n" +
           context.paint.wrapped(one.message, "  ");
    if (!one.hint.empty()) out += context.paint.wrapped("hint: " + one.hint, "  ");
  }
  std::string seen = fmt::format("{} random playouts, seed {}", found.playouts, lint.seed);
  if (!found.complete)
    out += context.paint.bad(fmt::format("not complete: {} of {} random playouts were looked at",
                                         found.playouts, lint.playouts)) +
           "\n";
  out += found.remarks.empty()
             ? fmt::format("{}: nothing suspect{} ({})\n", game->info().title,
                           found.complete ? "" : " so far", seen)
             : fmt::format("{} ({})\n",
                           plural(static_cast<long long>(found.remarks.size()), "remark"), seen);
  print(out);
}

}  // namespace

void addLint(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runLint, "lint", "Find what is legal in a sheet but suspect",
      "Exit code 1 if there is a remark. Looks for ends behind wider ends, draws before wins, "
      "moves\n"
      "that are never legal, pieces that never come, names that nothing reads, numbers that go "
      "below\n"
      "0 or past the value that an end waits for, and sides that cannot move while no end holds.\n"
      "Examples:\n"
      "  ninepegs lint chess\n"
      "  ninepegs lint ./mine.pegs --playouts 2000 --json");
  options.game.addGame(command);
  option(command, "--playouts N", options.playouts, "random games to look at");
  option(command, "--seed N", options.seed, "of the random games");
  options.time.add(command);
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
