#include <fmt/format.h>

#include <algorithm>
#include <fstream>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/cli/recorded_games.hpp"
#include "ninepegs/draw/play_charts.hpp"
#include "ninepegs/play/review.hpp"
#include "ninepegs/records/game_reader.hpp"
#include "ninepegs/report/review_text.hpp"

namespace ninepegs::cli {
namespace {

struct ReviewOptions {
  std::string record;
  Said game, variant, number, figure;
  std::string nodes = "50000", seed = "1";
  TimeOption time;
  bool json = false;
};

// Who played, where the record says it: "Amber: greedy, Slate: random".
std::string playersOf(const Game& game, const records::GameRecord& record) {
  std::vector<std::string> out;
  for (int side = 0; side < 2; ++side) {
    std::string who = record.tag(side == 0 ? "White" : "Black");
    if (!who.empty() && who != "?") out.push_back(game.info().sides[side] + ": " + who);
  }
  return joined(out, ", ");
}

// How many moves gave a result away. `several`: it is one of more games.
std::size_t reviewOne(const ReviewOptions& options, RecordedGames& games,
                      records::GameRecord& record, std::uint64_t number, bool several,
                      Context& context) {
  const Game& game = games.of(record);
  if (game.secrets() != nullptr)
    throw BadInput(Place{}, "the search would see the other side's secret pieces",
                   "`review` is for games without secrets");
  records::nameCells(game, record);
  records::Replayed played = records::replay(game, record, options.record);
  if (played.moves.size() < record.moves.size()) throw BadInput(played.faults);
  const Position& from = played.from;
  play::ReviewOptions how;
  how.nodes = wholeOption(options.nodes, "--nodes", 1, 1'000'000'000'000ull);
  how.seed = wholeOption(options.seed, "--seed", 0, ~0ull);
  how.stop = &stopFlag();
  std::vector<play::ReviewedPly> plies;
  {
    Progress progress(context, "plies", played.moves.size());
    how.progress = [&](std::uint64_t done) { progress.at(done); };
    plies = play::review(game, from, played.moves, how);
  }
  if (options.figure && !plies.empty())
    writeFile(*options.figure, draw::reviewChart(game, from, plies, chartOptions(*options.figure)));
  if (several && !options.json) {
    std::string who = playersOf(game, record);
    print(fmt::format("{}{}", number == 1 ? "" : "\n",
                      context.paint.strong(fmt::format("Game {}", number))) +
          (who.empty() ? "\n" : ": " + who + "\n"));
  }
  print(options.json ? report::reviewJson(game, from, plies, played.moves.size()) + "\n"
                     : report::reviewText(game, from, plies, played.moves.size(), context.paint));
  return static_cast<std::size_t>(
      std::count_if(plies.begin(), plies.end(), [](const play::ReviewedPly& one) {
        return one.verdict != play::ReviewedPly::Verdict::plain;
      }));
}

void runReview(const ReviewOptions& options, Context& context) {
  requirePicture(options.figure);
  std::uint64_t wanted = options.number ? wholeOption(*options.number, "--number", 1, ~0u) : 0;
  std::unique_ptr<std::istream> in = openForReading(options.record);
  std::unique_ptr<records::GameReader> reader = records::openRecords(*in, options.record);
  RecordedGames games(options.record, options.game, options.variant, context);
  std::optional<records::GameRecord> record = reader->next();
  if (!record) throw noGame(options.record);
  options.time.begin();
  std::uint64_t number = 0;
  std::size_t marked = 0;
  while (record && !wantsStop(&stopFlag())) {
    ++number;
    bool is = wanted == 0 || number == wanted;
    std::optional<records::GameRecord> next;
    if (wanted == 0 || !is) next = reader->next();
    if (options.figure && wanted == 0 && next) throw severalGames(options.record, next->line);
    bool several = wanted == 0 && (number > 1 || next);
    if (is) marked += reviewOne(options, games, *record, number, several, context);
    record = std::move(next);
  }
  if (wanted > number && !wantsStop(&stopFlag()))
    throw onlySoMany(number, *options.number, options.record);
  if (number > 1 && wanted == 0 && !options.json)
    print(fmt::format("\n{}: {} gave a result or chances away\n",
                      plural(static_cast<long long>(number), "game"),
                      plural(static_cast<long long>(marked), "move")));
  if (wantsStop(&stopFlag()))
    printError(interrupted() ? "interrupted; later games were not looked at\n"
                             : "time is up; later games were not looked at\n");
  if (interrupted()) context.exitCode = exitInterrupted;
}

}  // namespace

void addReview(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runReview, "review",
      "Look at a recorded game again: which moves gave a result away",
      "What it says holds as far as the search sees: more --nodes see more.\n"
      "Examples:\n"
      "  ninepegs play tic-tac-toe --first random --second greedy --seed 7 --record game.txt\n"
      "  ninepegs review game.txt\n"
      "  ninepegs match morris search greedy --games 20 --records morris.pgn\n"
      "  ninepegs review morris.pgn --number 3 --figure third.png");
  needed(command, "RECORD", options.record,
         "a file of games: .pgn, .txt or .sgf, such as `play --record` writes");
  option(command, "--game GAME", options.game,
         "the game or its sheet, if the record's name is none");
  option(command, "--variant NAME", options.variant, "a variant of it");
  option(command, "--number N", options.number, "only this game of the file, counted from 1");
  option(command, "--nodes N", options.nodes, "positions to look at for each ply (default 50000)");
  option(command, "--seed N", options.seed, "draws among equal moves (default 1)");
  options.time.add(command);
  option(command, "--figure FILE", options.figure,
         "also draw the score after each ply: .png or .svg");
  option(command, "--json", options.json, "print one JSON object");
}

}  // namespace ninepegs::cli
