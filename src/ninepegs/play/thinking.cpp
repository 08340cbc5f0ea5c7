#include "ninepegs/play/thinking.hpp"

#include <algorithm>

#include "ninepegs/base/limits.hpp"

namespace ninepegs::play {
namespace {

// Positions in the tree of all moves to a depth, the root being none of them: what minimax looks
// at. Nothing if there are more than `most`.
class TreeSize {
 public:
  TreeSize(const Game& game, const Position& position, const StopFlag* stop)
      : live_(game.live()), stop_(stop) {
    live_->setUp(position);
  }
  std::optional<std::uint64_t> at(int depth, std::uint64_t most) {
    left_ = most;
    lists_.resize(static_cast<std::size_t>(depth));
    if (!count(0, depth)) return std::nullopt;
    return most - left_;
  }

 private:
  bool count(std::size_t ply, int depth) {
    if (depth == 0 || live_->ended()) return true;
    MoveList& moves = lists_[ply];
    live_->listMoves(moves);
    if (moves.size() > left_ || wantsStop(stop_)) return false;
    left_ -= moves.size();
    if (depth == 1) return true;
    for (const Move& move : moves) {
      live_->play(move);
      bool good = count(ply + 1, depth - 1);
      live_->takeBack();
      if (!good) return false;
    }
    return true;
  }

  std::unique_ptr<LivePosition> live_;
  const StopFlag* stop_;
  std::uint64_t left_ = 0;
  std::vector<MoveList> lists_;
};

}  // namespace

Thinking think(const Game& game, const Position& position, const ThinkOptions& options) {
  Thinking out;
  Stream stream(options.seed, 0);
  std::unique_ptr<Opponent> search =
      makeSearch({.depth = options.depth, .nodes = options.nodes});
  search->stopWith(options.stop);
  out.choice = search->choose(game, position, stream);
  TreeSize tree(game, position, options.stop);
  for (const Choice::Step& step : out.choice.steps) {
    std::optional<std::uint64_t> size = tree.at(step.depth, options.plainNodes);
    if (!size) break;
    out.plain.push_back(*size);
  }
  MoveList moves;
  game.listMoves(position, moves);
  int side = game.toMove(position);
  std::uint64_t each = std::max<std::uint64_t>(options.nodes / std::max<std::size_t>(moves.size(), 1),
                                               1000);
  for (const Move& move : moves) {
    if (wantsStop(options.stop)) break;
    Thinking::RootMove one;
    one.move = move;
    one.line = {move};
    Position after = position;
    game.apply(after, move);
    Result result = game.result(after);
    if (result.kind == ResultKind::win)
      one.score = result.winner == side ? winScore - 1 : 1 - winScore;
    else if (result.kind == ResultKind::ongoing && game.countMoves(after) > 0) {
      int depth = out.choice.depth - 1;
      std::unique_ptr<Opponent> reply = makeSearch({.depth = std::max(depth, 1), .nodes = each});
      reply->stopWith(options.stop);
      Stream own(options.seed, 1 + static_cast<std::uint64_t>(out.moves.size()));
      Choice choice = reply->choose(game, after, own);
      one.score = game.toMove(after) == side ? choice.score : -choice.score;
      // A win is one ply further off, seen from here.
      if (one.score > winScore - limits::searchDepth * 10) --one.score;
      if (one.score < limits::searchDepth * 10 - winScore) ++one.score;
      one.line.insert(one.line.end(), choice.line.begin(), choice.line.end());
    }
    out.moves.push_back(std::move(one));
  }
  std::stable_sort(out.moves.begin(), out.moves.end(),
                   [](const auto& a, const auto& b) { return a.score > b.score; });
  return out;
}

}  // namespace ninepegs::play
