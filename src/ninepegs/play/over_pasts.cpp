#include "ninepegs/play/over_pasts.hpp"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "ninepegs/play/measure.hpp"

namespace ninepegs::play {
namespace {

constexpr int longestPlayout = 1000;  // plies; then nobody has won
constexpr int deepest = 12;
constexpr std::uint64_t nearEach = 5;  // positions near each past, for playouts
// Of a search: the pasts in which all moves are looked at, at least, and the moves that are looked
// at in the others.
constexpr std::uint64_t firstPasts = 40, bestMoves = 12;
constexpr std::uint64_t mostPasts = 1000, nodesEach = 66;  // positions for each past

std::uint64_t pastsFor(const OverPasts& limits) {
  if (limits.pasts > 0) return limits.pasts;
  return std::clamp(limits.nodes / nodesEach, usualPasts, mostPasts);
}

// The numbers of all moves.
std::vector<std::size_t> everyOf(const MoveList& moves) {
  std::vector<std::size_t> out(moves.size());
  std::iota(out.begin(), out.end(), std::size_t{0});
  return out;
}

}  // namespace

bool PastsPlayer::begin(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
                        std::uint64_t near, Stream& stream, const StopFlag* stop) {
  begun_ = std::chrono::steady_clock::now();
  stop_ = stop;
  nodes_ = 0;
  mostNodes_ = limits.nodes;
  seconds_ = limits.seconds;
  if (!game_.is(game)) {
    game_ = game;
    pasts_ = std::make_unique<Pasts>(game, pastsFor(limits));
    live_ = game.live();
    measured_ = game.measure() != nullptr;
    lists_.resize(deepest + 1);
  }
  pasts_->learn(knowledge, stream, stop);
  positions_.clear();
  if (near > 0) pasts_->listNear(near, stream, positions_);
  for (std::size_t i = 0; i < pasts_->size(); ++i) positions_.push_back(pasts_->now(i));
  tallies_.assign(knowledge.moves().size(), {});
  looked_ = positions_.size();
  return looked_ > 0;
}

bool PastsPlayer::over() const {
  if (wantsStop(stop_) || (mostNodes_ > 0 && nodes_ >= mostNodes_)) return true;
  return seconds_ > 0 && secondsSpent() >= seconds_;
}

double PastsPlayer::secondsSpent() const {
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count();
}

// One of those of `open` that score highest; any, if there are no pasts to judge by.
Choice PastsPlayer::chosen(const MoveList& moves, const std::vector<double>& scores,
                           const std::vector<std::size_t>& open, int depth, Stream& stream) const {
  std::uint32_t alike = 0;
  std::size_t best = 0;
  for (std::size_t i : open) {
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
  choice.positions = looked_;
  for (double score : scores) choice.means.push_back(std::llround(score));
  choice.seconds = secondsSpent();
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

// What these moves come to in one more position.
void PastsPlayer::weigh(const std::vector<std::size_t>& which, const Position& position,
                        const Knowledge& knowledge, int depth) {
  live_->setUp(position);
  for (std::size_t k : which) {
    live_->play(knowledge.moves()[k]);
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
      largest_ = std::max(largest_, std::abs(value));
    }
  }
}

// A win is worth more than anything that the measure says, but is no more than its share.
std::vector<double> PastsPlayer::scores() const {
  std::vector<double> out;
  for (const Tally& one : tallies_)
    out.push_back(((one.wins - one.losses) * (2 * largest_ + 1) + one.sum) * 1000 /
                  static_cast<double>(std::max<std::uint64_t>(1, one.pasts)));
  return out;
}

// One ply: every move in the first pasts, and in the others, as far as the limits allow, those
// that did best until then. These stay open to choice.
std::vector<std::size_t> PastsPlayer::lookAtAll(const Knowledge& knowledge, Stream& stream) {
  std::vector<std::size_t> best = everyOf(knowledge.moves());
  std::uint64_t first = mostNodes_ == 0
                            ? positions_.size()
                            : std::max<std::uint64_t>(firstPasts, mostNodes_ / 2 / best.size());
  for (looked_ = 0; looked_ < positions_.size(); ++looked_) {
    if (looked_ == first) {
      std::uint64_t left = mostNodes_ > nodes_ ? mostNodes_ - nodes_ : 0;
      std::uint64_t count = std::max(bestMoves, left / (positions_.size() - looked_));
      putBestFirst(best, stream);
      best.resize(std::min<std::uint64_t>(best.size(), count));
    }
    if (looked_ >= first && over()) break;
    weigh(best, positions_[looked_], knowledge, 1);
  }
  return best;
}

// Of those that are alike any may come first.
void PastsPlayer::putBestFirst(std::vector<std::size_t>& moves, Stream& stream) const {
  for (std::size_t i = moves.size(); i > 1; --i)
    std::swap(moves[i - 1], moves[stream.below(static_cast<std::uint32_t>(i))]);
  std::vector<double> so = scores();
  std::stable_sort(moves.begin(), moves.end(),
                   [&](std::size_t a, std::size_t b) { return so[a] > so[b]; });
}

Choice PastsPlayer::search(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
                           Stream& stream, const StopFlag* stop) {
  if (game.measure() == nullptr) return playouts(game, knowledge, limits, stream, stop);
  bool any = begin(game, knowledge, limits, 0, stream, stop);
  const MoveList& moves = knowledge.moves();
  const std::vector<std::size_t> every = everyOf(moves);
  std::vector<std::size_t> open = any ? lookAtAll(knowledge, stream) : every;
  std::vector<double> best = scores();
  int reached = any ? 1 : 0, most = limits.depth > 0 ? std::min(limits.depth, deepest) : deepest;
  std::uint64_t before = 0;
  for (int depth = 2; depth <= most && any; ++depth) {
    std::uint64_t spent = nodes_ - before;
    if (over() || (mostNodes_ > 0 && nodes_ + spent * moves.size() > mostNodes_)) break;
    before = nodes_;
    tallies_.assign(moves.size(), {});
    largest_ = 0;
    for (std::size_t i = 0; i < positions_.size() && !over(); ++i)
      weigh(every, positions_[i], knowledge, depth);
    if (over()) break;  // perhaps not all pasts were looked at
    open = every;
    best = scores();
    reached = depth;
    looked_ = positions_.size();
  }
  return chosen(moves, best, open, reached, stream);
}

Choice PastsPlayer::greedy(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
                           Stream& stream, const StopFlag* stop) {
  begin(game, knowledge, limits, 0, stream, stop);
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
  return chosen(moves, scores, everyOf(moves), 2, stream);
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
  bool any = begin(game, knowledge, limits, nearEach, stream, stop);
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
  Choice choice = chosen(moves, scores, everyOf(moves), 1, stream);
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
