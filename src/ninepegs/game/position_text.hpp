// Positions of a sheet as text, both ways: a picture, then lines such as `Slate to move`.
//
//   oo5/x6/7/7/7/7; Slate to move
//
// Rows stand as they are drawn, from the top, like the piece-placement field of FEN: a letter for a
// piece, a number or dots for empty cells, `_` for a place the board leaves out.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/game/values.hpp"
#include "ninepegs/sheet/program/program.hpp"
#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs {

// Words of a position with no piece on it, the first side to move.
Position emptyPosition(const rules::Rules& rules, const sheet::Layout& layout);

// From the lines of a sheet's block. Messages go to `found`.
Position readBlock(const rules::Rules& rules, const sheet::Layout& layout,
                   const sheet::Source& source, const std::vector<sheet::Block>& lines,
                   std::vector<Diagnostic>& found);

// Throws BadInput if the text is empty, too long or not one line of UTF-8: whatever the notation.
void requireLine(const rules::Rules& rules, const sheet::Layout& layout, std::string_view text,
                 const std::string& source);

// From one line for which requireLine holds. Throws BadInput.
Position readLine(const rules::Rules& rules, const sheet::Layout& layout, std::string_view text,
                  const std::string& source);

std::string positionLine(const rules::Rules& rules, const sheet::Layout& layout,
                         const Position& position);

// Cells of a set in a position's words, and back.
CellSet cellsAt(const Position& position, sheet::Slot slot, int size);
void setCells(Position& position, sheet::Slot slot, const CellSet& cells, int size);
// `board`: on a board of one each, whose waters.
std::optional<Piece> pieceOf(const sheet::Layout& layout, const Position& position, Cell cell,
                             int board = 0);

}  // namespace ninepegs
