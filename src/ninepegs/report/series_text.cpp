#include "ninepegs/report/series_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <tuple>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/report/csv.hpp"
#include "ninepegs/report/pairing_json.hpp"
#include "ninepegs/report/sheet_mark.hpp"

namespace ninepegs::report {
namespace {

Json markOf(const Game& game, const std::vector<std::string>& who,
            const play::SeriesOptions& options, const std::string& version) {
  Json out;
  out["game"] = game.info().id;
  out["variant"] = game.info().variant;
  out["sheet"] = sheetMark(game);
  out["version"] = version;
  out["opponents"] = who;
  out["seed"] = options.seed;
  out["opening_plies"] = options.opening;
  out["openings"] = options.balanced ? "balanced" : "any";
  out["ply_limit"] = options.plyLimit;
  return out;
}

std::string percent(double part, std::uint64_t whole) {
  return fmt::format("{:.1f} %", whole == 0 ? 0 : 100 * part / static_cast<double>(whole));
}

}  // namespace

std::string ratingText(const play::Pairing& pairing) {
  std::optional<double> rating = pairing.rating();
  if (!rating) return "no rating: one side made no point";
  return fmt::format("{:+.0f} +- {:.0f} rating points", *rating, pairing.margin());
}

// Openings after which one side won whoever played it: such games say nothing of the players.
static std::string openingsText(const play::Series& series, bool balanced) {
  std::map<std::tuple<std::size_t, std::size_t, std::uint64_t>, std::vector<int>> winners;
  std::size_t none = 0;
  for (const play::SeriesGame& one : series.games) {
    auto [a, b] = std::minmax(one.first, one.second);
    winners[{a, b, one.number / 2}].push_back(one.winner);
    none += one.decided;
  }
  std::size_t pairs = 0, decided = 0;
  for (const auto& [key, won] : winners) {
    if (won.size() != 2) continue;
    ++pairs;
    decided += won[0] >= 0 && won[0] == won[1];
  }
  std::string out;
  if (decided > 0)
    out += fmt::format(
        "  in {} of {} openings the same side won, whoever played it{}\n", decided, pairs,
        balanced ? "" : ":\n  those decide the game; --openings balanced looks for others");
  if (none > 0)
    out += fmt::format("  for {} only openings were found after which one side wins\n",
                       plural(static_cast<long long>(none), "game"));
  return out;
}

std::string seriesText(const Game& game, const std::vector<std::string>& who,
                       const play::SeriesOptions& options, const play::Series& series,
                       const Paint& paint) {
  std::string out = paint.strong(game.info().title);
  if (!game.info().variant.empty()) out += ", variant " + game.info().variant;
  out += fmt::format(": {}, {}openings of {}, seed {}\n",
                     plural(static_cast<long long>(series.games.size()), "game"),
                     options.balanced ? "balanced " : "",
                     pliesText(static_cast<unsigned long long>(options.opening)), options.seed);
  if (series.stopped) out += paint.bad("  stopped early\n");
  if (series.games.empty()) return out + "  no game was played to its end\n";
  std::size_t width = 0;
  for (const std::string& one : who)
    width = std::max(width, static_cast<std::size_t>(columnsOf(one)));
  std::uint64_t firstWins = 0, games = 0;
  for (const play::Pairing& one : series.pairings) {
    out +=
        fmt::format("\n  {:<{}}  won {:>5}   drawn {:>5}   lost {:>5}   {:>7}\n", who[one.a], width,
                    one.wins, one.draws, one.losses, percent(one.points(one.a), one.games()));
    out +=
        fmt::format("  {:<{}}  {}\n", "against " + who[one.b], width, paint.faint(ratingText(one)));
    firstWins += one.firstWins;
    games += one.games();
  }
  if (!series.ratings.empty()) {
    out += "\n" + paint.strong("Ratings, fitted to all games") + "\n";
    std::vector<std::size_t> order(who.size());
    for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
      return series.ratings[a] > series.ratings[b];
    });
    for (std::size_t one : order)
      out += fmt::format("  {:<{}}  {:>+6.0f}\n", who[one], width, series.ratings[one]);
  }
  using Settled = play::Series::Settled;
  if (options.settle)
    out += series.settled == Settled::better
               ? paint.good(fmt::format("\n  settled: {} is better, by about {} points or more\n",
                                        who[0], *options.settle))
           : series.settled == Settled::notBetter
               ? paint.bad(fmt::format("\n  settled: {} is not better\n", who[0]))
               : "\n  not settled in so many games\n";
  out += fmt::format("\n  {}, who begins, won {} of all games\n", game.info().sides[0],
                     percent(static_cast<double>(firstWins), games));
  return out + openingsText(series, options.balanced);
}

