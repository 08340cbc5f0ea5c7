// What the drawings share that knows Cairo. Internal to the room.
#pragma once

#include <cairo.h>

#include "ninepegs/draw/board_figure.hpp"

namespace ninepegs::draw {

// A cairo_write_func_t that appends to a std::string.
cairo_status_t appendBytes(void* bytes, const unsigned char* data, unsigned int length);

// In units of the figure.
struct Extent {
  double width = 0, height = 0;
};
Extent boardExtent(const Game& game, const Position& position, const FigureMarks& marks);
// With its upper left corner at the origin.
void drawBoardOn(cairo_t* cr, const Game& game, const Position& position, const FigureMarks& marks);

}  // namespace ninepegs::draw
