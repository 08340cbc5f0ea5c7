// From the names of a sheet to those of a program, where they differ.
//
//   compare::Bridge bridge = compare::Bridge::read(*game, text, "map.json");
//   texts.push_back(bridge.move("d3"));
//
// A map is a JSON object: `sides`, `letters` and `moves` give for each name of the sheet that of
// the program; `cells` does so for cells, or is a pattern with {column} {row} {number}, counted
// from 1 from the top left, or {column0} {row0} {number0}, counted from 0.
#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>
#include <string_view>

#include "ninepegs/game/game.hpp"

namespace ninepegs::compare {

class Bridge {
 public:
  explicit Bridge(const Game& game) : game_(&game) {}
  // Throws BadInput that points into the text.
  static Bridge read(const Game& game, const std::string& text, const std::string& source);

  // Are moves written as in the sheet?
  bool isPlain() const { return moves_.empty() && cells_.empty() && pattern_.empty(); }
  // A move's text as the program has it: as a whole if the map has it, else cell by cell.
  std::string move(const std::string& ours) const;
  // With each cell replaced by what `cell` says.
  template <class Cells>
  std::string withCells(const std::string& ours, Cells cell) const;
  // The name of a cell as the program has it.
  std::string cell(Cell cell) const;

  // 0 or 1; nothing: no side of the game.
  std::optional<int> side(const std::string& theirs) const;
  // The sheet's letter for a program's; empty for an empty cell.
  std::string letter(const std::string& theirs) const;
  std::optional<Cell> cellNamed(const std::string& theirs) const;

  // Moves that the map names.
  const std::map<std::string, std::string>& moves() const { return moves_; }

 private:
  const Game* game_;
  std::map<std::string, std::string> sides_, letters_, moves_, cells_;
  std::string pattern_;
};

// A stretch of a move's text that is a cell: the longest label that begins there. The length, or 0.
std::size_t cellAt(const Geometry& board, const std::string& text, std::size_t at, Cell& cell);

template <class Cells>
std::string Bridge::withCells(const std::string& ours, Cells named) const {
  std::string out;
  for (std::size_t at = 0; at < ours.size();) {
    Cell cell = -1;
    std::size_t length = cellAt(game_->board(), ours, at, cell);
    if (length == 0) {
      out += ours[at++];
      continue;
    }
    out += named(cell);
    at += length;
  }
  return out;
}

}  // namespace ninepegs::compare
