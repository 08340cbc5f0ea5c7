// How a board is drawn, where its game says more than its rules do.
//
//   Looks looks;
//   looks.marks["won"] = MarkLook::shade;
#pragma once

#include <cstdint>
#include <map>
#include <set>
#include <string>
#include <vector>

#include "ninepegs/board/geometry.hpp"

namespace ninepegs {

enum class PieceLook : std::uint8_t { peg, disc, ring, bar, tile, letter };
enum class MarkLook : std::uint8_t { corner, shade, ring, cross, dot };
// As a sheet says them, in the same order.
inline const std::vector<std::string> pieceLooks = {"peg", "disc", "ring", "bar", "tile", "letter"};
inline const std::vector<std::string> markLooks = {"corner", "shade", "ring", "cross", "dot"};

struct Looks {
  std::vector<PieceLook> pieces;          // by kind; none: all are pegs
  std::map<std::string, MarkLook> marks;  // by name; corners, where nothing is said
  std::set<std::string> pips;             // numbers on cells that are drawn as so many seeds
  std::vector<CellSet> borders;           // a line runs round each
  // Of a square board: the cells that stand for the edges of squares, where what lies is a stroke,
  // and those that stand for their corners. No cell is both.
  CellSet edges, corners;

  PieceLook ofKind(int kind) const {
    return pieces.empty() ? PieceLook::peg : pieces[static_cast<std::size_t>(kind)];
  }
  // Of a mark by the name it has in a position's text, such as "won of Amber".
  MarkLook ofMark(const std::string& name) const {
    auto found = marks.find(name.substr(0, name.find(' ')));
    return found == marks.end() ? MarkLook::corner : found->second;
  }
};

// Does the stroke on an edge run from left to right? Requires a square board.
inline bool runsAcross(const Looks& looks, const Geometry& board, Cell edge) {
  for (const Direction& direction : board.directions()) {
    if (direction.name != "east" && direction.name != "west") continue;
    Cell next = direction.next[static_cast<std::size_t>(edge)];
    if (next >= 0 && looks.corners[static_cast<std::size_t>(next)]) return true;
  }
  return false;
}

}  // namespace ninepegs
