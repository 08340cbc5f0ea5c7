// Directions, lines and symmetries.
#include <algorithm>
#include <map>
#include <numeric>
#include <set>
#include <tuple>
#include <unordered_set>

#include "ninepegs/board/geometry.hpp"

namespace ninepegs {
namespace {

struct Compass {
  const char* name;
  int dx, dy;  // to the right and up, as drawn in the grid
};

// Clockwise; the opposite direction stands half a round further on.
constexpr Compass compass[] = {{"north", 0, 1},      {"northeast", 1, 1}, {"east", 1, 0},
                               {"southeast", 1, -1}, {"south", 0, -1},    {"southwest", -1, -1},
                               {"west", -1, 0},      {"northwest", -1, 1}};
constexpr Compass hexCompass[] = {{"northeast", 0, 1},  {"east", 1, 0},  {"southeast", 1, -1},
                                  {"southwest", 0, -1}, {"west", -1, 0}, {"northwest", -1, 1}};

struct Way {
  std::string name;
  int dx = 0, dy = 0, dz = 0;
};

std::vector<Way> waysOf(const Geometry& board) {
  std::vector<Way> ways;
  if (board.isHexes()) {
    for (const Compass& way : hexCompass) ways.push_back({way.name, way.dx, way.dy, 0});
    return ways;
  }
  for (const Compass& way : compass) ways.push_back({way.name, way.dx, way.dy, 0});
  if (board.levels() == 1) return ways;
  for (int dz : {1, -1}) {
    std::string name = dz > 0 ? "up" : "down";
    ways.push_back({name, 0, 0, dz});
    for (const Compass& way : compass) ways.push_back({name + "-" + way.name, way.dx, way.dy, dz});
  }
  return ways;
}

}  // namespace

void Geometry::makeDirections() {
  directions_.clear();
  if (shape_.kind == Shape::points)
    makePointDirections();
  else
    makeGridDirections();
}

void Geometry::makeGridDirections() {
  std::vector<Way> ways = waysOf(*this);
  for (const Way& way : ways) {
    Direction direction{way.name, 0, std::vector<Cell>(size(), -1)};
    for (std::size_t other = 0; other < ways.size(); ++other)
      if (ways[other].dx == -way.dx && ways[other].dy == -way.dy && ways[other].dz == -way.dz)
        direction.opposite = static_cast<int>(other);
    for (Cell cell = 0; cell < size(); ++cell) {
      int level = levelNumber(cell) + way.dz;
      if (!all_[cell] || level < 1 || level > shape_.levels) continue;
      std::optional<Cell> flat = offset(cell, way.dx, way.dy);
      if (way.dz != 0) {
        // Through the other level's cell, even where this level leaves the one beside it out.
        Cell under = cell + way.dz * shape_.columns * shape_.rows;
        flat = offset(under, way.dx, way.dy);
      }
      if (flat && *flat != cell) direction.next[cell] = *flat;
    }
    directions_.push_back(std::move(direction));
  }
}

// Lines that share no point can share a pair of directions.
void Geometry::makePointDirections() {
  std::vector<CellSet> taken;  // points of the lines of each pair
  for (const std::vector<Cell>& line : joins_) {
    CellSet cells;
    for (Cell cell : line) cells.set(cell);
    std::size_t pair = 0;
    while (pair < taken.size() && (taken[pair] & cells).any()) ++pair;
    if (pair == taken.size()) {
      taken.emplace_back();
      int first = static_cast<int>(2 * pair);
      std::string name = "line " + std::to_string(pair + 1);
      directions_.push_back({name + " onwards", first + 1, std::vector<Cell>(size(), -1)});
      directions_.push_back({name + " back", first, std::vector<Cell>(size(), -1)});
    }
    taken[pair] |= cells;
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
      if (!all_[line[i]] || !all_[line[i + 1]]) continue;
      directions_[2 * pair].next[line[i]] = line[i + 1];
      directions_[2 * pair + 1].next[line[i + 1]] = line[i];
    }
  }
}

