#include "ninepegs/verify/watcher.hpp"

#include <algorithm>

#include "ninepegs/verify/shorten.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {
namespace {

constexpr std::uint64_t closeLooks = 0x6c6f6f6b;    // the stream that draws them
constexpr std::uint64_t steeredGames = 0x73746565;  // ... and games that are steered
constexpr std::size_t followedOn = 4;               // times the limit of plies, to see why
constexpr int longestSteered = 400;                 // plies; that is no fault
// Plies that can be played in the time that is needed for one move's text, or for one move and its
// image.
constexpr std::uint32_t lookCost = 12;
// Behind so many playouts only one in a few is looked at: what they did not show shows seldom.
constexpr std::uint64_t looked = 1000, fewer = 8;

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
    WorkScope work(limits::gameSteps);
    play(playing);
  } catch (const RunawayRules& error) {
    ++endless_;
    note(runawayFault(error), playing);
  } catch (const TooMuchWork& error) {
    ++endless_;
    ++seen_.givenUp;
    faults_.clear();
    const Diagnostic& first = error.diagnostics().front();
    if (first.place.line > 0)
      note({FindingKind::growing, first.place.line, first.message}, playing);
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
  struct Kept {  // where it is: what counts knows where
    std::vector<std::uint64_t>& uses;
    std::vector<std::uint64_t> before = uses;
    ~Kept() { std::copy(before.begin(), before.end(), uses.begin()); }
  } kept{uses_};
  std::fill(uses_.begin(), uses_.end(), 0);
  steering_.emplace(*live_, uses_, group.before);
  WorkScope all(limits::gameSteps);
  for (int i = 0; i < group.games; ++i) {
    Playing playing{group.number + static_cast<std::uint64_t>(i), group.way, {}, &faults};
    if (!group.from.empty()) playing.from = group.from[playing.number % group.from.size()];
    try {
      play(playing);
    } catch (const TooMuchWork&) {
      break;
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
  return out;
}

void Watcher::play(const Playing& playing) {
  bool steered = playing.way != Steer::uniform;
  Stream stream(options_.seed ^ (steered ? steeredGames : 0), playing.number);
  // Which positions are looked at closely is drawn by itself, so that the games stay the same.
  Stream look(options_.seed ^ closeLooks, playing.number);
  live_->setUp(playing.from ? *playing.from : start_);
  played_.clear();
  plies_ = 0;
  inspector_.position(*live_, faults_);
  if (!faults_.empty()) note(playing);
  bool looks =
      options_.closely || steered || playing.number < looked || playing.number % fewer == 0;
  while (!live_->ended()) {
    std::uint32_t moves = live_->moveCount();
    Inspector::Closeness close;
    if (looks) close = closeness(playing, look, moves);
    if (moves == 0 || close.texts || close.symmetries > 0) {
      inspector_.moves(*live_, close, faults_);
      if (!steered && moves > 0 && close.symmetries > 0) ++seen_.symmetryTests;
      note(playing);
    }
    if (moves == 0) break;
    if (steered) {
      if (static_cast<int>(plies_) >= longestSteered) break;
      live_->listMoves(moves_);
      bool placed = playing.way == Steer::fromCase || playing.way == Steer::changed;
      Steer how = placed ? Steer::uniform : playing.way;
      played_.push_back(steering_->drawn(moves_, how, stream));
      ++plies_;
      live_->play(played_.back());
    } else {
      choices_.add(moves);
      if (static_cast<int>(plies_) >= options_.plyLimit) {
        ++endless_;
        ++seen_.tooLong;
        atTheLimit(playing);
        break;
      }
      ++plies_;
      live_->playDrawn(stream);
    }
    inspector_.position(*live_, faults_);
    if (!faults_.empty()) note(playing);
  }
}

// Why does it go on? Looked at in the first of them only: later ones would not be kept.
void Watcher::atTheLimit(const Playing& playing) {
  auto known = [&](FindingKind kind) { return !seen_.wants({kind, 0, ""}, playing.number); };
  if (known(FindingKind::endless) && known(FindingKind::growing)) return;
  try {
    std::size_t limit = plies_;
    std::vector<Move> moves = drawnAgain(playing.number, limit * followedOn);
    Endless way = endlessWay(game_, moves, limit);
    if (!way.kind || !playing.seen->wants({*way.kind, 0, ""}, playing.number)) return;
    playing.seen->see({*way.kind, 0, way.message},
                      {playing.number, "", std::move(moves), playing.way, playing.from});
  } catch (const BadInput&) {  // it takes too long to be told
  }
}

void Watcher::note(const Fault& fault, const Playing& playing) {
  if (!playing.seen->wants(fault, playing.number)) return;  // its moves are not needed
  std::vector<Move> moves =
      playing.way == Steer::uniform ? drawnAgain(playing.number, plies_) : played_;
  playing.seen->see(fault, {playing.number, "", std::move(moves), playing.way, playing.from});
}

// The first moves of this uniform game; the last may be one whose rules come to no end.
std::vector<Move> Watcher::drawnAgain(std::uint64_t number, std::size_t plies) const {
  std::vector<Move> out;
  Stream stream(options_.seed, number);
  std::unique_ptr<LivePosition> live = game_.live();
  live->setUp(start_);
  while (out.size() < plies && !live->ended()) {
    std::uint32_t moves = live->moveCount();
    if (moves == 0) break;
    out.push_back(live->moveAt(stream.below(moves)));
    if (out.size() < plies) live->play(out.back());
  }
  return out;
}

// A look costs as much as many plies, the more the more moves there are: so many that all looks
// together cost about as much as the playouts, and later a part of that.
Inspector::Closeness Watcher::closeness(const Playing& playing, Stream& look, std::uint32_t moves) {
  if (options_.closely || (playing.number == 0 && plies_ == 0)) return inspector_.closest();
  Inspector::Closeness close;
  std::uint32_t drawn = look.below(lookCost * std::min(moves, 1u << 20) + 2);
  close.texts = drawn == 0;
  if (drawn == 1 && inspector_.symmetries() > 0) {
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
  lengths_.add(plies_);
  ++seen_.playouts;
}

}  // namespace ninepegs::verify
