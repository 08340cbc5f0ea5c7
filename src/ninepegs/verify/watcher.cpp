#include "ninepegs/verify/watcher.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace ninepegs::verify {
namespace {

constexpr std::uint64_t closeLooks = 0x6c6f6f6b;    // the stream that draws them
constexpr std::uint64_t steeredGames = 0x73746565;  // ... and games that are steered
constexpr int longestSteered = 400;                 // plies; that is no fault
// Plies that can be played in the time that is needed for one move's text, and for one move and
// its image.
constexpr std::uint32_t textCost = 12, symmetryCost = 12;

}  // namespace

Watcher::Watcher(const Game& game, const Options& options)
    : game_(game),
      options_(options),
      inspector_(game),
      start_(game.start()),
      uses_(ruleLinesOf(game).size(), 0),
      live_(game.live(uses_)) {}

void Watcher::playout(std::uint64_t number) {
  Playing playing{number, Steer::uniform, {}, &seen_};
  try {
    play(playing);
  } catch (const RunawayRules& error) {
    note(runawayFault(error), playing);
  }
  finish();
}

Evidence Watcher::evidence() const {
  Evidence out = seen_;
  out.uses = uses_;
  lengths_.into(out.lengths);
  choices_.into(out.choices);
  for (const Ended& ended : ended_)
    if (ended.times > 0) out.outcomes[{ended.end, ended.winner, ended.name}] = ended.times;
  return out;
}

WayEvidence Watcher::steered(const Group& group, Evidence& faults) {
  WayEvidence out{group.way, 0, std::vector<std::uint64_t>(uses_.size(), 0), {}};
  std::vector<std::uint64_t> kept = uses_;
  std::fill(uses_.begin(), uses_.end(), 0);
  steering_.emplace(*live_, uses_, group.before);
  for (int i = 0; i < group.games; ++i) {
    Playing playing{group.number + static_cast<std::uint64_t>(i), group.way, {}, &faults};
    if (!group.from.empty()) playing.from = group.from[playing.number % group.from.size()];
    try {
      play(playing);
    } catch (const RunawayRules& error) {
      note(runawayFault(error), playing);
    } catch (const BadInput&) {  // more moves than can be listed: there are too many to weigh
    }
    faults_.clear();
    Outcome outcome = live_->outcome();
    if (outcome.kind == ResultKind::win || outcome.kind == ResultKind::draw)
      out.ends.insert(outcome.end);
    ++out.games;
  }
  steering_.reset();
  out.uses = uses_;
  std::copy(kept.begin(), kept.end(), uses_.begin());  // where it is: what counts knows where
  return out;
}

void Watcher::play(const Playing& playing) {
  bool steered = playing.way != Steer::uniform;
  Stream stream(options_.seed ^ (steered ? steeredGames : 0), playing.number);
  // Which positions are looked at closely is drawn by itself, so that the games stay the same.
  Stream look(options_.seed ^ closeLooks, playing.number);
  live_->setUp(playing.from ? *playing.from : start_);
  played_.clear();
  inspector_.position(*live_, faults_);
  if (!faults_.empty()) note(playing);
  while (!live_->ended()) {
    std::uint32_t moves = live_->moveCount();
    Inspector::Closeness close = closeness(playing, look, moves);
    if (moves == 0 || close.texts || close.symmetries > 0) {
      inspector_.moves(*live_, close, faults_);
      if (!steered && moves > 0 && close.symmetries > 0) ++seen_.symmetryTests;
      note(playing);
    }
    if (moves == 0) break;
    if (steered) {
      if (static_cast<int>(played_.size()) >= longestSteered) break;
      live_->listMoves(moves_);
      bool placed = playing.way == Steer::fromCase || playing.way == Steer::changed;
      Steer how = placed ? Steer::uniform : playing.way;
      played_.push_back(steering_->drawn(moves_, how, stream));
    } else {
      choices_.add(moves);
      if (static_cast<int>(played_.size()) >= options_.plyLimit) {
        ++endless_;
        note({FindingKind::endless, 0,
              fmt::format("a playout went on for {} plies without an end", options_.plyLimit)},
             playing);
        break;
      }
      played_.push_back(live_->moveAt(stream.below(moves)));
    }
    live_->play(played_.back());
    inspector_.position(*live_, faults_);
    if (!faults_.empty()) note(playing);
  }
}

// A look costs as much as many plies, the more the more moves there are: so many that all looks
// together cost about as much as the playouts.
Inspector::Closeness Watcher::closeness(const Playing& playing, Stream& look, std::uint32_t moves) {
  if (options_.closely || (playing.number == 0 && played_.empty())) return inspector_.closest();
  Inspector::Closeness close;
  close.texts = look.below(textCost * moves + 1) == 0;
  if (inspector_.symmetries() > 0 && look.below(symmetryCost * moves + 1) == 0) {
    close.firstSymmetry = look.below(static_cast<std::uint32_t>(inspector_.symmetries()));
    close.symmetries = 1;
  }
  return close;
}

void Watcher::finish() {
  faults_.clear();
  Outcome outcome = live_->outcome();
  if (outcome.kind == ResultKind::win || outcome.kind == ResultKind::draw) {
    auto same = [&](const Ended& one) {
      return one.end == outcome.end && one.winner == outcome.winner;
    };
    auto ended = std::find_if(ended_.begin(), ended_.end(), same);
    if (ended == ended_.end())
      ended = ended_.insert(ended,
                            {outcome.end, outcome.winner, game_.result(live_->position()).name, 0});
    ++ended->times;
  } else {
    ++seen_.unfinished;
  }
  lengths_.add(played_.size());
  ++seen_.playouts;
}

}  // namespace ninepegs::verify
