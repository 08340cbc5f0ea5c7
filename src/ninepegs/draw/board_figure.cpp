#include "ninepegs/draw/board_figure.hpp"

#include <cairo-pdf.h>
#include <cairo-svg.h>
#include <cairo.h>
#include <fmt/format.h>
#include <pango/pangocairo.h>

#include <cmath>
#include <memory>
#include <numbers>

#include "ninepegs/base/files.hpp"

namespace ninepegs::draw {
namespace {

constexpr double cellSize = 72;  // of one cell, in units of the figure
constexpr double margin = 46;    // for labels
constexpr double captionHeight = 40;
constexpr double pngScale = 1.5;  // pixels a unit

struct Colour {
  double r, g, b;
};
constexpr Colour wood{0.90, 0.80, 0.64}, woodDark{0.84, 0.72, 0.54}, edge{0.42, 0.29, 0.17},
    hole{0.33, 0.23, 0.14}, ink{0.20, 0.15, 0.11}, paper{0.985, 0.975, 0.955},
    ring{0.80, 0.10, 0.32}, path{0.05, 0.42, 0.38};
constexpr Colour pegs[2] = {{0.95, 0.68, 0.13}, {0.27, 0.36, 0.47}};

class Figure {
 public:
  Figure(const Game& game, const Position& position, const FigureMarks& marks)
      : game_(game), board_(game.board()), position_(position), marks_(marks) {}

  double width() const { return std::max(2 * margin + cellSize * board_.columns(), 420.0); }
  double height() const { return margin * 1.6 + cellSize * board_.rows() + captionHeight; }
  void draw(cairo_t* cr);

 private:
  double left() const { return (width() - cellSize * board_.columns()) / 2; }
  double x(Cell cell) const { return left() + cellSize * (board_.drawnX(cell) + 0.5); }
  double y(Cell cell) const { return margin * 0.6 + cellSize * (board_.drawnY(cell) + 0.5); }
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
  void cell(Cell cell);
  void peg(Cell cell, Piece piece);
  void arrows();

  const Game& game_;
  const Geometry& board_;
  const Position& position_;
  const FigureMarks& marks_;
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
  use(paper);
  cairo_paint(cr_);
  double pad = 8, radius = 14;
  double x0 = left() - pad, y0 = margin * 0.6 - pad;
  double x1 = left() + cellSize * board_.columns() + pad;
  double y1 = margin * 0.6 + cellSize * board_.rows() + pad;
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
  if (board_.shape().numbered) return;
  for (int column = 0; column < board_.columns(); ++column)
    text(Geometry::columnName(column + 1), left() + cellSize * (column + 0.5),
         margin * 0.6 + cellSize * board_.rows() + 24, 19, ink, false, cellSize);
  for (int row = 0; row < board_.rows(); ++row)
    text(std::to_string(board_.rowNumber(board_.cellAt(0, row))), left() - 25,
         margin * 0.6 + cellSize * (row + 0.5), 19, ink, false, 30);
}

void Figure::cell(Cell cell) {
  double cx = x(cell), cy = y(cell);
  use(woodDark);
  cairo_rectangle(cr_, cx - cellSize / 2 + 3, cy - cellSize / 2 + 3, cellSize - 6, cellSize - 6);
  cairo_fill(cr_);
  if (std::optional<Piece> piece = game_.pieceAt(position_, cell)) {
    peg(cell, *piece);
  } else {
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

void Figure::peg(Cell cell, Piece piece) {
  double cx = x(cell), cy = y(cell);
  use(edge, 0.35);
  disc(cx + 2, cy + 3, 26);
  cairo_fill(cr_);
  use(pegs[piece.side]);
  disc(cx, cy, 26);
  cairo_fill_preserve(cr_);
  use(edge);
  cairo_set_line_width(cr_, 2);
  cairo_stroke(cr_);
  Colour letter = piece.side == 0 ? ink : paper;
  text(game_.info().kinds[piece.kind].letters[piece.side], cx, cy, 26, letter, true, 44);
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
    bool taken = game_.pieceAt(position_, cell).has_value();
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

void Figure::draw(cairo_t* cr) {
  cr_ = cr;
  wooden();
  labels();
  for (Cell one = 0; one < board_.size(); ++one)
    if (board_.has(one)) cell(one);
  arrows();
  double below = height() - captionHeight / 2 - 8;
  const GameInfo& info = game_.info();
  text(marks_.caption.empty() ? info.title : info.title + ": " + marks_.caption, width() / 2, below,
       18, ink, false, width() - 24);
}

cairo_status_t append(void* bytes, const unsigned char* data, unsigned int length) {
  static_cast<std::string*>(bytes)->append(reinterpret_cast<const char*>(data), length);
  return CAIRO_STATUS_SUCCESS;
}

}  // namespace

void drawBoard(const Game& game, const Position& position, const FigureMarks& marks,
               const std::filesystem::path& path) {
  std::string ending = path.extension().string();
  if (ending != ".svg" && ending != ".png" && ending != ".pdf")
    throw BadInput(Place{path.string(), 0, 0, 1, {}},
                   fmt::format("a figure cannot be written as \"{}\"", ending),
                   "end the file's name in .svg, .png or .pdf");
  Figure figure(game, position, marks);
  std::string bytes;
  using Surface = std::unique_ptr<cairo_surface_t, void (*)(cairo_surface_t*)>;
  double width = figure.width(), height = figure.height();
  bool png = ending == ".png";
  Surface surface(
      png ? cairo_image_surface_create(CAIRO_FORMAT_ARGB32, static_cast<int>(width * pngScale),
                                       static_cast<int>(height * pngScale))
      : ending == ".svg" ? cairo_svg_surface_create_for_stream(append, &bytes, width, height)
                         : cairo_pdf_surface_create_for_stream(append, &bytes, width, height),
      cairo_surface_destroy);
  std::unique_ptr<cairo_t, void (*)(cairo_t*)> cr(cairo_create(surface.get()), cairo_destroy);
  if (png) cairo_scale(cr.get(), pngScale, pngScale);
  figure.draw(cr.get());
  cairo_status_t status = cairo_status(cr.get());
  cr.reset();
  if (png) {
    cairo_surface_write_to_png_stream(surface.get(), append, &bytes);
  } else {
    cairo_surface_finish(surface.get());
  }
  if (status != CAIRO_STATUS_SUCCESS || cairo_surface_status(surface.get()) != CAIRO_STATUS_SUCCESS)
    throw BadInput(
        Place{path.string(), 0, 0, 1, {}},
        fmt::format("the figure could not be drawn ({})", cairo_status_to_string(status)));
  writeFile(path, bytes);
}

}  // namespace ninepegs::draw
