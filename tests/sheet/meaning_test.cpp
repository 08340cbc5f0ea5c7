// What expressions yield: compiled programs against plain loops over cells, on random positions of
// boards of several widths and with joined edges.
#include <functional>
#include <set>

#include "support/games.hpp"

namespace ninepegs {
namespace meaning_test {

struct Plain {
  int columns, rows;
  bool ringX = false, ringY = false;
  std::vector<int> kind = {}, side = {};  // -1: nothing

  int size() const { return columns * rows; }
  int step(int cell, int dx, int dy) const {
    int x = cell % columns + dx, y = cell / columns + dy;
    if (ringX) x = (x + 2 * columns) % columns;
    if (ringY) y = (y + 2 * rows) % rows;
    if (x < 0 || y < 0 || x >= columns || y >= rows) return -1;
    return y * columns + x;
  }
};
using Cells = std::set<int>;
using Ways = std::vector<std::pair<int, int>>;

const Ways orthogonal = {{0, 1}, {1, 0}, {0, -1}, {-1, 0}};
const Ways diagonal = {{1, 1}, {1, -1}, {-1, -1}, {-1, 1}};
const Ways anyWay = {{0, 1}, {1, 1}, {1, 0}, {1, -1}, {0, -1}, {-1, -1}, {-1, 0}, {-1, 1}};

Cells where(const Plain& b, const std::function<bool(int)>& test) {
  Cells out;
  for (int cell = 0; cell < b.size(); ++cell)
    if (test(cell)) out.insert(cell);
  return out;
}
Cells of(const Plain& b, int side) {
  return where(b, [&](int c) { return b.side[c] == side; });
}
Cells empty(const Plain& b) {
  return where(b, [&](int c) { return b.side[c] < 0; });
}
Cells moved(const Plain& b, const Cells& from, const Ways& ways) {
  Cells out;
  for (int cell : from)
    for (auto [dx, dy] : ways)
      if (int to = b.step(cell, dx, dy); to >= 0 && to != cell) out.insert(to);
  return out;
}
Cells slid(const Plain& b, const Cells& from, const Ways& ways, const Cells& through) {
  Cells out;
  for (int cell : from)
    for (auto [dx, dy] : ways) {
      int at = b.step(cell, dx, dy);
      for (int n = 0; n < 64 && at >= 0 && at != cell; ++n) {
        out.insert(at);
        if (through.count(at) == 0) break;
        at = b.step(at, dx, dy);
      }
      if (at == cell && b.size() > 1) out.insert(cell);  // round a ring back to the start
    }
  return out;
}
Cells both(const Cells& a, const Cells& b) {
  Cells out;
  for (int c : a)
    if (b.count(c) > 0) out.insert(c);
  return out;
}
Cells either(Cells a, const Cells& b) {
  a.insert(b.begin(), b.end());
  return a;
}
std::vector<Cells> linesIn(const Plain& b, int length, const Cells& in, const Ways& ways) {
  std::set<Cells> out;
  for (int start = 0; start < b.size(); ++start)
    for (auto [dx, dy] : ways) {
      Cells run;
      int at = start;
      while (static_cast<int>(run.size()) < length && at >= 0 && in.count(at) > 0 &&
             run.count(at) == 0) {
        run.insert(at);
        at = b.step(at, dx, dy);
      }
      if (static_cast<int>(run.size()) == length) out.insert(run);
    }
  return {out.begin(), out.end()};
}
Cells spread(const Plain& b, Cells from, const Cells& through, const Ways& ways) {
  from = both(from, through);
  while (true) {
    Cells more = either(from, both(moved(b, from, ways), through));
    if (more == from) return from;
    from = more;
  }
}

struct Sample {
  const char* text;
  std::function<Cells(const Plain&, int me)> plain;
};

const std::vector<Sample>& samples() {
  static const std::vector<Sample> all = {
      {"mine", [](const Plain& b, int me) { return of(b, me); }},
      {"theirs", [](const Plain& b, int me) { return of(b, 1 - me); }},
      {"empty", [](const Plain& b, int) { return empty(b); }},
      {"occupied", [](const Plain& b, int) { return either(of(b, 0), of(b, 1)); }},
      {"my saw",
       [](const Plain& b, int me) {
         return where(b, [&](int c) { return b.side[c] == me && b.kind[c] == 1; });
       }},
      {"peg of Slate",
       [](const Plain& b, int) {
         return where(b, [&](int c) { return b.side[c] == 1 && b.kind[c] == 0; });
       }},
      {"saw", [](const Plain& b, int) { return where(b, [&](int c) { return b.kind[c] == 1; }); }},
      {"my tool", [](const Plain& b, int me) { return of(b, me); }},
      {"north of mine",
       [](const Plain& b, int me) {
         return moved(b, of(b, me), {{0, 1}});
       }},
      {"southwest of theirs",
       [](const Plain& b, int me) {
         return moved(b, of(b, 1 - me), {{-1, -1}});
       }},
      {"forward of mine",
       [](const Plain& b, int me) {
         return moved(b, of(b, me), {{0, me == 0 ? 1 : -1}});
       }},
      {"backward of mine",
       [](const Plain& b, int me) {
         return moved(b, of(b, me), {{0, me == 0 ? -1 : 1}});
       }},
      {"step forward-diagonal from mine",
       [](const Plain& b, int me) {
         int up = me == 0 ? 1 : -1;
         return moved(b, of(b, me), {{-1, up}, {1, up}});
       }},
      {"step any from theirs",
       [](const Plain& b, int me) { return moved(b, of(b, 1 - me), anyWay); }},
      {"leap 1 2 from my saw",
       [](const Plain& b, int me) {
         return moved(b, where(b, [&](int c) { return b.side[c] == me && b.kind[c] == 1; }),
                      {{1, 2}, {2, 1}, {2, -1}, {1, -2}, {-1, -2}, {-2, -1}, {-2, 1}, {-1, 2}});
       }},
      {"slide orthogonal from mine",
       [](const Plain& b, int me) { return slid(b, of(b, me), orthogonal, empty(b)); }},
      {"slide diagonal from theirs through (empty or mine)",
       [](const Plain& b, int me) {
         return slid(b, of(b, 1 - me), diagonal, either(empty(b), of(b, me)));
       }},
      {"my reach",
       [](const Plain& b, int me) {
         auto kind = [&](int k) {
           return where(b, [&](int c) { return b.side[c] == me && b.kind[c] == k; });
         };
         return either(moved(b, kind(0), orthogonal), slid(b, kind(1), diagonal, empty(b)));
       }},
      {"cells c in mine where any (reach of c on theirs)",
       [](const Plain& b, int me) {
         return where(b, [&](int c) {
           if (b.side[c] != me) return false;
           Cells reach =
               b.kind[c] == 0 ? moved(b, {c}, orthogonal) : slid(b, {c}, diagonal, empty(b));
           return !both(reach, of(b, 1 - me)).empty();
         });
       }},
      {"(lines of 3 in (mine or empty)) on all",
       [](const Plain& b, int me) {
         Cells out;
         for (const Cells& line : linesIn(b, 3, either(of(b, me), empty(b)), anyWay))
           out = either(out, line);
         return out;
       }},
      {"(lines of 4 in (empty or theirs) along orthogonal) on all",
       [](const Plain& b, int me) {
         Cells out;
         for (const Cells& line : linesIn(b, 4, either(of(b, 1 - me), empty(b)), orthogonal))
           out = either(out, line);
         return out;
       }},
      {"spread from (mine on edge) through (mine or empty) along orthogonal",
       [](const Plain& b, int me) {
         Cells edge = where(b, [&](int c) {
           int x = c % b.columns, y = c / b.columns;
           return x == 0 || y == 0 || x == b.columns - 1 || y == b.rows - 1;
         });
         return spread(b, both(of(b, me), edge), either(of(b, me), empty(b)), orthogonal);
       }},
      {"(odd columns on rows 2 to 3) or corner",
       [](const Plain& b, int) {
         return where(b, [&](int c) {
           int x = c % b.columns + 1, y = c / b.columns + 1;
           bool corner = (x == 1 || x == b.columns) && (y == 1 || y == b.rows);
           return (x % 2 == 1 && (y == 2 || y == 3)) || corner;
         });
       }},
      {"dark except light-free",
       [](const Plain& b, int) {
         return where(b, [&](int c) {
           return (c % b.columns + c / b.columns) % 2 == 0 && c / b.columns != 0;
         });
       }},
      {"if count mine > count theirs then mine else empty",
       [](const Plain& b, int me) {
         return of(b, me).size() > of(b, 1 - me).size() ? of(b, me) : empty(b);
       }},
      {"my half on empty",
       [](const Plain& b, int me) {
         return where(b, [&](int c) {
           int y = c / b.columns + 1;
           return b.side[c] < 0 && (me == 0 ? y <= 2 : y > b.rows - 2);
         });
       }},
      {"near(theirs) except mine",
       [](const Plain& b, int me) {
         Cells out;
         for (int c : moved(b, of(b, 1 - me), orthogonal))
           if (b.side[c] != me) out.insert(c);
         return out;
       }},
      {"cells c in empty where any (bracketed theirs from c by mine)",
       [](const Plain& b, int me) {
         return where(b, [&](int c) {
           if (b.side[c] >= 0) return false;
           for (auto [dx, dy] : anyWay) {
             int at = b.step(c, dx, dy), length = 0;
             while (at >= 0 && b.side[at] == 1 - me && length < 99)
               at = b.step(at, dx, dy), ++length;
             if (length > 0 && length < 99 && at >= 0 && b.side[at] == me) return true;
           }
           return false;
         });
       }},
  };
  return all;
}

struct Shape {
  int columns, rows;
  const char* option;
};

class Meaning : public testing::TestWithParam<Shape> {};

TEST_P(Meaning, AgreesWithPlainLoops) {
  const Shape& shape = GetParam();
  std::string text = "group tool = peg, saw\nzone light-free = row 1\n";
  text += "zone half = rows 1 to 2 for Amber, rows " + std::to_string(shape.rows - 1) + " to " +
          std::to_string(shape.rows) + " for Slate\n";
  text += "define near(s) = step orthogonal from s\nalways\n";
  for (const Sample& sample : samples()) {
    // How many cells, and a number that tells which.
    text += std::string("  count (") + sample.text + ") never shrinks\n";
    text += std::string(
                "  total (row-no of q * 40 + column-no of q) * (row-no of q * 40 + column-no of q)"
                " for q in (") +
            sample.text + ") never shrinks\n";
  }
  std::string board =
      "square " + std::to_string(shape.columns) + " x " + std::to_string(shape.rows) + shape.option;
  std::shared_ptr<const SheetGame> game = test::fromText(test::sheetWith(text, board));
  Stream stream(11, static_cast<std::uint64_t>(shape.columns * 100 + shape.rows));
  for (int round = 0; round < 60; ++round) {
    Plain plain{shape.columns, shape.rows};
    plain.ringX = std::string(shape.option).find("left to right") != std::string::npos;
    plain.ringY = std::string(shape.option).find("top to bottom") != std::string::npos;
    plain.kind.assign(plain.size(), -1);
    plain.side.assign(plain.size(), -1);
    std::uint32_t density = 1 + stream.below(4);
    std::string picture;
    for (int cell = 0; cell < plain.size(); ++cell)
      if (stream.below(5) < density) {
        plain.kind[cell] = static_cast<int>(stream.below(2));
        plain.side[cell] = static_cast<int>(stream.below(2));
      }
    for (int y = shape.rows - 1; y >= 0; --y) {
      for (int x = 0; x < shape.columns; ++x) {
        int cell = y * shape.columns + x;
        picture += plain.side[cell] < 0 ? '.' : "oxsz"[plain.kind[cell] * 2 + plain.side[cell]];
      }
      if (y > 0) picture += '/';
    }
    Position position = game->readPosition(picture + "; Amber to move", "test");
    for (std::size_t i = 0; i < samples().size(); ++i) {
      for (int me = 0; me < 2; ++me) {
        Cells expected = samples()[i].plain(plain, me);
        std::int64_t which = 0;
        for (int cell : expected) {
          std::int64_t code = (cell / shape.columns + 1) * 40 + cell % shape.columns + 1;
          which += code * code;
        }
        ASSERT_EQ(game->invariantValue(2 * i, position, me),
                  static_cast<std::int64_t>(expected.size()))
            << samples()[i].text << " for side " << me << " in " << picture;
        ASSERT_EQ(game->invariantValue(2 * i + 1, position, me), which)
            << samples()[i].text << " for side " << me << " in " << picture;
      }
    }
  }
}

INSTANTIATE_TEST_SUITE_P(
    Boards, Meaning,
    testing::Values(Shape{5, 4, ""}, Shape{8, 8, ""}, Shape{9, 9, ""}, Shape{15, 15, ""},
                    Shape{20, 20, ""}, Shape{6, 5, ", joined left to right"},
                    Shape{5, 7, ", joined left to right, joined top to bottom"}));

std::int64_t number(const std::string& expression, const std::string& position, int side = 0) {
  std::shared_ptr<const SheetGame> game = test::fromText(test::sheetWith(
      "number tally\nnumber own each\nmark spot\nalways\n  " + expression + " never shrinks\n"));
  return game->invariantValue(0, game->readPosition(position, "test"), side);
}

TEST(Numbers, ArithmeticIsWholeAndNeverFaults) {
  const char* at = "5/5/5/oo1xs; tally 7; own of Amber 3; own of Slate -4; Slate to move";
  EXPECT_EQ(number("7 / 2", at), 3);
  EXPECT_EQ(number("(0 - 7) / 2", at), -3);
  EXPECT_EQ(number("7 % 4", at), 3);
  EXPECT_EQ(number("tally / (tally - 7)", at), 0);
  EXPECT_EQ(number("tally % (tally - 7)", at), 0);
  EXPECT_EQ(number("1000000000000 * 1000000000000 * 1000000000000 / (0 - 1)", at) % 1, 0);
  EXPECT_EQ(number("my own * 10 + their own", at, 0), 26);
  EXPECT_EQ(number("my own * 10 + their own", at, 1), -37);
  EXPECT_EQ(number("own of Slate", at, 0), -4);
  EXPECT_EQ(number("min(tally, 3) + max(tally, 10)", at), 13);
  EXPECT_EQ(number("total value of c for c in mine", at, 0), 9);
  EXPECT_EQ(number("value of a1 + value of c1", at), 2);
  EXPECT_EQ(number("if tally > 6 then 1 else 2", at), 1);
}

TEST(Numbers, CountsOfLines) {
  EXPECT_EQ(number("count lines of 3 in mine", "5/5/5/oooo1", 0), 2);
  EXPECT_EQ(number("count lines of 2 in mine along diagonal", "5/5/1o3/o1o2", 0), 2);
}

std::int64_t holds(const std::string& condition, const std::string& position, int side = 0) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      test::sheetWith("define crowded(n) = count mine >= n\nalways\n  " + condition + "\n"));
  return game->invariantValue(0, game->readPosition(position, "test"), side);
}

