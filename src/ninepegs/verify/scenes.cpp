#include "ninepegs/verify/scenes.hpp"

#include <algorithm>
#include <unordered_map>

#include "ninepegs/verify/position_store.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {
namespace {

constexpr std::size_t scenesALine = 12;     // that stay because they show a line of the rules
constexpr int longest = 400;                // plies of a game
constexpr int longestBack = 24;             // ... back and forth
constexpr std::size_t listedAtMost = 4000;  // moves of a position, else it is no scene

class Finder {
 public:
  Finder(const Game& game, const SceneOptions& options)
      : game_(game),
        checks_(game.checks()),
        options_(options),
        uses_(ruleLinesOf(game).size(), 0),
        shown_(uses_.size(), 0),
        live_(game.live(uses_)),
        steering_(*live_, uses_) {}

  Scenes run() {
    StopScope stop(options_.stop);
    WorkScope work(limits::partSteps);
    try {
      all();
    } catch (const Stopped&) {
    } catch (const TooMuchWork&) {  // what was found will do
      out_.broken = true;
    }
    out_.broken = out_.broken || wantsStop(options_.stop);
    return std::move(out_);
  }

 private:
  void all() {
    keep_ = Stream(options_.seed ^ 0x7363656e65, 0);
    start_ = {game_.start(), Steer::uniform, 0, true, {}};
    meet(start_, true);
    std::vector<Scene> cases;
    if (checks_ != nullptr)
      for (const Example& one : checks_->examples()) fromCase(one, cases);
    for (int number = 0; number < options_.games; ++number)
      for (int steer = 0; steer < steers; ++steer) {
        out_.broken = tooMuchWork();
        if (out_.broken || wantsStop(options_.stop)) return;
        Steer how = static_cast<Steer>(steer);
        if (how == Steer::fromCase && cases.empty()) continue;
        if (how == Steer::back && !game_.remembersPositions()) continue;
        if (how == Steer::changed) continue;  // questions are of positions that games come to
        Scene from = start_;
        if (how == Steer::fromCase) from = cases[static_cast<std::size_t>(number) % cases.size()];
        from.steer = how;
        Stream stream(options_.seed, static_cast<std::uint64_t>(number * steers + steer));
        try {
          WorkScope game(limits::gameSteps / 4);
          play(from, stream);
        } catch (const BadInput&) {  // no end, too long, or too many moves: `check` tells of it
        }
      }
  }

  void fromCase(const Example& one, std::vector<Scene>& cases) {
    if (one.variant != game_.info().variant || !one.startsElsewhere) return;
    if (game_.ended(one.position)) return;
    Scene scene{one.position, Steer::fromCase, 0, false, {}};
    cases.push_back(scene);
    try {
      meet(scene, true);
    } catch (const BadInput&) {
    }
  }

  void play(Scene scene, Stream& stream) {
    MoveList moves;
    std::vector<std::vector<Cell>> cells;  // of the moves of a game back and forth
    bool back = scene.steer == Steer::back;
    for (int ply = 0; ply < (back ? longestBack : longest); ++ply) {
      live_->setUp(scene.position);
      if (live_->ended()) return;
      live_->listMoves(moves);
      if (moves.empty()) return;
      Move move = back ? drawnBack(scene.position, moves, cells, stream)
                       : steering_.drawn(moves, drawing(scene.steer), stream);
      if (back) {
        cells.push_back(game_.cellsOf(scene.position, move));
        scene.moves.push_back(move);
      }
      live_->play(move);
      live_->copyTo(scene.position);
      if (!back && checks_ != nullptr) scene.position = checks_->alone(scene.position);
      ++scene.plies;
      meet(scene, false);
    }
  }

  static Steer drawing(Steer steer) { return steer == Steer::fromCase ? Steer::uniform : steer; }

  // The side's last move taken back, if that is a move; else any.
  Move drawnBack(const Position& position, const MoveList& moves,
                 const std::vector<std::vector<Cell>>& cells, Stream& stream) const {
    if (cells.size() >= 2 && cells[cells.size() - 2].size() == 2 && stream.below(8) != 0)
      for (const Move& move : moves) {
        std::vector<Cell> own = game_.cellsOf(position, move);
        std::reverse(own.begin(), own.end());
        if (own == cells[cells.size() - 2]) return move;
      }
    return moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
  }

  // Looks at what can follow, and keeps the position if it shows what few do.
  void meet(const Scene& scene, bool always) {
    live_->setUp(scene.position);
    if (live_->outcome().kind != ResultKind::ongoing && !live_->outcome().claim) return;
    if (live_->outcome().kind == ResultKind::fault) return;
    std::uint64_t key =
        game_.remembersPositions() ? PositionStore::keyOf(scene.position.words) : live_->hash();
    if (!met_.insert({key, 0}).second) return;
    ++out_.met;
    MoveList moves;
    live_->listMoves(moves);
    if (moves.size() > listedAtMost) return;
    if (moves.empty()) {  // nobody can go on here: a few of these
      if (stalled_++ < scenesALine) keep(scene, out_.all.size());
      return;
    }
    std::fill(uses_.begin(), uses_.end(), 0);
    for (const Move& move : moves) {
      live_->play(move);
      live_->takeBack();
    }
    bool needed = false;
    for (std::size_t line = 0; line < uses_.size(); ++line)
      if (uses_[line] > 0 && shown_[line] < scenesALine) needed = true;
    if (always || needed) {
      for (std::size_t line = 0; line < uses_.size(); ++line) shown_[line] += uses_[line] > 0;
      keep(scene, out_.all.size());
      return;
    }
    // Of the rest, each has the same chance to stay.
    ++others_;
    if (places_.size() < options_.most) {
      if (keep(scene, out_.all.size())) places_.push_back(out_.all.size() - 1);
    } else if (std::uint32_t at = keep_.below(others_); at < places_.size()) {
      keep(scene, places_[at]);
    }
  }

  // The scene, as its text says it: what a case cannot say, such as how many plies were played, is
  // not part of it. False: so it is over.
  bool keep(Scene scene, std::size_t at) {
    if (scene.moves.empty() && !(scene.position == start_.position)) {
      try {
        scene.position = game_.readPosition(game_.positionText(scene.position), "scene");
      } catch (const BadInput&) {  // a game that reads none
      }
      Outcome outcome = game_.result(scene.position).outcome();
      if (outcome.kind != ResultKind::ongoing && !outcome.claim) return false;
    }
    if (at == out_.all.size()) out_.all.emplace_back();
    out_.all[at] = std::move(scene);
    return true;
  }

  const Game& game_;
  const GameChecks* checks_;
  const SceneOptions& options_;
  std::vector<std::uint64_t> uses_;
  std::vector<std::size_t> shown_;  // scenes that show each line
  std::unique_ptr<LivePosition> live_;
  Steering steering_;
  Stream keep_{0, 0};
  Scene start_;
  Scenes out_;
  std::unordered_map<std::uint64_t, int> met_;
  std::vector<std::size_t> places_;  // of scenes that may give way
  std::uint32_t others_ = 0;
  std::size_t stalled_ = 0;
};

}  // namespace

Scenes findScenes(const Game& game, const SceneOptions& options) {
  return Finder(game, options).run();
}

}  // namespace ninepegs::verify
