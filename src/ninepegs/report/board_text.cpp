#include "ninepegs/report/board_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/memory.hpp"
#include "ninepegs/report/text_lines.hpp"

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

// Does the sheet want marks to be drawn as shades, on the one board that there is?
bool shadesAnything(const Game& game) {
  const std::map<std::string, MarkLook>& marks = game.looks().marks;
  return game.boards() == 1 && std::any_of(marks.begin(), marks.end(), [](const auto& one) {
           return one.second == MarkLook::shade;
         });
}

bool isShade(const Game& game, const Memory::Marked& mark) {
  return game.boards() == 1 && game.looks().ofMark(mark.name) == MarkLook::shade;
}

// Which side's shade lies on a cell, -1: of a mark of nobody's. Empty if two lie on one cell: then
// a list of them must say it.
std::map<Cell, int> shadesOn(const Game& game, const Memory& memory) {
  std::map<Cell, int> out;
  std::set<int> signs;
  for (const Memory::Marked& mark : memory.marks) {
    if (!isShade(game, mark)) continue;
    int side = -1;  // two marks of one sign would look the same
    for (int one = 0; one < 2; ++one)
      if (mark.name.ends_with(" of " + game.info().sides[one])) side = one;
    if (!signs.insert(side).second) return {};
    for (Cell cell = 0; cell < game.board().size(); ++cell)
      if (mark.cells[static_cast<std::size_t>(cell)] && !out.emplace(cell, side).second) return {};
  }
  return out;
}

constexpr const char* shadeSigns[3] = {"░", "▓", "▒"};  // of the first side, the second, of nobody

// Lines between cells: by which of up, down, left and right they run from here.
constexpr const char* joints[16] = {" ", "╵", "╷", "│", "╴", "┘", "┐", "┤",
                                    "╶", "└", "┌", "├", "─", "┴", "┬", "┼"};

class BoardText {
 public:
  BoardText(const Game& game, const Position& position, const Marks& marks, const Paint& paint)
      : game_(game),
        position_(position),
        marks_(marks),
        paint_(paint),
        board_(game.board()),
        looks_(game.looks()),
        numbered_(board_.shape().numbered),
        hexagon_(board_.shape().kind == Shape::hexagon),
        between_(board_.isHexes() ? " " : ""),
        numbers_(numbersOn(game, position)),
        picture_(board_.picture()) {
    shadeWidth_ = shadesAnything(game) ? 1 : 0;
    if (marks.shaded && shadeWidth_ > 0) shades_ = shadesOn(game, memoryOf(game, position));
    width();
    for (const PictureRow& row : picture_) margin_ = std::max(margin_, rowLabel(row).size());
    if (marks.flipped) flip();
    borders();
  }

  std::string text() {
    std::string out;
    int level = picture_.front().level;
    for (std::size_t y = 0; y < picture_.size(); ++y) {
      if (picture_[y].level != level) out += "\n";
      level = picture_[y].level;
      if (rowGaps_[y]) out += borderLine(y);
      out += row(picture_[y], y);
    }
    if (rowGaps_.back()) out += borderLine(picture_.size());
    if (!numbered_ && !hexagon_) out += columnLabels();
    return out;
  }

 private:
  static std::string blank(std::size_t count) { return std::string(count, ' '); }
  static std::string ended(std::string line) {
    while (!line.empty() && line.back() == ' ') line.pop_back();
    return line + "\n";
  }
  std::string rowLabel(const PictureRow& row) const {
    if (numbered_) return {};
    Cell first = row.cells.front();
    return hexagon_ ? board_.label(first) : std::to_string(board_.rowNumber(first));
  }
  std::size_t cellWidth() const { return width_ + 2 + shadeWidth_ + between_.size(); }

  void width() {
    if (numbered_) width_ = std::to_string(board_.all().count()).size();
    for (int x = 1; x <= board_.columns() && !numbered_ && !board_.isHexes(); ++x)
      width_ = std::max(width_, Geometry::columnName(x).size());
    for (const GameInfo::Kind& kind : game_.info().kinds)  // a letter may be a wide one
      for (const std::string& letter : kind.letters)
        width_ = std::max(width_, static_cast<std::size_t>(columnsOf(letter)));
    for (const auto& [cell, number] : numbers_) width_ = std::max(width_, number.size());
  }

