#include "ninepegs/play/over_pasts.hpp"

#include <algorithm>
#include <cmath>

#include "ninepegs/play/measure.hpp"

namespace ninepegs::play {
namespace {

constexpr int longestPlayout = 1000;  // plies; then nobody has won
constexpr int deepest = 12;
// Positions near each past: as many as one ply of all moves can be looked at in.
constexpr std::uint64_t nearLeast = 5, nearMost = 24;

}  // namespace

bool PastsPlayer::begin(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
                        Stream& stream, const StopFlag* stop) {
  begun_ = std::chrono::steady_clock::now();
  stop_ = stop;
  nodes_ = 0;
  mostNodes_ = limits.nodes;
  seconds_ = limits.seconds;
  if (game_ != &game) {
    game_ = &game;
    pasts_ = std::make_unique<Pasts>(game, limits.pasts == 0 ? usualPasts : limits.pasts);
    live_ = game.live();
    measured_ = game.measure() != nullptr;
    lists_.resize(deepest + 1);
  }
  pasts_->learn(knowledge, stream, stop);
  positions_.clear();
  std::uint64_t near = nearLeast;
  if (measured_ && limits.nodes > 0)
    near = std::min<std::uint64_t>(
        limits.nodes / (knowledge.moves().size() * std::max<std::size_t>(1, pasts_->size())),
        nearMost);
  if (near >= nearLeast) pasts_->listNear(near, stream, positions_);
  for (std::size_t i = 0; i < pasts_->size(); ++i) positions_.push_back(pasts_->now(i));
  tallies_.assign(knowledge.moves().size(), {});
  return !positions_.empty();
}

bool PastsPlayer::over() const {
  if (wantsStop(stop_) || (mostNodes_ > 0 && nodes_ >= mostNodes_)) return true;
  return seconds_ > 0 &&
         std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count() >=
             seconds_;
}

// One of those that score highest; any, if there are no pasts to judge by.
Choice PastsPlayer::chosen(const MoveList& moves, const std::vector<double>& scores, int depth,
                           Stream& stream) const {
  std::uint32_t alike = 0;
  std::size_t best = 0;
  for (std::size_t i = 0; i < moves.size(); ++i) {
    if (alike > 0 && scores[i] < scores[best]) continue;
    if (alike > 0 && scores[i] > scores[best]) alike = 0;
    if (stream.below(++alike) == 0) best = i;
  }
  Choice choice;
  choice.move = moves[best];
  choice.line = {choice.move};
  choice.depth = depth;
  choice.nodes = nodes_;
  choice.score = std::llround(scores[best]);
  choice.positions = positions_.size();
  for (double score : scores) choice.means.push_back(std::llround(score));
  choice.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count();
  return choice;
}

std::int64_t PastsPlayer::look(int ply, int depth, std::int64_t alpha, std::int64_t beta) {
  ++nodes_;
  int side = live_->toMove();
  std::int64_t ended = 0;
  if (endsWith(*live_, ply, ended)) return ended;
  if (depth <= 0 || ply >= deepest) return leafScore(*live_, measured_);
  if (!live_->canMove()) return 0;
  MoveList& moves = lists_[static_cast<std::size_t>(ply)];
  live_->listMoves(moves);
  std::int64_t best = -2 * winScore;
  for (const Move& move : moves) {
    live_->play(move);
    bool again = live_->toMove() == side;
    std::int64_t score =
        again ? look(ply + 1, depth - 1, alpha, beta) : -look(ply + 1, depth - 1, -beta, -alpha);
    live_->takeBack();
    best = std::max(best, score);
    alpha = std::max(alpha, best);
    if (alpha >= beta || over()) break;
  }
  return best;
}

Choice PastsPlayer::search(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
                           Stream& stream, const StopFlag* stop) {
  if (game.measure() == nullptr) return playouts(game, knowledge, limits, stream, stop);
  begin(game, knowledge, limits, stream, stop);
  const MoveList& moves = knowledge.moves();
  std::vector<double> scores(moves.size(), 0);
  int reached = 0, most = limits.depth > 0 ? std::min(limits.depth, deepest) : deepest;
  for (int depth = 1; depth <= most && !positions_.empty(); ++depth) {
    std::uint64_t before = nodes_;
    tallies_.assign(moves.size(), {});
    double largest = 0;
    for (const Position& position : positions_) {
      if (depth > 1 && over()) break;
      live_->setUp(position);
      for (std::size_t k = 0; k < moves.size(); ++k) {
        live_->play(moves[k]);
        bool again = live_->toMove() == knowledge.side();
        std::int64_t score = look(1, depth - 1, -2 * winScore, 2 * winScore);
        if (!again) score = -score;
        live_->takeBack();
        Tally& tally = tallies_[k];
        ++tally.pasts;
        if (decides(score)) {
          (score > 0 ? tally.wins : tally.losses) += 1;
        } else {
          auto value = static_cast<double>(score);
          tally.sum += value;
          largest = std::max(largest, std::abs(value));
        }
      }
    }
    if (depth > 1 && over()) break;  // not all pasts were looked at
    // A win is worth more than anything that the measure says, but is no more than its share.
    for (std::size_t k = 0; k < moves.size(); ++k) {
      const Tally& one = tallies_[k];
      scores[k] = ((one.wins - one.losses) * (2 * largest + 1) + one.sum) * 1000 /
                  static_cast<double>(std::max<std::uint64_t>(1, one.pasts));
    }
    reached = depth;
    std::uint64_t spent = nodes_ - before;
    if (over() || (mostNodes_ > 0 && nodes_ + spent * moves.size() > mostNodes_)) break;
  }
  return chosen(moves, scores, reached, stream);
}

Choice PastsPlayer::greedy(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
                           Stream& stream, const StopFlag* stop) {
  begin(game, knowledge, limits, stream, stop);
  const MoveList& moves = knowledge.moves();
  std::vector<double> scores(moves.size(), 0);
  for (std::size_t i = 0; i < pasts_->size() && !wantsStop(stop); ++i) {
    live_->setUp(pasts_->now(i));
    for (std::size_t k = 0; k < moves.size(); ++k) {
      live_->play(moves[k]);
      ++nodes_;
      Outcome outcome = live_->outcome();
      if (outcome.kind == ResultKind::win)
        scores[k] += outcome.winner == knowledge.side() ? 1000 : -1;
      else if (winsAtOnce(*live_, 1 - knowledge.side(), lists_.front(), nodes_))
        scores[k] -= 1;
      live_->takeBack();
    }
  }
  return chosen(moves, scores, 2, stream);
}

// For a side: 1 a win, 1/2 a draw.
double PastsPlayer::playOut(int side, Stream& stream) {
  for (int ply = 0; ply < longestPlayout && !live_->ended(); ++ply) {
    ++nodes_;
    if (!live_->playDrawn(stream)) break;
  }
  Outcome outcome = live_->outcome();
  return outcome.kind != ResultKind::win ? 0.5 : outcome.winner == side ? 1 : 0;
}

// The next move to try is the one with the highest upper bound (P. Auer, N. Cesa-Bianchi,
// P. Fischer, "Finite-time analysis of the multiarmed bandit problem", 2002).
Choice PastsPlayer::playouts(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
                             Stream& stream, const StopFlag* stop) {
  bool any = begin(game, knowledge, limits, stream, stop);
  const MoveList& moves = knowledge.moves();
  std::uint64_t played = 0;
  while (any && moves.size() > 1 && !over() && (limits.playouts == 0 || played < limits.playouts)) {
    double most = -1, log = std::log(static_cast<double>(played + 1));
    std::size_t next = 0;
    std::uint32_t fresh = 0;
    for (std::size_t k = 0; k < moves.size(); ++k) {
      const Tally& one = tallies_[k];
      auto times = static_cast<double>(one.pasts);
      if (one.pasts == 0) {
        if (stream.below(++fresh) == 0) next = k;
      } else if (fresh == 0 && one.sum / times + std::sqrt(log / (2 * times)) > most) {
        most = one.sum / times + std::sqrt(log / (2 * times));
        next = k;
      }
    }
    live_->setUp(positions_[stream.below(static_cast<std::uint32_t>(positions_.size()))]);
    live_->play(moves[next]);
    tallies_[next].sum += playOut(knowledge.side(), stream);
    ++tallies_[next].pasts;
    ++played;
  }
  std::vector<double> scores;
  for (const Tally& one : tallies_) scores.push_back(static_cast<double>(one.pasts));
  Choice choice = chosen(moves, scores, 1, stream);
  choice.nodes = played;
  for (std::size_t k = 0; k < moves.size(); ++k) {
    const Tally& one = tallies_[k];
    choice.means[k] =
        one.pasts == 0 ? 0 : std::llround(2000 * (one.sum / static_cast<double>(one.pasts) - 0.5));
    if (moves[k] == choice.move) choice.score = choice.means[k];
  }
  return choice;
}

}  // namespace ninepegs::play
