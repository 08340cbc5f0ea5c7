// Chess and draughts written a second time, with plain loops over squares and nothing of the
// library.
#pragma once

#include <array>
#include <cstdint>
#include <cstdlib>
#include <string>
#include <utility>
#include <vector>

namespace plain {

struct Chess {
  // Letters as in a picture: upper case for the first side, '.' free. Row 0 is White's.
  std::array<std::string, 8> rows = {"RNBQKBNR", "PPPPPPPP", "........", "........",
                                     "........", "........", "pppppppp", "rnbqkbnr"};
  bool white = true;
  bool right[4] = {true, true, true, true};  // a1 h1 a8 h8
  int passedRow = -1, passedColumn = -1;

  struct Step {
    int row, column, toRow, toColumn;
    char becomes = 0;
    std::string text() const {
      auto name = [](int r, int c) {
        return std::string(1, static_cast<char>('a' + c)) + std::to_string(r + 1);
      };
      std::string out = name(row, column) + "-" + name(toRow, toColumn);
      switch (becomes) {
        case 'q':
          return out + "=queen";
        case 'r':
          return out + "=rook";
        case 'b':
          return out + "=bishop";
        case 'n':
          return out + "=knight";
        default:
          return out;
      }
    }
  };

  static bool inside(int r, int c) { return r >= 0 && r < 8 && c >= 0 && c < 8; }
  static bool isWhite(char p) { return p >= 'A' && p <= 'Z'; }
  static char lower(char p) { return static_cast<char>(isWhite(p) ? p + 32 : p); }
  bool own(int r, int c, bool side) const {
    return rows[r][c] != '.' && isWhite(rows[r][c]) == side;
  }
  bool attacked(int row, int column, bool by) const {
    for (int r = 0; r < 8; ++r) {
      for (int c = 0; c < 8; ++c) {
        if (!own(r, c, by)) continue;
        int dr = row - r, dc = column - c, ar = std::abs(dr), ac = std::abs(dc);
        char kind = lower(rows[r][c]);
        if (ar == 0 && ac == 0) continue;
        if (kind == 'p' && dr == (by ? 1 : -1) && ac == 1) return true;
        if (kind == 'n' && ar * ac == 2) return true;
        if (kind == 'k' && ar <= 1 && ac <= 1) return true;
        bool straight = ar == 0 || ac == 0, slant = ar == ac;
        bool slides = (kind == 'r' && straight) || (kind == 'b' && slant) ||
                      (kind == 'q' && (straight || slant));
        if (!slides) continue;
        int sr = (dr > 0) - (dr < 0), sc = (dc > 0) - (dc < 0), x = r + sr, y = c + sc;
        while ((x != row || y != column) && rows[x][y] == '.') x += sr, y += sc;
        if (x == row && y == column) return true;
      }
    }
    return false;
  }
  bool kingAttacked(bool side) const {
    for (int r = 0; r < 8; ++r)
      for (int c = 0; c < 8; ++c)
        if (rows[r][c] == (side ? 'K' : 'k')) return attacked(r, c, !side);
    return false;
  }
  void make(const Step& s) {
    char piece = rows[s.row][s.column];
    bool pawn = lower(piece) == 'p', king = lower(piece) == 'k';
    if (pawn && s.column != s.toColumn && rows[s.toRow][s.toColumn] == '.')
      rows[s.row][s.toColumn] = '.';
    if (king && std::abs(s.column - s.toColumn) == 2) {
      int from = s.toColumn == 6 ? 7 : 0, to = s.toColumn == 6 ? 5 : 3;
      rows[s.row][to] = rows[s.row][from];
      rows[s.row][from] = '.';
    }
    rows[s.row][s.column] = '.';
    rows[s.toRow][s.toColumn] =
        s.becomes == 0 ? piece : static_cast<char>(white ? s.becomes - 32 : s.becomes);
    passedRow = passedColumn = -1;
    if (pawn && std::abs(s.row - s.toRow) == 2)
      passedRow = (s.row + s.toRow) / 2, passedColumn = s.column;
    auto touches = [&](int r, int c) {
      return (s.row == r && s.column == c) || (s.toRow == r && s.toColumn == c);
    };
    if (touches(0, 0) || touches(0, 4)) right[0] = false;
    if (touches(0, 7) || touches(0, 4)) right[1] = false;
    if (touches(7, 0) || touches(7, 4)) right[2] = false;
    if (touches(7, 7) || touches(7, 4)) right[3] = false;
    white = !white;
  }
  std::vector<Step> steps() const {
    std::vector<Step> out;
    auto add = [&](Step s) {
      Chess after = *this;
      after.make(s);
      if (!after.kingAttacked(white)) out.push_back(s);
    };
    auto pawnTo = [&](int r, int c, int x, int y) {
      if (x == 0 || x == 7)
        for (char kind : {'q', 'r', 'b', 'n'}) add({r, c, x, y, kind});
      else
        add({r, c, x, y});
    };
    for (int r = 0; r < 8; ++r) {
      for (int c = 0; c < 8; ++c) {
        if (!own(r, c, white)) continue;
        char kind = lower(rows[r][c]);
        if (kind == 'p') {
          int up = white ? 1 : -1;
          if (rows[r + up][c] == '.') {
            pawnTo(r, c, r + up, c);
            if (r == (white ? 1 : 6) && rows[r + 2 * up][c] == '.') add({r, c, r + 2 * up, c});
          }
          for (int dc : {-1, 1}) {
            if (!inside(r + up, c + dc)) continue;
            if (own(r + up, c + dc, !white)) pawnTo(r, c, r + up, c + dc);
            if (passedRow == r + up && passedColumn == c + dc) add({r, c, r + up, c + dc});
          }
          continue;
        }
        for (int dr = -2; dr <= 2; ++dr) {
          for (int dc = -2; dc <= 2; ++dc) {
            bool leap = std::abs(dr * dc) == 2, near = std::abs(dr) <= 1 && std::abs(dc) <= 1;
            if ((dr == 0 && dc == 0) || (kind == 'n' ? !leap : !near)) continue;
            if (kind == 'r' && dr * dc != 0) continue;
            if (kind == 'b' && dr * dc == 0) continue;
            for (int x = r + dr, y = c + dc; inside(x, y) && !own(x, y, white); x += dr, y += dc) {
              add({r, c, x, y});
              if (rows[x][y] != '.' || kind == 'n' || kind == 'k') break;
            }
          }
        }
        int home = white ? 0 : 7;
        if (kind != 'k' || r != home || c != 4 || kingAttacked(white)) continue;
        for (bool far : {false, true}) {
          int rook = far ? 0 : 7, dir = far ? -1 : 1;
          if (!right[(white ? 0 : 2) + (far ? 0 : 1)]) continue;
          bool free = true;
          for (int y = 4 + dir; y != rook; y += dir) free = free && rows[r][y] == '.';
          if (free && !attacked(r, 4 + dir, !white) && !attacked(r, 4 + 2 * dir, !white))
            add({r, 4, r, 4 + 2 * dir});
        }
      }
    }
    return out;
  }
  std::vector<std::string> moves() const {
    std::vector<std::string> out;
    for (const Step& step : steps()) out.push_back(step.text());
    return out;
  }
  bool over() const { return steps().empty(); }
  void play(const std::string& move) {
    for (const Step& step : steps()) {
      if (step.text() != move) continue;
      make(step);
      return;
    }
  }
  bool firstWon() const { return over() && kingAttacked(white) && !white; }
};

// English draughts on squares numbered from 1 to 32 in reading order.
struct Draughts {
  char grid[8][8] = {};  // row 0 is at the top: 'b' 'B' 'w' 'W', 0 free
  bool black = true;