  void flip() {
    int widest = 0;
    for (const PictureRow& row : picture_) widest = std::max(widest, row.indent);
    bool slants = board_.shape().kind == Shape::rhombus;
    std::reverse(picture_.begin(), picture_.end());
    for (PictureRow& row : picture_) {
      std::reverse(row.cells.begin(), row.cells.end());
      if (slants) row.indent = widest - row.indent;
    }
  }

  // The cell of a square board's picture; -1 beside it.
  Cell at(std::size_t x, std::size_t y) const {
    return y < picture_.size() && x < picture_[y].cells.size() ? picture_[y].cells[x] : -1;
  }
  bool parted(Cell one, Cell other) const {
    return std::any_of(looks_.borders.begin(), looks_.borders.end(), [&](const CellSet& set) {
      return (one >= 0 && set[static_cast<std::size_t>(one)]) !=
             (other >= 0 && set[static_cast<std::size_t>(other)]);
    });
  }
  bool partedAbove(std::size_t x, std::size_t y) const { return parted(at(x, y - 1), at(x, y)); }
  bool partedBefore(std::size_t x, std::size_t y) const { return parted(at(x - 1, y), at(x, y)); }

  // Where a line runs between two columns or rows there is room for it all along.
  void borders() {
    std::size_t columns = picture_.front().cells.size(), rows = picture_.size();
    columnGaps_.assign(columns + 1, false);
    rowGaps_.assign(rows + 1, false);
    if (looks_.borders.empty()) return;
    for (std::size_t y = 0; y <= rows; ++y) {
      for (std::size_t x = 0; x <= columns; ++x) {
        if (y < rows && partedBefore(x, y)) columnGaps_[x] = true;
        if (x < columns && partedAbove(x, y)) rowGaps_[y] = true;
      }
    }
  }
  std::string borderLine(std::size_t y) const {
    std::string out = blank(2 + margin_);
    std::size_t columns = picture_.front().cells.size(), rows = picture_.size();
    for (std::size_t x = 0; x <= columns; ++x) {
      if (columnGaps_[x]) {
        int arms =
            (y > 0 && partedBefore(x, y - 1) ? 1 : 0) + (y < rows && partedBefore(x, y) ? 2 : 0) +
            (x > 0 && partedAbove(x - 1, y) ? 4 : 0) + (x < columns && partedAbove(x, y) ? 8 : 0);
        out += joints[arms];
      }
      for (std::size_t i = 0; x < columns && i < cellWidth(); ++i)
        out += partedAbove(x, y) ? joints[12] : " ";
    }
    return ended(out);
  }

  std::string filled(const std::string& letter, const std::string& painted) const {
    std::size_t columns = std::min(width_, static_cast<std::size_t>(columnsOf(letter)));
    return blank(width_ - columns) + painted;
  }
  // What a cell shows, of the width; empty if nothing.
  std::string content(Cell cell) const {
    for (const View::Mark& mark : marks_.seen)
      if (mark.board == marks_.board && mark.cells[cell])
        return filled(mark.letter, paint_.marked(mark.letter));
    if (marks_.letters != nullptr) {
      auto found = marks_.letters->find(board_.label(cell));
      return found == marks_.letters->end() ? std::string() : filled(found->second, found->second);
    }
    std::optional<Piece> piece = game_.pieceAt(position_, cell, marks_.board);
    if (!piece) return {};
    const std::string& letter = game_.info().kinds[piece->kind].letters[std::max(piece->side, 0)];
    if (piece->side < 0 && looks_.edges[cell])  // a stroke of nobody's
      return filled("|", paint_.strong(runsAcross(looks_, board_, cell) ? "-" : "|"));
    return filled(letter,
                  piece->side < 0 ? paint_.strong(letter) : paint_.side(piece->side, letter));
  }
  std::string nothing(Cell cell) const {
    if (looks_.corners[cell]) return padded("+", width_);
    if (auto number = numbers_.find(cell); number != numbers_.end())
      return padded(number->second, width_);
    return paint_.faint(padded(numbered_ ? board_.label(cell) : ".", width_));
  }
  std::string shade(Cell cell) const {
    if (shadeWidth_ == 0) return {};
    auto found = shades_.find(cell);
    if (found == shades_.end()) return " ";
    int side = found->second;
    return side < 0 ? paint_.strong(shadeSigns[2]) : paint_.side(side, shadeSigns[side]);
  }
  std::string shown(Cell cell) const {
    if (!board_.has(cell)) return blank(cellWidth());
    std::string piece = content(cell);
    std::string open = " ", close = " ";
    if (!piece.empty() && looks_.edges[cell] && runsAcross(looks_, board_, cell))
      open = close = "-";  // a stroke from corner to corner
    if (marks_.shown[cell])
      open = paint_.marked("["), close = paint_.marked("]");
    else if (marks_.targets[cell])
      open = paint_.marked("("), close = paint_.marked(")");
    else if (cell == marks_.origin)
      open = paint_.marked("<"), close = paint_.marked(">");
    return shade(cell) + open + (piece.empty() ? nothing(cell) : piece) + close + between_;
  }

