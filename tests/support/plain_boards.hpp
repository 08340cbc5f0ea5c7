// More of the shipped games written a second time with plain loops: heaps, stones, tiles, ships and
// men on points. Nothing of the library is used.
#pragma once

#include <algorithm>
#include <array>
#include <cstdint>
#include <map>
#include <set>
#include <string>
#include <utility>
#include <vector>

namespace plain {

inline std::string place(int column, int row) {  // both from 0
  return std::string(1, static_cast<char>('a' + column)) + std::to_string(row + 1);
}

// Heaps of 3, 5 and 7; who takes the last object loses. Or one heap of 21, 1 to 3 at a time.
template <bool single>
struct Nim {
  std::vector<int> heaps = single ? std::vector<int>{21} : std::vector<int>{3, 5, 7};
  int mover = 1, winner = 0;

  bool over() const { return winner != 0; }
  std::vector<std::string> moves() const {
    std::vector<std::string> out;
    for (std::size_t heap = 0; heap < heaps.size() && !over(); ++heap)
      for (int n = 1; n <= heaps[heap] && (!single || n <= 3); ++n)
        out.push_back(std::string(1, static_cast<char>('a' + heap)) + " " + std::to_string(n));
    return out;
  }
  void play(const std::string& move) {
    heaps[move[0] - 'a'] -= std::stoi(move.substr(2));
    int left = 0;
    for (int heap : heaps) left += heap;
    if (left == 0) winner = 3 - mover;
    mover = 3 - mover;
  }
};

// Connection of two opposite sides of a rhombus: the first side from row 1 to the last row, the
// second from the first column to the last.
template <int size>
struct Hex {
  std::array<std::array<char, size>, size> grid{};  // row, column
  int mover = 1, winner = 0, left = size * size;

  bool over() const { return winner != 0; }
  std::uint64_t count() const { return over() ? 0 : static_cast<std::uint64_t>(left); }
  std::vector<std::string> moves() const {
    std::vector<std::string> out;
    for (int row = 0; row < size && !over(); ++row)
      for (int column = 0; column < size; ++column)
        if (grid[row][column] == 0) out.push_back(place(column, row));
    return out;
  }
  bool joined(int side) const {
    std::vector<std::pair<int, int>> open;
    std::set<std::pair<int, int>> seen;
    for (int k = 0; k < size; ++k) {
      std::pair<int, int> start = side == 1 ? std::pair{0, k} : std::pair{k, 0};
      if (grid[start.first][start.second] == side) open.push_back(start), seen.insert(start);
    }
    while (!open.empty()) {
      auto [row, column] = open.back();
      open.pop_back();
      if ((side == 1 ? row : column) == size - 1) return true;
      for (auto [dr, dc] : {std::pair{1, 0}, {-1, 0}, {0, 1}, {0, -1}, {1, -1}, {-1, 1}}) {
        int r = row + dr, c = column + dc;
        if (r < 0 || c < 0 || r >= size || c >= size || grid[r][c] != side) continue;
        if (seen.insert({r, c}).second) open.emplace_back(r, c);
      }
    }
    return false;
  }
  void play(const std::string& move) {
    grid[std::stoi(move.substr(1)) - 1][move[0] - 'a'] = static_cast<char>(mover);
    --left;
    if (size * size - left >= size && joined(mover)) winner = mover;
    mover = 3 - mover;
  }
};

// Five or more of a colour in a straight row.
struct FiveInARow {
  static constexpr int size = 15;
  std::array<std::array<char, size>, size> grid{};
  int mover = 1, winner = 0, left = size * size;

