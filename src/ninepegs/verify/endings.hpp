// Positions of few pieces, solved backwards: all that can come from one are listed, and wins are
// followed from the ends back to it.
//
//   auto sheet = SheetGame::fromText("game.pegs", text);
//   verify::Ending ending = verify::solveBackwards(*sheet, position, {});
//   if (ending.every.solved && ending.solved.winner < 0) texts.push_back("nobody can force a win");
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/play/solver.hpp"
#include "ninepegs/verify/every.hpp"

namespace ninepegs::verify {

struct Ending {
  // The game as it is while nobody claims an end, and the position in it.
  std::shared_ptr<const SheetGame> game;
  Position position;
  std::vector<std::string> ends;  // the claims that are left out ...
  std::vector<std::string>
      numbers;        // ... and numbers that nothing else reads: these stay as they are
  EveryReport every;  // from the position, without checks
  // In moves of `game`. Not known unless every.solved; a winner of -1: nobody can force a win.
  play::Solved solved;
};

// A soonest win never comes to a position twice, so that leaving out draws that are claimed when
// positions come again changes no win; one that takes longer than another claim allows is none.
// Requires that the game has no secrets and has not ended there. `options.from` and
// `options.checks` are set by this. Throws BadInput where the rules themselves remember positions.
Ending solveBackwards(const SheetGame& game, const Position& position, EveryOptions options);

}  // namespace ninepegs::verify
