// By how much a side leads at the end, if both play for that and not for the soonest win.
//
//   auto sheet = SheetGame::fromText("game.pegs", text);
//   play::Solved solved = play::solve(*sheet, position, {});
//   play::Margins lead = play::margins(*sheet, position, solved, {});
//   if (lead.position.known()) score += *lead.position.least;
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <vector>

#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/play/solver.hpp"

namespace ninepegs::play {

// What the first side counts more than the second where the game ends; where it is not known
// exactly, bounds, as far as there are any.
struct Margin {
  std::optional<std::int64_t> least, most;
  bool known() const { return least && most && *least == *most; }
};

struct Margins {
  Margin position;
  std::vector<Margin> moves;  // as those of `solved`
  std::uint64_t nodes = 0;
  double seconds = 0;
  bool brokenOff = false;  // by a limit, or stopped
  // Nothing is known, as some games from here come to no end, though nobody can go on.
  bool noEnd = false;
};

// Is every end of the game one of who leads?
bool leadDecides(const SheetGame& game);

// Where the other side begins with so much, who leads? That is one question for the solver, as the
// counts then decide a game like any other; the margin is the head start with which the game is
// level, and lies between two that are asked about. Limits are for each question, but for seconds,
// which are for all. `solved` is what solve() found of the position. Requires leadDecides().
Margins margins(const SheetGame& game, const Position& position, const Solved& solved,
                const SolveOptions& options);

}  // namespace ninepegs::play
