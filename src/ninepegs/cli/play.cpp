#include <fmt/format.h>
#include <sys/ioctl.h>
#include <unistd.h>

#include <algorithm>
#include <random>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/cli/line_input.hpp"
#include "ninepegs/cli/table.hpp"
#include "ninepegs/engines/engine_opponents.hpp"
#include "ninepegs/play/knowledge.hpp"
#include "ninepegs/records/game_reader.hpp"
#include "ninepegs/report/thinking_text.hpp"

namespace ninepegs::cli {
namespace {

struct PlayOptions {
  GameOptions game;
  std::string first = "human";
  Said second, seed, record, resume;  // second: search
  bool plain = false, coach = false;
};

constexpr int plyLimit = 2000;  // of a game between computers

Seat seat(const std::string& who, const std::string& option) {
  if (who == "human") return {who, nullptr};
  std::vector<std::string> known = engines::opponentNames();
  known.emplace_back("human");
  std::string word = who.substr(0, who.find(':'));
  bool setting = word == who && who.find('=') != std::string::npos;  // it has a hint of its own
  if (!setting && std::find(known.begin(), known.end(), word) == known.end())
    throw BadInput(
        Place{option, 1, 1, std::max(1, static_cast<int>(utf8Symbols(word).size())), who},
        fmt::format("there is no opponent \"{}\"", clipped(word, 40)),
        didYouMean(word, known,
                   "there are: human, random, greedy, minimax, search, playouts, program:COMMAND"));
  return {who, engines::makeOpponent(who, option)};
}

// The terminal that it is played at. A board stays at the top, if there is room, with what was said
// since the last one below it; without a terminal, all is printed as it comes.
class Stage {
 public:
  explicit Stage(bool inPlace) : inPlace_(inPlace) {}

  void say(const std::string& text) {
    std::size_t sign = text.rfind(Table::boardSign);
    std::string before = sign == text.npos ? text : text.substr(0, sign);
    std::erase(before, Table::boardSign);
    if (sign == text.npos || !fits(text.substr(sign + 1))) {
      std::string rest = sign == text.npos ? "" : text.substr(sign + 1);
      print(before + rest);
      said_ = sign == text.npos ? said_ + before : "";
      return;
    }
    print("\x1b[H\x1b[2J" + text.substr(sign + 1) + said_ + before);
    said_.clear();
  }

 private:
  // Lines that are said below it, and those that are typed, have room, too.
  bool fits(const std::string& board) const {
    constexpr long room = 5;
    winsize size{};
    if (!inPlace_ || ioctl(STDOUT_FILENO, TIOCGWINSZ, &size) != 0) return false;
    return std::count(board.begin(), board.end(), '\n') +
               std::count(said_.begin(), said_.end(), '\n') + room <=
           size.ws_row;
  }

  bool inPlace_;
  std::string said_;  // since the last board
};

// Says on a terminal that a computer thinks, and how far it has come, on a line that goes again.
class ThinkingLine {
 public:
  ThinkingLine(const Context& context, std::string who)
      : shown_(context.errorIsTerminal), who_(std::move(who)) {
    if (shown_) printError("\r\x1b[K" + who_ + " thinks");
  }
  ~ThinkingLine() {
    if (shown_) printError("\r\x1b[K");
  }
  void at(const std::string& said) const {
    if (shown_) printError("\r\x1b[K" + who_ + " thinks: " + said);
  }

