// Chess by hand: a legal generator on bit masks (checks, pins and attacked squares worked out once
// a position, sliding attacks from tables), counting the last ply without making its moves.
#pragma once

#include <vector>

#include "yardsticks.hpp"

namespace yardstick {

struct ChessTables {
  std::uint64_t knight[64], king[64], pawn[2][64], between[64][64], line[64][64];
  std::uint64_t rookMask[64], bishopMask[64];
  std::vector<std::uint64_t> slides[2][64];  // rook, bishop: by the blockers on the mask

  static std::uint64_t ray(int square, int dx, int dy, std::uint64_t blockers, bool whole) {
    std::uint64_t out = 0;
    int x = square % 8 + dx, y = square / 8 + dy;
    for (; x >= 0 && x < 8 && y >= 0 && y < 8; x += dx, y += dy) {
      bool last = x + dx < 0 || x + dx > 7 || y + dy < 0 || y + dy > 7;
      if (!whole && last) break;
      out |= std::uint64_t{1} << (y * 8 + x);
      if ((blockers >> (y * 8 + x)) & 1) break;
    }
    return out;
  }
  static std::uint64_t rays(int square, bool rook, std::uint64_t blockers, bool whole) {
    std::uint64_t out = 0;
    for (int dx = -1; dx <= 1; ++dx)
      for (int dy = -1; dy <= 1; ++dy)
        if ((dx != 0 || dy != 0) && (dx == 0 || dy == 0) == rook)
          out |= ray(square, dx, dy, blockers, whole);
    return out;
  }
  static std::uint64_t gathered(std::uint64_t from, std::uint64_t mask) {
#ifdef __BMI2__
    return _pext_u64(from, mask);
#else
    std::uint64_t out = 0;
    for (int i = 0; mask != 0; ++i, mask &= mask - 1)
      out |= ((from >> std::countr_zero(mask)) & 1) << i;
    return out;
#endif
  }
  static std::uint64_t spread(std::uint64_t bits, std::uint64_t mask) {
    std::uint64_t out = 0;
    for (int i = 0; mask != 0; ++i, mask &= mask - 1)
      if ((bits >> i) & 1) out |= mask & (0 - mask);
    return out;
  }
  std::uint64_t rook(int square, std::uint64_t occupied) const {
    return slides[0][square][gathered(occupied, rookMask[square])];
  }
  std::uint64_t bishop(int square, std::uint64_t occupied) const {
    return slides[1][square][gathered(occupied, bishopMask[square])];
  }
  ChessTables() {
    for (int s = 0; s < 64; ++s) {
      knight[s] = king[s] = pawn[0][s] = pawn[1][s] = 0;
      for (int t = 0; t < 64; ++t) {
        int dx = t % 8 - s % 8, dy = t / 8 - s / 8;
        std::uint64_t bit = std::uint64_t{1} << t;
        if (dx * dx + dy * dy == 5) knight[s] |= bit;
        if (dx * dx <= 1 && dy * dy <= 1 && t != s) king[s] |= bit;
        if (dx * dx == 1 && dy == 1) pawn[0][s] |= bit;
        if (dx * dx == 1 && dy == -1) pawn[1][s] |= bit;
        between[s][t] = line[s][t] = 0;
        if (s == t || (dx != 0 && dy != 0 && dx * dx != dy * dy)) continue;
        int sx = (dx > 0) - (dx < 0), sy = (dy > 0) - (dy < 0);
        between[s][t] = ray(s, sx, sy, bit, true) & ~bit;
        line[s][t] = ray(s, sx, sy, 0, true) | ray(s, -sx, -sy, 0, true) | std::uint64_t{1} << s;
      }
      for (bool isRook : {true, false}) {
        std::uint64_t mask = rays(s, isRook, 0, false);
        (isRook ? rookMask : bishopMask)[s] = mask;
        auto& table = slides[isRook ? 0 : 1][s];
        table.resize(std::size_t{1} << std::popcount(mask));
        for (std::size_t i = 0; i < table.size(); ++i)
          table[i] = rays(s, isRook, spread(i, mask), true);
      }
    }
  }
};
inline const ChessTables chessTables;

struct Chess {
  enum Kind { pawn, knight, bishop, rook, queen, king };
  std::uint64_t piece[6] = {0x00ff00000000ff00ull, 0x4200000000000042ull, 0x2400000000000024ull,
                            0x8100000000000081ull, 0x0800000000000008ull, 0x1000000000000010ull};
  std::uint64_t side[2] = {0xffffull, 0xffff000000000000ull};
  std::uint64_t rights = 0x8100000000000081ull;  // the rooks that may castle
  int passed = -1;
  int turn = 0;
  int quiet = 0;

  static std::uint64_t bit(int square) { return std::uint64_t{1} << square; }