  bool over() const { return winner != 0 || left == 0; }
  std::uint64_t count() const { return over() ? 0 : static_cast<std::uint64_t>(left); }
  std::vector<std::string> moves() const {
    std::vector<std::string> out;
    for (int row = 0; row < size && !over(); ++row)
      for (int column = 0; column < size; ++column)
        if (grid[row][column] == 0) out.push_back(place(column, row));
    return out;
  }
  void play(const std::string& move) {
    int row = std::stoi(move.substr(1)) - 1, column = move[0] - 'a';
    grid[row][column] = static_cast<char>(mover);
    --left;
    for (auto [dr, dc] : {std::pair{0, 1}, {1, 0}, {1, 1}, {1, -1}}) {
      int length = 1;
      for (int sign : {1, -1}) {
        int r = row + sign * dr, c = column + sign * dc;
        while (r >= 0 && c >= 0 && r < size && c < size && grid[r][c] == mover)
          ++length, r += sign * dr, c += sign * dc;
      }
      if (length >= 5) winner = mover;
    }
    mover = 3 - mover;
  }
};

// Tiles with six numbers on a hexagon of 19 cells without its middle.
struct HexTiles {
  struct Tile {
    const char* name;
    int edges[6];  // northeast east southeast southwest west northwest
  };
  static const std::vector<Tile>& tiles() {
    static const std::vector<Tile> all = {
        {"ash", {7, 2, 5, 1, 6, 3}},   {"birch", {1, 4, 4, 4, 4, 1}}, {"cedar", {9, 1, 1, 5, 1, 1}},
        {"elm", {3, 3, 3, 3, 3, 3}},   {"fir", {2, 7, 2, 7, 2, 1}},   {"hazel", {5, 5, 1, 1, 5, 5}},
        {"larch", {6, 1, 6, 1, 6, 1}}, {"maple", {1, 1, 8, 1, 1, 8}}, {"oak", {4, 4, 2, 6, 2, 4}}};
    return all;
  }
  struct Lying {
    int tile = -1, side = 0;
  };
  std::map<std::pair<int, int>, Lying> cells;  // by twice the distance from the left, and the row
  std::array<std::set<int>, 2> hands;
  int mover = 0;

  HexTiles() {
    for (int row = 0; row < 5; ++row)
      for (int i = 0; i < 5 - std::abs(2 - row); ++i)
        if (row != 2 || i != 2) cells[{2 * i + std::abs(2 - row), row}] = {};
    for (auto& hand : hands)
      for (std::size_t tile = 0; tile < tiles().size(); ++tile) hand.insert(static_cast<int>(tile));
  }
  static std::string label(std::pair<int, int> cell) {
    return place((cell.first - std::abs(2 - cell.second)) / 2, cell.second);
  }
  bool over() const { return hands[0].empty() && hands[1].empty(); }
  std::vector<std::string> moves() const {
    std::vector<std::string> out;
    for (int tile : hands[mover])
      for (const auto& [cell, lying] : cells)
        if (lying.tile < 0) out.push_back(std::string(tiles()[tile].name) + " " + label(cell));
    return out;
  }
  void play(const std::string& move) {
    std::string name = move.substr(0, move.find(' ')), where = move.substr(move.find(' ') + 1);
    int tile = 0;
    while (tiles()[tile].name != name) ++tile;
    static const std::pair<int, int> ways[6] = {{1, 1},   {2, 0},  {1, -1},
                                                {-1, -1}, {-2, 0}, {-1, 1}};
    for (auto& [cell, lying] : cells) {
      if (label(cell) != where) continue;
      lying = {tile, mover};
      for (int way = 0; way < 6; ++way) {
        auto it = cells.find({cell.first + ways[way].first, cell.second + ways[way].second});
        if (it == cells.end() || it->second.tile < 0 || it->second.side == mover) continue;
        if (tiles()[tile].edges[way] > tiles()[it->second.tile].edges[(way + 3) % 6])
          it->second.side = mover;
      }
    }
    hands[mover].erase(tile);
    mover = 1 - mover;
  }
  int lead() const {
    int out = 0;
    for (const auto& [cell, lying] : cells) out += lying.side == 0 ? 1 : -1;
    return out;
  }
};

// Five ships a side, laid first, then fired at.
struct Battleship {
  struct Ship {
    const char* name;
    int size;
  };
  static constexpr Ship ships[5] = {
      {"ferry", 5}, {"barge", 4}, {"cutter", 3}, {"trawler", 3}, {"skiff", 2}};
  std::array<std::array<std::array<int, 10>, 10>, 2> sea{};  // row from the top, column
  std::array<std::array<std::array<bool, 10>, 10>, 2> fired{};
  std::array<std::set<int>, 2> hands = {std::set<int>{0, 1, 2, 3, 4}, {0, 1, 2, 3, 4}};
  int mover = 0, winner = -1;
  // Variants: ships may not touch; as many shots a turn as ships afloat, answered together.
  bool apart = false, salvo = false;
  std::array<std::array<std::array<bool, 10>, 10>, 2> called{};
  std::array<int, 2> left = {5, 5};

