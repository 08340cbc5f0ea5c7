#include "ninepegs/play/pasts.hpp"

#include <algorithm>
#include <limits>
#include <numeric>

namespace ninepegs::play {
namespace {

constexpr std::uint32_t walkedPlies = 5;  // of each walk from one past to another
constexpr int pairTries = 4;              // likewise
constexpr std::size_t stirredShare = 2;   // one of so many pasts walks on at a ply that tells
// To find pasts when none is left.
constexpr int settleTries = 30, settleSteps = 60;

std::uint64_t keyOf(const Move& move) {
  std::uint64_t key = move.group;
  for (int i = 0; i < move.count; ++i)
    key = key * 0x9e3779b97f4a7c15ull + move.choices[static_cast<std::size_t>(i)] + 1;
  return key;
}

}  // namespace

Pasts::Known Pasts::knownOf(const Knowledge::Ply& ply) {
  return {ply, hearing_->of(MoveTexts{ply.seen, ply.seen, ply.told})};
}

bool Pasts::looksLike(const Position& before, const Move& move, const Known& ply) const {
  Hearing::Heard heard = hearing_->of(before, move);
  return (ply.own || heard.seen == ply.heard.seen) && heard.told == ply.heard.told;
}

bool Pasts::follow(Past& past, const Known& ply, Stream& stream) {
  const Position& before = past.positions.back();
  Move move = ply.move;
  if (ply.own) {
    if (!game_->isLegal(before, move)) {
      movesTell_ = true;
      return false;
    }
    if (!looksLike(before, move, ply)) return false;
  } else if (usual_ && game_->isLegal(before, *usual_) && looksLike(before, *usual_, ply)) {
    move = *usual_;
  } else {
    game_->listMoves(before, moves_);
    std::size_t kept = 0;
    for (const Move& one : moves_)
      if (looksLike(before, one, ply)) moves_[kept++] = one;
    moves_.resize(kept);
    if (kept == 0) return false;
    move = moves_[stream.below(static_cast<std::uint32_t>(kept))];
    if (kept == 1) {
      usual_ = move;
    } else {
      if (hidden_.empty() || hidden_.back() != past.moves.size()) {
        hidden_.push_back(past.moves.size());
        alike_.emplace_back();
      }
      for (const Move& one : moves_) alike_.back().try_emplace(keyOf(one));
      past.others.resize(hidden_.size());
      past.others.back() = moves_;
    }
  }
  past.moves.push_back(move);
  past.positions.push_back(past.positions.back());
  game_->apply(past.positions.back(), move);
  return true;
}

const MoveList& Pasts::othersOf(Past& past, std::size_t hidden) {
  past.others.resize(hidden_.size());
  MoveList& others = past.others[hidden];
  if (!others.empty()) return others;
  game_->listMoves(past.positions[hidden_[hidden]], moves_);
  for (const Move& move : moves_)
    if (alike_[hidden].contains(keyOf(move))) others.push_back(move);
  return others;
}

// Notes that a hidden ply was another move; false: that cannot be noted as a difference of words.
bool Pasts::change(const Past& past, std::size_t hidden, const Move& move) {
  std::size_t ply = hidden_[hidden];
  const Position& was = past.positions[ply + 1];
  after_ = past.positions[ply];
  game_->apply(after_, move);
  if (was.words.size() != after_.words.size()) return false;
  Change& change = changes_[changed_++];
  change.ply = ply;
  change.move = move;
  change.difference.resize(after_.words.size());
  for (std::size_t i = 0; i < after_.words.size(); ++i)
    change.difference[i] = was.words[i] ^ after_.words[i];
  return true;
}

// The position of a ply, if what was changed before it only adds to it.
const Position& Pasts::changedAt(const Past& past, std::size_t ply) {
  at_ = past.positions[ply];
  for (std::size_t i = 0; i < changed_; ++i)
    if (changes_[i].ply < ply)
      for (std::size_t k = 0; k < at_.words.size(); ++k) at_.words[k] ^= changes_[i].difference[k];
  return at_;
}

// Would the own move of a ply have told what it told?
bool Pasts::tellsSo(const Past& past, std::size_t ply, const Known& known) {
  const Position& before = changedAt(past, ply);
  return (!movesTell_ || game_->isLegal(before, known.move)) &&
         looksLike(before, known.move, known);
}

std::size_t Pasts::firstChanged() const {
  return changed_ == 2 ? std::min(changes_[0].ply, changes_[1].ply) : changes_[0].ply;
}

// A quick look, most telling plies first: would later plies be as they were? `newest` is a ply
// behind those of the past, or nullptr.
bool Pasts::agreesLater(const Past& past, const Known* newest, std::uint32_t* refuted) {
  std::size_t from = firstChanged(), plies = past.moves.size();
  if (newest != nullptr && !tellsSo(past, plies, *newest)) return false;
  std::size_t asked = refuted == nullptr || *refuted == 0 ? plies : *refuted - 1;
  if (asked > from && asked < plies && !tellsSo(past, asked, known_[asked])) return false;
  for (std::size_t i = 0; i < doubts_.size(); ++i) {
    std::size_t ply = doubts_[i];
    if (ply <= from || ply >= plies || ply == asked || tellsSo(past, ply, known_[ply])) continue;
    if (i > 0) std::swap(doubts_[i], doubts_[i / 2]);
    if (refuted != nullptr) *refuted = static_cast<std::uint32_t>(ply) + 1;
    return false;
  }
  return true;
}

// Are the other side's later moves still legal?
bool Pasts::othersStand(const Past& past) {
  for (std::size_t ply : hidden_) {
    if (ply <= firstChanged() || ply >= past.moves.size()) continue;
    const Move* move = &past.moves[ply];
    for (std::size_t i = 0; i < changed_; ++i)
      if (changes_[i].ply == ply) move = &changes_[i].move;
    if (!game_->isLegal(changedAt(past, ply), *move)) return false;
  }
  return true;
}

void Pasts::take(Past& past) {
  for (std::size_t ply = firstChanged() + 1; ply < past.positions.size(); ++ply)
    past.positions[ply] = changedAt(past, ply);
  for (std::size_t i = 0; i < changed_; ++i) past.moves[changes_[i].ply] = changes_[i].move;
  for (std::size_t i = 0; i < past.others.size(); ++i)
    if (hidden_[i] > firstChanged()) past.others[i].clear();
}

// The moves that a hidden ply could have been, the rest being as it is.
void Pasts::findAgreeing(Past& past, std::size_t hidden) {
  agreeing_.clear();
  for (const Move& move : othersOf(past, hidden)) {
    changed_ = 0;
    if (change(past, hidden, move) && agreesLater(past, nullptr, &alike_[hidden][keyOf(move)]))
      agreeing_.push_back(move);
  }
}

void Pasts::listNear(std::size_t each, Stream& stream, std::vector<Position>& out) {
  constexpr std::size_t atOnce = 12;  // from one hidden ply, before another is drawn
  if (hidden_.empty()) return;
  for (Past& past : pasts_) {
    if (!past.changes()) continue;
    std::size_t most = out.size() + each;
    for (std::size_t from = 0; from < each; from += atOnce) {
      std::size_t hidden = stream.below(static_cast<std::uint32_t>(hidden_.size()));
      findAgreeing(past, hidden);
      std::size_t here = std::min(most, out.size() + atOnce);
      for (std::size_t tried = 0; tried < 2 * atOnce && !agreeing_.empty(); ++tried) {
        if (out.size() >= here) break;
        changed_ = 0;
        const Move& move = agreeing_[stream.below(static_cast<std::uint32_t>(agreeing_.size()))];
        if (change(past, hidden, move) && othersStand(past))
          out.push_back(changedAt(past, past.moves.size()));
      }
    }
  }
}

// Draws a hidden ply anew from all moves that agree with the rest: the first of them, in a drawn
// order.
bool Pasts::redraw(Past& past, std::size_t hidden, const Known* newest, Stream& stream) {
  if (hidden_[hidden] >= past.moves.size()) return false;
  const MoveList& others = othersOf(past, hidden);
  order_.resize(others.size());
  std::iota(order_.begin(), order_.end(), std::uint32_t{0});
  for (std::size_t i = 0; i < order_.size(); ++i) {
    std::swap(order_[i], order_[i + stream.below(static_cast<std::uint32_t>(order_.size() - i))]);
    const Move& move = others[order_[i]];
    changed_ = 0;
    if (!change(past, hidden, move)) return false;
    if (!agreesLater(past, newest, &alike_[hidden][keyOf(move)])) continue;
    if (!(move == past.moves[hidden_[hidden]]) && !othersStand(past)) continue;
    take(past);
    return true;
  }
  return false;
}

// How many plies tell otherwise, as far as they are no more than `most`.
int Pasts::disagreements(const Past& past, const Known& newest, int most) {
  std::size_t plies = past.moves.size();
  int found = tellsSo(past, plies, newest) ? 0 : 1;
  for (std::size_t ply : doubts_) {
    if (found > most) break;
    if (ply < plies && !tellsSo(past, ply, known_[ply])) ++found;
  }
  return found;
}

// Makes hidden plies anew, each as that move which disagrees the least, until all agree with what
// is known (S. Minton et al., "Minimizing conflicts", Artificial Intelligence 58, 1992); now and
// then as any, as two may have to change places.
bool Pasts::settle(Past& past, const Known& newest, Stream& stream) {
  MoveList least;
  for (int step = 0; step < settleSteps; ++step) {
    std::size_t hidden = stream.below(static_cast<std::uint32_t>(hidden_.size()));
    if (hidden_[hidden] >= past.moves.size()) continue;
    int fewest = std::numeric_limits<int>::max();
    least.clear();
    bool any = stream.below(3) == 0;
    for (const Move& move : othersOf(past, hidden)) {
      changed_ = 0;
      if (!change(past, hidden, move)) return false;
      int found = any ? 1 : disagreements(past, newest, fewest);
      if (found > fewest || !othersStand(past)) continue;
      if (found < fewest) least.clear();
      fewest = found;
      least.push_back(move);
    }
    if (least.empty()) continue;
    changed_ = 0;
    change(past, hidden, least[stream.below(static_cast<std::uint32_t>(least.size()))]);
    take(past);
    if (fewest == 0) return true;
  }
  return false;
}

// Draws two hidden plies anew at once; nothing changes if that would not agree.
void Pasts::redrawPair(Past& past, Stream& stream) {
  auto count = static_cast<std::uint32_t>(hidden_.size());
  std::size_t first = stream.below(count), second = stream.below(count);
  if (first == second) return;
  if (first > second) std::swap(first, second);
  if (hidden_[second] >= past.moves.size()) return;
  changed_ = 0;
  for (std::size_t hidden : {first, second}) {
    const MoveList& others = othersOf(past, hidden);
    if (others.empty() ||
        !change(past, hidden, others[stream.below(static_cast<std::uint32_t>(others.size()))]))
      return;
  }
  if (agreesLater(past, nullptr, nullptr) && othersStand(past)) take(past);
}

// Goes from one past to another: some hidden plies are drawn anew, and pairs of them.
void Pasts::walk(Past& past, Stream& stream) {
  auto count = static_cast<std::uint32_t>(hidden_.size());
  for (std::uint32_t i = 0; i < std::min(count, walkedPlies); ++i)
    redraw(past, count <= walkedPlies ? i : stream.below(count), nullptr, stream);
  for (int i = 0; i < pairTries && !hidden_.empty(); ++i) redrawPair(past, stream);
}

// Plays a past from its beginning: does it agree with all that is known?
bool Pasts::replay(Past& past) {
  for (std::size_t ply = hidden_.empty() ? 0 : hidden_.front(); ply < past.moves.size(); ++ply) {
    const Move& move = past.moves[ply];
    if (!game_->isLegal(past.positions[ply], move) ||
        !looksLike(past.positions[ply], move, known_[ply]))
      return false;
    past.positions[ply + 1] = past.positions[ply];
    game_->apply(past.positions[ply + 1], move);
  }
  return true;
}

void Pasts::fill(Stream& stream, const StopFlag* stop) {
  auto survivors = static_cast<std::uint32_t>(pasts_.size());
  if (survivors == 0 || survivors * 2 > most_) return;  // enough to judge by
  while (pasts_.size() < most_ && !wantsStop(stop)) {
    Past past = pasts_[stream.below(survivors)];
    if (past.changes()) {
      walk(past, stream);
      if (!replay(past)) past = pasts_[stream.below(survivors)];
    }
    pasts_.push_back(std::move(past));
  }
}

// Some of the pasts walk on, so that those that come from the same one part.
void Pasts::stir(Stream& stream, const StopFlag* stop) {
  if (hidden_.empty() || pasts_.empty()) return;
  for (std::size_t i = 0; i < pasts_.size() / stirredShare && !wantsStop(stop); ++i) {
    Past& old = pasts_[stream.below(static_cast<std::uint32_t>(pasts_.size()))];
    if (!old.changes()) continue;
    Past past = old;
    walk(past, stream);
    if (replay(past)) old = std::move(past);
  }
}

// No past agrees with the newest ply: from those that agreed until then to some that do, with one
// change or with many.
void Pasts::mend(std::vector<Past>& dead, const Known& ply, Stream& stream, const StopFlag* stop) {
  if (!ply.own || hidden_.empty()) return;
  std::size_t enough = std::max<std::size_t>(2, most_ / 8);
  auto found = [&](Past& mended) {
    if (replay(mended) && follow(mended, ply, stream)) pasts_.push_back(std::move(mended));
  };
  for (std::size_t i = 0; i < dead.size() && pasts_.size() < enough && !wantsStop(stop); ++i)
    for (std::size_t hidden = 0; hidden < hidden_.size(); ++hidden) {
      Past mended = dead[i];
      if (redraw(mended, hidden, &ply, stream)) found(mended);
    }
  for (int i = 0; i < settleTries && pasts_.size() < 2 && !wantsStop(stop); ++i) {
    Past mended = dead[stream.below(static_cast<std::uint32_t>(dead.size()))];
    if (settle(mended, ply, stream)) found(mended);
  }
}

void Pasts::learn(const Knowledge& knowledge, Stream& stream, const StopFlag* stop) {
  const std::vector<Knowledge::Ply>& plies = knowledge.plies();
  bool goesOn = !pasts_.empty() && start_ == knowledge.start() && known_.size() <= plies.size() &&
                std::equal(known_.begin(), known_.end(), plies.begin(),
                           [](const Knowledge::Ply& one, const Knowledge::Ply& other) {
                             return one == other;
                           });
  if (!goesOn) {
    start_ = knowledge.start();
    known_.clear();
    hidden_.clear();
    alike_.clear();
    doubts_.clear();
    pasts_.assign(most_, Past{{}, {start_}, {}});
  }
  std::vector<Past> dead;
  for (std::size_t ply = known_.size(); ply < plies.size(); ++ply) {
    Known known = knownOf(plies[ply]);
    usual_.reset();
    dead.clear();
    std::size_t kept = 0;
    for (std::size_t i = 0; i < pasts_.size(); ++i) {
      if (follow(pasts_[i], known, stream)) {
        if (kept != i) std::swap(pasts_[kept], pasts_[i]);
        ++kept;
      }
    }
    for (std::size_t i = kept; i < pasts_.size(); ++i) dead.push_back(std::move(pasts_[i]));
    pasts_.resize(kept);
    if (pasts_.empty() && !dead.empty()) mend(dead, known, stream, stop);
    known_.push_back(known);
    bool tells = known.own && !known.told.empty();
    if (tells) doubts_.push_back(ply);
    fill(stream, stop);
    if (tells) stir(stream, stop);
    if (pasts_.empty()) return;
  }
}

}  // namespace ninepegs::play
