#include "ninepegs/game/algebraic.hpp"

#include <algorithm>
#include <optional>

#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/game/with_machine.hpp"

namespace ninepegs {
namespace {

// What a move's text says: from which cell to which, and what the piece becomes.
struct Parts {
  Cell from = -1, to = -1;
  int becomes = -1;
};

std::optional<Parts> partsOf(const SheetGame& game, const std::string& text) {
  const Geometry& board = game.board();
  std::string rest;
  for (char c : text)
    if (c != '-' && c != '=' && c != ' ') rest += c;
  Parts parts;
  for (Cell* cell : {&parts.from, &parts.to}) {
    std::size_t length = 1;
    while (length < rest.size() && rest[length] >= '0' && rest[length] <= '9') ++length;
    std::optional<Cell> found = board.find(rest.substr(0, length));
    if (!found) return std::nullopt;
    *cell = *found;
    rest.erase(0, length);
  }
  if (rest.empty()) return parts;
  for (std::size_t kind = 0; kind < game.info().kinds.size(); ++kind)
    if (game.info().kinds[kind].name == rest) parts.becomes = static_cast<int>(kind);
  return parts.becomes < 0 ? std::nullopt : std::optional<Parts>(parts);
}

int pieces(const SheetGame& game, const Position& position) {
  int total = 0;
  for (Cell cell = 0; cell < game.board().size(); ++cell)
    total += game.pieceAt(position, cell, 0).has_value() ? 1 : 0;
  return total;
}

bool severalOf(const SheetGame& game, const Position& position, const Piece& piece) {
  int many = 0;
  for (Cell cell = 0; cell < game.board().size(); ++cell) {
    std::optional<Piece> one = game.pieceAt(position, cell, 0);
    many += one && one->kind == piece.kind && one->side == piece.side;
  }
  return many > 1;
}

}  // namespace

std::vector<std::string> algebraicTexts(const SheetGame& game, const Position& position,
                                        const Move& move) {
  const rules::NotationRule& notation = *game.rules().notation;
  const GameInfo& info = game.info();
  const Geometry& board = game.board();
  std::optional<Parts> parts = partsOf(game, game.moveText(position, move));
  std::optional<Piece> piece;
  if (parts) piece = game.pieceAt(position, parts->from, 0);
  if (!piece) return {};
  std::string coordinates = board.label(parts->from) + board.label(parts->to);
  if (parts->becomes >= 0) coordinates += info.kinds[parts->becomes].letters[1];

  Position after = position;
  game.apply(after, move);
  bool takes = pieces(game, after) < pieces(game, position);
  std::string out;
  auto column = [&](Cell cell) { return Geometry::columnName(board.columnNumber(cell)); };
  bool castles = move.group != sheet::passGroup && move.group == notation.castle;
  if (castles) {
    out = board.columnNumber(parts->to) > board.columnNumber(parts->from) ? "O-O" : "O-O-O";
  } else if (piece->kind == notation.pawn) {
    if (takes) out = column(parts->from) + "x";
    out += board.label(parts->to);
    if (parts->becomes >= 0) out += "=" + info.kinds[parts->becomes].letters[0];
  } else {
    out = info.kinds[piece->kind].letters[0];
    bool other = false, sameColumn = false, sameRow = false;
    MoveList moves;
    if (severalOf(game, position, *piece)) game.listMoves(position, moves);
    for (const Move& one : moves) {
      std::optional<Parts> its = partsOf(game, game.moveText(position, one));
      if (!its || its->to != parts->to || its->from == parts->from) continue;
      std::optional<Piece> rival = game.pieceAt(position, its->from, 0);
      if (!rival || rival->kind != piece->kind) continue;
      other = true;
      sameColumn = sameColumn || board.columnNumber(its->from) == board.columnNumber(parts->from);
      sameRow = sameRow || board.rowNumber(its->from) == board.rowNumber(parts->from);
    }
    if (other && (!sameColumn || sameRow)) out += column(parts->from);
    if (sameColumn) out += std::to_string(board.rowNumber(parts->from));
    if (takes) out += "x";
    out += board.label(parts->to);
  }
  int routine = game.program().check[game.toMove(position)];
  if (routine >= 0) {
    bool check = withMachine(game.program(), [&](auto& machine) {
      machine.load(after.words.data());
      machine.runRoutine(routine);
      return machine.number(game.program().valueSlot) != 0;
    });
    if (check) out += game.result(after).kind == ResultKind::win ? "#" : "+";
  }
  return {coordinates, out};
}

}  // namespace ninepegs
