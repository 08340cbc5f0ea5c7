// A board as a figure, while it is drawn. Internal to the room: board_figure.cpp has the board and
// its cells, board_pieces.cpp what stands and lies on them.
#pragma once

#include <cairo.h>
#include <fmt/format.h>

#include <cmath>
#include <memory>
#include <numbers>

#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/game/memory.hpp"

namespace ninepegs::draw {
inline constexpr double cellSize = 72;  // of one cell, in units of the figure
inline constexpr double margin = 46;    // for labels
inline constexpr double captionHeight = 40;

struct Colour {
  double r, g, b;
};
inline constexpr Colour wood{0.90, 0.80, 0.64}, woodDark{0.84, 0.72, 0.54},
    woodDarker{0.78, 0.65, 0.47}, edge{0.42, 0.29, 0.17}, hole{0.33, 0.23, 0.14},
    ink{0.20, 0.15, 0.11}, paper{0.985, 0.975, 0.955}, ring{0.80, 0.10, 0.32},
    path{0.05, 0.42, 0.38};
inline constexpr double legendHeight = 22;  // of a line that says what the picture cannot
// Told apart by people who see no red or no green.
inline constexpr Colour markColours[4] = {
    {0.00, 0.45, 0.70}, {0.84, 0.37, 0.00}, {0.00, 0.62, 0.45}, {0.45, 0.20, 0.55}};
inline constexpr const char* corners[4] = {"upper left", "upper right", "lower left",
                                           "lower right"};
inline constexpr Colour pegs[2] = {{0.95, 0.68, 0.13}, {0.27, 0.36, 0.47}};

// A step to a neighbour across a side of a square; none for the others.
inline DrawnAt stepOf(const std::string& direction) {
  if (direction == "north") return {0, -1};
  if (direction == "south") return {0, 1};
  if (direction == "east") return {1, 0};
  if (direction == "west") return {-1, 0};
  return {0, 0};
}

class Figure {
 public:
  Figure(const Game& game, const Position& position, const FigureMarks& marks)
      : game_(game),
        board_(game.board()),
        looks_(game.looks()),
        view_(marks.viewer >= 0 ? game.viewFor(position, marks.viewer)
                                : View{position, {}, {}, {}, {}}),
        marks_(marks),
        memory_(memoryOf(game, view_.shown)),
        size_(board_.drawnSize()) {
    if (marks.viewer >= 0) memory_.marks.clear();  // what it sees of them is shown by letters
    numberMarks();
    for (std::size_t i = 0; i < memory_.marks.size(); ++i) {
      const std::string& name = memory_.marks[i].name;
      legend_.push_back(
          fmt::format("{}: {}{}", signOf(i), name,
                      onOther(name, 0) || onOther(name, 1) ? ", on the other side's board" : ""));
    }
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
  void numberMarks();
  std::string signOf(std::size_t mark) const;
  void mark(Cell cell, std::size_t index);
  void hatch(Cell cell, std::size_t index);
  void pips(Cell cell, std::int64_t count);
  void shape(double cx, double cy, double radius, PieceLook look);
  void stroke(Cell cell, Piece piece);
  void borders();
  void board();

  const Game& game_;
  const Geometry& board_;
  const Looks& looks_;
  View view_;
  const FigureMarks& marks_;
  Memory memory_;
  std::vector<std::size_t> signs_;   // of the marks, counted among those of one look
  std::vector<std::string> legend_;  // lines below the board
  DrawnAt size_;
  int layer_ = 0;  // of boards of one each: whose
  cairo_t* cr_ = nullptr;
};

}  // namespace ninepegs::draw