  bool over() const { return winner >= 0; }
  bool mayLie(int row, int column) const {
    for (int r = row - 1; r <= row + 1; ++r)
      for (int c = column - 1; c <= column + 1; ++c) {
        bool same = r == row && c == column;
        if (r < 0 || c < 0 || r > 9 || c > 9 || (!apart && !same)) continue;
        if (sea[mover][r][c] != 0) return false;
      }
    return true;
  }
  bool mayFire(int row, int column) const {
    return !fired[mover][row][column] && !called[mover][row][column];
  }
  std::uint64_t count() const {
    if (over() || !hands[mover].empty()) return moves().size();
    std::uint64_t total = 0;
    for (int row = 0; row < 10; ++row)
      for (int column = 0; column < 10; ++column) total += mayFire(row, column) ? 1 : 0;
    return total;
  }
  std::vector<std::string> moves() const {
    std::vector<std::string> out;
    if (over()) return out;
    for (int ship : hands[mover]) {
      for (int row = 0; row < 10; ++row) {
        for (int column = 0; column < 10; ++column) {
          for (bool down : {false, true}) {
            int lastRow = row + (down ? ships[ship].size - 1 : 0);
            int lastColumn = column + (down ? 0 : ships[ship].size - 1);
            bool free = lastRow < 10 && lastColumn < 10;
            for (int r = row; free && r <= lastRow; ++r)
              for (int c = column; free && c <= lastColumn; ++c) free = mayLie(r, c);
            if (free)
              out.push_back(std::string(ships[ship].name) + " " + place(column, row) + "-" +
                            place(lastColumn, lastRow));
          }
        }
      }
    }
    if (hands[mover].empty())
      for (int row = 0; row < 10; ++row)
        for (int column = 0; column < 10; ++column)
          if (mayFire(row, column)) out.push_back(place(column, row));
    return out;
  }
  void play(const std::string& move) {
    std::size_t blank = move.find(' ');
    if (blank != std::string::npos) {
      int ship = 0;
      while (ships[ship].name != move.substr(0, blank)) ++ship;
      std::size_t dash = move.find('-');
      std::string from = move.substr(blank + 1, dash - blank - 1), to = move.substr(dash + 1);
      for (int r = std::stoi(from.substr(1)) - 1; r <= std::stoi(to.substr(1)) - 1; ++r)
        for (int c = from[0] - 'a'; c <= to[0] - 'a'; ++c) sea[mover][r][c] = ship + 1;
      hands[mover].erase(ship);
    } else {
      (salvo ? called : fired)[mover][std::stoi(move.substr(1)) - 1][move[0] - 'a'] = true;
      bool again = salvo && --left[mover] > 0 && count() > 0;
      if (salvo && !again) answer();
      bool afloat = false;
      for (int r = 0; r < 10; ++r)
        for (int c = 0; c < 10; ++c)
          afloat = afloat || (sea[1 - mover][r][c] != 0 && !fired[mover][r][c]);
      if (!afloat) winner = mover;
      if (again) return;
    }
    mover = 1 - mover;
  }
  // The salvo is over: its shots count, and the other side has a shot for each ship afloat.
  void answer() {
    std::set<int> afloat;
    for (int r = 0; r < 10; ++r)
      for (int c = 0; c < 10; ++c) {
        fired[mover][r][c] = fired[mover][r][c] || called[mover][r][c];
        called[mover][r][c] = false;
        if (sea[1 - mover][r][c] != 0 && !fired[mover][r][c]) afloat.insert(sea[1 - mover][r][c]);
      }
    left[1 - mover] = static_cast<int>(afloat.size());
  }
};

// Nine men a side on 24 points.
struct Morris {
  static const std::vector<std::array<std::string, 3>>& lines() {
    static const std::vector<std::array<std::string, 3>> all = {
        {"a7", "d7", "g7"}, {"b6", "d6", "f6"}, {"c5", "d5", "e5"}, {"a4", "b4", "c4"},
        {"e4", "f4", "g4"}, {"c3", "d3", "e3"}, {"b2", "d2", "f2"}, {"a1", "d1", "g1"},
        {"a7", "a4", "a1"}, {"b6", "b4", "b2"}, {"c5", "c4", "c3"}, {"d7", "d6", "d5"},
        {"d3", "d2", "d1"}, {"e5", "e4", "e3"}, {"f6", "f4", "f2"}, {"g7", "g4", "g1"}};
    return all;
  }
  std::map<std::string, int> men;  // 0 free, 1, 2
  int hand[3] = {0, 9, 9};
  int mover = 1, winner = 0;

