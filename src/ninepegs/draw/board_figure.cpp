#include <pango/pangocairo.h>

#include "ninepegs/draw/figure.hpp"
#include "ninepegs/draw/on_cairo.hpp"

namespace ninepegs::draw {

// Text around a centre, made smaller where it would be wider than `room`.
void Figure::text(const std::string& what, double cx, double cy, double size, Colour colour,
                  bool bold, double room) {
  std::unique_ptr<PangoLayout, void (*)(void*)> layout(
      pango_cairo_create_layout(cr_), [](void* object) { g_object_unref(object); });
  std::unique_ptr<PangoFontDescription, void (*)(PangoFontDescription*)> font(
      pango_font_description_from_string("DejaVu Sans"), pango_font_description_free);
  pango_font_description_set_weight(font.get(), bold ? PANGO_WEIGHT_BOLD : PANGO_WEIGHT_NORMAL);
  pango_layout_set_text(layout.get(), what.c_str(), -1);
  int w = 0, h = 0;
  for (; size > 4; size *= 0.9) {
    pango_font_description_set_absolute_size(font.get(), size * PANGO_SCALE);
    pango_layout_set_font_description(layout.get(), font.get());
    pango_layout_get_pixel_size(layout.get(), &w, &h);
    if (w <= room) break;
  }
  use(colour);
  cairo_move_to(cr_, cx - w / 2.0, cy - h / 2.0);
  pango_cairo_show_layout(cr_, layout.get());
}

void Figure::wooden() {
  double pad = points() ? 2 : 8, radius = 14;
  double aside = board_.isHexes() ? 34 : pad;  // room for the labels in front of the rows
  double x0 = left() - aside, y0 = top() - pad;
  double x1 = left() + cellSize * size_.x + aside, y1 = top() + cellSize * size_.y + pad;
  cairo_new_sub_path(cr_);
  cairo_arc(cr_, x1 - radius, y0 + radius, radius, -std::numbers::pi / 2, 0);
  cairo_arc(cr_, x1 - radius, y1 - radius, radius, 0, std::numbers::pi / 2);
  cairo_arc(cr_, x0 + radius, y1 - radius, radius, std::numbers::pi / 2, std::numbers::pi);
  cairo_arc(cr_, x0 + radius, y0 + radius, radius, std::numbers::pi, 3 * std::numbers::pi / 2);
  cairo_close_path(cr_);
  use(wood);
  cairo_fill_preserve(cr_);
  use(edge);
  cairo_set_line_width(cr_, 3);
  cairo_stroke(cr_);
}

void Figure::labels() {
  if (game_.boards() > 1)
    text(game_.info().sides[layer_], left() + cellSize * size_.x / 2, margin * 0.45, 19, ink, true,
         cellSize * size_.x);
  if (board_.shape().numbered) return;
  for (const PictureRow& row : board_.picture()) {
    Cell first = row.cells.front();
    bool hexagon = board_.shape().kind == Shape::hexagon;
    if (row.level == 1)
      text(hexagon ? board_.label(first) : std::to_string(board_.rowNumber(first)),
           board_.isHexes() ? x(first) - cellSize * 0.72 : left() - 25, y(first), 19, ink, false,
           30);
    bool lowest = row.cells == board_.picture()[board_.rows() - 1].cells ||
                  (row.level > 1 && board_.drawnY(first) == board_.rows() - 1);
    for (Cell cell : row.cells)
      if (lowest && !hexagon)
        text(Geometry::columnName(board_.columnNumber(cell)), x(cell),
             top() + cellSize * size_.y + 24, 19, ink, false, cellSize);
  }
}

// What joins the points of a board of points.
void Figure::lines() {
  if (!points()) return;
  use(edge);
  cairo_set_line_width(cr_, 4);
  for (const Direction& direction : board_.directions()) {
    for (Cell one = 0; one < board_.size(); ++one) {
      if (direction.next[one] < 0) continue;
      cairo_move_to(cr_, x(one), y(one));
      cairo_line_to(cr_, x(direction.next[one]), y(direction.next[one]));
      cairo_stroke(cr_);
    }
  }
}

void Figure::field(Cell cell) {
  double cx = x(cell), cy = y(cell);
  if (points()) return;
  if (looks_.corners[cell]) {
    use(edge);
    disc(cx, cy, 7);
    cairo_fill(cr_);
    return;
  }
  if (looks_.edges[cell]) {
    bool across = runsAcross(looks_, board_, cell);
    double w = across ? cellSize : 10, h = across ? 10 : cellSize;
    use(woodDarker);
    cairo_rectangle(cr_, cx - w / 2, cy - h / 2, w, h);
    cairo_fill(cr_);
    return;
  }
  if (looks_.corners.any()) {  // a square between its corners
    use(woodDark);
    cairo_rectangle(cr_, cx - cellSize + 14, cy - cellSize + 14, 2 * cellSize - 28,
                    2 * cellSize - 28);
    cairo_fill(cr_);
    return;
  }
  bool hollows = !memory_.numbers.empty() && looks_.pips.count(memory_.numbers.front().name) > 0;
  bool even = (board_.columnNumber(cell) + board_.rowNumber(cell)) % 2 == 0;
  use(!board_.isHexes() && even && !hollows ? woodDarker : woodDark);
  if (board_.isHexes()) {
    double radius = cellSize / std::sqrt(3.0) - 3;
    cairo_new_path(cr_);
    for (int corner = 0; corner < 6; ++corner) {
      double angle = (corner * 60 + 30) * std::numbers::pi / 180;
      cairo_line_to(cr_, cx + radius * std::cos(angle), cy + radius * std::sin(angle));
    }
    cairo_close_path(cr_);
  } else {
    cairo_rectangle(cr_, cx - cellSize / 2 + 3, cy - cellSize / 2 + 3, cellSize - 6, cellSize - 6);
  }
  cairo_fill(cr_);
}

// A letter that a view shows; true if there is one.
bool Figure::seen(Cell cell) {
  for (const View::Mark& mark : view_.marks) {
    if (mark.board != layer_ || !mark.cells[cell]) continue;
    bool hit = game_.pieceAt(view_.shown, cell, layer_).has_value();
    text(mark.letter, x(cell), y(cell), hit ? 44 : 32, ring, true, 50);
    return true;
  }
  return false;
}

void Figure::cell(Cell cell) {
  double cx = x(cell), cy = y(cell);
  field(cell);
  for (std::size_t i = 0; i < memory_.marks.size(); ++i)
    if (looks_.ofMark(memory_.marks[i].name) == MarkLook::shade) hatch(cell, i);
  std::optional<Piece> piece = game_.pieceAt(view_.shown, cell, layer_);
  if (piece && looks_.edges[cell])
    stroke(cell, *piece);
  else if (piece)
    peg(cell, *piece);
  bool marked = seen(cell);
  bool numbers = !memory_.numbers.empty() && game_.boards() == 1;
  if (numbers) number(cell, piece.has_value());
  corner(cell);
  if (!piece && !marked && numbers) {
    if (marks_.targets[cell]) {
      use(path);
      cairo_set_line_width(cr_, 4);
      disc(cx, cy, 26);
      cairo_stroke(cr_);
    }
  } else if (!piece && !marked) {
    bool target = marks_.targets[cell];
    use(target ? path : hole);
    if (target || looks_.corners.none()) disc(cx, cy, target ? 15 : 9);
    cairo_fill(cr_);
    if (board_.shape().numbered)
      text(board_.label(cell), cx - cellSize / 2 + 15, cy - cellSize / 2 + 15, 14, ink, false, 24);
  }
  if (marks_.shown[cell] || cell == marks_.origin) {
    use(marks_.shown[cell] ? ring : path);
    cairo_set_line_width(cr_, 5);
    disc(cx, cy, 31);
    cairo_stroke(cr_);
  }
}

// The number on a cell: in its middle, or, where something stands, below it.
void Figure::number(Cell cell, bool beside) {
  bool seeds = looks_.pips.count(memory_.numbers.front().name) > 0 && !beside;
  for (const auto& [where, value] : memory_.numbers.front().values)
    if (where == cell && seeds)
      pips(cell, value);
    else if (where == cell && (!beside || value != 0))
      text(std::to_string(value), x(cell), y(cell) + (beside ? cellSize * 0.4 : 0),
           beside ? 14 : 28, value == 0 ? edge : ink, !beside, cellSize - 8);
}

void Figure::board() {
  wooden();
  labels();
  lines();
  for (Cell one = 0; one < board_.size(); ++one)
    if (board_.has(one)) cell(one);
  borders();
  arrows();
}

void Figure::draw(cairo_t* cr) {
  cr_ = cr;
  use(paper);
  cairo_rectangle(cr_, 0, 0, width(), height());
  cairo_fill(cr_);
  for (layer_ = 0; layer_ < game_.boards(); ++layer_) board();
  for (std::size_t i = 0; i < legend_.size(); ++i)
    text(legend_[i], width() / 2,
         top() + margin + cellSize * size_.y + legendHeight * (static_cast<double>(i) + 0.4), 15,
         ink, false, width() - 24);
  if (!marks_.captioned) return;
  double below = height() - captionHeight / 2 - 8;
  const GameInfo& info = game_.info();
  text(marks_.caption.empty() ? info.title : info.title + ": " + marks_.caption, width() / 2, below,
       18, ink, false, width() - 24);
}

Extent boardExtent(const Game& game, const Position& position, const FigureMarks& marks) {
  Figure figure(game, position, marks);
  return {figure.width(), figure.height()};
}

void drawBoardOn(cairo_t* cr, const Game& game, const Position& position,
                 const FigureMarks& marks) {
  Figure(game, position, marks).draw(cr);
}

}  // namespace ninepegs::draw
