#include "ninepegs/draw/board_figure.hpp"

#include <cairo.h>
#include <fmt/format.h>
#include <pango/pangocairo.h>

#include <cmath>
#include <memory>
#include <numbers>

#include "ninepegs/draw/on_cairo.hpp"
#include "ninepegs/game/memory.hpp"

namespace ninepegs::draw {
namespace {

constexpr double cellSize = 72;  // of one cell, in units of the figure
constexpr double margin = 46;    // for labels
constexpr double captionHeight = 40;

struct Colour {
  double r, g, b;
};
constexpr Colour wood{0.90, 0.80, 0.64}, woodDark{0.84, 0.72, 0.54}, woodDarker{0.78, 0.65, 0.47},
    edge{0.42, 0.29, 0.17}, hole{0.33, 0.23, 0.14}, ink{0.20, 0.15, 0.11},
    paper{0.985, 0.975, 0.955}, ring{0.80, 0.10, 0.32}, path{0.05, 0.42, 0.38};
constexpr double legendHeight = 22;  // of a line that says what the picture cannot
// Told apart by people who see no red or no green.
constexpr Colour markColours[4] = {
    {0.00, 0.45, 0.70}, {0.84, 0.37, 0.00}, {0.00, 0.62, 0.45}, {0.45, 0.20, 0.55}};
constexpr const char* corners[4] = {"upper left", "upper right", "lower left", "lower right"};
constexpr Colour pegs[2] = {{0.95, 0.68, 0.13}, {0.27, 0.36, 0.47}};

class Figure {
 public:
  Figure(const Game& game, const Position& position, const FigureMarks& marks)
      : game_(game),
        board_(game.board()),
        view_(marks.viewer >= 0 ? game.viewFor(position, marks.viewer)
                                : View{position, {}, {}, {}, {}}),
        marks_(marks),
        memory_(memoryOf(game, view_.shown)),
        size_(board_.drawnSize()) {
    if (marks.viewer >= 0) memory_.marks.clear();  // what it sees of them is shown by letters
    for (std::size_t i = 0; i < memory_.marks.size(); ++i)
      legend_.push_back(
          fmt::format("{} corner: {}{}", corners[i % 4], memory_.marks[i].name,
                      onOther(memory_.marks[i].name, 0) || onOther(memory_.marks[i].name, 1)
                          ? ", on the other side's board"
                          : ""));
    for (std::size_t i = game.boards() > 1 ? 0 : 1; i < memory_.numbers.size(); ++i) {
      std::string line = memory_.numbers[i].name;
      for (const auto& [cell, value] : memory_.numbers[i].values)
        if (value != 0) line += fmt::format(" {} on {}", value, board_.label(cell));
      legend_.push_back(line);
    }
    legend_.insert(legend_.end(), memory_.others.begin(), memory_.others.end());
  }

  double width() const {
    double boards = cellSize * size_.x * game_.boards() + 2 * margin * game_.boards();
    return std::max(boards, 420.0);
  }
  double height() const {
    return top() + margin + cellSize * size_.y +
           legendHeight * static_cast<double>(legend_.size()) +
           (marks_.captioned ? captionHeight : 0);
  }
  void draw(cairo_t* cr);

 private:
  // Of two boards, each has its name above it.
  double top() const { return game_.boards() > 1 ? margin * 1.1 : margin * 0.6; }
  double left() const {
    double room = width() / game_.boards();
    return room * layer_ + (room - cellSize * size_.x) / 2;
  }
  double x(Cell cell) const { return left() + cellSize * board_.drawnAt(cell).x; }
  double y(Cell cell) const { return top() + cellSize * board_.drawnAt(cell).y; }
  bool points() const { return board_.shape().kind == Shape::points; }
  void use(Colour colour, double alpha = 1) {
    cairo_set_source_rgba(cr_, colour.r, colour.g, colour.b, alpha);
  }
  void disc(double cx, double cy, double radius) {
    cairo_new_sub_path(cr_);
    cairo_arc(cr_, cx, cy, radius, 0, 2 * std::numbers::pi);
  }
  void text(const std::string& what, double cx, double cy, double size, Colour colour, bool bold,
            double room);
  void wooden();
  void labels();
  void lines();
  void field(Cell cell);
  void cell(Cell cell);
  bool seen(Cell cell);
  void peg(Cell cell, Piece piece);
  void edges(Cell cell, Piece piece);
  void arrows();
  // On boards of one each, a mark of a side is drawn on the other's board.
  bool onOther(const std::string& mark, int layer) const {
    return game_.boards() > 1 && mark.ends_with(" of " + game_.info().sides[layer]);
  }
  void number(Cell cell, bool beside);
  void corner(Cell cell);
  void board();