  Draughts() {
    for (int r = 0; r < 8; ++r)
      for (int c = 0; c < 8; ++c)
        if ((r + c) % 2 == 1 && r != 3 && r != 4) grid[r][c] = r < 3 ? 'b' : 'w';
  }
  static std::string number(int r, int c) { return std::to_string(r * 4 + c / 2 + 1); }
  static bool inside(int r, int c) { return r >= 0 && r < 8 && c >= 0 && c < 8; }
  static bool blackPiece(char p) { return p == 'b' || p == 'B'; }
  bool mine(int r, int c) const { return grid[r][c] != 0 && blackPiece(grid[r][c]) == black; }
  bool theirs(int r, int c) const { return grid[r][c] != 0 && blackPiece(grid[r][c]) != black; }

  struct Line;
  inline void jumps(int r, int c, const std::string& text, const Draughts& now,
                    std::vector<Line>& out) const;
  inline std::vector<Line> lines() const;
  inline std::vector<std::string> moves() const;
  inline bool over() const;
  inline void play(const std::string& move);
};

struct Draughts::Line {
  std::string text;
  Draughts after;
};

inline void Draughts::jumps(int r, int c, const std::string& text, const Draughts& now,
                            std::vector<Line>& out) const {
  char piece = now.grid[r][c];
  bool further = false;
  for (int dr : {-1, 1}) {
    if ((piece == 'b' && dr < 0) || (piece == 'w' && dr > 0)) continue;
    for (int dc : {-1, 1}) {
      int x = r + 2 * dr, y = c + 2 * dc;
      if (!inside(x, y) || now.grid[x][y] != 0 || !now.theirs(r + dr, c + dc)) continue;
      further = true;
      Draughts next = now;
      next.grid[r + dr][c + dc] = 0;
      next.grid[x][y] = piece;
      next.grid[r][c] = 0;
      jumps(x, y, text + "x" + number(x, y), next, out);
    }
  }
  if (!further && text.find('x') != std::string::npos) out.push_back({text, now});
}
inline std::vector<Draughts::Line> Draughts::lines() const {
  std::vector<Line> out;
  for (int r = 0; r < 8; ++r)
    for (int c = 0; c < 8; ++c)
      if (mine(r, c)) jumps(r, c, number(r, c), *this, out);
  if (out.empty()) {
    for (int r = 0; r < 8; ++r) {
      for (int c = 0; c < 8; ++c) {
        if (!mine(r, c)) continue;
        for (int dr : {-1, 1}) {
          if ((grid[r][c] == 'b' && dr < 0) || (grid[r][c] == 'w' && dr > 0)) continue;
          for (int dc : {-1, 1}) {
            if (!inside(r + dr, c + dc) || grid[r + dr][c + dc] != 0) continue;
            Draughts next = *this;
            std::swap(next.grid[r][c], next.grid[r + dr][c + dc]);
            out.push_back({number(r, c) + "-" + number(r + dr, c + dc), next});
          }
        }
      }
    }
  }
  for (Line& line : out) {
    for (int c = 0; c < 8; ++c) {
      if (line.after.grid[7][c] == 'b') line.after.grid[7][c] = 'B';
      if (line.after.grid[0][c] == 'w') line.after.grid[0][c] = 'W';
    }
    line.after.black = !black;
  }
  return out;
}
inline std::vector<std::string> Draughts::moves() const {
  std::vector<std::string> out;
  for (const Line& line : lines()) out.push_back(line.text);
  return out;
}
inline bool Draughts::over() const {
  return lines().empty();
}
inline void Draughts::play(const std::string& move) {
  for (const Line& line : lines()) {
    if (line.text != move) continue;
    Draughts after = line.after;
    *this = after;
    return;
  }
}

}  // namespace plain
