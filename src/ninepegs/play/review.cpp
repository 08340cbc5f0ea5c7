#include "ninepegs/play/review.hpp"

#include "ninepegs/play/measure.hpp"
#include "ninepegs/play/worked_out.hpp"

namespace ninepegs::play {

std::vector<ReviewedPly> review(const Game& game, const Position& from,
                                const std::vector<Move>& moves, const ReviewOptions& options) {
  std::vector<ReviewedPly> out;
  Position position = from;
  Stream stream(options.seed, 0);
  auto measure = std::make_shared<WorkedOut>();  // one for all, so that scores can be compared
  auto searched = [&](const Position& at) {
    std::unique_ptr<Opponent> search = makeSearch({.nodes = options.nodes, .measure = measure});
    search->stopWith(options.stop);
    return search->choose(game, at, stream);
  };
  for (const Move& move : moves) {
    Choice best = searched(position);
    ReviewedPly one;
    one.move = move;
    one.best = best.move;
    one.side = game.toMove(position);
    one.score = one.played = best.score;
    game.apply(position, move);
    if (!(move == best.move)) {
      Result result = game.result(position);
      if (result.kind == ResultKind::win) {
        one.played = result.winner == one.side ? winScore - 1 : 1 - winScore;
      } else if (result.kind != ResultKind::ongoing || game.countMoves(position) == 0) {
        one.played = 0;
      } else {
        Choice reply = searched(position);
        one.played = beforeMove(reply.score, game.toMove(position) == one.side);
      }
      // The move that was played may be better than what the search preferred.
      if (one.played > one.score) one.score = one.played, one.best = move;
    }
    if (wantsStop(options.stop)) break;
    auto wins = [](std::int64_t score) { return decides(score) && score > 0; };
    auto loses = [](std::int64_t score) { return decides(score) && score < 0; };
    if (wins(one.score) && !wins(one.played))
      one.verdict = ReviewedPly::Verdict::missedWin;
    else if (loses(one.played) && !loses(one.score))
      one.verdict = ReviewedPly::Verdict::letsWin;
    out.push_back(one);
    if (options.progress) options.progress(out.size());
  }
  return out;
}

}  // namespace ninepegs::play
