#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/report/json_text.hpp"
#include "ninepegs/verify/lint.hpp"

namespace ninepegs::cli {
namespace {

struct Options {
  GameOptions game;
  std::string playouts = "200", seed = "1";
  bool json = false;
};

void run(const Options& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.openWithVariants(context);
  const SheetGame& sheet = sheetOf(*game, "only a game with a sheet can be read for lint");
  verify::LintOptions lint;
  lint.playouts = wholeOption(options.playouts, "--playouts", 0, 1'000'000);
  lint.seed = wholeOption(options.seed, "--seed", 0, ~0ull);
  lint.stop = &stopFlag();
  std::vector<verify::Remark> remarks = verify::lint(sheet, lint);
  bool stopped = wantsStop(&stopFlag());
  context.exitCode = stopped ? exitInterrupted : remarks.empty() ? exitFine : exitFault;
  if (options.json) {
    nlohmann::ordered_json out;
    out["game"] = game->info().id;
    out["seed"] = lint.seed;
    out["playouts"] = lint.playouts;
    out["complete"] = !stopped;
    out["remarks"] = nlohmann::ordered_json::array();
    for (const verify::Remark& one : remarks)
      out["remarks"].push_back({{"line", one.line}, {"message", one.message}, {"hint", one.hint}});
    print(report::jsonText(out, 2) + "\n");
    return;
  }
  std::string out;
  for (const verify::Remark& one : remarks) {
    out += context.paint.strong(fmt::format("{}:{}", game->info().source, one.line)) + "\n" +
           wrapped(one.message, 96, "  ");
    if (!one.hint.empty()) out += wrapped("hint: " + one.hint, 96, "  ");
  }
  if (stopped) out += context.paint.bad("stopped early: not all was looked at") + "\n";
  out += remarks.empty() ? fmt::format("{}: nothing suspect ({} random playouts, seed {})\n",
                                       game->info().title, lint.playouts, lint.seed)
                         : fmt::format("{} ({} random playouts, seed {})\n",
                                       plural(static_cast<long long>(remarks.size()), "remark"),
                                       lint.playouts, lint.seed);
  print(out);
}

}  // namespace

void addLint(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, run, "lint", "Find what is legal in a sheet but suspect",
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
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
