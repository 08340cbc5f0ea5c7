#include "ninepegs/verify/views.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/parallel.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {
namespace {

// Is all that a side knows the same?
bool looksSame(const Game& game, const Position& one, const Position& two, int viewer) {
  if (one == two) return true;
  if (resultText(game, game.result(one)) != resultText(game, game.result(two))) return false;
  View first = game.viewFor(one, viewer), second = game.viewFor(two, viewer);
  return first.words == second.words && first.marks == second.marks &&
         (first.shown == second.shown ||
          game.positionText(first.shown) == game.positionText(second.shown));
}

class Pair {
 public:
  Pair(const Game& game, int viewer, Stream stream, int attempts, ViewTest& test)
      : game_(game),
        viewer_(viewer),
        stream_(stream),
        attempts_(attempts),
        test_(test),
        one_(game.start()),
        two_(one_) {}

  // Goes on while the two games look the same; false if a leak was found.
  bool play() {
    for (int ply = 0; ply < limits::plies && !game_.ended(one_); ++ply) {
      bool own = game_.toMove(one_) == viewer_;
      if (!(own ? ownMove() : otherMove())) return test_.findings.empty();
    }
    return true;
  }

 private:
  bool leak(const std::string& message) {
    Finding finding;
    finding.kind = FindingKind::leak;
    finding.message = message;
    finding.moves = played_;
    finding.position = game_.positionText(one_);
    finding.last = one_;
    test_.findings.push_back(std::move(finding));
    return false;
  }
  const Move& any(const MoveList& moves) {
    return moves[stream_.below(static_cast<std::uint32_t>(moves.size()))];
  }

  // The same move in both games, which must both have it.
  bool ownMove() {
    game_.listMoves(one_, moves_);
    game_.listMoves(two_, others_);
    bool listedAlike = moves_ == others_;
    if (!(one_ == two_)) ++test_.pairs;
    if (!listedAlike) {
      std::vector<std::string> first = moveTexts(game_, one_), second = moveTexts(game_, two_);
      if (first != second)
        return leak(fmt::format(
            "{} has {} moves here and {} in a position that looks the same to it: {}",
            game_.info().sides[viewer_], first.size(), second.size(), game_.positionText(two_)));
    }
    for (int attempt = 0; attempt < attempts_ && !moves_.empty(); ++attempt) {
      Move first = any(moves_), second = first;
      if (!listedAlike) second = matchingMoves(game_, two_, game_.moveText(one_, first)).front();
      if (make(first, second, true)) return true;
      if (!test_.findings.empty()) return false;
    }
    return false;
  }

  // Any move, and one that looks the same in the other game.
  bool otherMove() {
    game_.listMoves(one_, moves_);
    game_.listMoves(two_, others_);
    if (moves_.empty() || others_.empty()) return false;
    Move move = any(moves_);
    std::string seen = game_.textsOf(one_, move).seen;
    auto alike = [&](const Move& other) { return game_.textsOf(two_, other).seen == seen; };
    for (int attempt = 0; attempt < 8; ++attempt) {
      const Move& other = any(others_);
      if (alike(other)) return make(move, other, false);
    }
    auto same = std::find_if(others_.begin(), others_.end(), alike);
    return same != others_.end() && make(move, *same, false);
  }

  // Plays on if the two still look the same then; else all is as before.
  bool make(const Move& first, const Move& second, bool own) {
    MoveTexts told = game_.textsOf(one_, first), alsoTold = game_.textsOf(two_, second);
    Position one = one_, two = two_;
    game_.apply(one, first);
    game_.apply(two, second);
    if (!looksSame(game_, one, two, viewer_)) return false;
    played_.push_back(told.text);
    one_ = std::move(one);
    two_ = std::move(two);
    auto differs = [&](const std::string& here, const std::string& there) {
      return leak(fmt::format(
          "{} is told \"{}\" here and \"{}\" in a position that looks the same to it: {}",
          game_.info().sides[viewer_], here, there, game_.positionText(two_)));
    };
    if (own && told.text != alsoTold.text) return differs(told.text, alsoTold.text);
    if (told.told != alsoTold.told)
      return differs(joined(told.told, ", "), joined(alsoTold.told, ", "));
    return true;
  }

  const Game& game_;
  int viewer_;
  Stream stream_;
  int attempts_;  // at a move of the viewer that looks the same in both
  ViewTest& test_;
  Position one_, two_;
  MoveList moves_, others_;
  std::vector<std::string> played_;
};

constexpr std::uint64_t gamesAPiece = 20, followedFar = 5;

}  // namespace

ViewTest testViews(const Game& game, std::uint64_t games, const ViewOptions& options) {
  std::uint64_t pieces = (games + gamesAPiece - 1) / gamesAPiece;
  std::vector<ViewTest> tests(pieces);
  auto play = [&](std::uint64_t piece, int) {
    std::uint64_t end = std::min(games, (piece + 1) * gamesAPiece);
    for (std::uint64_t number = piece * gamesAPiece; number < end; ++number)
      for (int viewer = 0; viewer < 2; ++viewer) {
        if (wantsStop(options.stop)) return;
        Stream stream(options.seed, 2 * number + static_cast<std::uint64_t>(viewer));
        int attempts = number % (gamesAPiece * followedFar) == 0 ? 10 : 1;
        try {
          WorkScope work(limits::gameSteps);
          if (!Pair(game, viewer, stream, attempts, tests[piece]).play()) return;
        } catch (const TooMuchWork&) {
          tests[piece].broken = true;
          return;
        } catch (const RunawayRules&) {  // playouts find it and tell of it
        }
      }
  };
  inParallel(pieces, options.threads, play, options.stop);
  ViewTest all;
  all.broken = wantsStop(options.stop);
  for (ViewTest& test : tests) {
    all.pairs += test.pairs;
    all.broken = all.broken || test.broken;
    if (all.findings.empty()) all.findings = std::move(test.findings);
  }
  return all;
}

}  // namespace ninepegs::verify