  const Game& game_;
  const Geometry& board_;
  View view_;
  const FigureMarks& marks_;
  Memory memory_;
  std::vector<std::string> legend_;  // lines below the board
  DrawnAt size_;
  int layer_ = 0;  // of boards of one each: whose
  cairo_t* cr_ = nullptr;
};

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
  bool even = (board_.columnNumber(cell) + board_.rowNumber(cell)) % 2 == 0;
  use(!board_.isHexes() && even ? woodDarker : woodDark);
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
  std::optional<Piece> piece = game_.pieceAt(view_.shown, cell, layer_);
  if (piece) peg(cell, *piece);
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
    disc(cx, cy, target ? 15 : 9);
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
  for (const auto& [where, value] : memory_.numbers.front().values)
    if (where == cell && (!beside || value != 0))
      text(std::to_string(value), x(cell), y(cell) + (beside ? cellSize * 0.4 : 0),
           beside ? 14 : 28, value == 0 ? edge : ink, !beside, cellSize - 8);
}

// Marks, each in a corner of its own, so that they can be told without colours, too.
void Figure::corner(Cell cell) {
  double reach = board_.isHexes() ? cellSize * 0.27 : cellSize / 2 - 4, leg = 15;
  for (std::size_t i = 0; i < memory_.marks.size(); ++i) {
    const Memory::Marked& mark = memory_.marks[i];
    if (!mark.cells[cell] || onOther(mark.name, layer_)) continue;
    double right = i % 2 == 0 ? -1 : 1, down = i % 4 < 2 ? -1 : 1;
    double cx = x(cell) + right * reach, cy = y(cell) + down * reach;
    use(markColours[i % 4]);
    cairo_move_to(cr_, cx, cy);
    cairo_line_to(cr_, cx - right * leg, cy);
    cairo_line_to(cr_, cx, cy - down * leg);
    cairo_close_path(cr_);
    cairo_fill(cr_);
  }
}

void Figure::peg(Cell cell, Piece piece) {
  double cx = x(cell), cy = y(cell);
  const GameInfo::Kind& kind = game_.info().kinds[piece.kind];
  double radius = kind.edges.empty() ? 26 : 17;
  if (!kind.edges.empty()) edges(cell, piece);
  use(edge, 0.35);
  disc(cx + 2, cy + 3, radius);
  cairo_fill(cr_);
  use(piece.side < 0 ? hole : pegs[piece.side]);
  disc(cx, cy, radius);
  cairo_fill_preserve(cr_);
  use(edge);
  cairo_set_line_width(cr_, 2);
  cairo_stroke(cr_);
  Colour letter = piece.side == 0 ? ink : paper;
  text(kind.letters[piece.side < 0 ? 0 : piece.side], cx, cy, radius, letter, true, 44);
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

void Figure::board() {
  wooden();
  labels();
  lines();
  for (Cell one = 0; one < board_.size(); ++one)
    if (board_.has(one)) cell(one);
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

}  // namespace

Extent boardExtent(const Game& game, const Position& position, const FigureMarks& marks) {
  Figure figure(game, position, marks);
  return {figure.width(), figure.height()};
}

void drawBoardOn(cairo_t* cr, const Game& game, const Position& position,
                 const FigureMarks& marks) {
  Figure(game, position, marks).draw(cr);
}

}  // namespace ninepegs::draw
