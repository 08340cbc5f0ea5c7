// Chess by hand: a legal generator on bit masks (checks, pins and attacked squares worked out once
// a position, sliding attacks from tables), counting the last ply without making its moves.
#pragma once

#include <cstring>
#include <initializer_list>
#include <vector>

#include "yardsticks.hpp"

namespace yardstick {

struct ChessTables {
  std::uint64_t knight[64], king[64], pawn[2][64], between[64][64], line[64][64];

  // Sliding attacks by the blockers on a square's mask, all squares in one table.
  struct Slide {
    std::uint64_t mask;
    std::uint32_t first;
  };
  Slide rookAt[64], bishopAt[64];
  std::vector<std::uint64_t> slides;

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
    return slides[rookAt[square].first + gathered(occupied, rookAt[square].mask)];
  }
  std::uint64_t bishop(int square, std::uint64_t occupied) const {
    return slides[bishopAt[square].first + gathered(occupied, bishopAt[square].mask)];
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
        (isRook ? rookAt : bishopAt)[s] = {mask, static_cast<std::uint32_t>(slides.size())};
        for (std::uint64_t i = 0; i < std::uint64_t{1} << std::popcount(mask); ++i)
          slides.push_back(rays(s, isRook, spread(i, mask), true));
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
  std::uint64_t passed = 0;                      // the cell a double step went over
  int quiet = 0;

  static constexpr std::uint64_t ends = 0xff000000000000ffull;
  static constexpr std::uint64_t notWest = 0xfefefefefefefefeull, notEast = 0x7f7f7f7f7f7f7f7full;

  static std::uint64_t bit(int square) { return std::uint64_t{1} << square; }
  template <class Each>
  static void forEach(std::uint64_t set, Each each) {
    for (; set != 0; set &= set - 1) each(std::countr_zero(set));
  }
  static std::uint64_t many(std::uint64_t set) {
    return static_cast<std::uint64_t>(std::popcount(set));
  }
  template <int steps>
  static std::uint64_t shifted(std::uint64_t set) {
    if constexpr (steps > 0)
      return set << steps;
    else
      return set >> -steps;
  }

  template <int by>
  std::uint64_t attackers(int square, std::uint64_t occupied) const {
    const ChessTables& t = chessTables;
    return side[by] & ((t.pawn[1 - by][square] & piece[pawn]) | (t.knight[square] & piece[knight]) |
                       (t.king[square] & piece[king]) |
                       (t.bishop(square, occupied) & (piece[bishop] | piece[queen])) |
                       (t.rook(square, occupied) & (piece[rook] | piece[queen])));
  }

  template <int by>
  std::uint64_t attackedBy(std::uint64_t occupied) const {
    const ChessTables& t = chessTables;
    constexpr int up = by == 0 ? 8 : -8;
    const std::uint64_t pawns = side[by] & piece[pawn];
    std::uint64_t out = shifted<up - 1>(pawns & notWest) | shifted<up + 1>(pawns & notEast) |
                        t.king[std::countr_zero(side[by] & piece[king])];
    forEach(side[by] & piece[knight], [&](int from) { out |= t.knight[from]; });
    forEach(side[by] & (piece[bishop] | piece[queen]),
            [&](int from) { out |= t.bishop(from, occupied); });
    forEach(side[by] & (piece[rook] | piece[queen]),
            [&](int from) { out |= t.rook(from, occupied); });
    return out;
  }

  // Hands every legal move to `taker`: targets(kind, from, set) for a piece, and for the pawns of
  // one kind of step pawns(step, set); a pawn reaching its last row stands for four moves.
  template <int me, class Taker>
  void moves(Taker& taker) const {
    constexpr int enemy = 1 - me, up = me == 0 ? 8 : -8;
    constexpr std::uint64_t third = me == 0 ? 0xff0000ull : 0xff0000000000ull;
    const ChessTables& t = chessTables;
    const std::uint64_t own = side[me], theirs = side[enemy], all = own | theirs;
    const int home = std::countr_zero(own & piece[king]);
    const std::uint64_t slantwise = piece[bishop] | piece[queen],
                        straight = piece[rook] | piece[queen];

    // Sliders that would see the king through own pieces: checks and pins in one loop.
    std::uint64_t checkers =
        theirs & ((t.knight[home] & piece[knight]) | (t.pawn[me][home] & piece[pawn]));
    std::uint64_t pinned = 0;
    forEach(theirs & ((t.rook(home, theirs) & straight) | (t.bishop(home, theirs) & slantwise)),
            [&](int sniper) {
              std::uint64_t blockers = t.between[home][sniper] & own;
              if (blockers == 0) checkers |= bit(sniper);
              if ((blockers & (blockers - 1)) == 0) pinned |= blockers;
            });
    std::uint64_t steps = t.king[home] & ~own;
    if (steps != 0) steps &= ~attackedBy<enemy>(all ^ bit(home));
    taker.targets(king, home, steps);
    if ((checkers & (checkers - 1)) != 0) return;
    std::uint64_t allowed = ~own;
    if (checkers != 0) allowed &= checkers | t.between[home][std::countr_zero(checkers)];

    forEach(own & piece[knight] & ~pinned,
            [&](int from) { taker.targets(knight, from, t.knight[from] & allowed); });
    forEach(own & slantwise & ~pinned,
            [&](int from) { taker.targets(kindOf(from), from, t.bishop(from, all) & allowed); });
    forEach(own & straight & ~pinned,
            [&](int from) { taker.targets(kindOf(from), from, t.rook(from, all) & allowed); });
    auto pawnSteps = [&](std::uint64_t pawns, std::uint64_t onto) {
      std::uint64_t single = shifted<up>(pawns) & ~all;
      taker.template pawns<up>(single & onto);
      taker.template pawns<2 * up>(shifted<up>(single & third) & ~all & onto);
      taker.template pawns<up - 1>(shifted<up - 1>(pawns & notWest) & theirs & onto);
      taker.template pawns<up + 1>(shifted<up + 1>(pawns & notEast) & theirs & onto);
    };
    pawnSteps(own & piece[pawn] & ~pinned, allowed);
    if (pinned != 0) {
      forEach(pinned & piece[pawn],
              [&](int from) { pawnSteps(bit(from), allowed & t.line[home][from]); });
      forEach(pinned & slantwise, [&](int from) {
        taker.targets(kindOf(from), from, t.bishop(from, all) & allowed & t.line[home][from]);
      });
      forEach(pinned & straight, [&](int from) {
        taker.targets(kindOf(from), from, t.rook(from, all) & allowed & t.line[home][from]);
      });
    }
    if (passed != 0) {
      int to = std::countr_zero(passed);
      forEach(t.pawn[enemy][to] & own & piece[pawn], [&](int from) {
        std::uint64_t victim = shifted<-up>(passed), left = (all ^ bit(from) ^ victim) | passed;
        std::uint64_t seen =
            theirs & ((t.rook(home, left) & straight) | (t.bishop(home, left) & slantwise));
        if (seen == 0 && (checkers & ~victim & (piece[knight] | piece[pawn])) == 0)
          taker.targets(pawn, from, passed);
      });
    }
    if (checkers == 0 && (own & rights) != 0) {
      forEach(own & rights, [&](int tower) {
        if ((t.between[home][tower] & all) != 0) return;
        int way = tower > home ? 1 : -1;
        if (attackers<enemy>(home + way, all) == 0 && attackers<enemy>(home + 2 * way, all) == 0)
          taker.targets(king, home, bit(home + 2 * way));
      });
    }
  }
  Kind kindOf(int slider) const {
    if ((piece[queen] >> slider) & 1) return queen;
    return (piece[rook] >> slider) & 1 ? rook : bishop;
  }

  struct Counter {
    std::uint64_t total = 0;
    void targets(Kind, int, std::uint64_t set) { total += many(set); }
    template <int step>
    void pawns(std::uint64_t set) {
      total += many(set);
      if constexpr (step != 16 && step != -16)
        if ((set & ends) != 0) total += 3 * many(set & ends);
    }
  };
  template <int me>
  void make(Kind kind, int from, int to, Kind becomes) {
    constexpr int enemy = 1 - me, up = me == 0 ? 8 : -8;
    std::uint64_t b = bit(to);
    ++quiet;
    if ((side[enemy] & b) != 0) {
      side[enemy] ^= b;
      for (std::uint64_t& plane : piece) plane &= ~b;
      quiet = 0;
    }
    std::uint64_t over = 0;
    if (kind == pawn) {
      quiet = 0;
      if (b == passed) {
        side[enemy] &= ~bit(to - up);
        piece[pawn] &= ~bit(to - up);
      }
      if (to - from == 2 * up) over = bit(from + up);
    }
    passed = over;
    side[me] ^= bit(from) | b;
    piece[kind] ^= bit(from);
    piece[becomes] |= b;
    if (kind == king) {
      if (to - from == 2 || from - to == 2) {
        std::uint64_t tower = to > from ? bit(to + 1) | bit(to - 1) : bit(to - 2) | bit(to + 1);
        side[me] ^= tower;
        piece[rook] ^= tower;
      }
      rights &= ~(std::uint64_t{0xff} << (56 * me));
    }
    rights &= ~(bit(from) | b);
  }

  template <int me>
  struct Descent {
    const Chess& board;
    int depth;
    std::uint64_t total = 0;
    void one(Kind kind, int from, int to, Kind becomes) {
      Chess next = board;
      next.make<me>(kind, from, to, becomes);
      total += next.sequences<1 - me>(depth - 1);
    }
    void targets(Kind kind, int from, std::uint64_t set) {
      forEach(set, [&](int to) { one(kind, from, to, kind); });
    }
    template <int step>
    void pawns(std::uint64_t set) {
      forEach(set & ~ends, [&](int to) { one(pawn, to - step, to, pawn); });
      forEach(set & ends, [&](int to) {
        for (Kind becomes : {knight, bishop, rook, queen}) one(pawn, to - step, to, becomes);
      });
    }
  };
  // Move sequences of `depth` >= 1 plies with `me` to move; the last ply is counted, not made.
  template <int me>
  std::uint64_t sequences(int depth) const {
    if (depth == 1) {
      Counter counter;
      moves<me>(counter);
      return counter.total;
    }
    Descent<me> descent{*this, depth};
    moves<me>(descent);
    return descent.total;
  }

  std::uint64_t key() const {
    return piece[0] * 0x9e3779b97f4a7c15ull + piece[1] * 0xbf58476d1ce4e5b9ull +
           piece[2] * 0x94d049bb133111ebull + piece[3] * 0xd6e8feb86659fd93ull +
           piece[4] * 0xa0761d6478bd642full + piece[5] * 0xe7037ed1a0b428dbull +
           side[0] * 0x8ebc6af09c88c6e3ull + rights * 0x589965cc75374cc3ull;
  }
  bool tooLittle() const {
    constexpr std::uint64_t light = 0x55aa55aa55aa55aaull;
    if ((piece[pawn] | piece[rook] | piece[queen]) != 0) return false;
    if (std::popcount(piece[knight] | piece[bishop]) <= 1) return true;
    return piece[knight] == 0 && ((piece[bishop] & light) == 0 || (piece[bishop] & ~light) == 0);
  }

  // 1: White mates, 2: Black mates, 0: a draw, by the sheet's rules.
  static int playOut(Random& random, int& plies);
};

struct ChessGroups {
  struct Group {
    std::uint64_t targets;
    std::uint32_t moves;
    std::int16_t from;  // of a piece; of pawns their step
    std::int8_t kind;   // -1: pawns
  };
  Group list[64];
  int used = 0;
  std::uint32_t total = 0;
  void targets(Chess::Kind kind, int from, std::uint64_t set) {
    auto moves = static_cast<std::uint32_t>(std::popcount(set));
    list[used] = {set, moves, static_cast<std::int16_t>(from), static_cast<std::int8_t>(kind)};
    used += moves != 0 ? 1 : 0;
    total += moves;
  }
  template <int step>
  void pawns(std::uint64_t set) {
    auto moves = static_cast<std::uint32_t>(Chess::many(set) + 3 * Chess::many(set & Chess::ends));
    list[used] = {set, moves, step, -1};
    used += moves != 0 ? 1 : 0;
    total += moves;
  }
};
struct ChessPlayout {
  Chess board;
  std::uint64_t seen[8000];
  std::uint8_t alike[256] = {};  // how many of those keys begin with these eight bits
  int plies = 0, first = 0;      // where the keys since the last pawn move or capture begin

