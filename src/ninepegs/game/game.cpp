#include "ninepegs/game/game.hpp"

#include <fmt/format.h>

#include "ninepegs/game/plain_live.hpp"

namespace ninepegs {
std::uint64_t wordHash(std::size_t index, std::uint64_t word) {
  return scrambled(word ^ scrambled(index));
}

std::uint64_t Game::countMoves(const Position& position) const {
  MoveList moves;
  listMoves(position, moves);
  return moves.size();
}

MoveTexts Game::textsOf(const Position& position, const Move& move) const {
  std::string text = moveText(position, move);
  return {text, text, {}};
}

std::vector<std::string> Game::otherTexts(const Position&, const Move&) const {
  return {};
}

std::string Game::notation(const Position&) const {
  return "";
}

View Game::viewOf(const Position& position, int) const {
  return {position, {}, {}};
}

bool Game::conditionHolds(int, const Position&) const {
  return true;
}

std::string Game::conditionValues(int, const Position&) const {
  return "";
}

CellSet Game::shownCells(const Position& position) const {
  int end = result(position).end;
  return end < 0 ? CellSet{} : cellsOfEnd(position, end);
}

CellSet Game::cellsOfEnd(const Position&, int) const {
  return {};
}

std::int64_t Game::worth(const Position&, int) const {
  return 0;
}

// The exclusive or of one scrambled number for each word, so that a move changes it by the words it
// changed (after A. Zobrist, "A new hashing method with application for game playing", 1970, with
// words in the place of squares).
std::uint64_t Game::hash(const Position& position) const {
  std::uint64_t hash = 0;
  for (std::size_t i = 0; i < position.words.size(); ++i) hash ^= wordHash(i, position.words[i]);
  return hash;
}

std::unique_ptr<LivePosition> Game::live(std::span<std::uint64_t>) const {
  return std::make_unique<PlainLive>(*this);
}

std::vector<Result> Game::endsThatHold(const Position& position, const Position*) const {
  Result only = result(position);
  if (only.kind == ResultKind::ongoing) return {};
  return {only};
}

std::int64_t Game::invariantValue(std::size_t, const Position&, int) const {
  return 1;
}

Position Game::mapped(const Position& position, const Symmetry&) const {
  return position;
}

std::shared_ptr<const Game> Game::variant(const std::string& name) const {
  throw BadInput(Place{info().id, 0, 0, 1, {}}, fmt::format("there is no variant \"{}\"", name));
}

std::vector<std::string> brokenInvariants(const Game& game, const Position& position) {
  std::vector<std::string> out;
  std::vector<Invariant> all = game.invariants();
  for (std::size_t i = 0; i < all.size(); ++i)
    for (int side = 0; side < 2 && all[i].change == 0; ++side) {
      if (game.invariantValue(i, position, side) != 0) continue;
      out.push_back(fmt::format("`{}` (line {}) does not hold for {}", all[i].text, all[i].line,
                                game.info().sides[side]));
      break;
    }
  return out;
}

std::string resultText(const Game& game, const Result& result) {
  switch (result.kind) {
    case ResultKind::ongoing:
      return "the game goes on";
    case ResultKind::win:
      return fmt::format("{} wins: {}", game.info().sides[result.winner], result.name);
    case ResultKind::draw:
      return fmt::format("draw: {}", result.name);
    case ResultKind::fault:
      return fmt::format("the rules went wrong: {}", result.name);
  }
  return "";
}

}  // namespace ninepegs
