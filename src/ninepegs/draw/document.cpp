#include "ninepegs/draw/document.hpp"

#include <cairo-pdf.h>
#include <fmt/format.h>
#include <pango/pangocairo.h>

#include <algorithm>
#include <cmath>

#include "ninepegs/draw/on_cairo.hpp"

namespace ninepegs::draw {
namespace {

constexpr double pageWidth = 595.28, pageHeight = 841.89;        // A4 in points
constexpr double aside = 56, topMargin = 56, bottomMargin = 60;  // margins
constexpr double textWidth = pageWidth - 2 * aside;
constexpr double between = 14;  // boards
constexpr double captionSize = 8;
constexpr double boardMost = 0.36;                     // of a page's height
constexpr const char* epoch = "2000-01-01T00:00:00Z";  // equal books are equal files

}  // namespace

class Document::Pages {
 public:
  explicit Pages(const std::string& title)
      : surface_(cairo_pdf_surface_create_for_stream(appendBytes, &bytes_, pageWidth, pageHeight),
                 cairo_surface_destroy),
        cr_(cairo_create(surface_.get()), cairo_destroy) {
    cairo_pdf_surface_set_metadata(surface_.get(), CAIRO_PDF_METADATA_TITLE, title.c_str());
    cairo_pdf_surface_set_metadata(surface_.get(), CAIRO_PDF_METADATA_CREATE_DATE, epoch);
    cairo_pdf_surface_set_metadata(surface_.get(), CAIRO_PDF_METADATA_MOD_DATE, epoch);
    text(title, aside, textWidth, 24, true);
    rule(2.5);
    y_ += 6;
  }

  void gap(double points) {
    if (y_ > topMargin) y_ += points;
  }
  // Begins another page where less than that is left.
  void need(double points) {
    if (y_ + points > pageHeight - bottomMargin) turn();
  }

  // A text in lines of that width, which may go on on another page.
  void text(const std::string& what, double x, double width, double size, bool bold) {
    Layout layout = layoutOf(what, size, bold);
    pango_layout_set_width(layout.get(), static_cast<int>(width * PANGO_SCALE));
    pango_layout_set_wrap(layout.get(), PANGO_WRAP_WORD_CHAR);
    pango_layout_set_spacing(layout.get(), static_cast<int>(size * 0.25 * PANGO_SCALE));
    for (int i = 0; i < pango_layout_get_line_count(layout.get()); ++i) {
      PangoLayoutLine* line = pango_layout_get_line_readonly(layout.get(), i);
      double height = size * 1.4;
      need(height);
      cairo_set_source_rgb(cr_.get(), 0.17, 0.15, 0.13);
      cairo_move_to(cr_.get(), x, y_ + size * 1.05);
      pango_cairo_show_layout_line(cr_.get(), line);
      y_ += height;
    }
  }

  void rule(double thick) {
    cairo_set_source_rgb(cr_.get(), 0.73, 0.54, 0.31);
    cairo_rectangle(cr_.get(), aside, y_ + 2, textWidth, thick);
    cairo_fill(cr_.get());
    y_ += thick + 5;
  }

  void boards(const Game& game, const std::vector<Document::Board>& list, int aRow) {
    double room = (textWidth - between * (aRow - 1)) / aRow;
    for (std::size_t from = 0; from < list.size(); from += static_cast<std::size_t>(aRow)) {
      std::size_t to = std::min(list.size(), from + static_cast<std::size_t>(aRow));
      std::vector<double> scales;
      double tall = 0;
      for (std::size_t i = from; i < to; ++i) {
        Extent extent = boardExtent(game, list[i].position, list[i].marks);
        scales.push_back(std::min(room / extent.width, boardMost * pageHeight / extent.height));
        tall = std::max(tall, scales.back() * extent.height);
      }
      putHeads(tall + 3 * captionSize + 6);
      gap(6);
      need(tall + 3 * captionSize);
      for (std::size_t i = from; i < to; ++i) {
        cairo_save(cr_.get());
        cairo_translate(cr_.get(), aside + static_cast<double>(i - from) * (room + between), y_);
        cairo_scale(cr_.get(), scales[i - from], scales[i - from]);
        drawBoardOn(cr_.get(), game, list[i].position, list[i].marks);
        cairo_restore(cr_.get());
      }
      y_ += tall + 2;
      double below = y_, lowest = y_;
      for (std::size_t i = from; i < to; ++i) {
        y_ = below;
        text(list[i].caption, aside + static_cast<double>(i - from) * (room + between), room,
             captionSize, false);
        lowest = std::max(lowest, y_);
      }
      y_ = lowest + 6;
    }
  }

