#include "ninepegs/verify/check.hpp"

#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/check_files.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/cli/slips_run.hpp"
#include "ninepegs/cli/watch.hpp"
#include "ninepegs/report/begun_check.hpp"
#include "ninepegs/report/check_changes.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/every_text.hpp"
#include "ninepegs/report/json.hpp"
#include "ninepegs/report/listing.hpp"
#include "ninepegs/report/record_cases.hpp"

namespace ninepegs::cli {
namespace {

struct CheckOptions {
  GameOptions game;
  DrawOptions drawing;
  std::string playouts = "10000";
  Said out, plies;
  Said memory, resume, records;
  TimeOption time;
  bool allVariants = false, closely = false, everyPosition = false, json = false;
  bool listing = false, watch = false, mutants = false;
};

struct Checked {
  std::shared_ptr<const Game> game;
  verify::CheckReport report;
  std::string files;    // that were written, a line each
  std::string records;  // what was said of recorded games
  SlipsRun slips{};

  report::MutantsPart mutants() const { return {slips.mutants.get(), slips.said}; }
};

// Puts one slip at a time into the rules, as `mutate` does.
void mutants(Checked& checked, const verify::CheckOptions& how, const Context& context) {
  verify::MutantOptions options;
  options.seed = how.seed;
  options.playouts = usualMutantPlayouts;
  options.threads = how.threads;
  checked.slips = runMutants(*checked.game, options, context);
  checked.report.stopped = checked.report.stopped || checked.slips.said.stopped;
}

// What a file could not take is told behind the report, which is worth more than the file.
void write(Checked& checked, const verify::CheckOptions& how, const std::filesystem::path& folder,
           std::string& failed) {
  try {
    makeFolder(folder);
    for (const WrittenFile& file :
         writeCheckFiles(*checked.game, how, checked.report, checked.mutants(), folder))
      checked.files += fmt::format("  {:<28} {}\n", file.path.string(), file.shows);
  } catch (const Failure& error) {
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
  if (interrupted()) return exitInterrupted;
  return report.findings.empty() ? exitFine : exitFault;
}

constexpr std::size_t begunBytes = 64 << 20;

// Takes what was done before out of the file, if it is there, and keeps there what is done.
void goOn(const Game& game, const std::string& file, verify::CheckOptions& how) {
  requireWritable(file);
  if (std::filesystem::exists(file)) {
    how.begun = report::readBegun(game, how, NINEPEGS_VERSION, readFile(file, begunBytes), file);
    printError(fmt::format("goes on behind {} in {}\n",
                           plural(static_cast<long long>(how.begun.playouts), "playout"), file));
  }
  how.keep = [&game, file, &how](const verify::Evidence& evidence) {
    writeFile(file, report::begunText(game, how, evidence, NINEPEGS_VERSION));
  };
}

// The options as they were understood.
struct Asked {
  verify::CheckOptions how;
  std::uint64_t memory = 0;
};

Asked understood(const CheckOptions& options) {
  auto apart = [](bool both, const char* message) {
    if (both) throw BadInput(Place{}, message, "leave one of them out");
  };
  apart(options.allVariants && options.game.variant,
        "--variant and --all-variants do not go together");
  apart(options.allVariants && options.resume, "--resume and --all-variants do not go together");
  apart(options.watch && options.resume, "--resume and --watch do not go together");
  apart(options.watch && options.time.seconds, "--time and --watch do not go together");
  apart(options.watch && options.json, "--json and --watch do not go together");
  apart(options.listing && options.json,
        "--json and --listing do not go together: the JSON has it, too");
  if (options.memory && !options.everyPosition)
    throw BadInput(Place{}, "--memory goes with --every-position", "leave it out");
  Asked out;
  out.how.closely = options.closely;
  out.how.remarks = out.how.unnamed = out.how.parts = true;
  if (options.plies)
    out.how.plyLimit = static_cast<int>(wholeOption(*options.plies, "--plies", 1, limits::mayLast));
  out.how.playouts = wholeOption(options.playouts, "--playouts", 1, 1'000'000'000'000ull);
  options.drawing.into(out.how);
  out.memory = wholeOption(options.memory.value_or("1024"), "--memory", 1, 1'000'000'000) << 20;
  return out;
}

// Checks the game, and its variants where that is asked for; sets the exit code.
std::vector<Checked> checkAll(const CheckOptions& options, Asked asked, Context& context,
                              std::string& failed) {
  std::shared_ptr<const Game> game = options.game.openWithVariants(context);
  verify::CheckOptions& how = asked.how;
  if (options.resume) goOn(*game, *options.resume, how);
  if (options.out) makeFolder(*options.out);  // before the work, not after it
  std::vector<Checked> all(1);
  all.front().game = game;
  if (options.allVariants)
    for (const auto& [name, says] : game->info().variants)
      all.emplace_back().game = game->variant(name);
  context.exitCode = exitFine;
  for (Checked& one : all) {
    if (wantsStop(&stopFlag())) {  // nothing of it is looked at
      one.report.stopped = true;
      one.report.extent[static_cast<std::size_t>(verify::CheckPart::playouts)] =
          verify::Extent::none;
      if (interrupted()) context.exitCode = exitInterrupted;
      continue;
    }
    const std::string& variant = one.game->info().variant;
    how.examples = &one == &all.front();  // those of the variants are run there, too
    verify::CheckReport recorded;
    if (options.records && how.examples) {
      report::RecordsHeld held =
          report::addRecords(*one.game, *options.records, &stopFlag(), recorded);
      one.records = fmt::format("records: {} in {}, {} by the rules\n",
                                plural(static_cast<long long>(held.games), "game"),
                                plural(static_cast<long long>(held.files), "file"),
                                held.faulty == 0 ? "all" : fmt::format("{} not", held.faulty));
    }
    {
      Progress progress(context, variant.empty() ? "playouts" : "playouts of " + variant,
                        how.playouts);
      how.progress = [&](std::uint64_t done) { progress.at(done); };
      how.begins = [&](verify::CheckPart part) { progress.doing(report::partName(part)); };
      one.report = verify::check(*one.game, how);
      how.progress = nullptr;
      how.begins = nullptr;
    }
    for (verify::Finding& finding : recorded.findings)
      one.report.findings.push_back(std::move(finding));
    if (options.everyPosition && !one.report.stopped)
      everyPosition(one, how, asked.memory, context);
    if (options.mutants && !one.report.stopped) mutants(one, how, context);
    std::filesystem::path folder = options.out.value_or("");
    if (options.out) write(one, how, options.allVariants ? folder / variant : folder, failed);
    context.exitCode = std::max(context.exitCode, exitCodeOf(one.report));
  }
  return all;
}

void tell(const CheckOptions& options, const verify::CheckOptions& how,
          const std::vector<Checked>& all, const Context& context) {
  if (options.json) {
    std::string out;
    for (const Checked& one : all)
      out +=
          (out.empty() ? "" : ",\n") + report::checkJson(*one.game, how, one.report, one.mutants());
    print(options.allVariants ? "[\n" + out + "\n]\n" : out + "\n");
    return;
  }
  for (const Checked& one : all) {
    std::string out = report::checkText(*one.game, how, one.report, context.paint);
    out += one.records;
    if (one.slips.mutants)
      out += "\n" + report::mutantsText(*one.slips.mutants, one.slips.said, context.paint);
    if (options.listing) out += report::listingText(*one.game, one.report, context.paint);
    if (!one.files.empty()) out += "\nFiles\n" + one.files;
    print(out + (&one == &all.back() ? "" : "\n"));
  }
}

// Where the sheet is read from, and its file of cases, whether it is there or not.
std::vector<std::filesystem::path> filesOf(const CheckOptions& options, const Context& context) {
  std::filesystem::path sheet = options.game.game;
  if (!std::filesystem::exists(sheet))
    sheet = context.library.open(options.game.game)->info().source;
  std::filesystem::path cases = sheet;
  return {sheet, cases.replace_extension(".cases.pegs")};
}

// Checks again whenever the sheet is saved, until Ctrl-C.
void watch(const CheckOptions& options, const Asked& asked, Context& context) {
  Watch files(filesOf(options, context));
  std::vector<Checked> before;
  do {
    try {
      std::string failed;
      std::vector<Checked> all = checkAll(options, asked, context, failed);
      if (interrupted()) break;
      tell(options, asked.how, all, context);
      for (std::size_t i = 0; i < before.size() && i < all.size(); ++i)
        print("\n" + report::changesText(*before[i].game, before[i].report, *all[i].game,
                                         all[i].report, context.paint));
      if (!failed.empty()) printError(failed + "\n");
      before = std::move(all);
    } catch (const BadInput& error) {  // a sheet that is half written
      printError(std::string(error.what()) + "\n");
    }
    printError("waits until the sheet is saved; Ctrl-C ends\n");
  } while (files.wait(stopFlag()));
  context.exitCode = exitInterrupted;
}

void runCheck(const CheckOptions& options, Context& context) {
  Asked asked = understood(options);
  if (options.watch) return watch(options, asked, context);
  options.time.begin();
  std::string failed;
  std::vector<Checked> all = checkAll(options, asked, context, failed);
  tell(options, asked.how, all, context);
  if (failed.empty()) return;
  context.exitCode = interrupted() ? exitInterrupted : exitBadInput;
  printError(failed + "\n");
}

}  // namespace

void addCheck(CLI::App& app, Context& context) {
  auto [options, command] =
      newCommand(app, context, runCheck, "check",
                 "Verify the rules: run the sheet's cases and random playouts",
                 "Exit code 1 says that a fault was found; the shortest failing game is shown.\n"
                 "Examples:\n"
                 "  ninepegs check tic-tac-toe --playouts 100000 --seed 1\n"
                 "  ninepegs check nim --all-variants\n"
                 "  ninepegs check tic-tac-toe --every-position\n"
                 "  ninepegs check chess --playouts 1000000 --resume chess-check.json\n"
                 "  ninepegs check ./my-game.pegs --watch\n"
                 "  ninepegs check connect-four --records games\n"
                 "  ninepegs check ./my-game.pegs --out report");
  options.game.addGame(command);
  option(command, "--playouts N", options.playouts, "random games to play (default 10000)");
  option(
      command, "--plies N", options.plies,
      "break a game off after so many plies (default: what the sheet says it may last, or 2000)");
  options.drawing.add(command);
  options.time.add(command);
  option(command, "--out DIR", options.out, "write report files and figures to this folder");
  option(command, "--all-variants", options.allVariants,
         "also play the playouts in every variant; cases of variants are always run");
  option(command, "--closely", options.closely,
         "try texts and symmetries in every position, and all pairs of games with "
         "secrets, not only as many as the playouts leave time for");
  option(command, "--every-position", options.everyPosition,
         "also go through every position that can be reached, each with every check, "
         "and work out what best play comes to: for small games and boards");
  option(command, "--memory N", options.memory,
         "megabytes that every position may take (default 1024)");
  option(command, "--records DIR", options.records,
         "also play the recorded games of this folder: each is a case that the rules must allow");
  option(command, "--mutants", options.mutants,
         "also put one slip at a time into the rules, and see whether the sheet notices");
  option(command, "--listing", options.listing,
         "also print the sheet with how often each statement was used, and the parts of "
         "conditions that decided nothing");
  option(command, "--resume FILE", options.resume,
         "keep in this file what was played, about once a second; if it is there, go on from it");
  option(command, "--watch", options.watch,
         "check again whenever the sheet is saved, and say what changed");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
