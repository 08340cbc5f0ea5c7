#include "ninepegs/report/board_text.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/memory.hpp"

namespace ninepegs::report {
namespace {

std::string padded(const std::string& text, std::size_t width) {
  return text.size() < width ? std::string(width - text.size(), ' ') + text : text;
}

std::string sideText(const Game& game, int side, const Paint& paint) {
  std::string letters;
  for (const GameInfo::Kind& kind : game.info().kinds)
    if (!kind.neutral && !kind.letters[side].empty())
      letters += (letters.empty() ? "" : " ") + kind.letters[side];
  bool few = game.info().kinds.size() <= 3 && !letters.empty() && game.boards() == 1;
  return paint.side(side, game.info().sides[side]) + (few ? fmt::format(" ({})", letters) : "");
}

// The numbers on cells that the board has room for, by cell: of the first that there are.
std::map<Cell, std::string> numbersOn(const Game& game, const Position& position) {
  std::map<Cell, std::string> out;
  if (game.info().cellNumbers.empty() || game.boards() > 1) return out;
  Memory memory = memoryOf(game, position);
  if (memory.numbers.empty()) return out;
  for (const auto& [cell, value] : memory.numbers.front().values) out[cell] = std::to_string(value);
  return out;
}

}  // namespace

std::string boardText(const Game& game, const Position& position, const Marks& marks,
                      const Paint& paint) {
  const Geometry& board = game.board();
  bool numbered = board.shape().numbered, hexagon = board.shape().kind == Shape::hexagon;
  std::size_t width = 1;  // of a cell's content
  if (numbered) width = std::to_string(board.all().count()).size();
  for (int x = 1; x <= board.columns() && !numbered && !board.isHexes(); ++x)
    width = std::max(width, Geometry::columnName(x).size());
  for (const GameInfo::Kind& kind : game.info().kinds)  // a letter may be a wide one
    for (const std::string& letter : kind.letters)
      width = std::max(width, static_cast<std::size_t>(columnsOf(letter)));
  std::map<Cell, std::string> numbers = numbersOn(game, position);
  for (const auto& [cell, number] : numbers) width = std::max(width, number.size());
  const std::string between = board.isHexes() ? " " : "";  // so that half a cell is whole blanks
  std::size_t cellWidth = width + 2 + between.size();
  std::size_t margin = 0;
  auto rowLabel = [&](const PictureRow& row) {
    if (numbered) return std::string();
    return hexagon ? board.label(row.cells.front()) : std::to_string(board.rowNumber(row.cells[0]));
  };
  for (const PictureRow& row : board.picture()) margin = std::max(margin, rowLabel(row).size());
  auto blank = [](std::size_t count) { return std::string(count, ' '); };
  auto filled = [&](const std::string& letter, const std::string& painted) {
    std::size_t columns = std::min(width, static_cast<std::size_t>(columnsOf(letter)));
    return blank(width - columns) + painted;
  };
  // What a cell shows, of the width; empty if nothing.
  auto content = [&](Cell cell) {
    for (const View::Mark& mark : marks.seen)
      if (mark.board == marks.board && mark.cells[cell])
        return filled(mark.letter, paint.marked(mark.letter));
    if (marks.letters != nullptr) {
      auto found = marks.letters->find(board.label(cell));
      return found == marks.letters->end() ? std::string() : filled(found->second, found->second);
    }
    std::optional<Piece> piece = game.pieceAt(position, cell, marks.board);
    if (!piece) return std::string();
    const std::string& letter = game.info().kinds[piece->kind].letters[std::max(piece->side, 0)];
    return filled(letter, piece->side < 0 ? paint.strong(letter) : paint.side(piece->side, letter));
  };
  std::string out;
  std::vector<PictureRow> picture = board.picture();
  if (marks.flipped) {
    int widest = 0;
    for (const PictureRow& row : picture) widest = std::max(widest, row.indent);
    bool slants = board.shape().kind == Shape::rhombus;
    std::reverse(picture.begin(), picture.end());
    for (PictureRow& row : picture) {
      std::reverse(row.cells.begin(), row.cells.end());
      if (slants) row.indent = widest - row.indent;
    }
  }
  int level = picture.front().level;
  for (const PictureRow& drawn : picture) {
    if (drawn.level != level) out += "\n";
    level = drawn.level;
    std::size_t indent = static_cast<std::size_t>(drawn.indent) * cellWidth / 2;
    std::string row = " ";
    // A row's label stands right in front of it.
    if (!numbered) row += blank(indent) + paint.faint(padded(rowLabel(drawn), margin));
    row += " ";
    for (Cell cell : drawn.cells) {
      char open = ' ', close = ' ';
      std::string inside = padded(" ", width);
      if (board.has(cell)) {
        std::string piece = content(cell);
        if (marks.shown[cell])
          open = '[', close = ']';
        else if (marks.targets[cell])
          open = '(', close = ')';
        else if (cell == marks.origin)
          open = '<', close = '>';
        if (!piece.empty())
          inside = piece;
        else if (auto number = numbers.find(cell); number != numbers.end())
          inside = padded(number->second, width);
        else
          inside = paint.faint(padded(numbered ? board.label(cell) : ".", width));
      }
      auto bracket = [&](char c) { return c == ' ' ? std::string(" ") : paint.marked({&c, 1}); };
      row += bracket(open) + inside + bracket(close) + between;
    }
    while (!row.empty() && row.back() == ' ') row.pop_back();
    if (hexagon && board.has(drawn.cells.back()))
      row += "  " + paint.faint(board.label(drawn.cells.back()));
    out += row + "\n";
  }
  if (!numbered && !hexagon) {
    std::string labels(margin + 2, ' ');
    for (int x = 1; x <= board.columns(); ++x)
      labels += " " +
                padded(Geometry::columnName(marks.flipped ? board.columns() + 1 - x : x), width) +
                " " + between;
    while (!labels.empty() && labels.back() == ' ') labels.pop_back();
    out += paint.faint(labels) + "\n";
  }
  return out;
}

std::string boardsText(const Game& game, const Position& position, const Marks& marks,
                       const Paint& paint, int viewer) {
  View view;
  if (viewer >= 0) view = game.viewFor(position, viewer);
  const Position& shown = viewer >= 0 ? view.shown : position;
  Marks all = marks;
  all.seen = view.marks;
  std::string out;
  for (int board = 0; board < game.boards(); ++board) {
    all.board = board;
    if (board > 0) out += "\n";
    if (game.boards() > 1)
      out += " " + paint.side(board, game.info().sides[board]) + paint.faint("'s board") + "\n";
    out += boardText(game, shown, all, paint);
  }
  if (!view.words.empty()) {
    std::string words;
    for (const std::string& word : view.words) words += (words.empty() ? "" : ", ") + word;
    out += "\n known of the other side: " + words + "\n";
  }
  return out;
}

std::string besidesText(const Game& game, const Position& position, int viewer) {
  Memory memory = memoryOf(game, viewer < 0 ? position : game.viewFor(position, viewer).shown);
  std::vector<std::string> parts;
  for (std::size_t i = 0; i < memory.numbers.size(); ++i) {
    const Memory::OnCells& one = memory.numbers[i];
    // The board shows the first, but for cells on which something stands.
    bool all = i > 0 || game.boards() > 1;
    std::string values;
    for (const auto& [cell, value] : one.values)
      if (value != 0 && (all || game.pieceAt(position, cell)))
        values +=
            fmt::format("{} {} on {}", values.empty() ? "" : ",", value, game.board().label(cell));
    if (!values.empty()) parts.push_back(one.name + values);
  }
  // What a side sees of marks is shown on the board by letters.
  for (const Memory::Marked& mark : memory.marks) {
    if (viewer >= 0) break;
    std::string cells;
    for (Cell cell = 0; cell < game.board().size(); ++cell)
      if (mark.cells[static_cast<std::size_t>(cell)]) cells += " " + game.board().label(cell);
    parts.push_back(mark.name + cells);
  }
  parts.insert(parts.end(), memory.others.begin(), memory.others.end());
  return parts.empty() ? "" : wrapped("with " + joined(parts, "; "), 78, "  ");
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
