#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/draw/thinking_chart.hpp"
#include "ninepegs/play/knowledge.hpp"
#include "ninepegs/play/thinking.hpp"
#include "ninepegs/report/thinking_text.hpp"

namespace ninepegs::cli {
namespace {

struct ThinkOptions {
  GameOptions game;
  Said with, depth, nodes, csv, figure;
  std::string seed = "1";
  bool json = false;
};

// What a side knows when its turn has come, from where the game began.
play::Knowledge knowledgeOf(const ThinkOptions& options, const Game& game, Position at,
                            const MoveList& moves, int side) {
  if (options.csv || options.figure)
    throw BadInput(Place{}, "where something is hidden, there are no depths to write or draw",
                   "leave --csv and --figure out");
  if (!play::Knowledge::knowable(game, at))
    throw BadInput(Place{},
                   "nobody can know what led to this position, in which something is hidden",
                   "name the moves from the beginning with --after");
  play::Knowledge known(game, at, side);
  for (const Move& move : moves) {
    known.note(at, move);
    game.apply(at, move);
  }
  known.turn(at);
  return known;
}

// Who thinks: as --with says, or the search.
std::unique_ptr<play::Opponent> whoThinks(const ThinkOptions& options) {
  constexpr std::uint64_t usualNodes = 1'000'000;
  if (options.with) {
    if (options.depth || options.nodes)
      throw BadInput(Place{}, "--with says how far to look: --depth and --nodes do not go with it",
                     "such as: --with search:depth=6");
    return play::makeOpponent(*options.with, "--with");
  }
  play::SearchLimits limits;
  if (options.depth)
    limits.depth = static_cast<int>(wholeOption(*options.depth, "--depth", 1, limits::searchDepth));
  limits.nodes =
      options.nodes ? wholeOption(*options.nodes, "--nodes", 1, 1'000'000'000'000ull) : usualNodes;
  return play::makeSearch(limits);
}

void runThink(const ThinkOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  Position from = options.game.from(*game);
  MoveList moves;
  Position position = options.game.played(*game, from, &moves);
  if (game->ended(position) || game->countMoves(position) == 0)
    throw BadInput(Place{}, "there is no move to think about: the game is over",
                   "name another position with --at or --after");
  if (options.csv) requireWritable(*options.csv);
  requirePicture(options.figure);
  play::ThinkOptions how;
  std::unique_ptr<play::Opponent> who = whoThinks(options);
  how.seed = wholeOption(options.seed, "--seed", 0, ~0ull);
  how.stop = &stopFlag();
  play::Thinking thought;
  {
    bool playouts = who->name().starts_with("playouts");
    Progress progress(context, playouts ? "playouts" : "positions", 0, true);
    how.progress = [&](std::uint64_t done) { progress.at(done); };
    thought =
        game->secrets() == nullptr
            ? play::think(*game, position, *who, how)
            : play::think(*game, knowledgeOf(options, *game, from, moves, game->toMove(position)),
                          *who, how);
  }
  bool weighsNothing = thought.choice.steps.empty() && thought.choice.means.empty();
  if (weighsNothing && endedByInterrupt(context, "nothing was found")) return;
  if (weighsNothing && who->name().starts_with("search"))
    throw BadInput(Place{}, fmt::format("`{}` finished no depth", who->name()),
                   "let it look at more positions");
  if (weighsNothing)
    throw BadInput(Place{},
                   fmt::format("`{}` weighs nothing: there is nothing to show", who->name()),
                   "there are: search, playouts, minimax");
  if (wantsStop(&stopFlag())) context.exitCode = exitInterrupted;
  if (options.csv) writeFile(*options.csv, report::thinkingCsv(*game, position, thought));
  if (options.figure)
    writeFile(*options.figure, draw::thinkingChart(*game, thought, chartOptions(*options.figure)));
  print(options.json ? report::thinkingJson(*game, position, thought) + "\n"
                     : report::thinkingText(*game, position, thought, context.paint));
}

}  // namespace

void addThink(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runThink, "think",
      "Show how an opponent comes to its move, depth by depth, beside plain minimax",
      "`factor` is how many times the positions of the depth before: why one ply more takes so "
      "long.\n"
      "`saved` is what the search leaves out of all that minimax looks at, and loses nothing by "
      "it.\n"
      "Playouts are shown by their number: how often the side to move wins them.\n"
      "Where something is hidden, each move is looked at in positions that agree with what the "
      "side knows.\n"
      "Examples:\n"
      "  ninepegs think connect-four --after d,d,d\n"
      "  ninepegs think chess --depth 5 --csv depths.csv\n"
      "  ninepegs think hex --with playouts:playouts=5000 --figure hex.svg\n"
      "  ninepegs think hiding.pegs --after \"hide b2, hide c3\"");
  options.game.addGame(command);
  options.game.addPosition(command);
  option(command, "--with WHO", options.with,
         "who thinks, such as search:time=2, playouts, minimax:depth=4 (default: search)");
  option(command, "--depth PLIES", options.depth,
         "plies to look ahead (default: as --nodes allows)");
  option(command, "--nodes N", options.nodes, "positions to look at (default 1000000)");
  option(command, "--seed N", options.seed, "draws among equal moves (default 1)");
  option(command, "--csv FILE", options.csv, "write the depths to this file, as rows");
  option(command, "--figure FILE", options.figure,
         "also draw positions, or results, and time against depth: .png or .svg");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