  std::string row(const PictureRow& drawn, std::size_t y) const {
    std::size_t indent = static_cast<std::size_t>(drawn.indent) * cellWidth() / 2;
    std::string row = " ";
    // A row's label stands right in front of it.
    if (!numbered_) row += blank(indent) + paint_.faint(padded(rowLabel(drawn), margin_));
    row += " ";
    for (std::size_t x = 0; x <= drawn.cells.size(); ++x) {
      if (x < columnGaps_.size() && columnGaps_[x]) row += partedBefore(x, y) ? joints[3] : " ";
      if (x < drawn.cells.size()) row += shown(drawn.cells[x]);
    }
    while (!row.empty() && row.back() == ' ') row.pop_back();
    if (hexagon_ && board_.has(drawn.cells.back()))
      row += "  " + paint_.faint(board_.label(drawn.cells.back()));
    return row + "\n";
  }

  std::string columnLabels() const {
    std::string labels(margin_ + 2, ' ');
    for (int x = 1; x <= board_.columns(); ++x) {
      if (columnGaps_[static_cast<std::size_t>(x - 1)]) labels += " ";
      labels +=
          blank(1 + shadeWidth_) +
          padded(Geometry::columnName(marks_.flipped ? board_.columns() + 1 - x : x), width_) +
          " " + between_;
    }
    while (!labels.empty() && labels.back() == ' ') labels.pop_back();
    return paint_.faint(labels) + "\n";
  }

  const Game& game_;
  const Position& position_;
  const Marks& marks_;
  const Paint& paint_;
  const Geometry& board_;
  const Looks& looks_;
  bool numbered_, hexagon_;
  const std::string between_;  // so that half a cell is whole blanks
  std::map<Cell, std::string> numbers_;
  std::map<Cell, int> shades_;
  std::vector<PictureRow> picture_;
  std::size_t width_ = 1;  // of a cell's content
  std::size_t shadeWidth_ = 0, margin_ = 0;
  std::vector<bool> columnGaps_, rowGaps_;
};

}  // namespace

std::string boardText(const Game& game, const Position& position, const Marks& marks,
                      const Paint& paint) {
  return BoardText(game, position, marks, paint).text();
}

std::string boardsText(const Game& game, const Position& position, const Marks& marks,
                       const Paint& paint, int viewer) {
  View view;
  if (viewer >= 0) view = game.viewFor(position, viewer);
  const Position& shown = viewer >= 0 ? view.shown : position;
  Marks all = marks;
  all.seen = view.marks;
  all.shaded = viewer < 0;  // of marks a side sees what it is shown by letters
  auto one = [&](int board, const Paint& painted) {
    all.board = board;
    std::string head;
    if (game.boards() > 1)
      head = " " + painted.side(board, game.info().sides[board]) + painted.faint("'s board") + "\n";
    return head + boardText(game, shown, all, painted);
  };
  std::string out = one(0, paint);
  if (game.boards() > 1)
    out = besideEachOther({out, one(0, Paint())}, {one(1, paint), one(1, Paint())},
                          {.gap = "   ", .most = 78});
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
  bool shaded = !shadesOn(game, memory).empty();
  // What a side sees of marks is shown on the board by letters.
  for (const Memory::Marked& mark : memory.marks) {
    if (viewer >= 0) break;
    if (shaded && isShade(game, mark)) continue;
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
