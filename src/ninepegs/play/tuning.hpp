// A sheet's `worth`, fitted to games that the search plays against itself.
//
//   auto sheet = SheetGame::fromText("game.pegs", text);
//   Tuned tuned = tune(*sheet, {.games = 100});
//   std::string line = tuned.worth;
//
// What may count is read off the rules: pieces by kind, hands, moves, reaches, lines still open,
// zones, marks and numbers of a side, neighbours. Each is tried as a term of the language; what
// does not tell the winner from the loser is left out again.
#pragma once

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/play/series.hpp"

namespace ninepegs::play {

struct TuneOptions {
  std::uint64_t games = 400;  // to learn from
  std::uint64_t tests = 100;  // games against what was there before; 0: none
  std::uint64_t nodes = 500;  // positions a move, in all games
  std::uint64_t seed = 1;
  int threads = 1;  // changes no result
  const StopFlag* stop = nullptr;
  std::function<void(std::uint64_t done)> progress = {};  // games, from any thread
};

struct Tuned {
  struct Part {
    std::string term;        // as it stands in a sheet
    double weight = 0;       // of a unit more than the other side has, in the log of the odds
    double error = 0;        // its standard error
    std::int64_t times = 0;  // ... as a whole number of the worth; 0: left out
  };
  std::vector<Part> parts;  // that were tried and differ; those that stayed come first
  std::string worth;        // the line of a sheet; empty: nothing told who wins
  std::uint64_t games = 0, positions = 0;
  double before = 0, after = 0;  // mean -log of the likelihood, without and with the parts
  // The search with this worth against the search as the sheet is, if all was played.
  std::optional<Pairing> gain;
  bool stopped = false;
};

// Requires a game without secrets. Throws BadInput where the sheet cannot take a worth.
Tuned tune(const SheetGame& game, const TuneOptions& options);

}  // namespace ninepegs::play
