#include "ninepegs/report/board_text.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace ninepegs::report {
namespace {

std::string padded(const std::string& text, std::size_t width) {
  return text.size() < width ? std::string(width - text.size(), ' ') + text : text;
}

std::string sideText(const Game& game, int side, const Paint& paint) {
  std::string letters;
  for (const GameInfo::Kind& kind : game.info().kinds)
    letters += (letters.empty() ? "" : " ") + kind.letters[side];
  bool few = game.info().kinds.size() <= 3 && !letters.empty();
  return paint.side(side, game.info().sides[side]) + (few ? fmt::format(" ({})", letters) : "");
}

}  // namespace

std::string boardText(const Game& game, const Position& position, const Marks& marks,
                      const Paint& paint) {
  const Geometry& board = game.board();
  bool numbered = board.shape().numbered;
  std::size_t width = 1;  // of a cell's content
  if (numbered) width = std::to_string(board.all().count()).size();
  for (int x = 1; x <= board.columns() && !numbered; ++x)
    width = std::max(width, Geometry::columnName(x).size());
  std::size_t margin = numbered ? 1 : std::to_string(board.rows()).size() + 1;
  std::string out;
  for (int y = 0; y < board.rows(); ++y) {
    std::string row = " ";
    if (!numbered)
      row += paint.faint(padded(std::to_string(board.rowNumber(board.cellAt(0, y))), margin - 1));
    row += " ";
    for (int x = 0; x < board.columns(); ++x) {
      Cell cell = board.cellAt(x, y);
      char open = ' ', close = ' ';
      std::string inside = padded(" ", width);
      if (board.has(cell)) {
        std::optional<Piece> piece = game.pieceAt(position, cell);
        if (marks.shown[cell])
          open = '[', close = ']';
        else if (marks.targets[cell])
          open = '(', close = ')';
        else if (cell == marks.origin)
          open = '<', close = '>';
        if (piece)
          inside = std::string(width - 1, ' ') +
                   paint.side(piece->side, game.info().kinds[piece->kind].letters[piece->side]);
        else
          inside = paint.faint(padded(numbered ? board.label(cell) : ".", width));
      }
      auto bracket = [&](char c) { return c == ' ' ? std::string(" ") : paint.marked({&c, 1}); };
      row += bracket(open) + inside + bracket(close);
    }
    while (!row.empty() && row.back() == ' ') row.pop_back();
    out += row + "\n";
  }
  if (!numbered) {
    std::string labels(margin + 1, ' ');
    for (int x = 1; x <= board.columns(); ++x)
      labels += " " + padded(Geometry::columnName(x), width) + " ";
    while (!labels.empty() && labels.back() == ' ') labels.pop_back();
    out += paint.faint(labels) + "\n";
  }
  return out;
}

std::string stateText(const Game& game, const Position& position, const Paint& paint) {
  Result result = game.result(position);
  if (result.kind == ResultKind::ongoing)
    return sideText(game, game.toMove(position), paint) + " is to move";
  if (result.kind == ResultKind::win)
    return fmt::format("{} wins: {}", sideText(game, result.winner, paint), result.name);
  return resultText(game, result);
}

}  // namespace ninepegs::report