  Morris() {
    for (const auto& line : lines())
      for (const std::string& point : line) men[point] = 0;
  }
  bool inMill(const std::string& point, int side) const {
    for (const auto& line : lines())
      if (std::find(line.begin(), line.end(), point) != line.end() && men.at(line[0]) == side &&
          men.at(line[1]) == side && men.at(line[2]) == side)
        return true;
    return false;
  }
  int on(int side) const {
    int out = 0;
    for (const auto& [point, man] : men) out += man == side ? 1 : 0;
    return out;
  }
  static bool near(const std::string& a, const std::string& b) {
    for (const auto& line : lines())
      for (int k = 0; k < 2; ++k)
        if ((line[k] == a && line[k + 1] == b) || (line[k] == b && line[k + 1] == a)) return true;
    return false;
  }
  void withVictims(const std::string& text, const std::string& to,
                   std::vector<std::string>& out) const {
    Morris after = *this;
    if (text.size() > 2) after.men[text.substr(0, 2)] = 0;
    after.men[to] = mover;
    if (!after.inMill(to, mover)) {
      out.push_back(text);
      return;
    }
    std::vector<std::string> loose, all;
    for (const auto& [point, man] : after.men) {
      if (man != 3 - mover) continue;
      all.push_back(point);
      if (!after.inMill(point, 3 - mover)) loose.push_back(point);
    }
    for (const std::string& victim : loose.empty() ? all : loose)
      out.push_back(text + "x" + victim);
  }
  bool over() const { return winner != 0; }
  std::vector<std::string> moves() const {
    std::vector<std::string> out;
    if (over()) return out;
    for (const auto& [to, man] : men) {
      if (man != 0) continue;
      if (hand[mover] > 0) {
        withVictims(to, to, out);
        continue;
      }
      for (const auto& [from, own] : men)
        if (own == mover && (on(mover) == 3 || near(from, to)))
          withVictims(from + "-" + to, to, out);
    }
    return out;
  }
  void play(const std::string& move) {
    std::size_t taken = move.find('x');
    std::string text = move.substr(0, taken);
    if (taken != std::string::npos) men[move.substr(taken + 1)] = 0;
    if (text.size() > 2)
      men[text.substr(0, 2)] = 0, men[text.substr(3)] = mover;
    else
      men[text] = mover, --hand[mover];
    int other = 3 - mover, was = mover;
    mover = other;
    if (on(other) + hand[other] < 3 || moves().empty()) winner = was;
  }
};

}  // namespace plain
