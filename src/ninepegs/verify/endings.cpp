#include "ninepegs/verify/endings.hpp"

#include <chrono>

#include "ninepegs/sheet/mutation/unclaimed.hpp"

namespace ninepegs::verify {

Ending solveBackwards(const SheetGame& game, const Position& position, EveryOptions options) {
  auto begun = std::chrono::steady_clock::now();
  rules::Unclaimed unclaimed = rules::unclaimed(game.rules());
  if (unclaimed.rules.timesDecide)
    throw BadInput(Place{}, "the rules of this game remember positions",
                   "what follows from a position cannot be listed without its past");
  Ending out;
  out.ends = std::move(unclaimed.ends);
  out.numbers = std::move(unclaimed.numbers);
  out.game = SheetGame::fromRules(std::move(unclaimed.rules));
  out.position = out.game->readPosition(game.positionText(position), "position");
  options.from = out.position;
  options.checks = false;
  out.every = everyPosition(*out.game, options);

  const EveryReport& every = out.every;
  play::Solved& solved = out.solved;
  solved.known = every.solved;
  solved.brokenOff = !every.complete();
  solved.nodes = every.positions;
  solved.winner = every.winner;
  solved.plies = static_cast<int>(every.plies);
  if (every.winner >= 0) solved.line = every.best;
  solved.moves = every.firsts;
  play::putBestFirst(solved.moves, out.game->toMove(out.position));
  solved.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
  return out;
}

}  // namespace ninepegs::verify
