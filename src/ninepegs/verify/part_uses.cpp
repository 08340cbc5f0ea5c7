#include "ninepegs/verify/part_uses.hpp"

#include <algorithm>

#include "ninepegs/verify/steering.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {
namespace {

constexpr std::uint64_t partGames = 0x70617274;  // the stream that draws them
constexpr int longest = 400;                     // plies of a game
constexpr std::uint64_t weighed = 12;            // moves, by a steered game at each ply

}  // namespace

PartUses partUses(const Game& game, const PartUseOptions& options) {
  PartUses all;
  std::vector<PartUse>& out = all.parts;
  if (game.checks() == nullptr) return all;
  std::vector<RuleLine> parts;
  try {
    parts = game.checks()->conditionParts();
  } catch (const BadInput&) {  // without shortcuts it needs more memory than there may be
  }
  if (parts.empty()) return all;
  std::size_t lines = ruleLinesOf(game).size();
  std::vector<std::uint64_t> uses(lines + 2 * parts.size(), 0);
  std::unique_ptr<LivePosition> live = game.live(uses);
  Steering steering(*live, uses);
  std::uint64_t plies = 0;
  MoveList moves;
  auto play = [&](Steer way, std::uint64_t number) {
    Stream stream(options.seed ^ partGames, number);
    live->setUp(game.start());
    for (int ply = 0; ply < longest && plies < options.plies && !live->ended(); ++ply) {
      live->listMoves(moves);
      if (moves.empty()) return;
      live->play(steering.drawn(moves, way, stream));
      plies += way == Steer::uniform ? 1 : std::min<std::uint64_t>(weighed, moves.size());
    }
  };
  StopScope stop(options.stop);
  WorkScope work(limits::partSteps);
  constexpr std::uint64_t each = 8;  // of eight uniform games, one of each other way
  for (std::uint64_t number = 0; number < static_cast<std::uint64_t>(options.games); ++number)
    for (Steer way : {Steer::uniform, Steer::putOff, Steer::hurry, Steer::rare}) {
      if (way != Steer::uniform && number % each != 0) continue;
      if (plies >= options.plies || all.broken) continue;
      all.broken = wantsStop(options.stop);
      if (all.broken) continue;
      std::uint64_t stream = number * steers + static_cast<std::uint64_t>(way);
      all.broken = attempt([&] { play(way, stream); }) == Attempt::over;
    }
  all.plies = plies;
  for (std::size_t i = 0; i < parts.size(); ++i)
    out.push_back({parts[i].line, parts[i].text, uses[lines + 2 * i], uses[lines + 2 * i + 1]});
  std::stable_sort(out.begin(), out.end(),
                   [](const PartUse& a, const PartUse& b) { return a.line < b.line; });
  return all;
}

}  // namespace ninepegs::verify
