// From a game that shows a fault to the shortest one that does.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/verify/evidence.hpp"

namespace ninepegs::verify {

struct Shortened {
  std::vector<Move> moves;
  bool shortest = false;  // every shorter game was tried
};

struct ShortenOptions {
  std::size_t budget = 200'000;  // different positions tried
  std::size_t plies = 200'000;   // of playouts that are cut
  const StopFlag* stop = nullptr;
};

// The fault is named by kind and line; `seen` is a game that shows it. First playouts of fewer and
// fewer plies are drawn, as long as they show it, too; then every game is tried, from the shortest
// up, as far as the budget goes; if that does not reach the fault, parts of the game are left out
// while the fault stays.
Shortened shorten(const Game& game, FindingKind kind, int line, const Evidence::FirstSeen& seen,
                  const ShortenOptions& options);

// What a game that does not end goes on with: its way into a loop (`endless`), or numbers that run
// away (`growing`); none of these: it is only long.
struct Endless {
  std::optional<FindingKind> kind{};
  std::vector<Move> moves;  // to where a position comes again, or as many as show enough
  std::string message;
  std::string expects;  // of a case: what does not hold behind these moves, and should
};
// `moves`: of a playout from the start that did not end within `limit` plies, and on from there, as
// far as it was followed. If it ended then, it is only long.
Endless endlessWay(const Game& game, const std::vector<Move>& moves, std::size_t limit);

}  // namespace ninepegs::verify
