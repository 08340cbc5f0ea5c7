#include "ninepegs/play/thinking.hpp"

#include <algorithm>

#include "ninepegs/play/knowledge.hpp"
#include "ninepegs/play/measure.hpp"
#include "ninepegs/play/worked_out.hpp"

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

// All to the same depth, so that the scores can be compared: the greatest that each reached with
// its share of the positions.
void scoreEach(const Game& game, const Position& position, const ThinkOptions& options,
               const std::shared_ptr<WorkedOut>& measure, Thinking& out) {
  std::function<void(std::uint64_t)> progress;  // with the positions before
  if (options.progress)
    progress = [&](std::uint64_t nodes) { options.progress(out.choice.nodes + nodes); };
  MoveList moves;
  game.listMoves(position, moves);
  int side = game.toMove(position), common = std::max(out.choice.depth - 1, 1);
  std::uint64_t each =
      std::max<std::uint64_t>(std::max(options.nodes, out.choice.nodes) / moves.size(), 1000);
  std::vector<Choice> replies(moves.size());
  std::vector<Position> after(moves.size(), position);
  for (std::size_t i = 0; i < moves.size(); ++i) {
    game.apply(after[i], moves[i]);
    if (game.ended(after[i]) || game.countMoves(after[i]) == 0) continue;
    std::unique_ptr<Opponent> reply =
        makeSearch({.depth = common, .nodes = each, .measure = measure, .progress = progress});
    reply->stopWith(options.stop);
    Stream own(options.seed, 1 + static_cast<std::uint64_t>(i));
    replies[i] = reply->choose(game, after[i], own);
    bool settled = replies[i].solved || decides(replies[i].score);
    if (!settled) common = std::min(common, std::max(replies[i].depth, 1));
  }
  for (std::size_t i = 0; i < moves.size() && !wantsStop(options.stop); ++i) {
    Thinking::RootMove one{moves[i], 0, 0, {moves[i]}};
    Result result = game.result(after[i]);
    if (result.kind == ResultKind::win) {
      one.score = result.winner == side ? winScore - 1 : 1 - winScore;
    } else if (!replies[i].steps.empty()) {
      const std::vector<Choice::Step>& steps = replies[i].steps;
      const Choice::Step& step =
          steps[std::min(static_cast<std::size_t>(common), steps.size()) - 1];
      const Choice::Step& last = decides(steps.back().score) ? steps.back() : step;
      one.score = beforeMove(last.score, game.toMove(after[i]) == side);
      one.line.insert(one.line.end(), last.line.begin(), last.line.end());
    }
    out.moves.push_back(std::move(one));
  }
  out.movesDepth = common;
  // One truth: what the search found of its move, it found deeper.
  for (Thinking::RootMove& one : out.moves)
    if (one.move == out.choice.better.value_or(out.choice.move)) {
      one.score = out.choice.score;
      one.line = out.choice.line;
      std::rotate(out.moves.begin(), out.moves.begin() + (&one - out.moves.data()),
                  out.moves.begin() + (&one - out.moves.data()) + 1);
      break;
    }
}

}  // namespace

Thinking think(const Game& game, const Position& position, Opponent& who,
               const ThinkOptions& options) {
  Thinking out;
  Stream stream(options.seed, 0);
  auto measure = std::make_shared<WorkedOut>();
  who.stopWith(options.stop);
  who.measureBy(measure);
  who.tellProgress(options.progress);
  who.tellSteps([](const Choice::Step&) {});  // so that there are some
  out.choice = who.choose(game, position, stream);
  TreeSize tree(game, position, options.stop);
  for (const Choice::Step& step : out.choice.steps) {
    if (out.choice.byPlayouts) break;
    std::optional<std::uint64_t> size = tree.at(step.depth, options.plainNodes);
    if (!size) break;
    out.plain.push_back(*size);
  }
  out.moves = std::move(out.choice.weighed);
  if (out.moves.empty() && !out.choice.steps.empty())
    scoreEach(game, position, options, measure, out);
  // What is proved stands above and below all else, by whatever it was found.
  auto before = [&](const Thinking::RootMove& a, const Thinking::RootMove& b) {
    bool counted = out.choice.byPlayouts && !decides(a.score) && !decides(b.score);
    return counted ? a.nodes > b.nodes : a.score > b.score;
  };
  out.stopped = wantsStop(options.stop);
  auto first = out.moves.begin();
  if (out.movesDepth > 0 && !out.moves.empty()) ++first;
  std::stable_sort(first, out.moves.end(), before);
  return out;
}

Thinking think(const Game& game, const Knowledge& knowledge, Opponent& who,
               const ThinkOptions& options) {
  Thinking out;
  Stream stream(options.seed, 0);
  who.stopWith(options.stop);
  out.choice = who.chooseKnowing(game, knowledge, stream);
  out.positions = out.choice.positions;
  for (std::size_t k = 0; k < out.choice.means.size(); ++k)
    out.moves.push_back({knowledge.moves()[k], out.choice.means[k], 0, {knowledge.moves()[k]}});
  std::stable_sort(out.moves.begin(), out.moves.end(),
                   [](const auto& a, const auto& b) { return a.score > b.score; });
  out.stopped = wantsStop(options.stop);
  return out;
}

}  // namespace ninepegs::play
