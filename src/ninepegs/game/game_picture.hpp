// What stands where, for boards that are drawn.
//
//   for (Cell cell = 0; cell < game->board().size(); ++cell)
//     if (std::optional<Piece> piece = game->pieceAt(position, cell)) ++pieces[piece->kind];
//   CellSet line = game->shownCells(position);
#pragma once

#include <optional>
#include <vector>

#include "ninepegs/board/geometry.hpp"
#include "ninepegs/board/looks.hpp"
#include "ninepegs/game/values.hpp"

namespace ninepegs {

// A game that is played without a board, such as one of heaps, has one empty cell.
class GamePicture {
 public:
  virtual ~GamePicture() = default;

  virtual const Geometry& board() const;
  // A game has one board, or one for each side.
  virtual int boards() const { return 1; }
  // Requires 0 <= cell < board().size() and 0 <= board < boards().
  virtual std::optional<Piece> pieceAt(const Position& position, Cell cell, int board = 0) const;
  // How it is drawn, where the game says it.
  virtual const Looks& looks() const;
  // The cells that were picked in a legal move, in order.
  virtual std::vector<Cell> cellsOf(const Position& position, const Move& move) const;
  // The cells that would show that this end holds, such as a winning line.
  virtual CellSet cellsOfEnd(const Position& position, int end) const;
};

}  // namespace ninepegs
