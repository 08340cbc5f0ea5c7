#include "ninepegs/verify/count.hpp"

#include <fmt/format.h>

#include <chrono>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/report/json.hpp"

namespace ninepegs::cli {
namespace {

struct CountOptions {
  GameOptions game;
  std::string depth, threads = "0";
  bool eachMove = false, positions = false, ends = false, json = false;
};

void runCount(const CountOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  Position position = options.game.position(*game);
  verify::CountOptions how;
  how.depth = static_cast<int>(wholeOption(options.depth, "--depth", 1, limits::countDepth));
  how.positions = options.positions;
  how.ends = options.ends;
  how.threads = static_cast<int>(wholeOption(options.threads, "--threads", 0, 256));
  if (how.threads == 0) how.threads = availableThreads();
  how.stop = &stopFlag();
  auto begun = std::chrono::steady_clock::now();
  verify::Counts counts = verify::count(*game, position, how);
  double seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
  context.exitCode = counts.stopped          ? exitInterrupted
                     : counts.faults.empty() ? exitFine
                                             : exitFault;
  if (options.json) {
    print(report::countJson(*game, position, how, counts, seconds) + "\n");
    return;
  }
  std::string out;
  if (options.eachMove) {
    std::size_t width = 4;
    for (const auto& [move, number] : counts.byFirstMove)
      width = std::max(width, static_cast<std::size_t>(columnsOf(move)));
    for (const auto& [move, number] : counts.byFirstMove)
      out += fmt::format("  {:<{}}  {:>16}\n", move, width, grouped(number));
  }
  out += fmt::format("{}: {} sequences of exactly {}, in {:.3f} s{}\n", game->info().id,
                     context.paint.strong(grouped(counts.sequences)),
                     how.depth == 1 ? "1 ply" : fmt::format("{} plies", how.depth), seconds,
                     counts.stopped ? " (stopped early, not complete)" : "");
  if (options.ends) {
    std::uint64_t total = 0;
    for (const auto& [name, number] : counts.ended) total += number;
    out += fmt::format("complete games of at most that length: {}\n", grouped(total));
    for (const auto& [name, number] : counts.ended)
      out += fmt::format("  {:>16}  {}\n", grouped(number), name);
  }
  if (options.positions && !counts.positions.empty()) {
    out +=
        fmt::format("different positions at that depth: {}, at all depths up to it together: {}\n",
                    grouped(counts.positions.back()), grouped(counts.allPositions));
  }
  print(out);
  if (!counts.faults.empty())
    printError(fmt::format("{}: {}\n", game->info().id, counts.faults.front()));
}

}  // namespace

void addCount(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(app, context, runCount, "count",
                                       "Count the legal move sequences of a given length",
                                       "Examples:\n"
                                       "  ninepegs count connect-four --depth 8\n"
                                       "  ninepegs count tic-tac-toe --depth 9 --ends --positions");
  options.game.addGame(command);
  options.game.addPosition(command);
  needed(command, "--depth N", options.depth, "length of the sequences in plies");
  option(command, "--each-move", options.eachMove, "also by first move");
  option(command, "--positions", options.positions, "also count different positions");
  option(command, "--ends", options.ends, "also count complete games by their result");
  option(command, "--threads T", options.threads, "threads (0: one for each core)");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
