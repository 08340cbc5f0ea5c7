// What the words of a position say, and a position as one line of text.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/game/position_text.hpp"

namespace ninepegs {

using sheet::Layout;
using sheet::Slot;

namespace {

std::string pictureLine(const rules::Rules& rules, const Layout& layout, const Position& position,
                        int board) {
  std::string out;
  for (const PictureRow& row : rules.board.picture()) {
    if (!out.empty()) out += "/";
    int run = 0;
    auto flush = [&] {
      if (run > 0) out += std::to_string(run);
      run = 0;
    };
    for (Cell cell : row.cells) {
      std::optional<Piece> piece = pieceOf(layout, position, cell, board);
      if (!rules.board.has(cell)) {
        flush();
        out += "_";
      } else if (!piece) {
        ++run;
      } else {
        flush();
        out += rules.kinds[piece->kind].letters[std::max(piece->side, 0)];
      }
    }
    flush();
  }
  return out;
}

}  // namespace

Position emptyPosition(const rules::Rules& rules, const Layout& layout) {
  Position position;
  position.words.assign(layout.words, 0);
  int size = rules.board.size();
  for (Slot empty : layout.empty) setCells(position, empty, rules.board.all(), size);
  for (const Layout::BySide& cell : layout.cells)
    for (Slot slot : cell) position.words[slot] = ~std::uint64_t{0};
  for (std::size_t i = 0; i < layout.numbers.size(); ++i)
    for (int side = 0; side < 2 && !rules.numbers[i].onCells; ++side)
      position.words[layout.numbers[i][side]] =
          static_cast<std::uint64_t>(rules.numbers[i].start[side]);
  return position;
}

CellSet cellsAt(const Position& position, Slot slot, int size) {
  CellSet out;
  for (Cell cell = 0; cell < size; ++cell)
    if ((position.words[slot + cell / 64] >> (cell % 64)) & 1) out.set(cell);
  return out;
}

void setCells(Position& position, Slot slot, const CellSet& cells, int size) {
  for (Cell cell = 0; cell < size; ++cell) {
    std::uint64_t bit = std::uint64_t{1} << (cell % 64);
    if (cells[cell])
      position.words[slot + cell / 64] |= bit;
    else
      position.words[slot + cell / 64] &= ~bit;
  }
}

std::optional<Piece> pieceOf(const Layout& layout, const Position& position, Cell cell, int board) {
  auto has = [&](Slot slot) {
    return ((position.words[slot + cell / 64] >> (cell % 64)) & 1) != 0;
  };
  if (has(layout.empty[board])) return std::nullopt;
  Piece piece{0, -1};
  for (int side = 0; side < 2; ++side)
    if (has(layout.sides[side]) && (!layout.layered || side == board)) piece.side = side;
  bool found = piece.side >= 0;
  for (std::size_t kind = 0; kind < layout.kinds.size(); ++kind)
    if (has(layout.kinds[kind][board])) piece.kind = static_cast<int>(kind), found = true;
  return found ? std::optional<Piece>(piece) : std::nullopt;
}

std::string positionLine(const rules::Rules& rules, const Layout& layout,
                         const Position& position) {
  const Geometry& board = rules.board;
  std::string out;
  if (layout.layered) {
    for (int side = 0; side < 2; ++side)
      out += fmt::format("{}picture of {} {}", side > 0 ? "; " : "", rules.sides[side],
                         pictureLine(rules, layout, position, side));
  } else {
    out = pictureLine(rules, layout, position, 0);
  }
  auto line = [&](const std::string& name, bool each, int side, const std::string& value) {
    if (value.empty()) return;
    out += "; " + name;
    if (each) out += " of " + rules.sides[side];
    out += " " + value;
  };
  for (std::size_t i = 0; i < rules.marks.size(); ++i) {
    for (int side = 0; side < (rules.marks[i].each ? 2 : 1); ++side) {
      std::string cells;
      CellSet set = cellsAt(position, layout.marks[i][side], board.size());
      for (Cell cell = 0; cell < board.size(); ++cell)
        if (set[cell]) cells += (cells.empty() ? "" : " ") + board.label(cell);
      line(rules.marks[i].name, rules.marks[i].each, side, cells);
    }
  }
  for (std::size_t i = 0; i < rules.numbers.size(); ++i) {
    const rules::NumberRule& number = rules.numbers[i];
    if (number.onCells) {
      std::string values;
      bool any = false;
      for (Cell cell = 0; cell < board.size(); ++cell) {
        if (!board.has(cell)) continue;
        std::int64_t value =
            static_cast<std::int64_t>(position.words[layout.cellNumbers[i] + cell]);
        any = any || value != 0;
        values += (values.empty() ? "" : " ") + std::to_string(value);
      }
      if (any) line(number.name, false, 0, values);
      continue;
    }
    for (int side = 0; side < (number.each ? 2 : 1); ++side) {
      std::int64_t value = static_cast<std::int64_t>(position.words[layout.numbers[i][side]]);
      if (value != number.start[side]) line(number.name, number.each, side, std::to_string(value));
    }
  }
  for (std::size_t i = 0; i < rules.remembered.size(); ++i) {
    for (int side = 0; side < (rules.remembered[i].each ? 2 : 1); ++side) {
      std::int64_t cell = static_cast<std::int64_t>(position.words[layout.cells[i][side]]);
      if (cell >= 0)
        line(rules.remembered[i].name, rules.remembered[i].each, side,
             board.label(static_cast<Cell>(cell)));
    }
  }
  for (int side = 0; side < 2 && layout.hands[0] != 0; ++side) {
    std::string held;
    for (std::size_t kind = 0; kind < rules.kinds.size(); ++kind) {
      std::uint64_t many = position.words[layout.hands[side] + kind];
      if (many == 0) continue;
      held += held.empty() ? "" : ", ";
      if (many > 1) held += std::to_string(many) + " ";
      held += rules.kinds[kind].name;
    }
    line("hand", true, side, held);
  }
  if (layout.passes != 0 && position.words[layout.passes] != 0)
    line("passes", false, 0, std::to_string(position.words[layout.passes]));
  std::uint64_t last = layout.lastMover != 0 ? position.words[layout.lastMover] : 0;
  if (last == position.words[Layout::turn] + 1)
    out += "; " + rules.sides[position.words[Layout::turn]] + " moved last";
  return out + "; " + rules.sides[position.words[Layout::turn]] + " to move";
}

}  // namespace ninepegs
