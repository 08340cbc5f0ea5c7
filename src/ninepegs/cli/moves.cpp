#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/json.hpp"
#include "ninepegs/report/moves_from.hpp"

namespace ninepegs::cli {
namespace {

struct MovesOptions {
  GameOptions game;
  Said from;
  bool json = false;
};

void runMoves(const MovesOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  Position position = options.game.position(*game);
  Cell from = options.from ? cellNamed(*game, *options.from, "--from") : -1;
  if (options.json) {
    print(report::movesJson(*game, position, from) + "\n");
    return;
  }
  std::vector<std::string> texts = report::textsFrom(*game, position, from);
  if (!texts.empty()) {
    print(fmt::format("{}: {}\n{}\n", game->info().sides[game->toMove(position)],
                      plural(static_cast<long long>(texts.size()), "legal move"),
                      joined(texts, ", ")));
    return;
  }
  Result result = game->result(position);
  if (from >= 0)
    print(report::whyNoneFrom(*game, position, from) + "\n");
  else if (result.kind != ResultKind::ongoing)
    print(fmt::format("no legal moves: the game is over. {}\n", resultText(*game, result)));
  else
    print(fmt::format("no legal moves: {} cannot move, and no end of the sheet holds\n",
                      game->info().sides[game->toMove(position)]));
}

}  // namespace

void addMoves(CLI::App& app, Context& context) {
  auto [options, command] =
      newCommand(app, context, runMoves, "moves", "List the legal moves, or say why there are none",
                 "Examples:\n"
                 "  ninepegs moves connect-four --after \"d, d, d, d, d, d\"\n"
                 "  ninepegs moves tic-tac-toe --at \"X1X/OO1/3; Cross to move\" --json");
  options.game.addGame(command);
  options.game.addPosition(command);
  option(command, "--from CELL", options.from, "only moves that begin on this cell");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
