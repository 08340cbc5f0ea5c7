#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/draw/play_charts.hpp"
#include "ninepegs/engines/engine_opponents.hpp"
#include "ninepegs/play/series.hpp"
#include "ninepegs/records/movetext.hpp"
#include "ninepegs/report/series_text.hpp"

namespace ninepegs::cli {
namespace {

struct MatchOptions {
  GameOptions game;
  DrawOptions drawing;
  std::vector<std::string> who;
  std::string games = "100", opening = "2", openings = "any";
  Said resume, settle, records, csv, figure;
  bool json = false;
};

// All games as records, one behind the other.
std::string recordsOf(const Game& game, const MatchOptions& options, const play::SeriesOptions& how,
                      const play::Series& series) {
  std::string out;
  for (const play::SeriesGame& one : series.games) {
    records::GameRecord record = records::makeRecord(game, game.start(), one.played);
    record.setTag("Round", std::to_string(one.number + 1));
    record.setTag("White", options.who[one.first]);
    record.setTag("Black", options.who[one.second]);
    record.setTag("Seed", std::to_string(how.seed));
    record.setTag("OpeningPlies", std::to_string(one.opening));
    out += (out.empty() ? "" : "\n") + records::toText(record);
  }
  return out;
}

constexpr std::size_t begunBytes = 256 << 20;

void runMatch(const MatchOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  if (options.who.size() < 2)
    throw BadInput(Place{}, "a match needs two opponents or more",
                   "such as: ninepegs match connect-four search:depth=4 greedy");
  for (const std::string& one : options.who) engines::makeOpponent(one, "WHO");
  if (options.settle && options.who.size() != 2)
    throw BadInput(Place{}, "--settle is for two opponents", "leave it out");
  play::SeriesOptions how;
  how.make = engines::makeOpponent;
  how.games = wholeOption(options.games, "--games", 1, 1'000'000);
  how.opening = static_cast<int>(wholeOption(options.opening, "--opening", 0, 200));
  if (options.openings != "any" && options.openings != "balanced")
    throw BadInput(Place{},
                   fmt::format("there are no openings \"{}\"", clipped(options.openings, 40)),
                   "--openings any, or --openings balanced");
  how.balanced = options.openings == "balanced";
  if (how.balanced && game->secrets() != nullptr)
    throw BadInput(Place{}, "where something is hidden, no opening is known to be balanced",
                   "leave --openings out");
  options.drawing.into(how);
  if (options.settle)
    how.settle = static_cast<double>(wholeOption(*options.settle, "--settle", 1, 1000));
  if (options.records) requireWritable(*options.records);
  if (options.csv) requireWritable(*options.csv);
  requirePicture(options.figure);
  auto jsonOf = [&](const play::Series& series) {
    return report::seriesJson(*game, options.who, how, series, NINEPEGS_VERSION);
  };
  if (options.resume) {
    requireWritable(*options.resume);
    if (std::filesystem::exists(*options.resume)) {
      how.begun = report::readSeries(*game, options.who, how, NINEPEGS_VERSION,
                                     readFile(*options.resume, begunBytes), *options.resume);
      printError(fmt::format("goes on behind {} in {}\n",
                             plural(static_cast<long long>(how.begun.size()), "game"),
                             *options.resume));
    }
    how.keep = [&](const play::Series& all) { writeFile(*options.resume, jsonOf(all) + "\n"); };
  }
  play::Series series;
  {
    std::uint64_t pairings = options.who.size() * (options.who.size() - 1) / 2;
    Progress progress(context, "games", pairings * (how.games + how.games % 2));
    how.progress = [&](std::uint64_t done) { progress.at(done); };
    series = play::playSeries(*game, options.who, how);
  }
  if (options.records) writeFile(*options.records, recordsOf(*game, options, how, series));
  if (options.csv) writeFile(*options.csv, report::seriesCsv(options.who, series));
  if (options.figure && !series.stopped)
    writeFile(*options.figure,
              draw::seriesChart(*game, options.who, series, chartOptions(*options.figure)));
  context.exitCode = series.stopped ? exitInterrupted : exitFine;
  print(options.json ? jsonOf(series) + "\n"
                     : report::seriesText(*game, options.who, how, series, context.paint));
}

}  // namespace

void addMatch(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runMatch, "match",
      "Let opponents play against each other, and say which is stronger",
      "Without limits of time, the same seed gives the same games on any number of threads.\n"
      "WHO may be another program: program:COMMAND answers the protocol of docs/programs.md,\n"
      "uci:COMMAND speaks UCI; limits stand in front: \"uci:nodes=1000 ./engine\".\n"
      "Examples:\n"
      "  ninepegs match connect-four search:depth=4 greedy --games 50\n"
      "  ninepegs match othello search:nodes=5000 playouts:playouts=200 minimax:depth=3 --json\n"
      "  ninepegs match hex playouts greedy --settle 100\n"
      "  ninepegs match othello search:depth=3 \"program:python3 my_othello.py\"\n"
      "  ninepegs match morris search greedy --games 20 --records morris.pgn");
  options.game.addGame(command);
  needed(command, "WHO", options.who, "two opponents or more, such as search:depth=4, greedy");
  option(command, "--games N", options.games, "games of each two (default 100)");
  option(command, "--opening PLIES", options.opening,
         "random plies before they play; both sides get each opening (default 2)");
  option(command, "--openings WHICH", options.openings,
         "any, or balanced: a search looks for those after which neither side wins (default any)");
  option(command, "--settle POINTS", options.settle,
         "stop once it is settled whether the first is better by so many rating points");
  options.drawing.add(command);
  option(command, "--resume FILE", options.resume,
         "keep the games in this file; if it is there, go on from it");
  option(command, "--records FILE", options.records, "write all games to this file, as records");
  option(command, "--csv FILE", options.csv, "write the games to this file, as rows");
  option(command, "--figure FILE", options.figure,
         "also draw won, drawn and lost games of each two: .png or .svg");
  option(command, "--json", options.json, "print one JSON object, with all games");
}

}  // namespace ninepegs::cli
