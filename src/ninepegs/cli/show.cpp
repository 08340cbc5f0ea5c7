#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/json.hpp"
#include "ninepegs/report/moves_from.hpp"

namespace ninepegs::cli {
namespace {

struct Options {
  GameOptions game;
  Said from, figure, as;
  bool json = false;
};

void run(const Options& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  Position position = options.game.position(*game);
  report::Marks marks;
  marks.shown = game->shownCells(position);
  std::string where;
  int viewer = -1;
  if (options.as) viewer = sideNamed(*game, *options.as, "--as");
  if (options.from) {
    marks.origin = cellNamed(*game, *options.from, "--from");
    marks.targets = report::targetsFrom(*game, position, marks.origin);
    std::vector<std::string> texts = report::textsFrom(*game, position, marks.origin);
    where = texts.empty() ? report::whyNoneFrom(*game, position, marks.origin)
                          : fmt::format("moves from {}: {}", game->board().label(marks.origin),
                                        joined(texts, ", "));
  }
  if (options.figure) {
    draw::FigureMarks figure{marks.shown, marks.targets, marks.origin,
                             where.empty() || marks.targets.none()
                                 ? report::stateText(*game, position, report::Paint())
                                 : where};
    figure.viewer = viewer;
    draw::drawBoard(*game, position, figure, *options.figure);
  }
  if (options.json) {
    print(report::showJson(*game, viewer < 0 ? position : game->viewFor(position, viewer).shown,
                           marks.origin) +
          "\n");
    return;
  }
  std::string out = context.paint.strong(game->info().title) + "\n\n";
  out += report::boardsText(*game, position, marks, context.paint, viewer);
  out += report::besidesText(*game, position, viewer) + "\n";
  out += report::stateText(*game, position, context.paint) + "\n";
  if (!where.empty()) out += where + "\n";
  Position shown = viewer < 0 ? position : game->viewFor(position, viewer).shown;
  out += context.paint.faint("position: " + game->positionText(shown)) + "\n";
  if (viewer >= 0)
    out += context.paint.faint(fmt::format("expect {} sees \"{}\"", game->info().sides[viewer],
                                           viewText(*game, game->viewFor(position, viewer)))) +
           "\n";
  if (std::string notation = game->notation(position); !notation.empty())
    out += context.paint.faint("FEN: " + notation) + "\n";
  if (options.figure) out += "figure: " + *options.figure + "\n";
  print(out);
}

}  // namespace

void addShow(CLI::App& app, Context& context) {
  auto options = std::make_shared<Options>();
  CLI::App* command = app.add_subcommand("show", "Show the board, whose turn it is and the result");
  options->game.addGame(*command);
  options->game.addPosition(*command);
  addSaid(*command, "--from", options->from, "also show where the piece on this cell may go")
      ->type_name("CELL");
  addSaid(*command, "--as", options->as, "only what this side knows, where pieces are secret")
      ->type_name("SIDE");
  addSaid(*command, "--figure", options->figure, "also draw it: .svg, .png or .pdf")
      ->type_name("FILE");
  command->add_flag("--json", options->json, "print one JSON object");
  command->footer(
      "Examples:\n"
      "  ninepegs show tic-tac-toe --after \"5, 1, 3\"\n"
      "  ninepegs show hut-pass --from c1 --figure pass.png\n"
      "  ninepegs show chess --at \"r3k2r/8/8/8/8/8/8/R3K2R w KQkq - 0 1\" --after O-O\n"
      "  ninepegs show battleship --after \"ferry a1-e1, ferry a1-e1\" --as Amber");
  command->callback([options, &context] { run(*options, context); });
}

}  // namespace ninepegs::cli
