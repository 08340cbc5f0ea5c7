#include "ninepegs/report/moves_from.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"

namespace ninepegs::report {
namespace {

MoveList movesFrom(const Game& game, const Position& position, Cell from) {
  MoveList moves;
  game.listMoves(position, moves);
  if (from < 0) return moves;
  std::erase_if(moves, [&](const Move& move) {
    std::vector<Cell> cells = game.cellsOf(position, move);
    return cells.empty() || cells.front() != from;
  });
  return moves;
}

}  // namespace

std::vector<std::string> textsFrom(const Game& game, const Position& position, Cell from) {
  std::vector<std::string> texts;
  for (const Move& move : movesFrom(game, position, from))
    texts.push_back(game.moveText(position, move));
  std::sort(texts.begin(), texts.end(), naturalLess);
  return texts;
}

CellSet targetsFrom(const Game& game, const Position& position, Cell from) {
  CellSet targets;
  for (const Move& move : movesFrom(game, position, from))
    targets.set(game.cellsOf(position, move).back());
  return targets;
}

std::string whyNoneFrom(const Game& game, const Position& position, Cell from) {
  Result result = game.result(position);
  std::string label = game.board().label(from);
  if (result.kind != ResultKind::ongoing)
    return fmt::format("no move begins on {}: the game is over ({})", label,
                       resultText(game, result));
  const std::string& mover = game.info().sides[game.toMove(position)];
  std::optional<Piece> piece = game.pieceAt(position, from);
  if (!piece) return fmt::format("no move of {} begins on {}: nothing stands there", mover, label);
  const std::string& kind = game.info().kinds[piece->kind].name;
  if (piece->side != game.toMove(position))
    return fmt::format("no move begins on {}: the {} there is {}'s, and it is {}'s turn", label,
                       kind, piece->side < 0 ? "nobody" : game.info().sides[piece->side], mover);
  return fmt::format("the {} on {} cannot go anywhere", kind, label);
}

}  // namespace ninepegs::report