std::optional<int> Geometry::direction(std::string_view name) const {
  for (std::size_t i = 0; i < directions_.size(); ++i)
    if (directions_[i].name == name) return static_cast<int>(i);
  return std::nullopt;
}

std::vector<int> Geometry::directionGroup(std::string_view name) const {
  std::vector<int> out;
  bool orthogonal = name == "orthogonal", diagonal = name == "diagonal";
  if (isHexes() || shape_.kind == Shape::points) {
    if (name == "any")
      for (std::size_t i = 0; i < directions_.size(); ++i) out.push_back(static_cast<int>(i));
    else if (std::optional<int> one = direction(name))
      out.push_back(*one);
    return out;
  }
  std::vector<Way> ways = waysOf(*this);
  for (std::size_t i = 0; i < ways.size(); ++i) {
    int parts = (ways[i].dx != 0 ? 1 : 0) + (ways[i].dy != 0 ? 1 : 0) + (ways[i].dz != 0 ? 1 : 0);
    if (name == "any" || (orthogonal && parts == 1) || (diagonal && parts > 1) ||
        ways[i].name == name)
      out.push_back(static_cast<int>(i));
  }
  return out;
}

std::vector<std::string> Geometry::directionGroupNames() {
  std::vector<std::string> names = {"any", "orthogonal", "diagonal"};
  for (const Compass& way : compass) names.emplace_back(way.name);
  for (const char* level : {"up", "down"}) {
    names.emplace_back(level);
    for (const Compass& way : compass) names.push_back(std::string(level) + "-" + way.name);
  }
  return names;
}

std::vector<int> Geometry::axes(const std::vector<int>& directions) const {
  std::set<int> axes;
  for (int direction : directions) axes.insert(std::min(direction, opposite(direction)));
  return {axes.begin(), axes.end()};
}

int Geometry::turned(int direction, int places) const {
  int round = isHexes() ? 6 : shape_.kind == Shape::square ? 8 : 0;
  if (direction < 0 || direction >= round) return -1;
  return (direction + places + round) % round;
}

std::optional<Cell> Geometry::step(Cell cell, int direction) const {
  Cell to = directions_[direction].next[cell];
  return to < 0 ? std::nullopt : std::optional<Cell>(to);
}

CellSet Geometry::stepped(const CellSet& cells, int direction) const {
  CellSet out;
  for (Cell cell = 0; cell < size(); ++cell)
    if (cells[cell] && directions_[direction].next[cell] >= 0)
      out.set(directions_[direction].next[cell]);
  return out;
}

std::vector<std::vector<Cell>> Geometry::lines(int length, const std::vector<int>& axes) const {
  std::vector<std::vector<Cell>> out;
  std::unordered_set<CellSet> seen;
  for (int axis : axes) {
    const std::vector<Cell>& next = directions_[axis].next;
    for (Cell start = 0; start < size(); ++start) {
      if (!all_[start]) continue;
      CellSet cells;
      int have = 0;
      for (Cell cell = start; cell >= 0 && !cells[cell] && have < length; cell = next[cell])
        cells.set(cell), ++have;
      if (have < length || !seen.insert(cells).second) continue;
      std::vector<Cell>& run = out.emplace_back();
      for (Cell cell = start; have > 0; --have, cell = next[cell]) run.push_back(cell);
    }
  }
  return out;
}

int Geometry::longestLine(const std::vector<int>& axes) const {
  int longest = 0;
  for (int axis : axes)
    for (Cell start = 0; start < size(); ++start) {
      CellSet cells;
      for (Cell cell = all_[start] ? start : -1; cell >= 0 && !cells[cell];
           cell = directions_[axis].next[cell])
        cells.set(cell);
      longest = std::max(longest, static_cast<int>(cells.count()));
    }
  return longest;
}

std::vector<std::string> Geometry::symmetryNames() {
  return {"reflection of columns", "reflection of rows", "reflection of levels", "half turn",
          "quarter turn",          "sixth turn",         "transposition",        "all"};
}

