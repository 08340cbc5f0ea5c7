#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/report/board_csv.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/json.hpp"
#include "ninepegs/report/moves_from.hpp"

namespace ninepegs::cli {
namespace {

struct ShowOptions {
  GameOptions game;
  Said from, figure, as, atFile, format;
  bool json = false;
};

constexpr std::size_t csvBytes = 1 << 20;

// The position of --at-file, after the moves of --after.
Position fromFile(const Game& game, const ShowOptions& options, bool& turnSaid) {
  const std::string& file = *options.atFile;
  report::CsvBoard board = report::readBoardCsv(game, readFile(file, csvBytes), file);
  turnSaid = board.turnSaid;
  for (const std::string& broken : brokenInvariants(game, board.position))
    printError(fmt::format("note: in the position of {}, {}\n", file, broken));
  return playMoves(game, std::move(board.position), options.game.after.value_or(""), "--after");
}

// The picture alone, for another program; false: it is to be printed as ever.
bool printFormat(const Game& game, const Position& position, const ShowOptions& options,
                 const report::Marks& marks, int viewer) {
  if (!options.format) return false;
  const std::string& format = *options.format;
  report::Paint plain;
  if (format == "csv")
    print(report::boardCsv(game, position));
  else if (format == "text")
    print(report::boardsText(game, position, marks, plain, viewer) +
          report::besidesText(game, position, viewer) + report::stateText(game, position, plain) +
          "\n");
  else if (format == "svg")
    print(draw::boardImage(game, position,
                           {.shown = marks.shown,
                            .targets = marks.targets,
                            .origin = marks.origin,
                            .caption = report::stateText(game, position, plain),
                            .viewer = viewer},
                           ".svg"));
  else if (format != "json")
    throw BadInput(
        Place{"--format", 1, 1, columnsOf(format), format},
        fmt::format("there is no format \"{}\"", clipped(format, 40)),
        didYouMean(format, {"text", "csv", "json", "svg"}, "there are: text, csv, json, svg"));
  return format != "json";
}

void runShow(const ShowOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  if (options.atFile && options.game.at)
    throw BadInput(Place{}, "--at and --at-file do not go together", "leave one of them out");
  bool turnSaid = true;
  Position position =
      options.atFile ? fromFile(*game, options, turnSaid) : options.game.position(*game);
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
    draw::FigureMarks figure;
    figure.shown = marks.shown;
    figure.targets = marks.targets;
    figure.origin = marks.origin;
    figure.caption = where.empty() || marks.targets.none()
                         ? report::stateText(*game, position, report::Paint())
                         : where;
    figure.viewer = viewer;
    draw::drawBoard(*game, position, figure, *options.figure);
  }
  if (options.format && options.json)
    throw BadInput(Place{}, "--format and --json do not go together", "leave one of them out");
  if (printFormat(*game, position, options, marks, viewer)) return;
  if (options.json || options.format) {
    print(report::showJson(*game, viewer < 0 ? position : game->viewFor(position, viewer).shown,
                           marks.origin) +
          "\n");
    return;
  }
  std::string out = context.paint.strong(game->info().title) + "\n\n";
  out += report::boardsText(*game, position, marks, context.paint, viewer);
  out += report::besidesText(*game, position, viewer) + "\n";
  out += report::stateText(*game, position, context.paint) + "\n";
  if (!turnSaid) out += "whose turn it is was not said\n";
  if (!where.empty()) out += where + "\n";
  Position shown = viewer < 0 ? position : game->viewFor(position, viewer).shown;
  out += context.paint.faint("position: " + game->positionText(shown)) + "\n";
  if (viewer >= 0)
    out += context.paint.faint(fmt::format("expect {} sees \"{}\"", game->info().sides[viewer],
                                           viewText(*game, game->viewFor(position, viewer)))) +
           "\n";
  if (std::string notation = game->notation(position); !notation.empty())
    out += context.paint.faint("FEN: " + notation) + "\n";
  else if (std::vector<std::string> beside = game->besideNotation(position); !beside.empty())
    out += context.paint.faint("FEN: none, no field of it carries " + joined(beside, ", ")) + "\n";
  if (options.figure) out += "figure: " + *options.figure + "\n";
  print(out);
}

}  // namespace

void addShow(CLI::App& app, Context& context) {
  auto [options, command] =
      newCommand(app, context, runShow, "show", "Show the board, whose turn it is and the result",
                 "Examples:\n"
                 "  ninepegs show tic-tac-toe --after \"5, 1, 3\"\n"
                 "  ninepegs show tic-tac-toe --at-file board.csv\n"
                 "  ninepegs show connect-four --after d,d --format csv\n"
                 "  ninepegs show hut-pass --from c1 --figure pass.png\n"
                 "  ninepegs show chess --at \"r3k2r/8/8/8/8/8/8/R3K2R w KQkq - 0 1\" --after O-O\n"
                 "  ninepegs show battleship --after \"ferry a1-e1, ferry a1-e1\" --as Amber");
  options.game.addGame(command);
  options.game.addPosition(command);
  option(command, "--from CELL", options.from, "also show where the piece on this cell may go");
  option(command, "--as SIDE", options.as, "only what this side knows, where pieces are secret");
  option(command, "--figure FILE", options.figure, "also draw it: .svg, .png or .pdf");
  option(command, "--at-file FILE.csv", options.atFile,
         "judge the board of this file: rows from the top, fields divided by commas, and behind "
         "them, if it is known, SIDE to move");
  option(command, "--format FORMAT", options.format,
         "print the picture alone: text, csv, json or svg");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
