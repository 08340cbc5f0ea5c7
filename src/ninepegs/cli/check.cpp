#include "ninepegs/verify/check.hpp"

#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/parallel.hpp"
#include "ninepegs/cli/check_files.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/json.hpp"

namespace ninepegs::cli {
namespace {

struct Options {
  GameOptions game;
  std::string playouts = "10000", seed = "1", threads = "0", out;
  bool json = false;
};

void run(const Options& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  verify::CheckOptions how;
  how.playouts = wholeOption(options.playouts, "--playouts", 1, 1'000'000'000'000ull);
  how.seed = wholeOption(options.seed, "--seed", 0, ~0ull);
  how.threads = static_cast<int>(wholeOption(options.threads, "--threads", 0, 256));
  if (how.threads == 0) how.threads = availableThreads();
  how.stop = &stopFlag();
  if (!options.out.empty()) makeFolder(options.out);  // before the work, not after it
  verify::CheckReport report;
  {
    Progress progress(context, "playouts", how.playouts);
    how.progress = [&](std::uint64_t done) { progress.at(done); };
    report = verify::check(*game, how);
  }
  std::string files;
  if (!options.out.empty())
    for (const WrittenFile& file : writeCheckFiles(*game, how, report, options.out))
      files += fmt::format("  {:<28} {}\n", file.path.string(), file.shows);
  if (options.json) {
    print(report::checkJson(*game, how, report) + "\n");
  } else {
    std::string out = report::checkText(*game, how, report, context.paint);
    if (!files.empty()) out += "\nFiles\n" + files;
    print(out);
  }
  context.exitCode = report.stopped            ? exitInterrupted
                     : report.findings.empty() ? exitFine
                                               : exitFault;
}

}  // namespace

void addCheck(CLI::App& app, Context& context) {
  auto options = std::make_shared<Options>();
  CLI::App* command =
      app.add_subcommand("check", "Verify the rules: run the sheet's cases and random playouts");
  options->game.addGame(*command);
  command->add_option("--playouts", options->playouts, "random games to play (default 10000)")
      ->type_name("N");
  command->add_option("--seed", options->seed, "seed of the random numbers (default 1)")
      ->type_name("S");
  command
      ->add_option("--threads", options->threads,
                   "threads (0: one for each core); changes no result")
      ->type_name("T");
  command->add_option("--out", options->out, "write report files and figures to this folder")
      ->type_name("DIR");
  command->add_flag("--json", options->json, "print one JSON object");
  command->footer(
      "Exit code 1 says that a fault was found; the shortest failing game is shown.\n"
      "Examples:\n"
      "  ninepegs check tic-tac-toe --playouts 100000 --seed 1\n"
      "  ninepegs check ./my-game.pegs --out report");
  command->callback([options, &context] { run(*options, context); });
}

}  // namespace ninepegs::cli