  std::uint64_t attackers(int square, int by, std::uint64_t occupied) const {
    const ChessTables& t = chessTables;
    return side[by] & ((t.pawn[1 - by][square] & piece[pawn]) | (t.knight[square] & piece[knight]) |
                       (t.king[square] & piece[king]) |
                       (t.bishop(square, occupied) & (piece[bishop] | piece[queen])) |
                       (t.rook(square, occupied) & (piece[rook] | piece[queen])));
  }
  std::uint64_t attackedBy(int by, std::uint64_t occupied) const {
    const ChessTables& t = chessTables;
    std::uint64_t out = 0, pawns = side[by] & piece[pawn];
    std::uint64_t left = pawns & 0xfefefefefefefefeull, right = pawns & 0x7f7f7f7f7f7f7f7full;
    out |= by == 0 ? left << 7 | right << 9 : left >> 9 | right >> 7;
    for (std::uint64_t b = side[by] & piece[knight]; b != 0; b &= b - 1)
      out |= t.knight[std::countr_zero(b)];
    for (std::uint64_t b = side[by] & (piece[bishop] | piece[queen]); b != 0; b &= b - 1)
      out |= t.bishop(std::countr_zero(b), occupied);
    for (std::uint64_t b = side[by] & (piece[rook] | piece[queen]); b != 0; b &= b - 1)
      out |= t.rook(std::countr_zero(b), occupied);
    return out | t.king[std::countr_zero(side[by] & piece[king])];
  }

  // Calls take(kind, from, targets) for every own piece with legal targets; a pawn on its last row
  // stands for four moves.
  template <class Take>
  void moves(Take take) const {
    const ChessTables& t = chessTables;
    int me = turn, enemy = 1 - turn;
    std::uint64_t own = side[me], theirs = side[enemy], all = own | theirs;
    int home = std::countr_zero(own & piece[king]);
    std::uint64_t danger = attackedBy(enemy, all ^ bit(home));
    take(king, home, t.king[home] & ~own & ~danger);
    std::uint64_t checkers = (danger & bit(home)) != 0 ? attackers(home, enemy, all) : 0;
    if (std::popcount(checkers) > 1) return;
    std::uint64_t allowed = ~own;
    if (checkers != 0) allowed &= checkers | t.between[home][std::countr_zero(checkers)];
    std::uint64_t pinned = 0;
    std::uint64_t snipers = theirs & ((t.rook(home, theirs) & (piece[rook] | piece[queen])) |
                                      (t.bishop(home, theirs) & (piece[bishop] | piece[queen])));
    for (; snipers != 0; snipers &= snipers - 1) {
      std::uint64_t blockers = t.between[home][std::countr_zero(snipers)] & own;
      if (std::popcount(blockers) == 1) pinned |= blockers;
    }
    auto within = [&](int from) {
      return (pinned >> from) & 1 ? allowed & t.line[home][from] : allowed;
    };
    for (std::uint64_t b = own & piece[knight] & ~pinned; b != 0; b &= b - 1) {
      int from = std::countr_zero(b);
      take(knight, from, t.knight[from] & allowed);
    }
    for (std::uint64_t b = own & (piece[bishop] | piece[queen]); b != 0; b &= b - 1) {
      int from = std::countr_zero(b);
      take((piece[queen] >> from) & 1 ? queen : bishop, from, t.bishop(from, all) & within(from));
    }
    for (std::uint64_t b = own & (piece[rook] | piece[queen]); b != 0; b &= b - 1) {
      int from = std::countr_zero(b);
      take((piece[queen] >> from) & 1 ? queen : rook, from, t.rook(from, all) & within(from));
    }
    for (std::uint64_t b = own & piece[pawn]; b != 0; b &= b - 1) {
      int from = std::countr_zero(b), up = me == 0 ? 8 : -8;
      std::uint64_t targets = t.pawn[me][from] & theirs, step = bit(from + up) & ~all;
      targets |= step;
      if (step != 0 && from / 8 == (me == 0 ? 1 : 6)) targets |= bit(from + 2 * up) & ~all;
      targets &= within(from);
      if (passed >= 0 && (t.pawn[me][from] & bit(passed)) != 0) {
        int victim = passed - up;
        std::uint64_t left = (all ^ bit(from) ^ bit(victim)) | bit(passed);
        std::uint64_t lines = theirs & ((t.rook(home, left) & (piece[rook] | piece[queen])) |
                                        (t.bishop(home, left) & (piece[bishop] | piece[queen])));
        std::uint64_t near = checkers & ~bit(victim) & (piece[knight] | piece[pawn]);
        if (lines == 0 && near == 0) targets |= bit(passed);
      }
      take(pawn, from, targets);
    }
    if (checkers == 0) {
      for (std::uint64_t b = own & rights & piece[rook]; b != 0; b &= b - 1) {
        int tower = std::countr_zero(b), to = tower > home ? home + 2 : home - 2;
        if (tower / 8 != home / 8 || (t.between[home][tower] & all) != 0) continue;
        std::uint64_t way = bit(to) | t.between[home][to];
        if ((way & danger) == 0) take(king, home, bit(to));
      }
    }
  }
  static constexpr std::uint64_t ends = 0xff000000000000ffull;

