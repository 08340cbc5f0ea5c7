#include "ninepegs/verify/check.hpp"

#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/cli/check_files.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/every_text.hpp"
#include "ninepegs/report/json.hpp"

namespace ninepegs::cli {
namespace {

struct Options {
  GameOptions game;
  DrawOptions drawing;
  std::string playouts = "10000";
  Said out;
  Said memory;
  bool allVariants = false, closely = false, everyPosition = false, json = false;
};

struct Checked {
  std::shared_ptr<const Game> game;
  verify::CheckReport report;
  std::string files;  // that were written, a line each
};

// What a file could not take is told behind the report, which is worth more than the file.
void write(Checked& checked, const verify::CheckOptions& how, const std::filesystem::path& folder,
           std::string& failed) {
  try {
    makeFolder(folder);
    for (const WrittenFile& file : writeCheckFiles(*checked.game, how, checked.report, folder))
      checked.files += fmt::format("  {:<28} {}\n", file.path.string(), file.shows);
  } catch (const BadInput& error) {
    failed = error.what();
  }
}

constexpr std::uint64_t guessPlayouts = 2000;

// Goes through every position, after a word on how many there may be.
void everyPosition(Checked& checked, const verify::CheckOptions& how, std::uint64_t memory,
                   Context& context) {
  verify::Guess guess =
      verify::guessedPositions(*checked.game, guessPlayouts, how.seed, &stopFlag());
  if (context.errorIsTerminal) printError(report::guessText(guess) + "\n");
  Progress progress(context, "positions", std::max<std::uint64_t>(guess.positions, 1), true);
  verify::EveryOptions options;
  options.memory = memory;
  options.threads = how.threads;
  options.stop = &stopFlag();
  options.progress = [&](std::uint64_t done) { progress.at(done); };
  verify::addEvery(*checked.game, verify::everyPosition(*checked.game, options), checked.report);
}

int exitCodeOf(const verify::CheckReport& report) {
  if (report.stopped) return exitInterrupted;
  return report.findings.empty() ? exitFine : exitFault;
}

void run(const Options& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.openWithVariants(context);
  if (options.allVariants && options.game.variant)
    throw BadInput(Place{}, "--variant and --all-variants do not go together",
                   "leave one of them out");
  verify::CheckOptions how;
  how.closely = options.closely;
  how.remarks = true;
  how.playouts = wholeOption(options.playouts, "--playouts", 1, 1'000'000'000'000ull);
  how.seed = options.drawing.seedGiven();
  how.threads = options.drawing.threadsGiven();
  how.stop = &stopFlag();
  if (options.memory && !options.everyPosition)
    throw BadInput(Place{}, "--memory goes with --every-position", "leave it out");
  std::uint64_t memory = wholeOption(options.memory.value_or("1024"), "--memory", 1, 1'000'000'000)
                         << 20;
  if (options.out) makeFolder(*options.out);  // before the work, not after it
  std::vector<Checked> all = {{game, {}, {}}};
  if (options.allVariants)
    for (const auto& [name, says] : game->info().variants)
      all.push_back({game->variant(name), {}, {}});
  std::string failed;
  for (Checked& one : all) {
    if (wantsStop(&stopFlag())) one.report.stopped = true;
    if (one.report.stopped) continue;
    const std::string& variant = one.game->info().variant;
    how.examples = &one == &all.front();  // those of the variants are run there, too
    {
      Progress progress(context, variant.empty() ? "playouts" : "playouts of " + variant,
                        how.playouts);
      how.progress = [&](std::uint64_t done) { progress.at(done); };
      one.report = verify::check(*one.game, how);
    }
    if (options.everyPosition && !one.report.stopped) everyPosition(one, how, memory, context);
    context.exitCode = std::max(context.exitCode, exitCodeOf(one.report));
    std::filesystem::path folder = options.out.value_or("");
    if (options.out) write(one, how, options.allVariants ? folder / variant : folder, failed);
  }
  how.progress = nullptr;
  if (options.json && !options.allVariants) {
    print(report::checkJson(*game, how, all.front().report) + "\n");
  } else if (options.json) {
    std::string out;
    for (const Checked& one : all)
      out += (out.empty() ? "[\n" : ",\n") + report::checkJson(*one.game, how, one.report);
    print(out + "\n]\n");
  } else {
    for (const Checked& one : all) {
      std::string out = report::checkText(*one.game, how, one.report, context.paint);
      if (!one.files.empty()) out += "\nFiles\n" + one.files;
      print(out + (&one == &all.back() ? "" : "\n"));
    }
  }
  if (failed.empty()) return;
  context.exitCode = exitBadInput;
  printError(failed + "\n");
}

}  // namespace

void addCheck(CLI::App& app, Context& context) {
  auto options = std::make_shared<Options>();
  CLI::App* command =
      app.add_subcommand("check", "Verify the rules: run the sheet's cases and random playouts");
  options->game.addGame(*command);
  command->add_option("--playouts", options->playouts, "random games to play (default 10000)")
      ->type_name("N");
  options->drawing.add(*command);
  addSaid(*command, "--out", options->out, "write report files and figures to this folder")
      ->type_name("DIR");
  command->add_flag("--all-variants", options->allVariants,
                    "also play the playouts in every variant; cases of variants are always run");
  command->add_flag("--closely", options->closely,
                    "try texts and symmetries in every position, and all pairs of games with "
                    "secrets, not only as many as the playouts leave time for");
  command->add_flag("--every-position", options->everyPosition,
                    "also go through every position that can be reached, each with every check, "
                    "and work out what best play comes to: for small games and boards");
  addSaid(*command, "--memory", options->memory,
          "megabytes that every position may take (default 1024)")
      ->type_name("N");
  command->add_flag("--json", options->json, "print one JSON object");
  command->footer(
      "Exit code 1 says that a fault was found; the shortest failing game is shown.\n"
      "Examples:\n"
      "  ninepegs check tic-tac-toe --playouts 100000 --seed 1\n"
      "  ninepegs check nim --all-variants\n"
      "  ninepegs check tic-tac-toe --every-position\n"
      "  ninepegs check ./my-game.pegs --out report");
  command->callback([options, &context] { run(*options, context); });
}

}  // namespace ninepegs::cli