TEST(Conditions, TruthTables) {
  const char* at = "5/5/5/oo1xs";  // Amber has three, Slate one
  EXPECT_EQ(holds("any mine and no theirs", at), 0);
  EXPECT_EQ(holds("any mine and not no theirs", at), 1);
  EXPECT_EQ(holds("no mine or any theirs", at), 1);
  EXPECT_EQ(holds("not (no mine or any theirs)", at), 0);
  EXPECT_EQ(holds("not (any mine and any theirs)", at), 0);
  EXPECT_EQ(holds("a1 in mine", at), 1);
  EXPECT_EQ(holds("c1 in mine", at), 0);
  EXPECT_EQ(holds("mine within row 1", at), 1);
  EXPECT_EQ(holds("mine within peg", at), 0);
  EXPECT_EQ(holds("crowded(3)", at, 0), 1);
  EXPECT_EQ(holds("crowded(3)", at, 1), 0);
  EXPECT_EQ(holds("their crowded(3)", at, 1), 1);
  EXPECT_EQ(holds("mover is Amber", at, 0), 1);
  EXPECT_EQ(holds("mover is Amber", at, 1), 0);
  struct Comparison {
    const char* op;
    bool less, equal, greater;
  };
  for (Comparison c : {Comparison{"=", false, true, false},
                       {"!=", true, false, true},
                       {"<", true, false, false},
                       {"<=", true, true, false},
                       {">", false, false, true},
                       {">=", false, true, true}}) {
    for (const char* negated : {"", "not "}) {
      bool flip = *negated != '\0';
      auto test = [&](const char* a, const char* b) {
        return holds(std::string(negated) + a + " " + c.op + " " + b, at) != 0;
      };
      EXPECT_EQ(test("count theirs", "count mine"), c.less != flip) << c.op;
      EXPECT_EQ(test("count mine", "3"), c.equal != flip) << c.op;
      EXPECT_EQ(test("count mine", "count theirs"), c.greater != flip) << c.op;
    }
  }
}

TEST(Conditions, BetweenAndBeyond) {
  const char* at = "5/5/5/5";
  EXPECT_EQ(holds("count between a1 and d4 = 2", at), 1);
  EXPECT_EQ(holds("between a1 and d4 within (b2 or c3)", at), 1);
  EXPECT_EQ(holds("no between a1 and b3", at), 1);
  EXPECT_EQ(holds("no between a1 and b1", at), 1);
  EXPECT_EQ(holds("beyond b1 from a1 in column c", at), 1);
  EXPECT_EQ(holds("beyond e1 from d1 in all", at), 0);
  EXPECT_EQ(holds("beyond c3 from a1 in d4", at), 1);
}

}  // namespace meaning_test
}  // namespace ninepegs
