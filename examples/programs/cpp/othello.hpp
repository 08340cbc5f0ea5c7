// Othello as a program of its own: othello.cpp, vectors_test.cpp.
#pragma once

#include "adapter.hpp"

inline constexpr int size = 8;

struct Othello {
  std::vector<std::string> cells = std::vector<std::string>(size, std::string(size, '.'));
  char mover = 'x';

  Othello() {
    cells[3][3] = cells[4][4] = 'o';
    cells[3][4] = cells[4][3] = 'x';
  }

  static bool inside(int x, int y) { return x >= 0 && x < size && y >= 0 && y < size; }
  static std::string name(int x, int y) {
    return {static_cast<char>('a' + x), static_cast<char>('1' + y)};
  }

  // The discs that a disc here would turn, as columns and rows.
  std::vector<std::pair<int, int>> turned(int column, int row, char side) const {
    std::vector<std::pair<int, int>> out;
    if (cells[row][column] != '.') return out;
    for (int dx = -1; dx <= 1; ++dx)
      for (int dy = -1; dy <= 1; ++dy) {
        std::vector<std::pair<int, int>> line;
        int x = column + dx, y = row + dy;
        for (; inside(x, y) && cells[y][x] != '.' && cells[y][x] != side; x += dx, y += dy)
          line.emplace_back(x, y);
        if (inside(x, y) && cells[y][x] == side) out.insert(out.end(), line.begin(), line.end());
      }
    return out;
  }

  std::vector<std::string> places(char side) const {
    std::vector<std::string> out;
    for (int y = 0; y < size; ++y)
      for (int x = 0; x < size; ++x)
        if (!turned(x, y, side).empty()) out.push_back(name(x, y));
    return out;
  }
  bool over() const { return places('x').empty() && places('o').empty(); }

  std::vector<std::string> moves() const {
    if (over()) return {};
    std::vector<std::string> out = places(mover);
    if (out.empty()) out.push_back("pass");
    return out;
  }

  bool play(const std::string& move) {
    std::vector<std::string> legal = moves();
    if (std::find(legal.begin(), legal.end(), move) == legal.end()) return false;
    if (move != "pass") {
      int column = move[0] - 'a', row = move[1] - '1';
      for (auto [x, y] : turned(column, row, mover)) cells[y][x] = mover;
      cells[row][column] = mover;
    }
    mover = mover == 'x' ? 'o' : 'x';
    return true;
  }

  std::string turn() const { return mover == 'x' ? "Black" : "White"; }

  std::optional<std::string> result() const {
    if (!over()) return std::nullopt;
    long lead = 0;
    for (const std::string& row : cells)
      lead += std::count(row.begin(), row.end(), 'x') - std::count(row.begin(), row.end(), 'o');
    return lead > 0 ? "Black" : lead < 0 ? "White" : "";
  }

  std::vector<std::string> board() const { return cells; }

  // Any legal move, as the seed decides.
  std::string choose(std::uint32_t seed) const {
    std::vector<std::string> legal = moves();
    return legal[seed % legal.size()];
  }
};
