// Many games between opponents: pairs of games from drawn openings, sides exchanged.
//
//   play::SeriesOptions options{.games = 20, .threads = 2};
//   play::Series series = play::playSeries(*game, {"search:depth=2", "greedy"}, options);
//   double points = series.pairings.front().points(0);
//
// Each game has its own opponents and its own random stream, so with limits other than time the
// results are the same on any number of threads.
#pragma once

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

struct SeriesGame {
  std::size_t first = 0, second = 0;  // which opponents, by their number
  std::uint64_t number = 0;           // within the pairing
  int opening = 0;                    // random plies
  bool decided = false;               // see Opening
  std::vector<std::string> moves;     // all of them, as texts
  std::vector<Move> played;           // the same: of a faulty sheet two moves may have one text
  int winner = -1;                    // 0: the opponent that was first, 1: the second; -1: neither
  std::string result;                 // in words; empty: no end within the limit of plies
};

// Two opponents, and what came of their games, for the one of the lower number.
struct Pairing {
  std::size_t a = 0, b = 0;
  std::uint64_t wins = 0, draws = 0, losses = 0;
  std::uint64_t firstWins = 0;  // of the side that moves first, whoever played it
  std::uint64_t games() const { return wins + draws + losses; }
  double points(std::size_t who) const;  // a win 1, a draw 1/2
  // The rating difference of a over b, and how far it may be off with 95 % confidence; nothing if
  // one of them made no point at all.
  std::optional<double> rating() const;
  double margin() const;
};

// Makes an opponent from a text; `source` names in messages where it came from.
using MakeOpponent =
    std::function<std::unique_ptr<Opponent>(std::string_view text, const std::string& source)>;

struct Series;

struct SeriesOptions {
  std::uint64_t games = 100;  // of each pairing; an odd one is rounded up
  std::uint64_t seed = 1;
  int threads = 1;
  int opening = 2;        // random plies of each pair of games
  bool balanced = false;  // see OpeningOptions
  int plyLimit = 1000;
  // Stop as soon as it is settled whether the first opponent of two is better than the second by so
  // many rating points, or not better at all: a sequential probability ratio test with errors of
  // 5 %. (A. Wald, "Sequential tests of statistical hypotheses", 1945.)
  std::optional<double> settle;
  const StopFlag* stop = nullptr;
  std::function<void(std::uint64_t done)> progress;  // games, from any thread
  MakeOpponent make = makeOpponent;
  std::vector<SeriesGame> begun;  // games that are there already
  // Is given all games that there are, those `beside` among them: now and then, called stopped and
  // nothing counted, and at the end what is returned.
  std::function<void(const Series&)> keep;
};

struct Series {
  std::vector<SeriesGame> games;  // by pairing and number
  // Games that had been begun, but are more than were asked for or come after it was settled. They
  // are not counted; who keeps games in a file keeps these, too.
  std::vector<SeriesGame> beside;
  std::vector<Pairing> pairings;
  std::vector<double> ratings;  // fitted to all games, their mean being 0; more than two opponents
  enum class Settled { open, better, notBetter } settled = Settled::open;
  bool stopped = false;
};

// `who` are texts as `options.make` takes them; at least two. Throws BadInput for one that is none.
// A game that comes to no end within the limits of its rules counts as drawn.
Series playSeries(const Game& game, const std::vector<std::string>& who,
                  const SeriesOptions& options);

}  // namespace ninepegs::play
