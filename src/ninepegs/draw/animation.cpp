// A game as an animated picture: the PNG of each board, put together as the third edition of the
// PNG specification (W3C, 2025) says: one picture whose first frame is what others show of it.
#include <cairo.h>
#include <fmt/format.h>

#include <algorithm>
#include <boost/crc.hpp>
#include <memory>

#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/draw/on_cairo.hpp"

namespace ninepegs::draw {
namespace {

constexpr std::size_t signatureBytes = 8;

std::string number(std::uint32_t value, int bytes = 4) {
  std::string out;
  for (int i = bytes - 1; i >= 0; --i) out += static_cast<char>((value >> (8 * i)) & 255);
  return out;
}

std::uint32_t numberAt(const std::string& bytes, std::size_t at) {
  std::uint32_t out = 0;
  for (std::size_t i = 0; i < 4; ++i) out = out << 8 | static_cast<unsigned char>(bytes[at + i]);
  return out;
}

std::string chunk(const std::string& name, const std::string& data) {
  boost::crc_32_type sum;
  sum.process_bytes(name.data(), name.size());
  sum.process_bytes(data.data(), data.size());
  return number(static_cast<std::uint32_t>(data.size())) + name + data + number(sum.checksum());
}

// The data of all chunks of that name, one behind the other.
std::string dataOf(const std::string& png, const std::string& name) {
  std::string out;
  for (std::size_t at = signatureBytes; at + 12 <= png.size();) {
    std::uint32_t size = numberAt(png, at);
    if (png.compare(at + 4, 4, name) == 0) out += png.substr(at + 8, size);
    at += 12 + size;
  }
  return out;
}

std::string frame(const Game& game, const StripBoard& board, Extent extent,
                  const std::string& name) {
  std::string bytes;
  std::unique_ptr<cairo_surface_t, void (*)(cairo_surface_t*)> surface(
      cairo_image_surface_create(CAIRO_FORMAT_RGB24, static_cast<int>(extent.width),
                                 static_cast<int>(extent.height)),
      cairo_surface_destroy);
  std::unique_ptr<cairo_t, void (*)(cairo_t*)> cr(cairo_create(surface.get()), cairo_destroy);
  cairo_set_source_rgb(cr.get(), 0.985, 0.975, 0.955);
  cairo_paint(cr.get());
  drawBoardOn(cr.get(), game, board.position, board.marks);
  cr.reset();
  cairo_status_t status = cairo_surface_write_to_png_stream(surface.get(), appendBytes, &bytes);
  if (status != CAIRO_STATUS_SUCCESS)
    throw BadInput(Place{name, 0, 0, 1, {}}, fmt::format("the picture could not be drawn ({})",
                                                         cairo_status_to_string(status)));
  return bytes;
}

}  // namespace

std::string boardAnimation(const Game& game, const std::vector<StripBoard>& boards,
                           double secondsEach, const std::string& name) {
  constexpr double lastTimes = 3;  // so much longer the last board stays
  Extent most;
  for (const StripBoard& one : boards) {
    Extent extent = boardExtent(game, one.position, one.marks);
    most.width = std::max(most.width, extent.width);
    most.height = std::max(most.height, extent.height);
  }
  std::string out;
  std::uint32_t sequence = 0;
  for (std::size_t i = 0; i < boards.size(); ++i) {
    std::string png = frame(game, boards[i], most, name);
    if (i == 0)
      out = png.substr(0, signatureBytes) + chunk("IHDR", dataOf(png, "IHDR")) +
            chunk("acTL", number(static_cast<std::uint32_t>(boards.size())) + number(0));
    double seconds = secondsEach * (i + 1 == boards.size() ? lastTimes : 1);
    // Its place and size, how long it stays in hundredths of a second, and that it is drawn over
    // what was there.
    out += chunk("fcTL", number(sequence++) + number(static_cast<std::uint32_t>(most.width)) +
                             number(static_cast<std::uint32_t>(most.height)) + number(0) +
                             number(0) + number(static_cast<std::uint32_t>(seconds * 100), 2) +
                             number(100, 2) + std::string(2, '\0'));
    std::string data = dataOf(png, "IDAT");
    out += i == 0 ? chunk("IDAT", data) : chunk("fdAT", number(sequence++) + data);
  }
  return out + chunk("IEND", "");
}

}  // namespace ninepegs::draw
