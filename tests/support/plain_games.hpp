// The shipped games written a second time, with plain loops over cells and nothing of the library:
// what the sheets are compared with.
#pragma once

#include <array>
#include <cstdint>
#include <set>
#include <string>
#include <utility>
#include <vector>

namespace plain {

// Three in a line on nine numbered cells.
struct TicTacToe {
  std::array<int, 9> cell{};  // 0 free, 1 first side, 2 second side
  int mover = 1, winner = 0;

  bool over() const { return winner != 0 || full(); }
  bool full() const {
    for (int c : cell)
      if (c == 0) return false;
    return true;
  }
  std::vector<std::string> moves() const {
    std::vector<std::string> out;
    for (int i = 0; i < 9 && !over(); ++i)
      if (cell[i] == 0) out.push_back(std::to_string(i + 1));
    return out;
  }
  void play(const std::string& move) {
    cell[std::stoi(move) - 1] = mover;
    static const int rows[8][3] = {{0, 1, 2}, {3, 4, 5}, {6, 7, 8}, {0, 3, 6},
                                   {1, 4, 7}, {2, 5, 8}, {0, 4, 8}, {2, 4, 6}};
    for (const auto& row : rows)
      if (cell[row[0]] == mover && cell[row[1]] == mover && cell[row[2]] == mover) winner = mover;
    mover = 3 - mover;
  }
  std::string key() const {
    std::string out;
    for (int c : cell) out += static_cast<char>('0' + c);
    return out;
  }
};

// Four in a line in a frame of seven columns and six rows.
struct ConnectFour {
  int grid[6][7] = {};  // row 0 is the lowest
  int mover = 1, winner = 0;

  bool over() const {
    if (winner != 0) return true;
    for (int column = 0; column < 7; ++column)
      if (grid[5][column] == 0) return false;
    return true;
  }
  std::vector<std::string> moves() const {
    std::vector<std::string> out;
    for (int column = 0; column < 7 && !over(); ++column)
      if (grid[5][column] == 0) out.push_back(std::string(1, static_cast<char>('a' + column)));
    return out;
  }
  void play(const std::string& move) {
    int column = move[0] - 'a', row = 0;
    while (grid[row][column] != 0) ++row;
    grid[row][column] = mover;
    for (auto [dr, dc] : {std::pair{0, 1}, {1, 0}, {1, 1}, {1, -1}}) {
      int length = 1;
      for (int sign : {1, -1})
        for (int r = row + sign * dr, c = column + sign * dc;
             r >= 0 && r < 6 && c >= 0 && c < 7 && grid[r][c] == mover;
             r += sign * dr, c += sign * dc)
          ++length;
      if (length >= 4) winner = mover;
    }
    mover = 3 - mover;
  }
  std::string key() const {
    std::string out;
    for (const auto& row : grid)
      for (int c : row) out += static_cast<char>('0' + c);
    return out;
  }
};

// The hut's own game over the pass: walkers (1) and a guide (2) of each side, six rows of five.
struct HutPass {
  struct Man {
    int kind = 0, side = 0;
  };
  Man grid[6][5];  // row 0 is the first side's
  int mover = 0, winner = -1;

