// Figures as files.
#include <cairo-pdf.h>
#include <cairo-svg.h>
#include <cairo.h>
#include <fmt/format.h>

#include <memory>

#include "ninepegs/base/files.hpp"
#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/draw/on_cairo.hpp"

namespace ninepegs::draw {

constexpr double pngScale = 1.5;  // pixels a unit

cairo_status_t appendBytes(void* bytes, const unsigned char* data, unsigned int length) {
  static_cast<std::string*>(bytes)->append(reinterpret_cast<const char*>(data), length);
  return CAIRO_STATUS_SUCCESS;
}

std::string boardImage(const Game& game, const Position& position, const FigureMarks& marks,
                       const std::string& ending, const std::string& name) {
  if (ending != ".svg" && ending != ".png" && ending != ".pdf")
    throw BadInput(Place{name, 0, 0, 1, {}},
                   fmt::format("a figure cannot be written as \"{}\"", ending),
                   "end the file's name in .svg, .png or .pdf");
  Extent extent = boardExtent(game, position, marks);
  std::string bytes;
  using Surface = std::unique_ptr<cairo_surface_t, void (*)(cairo_surface_t*)>;
  double width = extent.width, height = extent.height;
  bool png = ending == ".png";
  Surface surface(
      png ? cairo_image_surface_create(CAIRO_FORMAT_ARGB32, static_cast<int>(width * pngScale),
                                       static_cast<int>(height * pngScale))
      : ending == ".svg" ? cairo_svg_surface_create_for_stream(appendBytes, &bytes, width, height)
                         : cairo_pdf_surface_create_for_stream(appendBytes, &bytes, width, height),
      cairo_surface_destroy);
  std::unique_ptr<cairo_t, void (*)(cairo_t*)> cr(cairo_create(surface.get()), cairo_destroy);
  if (png) cairo_scale(cr.get(), pngScale, pngScale);
  drawBoardOn(cr.get(), game, position, marks);
  cairo_status_t status = cairo_status(cr.get());
  cr.reset();
  if (png) {
    cairo_surface_write_to_png_stream(surface.get(), appendBytes, &bytes);
  } else {
    cairo_surface_finish(surface.get());
  }
  if (status != CAIRO_STATUS_SUCCESS || cairo_surface_status(surface.get()) != CAIRO_STATUS_SUCCESS)
    throw BadInput(Place{name, 0, 0, 1, {}}, fmt::format("the figure could not be drawn ({})",
                                                         cairo_status_to_string(status)));
  return bytes;
}

void drawBoard(const Game& game, const Position& position, const FigureMarks& marks,
               const std::filesystem::path& path) {
  writeFile(path, boardImage(game, position, marks, path.extension().string(), path.string()));
}

}  // namespace ninepegs::draw