  std::uint64_t countMoves() const {
    std::uint64_t total = 0;
    moves([&](Kind kind, int, std::uint64_t targets) {
      total += static_cast<std::uint64_t>(std::popcount(targets));
      if (kind == pawn) total += 3 * static_cast<std::uint64_t>(std::popcount(targets & ends));
    });
    return total;
  }
  void make(Kind kind, int from, int to, Kind becomes) {
    int me = turn, enemy = 1 - turn;
    std::uint64_t b = bit(to);
    ++quiet;
    if ((side[enemy] & b) != 0) {
      side[enemy] ^= b;
      for (std::uint64_t& plane : piece) plane &= ~b;
      quiet = 0;
    }
    if (kind == pawn) {
      quiet = 0;
      if (to == passed) {
        std::uint64_t victim = bit(me == 0 ? to - 8 : to + 8);
        side[enemy] &= ~victim;
        piece[pawn] &= ~victim;
      }
    }
    passed = kind == pawn && (to - from == 16 || from - to == 16) ? (from + to) / 2 : -1;
    side[me] ^= bit(from) | b;
    piece[kind] ^= bit(from);
    piece[becomes] |= b;
    if (kind == king && (to - from == 2 || from - to == 2)) {
      std::uint64_t tower = to > from ? bit(to + 1) | bit(to - 1) : bit(to - 2) | bit(to + 1);
      side[me] ^= tower;
      piece[rook] ^= tower;
    }
    rights &= ~(bit(from) | b);
    if (((bit(from) | b) & bit(4)) != 0) rights &= ~std::uint64_t{0xff};
    if (((bit(from) | b) & bit(60)) != 0) rights &= ~(std::uint64_t{0xff} << 56);
    turn = enemy;
  }
  std::uint64_t sequences(int depth) const {
    if (depth == 1) return countMoves();
    std::uint64_t total = 0;
    moves([&](Kind kind, int from, std::uint64_t targets) {
      for (; targets != 0; targets &= targets - 1) {
        int to = std::countr_zero(targets);
        bool promotes = kind == pawn && ((ends >> to) & 1);
        for (Kind becomes : {promotes ? knight : kind, bishop, rook, queen}) {
          Chess next = *this;
          next.make(kind, from, to, becomes);
          total += next.sequences(depth - 1);
          if (!promotes) break;
        }
      }
    });
    return total;
  }
  std::uint64_t key() const {
    std::uint64_t out = rights * 31 + static_cast<std::uint64_t>(turn);
    for (std::uint64_t plane : piece) out = (out ^ plane) * 0x9e3779b97f4a7c15ull, out ^= out >> 29;
    return (out ^ side[0]) * 0xbf58476d1ce4e5b9ull;
  }
  bool tooLittle() const {
    constexpr std::uint64_t light = 0x55aa55aa55aa55aaull;
    if ((piece[pawn] | piece[rook] | piece[queen]) != 0) return false;
    if (std::popcount(piece[knight] | piece[bishop]) <= 1) return true;
    return piece[knight] == 0 && ((piece[bishop] & light) == 0 || (piece[bishop] & ~light) == 0);
  }
  // 1: White mates, 2: Black mates, 0: a draw, by the sheet's rules.
  static int playOut(Random& random, int& plies) {
    struct Group {
      Kind kind;
      int from;
      std::uint64_t targets;
      std::uint32_t moves;
    };
    Chess board;
    std::uint64_t seen[8000];
    int first = 0;  // where the keys since the last pawn move or capture begin
    while (true) {
      Group groups[40];
      int used = 0;
      std::uint32_t total = 0;
      board.moves([&](Kind kind, int from, std::uint64_t targets) {
        if (targets == 0) return;
        std::uint32_t many = static_cast<std::uint32_t>(std::popcount(targets));
        if (kind == pawn) many += 3 * static_cast<std::uint32_t>(std::popcount(targets & ends));
        groups[used++] = {kind, from, targets, many};
        total += many;
      });
      if (total == 0) {
        int home = std::countr_zero(board.side[board.turn] & board.piece[king]);
        bool check = board.attackers(home, 1 - board.turn, board.side[0] | board.side[1]) != 0;
        return check ? 2 - board.turn : 0;
      }
      if (board.tooLittle() || board.quiet >= 100) return 0;
      seen[plies] = board.key();
      int times = 0;
      for (int i = first; i <= plies; ++i) times += seen[i] == seen[plies] ? 1 : 0;
      if (times >= 3) return 0;
      std::uint32_t rank = random.below(total);
      Group* group = groups;
      for (; rank >= group->moves; ++group) rank -= group->moves;
      bool promotes = group->kind == pawn && (group->targets & ends) != 0;
      Kind becomes = group->kind;
      if (promotes) {
        becomes = static_cast<Kind>(knight + rank % 4);
        rank /= 4;
      }
      int to = std::countr_zero(nth(group->targets, rank));
      board.make(group->kind, group->from, to, becomes);
      ++plies;
      if (board.quiet == 0) first = plies;
    }
  }
};

}  // namespace yardstick
