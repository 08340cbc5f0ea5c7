#include <fmt/format.h>

#include <atomic>

#include "ninepegs/cli/context.hpp"
#include "ninepegs/cli/line_input.hpp"
#include "ninepegs/engines/uci_server.hpp"

namespace ninepegs::cli {
namespace {

struct ServeOptions {
  GameOptions game;
  bool uci = false;
};

void runServe(const ServeOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  if (!options.uci)
    throw BadInput(Place{}, "what it should speak is not said",
                   "such as: ninepegs serve chess --uci");
  if (game->notation(game->start()).empty())
    throw BadInput(Place{}, "UCI is for games with positions in FEN, and this sheet has none",
                   "a `notation` section says how its positions are written: docs/language.md");
  // Lines are said on the thread that thinks, too, where nobody would catch what is thrown.
  std::atomic<bool> gone = false;
  auto say = [&](const std::string& line) {
    try {
      if (!gone) print(line + "\n");
    } catch (const ReaderGone&) {
      gone = true;
    }
  };
  engines::UciServer server(*game, fmt::format("Nine Pegs {}", NINEPEGS_VERSION), say);
  while (std::optional<std::string> line = readBareLine())
    if (!server.take(*line) || gone) break;
  if (gone)
    context.exitCode = exitReaderGone;
  else if (wantsStop(&stopFlag()))
    context.exitCode = exitInterrupted;
  else
    server.finish();  // the end of a pipe: what it asked for is still answered
}

}  // namespace

void addServe(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runServe, "serve",
      "Let another program play against our search, by a protocol that it knows",
      "Of the options of UCI it has Hash (megabytes), Level (1 to 9, 0 for its best), MultiPV and "
      "Ponder.\n"
      "Examples:\n"
      "  ninepegs serve chess --uci\n"
      "  printf 'position startpos moves e2e4\\ngo depth 4\\n' | ninepegs serve chess --uci");
  options.game.addGame(command);
  option(command, "--uci", options.uci, "speak UCI on standard input and output");
}

}  // namespace ninepegs::cli
