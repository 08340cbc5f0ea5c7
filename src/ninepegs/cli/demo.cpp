#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/parallel.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/check_files.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/play/match.hpp"
#include "ninepegs/records/movetext.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/moves_from.hpp"
#include "ninepegs/verify/count.hpp"

namespace ninepegs::cli {
namespace {

struct DemoOptions {
  std::string out = "demo-out";
};

constexpr std::uint64_t seed = 1;

class Demo {
 public:
  Demo(const DemoOptions& options, Context& context) : folder_(options.out), context_(context) {}
  void run();

 private:
  void heading(const std::string& text) { print("\n" + context_.paint.strong(text) + "\n\n"); }
  void wrote(const std::filesystem::path& path, const std::string& shows) {
    files_.push_back({path, shows});
  }
  void boards();
  void game();
  void counts();
  void checks();
  void otherBoards();

  std::filesystem::path folder_;
  Context& context_;
  std::vector<WrittenFile> files_;
};

void Demo::boards() {
  heading("1. A board: connect four, won on a slanting line");
  std::shared_ptr<const Game> four = context_.library.open("connect-four");
  Position position = four->start();
  MoveList moves;
  for (const char* column : {"a", "b", "b", "c", "d", "c", "c", "d", "e", "d", "d"}) {
    four->listMoves(position, moves);
    for (const Move& move : moves)
      if (four->moveText(position, move) == column) {
        four->apply(position, move);
        break;
      }
  }
  report::Marks marks;
  marks.shown = four->shownCells(position);
  print(report::boardText(*four, position, marks, context_.paint) +
        report::stateText(*four, position, context_.paint) + "\n");
  std::filesystem::path path = folder_ / "connect-four-won.svg";
  draw::drawBoard(*four, position,
                  {marks.shown, {}, -1, report::stateText(*four, position, report::Paint())}, path);
  wrote(path, "figure: a board with its winning line");

  heading("2. Where a piece may go: over the pass");
  std::shared_ptr<const Game> pass = context_.library.open("hut-pass");
  position = pass->start();
  Cell from = *pass->board().find("c2");
  marks = {};
  marks.origin = from;
  marks.targets = report::targetsFrom(*pass, position, from);
  std::string where = "moves from c2: " + joined(report::textsFrom(*pass, position, from), ", ");
  print(report::boardText(*pass, position, marks, context_.paint) + where + "\n");
  path = folder_ / "hut-pass-moves.svg";
  draw::drawBoard(*pass, position, {{}, marks.targets, from, where}, path);
  wrote(path, "figure: where one walker may go");
}

void Demo::game() {
  heading("3. A game between computers: tic-tac-toe, search against greedy");
  std::shared_ptr<const Game> game = context_.library.open("tic-tac-toe");
  std::unique_ptr<play::Opponent> search = play::makeSearch({.nodes = 100'000});
  std::unique_ptr<play::Opponent> greedy = play::makeGreedy();
  play::Opponent* sides[2] = {search.get(), greedy.get()};
  Stream stream(seed, 0);
  play::Played played = play::playGame(*game, game->start(), sides, stream, 100);
  report::Marks marks;
  marks.shown = game->shownCells(played.last);
  records::GameRecord record = records::makeRecord(*game, game->start(), played.moves);
  record.setTag("White", "search");
  record.setTag("Black", "greedy");
  std::vector<std::string> texts;
  for (const records::RecordedMove& one : record.moves) texts.push_back(one.text);
  print("moves: " + joined(texts, ", ") + "\n" +
        report::boardText(*game, played.last, marks, context_.paint) +
        report::stateText(*game, played.last, context_.paint) + "\n");
  std::filesystem::path path = folder_ / "tic-tac-toe-game.txt";
  writeFile(path, records::toText(record));
  wrote(path, "the record of that game");
}

void Demo::counts() {
  heading("4. Counts to compare with published figures");
  struct Table {
    const char* name;
    int depth;
  };
  for (auto [name, deepest] : {Table{"tic-tac-toe", 7},
                               {"connect-four", 7},
                               {"othello", 8},
                               {"draughts", 7},
                               {"chess", 4}}) {
    std::shared_ptr<const Game> game = context_.library.open(name);
    std::string line = fmt::format("{:<14}", name);
    for (int depth = 1; depth <= deepest; ++depth) {
      verify::CountOptions options;
      options.depth = depth;
      options.threads = availableThreads();
      line += " " + std::to_string(verify::count(*game, game->start(), options).sequences);
    }
    print(line + "\n");
  }
}

// Hexes, points, secrets: a figure of each.
void Demo::otherBoards() {
  heading("6. Other boards in the box");
  struct Scene {
    const char* game;
    const char* moves;
    int viewer;
  };
  for (Scene scene : {Scene{"chess", "e4, e5, Nf3, Nc6, Bb5, a6", -1},
                      {"hex-tiles", "ash b3, elm c2, birch d3, cedar c4", -1},
                      {"morris", "a1, b2, d1, b4, g7, f2", -1},
                      {"battleship", "ferry a1-e1, ferry a10-e10, barge a2-d2, barge a9-d9", 0}}) {
    std::shared_ptr<const Game> game = context_.library.open(scene.game);
    Position position = playMoves(*game, game->start(), scene.moves, "demo");
    draw::FigureMarks marks;
    marks.caption = report::stateText(*game, position, report::Paint());
    marks.viewer = scene.viewer;
    std::filesystem::path path = folder_ / (std::string(scene.game) + ".png");
    draw::drawBoard(*game, position, marks, path);
    bool hides = scene.viewer >= 0;
    std::string what =
        hides ? fmt::format("as {} sees it", game->info().sides[scene.viewer]) : "after some moves";
    wrote(path, fmt::format("{} {}", game->info().title, what));
    print(fmt::format("{}: {}\n", game->info().title, scene.moves));
  }
}

void Demo::checks() {
  for (const std::string name : {"tic-tac-toe", "connect-four", "othello", "hut-pass"}) {
    heading(fmt::format("5. The check: {}", name));
    std::shared_ptr<const Game> game = context_.library.open(name);
    verify::CheckOptions options;
    options.playouts = 20'000;
    options.seed = seed;
    options.threads = availableThreads();
    options.stop = &stopFlag();
    verify::CheckReport report = verify::check(*game, options);
    print(report::checkText(*game, options, report, context_.paint));
    makeFolder(folder_ / name);
    for (const WrittenFile& file : writeCheckFiles(*game, options, report, {}, folder_ / name))
      files_.push_back(file);
    if (!report.findings.empty()) context_.exitCode = exitFault;
    if (report.stopped) {
      context_.exitCode = exitInterrupted;
      return;
    }
  }
}

void Demo::run() {
  makeFolder(folder_);
  print(
      "The keeper of a mountain hut has a box of pegs, a saw and long evenings. These are the "
      "games "
      "in the box.\n");
  boards();
  game();
  counts();
  checks();
  otherBoards();
  heading("Files written");
  std::size_t width = 0;
  for (const WrittenFile& file : files_) width = std::max(width, file.path.string().size());
  std::string out;
  for (const WrittenFile& file : files_)
    out += fmt::format("  {:<{}}  {}\n", file.path.string(), width, file.shows);
  print(out);
}

void runDemo(const DemoOptions& options, Context& context) {
  Demo(options, context).run();
}

}  // namespace

void addDemo(CLI::App& app, Context& context) {
  auto [options, command] =
      newCommand(app, context, runDemo, "demo", "Show what Nine Pegs does, on the shipped games",
                 "Example:\n  ninepegs demo --out demo-out");
  option(command, "--out DIR", options.out, "folder for the files (default demo-out)");
}

}  // namespace ninepegs::cli
