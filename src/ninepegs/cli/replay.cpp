#include <fmt/format.h>

#include <filesystem>
#include <fstream>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/cli/recorded_games.hpp"
#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/records/movetext.hpp"
#include "ninepegs/records/sgf.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/replay_text.hpp"

namespace ninepegs::cli {
namespace {

struct ReplayOptions {
  std::string record;
  Said game, variant, number, ply, figure, strip, animate, to;
  bool boards = false, json = false;
};

constexpr std::size_t stripMost = 600;  // boards
constexpr int stripRow = 6;

// Every board of the game, each with the move that led to it marked. `option` wants them.
std::vector<draw::StripBoard> everyBoard(const Game& game, const records::Replayed& played,
                                         const std::string& option) {
  if (played.moves.size() >= stripMost)
    throw BadInput(Place{option, 0, 0, 1, {}},
                   fmt::format("there is room for {} boards, and this game has {} plies", stripMost,
                               played.moves.size()),
                   "draw single boards: --ply N --figure FILE");
  std::vector<draw::StripBoard> boards(1);
  Position position = played.from;
  boards[0].position = position;
  boards[0].marks.caption = "the start";
  for (std::size_t ply = 0; ply < played.moves.size(); ++ply) {
    draw::StripBoard& board = boards.emplace_back();
    std::vector<Cell> cells = game.cellsOf(position, played.moves[ply]);
    board.marks.caption =
        fmt::format("{}. {}", ply + 1, game.moveText(position, played.moves[ply]));
    if (!cells.empty() && game.boards() == 1) board.marks.origin = cells.back();
    game.apply(position, played.moves[ply]);
    board.position = position;
    if (ply + 1 == played.moves.size()) board.marks.shown = game.shownCells(position);
  }
  return boards;
}

void strip(const Game& game, const records::Replayed& played, const std::string& file) {
  writeFile(file, draw::boardStrip(game, everyBoard(game, played, "--strip"), stripRow,
                                   std::filesystem::path(file).extension().string(), file));
}

void animate(const Game& game, const records::Replayed& played, const std::string& file) {
  if (!file.ends_with(".png"))
    throw BadInput(Place{"--animate", 1, 1, static_cast<int>(file.size()), file},
                   "an animated picture is written as .png", "such as: --animate game.png");
  writeFile(file, draw::boardAnimation(game, everyBoard(game, played, "--animate"), 1, file));
}

// One game: its boards, a figure, another format.
void show(const ReplayOptions& options, const Game& game, const records::GameRecord& record,
          const records::Replayed& played, Context& context) {
  std::size_t ply = played.moves.size();
  if (options.ply)
    ply = static_cast<std::size_t>(wholeOption(*options.ply, "--ply", 0, played.moves.size()));
  if (options.to) {
    bool sgf = options.to->ends_with(".sgf");
    if (!sgf && !options.to->ends_with(".pgn") && !options.to->ends_with(".txt"))
      throw BadInput(Place{"--to", 1, 1, static_cast<int>(options.to->size()), *options.to},
                     "a record is written as .pgn, .txt or .sgf", "such as: --to game.sgf");
    writeFile(*options.to, sgf ? records::toSgf(game, record) : records::toText(record));
  }
  Position position = played.from;
  std::string boards;
  for (std::size_t i = 0; i < ply; ++i) {
    if (options.boards)
      boards += report::plyText(game, position, i, &played.moves[i], context.paint);
    game.apply(position, played.moves[i]);
  }
  if (options.figure) {
    draw::FigureMarks marks;
    marks.shown = game.shownCells(position);
    marks.caption =
        fmt::format("ply {}: {}", ply, report::stateText(game, position, report::Paint()));
    draw::drawBoard(game, position, marks, *options.figure);
  }
  if (options.strip) strip(game, played, *options.strip);
  if (options.animate) animate(game, played, *options.animate);
  if (options.json) {
    print(report::replayJson(game, record, played) + "\n");
    return;
  }
  print(report::replayText(game, record, played, context.paint) + boards +
        report::plyText(game, position, ply, nullptr, context.paint));
  if (options.figure) print("figure: " + *options.figure + "\n");
  if (options.strip) print("strip: " + *options.strip + "\n");
  if (options.animate) print("animated: " + *options.animate + "\n");
  if (options.to) print("record: " + *options.to + "\n");
}

void runReplay(const ReplayOptions& options, Context& context) {
  std::unique_ptr<std::istream> in = openForReading(options.record);
  std::unique_ptr<records::GameReader> reader = records::openRecords(*in, options.record);
  unsigned long long wanted = options.number ? wholeOption(*options.number, "--number", 1, ~0u) : 0;
  RecordedGames games(options.record, options.game, options.variant, context);
  // The first game, as long as it may be the only one.
  std::optional<std::pair<records::GameRecord, records::Replayed>> only;
  unsigned long long number = 0, faulty = 0;
  bool one = options.number || options.ply || options.figure || options.strip || options.animate ||
             options.to || options.boards;
  Progress progress(context, "games", 0);
  while (std::optional<records::GameRecord> record = reader->next()) {
    if (wantsStop(&stopFlag())) break;
    progress.at(++number);
    if (wanted > 0 && number != wanted) continue;
    if (one && wanted == 0 && number > 1) throw severalGames(options.record, record->line);
    const Game& game = games.of(*record);
    records::nameCells(game, *record);
    records::Replayed played = records::replay(game, *record, options.record);
    faulty += !played.faults.empty();
    if (!played.faults.empty()) printError(toText(played.faults) + "\n");
    if (one || options.json) {
      show(options, game, *record, played, context);
      if (wanted > 0) break;
      continue;
    }
    if (number == 1)
      only.emplace(std::move(*record), std::move(played));
    else
      only.reset();
  }
  if (number == 0) throw noGame(options.record);
  if (wanted > number) throw onlySoMany(number, *options.number, options.record);
  if (only) {
    show(options, games.of(only->first), only->first, only->second, context);
  } else if (!one && !options.json) {
    print(fmt::format("{}, {} by the rules\n", plural(static_cast<long long>(number), "game"),
                      faulty == 0 ? "all" : fmt::format("{} not", faulty)));
  }
  if (wantsStop(&stopFlag()))
    context.exitCode = exitInterrupted;
  else if (faulty > 0)
    context.exitCode = exitFault;
}

}  // namespace

void addReplay(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runReplay, "replay",
      "Play recorded games again: the board at any ply, each move held against the rules",
      "Exit code 1: a move is not legal by the rules, or the result is another. A folder of\n"
      "records is a test: ninepegs check GAME --records FOLDER.\n"
      "Examples:\n"
      "  ninepegs play tic-tac-toe --first random --second greedy --seed 7 --record game.txt\n"
      "  ninepegs replay game.txt --boards\n"
      "  ninepegs replay games.pgn --game chess --number 3 --ply 20 --figure ply20.svg\n"
      "  ninepegs replay game.txt --strip game.pdf\n"
      "  ninepegs replay game.txt --to game.sgf");
  needed(command, "RECORD", options.record, "a file of games: .pgn, .txt or .sgf");
  option(command, "--game GAME", options.game,
         "the game or its sheet, if the record does not say it");
  option(command, "--variant NAME", options.variant, "a variant of it");
  option(command, "--number N", options.number, "only this game of the file, counted from 1");
  option(command, "--ply N", options.ply, "the board behind so many plies (default: the last)");
  option(command, "--boards", options.boards, "the board at every ply");
  option(command, "--figure FILE", options.figure, "also draw it: .svg, .png or .pdf");
  option(command, "--strip FILE", options.strip,
         "draw every board of the game on one sheet: .svg, .png or .pdf");
  option(command, "--animate FILE", options.animate,
         "also draw its boards one after the other, a second each, as an animated .png");
  option(command, "--to FILE", options.to, "write the game to this file: .pgn, .txt or .sgf");
  option(command, "--json", options.json, "print one JSON object a game");
}

}  // namespace ninepegs::cli