std::string seriesJson(const Game& game, const std::vector<std::string>& who,
                       const play::SeriesOptions& options, const play::Series& series,
                       const std::string& version) {
  Json out = markOf(game, who, options, version);
  out["complete"] = !series.stopped;
  out["pairings"] = Json::array();
  for (const play::Pairing& one : series.pairings) {
    Json pairing;
    pairing["a"] = who[one.a];
    pairing["b"] = who[one.b];
    addResults(pairing, one);
    pairing["first_side_wins"] = one.firstWins;
    out["pairings"].push_back(pairing);
  }
  out["ratings"] = series.ratings;
  static const char* const settled[] = {"open", "better", "not better"};
  if (options.settle) out["settled"] = settled[static_cast<int>(series.settled)];
  out["games"] = Json::array();
  for (const play::SeriesGame& one : series.games)
    out["games"].push_back({{"first", one.first},
                            {"second", one.second},
                            {"number", one.number},
                            {"opening", one.opening},
                            {"opening_decided", one.decided},
                            {"winner", one.winner},
                            {"result", one.result},
                            {"moves", one.moves}});
  return jsonText(out, 1);
}

std::string seriesCsv(const std::vector<std::string>& who, const play::Series& series) {
  std::string out = "number,first,second,opening_plies,plies,winner,result\n";
  for (const play::SeriesGame& one : series.games)
    out +=
        fmt::format("{},{},{},{},{},{},{}\n", one.number + 1, csvField(who[one.first]),
                    csvField(who[one.second]), one.opening, one.moves.size(),
                    one.winner < 0 ? "" : csvField(who[one.winner == 0 ? one.first : one.second]),
                    csvField(one.result));
  return out;
}

std::vector<play::SeriesGame> readSeries(const Game& game, const std::vector<std::string>& who,
                                         const play::SeriesOptions& options,
                                         const std::string& version, const std::string& text,
                                         const std::string& source) {
  auto refuse = [&](const std::string& message) {
    return BadInput(Place{source, 0, 0, 1, {}}, message,
                    "name another file, or remove this one to begin anew");
  };
  const std::string broken = "this is no file of a match that was begun, or it was cut short";
  Json read = readJsonOrNone(text);
  if (!read.is_object() || !read.contains("games")) throw refuse(broken);
  Json mark = markOf(game, who, options, version);
  for (const auto& [key, value] : mark.items())
    if (!read.contains(key) || read[key] != value)
      throw refuse(fmt::format("this file is of a match with another {}",
                               key == "opening_plies" ? "opening" : key));
  std::vector<play::SeriesGame> out;
  try {
    for (const Json& one : read["games"]) {
      play::SeriesGame played;
      played.first = one.at("first").get<std::size_t>();
      played.second = one.at("second").get<std::size_t>();
      played.number = one.at("number").get<std::uint64_t>();
      played.opening = one.at("opening").get<int>();
      played.decided = one.at("opening_decided").get<bool>();
      played.winner = one.at("winner").get<int>();
      played.result = one.at("result").get<std::string>();
      played.moves = one.at("moves").get<std::vector<std::string>>();
      // What it says must have been played: the moves lead to that result.
      Position position = game.start();
      for (const std::string& move : played.moves) {
        std::vector<Move> is = matchingMoves(game, position, move);
        if (is.empty()) throw refuse(broken);
        played.played.push_back(is.front());
        game.apply(position, is.front());
      }
      Result result = game.result(position);
      bool win = result.kind == ResultKind::win;
      if (played.first >= who.size() || played.second >= who.size() ||
          played.first == played.second || played.winner != (win ? result.winner : -1))
        throw refuse(broken);
      out.push_back(std::move(played));
    }
  } catch (const Json::exception&) {
    throw refuse(broken);
  }
  return out;
}

}  // namespace ninepegs::report