  // -1: goes on, 1: White mates, 2: Black mates, 0: a draw, by the sheet's rules.
  template <int me>
  int ply(Random& random) {
    ChessGroups groups;
    board.moves<me>(groups);
    if (groups.total == 0) {
      int home = std::countr_zero(board.side[me] & board.piece[Chess::king]);
      return board.attackers<1 - me>(home, board.side[0] | board.side[1]) != 0 ? 2 - me : 0;
    }
    if (board.tooLittle() || board.quiet >= 100) return 0;
    std::uint64_t key = board.key() + board.passed;
    int times = 1;
    if (alike[key >> 56]++ != 0)
      for (int i = plies - 2; i >= first; i -= 2) times += seen[i] == key ? 1 : 0;
    seen[plies] = key;
    if (times >= 3) return 0;
    std::uint32_t rank = random.below(groups.total);
    const ChessGroups::Group* group = groups.list;
    for (; rank >= group->moves; ++group) rank -= group->moves;
    if (group->kind >= 0) {
      auto kind = static_cast<Chess::Kind>(group->kind);
      board.make<me>(kind, group->from, std::countr_zero(nth(group->targets, rank)), kind);
    } else {
      std::uint64_t plain = group->targets & ~Chess::ends, last = group->targets & Chess::ends;
      auto quietSteps = static_cast<std::uint32_t>(std::popcount(plain));
      Chess::Kind becomes = Chess::pawn;
      std::uint64_t to;
      if (rank < quietSteps) {
        to = nth(plain, rank);
      } else {
        becomes = static_cast<Chess::Kind>(Chess::knight + (rank - quietSteps) % 4);
        to = nth(last, (rank - quietSteps) / 4);
      }
      int cell = std::countr_zero(to);
      board.make<me>(Chess::pawn, cell - group->from, cell, becomes);
    }
    ++plies;
    if (board.quiet == 0) {
      first = plies;
      std::memset(alike, 0, sizeof alike);
    }
    return -1;
  }
};
inline int Chess::playOut(Random& random, int& plies) {
  ChessPlayout game;
  for (int result = -1;;) {
    result = game.ply<0>(random);
    if (result < 0) result = game.ply<1>(random);
    if (result < 0) continue;
    plies = game.plies;
    return result;
  }
}

}  // namespace yardstick