  HutPass() {
    for (int column = 0; column < 5; ++column) grid[0][column] = {1, 0}, grid[5][column] = {1, 1};
    grid[1][2] = {2, 0};
    grid[4][2] = {2, 1};
  }
  static bool inside(int row, int column) {
    return row >= 0 && row < 6 && column >= 0 && column < 5;
  }
  static std::string name(int row, int column) {
    return std::string(1, static_cast<char>('a' + column)) + std::to_string(row + 1);
  }
  std::vector<std::string> movesOf(int side) const {
    std::vector<std::string> out;
    int ahead = side == 0 ? 1 : -1;
    for (int row = 0; row < 6; ++row) {
      for (int column = 0; column < 5; ++column) {
        const Man& man = grid[row][column];
        if (man.kind == 0 || man.side != side) continue;
        for (int dc = -1; dc <= 1; ++dc) {
          if (man.kind == 2 && dc == 0) continue;
          for (int r = row + ahead, c = column + dc; inside(r, c) && grid[r][c].kind == 0;
               r += ahead, c += dc) {
            out.push_back(name(row, column) + "-" + name(r, c));
            if (man.kind == 1) break;
          }
        }
        int r = row + ahead;
        if (inside(r + ahead, column) && grid[r][column].kind != 0 &&
            grid[r][column].side == side && grid[r + ahead][column].kind == 0)
          out.push_back(name(row, column) + "^" + name(r + ahead, column));
      }
    }
    return out;
  }
  bool over() const { return winner >= 0; }
  std::vector<std::string> moves() const {
    return over() ? std::vector<std::string>{} : movesOf(mover);
  }
  void play(const std::string& move) {
    int fromColumn = move[0] - 'a', fromRow = move[1] - '1', toColumn = move[3] - 'a',
        toRow = move[4] - '1';
    std::swap(grid[fromRow][fromColumn], grid[toRow][toColumn]);
    int there = 0;
    for (const Man& man : grid[mover == 0 ? 5 : 0])
      if (man.kind == 1 && man.side == mover) ++there;
    if (there >= 2 || movesOf(1 - mover).empty()) winner = mover;
    mover = 1 - mover;
  }
};

// Othello on a board of any even size; row 1 is drawn at the top.
template <int size>
struct Othello {
  int grid[size][size] = {};  // 0 free, 1 first side, 2 second side
  int mover = 1;

  Othello() {
    constexpr int h = size / 2;
    grid[h - 1][h - 1] = grid[h][h] = 2;
    grid[h - 1][h] = grid[h][h - 1] = 1;
  }
  // The discs that turn over if the side lays one there.
  std::vector<std::pair<int, int>> turned(int side, int row, int column) const {
    std::vector<std::pair<int, int>> all;
    if (grid[row][column] != 0) return all;
    for (int dr = -1; dr <= 1; ++dr) {
      for (int dc = -1; dc <= 1; ++dc) {
        if (dr == 0 && dc == 0) continue;
        std::vector<std::pair<int, int>> run;
        int r = row + dr, c = column + dc;
        auto inside = [&] { return r >= 0 && r < size && c >= 0 && c < size; };
        for (; inside() && grid[r][c] == 3 - side; r += dr, c += dc) run.emplace_back(r, c);
        if (inside() && grid[r][c] == side) all.insert(all.end(), run.begin(), run.end());
      }
    }
    return all;
  }
  std::vector<std::string> placesOf(int side) const {
    std::vector<std::string> out;
    for (int row = 0; row < size; ++row)
      for (int column = 0; column < size; ++column)
        if (!turned(side, row, column).empty())
          out.push_back(std::string(1, static_cast<char>('a' + column)) + std::to_string(row + 1));
    return out;
  }
  bool over() const { return placesOf(1).empty() && placesOf(2).empty(); }
  std::vector<std::string> moves() const {
    if (over()) return {};
    std::vector<std::string> places = placesOf(mover);
    return places.empty() ? std::vector<std::string>{"pass"} : places;
  }
  void play(const std::string& move) {
    if (move != "pass") {
      int row = std::stoi(move.substr(1)) - 1, column = move[0] - 'a';
      for (auto [r, c] : turned(mover, row, column)) grid[r][c] = mover;
      grid[row][column] = mover;
    }
    mover = 3 - mover;
  }
  int lead() const {  // discs of the first side less those of the second
    int out = 0;
    for (const auto& row : grid)
      for (int cell : row) out += cell == 1 ? 1 : cell == 2 ? -1 : 0;
    return out;
  }
};

// Move sequences of exactly `depth` plies.
template <class Game>
std::uint64_t sequences(const Game& game, int depth) {
  if (depth == 0) return 1;
  std::uint64_t total = 0;
  for (const std::string& move : game.moves()) {
    Game next = game;
    next.play(move);
    total += sequences(next, depth - 1);
  }
  return total;
}

}  // namespace plain
