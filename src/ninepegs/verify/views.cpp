#include "ninepegs/verify/views.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/game/move_text.hpp"

namespace ninepegs::verify {
namespace {

// Everything that a side knows, as one value.
std::string viewKey(const Game& game, const Position& position, int viewer) {
  View view = game.viewOf(position, viewer);
  std::string key = game.positionText(view.shown);
  for (const View::Mark& mark : view.marks)
    key += fmt::format("|{}{}{}", mark.letter, mark.board, mark.cells.to_string());
  for (const std::string& word : view.words) key += "|" + word;
  return key + "|" + resultText(game, game.result(position));
}

class Pair {
 public:
  Pair(const Game& game, int viewer, Stream stream, ViewTest& test)
      : game_(game),
        viewer_(viewer),
        stream_(stream),
        test_(test),
        one_(game.start()),
        two_(one_) {}

  // False if a leak was found.
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

  // The same move in both games, which must both have it.
  bool ownMove() {
    std::vector<std::string> first = moveTexts(game_, one_), second = moveTexts(game_, two_);
    if (!(one_ == two_)) ++test_.pairs;
    if (first != second)
      return leak(fmt::format(
          "{} has {} moves here and {} in a position that looks the same to it: {}",
          game_.info().sides[viewer_], first.size(), second.size(), game_.positionText(two_)));
    if (first.empty()) return false;
    const std::string& text = first[stream_.below(static_cast<std::uint32_t>(first.size()))];
    return make(matchingMoves(game_, one_, text).front(), matchingMoves(game_, two_, text).front());
  }

  // Any move, and one that looks the same in the other game.
  bool otherMove() {
    MoveList moves, others, same;
    game_.listMoves(one_, moves);
    game_.listMoves(two_, others);
    if (moves.empty() || others.empty()) return false;
    const Move& move = moves[stream_.below(static_cast<std::uint32_t>(moves.size()))];
    std::string seen = game_.textsOf(one_, move).seen;
    // Of many moves, some are enough to choose from.
    std::size_t from = stream_.below(static_cast<std::uint32_t>(others.size()));
    for (std::size_t k = 0; k < others.size() && same.empty(); ++k) {
      const Move& other = others[(from + k) % others.size()];
      if (game_.textsOf(two_, other).seen == seen) same.push_back(other);
    }
    return !same.empty() && make(move, same.front());
  }

  // Goes on while the two look the same.
  bool make(const Move& first, const Move& second) {
    MoveTexts told = game_.textsOf(one_, first), alsoTold = game_.textsOf(two_, second);
    played_.push_back(told.text);
    game_.apply(one_, first);
    game_.apply(two_, second);
    if (viewKey(game_, one_, viewer_) != viewKey(game_, two_, viewer_)) return false;
    if (told.told == alsoTold.told) return true;
    return leak(
        fmt::format("{} is told \"{}\" here and \"{}\" in a position that looks the same to it: {}",
                    game_.info().sides[viewer_], joined(told.told, ", "),
                    joined(alsoTold.told, ", "), game_.positionText(two_)));
  }

  const Game& game_;
  int viewer_;
  Stream stream_;
  ViewTest& test_;
  Position one_, two_;
  std::vector<std::string> played_;
};

}  // namespace

ViewTest testViews(const Game& game, std::uint64_t games, std::uint64_t seed,
                   const StopFlag* stop) {
  ViewTest test;
  for (std::uint64_t number = 0; number < games; ++number)
    for (int viewer = 0; viewer < 2; ++viewer)
      if (wantsStop(stop) ||
          !Pair(game, viewer, Stream(seed, 2 * number + static_cast<std::uint64_t>(viewer)), test)
               .play())
        return test;
  return test;
}

}  // namespace ninepegs::verify
