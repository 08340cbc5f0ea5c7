#include "ninepegs/verify/inspect.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace ninepegs::verify {

Fault runawayFault(const RunawayRules& error) {
  const Diagnostic& first = error.diagnostics().front();
  return {FindingKind::runaway, first.place.line,
          first.message + (first.hint.empty() ? "" : "; " + first.hint)};
}

void Inspector::position(const Position& after, const Position* before,
                         std::vector<Fault>& faults) const {
  Result result = game_.result(after);
  if (result.kind == ResultKind::fault) {
    faults.push_back({FindingKind::overwrite, result.line, result.name});
    return;
  }
  if (result.kind == ResultKind::draw) {
    for (const Result& other : game_.endsThatHold(after, before)) {
      if (other.kind != ResultKind::win) continue;
      faults.push_back(
          {FindingKind::drawOverWin, result.line,
           fmt::format("the draw \"{}\" was announced although \"{}\" (line {}) held as well; the "
                       "first end that holds decides, so the win must stand above the draw",
                       result.name, other.name, other.line)});
      break;
    }
  }
  for (std::size_t i = 0; i < invariants_.size(); ++i) {
    const Invariant& one = invariants_[i];
    for (int side = 0; side < 2; ++side) {
      std::int64_t value = game_.invariantValue(i, after, side);
      if (one.change == 0) {
        if (value != 0) continue;
        faults.push_back(
            {FindingKind::invariant, one.line,
             fmt::format("`{}` does not hold for {}", one.text, game_.info().sides[side])});
        break;
      }
      if (before == nullptr) continue;
      std::int64_t was = game_.invariantValue(i, *before, side);
      if (one.change > 0 ? value >= was : value <= was) continue;
      faults.push_back({FindingKind::invariant, one.line,
                        fmt::format("`{}` does not hold for {}: {} became {}", one.text,
                                    game_.info().sides[side], was, value)});
      break;
    }
  }
}

// What can follow a position: every next position, in a fixed order.
static std::vector<std::vector<std::uint64_t>> following(const Game& game, const Position& position,
                                                         const MoveList& moves) {
  std::vector<std::vector<std::uint64_t>> out;
  for (const Move& move : moves) {
    Position after = position;
    game.apply(after, move);
    out.push_back(game.identity(after));
  }
  return out;
}

void Inspector::symmetry(const Position& played, const MoveList& moves,
                         std::vector<Fault>& faults) const {
  Position position = game_.alone(played);  // earlier positions have no images
  std::vector<Position> afters;
  for (const Move& move : moves) {
    afters.push_back(position);
    game_.apply(afters.back(), move);
  }
  for (const Symmetry& one : symmetries_) {
    Position image = game_.mapped(position, one);
    MoveList imageMoves;
    game_.listMoves(image, imageMoves);
    std::vector<std::vector<std::uint64_t>> expected, got = following(game_, image, imageMoves);
    for (const Position& after : afters)
      expected.push_back(game_.identity(game_.mapped(after, one)));
    std::sort(expected.begin(), expected.end());
    std::sort(got.begin(), got.end());
    if (expected == got) continue;
    faults.push_back(
        {FindingKind::symmetry, 0,
         fmt::format("the rules change under {}: here {} moves are legal, in the mirrored "
                     "position {}, and they do not lead to mirrored positions",
                     one.name, moves.size(), imageMoves.size())});
    return;
  }
}

void Inspector::moves(const Position& position, const MoveList& moves, bool thorough,
                      std::vector<Fault>& faults) const {
  if (game_.ended(position)) return;
  if (moves.empty()) {
    faults.push_back({FindingKind::noEnd, 0,
                      fmt::format("{} cannot move and no end holds: the game can neither go on nor "
                                  "be over",
                                  game_.info().sides[game_.toMove(position)])});
    return;
  }
  if (!thorough) return;
  if (!symmetries_.empty()) symmetry(position, moves, faults);
  std::map<std::string, const Move*> texts;
  for (const Move& move : moves) {
    std::string text = game_.moveText(position, move);
    auto [it, added] = texts.insert({text, &move});
    if (added) continue;
    Position one = position, two = position;
    game_.apply(one, *it->second);
    game_.apply(two, move);
    if (game_.identity(one) == game_.identity(two)) continue;
    faults.push_back({FindingKind::ambiguous, 0,
                      fmt::format("two different moves have the text \"{}\": give them different "
                                  "texts with `written as`",
                                  text)});
    return;
  }
}

}  // namespace ninepegs::verify
