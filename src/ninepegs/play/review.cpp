#include "ninepegs/play/review.hpp"

#include <algorithm>

#include "ninepegs/play/chances.hpp"
#include "ninepegs/play/measure.hpp"
#include "ninepegs/play/worked_out.hpp"

namespace ninepegs::play {
namespace {

using Verdict = ReviewedPly::Verdict;

constexpr std::uint64_t moreNodes = 4;       // times as many positions, to look again
constexpr std::uint64_t fewestNodes = 1000;  // of each move that is looked at again

bool wins(std::int64_t score) {
  return decides(score) && score > 0;
}
bool loses(std::int64_t score) {
  return decides(score) && score < 0;
}

class Reviewer {
 public:
  Reviewer(const Game& game, const Position& from, const std::vector<Move>& moves,
           const ReviewOptions& options)
      : game_(game),
        moves_(moves),
        options_(options),
        stream_(options.seed, 0),
        chances_(game, from, options.seed) {
    positions_.push_back(from);
    for (const Move& move : moves) {
      positions_.push_back(positions_.back());
      game.apply(positions_.back(), move);
    }
  }

  std::vector<ReviewedPly> run() {
    for (std::size_t ply = 0; ply < moves_.size(); ++ply) {
      ReviewedPly one = firstLook(ply);
      if (wantsStop(options_.stop)) break;
      out_.push_back(one);
      if (options_.progress) options_.progress(out_.size());
    }
    for (std::size_t ply = out_.size(); ply-- > 1 && !wantsStop(options_.stop);)
      lookBack(ply - 1, out_[ply]);
    for (ReviewedPly& one : out_) judge(one);
    return std::move(out_);
  }

 private:
  Choice searched(const Position& at, std::uint64_t nodes) {
    std::unique_ptr<Opponent> search = makeSearch({.nodes = nodes, .measure = measure_});
    search->stopWith(options_.stop);
    return search->choose(game_, at, stream_);
  }

  // What a position is worth for the side that has just moved there.
  std::int64_t scoreBehind(const Position& after, int side, std::uint64_t nodes) {
    Result result = game_.result(after);
    if (result.kind == ResultKind::win) return result.winner == side ? winScore - 1 : 1 - winScore;
    if (result.kind != ResultKind::ongoing || game_.countMoves(after) == 0) return 0;
    return beforeMove(searched(after, nodes).score, game_.toMove(after) == side);
  }

  ReviewedPly firstLook(std::size_t ply) {
    Choice best = searched(positions_[ply], options_.nodes);
    ReviewedPly one;
    one.move = moves_[ply];
    one.best = best.move;
    one.side = game_.toMove(positions_[ply]);
    one.score = one.played = best.score;
    if (!(one.move == best.move))
      one.played = scoreBehind(positions_[ply + 1], one.side, options_.nodes);
    // The move that was played may be better than what the search preferred.
    if (one.played > one.score) one.score = one.played, one.best = one.move;
    return one;
  }

  // What the next ply knows of this one's move, which was not seen here.
  void lookBack(std::size_t ply, const ReviewedPly& next) {
    ReviewedPly& one = out_[ply];
    std::int64_t known = beforeMove(next.score, next.side == one.side);
    if (!decides(known) || decides(one.played)) return;
    one.played = known;
    one.lookedAgain = true;
    if (wins(known)) {
      if (!wins(one.score)) one.score = known, one.best = one.move;
      return;
    }
    // Was there another move? The one that the search preferred may be lost as well.
    if (!(one.best == one.move) && !loses(one.score)) return;
    MoveList all;
    game_.listMoves(positions_[ply], all);
    std::uint64_t each =
        std::max(fewestNodes, options_.nodes * moreNodes / std::max<std::uint64_t>(all.size(), 1));
    one.score = known, one.best = one.move;
    for (const Move& move : all) {
      if (wantsStop(options_.stop)) return;
      if (move == one.move) continue;
      Position after = positions_[ply];
      game_.apply(after, move);
      std::int64_t score = scoreBehind(after, one.side, each);
      if (score > one.score) one.score = score, one.best = move;
    }
  }

  void judge(ReviewedPly& one) const {
    one.chance = chances_.of(one.score);
    one.chancePlayed = chances_.of(one.played);
    if (wins(one.score) && !wins(one.played))
      one.verdict = Verdict::missedWin;
    else if (loses(one.played) && !loses(one.score))
      one.verdict = Verdict::letsWin;
    else if (!decides(one.score) && !decides(one.played) &&
             one.chance - one.chancePlayed > costsFrom)
      one.verdict = Verdict::costs;
  }

  const Game& game_;
  const std::vector<Move>& moves_;
  const ReviewOptions& options_;
  Stream stream_;
  std::shared_ptr<WorkedOut> measure_ =
      std::make_shared<WorkedOut>();  // one for all: scores compare
  Chances chances_;
  std::vector<Position> positions_;
  std::vector<ReviewedPly> out_;
};

}  // namespace

std::vector<ReviewedPly> review(const Game& game, const Position& from,
                                const std::vector<Move>& moves, const ReviewOptions& options) {
  return Reviewer(game, from, moves, options).run();
}

}  // namespace ninepegs::play
