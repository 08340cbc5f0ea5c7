#include "ninepegs/draw/figure.hpp"

namespace ninepegs::draw {

// So many seeds, as they lie in a hollow (H. Vogel, "A better way to construct the sunflower head",
// 1979), and how many they are.
void Figure::pips(Cell cell, std::int64_t count) {
  constexpr std::int64_t most = 40;
  use(edge, 0.28);
  disc(x(cell), y(cell), 31);
  cairo_fill(cr_);
  use(hole);
  for (std::int64_t i = 0; i < std::min(count, most); ++i) {
    double turn = static_cast<double>(i) * 2.399963, away = 5.4 * std::sqrt(static_cast<double>(i));
    disc(x(cell) + away * std::cos(turn), y(cell) - 2 + away * std::sin(turn), 4);
    cairo_fill(cr_);
  }
  text(std::to_string(count), x(cell) + cellSize / 2 - 13, y(cell) + cellSize / 2 - 13, 14,
       count == 0 ? edge : ink, true, 24);
}

// A mark has the same sign in all positions; corners, of which there are four, go to those that are
// there.
void Figure::numberMarks() {
  std::map<std::string, std::size_t> number;
  std::map<MarkLook, std::size_t> next;
  for (const std::string& name : game_.info().marks) {
    MarkLook look = looks_.ofMark(name);
    if (look == MarkLook::corner) continue;
    number[name] = number[name + " of " + game_.info().sides[0]] = next[look]++;
    number[name + " of " + game_.info().sides[1]] = next[look]++;
  }
  std::size_t corner = 0;
  for (const Memory::Marked& mark : memory_.marks)
    signs_.push_back(number.count(mark.name) > 0 ? number[mark.name] : corner++);
}

// How a mark is told from the others, without colours, too.
std::string Figure::signOf(std::size_t mark) const {
  static const char* const hatched[4] = {"hatched upwards", "hatched downwards", "hatched across",
                                         "hatched upright"};
  bool other = signs_[mark] % 2 != 0;
  switch (looks_.ofMark(memory_.marks[mark].name)) {
    case MarkLook::shade:
      return hatched[signs_[mark] % 4];
    case MarkLook::ring:
      return other ? "double ring" : "ring";
    case MarkLook::cross:
      return other ? "upright cross" : "cross";
    case MarkLook::dot:
      return other ? "dot below" : "dot above";
    case MarkLook::corner:
      break;
  }
  return std::string(corners[signs_[mark] % 4]) + " corner";
}

void Figure::hatch(Cell cell, std::size_t index) {
  const Memory::Marked& mark = memory_.marks[index];
  if (!mark.cells[cell] || onOther(mark.name, layer_)) return;
  double half = cellSize / 2 - 3;
  cairo_save(cr_);
  cairo_rectangle(cr_, x(cell) - half, y(cell) - half, 2 * half, 2 * half);
  cairo_clip(cr_);
  std::size_t sign = signs_[index] % 4;
  use(markColours[sign], 0.28);
  cairo_paint(cr_);
  use(markColours[sign], 0.75);
  cairo_set_line_width(cr_, 2);
  constexpr double run[4] = {1, 1, 1, 0}, rise[4] = {-1, 1, 0, 1};
  for (double away = -2 * half; away <= 2 * half; away += 12) {
    double cx = x(cell) + (run[sign] * rise[sign] != 0 || run[sign] == 0 ? away : 0);
    double cy = y(cell) + (rise[sign] == 0 ? away : 0);
    cairo_move_to(cr_, cx - run[sign] * half, cy - rise[sign] * half);
    cairo_line_to(cr_, cx + run[sign] * half, cy + rise[sign] * half);
    cairo_stroke(cr_);
  }
  cairo_restore(cr_);
}

void Figure::mark(Cell cell, std::size_t index) {
  double cx = x(cell), cy = y(cell), far = 17;
  bool other = signs_[index] % 2 != 0;
  use(markColours[signs_[index] % 4]);
  cairo_set_line_width(cr_, 4);
  switch (looks_.ofMark(memory_.marks[index].name)) {
    case MarkLook::ring:
      disc(cx, cy, 30);
      cairo_stroke(cr_);
      if (!other) break;
      disc(cx, cy, 23);
      cairo_stroke(cr_);
      break;
    case MarkLook::cross:
      for (int turn = 0; turn < 2; ++turn) {
        double dx = other ? (turn == 0 ? far : 0) : far;
        double dy = other ? (turn == 0 ? 0 : far) : (turn == 0 ? far : -far);
        cairo_move_to(cr_, cx - dx, cy - dy);
        cairo_line_to(cr_, cx + dx, cy + dy);
        cairo_stroke(cr_);
      }
      break;
    case MarkLook::dot:
      disc(cx, cy + (other ? 26 : -26), 6);
      cairo_fill(cr_);
      break;
    case MarkLook::shade:
    case MarkLook::corner:
      break;
  }
}

// Marks, each in a corner of its own unless the sheet says otherwise.
void Figure::corner(Cell cell) {
  double reach = board_.isHexes() ? cellSize * 0.27 : cellSize / 2 - 4, leg = 15;
  for (std::size_t i = 0; i < memory_.marks.size(); ++i) {
    const Memory::Marked& one = memory_.marks[i];
    if (!one.cells[cell] || onOther(one.name, layer_)) continue;
    if (looks_.ofMark(one.name) != MarkLook::corner) {
      mark(cell, i);
      continue;
    }
    std::size_t sign = signs_[i] % 4;
    double right = sign % 2 == 0 ? -1 : 1, down = sign < 2 ? -1 : 1;
    double cx = x(cell) + right * reach, cy = y(cell) + down * reach;
    use(markColours[sign]);
    cairo_move_to(cr_, cx, cy);
    cairo_line_to(cr_, cx - right * leg, cy);
    cairo_line_to(cr_, cx, cy - down * leg);
    cairo_close_path(cr_);
    cairo_fill(cr_);
  }
}

void Figure::shape(double cx, double cy, double radius, PieceLook look) {
  switch (look) {
    case PieceLook::bar: {
      double half = radius * 0.45, tall = radius * 1.15;
      cairo_new_sub_path(cr_);
      cairo_arc(cr_, cx, cy - tall + half, half, std::numbers::pi, 2 * std::numbers::pi);
      cairo_arc(cr_, cx, cy + tall - half, half, 0, std::numbers::pi);
      cairo_close_path(cr_);
      break;
    }
    case PieceLook::tile:
      cairo_rectangle(cr_, cx - radius, cy - radius, 2 * radius, 2 * radius);
      break;
    default:
      disc(cx, cy, radius);
  }
}

void Figure::peg(Cell cell, Piece piece) {
  double cx = x(cell), cy = y(cell);
  const GameInfo::Kind& kind = game_.info().kinds[piece.kind];
  PieceLook look = looks_.ofKind(piece.kind);
  double radius = kind.edges.empty() ? 26 : 17;
  if (!kind.edges.empty()) edges(cell, piece);
  Colour body = piece.side < 0 ? hole : pegs[piece.side];
  const std::string& letter = kind.letters[piece.side < 0 ? 0 : piece.side];
  if (look == PieceLook::letter) {
    text(letter, cx, cy, 2 * radius, piece.side == 1 ? pegs[1] : ink, true, 60);
    return;
  }
  if (look == PieceLook::ring) {
    for (bool inner : {false, true}) {
      use(inner ? body : edge);
      cairo_set_line_width(cr_, inner ? 8 : 12);
      disc(cx, cy, radius - 4);
      cairo_stroke(cr_);
    }
    text(letter, cx, cy, radius * 0.8, ink, true, 28);
    return;
  }
  if (look == PieceLook::peg) {
    use(edge, 0.35);
    disc(cx + 2, cy + 3, radius);
    cairo_fill(cr_);
  }
  use(body);
  shape(cx, cy, radius, look);
  cairo_fill_preserve(cr_);
  use(edge);
  cairo_set_line_width(cr_, 2);
  cairo_stroke(cr_);
  text(letter, cx, cy, look == PieceLook::bar ? radius * 0.8 : radius,
       piece.side == 0 ? ink : paper, true, 44);
}

// What lies on an edge, from corner to corner; nobody's has no letter.
void Figure::stroke(Cell cell, Piece piece) {
  bool across = runsAcross(looks_, board_, cell);
  double dx = across ? cellSize - 12 : 0, dy = across ? 0 : cellSize - 12;
  for (bool inner : {false, true}) {
    use(inner ? piece.side < 0 ? hole : pegs[piece.side] : edge);
    cairo_set_line_cap(cr_, CAIRO_LINE_CAP_ROUND);
    cairo_set_line_width(cr_, inner ? 12 : 16);
    cairo_move_to(cr_, x(cell) - dx, y(cell) - dy);
    cairo_line_to(cr_, x(cell) + dx, y(cell) + dy);
    cairo_stroke(cr_);
  }
  cairo_set_line_cap(cr_, CAIRO_LINE_CAP_BUTT);
  if (piece.side >= 0) {
    use(pegs[piece.side]);
    disc(x(cell), y(cell), 12);
    cairo_fill(cr_);
    text(game_.info().kinds[piece.kind].letters[piece.side], x(cell), y(cell), 16,
         piece.side == 0 ? ink : paper, true, 22);
  }
}

// Lines round sets of cells, where one of two neighbours is inside.
void Figure::borders() {
  use(ink);
  cairo_set_line_width(cr_, 5);
  cairo_set_line_cap(cr_, CAIRO_LINE_CAP_ROUND);
  for (const CellSet& set : looks_.borders) {
    for (Cell cell = 0; cell < board_.size(); ++cell) {
      if (!set[cell]) continue;
      for (const Direction& way : board_.directions()) {
        DrawnAt to = stepOf(way.name);
        if (to.x == 0 && to.y == 0) continue;
        Cell next = way.next[cell];
        // A step over a joined edge comes in elsewhere.
        bool beside =
            next >= 0 && std::abs(x(next) - x(cell)) + std::abs(y(next) - y(cell)) < cellSize * 1.5;
        if (beside && set[next]) continue;
        double cx = x(cell) + to.x * cellSize / 2, cy = y(cell) + to.y * cellSize / 2;
        cairo_move_to(cr_, cx - to.y * cellSize / 2, cy - to.x * cellSize / 2);
        cairo_line_to(cr_, cx + to.y * cellSize / 2, cy + to.x * cellSize / 2);
        cairo_stroke(cr_);
      }
    }
  }
  cairo_set_line_cap(cr_, CAIRO_LINE_CAP_BUTT);
}

// The numbers on the sides of a tile, each towards the neighbour it touches.
void Figure::edges(Cell cell, Piece piece) {
  const std::vector<std::int64_t>& numbers = game_.info().kinds[piece.kind].edges;
  std::size_t ways = numbers.size();
  for (std::size_t way = 0; way < ways; ++way) {
    double turn = static_cast<double>(way) * (board_.isHexes() ? 60 : 45) +
                  (board_.isHexes() ? 30 : 0);  // clockwise from north
    double angle = (turn - 90) * std::numbers::pi / 180;
    text(std::to_string(numbers[way]), x(cell) + 27 * std::cos(angle),
         y(cell) + 27 * std::sin(angle), 14, ink, false, 20);
  }
}

void Figure::arrows() {
  if (marks_.origin < 0) return;
  for (Cell cell = 0; cell < board_.size(); ++cell) {
    if (!marks_.targets[cell] || cell == marks_.origin) continue;
    double dx = x(cell) - x(marks_.origin), dy = y(cell) - y(marks_.origin);
    double length = std::hypot(dx, dy);
    dx /= length;
    dy /= length;
    double fromX = x(marks_.origin) + dx * 34, fromY = y(marks_.origin) + dy * 34;
    bool taken = game_.pieceAt(view_.shown, cell, layer_).has_value();
    double toX = x(cell) - dx * (taken ? 32 : 19), toY = y(cell) - dy * (taken ? 32 : 19);
    use(path);
    cairo_set_line_width(cr_, 4);
    cairo_move_to(cr_, fromX, fromY);
    cairo_line_to(cr_, toX - dx * 8, toY - dy * 8);
    cairo_stroke(cr_);
    cairo_move_to(cr_, toX, toY);
    cairo_line_to(cr_, toX - dx * 14 - dy * 7, toY - dy * 14 + dx * 7);
    cairo_line_to(cr_, toX - dx * 14 + dy * 7, toY - dy * 14 - dx * 7);
    cairo_close_path(cr_);
    cairo_fill(cr_);
  }
}

}  // namespace ninepegs::draw