Symmetry Geometry::identity() const {
  Symmetry out{"", std::vector<Cell>(static_cast<std::size_t>(size()))};
  std::iota(out.image.begin(), out.image.end(), 0);
  return out;
}

std::vector<Symmetry> Geometry::symmetries(std::string_view name) const {
  std::vector<Symmetry> out;
  // Twice the distance from the left, the row from the top, and the level, as drawn.
  using Place = std::tuple<int, int, int>;
  std::map<Place, Cell> cells;
  std::map<Cell, Place> places;
  int height = shape_.rows - 1, top = shape_.levels, lastX = 0;
  for (std::size_t i = 0; i < picture_.size(); ++i) {
    const PictureRow& row = picture_[i];
    for (std::size_t k = 0; k < row.cells.size(); ++k) {
      Place place{static_cast<int>(2 * k) + row.indent, static_cast<int>(i) % shape_.rows,
                  row.level};
      cells[place] = row.cells[k];
      places[row.cells[k]] = place;
      lastX = std::max(lastX, std::get<0>(place));
    }
  }
  // Neighbours go to neighbours.
  auto keepsNeighbours = [&](const std::vector<Cell>& image) {
    for (Cell cell = 0; cell < size(); ++cell) {
      if (!all_[cell]) continue;
      std::set<Cell> mapped, there;
      for (const Direction& direction : directions_) {
        if (direction.next[cell] >= 0) mapped.insert(image[direction.next[cell]]);
        if (direction.next[image[cell]] >= 0) there.insert(direction.next[image[cell]]);
      }
      if (mapped != there) return false;
    }
    return true;
  };
  auto add = [&](const char* title, auto&& map) {
    if (name != title && name != "all") return;
    Symmetry symmetry{title, std::vector<Cell>(size(), -1)};
    for (Cell cell = 0; cell < size(); ++cell) symmetry.image[cell] = cell;
    for (const auto& [cell, place] : places) {
      auto [x, y, level] = place;
      auto it = cells.find(map(x, y, level));
      if (it == cells.end() ? all_[cell] : all_[cell] != all_[it->second]) return;
      if (it != cells.end()) symmetry.image[cell] = it->second;
    }
    if (keepsNeighbours(symmetry.image)) out.push_back(std::move(symmetry));
  };
  add("reflection of columns", [&](int x, int y, int z) { return Place{lastX - x, y, z}; });
  add("reflection of rows", [&](int x, int y, int z) { return Place{x, height - y, z}; });
  if (top > 1)
    add("reflection of levels", [&](int x, int y, int z) { return Place{x, y, top + 1 - z}; });
  add("half turn", [&](int x, int y, int z) { return Place{lastX - x, height - y, z}; });
  bool even = shape_.columns == shape_.rows;
  if (even && !isHexes()) {
    add("quarter turn", [&](int x, int y, int z) { return Place{2 * (height - y), x / 2, z}; });
    // Columns and rows change places: the cell in column 1, row 1 stays.
    bool fromTop = shape_.numbered || shape_.rowsFromTop;
    add("transposition", [&](int x, int y, int z) {
      return fromTop ? Place{2 * y, x / 2, z} : Place{lastX - 2 * y, height - x / 2, z};
    });
  }
  if (shape_.kind == Shape::rhombus && even)
    add("transposition", [&](int x, int y, int z) {
      int row = height - y, column = (x - row) / 2;
      return Place{2 * row + column, height - column, z};
    });
  if (shape_.kind == Shape::hexagon)
    // About the middle, a turn by 60 degrees takes (q, r) to (q + r, -q), r counting down.
    add("sixth turn", [&](int x, int y, int z) {
      int r = y - height / 2, q = (x - lastX / 2 - r) / 2;
      int newR = -q, newQ = q + r;
      return Place{2 * newQ + newR + lastX / 2, newR + height / 2, z};
    });
  return out;
}

}  // namespace ninepegs
