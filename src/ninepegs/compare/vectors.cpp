#include "ninepegs/compare/vectors.hpp"

#include <algorithm>
#include <map>
#include <set>
#include <unordered_set>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/compare/other_game.hpp"
#include "ninepegs/sheet/mutation/mutations.hpp"
#include "ninepegs/verify/steering.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::compare {
namespace {

constexpr int steersDrawn = 4, longest = 300;
constexpr int times = 3;                       // that each thing is shown
constexpr std::uint64_t movesLooked = 12'000;  // of all candidates together, about

// What is told of a position: how it stands, and how it stands after each move.
struct Told {
  Standing here;
  std::vector<std::pair<std::string, Standing>> after;  // by the move's text, in order
};

bool same(const Standing& a, const Standing& b) {
  return a.turn == b.turn && a.result == b.result && a.board == b.board && a.moves == b.moves;
}
bool same(const Told& a, const Told& b) {
  if (!same(a.here, b.here) || a.after.size() != b.after.size()) return false;
  for (std::size_t i = 0; i < a.after.size(); ++i)
    if (a.after[i].first != b.after[i].first || !same(a.after[i].second, b.after[i].second))
      return false;
  return true;
}

Told toldOf(const Game& game, const Position& position) {
  Told out;
  out.here = standingOf(game, position);
  MoveList moves;
  game.listMoves(position, moves);
  for (const Move& move : moves) {
    Position after = position;
    game.apply(after, move);
    out.after.emplace_back(game.moveText(position, move), briefStandingOf(game, after));
  }
  std::stable_sort(out.after.begin(), out.after.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  return out;
}

struct Candidate {
  Vector vector;
  std::vector<std::string> texts;  // of its moves
  Told told;
  std::vector<std::size_t> shows;  // features, see Chooser
};

class Chooser {
 public:
  Chooser(const SheetGame& game, const VectorOptions& options)
      : game_(game),
        options_(options),
        uses_(ruleLinesOf(game).size(), 0),
        live_(game.live(uses_)) {}

  VectorSet run() {
    try {
      StopScope stop(options_.stop);
      WorkScope work(limits::partSteps);
      collect();
    } catch (const Stopped&) {
    }
    out_.complete = out_.complete && !wantsStop(options_.stop);
    fewer();
    study();
    out_.complete = out_.complete && !wantsStop(options_.stop);
    choose();
    return std::move(out_);
  }

 private:
  // A feature is a number: first the lines, then ends by winner, kinds by side, then mutants.
  std::size_t ofEnd(const Outcome& outcome) const {
    return uses_.size() + static_cast<std::size_t>(outcome.end) * 3 +
           static_cast<std::size_t>(outcome.winner + 1);
  }
  std::size_t ofKind(const Piece& piece) const {
    return uses_.size() + game_.info().ends.size() * 3 + static_cast<std::size_t>(piece.kind) * 3 +
           static_cast<std::size_t>(piece.side + 1);
  }
  std::size_t ofMutant(std::size_t number) const {
    return uses_.size() + (game_.info().ends.size() + game_.info().kinds.size()) * 3 + number;
  }

  void collect() {
    for (int number = 0; number < options_.games * steersDrawn; ++number) {
      if (wantsStop(options_.stop)) return;
      if (tooMuchWork()) {
        out_.complete = false;
        return;
      }
      try {
        WorkScope game(limits::gameSteps / 4);
        playOut(static_cast<std::uint64_t>(number));
      } catch (const BadInput&) {  // no end, or too many moves: `check` tells of it
      }
    }
  }

  void playOut(std::uint64_t number) {
    Stream stream(options_.seed, number);
    verify::Steering steering(*live_, uses_);
    live_->setUp(game_.start());
    std::fill(uses_.begin(), uses_.end(), 0);
    std::vector<Move> moves;
    MoveList legal;
    for (int ply = 0; ply < longest; ++ply) {
      meet(moves, live_->ended());
      if (live_->ended()) return;
      live_->listMoves(legal);
      if (legal.empty()) return;
      std::vector<std::uint64_t> before(uses_.begin(), uses_.end());
      Move move = steering.drawn(legal, static_cast<verify::Steer>(number % steersDrawn), stream);
      std::copy(before.begin(), before.end(), uses_.begin());  // it tried others
      live_->play(move);
      moves.push_back(move);
    }
  }

  // Keeps the position if it shows a line, an end or a kind for the first times, else now and then.
  void meet(const std::vector<Move>& moves, bool over) {
    constexpr int showings = 6;
    if (live_->outcome().kind == ResultKind::fault) return;
    if (!met_.insert(live_->hash()).second) return;
    std::vector<std::size_t> shows;
    for (std::size_t line = 0; line < uses_.size(); ++line)
      if (uses_[line] > 0) shows.push_back(line);
    Position position = live_->position();
    if (over) shows.push_back(ofEnd(live_->outcome()));
    const Geometry& board = game_.board();
    for (int whose = 0; whose < game_.boards(); ++whose)
      for (Cell cell = 0; cell < board.size(); ++cell)
        if (board.has(cell))
          if (std::optional<Piece> piece = game_.pieceAt(position, cell, whose))
            shows.push_back(ofKind(*piece));
    std::sort(shows.begin(), shows.end());
    shows.erase(std::unique(shows.begin(), shows.end()), shows.end());
    bool needed = false;
    for (std::size_t one : shows) {
      if (one >= shown_.size()) shown_.resize(one + 1, 0);
      needed = needed || shown_[one]++ < showings;
    }
    Candidate made;
    made.vector = {moves, position};
    made.shows = std::move(shows);
    if (needed) {
      all_.push_back(std::move(made));
      return;
    }
    ++others_;  // of the rest, each has the same chance to stay
    if (places_.size() < options_.candidates) {
      places_.push_back(all_.size());
      all_.push_back(std::move(made));
    } else if (std::uint32_t at = keep_.below(others_); at < places_.size()) {
      all_[places_[at]] = std::move(made);
    }
  }

  // Leaves out some of those that nothing needs, where there are too many moves to look at.
  void fewer() {
    std::uint64_t moves = 0;
    std::vector<bool> spare(all_.size(), false);
    for (std::size_t place : places_) spare[place] = true;
    std::vector<Candidate> kept;
    for (bool looked : {false, true})
      for (std::size_t i = 0; i < all_.size(); ++i) {
        if (spare[i] != looked || (looked && moves > movesLooked)) continue;
        moves += game_.countMoves(all_[i].vector.position) + 1;
        kept.push_back(std::move(all_[i]));
      }
    all_ = std::move(kept);
  }

  // What each mutant says of each candidate.
  void study() {
    inParallel(all_.size(), options_.threads, [&](std::uint64_t number, int) {
      Candidate& one = all_[number];
      Position at = game_.start();
      StopScope undisturbed(nullptr);  // it is short, and what follows needs it
      for (const Move& move : one.vector.moves) {
        one.texts.push_back(game_.moveText(at, move));
        game_.apply(at, move);
      }
      one.told = toldOf(game_, one.vector.position);
    });
    std::vector<rules::Mutation> mutations = rules::mutationsOf(game_.rules());
    std::vector<std::vector<bool>> seen(mutations.size());
    std::vector<char> playable(mutations.size(), 0);
    inParallel(
        mutations.size(), options_.threads,
        [&](std::uint64_t number, int) {
          std::shared_ptr<const SheetGame> mutant;
          try {
            mutant = SheetGame::fromRules(rules::mutated(game_.rules(), mutations[number]));
          } catch (const BadInput&) {
            return;
          }
          WorkScope work(limits::mutantSteps);
          for (const Candidate& one : all_) {
            if (wantsStop(options_.stop) || tooMuchWork()) return;
            seen[number].push_back(differs(*mutant, one));
          }
          playable[number] = 1;
        },
        options_.stop);
    for (std::size_t number = 0; number < mutations.size(); ++number) {
      if (playable[number] == 0) continue;
      ++out_.mutants;
      bool any = false;
      for (std::size_t i = 0; i < all_.size(); ++i) {
        if (!seen[number][i]) continue;
        all_[i].shows.push_back(ofMutant(number));
        any = true;
      }
      out_.silent += any ? 0 : 1;
    }
  }

  // Does whoever plays by the mutant see it in the vector?
  static bool differs(const SheetGame& mutant, const Candidate& one) {
    try {
      Position at = mutant.start();
      MoveList moves;
      for (const std::string& text : one.texts) {
        mutant.listMoves(at, moves);
        auto same = std::find_if(moves.begin(), moves.end(), [&](const Move& move) {
          return mutant.moveText(at, move) == text;
        });
        if (same == moves.end()) return true;
        mutant.apply(at, *same);
      }
      return !same(toldOf(mutant, at), one.told);
    } catch (const BadInput&) {  // it comes to no end
      return true;
    }
  }

  // Again and again the candidate that shows most that is not shown often enough yet; of equal ones
  // the shortest.
  void choose() {
    std::map<std::size_t, int> shown;
    std::vector<bool> taken(all_.size(), false);
    while (out_.vectors.size() < options_.most) {
      std::size_t best = all_.size(), most = 0;
      for (std::size_t i = 0; i < all_.size(); ++i) {
        if (taken[i]) continue;
        auto fresh = static_cast<std::size_t>(
            std::count_if(all_[i].shows.begin(), all_[i].shows.end(),
                          [&](std::size_t one) { return shown[one] < times; }));
        if (fresh == 0 || fresh < most) continue;
        if (fresh == most && all_[i].texts.size() >= all_[best].texts.size()) continue;
        best = i, most = fresh;
      }
      if (best == all_.size()) break;
      taken[best] = true;
      for (std::size_t one : all_[best].shows) ++shown[one];
      out_.vectors.push_back(all_[best].vector);
    }
    out_.lines = uses_.size();
    out_.ends = game_.info().ends.size();
    std::set<std::size_t> ends;
    for (const auto& [one, many] : shown) {
      if (many == 0) continue;
      if (one < uses_.size()) ++out_.linesUsed;
      if (one >= uses_.size() && one < uses_.size() + out_.ends * 3)
        ends.insert((one - uses_.size()) / 3);
      if (one >= ofMutant(0)) ++out_.noticed;
    }
    out_.endsReached = ends.size();
  }

  const SheetGame& game_;
  const VectorOptions& options_;
  std::vector<std::uint64_t> uses_;
  std::unique_ptr<LivePosition> live_;
  std::vector<Candidate> all_;
  std::vector<int> shown_;           // how many candidates show each feature
  std::vector<std::size_t> places_;  // of candidates that may give way
  std::uint32_t others_ = 0;
  Stream keep_{0x766563746f72, 0};
  std::unordered_set<std::uint64_t> met_;
  VectorSet out_;
};

}  // namespace

VectorSet makeVectors(const SheetGame& game, const VectorOptions& options) {
  return Chooser(game, options).run();
}

}  // namespace ninepegs::compare
