// A game written in C++, checked by the same calls as a game from a sheet.
//
// The keeper's log pile: logs lie in a pile, in turn each guest carries one, two or three to the
// stove. Who carries the last one may choose the evening's game.
//
//   cmake -S . -B build -DCMAKE_PREFIX_PATH=/where/ninepegs/is/installed && cmake --build build
//   build/own-game
#include <cstdio>

#include "ninepegs/game/game.hpp"
#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/count.hpp"

namespace {

using namespace ninepegs;

// Words of a position: whose turn it is, and the logs that are left.
class LogPile final : public Game {
 public:
  explicit LogPile(std::uint64_t logs) : logs_(logs) {
    info_.title = "Log pile";
    info_.sides[0] = "Amber";
    info_.sides[1] = "Slate";
    info_.ends = {{"the last log", 0, false}};
  }

  const GameInfo& info() const override { return info_; }
  Position start() const override { return {{0, logs_}}; }
  int toMove(const Position& position) const override {
    return static_cast<int>(position.words[0]);
  }
  void listMoves(const Position& position, MoveList& moves) const override {
    moves.clear();
    for (std::uint16_t many = 1; many <= 3 && many <= position.words[1]; ++many)
      moves.push_back(Move::of(many));
  }
  void apply(Position& position, const Move& move) const override {
    position.words[1] -= move.choices[0];
    position.words[0] ^= 1;
  }
  Result result(const Position& position) const override {
    return position.words[1] > 0 ? Result{} : Result::win(1 - toMove(position), "the last log");
  }
  std::string moveText(const Position&, const Move& move) const override {
    return std::to_string(move.choices[0]);
  }
  std::string positionText(const Position& position) const override {
    return std::to_string(position.words[1]) + " logs; " + info_.sides[toMove(position)] +
           " to move";
  }

 private:
  std::uint64_t logs_;
  GameInfo info_;
};

}  // namespace

int main() {
  LogPile game(21);
  verify::CheckOptions check;
  check.playouts = 2000;
  verify::CheckReport report = verify::check(game, check);
  verify::CountOptions count;
  count.depth = 4;
  unsigned long long sequences = verify::count(game, game.start(), count).sequences;
  std::printf("%s: %zu faults in %llu playouts; %llu sequences of 4 plies\n",
              game.info().title.c_str(), report.findings.size(),
              static_cast<unsigned long long>(report.evidence.playouts), sequences);
  for (const auto& [outcome, times] : report.evidence.outcomes)
    std::printf("  %s wins: %llu\n", game.info().sides[std::get<1>(outcome)].c_str(),
                static_cast<unsigned long long>(times));
  return report.findings.empty() && sequences == 81 ? 0 : 1;
}