  // A heading waits for what stands below it, so that it is not alone at the foot of a page.
  void head(const std::string& text, int level) { heads_.emplace_back(text, level); }
  // Those that wait, above something so tall.
  void putHeads(double below) {
    double tall = 0;
    for (const auto& [text, level] : heads_) tall += level == 1 ? 46 : 25;
    if (!heads_.empty()) need(tall + below);
    for (const auto& [words, level] : std::exchange(heads_, {})) {
      gap(level == 1 ? 16 : 9);
      text(words, aside, textWidth, level == 1 ? 15 : 11, true);
      if (level == 1) rule(1);
    }
  }

  std::string finished() {
    putHeads(0);
    number();
    cairo_status_t status = cairo_status(cr_.get());
    cr_.reset();
    cairo_surface_finish(surface_.get());
    if (status == CAIRO_STATUS_SUCCESS) status = cairo_surface_status(surface_.get());
    if (status != CAIRO_STATUS_SUCCESS)
      throw BadInput(Place{"the document", 0, 0, 1, {}},
                     fmt::format("it could not be drawn ({})", cairo_status_to_string(status)));
    return std::move(bytes_);
  }

 private:
  using Layout = std::unique_ptr<PangoLayout, void (*)(void*)>;

  Layout layoutOf(const std::string& what, double size, bool bold) {
    Layout layout(pango_cairo_create_layout(cr_.get()),
                  [](void* object) { g_object_unref(object); });
    std::unique_ptr<PangoFontDescription, void (*)(PangoFontDescription*)> font(
        pango_font_description_from_string("DejaVu Sans"), pango_font_description_free);
    pango_font_description_set_weight(font.get(), bold ? PANGO_WEIGHT_BOLD : PANGO_WEIGHT_NORMAL);
    pango_font_description_set_absolute_size(font.get(), size * PANGO_SCALE);
    pango_layout_set_font_description(layout.get(), font.get());
    pango_layout_set_text(layout.get(), what.c_str(), -1);
    return layout;
  }
  void turn() {
    number();
    cairo_show_page(cr_.get());
    ++page_;
    y_ = topMargin;
  }
  // The number of the page, at its foot.
  void number() {
    Layout layout = layoutOf(std::to_string(page_), 9, false);
    int w = 0, h = 0;
    pango_layout_get_pixel_size(layout.get(), &w, &h);
    cairo_set_source_rgb(cr_.get(), 0.45, 0.42, 0.38);
    cairo_move_to(cr_.get(), (pageWidth - w) / 2, pageHeight - 46);
    pango_cairo_show_layout(cr_.get(), layout.get());
  }

  std::string bytes_;
  std::unique_ptr<cairo_surface_t, void (*)(cairo_surface_t*)> surface_;
  std::unique_ptr<cairo_t, void (*)(cairo_t*)> cr_;
  double y_ = topMargin;
  int page_ = 1;
  std::vector<std::pair<std::string, int>> heads_;  // text, level
};

Document::Document(const std::string& title) : pages_(std::make_unique<Pages>(title)) {}
Document::~Document() = default;

void Document::heading(const std::string& text, int level) {
  pages_->head(text, level);
}

void Document::paragraph(const std::string& text) {
  pages_->putHeads(40);
  pages_->text(text, aside, textWidth, 10, false);
  pages_->gap(4);
}

void Document::item(const std::string& text, int depth) {
  double in = 14.0 * (depth + 1);
  pages_->putHeads(40);
  pages_->text("\u2022 " + text, aside + in - 9, textWidth - in + 9, 9.5, false);
  pages_->gap(1.5);
}

void Document::boards(const Game& game, const std::vector<Board>& list, int aRow) {
  pages_->boards(game, list, aRow);
}

std::string Document::bytes() {
  return pages_->finished();
}

}  // namespace ninepegs::draw
