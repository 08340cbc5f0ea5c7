#include "ninepegs/verify/symmetries.hpp"

#include <algorithm>
#include <map>
#include <optional>

#include "ninepegs/verify/inspect.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {
namespace {

constexpr std::uint64_t symmetryGames = 0x73796d6d;  // the stream that draws them
constexpr int longest = 400;                         // plies of a game
constexpr std::uint64_t plainAfter = 20;             // positions, before one is said to fail
constexpr std::uint64_t nearlyAtMost = 5;            // fails in one position of so many, or fewer
constexpr std::size_t drawnAGame = 2;                // positions, beside the one before the end

class Trial {
 public:
  Trial(const Game& game, const SymmetryTrialOptions& options)
      : game_(game), options_(options), live_(game.live()), budget_(options.moves) {
    std::vector<Symmetry> named = game.checks()->symmetries(), unnamed;
    for (Symmetry& one : game.checks()->possibleSymmetries())
      if (std::none_of(named.begin(), named.end(), [&](const Symmetry& other) {
            return other.image == one.image && other.exchange == one.exchange;
          }))
        unnamed.push_back(std::move(one));
    inspector_.emplace(game, unnamed);
    for (Symmetry& one : unnamed)
      out_.all.push_back({std::move(one), Stands::unknown, 0, 0, false, "", {}, {}});
  }

  SymmetryTrial run() {
    WorkScope work(limits::partSteps);
    for (int number = 0; number < options_.games && !enough(); ++number) {
      Attempt how = attempt([&] { playOne(static_cast<std::uint64_t>(number)); });
      if (how == Attempt::done) ++out_.games;
      out_.broken = how == Attempt::over;
      if (out_.broken) break;
    }
    out_.broken = out_.broken || wantsStop(options_.stop);
    StopScope undisturbed(nullptr);
    WorkScope more(limits::partSteps);
    for (Tried& one : out_.all) finish(one);
    settleStart();
    return std::move(out_);
  }

 private:
  bool enough() const { return budget_ == 0 || wantsStop(options_.stop); }

  // A game, of which the position before the last move and a few others are looked at.
  void playOne(std::uint64_t number) {
    Stream stream(options_.seed ^ symmetryGames, number);
    live_->setUp(game_.start());
    played_.clear();
    while (!live_->ended() && static_cast<int>(played_.size()) < longest) {
      std::uint32_t moves = live_->moveCount();
      if (moves == 0) break;
      played_.push_back(live_->moveAt(stream.below(moves)));
      live_->play(played_.back());
    }
    if (played_.empty()) return;
    std::vector<std::size_t> plies = {played_.size() - 1};
    for (std::size_t i = 0; i < drawnAGame; ++i)
      plies.push_back(stream.below(static_cast<std::uint32_t>(played_.size())));
    std::sort(plies.begin(), plies.end());
    plies.erase(std::unique(plies.begin(), plies.end()), plies.end());
    while (live_->plies() > 0) {
      live_->takeBack();
      auto ply = static_cast<std::size_t>(live_->plies());
      if (std::binary_search(plies.begin(), plies.end(), ply)) look();
    }
  }

  void look() {
    for (std::size_t i = 0; i < out_.all.size() && !enough(); ++i) {
      Tried& one = out_.all[i];
      if (one.stands == Stands::fails) continue;
      budget_ -= std::min<std::uint64_t>(budget_, 2 * live_->moveCount());
      faults_.clear();
      inspector_->moves(*live_, {false, i, 1}, faults_);
      ++one.positions;
      if (one.stands == Stands::unknown) one.stands = Stands::holds;
      for (const Fault& fault : faults_)
        if (fault.kind == FindingKind::symmetry) failedAt(one, fault);
    }
  }

  void failedAt(Tried& one, const Fault& fault) {
    auto plies = static_cast<std::size_t>(live_->plies());
    ++one.failed;
    if (one.failed == 1 || plies < moves_[&one].size()) {
      one.message = fault.message;
      one.position = live_->position();
      moves_[&one].assign(played_.begin(), played_.begin() + live_->plies());
    }
    if (one.positions >= plainAfter && one.failed * nearlyAtMost > one.positions)
      one.stands = Stands::fails;
  }

  void finish(Tried& one) {
    if (one.failed > 0 && one.stands == Stands::holds)
      one.stands = one.failed * nearlyAtMost > one.positions ? Stands::fails : Stands::nearly;
    if (one.stands != Stands::nearly) {
      one.message.clear();
    } else {
      Position position = game_.start();
      for (const Move& move : moves_[&one]) {
        one.moves.push_back(game_.moveText(position, move));
        game_.apply(position, move);
      }
    }
    one.start = startHolds(one.symmetry);
  }

  // The image of the start, with the same side to move.
  bool startHolds(const Symmetry& symmetry) const {
    const GameChecks& checks = *game_.checks();
    Position start = checks.alone(game_.start());
    std::string text = game_.positionText(start);
    std::string image = game_.positionText(checks.mapped(start, symmetry));
    for (std::string* one : {&text, &image})
      for (const std::string& side : game_.info().sides)
        for (const char* says : {" to move", " moved last"})
          if (std::size_t at = one->find("; " + side + says); at != std::string::npos)
            one->erase(at, 2 + side.size() + std::string(says).size());
    return text == image;
  }

  void settleStart() {
    bool alike = false, start = false;
    auto count = [&](const Symmetry& symmetry, bool startIs) {
      if (!symmetry.exchange) return;
      alike = true;
      start = start || startIs;
    };
    for (const Tried& one : out_.all)
      if (one.stands == Stands::holds && one.positions >= plainAfter)
        count(one.symmetry, one.start);
    for (const Symmetry& one : game_.checks()->symmetries()) count(one, startHolds(one));
    out_.unevenStart = alike && !start;
  }

  const Game& game_;
  const SymmetryTrialOptions& options_;
  std::unique_ptr<LivePosition> live_;
  std::optional<Inspector> inspector_;
  std::uint64_t budget_;
  SymmetryTrial out_;
  std::map<const Tried*, std::vector<Move>> moves_;  // to where each fails soonest
  std::vector<Move> played_;
  std::vector<Fault> faults_;
};

}  // namespace

SymmetryTrial trySymmetries(const Game& game, const SymmetryTrialOptions& options) {
  if (game.checks() == nullptr) return {};
  return Trial(game, options).run();
}

}  // namespace ninepegs::verify
