#include "ninepegs/play/opponent.hpp"

#include <cstdlib>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/play/measure.hpp"
#include "ninepegs/play/over_pasts.hpp"

namespace ninepegs::play {
namespace {

class Random final : public Opponent {
 public:
  Choice choose(const Game& game, const Position& position, Stream& stream) override {
    game.listMoves(position, moves_);
    return drawn(moves_, stream);
  }
  Choice chooseKnowing(const Game&, const Knowledge& knowledge, Stream& stream) override {
    return drawn(knowledge.moves(), stream);
  }
  std::string name() const override { return "random"; }

 private:
  static Choice drawn(const MoveList& moves, Stream& stream) {
    Choice choice;
    choice.nodes = 1;
    choice.move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
    choice.line = {choice.move};
    return choice;
  }

  MoveList moves_;
};

class Greedy final : public Opponent {
 public:
  Choice choose(const Game& game, const Position& position, Stream& stream) override {
    int side = game.toMove(position);
    std::unique_ptr<LivePosition> live = game.live();
    live->setUp(position);
    MoveList moves, winning, open;
    Choice choice;
    choice.depth = 2;
    live->listMoves(moves);
    for (const Move& move : moves) {
      live->play(move);
      ++choice.nodes;
      Outcome outcome = live->outcome();
      if (outcome.kind == ResultKind::win && outcome.winner == side)
        winning.push_back(move);
      else if (outcome.kind != ResultKind::win)  // else it loses at once
        open.push_back(move);
      live->takeBack();
    }
    auto drawn = [&stream](const MoveList& from) {
      return stream.below(static_cast<std::uint32_t>(from.size()));
    };
    choice.move = !winning.empty() ? winning[drawn(winning)] : moves[drawn(moves)];
    // The first of a drawn order that leaves no win is as good as drawn from all of them.
    while (winning.empty() && !open.empty()) {
      std::swap(open[drawn(open)], open.back());
      live->play(open.back());
      bool loses = winsAtOnce(*live, 1 - side, replies_, choice.nodes);
      live->takeBack();
      if (!loses) {
        choice.move = open.back();
        break;
      }
      open.pop_back();
    }
    choice.line = {choice.move};
    if (!winning.empty()) choice.score = winScore - 1;
    return choice;
  }
  Choice chooseKnowing(const Game& game, const Knowledge& knowledge, Stream& stream) override {
    return pasts_.greedy(game, knowledge, {}, stream, stop_);
  }
  std::string name() const override { return "greedy"; }

 private:
  MoveList replies_;
  PastsPlayer pasts_;
};

}  // namespace

bool decides(std::int64_t score) {
  return std::abs(score) > winScore - 10 * limits::searchDepth;
}

std::unique_ptr<Opponent> makeRandom() {
  return std::make_unique<Random>();
}
std::unique_ptr<Opponent> makeGreedy() {
  return std::make_unique<Greedy>();
}

}  // namespace ninepegs::play
