// Figures as files.
#include <cairo-pdf.h>
#include <cairo-svg.h>
#include <cairo.h>
#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <memory>

#include "ninepegs/base/files.hpp"
#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/draw/on_cairo.hpp"

namespace ninepegs::draw {

constexpr double pngScale = 1.5;   // pixels a unit,
constexpr double pngMost = 30000;  // but no more of them than this

cairo_status_t appendBytes(void* bytes, const unsigned char* data, unsigned int length) {
  static_cast<std::string*>(bytes)->append(reinterpret_cast<const char*>(data), length);
  return CAIRO_STATUS_SUCCESS;
}

namespace {

// A file of that ending on which `draw` has drawn, `width` by `height` units.
std::string imageOf(double width, double height, const std::string& ending, const std::string& name,
                    const std::function<void(cairo_t*)>& draw) {
  if (ending != ".svg" && ending != ".png" && ending != ".pdf")
    throw BadInput(Place{name, 0, 0, 1, {}},
                   fmt::format("a figure cannot be written as \"{}\"", ending),
                   "end the file's name in .svg, .png or .pdf");
  std::string bytes;
  using Surface = std::unique_ptr<cairo_surface_t, void (*)(cairo_surface_t*)>;
  bool png = ending == ".png";
  double scale = std::min(pngScale, pngMost / std::max(width, height));
  Surface surface(
      png ? cairo_image_surface_create(CAIRO_FORMAT_ARGB32, static_cast<int>(width * scale),
                                       static_cast<int>(height * scale))
      : ending == ".svg" ? cairo_svg_surface_create_for_stream(appendBytes, &bytes, width, height)
                         : cairo_pdf_surface_create_for_stream(appendBytes, &bytes, width, height),
      cairo_surface_destroy);
  std::unique_ptr<cairo_t, void (*)(cairo_t*)> cr(cairo_create(surface.get()), cairo_destroy);
  if (png) cairo_scale(cr.get(), scale, scale);
  draw(cr.get());
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

}  // namespace

std::string boardImage(const Game& game, const Position& position, const FigureMarks& marks,
                       const std::string& ending, const std::string& name) {
  Extent extent = boardExtent(game, position, marks);
  return imageOf(extent.width, extent.height, ending, name,
                 [&](cairo_t* cr) { drawBoardOn(cr, game, position, marks); });
}

std::string boardStrip(const Game& game, const std::vector<StripBoard>& boards, int aRow,
                       const std::string& ending, const std::string& name) {
  constexpr double gap = 24, small = 0.45;
  Extent most;
  for (const StripBoard& one : boards) {
    Extent extent = boardExtent(game, one.position, one.marks);
    most.width = std::max(most.width, extent.width * small);
    most.height = std::max(most.height, extent.height * small);
  }
  auto columns = std::min<std::size_t>(static_cast<std::size_t>(aRow), boards.size());
  std::size_t rows = (boards.size() + columns - 1) / columns;
  double width = gap + static_cast<double>(columns) * (most.width + gap);
  double height = gap + static_cast<double>(rows) * (most.height + gap);
  return imageOf(width, height, ending, name, [&](cairo_t* cr) {
    cairo_set_source_rgb(cr, 0.985, 0.975, 0.955);
    cairo_paint(cr);
    for (std::size_t i = 0; i < boards.size(); ++i) {
      cairo_save(cr);
      cairo_translate(cr, gap + static_cast<double>(i % columns) * (most.width + gap),
                      gap + static_cast<double>(i / columns) * (most.height + gap));
      cairo_scale(cr, small, small);
      drawBoardOn(cr, game, boards[i].position, boards[i].marks);
      cairo_restore(cr);
    }
  });
}

void drawBoard(const Game& game, const Position& position, const FigureMarks& marks,
               const std::filesystem::path& file) {
  writeFile(file, boardImage(game, position, marks, file.extension().string(), file.string()));
}

}  // namespace ninepegs::draw
