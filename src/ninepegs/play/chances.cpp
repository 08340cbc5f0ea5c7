#include "ninepegs/play/chances.hpp"

#include <cmath>
#include <utility>
#include <vector>

namespace ninepegs::play {
namespace {

constexpr std::uint64_t gamesOfChances = 120,
                        chanceGames = 0x6368616e6365;  // the stream that draws them
constexpr int longestOfChances = 300;                  // plies of a game
constexpr int eachPly = 3;                             // that are looked at

// The algebraic curve of the learned evaluation: every machine comes to the same.
double curve(double score, double scale) {
  double x = score / scale;
  return x / std::sqrt(1 + x * x);
}

}  // namespace

Chances::Chances(const Game& game, const Position& from, std::uint64_t seed) {
  if (game.measure() == nullptr || game.ended(from)) return;
  std::vector<std::pair<double, double>> seen;  // worth for the first side, and the result
  std::unique_ptr<LivePosition> live = game.live();
  std::vector<double> worth;
  for (std::uint64_t number = 0; number < gamesOfChances; ++number) {
    Stream stream(seed ^ chanceGames, number);
    live->setUp(from);
    worth.clear();
    try {
      for (int ply = 0; ply < longestOfChances && !live->ended(); ++ply) {
        if (ply % eachPly == 0) worth.push_back(static_cast<double>(live->worth(0)));
        if (!live->playDrawn(stream)) break;
      }
    } catch (const BadInput&) {  // no end: it tells nothing of chances
      continue;
    }
    Outcome outcome = live->outcome();
    if (outcome.kind == ResultKind::ongoing) continue;
    double result = outcome.kind != ResultKind::win ? 0 : outcome.winner == 0 ? 1 : -1;
    for (double one : worth) seen.emplace_back(one, result);
  }
  double best = -1;
  for (double scale = 1; scale < 1e7; scale *= 1.25) {
    double wrong = 0;
    for (const auto& [score, result] : seen) {
      double off = result - curve(score, scale);
      wrong += off * off;
    }
    if (best < 0 || wrong < best) best = wrong, scale_ = scale;
  }
}

double Chances::of(std::int64_t score) const {
  if (decides(score)) return score > 0 ? 1 : 0;
  return 0.5 + 0.5 * curve(static_cast<double>(score), scale_);
}

}  // namespace ninepegs::play