 private:
  bool shown_;
  std::string who_;
};

// Takes up the game that the file holds, if it is there.
void goOn(Table& table, const std::string& file) {
  requireWritable(file);
  if (!std::filesystem::exists(file)) return;
  std::unique_ptr<std::istream> in = openForReading(file);
  std::optional<records::GameRecord> record = records::openRecords(*in, file)->next();
  if (record) table.goOn(std::move(*record), file);
}

void runPlay(const PlayOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  if (options.resume && (options.game.at || options.game.after))
    throw BadInput(Place{},
                   "--resume goes on where its game stands: --at and --after do not go with it",
                   "leave them out, or type `setup` at the table");
  Position from = options.game.position(*game);
  // Who names a computer for the first side plays the other.
  std::string second = options.second.value_or(options.first == "human" ? "search" : "human");
  std::array<Seat, 2> seats = {seat(options.first, "--first"), seat(second, "--second")};
  for (const Seat& one : seats)
    if (game->secrets() != nullptr && one.computer && one.text != "random" &&
        !play::Knowledge::knowable(*game, from))
      throw BadInput(Place{},
                     fmt::format("\"{}\" cannot know what led to this position, in which something "
                                 "is hidden from it",
                                 one.text),
                     "play from the beginning, or against `random`");
  std::uint64_t seed =
      options.seed ? wholeOption(*options.seed, "--seed", 0, ~0ull) : std::random_device{}();
  if (options.record) requireWritable(*options.record);  // before the game, not after it
  std::string players;
  for (int side = 0; side < 2; ++side)
    players +=
        fmt::format("{}{}: {}", side == 0 ? "" : ", ", game->info().sides[side], seats[side].text);
  bool computers = seats[0].computer || seats[1].computer;
  Table table(game, from, std::move(seats), seed, context.paint);
  table.setCoach(options.coach && game->secrets() == nullptr);
  if (options.resume) goOn(table, *options.resume);
  const char* terminal = std::getenv("TERM");
  bool moves = terminal != nullptr && std::string_view(terminal) != "dumb";
  Stage stage(table.hasHuman() && !options.plain && moves && context.inputIsTerminal &&
              context.outputIsTerminal);
  stage.say(fmt::format("{}. {}{}\n", context.paint.strong(game->info().title), players,
                        computers ? fmt::format(". Seed {}", seed) : ""));
  stage.say(table.board());
  int plies = 0;
  bool helped = false;
  // What was played is kept after each line, so that nothing is lost, however this ends.
  std::string kept;
  auto keep = [&] {
    if (!options.resume) return;
    std::string record = table.record();
    if (record != kept) writeFile(*options.resume, record);
    kept = std::move(record);
  };
  while (!table.quit() && !wantsStop(&stopFlag())) {
    keep();
    if (!table.over() && !table.humanToMove()) {
      if (++plies > plyLimit && !table.hasHuman()) {
        stage.say(fmt::format("the game is broken off after {} plies\n", plyLimit));
        break;
      }
      std::string moved;
      {
        ThinkingLine line(context, table.whoMoves());
        moved = table.computerMoves(&stopFlag(), [&](const std::string& said) { line.at(said); });
      }
      // With somebody at the table Ctrl-C only ends the thinking.
      if (table.hasHuman() && takeInterrupt()) moved += "broken off: the best so far\n";
      stage.say(moved);
      stage.say(table.board());
      continue;
    }
    if (!table.hasHuman()) break;
    if (table.drawsMoves()) {
      stage.say(table.drawMove());
      continue;
    }
    print(table.legalInput() + (helped ? "" : "   (or: help)") + "\n");
    helped = true;
    std::optional<std::string> line = readLine(context, table.prompt(), table.words());
    if (!line) break;
    stage.say(table.answer(*line));
  }
  keep();
  if (options.record) {
    writeFile(*options.record, table.record());
    print(fmt::format("record: {}\n", *options.record));
  }
  if (wantsStop(&stopFlag())) context.exitCode = exitInterrupted;
}

}  // namespace

void addPlay(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runPlay, "play", "Play a game: human or computer on each side",
      "WHO is human, random, greedy, minimax, search or playouts:\n"
      "search is the strongest in most games, and its levels 1 to 9 (search:level=3) are for\n"
      "people; playouts needs no `worth` and is for games whose positions are hard to measure;\n"
      "minimax follows every line and leaves nothing out, so it is slow, and there to compare "
      "with.\n"
      "Greedy wins at once if it can, else stops a win. Limits: search:depth=6, search:time=0.5,\n"
      "search:nodes=50000, minimax:depth=3, playouts:playouts=2000. Without time, equal seeds "
      "give\n"
      "equal games. A program of your own: program:COMMAND (docs/programs.md), uci:COMMAND.\n"
      "Type moves, or: undo, back, forward, goto, lines, hint, random, board, flip, setup TEXT,\n"
      "moves, coach, level N, thought, save FILE, help, quit. A cell alone shows where the piece "
      "on "
      "it may go.\n"
      "Examples:\n"
      "  ninepegs play connect-four --second search:depth=6\n"
      "  ninepegs play tic-tac-toe --first greedy --second random --seed 7 --record game.txt\n"
      "  printf '5\\n1\\nquit\\n' | ninepegs play tic-tac-toe");
  options.game.addGame(command);
  options.game.addPosition(command);
  option(command, "--first WHO", options.first, "who moves first (default human)");
  option(command, "--second WHO", options.second,
         "who moves second (default search; human if --first is named)");
  option(command, "--seed S", options.seed,
         "seed of the random numbers (default: drawn, and shown)");
  option(command, "--record FILE", options.record, "write the game to this file at the end");
  option(command, "--coach", options.coach,
         "warn before a move that gives the other side a win; also `coach` at the table");
  option(command, "--plain", options.plain,
         "print each board below the last, also where the terminal could keep it in place");
  option(command, "--resume FILE", options.resume,
         "keep the game in this file while it is played; if it is there, go on with it");
}

}  // namespace ninepegs::cli
