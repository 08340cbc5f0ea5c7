#include "ninepegs/verify/disclosures.hpp"

#include "ninepegs/base/random.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {
namespace {

constexpr std::uint64_t ownGames = 0x736565736c696e65;  // the streams that draw them
constexpr int longest = 400;                            // plies
constexpr int viewsAGame = 60;                          // of each side, evenly spread

// Is there a piece on the cell that the view leaves out?
bool isHidden(const Game& game, const Position& position, const View& view, Cell cell, int board) {
  return game.pieceAt(position, cell, board) && !game.pieceAt(view.shown, cell, board);
}

void look(const Game& game, const Position& position, int side, std::vector<Disclosure>& out) {
  View view = game.secrets()->viewOf(position, side);
  std::vector<bool> spoke(out.size(), false);
  for (Disclosure& one : out) ++one.views;
  for (std::size_t i = 0; i < view.marks.size(); ++i) {
    const View::Mark& mark = view.marks[i];
    Disclosure& one = out[view.lineOfMark[i]];
    for (Cell cell = 0; cell < game.board().size(); ++cell) {
      if (!mark.cells[static_cast<std::size_t>(cell)]) continue;
      spoke[view.lineOfMark[i]] = true;
      ++one.cells;
      one.hidden += isHidden(game, position, view, cell, game.boards() > 1 ? mark.board : 0);
    }
  }
  for (std::size_t line : view.lineOfWord) {
    spoke[line] = true;
    ++out[line].words;
  }
  for (std::size_t line = 0; line < out.size(); ++line) out[line].spoke += spoke[line];
}

}  // namespace

Disclosures disclosures(const Game& game, const DisclosureOptions& options) {
  Disclosures all;
  std::vector<Disclosure>& out = all.lines;
  if (game.secrets() == nullptr) return all;
  for (RuleLine& line : game.secrets()->viewLines())
    out.push_back({std::move(line), 0, 0, 0, 0, 0});
  if (out.empty()) return all;
  std::unique_ptr<LivePosition> live = game.live();
  StopScope stop(options.stop);
  WorkScope work(limits::partSteps);
  for (int number = 0; number < options.games && !all.broken; ++number) {
    all.broken = wantsStop(options.stop);
    if (all.broken) break;
    Stream stream(options.seed ^ ownGames, static_cast<std::uint64_t>(number));
    live->setUp(game.start());
    Attempt how = attempt([&] {
      std::vector<Position> met;
      while (static_cast<int>(met.size()) < longest && !live->ended() && live->playDrawn(stream))
        met.push_back(live->position());
      std::size_t step = met.size() / viewsAGame + 1;
      for (std::size_t at = 0; at < met.size(); at += step)
        for (int side = 0; side < 2; ++side) look(game, met[at], side, out);
    });
    if (how == Attempt::done) ++all.games;
    all.broken = how == Attempt::over;
  }
  return all;
}

}  // namespace ninepegs::verify
