#include "ninepegs/verify/inspect.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <unordered_map>

#include "ninepegs/base/text.hpp"

namespace ninepegs::verify {

Fault runawayFault(const RunawayRules& error) {
  const Diagnostic& first = error.diagnostics().front();
  return {FindingKind::runaway, first.place.line,
          first.message + (first.hint.empty() ? "" : "; " + first.hint)};
}

void Inspector::position(LivePosition& live, std::vector<Fault>& faults) const {
  ResultKind kind = live.ended() ? live.outcome().kind : ResultKind::ongoing;
  if (kind == ResultKind::fault) {
    Result result = game_.result(live.position());
    faults.push_back({FindingKind::overwrite, result.line, result.name});
    return;
  }
  if (kind == ResultKind::draw) {
    for (const Result& other : live.endsThatHold()) {
      if (other.kind != ResultKind::win) continue;
      Result result = game_.result(live.position());
      faults.push_back(
          {FindingKind::drawOverWin, result.line,
           fmt::format("the draw \"{}\" was announced although \"{}\" (line {}) held as well; the "
                       "first end that holds decides, so the win must stand above the draw",
                       result.name, other.name, other.line)});
      break;
    }
  }
  if (invariants_.empty()) return;
  std::span<const std::int64_t> before;
  if (live.plies() > 0 && changes_) before = live.invariantsBefore();
  std::span<const std::int64_t> values = live.invariantValues();
  for (std::size_t i = 0; i < invariants_.size(); ++i) {
    const Invariant& one = invariants_[i];
    for (int side = 0; side < 2; ++side) {
      std::int64_t value = values[2 * i + static_cast<std::size_t>(side)];
      if (one.change == 0) {
        if (value != 0) continue;
        faults.push_back(
            {FindingKind::invariant, one.line,
             fmt::format("`{}` does not hold for {}", one.text, game_.info().sides[side])});
        break;
      }
      if (before.empty()) continue;
      std::int64_t was = before[2 * i + static_cast<std::size_t>(side)];
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

// The parts of a position's text by name: pieces, each mark and number, the turn, and the result.
static std::map<std::string, std::string> partsOf(const Game& game, const Position& position) {
  std::map<std::string, std::string> out;
  std::string text = game.positionText(position);
  for (std::size_t from = 0; from != std::string::npos;) {
    std::size_t to = text.find("; ", from);
    std::string part = text.substr(from, to == std::string::npos ? to : to - from);
    std::size_t blank = part.find(' ');
    std::string name = from == 0 || part.rfind("picture ", 0) == 0 ? "the board"
                       : part.ends_with(" to move")                ? "the turn"
                       : part.ends_with(" moved last")             ? "who moved last"
                                                       : "\"" + part.substr(0, blank) + "\"";
    out[name] += part + ";";
    from = to == std::string::npos ? to : to + 2;
  }
  out["the result"] = resultText(game, game.result(position));
  return out;
}

// What differs between a position and the nearest of those that the moves lead to, in words.
static std::string differing(const Game& game, const Position& wanted, const Position& from,
                             const MoveList& moves) {
  std::map<std::string, std::string> expected = partsOf(game, wanted);
  std::vector<std::string> best;
  for (const Move& move : moves) {
    Position after = from;
    game.apply(after, move);
    std::map<std::string, std::string> got = partsOf(game, after);
    std::vector<std::string> names;
    for (const auto& [name, text] : expected)
      if (got[name] != text) names.push_back(name);
    for (const auto& [name, text] : got)
      if (expected.count(name) == 0) names.push_back(name);
    if (!names.empty() && (best.empty() || names.size() < best.size())) best = names;
  }
  if (best.empty()) return "something that the text of a position does not show is not the same";
  return joined(best, " and ") + (best.size() == 1 ? " is not the same" : " are not the same");
}

// Do the moves lead to the mirror images of what they lead to here? By hashes: where they say no,
// it is looked at once more by the positions themselves.
bool Inspector::same(const Position& position, const Symmetry& one,
                     const std::vector<Position>& afters) {
  expected_.clear();
  got_.clear();
  for (const Position& after : afters) expected_.push_back(game_.hash(checks_->mapped(after, one)));
  other_->setUp(checks_->mapped(position, one));
  other_->listMoves(otherMoves_);
  for (const Move& move : otherMoves_) {
    other_->play(move);
    got_.push_back(other_->hash());
    other_->takeBack();
  }
  std::sort(expected_.begin(), expected_.end());
  std::sort(got_.begin(), got_.end());
  return expected_ == got_ && !game_.remembersPositions();
}

void Inspector::symmetry(LivePosition& live, const MoveList& moves, Closeness close,
                         std::vector<Fault>& faults) {
  Position position = checks_->alone(live.position());  // earlier positions have no images
  std::vector<Position> afters(moves.size());
  other_->setUp(position);
  for (std::size_t i = 0; i < moves.size(); ++i) {
    other_->play(moves[i]);
    other_->copyTo(afters[i]);
    other_->takeBack();
  }
  for (std::size_t tried = 0; tried < close.symmetries; ++tried) {
    const Symmetry& one = symmetries_[(close.firstSymmetry + tried) % symmetries_.size()];
    if (same(position, one, afters)) continue;
    Position image = checks_->mapped(position, one);
    MoveList imageMoves;
    game_.listMoves(image, imageMoves);
    std::vector<std::vector<std::uint64_t>> expected, got = following(game_, image, imageMoves);
    for (const Position& after : afters)
      expected.push_back(game_.identity(checks_->mapped(after, one)));
    std::sort(expected.begin(), expected.end());
    std::sort(got.begin(), got.end());
    if (expected == got) continue;
    std::string message = fmt::format(
        "the rules change under {}: here {} moves are legal, in the mirrored position {}", one.name,
        moves.size(), imageMoves.size());
    if (moves.size() == imageMoves.size()) {
      // The first move that leads elsewhere, and what differs from the nearest of the others.
      for (std::size_t i = 0; i < moves.size(); ++i) {
        Position mirrored = checks_->mapped(afters[i], one);
        if (std::binary_search(got.begin(), got.end(), game_.identity(mirrored))) continue;
        message += fmt::format(", but after {} {} as after any of the mirrored ones",
                               game_.moveText(position, moves[i]),
                               differing(game_, mirrored, image, imageMoves));
        break;
      }
    }
    faults.push_back({FindingKind::symmetry, 0, message});
    return;
  }
}

// Cells on which something else stands afterwards.
static std::vector<std::string> changedCells(const Game& game, const Position& before,
                                             const Position& after) {
  std::vector<std::string> cells;
  for (int board = 0; board < game.boards(); ++board)
    for (Cell cell = 0; cell < game.board().size(); ++cell) {
      std::optional<Piece> was = game.pieceAt(before, cell, board),
                           is = game.pieceAt(after, cell, board);
      bool same = was.has_value() == is.has_value() &&
                  (!is || (is->kind == was->kind && is->side == was->side));
      if (!same) cells.push_back(game.board().label(cell));
    }
  return cells;
}

// Two moves of one text, as what they are: what each changes, or, where the board is the same
// afterwards, what else is not.
static std::string ofOneText(const Game& game, const std::string& text, const Position& before,
                             const Position& one, const Position& two) {
  constexpr std::size_t named = 12;  // cells
  std::vector<std::string> cells = changedCells(game, before, one),
                           others = changedCells(game, before, two);
  std::map<std::string, std::string> parts = partsOf(game, one), otherParts = partsOf(game, two);
  std::string out = fmt::format("two different moves have the text \"{}\"", text);
  bool alike = cells == others && parts["the board"] == otherParts["the board"];
  if (alike) {
    std::vector<std::string> names;
    for (const auto& [name, part] : parts)
      if (otherParts[name] != part) names.push_back(name);
    return out + fmt::format(", and the board is the same after either: {} not",
                             names.empty()       ? "what the text of a position does not show is"
                             : names.size() == 1 ? names[0] + " is"
                                                 : joined(names, " and ") + " are");
  }
  const BoardShape& shape = game.board().shape();
  if (!cells.empty() && !others.empty() && std::max(cells.size(), others.size()) <= named)
    out += fmt::format(": one changes {}, the other {}{}", joined(cells, " "), joined(others, " "),
                       shape.joinLeftRight || shape.joinTopBottom
                           ? "; the board's edges are joined, so one may lie across an edge"
                           : "");
  return out + ": give them different texts with `written as`";
}

void Inspector::moves(LivePosition& live, Closeness close, std::vector<Fault>& faults) {
  if (live.ended()) return;
  if (live.moveCount() == 0) {
    faults.push_back({FindingKind::noEnd, 0,
                      fmt::format("{} cannot move and no end holds: the game can neither go on nor "
                                  "be over",
                                  game_.info().sides[live.toMove()])});
    return;
  }
  if (!close.texts && close.symmetries == 0) return;
  MoveList moves;
  live.listMoves(moves);
  if (close.symmetries > 0) symmetry(live, moves, close, faults);
  if (!close.texts) return;
  Position position = live.position();
  std::unordered_map<std::string, const Move*> texts;
  for (const Move& move : moves) {
    std::string text = game_.moveText(position, move);
    auto [it, added] = texts.insert({std::move(text), &move});
    if (added) continue;
    Position one = position, two = position;
    game_.apply(one, *it->second);
    game_.apply(two, move);
    if (game_.identity(one) == game_.identity(two)) continue;
    faults.push_back({FindingKind::ambiguous, 0, ofOneText(game_, it->first, position, one, two)});
    return;
  }
}

}  // namespace ninepegs::verify
