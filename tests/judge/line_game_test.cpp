// Games of lines: told from the terms alone, and held against play by the rules.
#include <set>

#include "ninepegs/play/line_live.hpp"
#include "ninepegs/sheet/rules/line_game.hpp"
#include "support/games.hpp"
#include "support/many.hpp"

namespace ninepegs {
namespace line_game_test {

using play::LineLive;

std::shared_ptr<const SheetGame> sheet(const std::string& text) {
  return SheetGame::fromText("game.pegs", text);
}

std::uint64_t cellsOf(const MoveList& moves) {
  std::uint64_t out = 0;
  for (const Move& move : moves) out |= std::uint64_t{1} << move.choices[0];
  return out;
}

bool wins(const Game& game, Position position, const Move& move) {
  int side = game.toMove(position);
  game.apply(position, move);
  Result result = game.result(position);
  return result.kind == ResultKind::win && result.winner == side;
}

// The cells of the moves that win at once, and of those behind which the other side cannot.
std::uint64_t winning(const Game& game, const Position& position) {
  MoveList moves, out;
  game.listMoves(position, moves);
  for (const Move& move : moves)
    if (wins(game, position, move)) out.push_back(move);
  return cellsOf(out);
}
std::uint64_t safe(const Game& game, const Position& position) {
  MoveList moves, out;
  game.listMoves(position, moves);
  for (const Move& move : moves) {
    Position after = position;
    game.apply(after, move);
    if (winning(game, after) == 0) out.push_back(move);
  }
  return cellsOf(out);
}

// All that is known of one position, by lines and by the rules.
void compare(const SheetGame& game, LineLive& lines) {
  Position position = lines.position();
  MoveList expected, found;
  game.listMoves(position, expected);
  lines.listMoves(found);
  ASSERT_EQ(found, expected) << game.positionText(position);
  ASSERT_EQ(lines.moveCount(), expected.size());
  ASSERT_EQ(lines.outcome(), game.result(position).outcome()) << game.positionText(position);
  ASSERT_EQ(lines.toMove(), game.toMove(position));
  if (lines.ended()) return;
  ASSERT_EQ(lines.winning(), winning(game, position)) << game.positionText(position);
  if (lines.winning() == 0) {
    ASSERT_EQ(lines.safe(), safe(game, position)) << game.positionText(position);
  }
}

// Random games; each position is compared, and moves are taken back now and then.
void follow(const SheetGame& game, const Position& from, std::uint64_t games) {
  std::vector<Symmetry> images = game.keptSymmetries();
  std::unique_ptr<LineLive> lines = LineLive::of(game, from, images);
  ASSERT_NE(lines, nullptr);
  for (std::uint64_t number = 0; number < games; ++number) {
    Stream stream(11, number);
    lines->setUp(from);
    while (true) {
      ASSERT_NO_FATAL_FAILURE(compare(game, *lines));
      if (lines->plies() > 0 && stream.below(8) == 0) {
        std::uint64_t hash = lines->hash();
        Position position = lines->position();
        lines->takeBack();
        ASSERT_NE(lines->hash(), hash);
        // The same position by another way: as it is set up.
        if (std::unique_ptr<LineLive> other = LineLive::of(game, position, images)) {
          ASSERT_EQ(other->hash(), hash);
          for (const Symmetry& image : images)
            if (auto mirror = LineLive::of(game, game.mapped(position, image), images)) {
              ASSERT_EQ(mirror->leastHash(), other->leastHash());
            }
        }
        continue;
      }
      if (!lines->playDrawn(stream)) break;
    }
  }
}

const std::string head = "game t\nsides Amber and Slate\npiece peg o x\n";
const std::string put = "  put peg on there\n";
const std::string anywhere = "move go\n  pick there in empty\n" + put;
std::string line(int length, const std::string& more = "") {
  return "ends\n  mover wins \"line\" when any line of " + std::to_string(length) + " in mine" +
         more + "\n  draw \"full\" when no empty\n";
}
std::string filling(const std::string& set) {
  return "move go\n  pick there in " + set + "\n" + put;
}

TEST(LineGame, OfTheShippedSheets) {
  std::set<std::string> found;
  for (const std::string& name : test::shippedLibrary().names())
    if (rules::lineGameOf(std::dynamic_pointer_cast<const SheetGame>(test::shipped(name))->rules()))
      found.insert(name);
  EXPECT_EQ(found, (std::set<std::string>{"connect-four", "five-in-a-row", "tic-tac-toe"}));
}

TEST(LineGame, IsFollowedAsTheRulesSay) {
  for (const std::string& text : std::vector<std::string>{
           head + "board square 3 x 3\n" + anywhere + line(3),
           head + "board square 5 x 4\n" + anywhere + line(3),
           head + "board square 5 x 4\n" + anywhere + line(4, " along orthogonal"),
           head + "board square 4 x 4\n" + anywhere +
               "ends\n  mover wins \"line\" when any line of 3 in mine\n",
           head + "board square 6 x 5\n" + filling("empty except north of empty") + line(4),
           head + "board square 6 x 5, rows from top\n" + filling("empty except south of empty") +
               line(3),
           head + "board square 5 x 5\n" +
               filling("empty except (north of empty or east of empty)") + line(3),
           head + "board square 5 x 5\n" +
               filling("(empty on (row 1 or north of occupied)) except a1") + line(3),
           head + "board square 5 x 5, without c3\n" + filling("empty except north of empty") +
               line(3),
           head + "board square 5 x 5\n" + filling("edge on empty") + line(3),
           head + "board square 4 x 4\ndefine low = empty except north of empty\n" +
               filling("low") + line(3),
           head + "board square 3 x 3 x 3\n" + anywhere + line(3),
           head + "board hexagon 3\n" + anywhere + line(4),
           head + "board hexagon 4\n" + filling("empty except northeast of empty") + line(4),
           head + "board rhombus 4 x 4\n" + anywhere + line(4),
           head +
               "board points\n  line a1 b1 c1\n  line a2 b2 c2\n  line a3 b3 c3\n"
               "  line a1 a2 a3\n  line b1 b2 b3\n  line a1 b2 c3\n" +
               anywhere + line(3)}) {
    auto game = sheet(text);
    SCOPED_TRACE(text);
    ASSERT_TRUE(rules::lineGameOf(game->rules()).has_value());
    follow(*game, game->start(), 30);
  }
  for (const auto& [name, variant] :
       std::vector<std::pair<std::string, std::string>>{{"tic-tac-toe", ""},
                                                        {"connect-four", ""},
                                                        {"connect-four", "four"},
                                                        {"connect-four", "five"}}) {
    auto game =
        std::dynamic_pointer_cast<const SheetGame>(test::shippedLibrary().open(name, variant));
    follow(*game, game->start(), 20);
  }
}

// Positions that are set up need not be such as moves lead to.
TEST(LineGame, IsFollowedFromAnyPosition) {
  const std::string board = head + "board square 5 x 5\n";
  auto anyhow = sheet(board + anywhere + line(4));
  auto falling = sheet(board + filling("empty except north of empty") + line(4));
  int followed = 0;
  for (std::uint64_t number = 0; number < 60; ++number) {
    Stream stream(12, number);
    auto live = anyhow->live();
    for (std::uint32_t ply = 0; ply < number % 15 && !live->ended(); ++ply) live->playDrawn(stream);
    if (live->ended()) continue;
    Position position = falling->readPosition(anyhow->positionText(live->position()), "position");
    if (falling->ended(position)) continue;
    ++followed;
    ASSERT_NO_FATAL_FAILURE(follow(*falling, position, 3));
  }
  EXPECT_GT(followed, 40);
  // Who is to move has a line already, and wins with any move.
  const std::string three = "o o o . / . . . . / x x . . / . x . .; ";
  auto small = sheet(head + "board square 4 x 4\n" + anywhere + line(3));
  Position position = small->readPosition(three + "Amber to move", "position");
  ASSERT_FALSE(small->ended(position));
  EXPECT_EQ(LineLive::of(*small, position, {}), nullptr);
}

// What changes anything beside one cell, or asks for more than lines, is another game.
TEST(LineGame, IsLostByOneWord) {
  auto told = [](const std::string& rest) {
    return rules::lineGameOf(sheet(head + rest)->rules()).has_value();
  };
  const std::string board = "board square 4 x 4\n";
  EXPECT_TRUE(told(board + anywhere + line(3)));
  EXPECT_FALSE(told("board square 4 x 4, joined left to right\n" + anywhere + line(3)));
  EXPECT_FALSE(told(board + anywhere + "  again\n" + line(3)));
  EXPECT_FALSE(told(board + filling("empty or theirs") + line(3)));
  EXPECT_FALSE(told(  // one of two cells will do
      board + filling("empty except north of (empty except north of occupied)") + line(3)));
  EXPECT_FALSE(told(board + filling("all") + line(3)));
  EXPECT_FALSE(told(board + filling("empty on north of mine") + line(3)));
  EXPECT_FALSE(told(board + filling("empty on step any from occupied") + line(3)));
  EXPECT_FALSE(told(board + filling("empty on north of empty") + line(3)));  // what falls away
  EXPECT_FALSE(told(board + anywhere + "  flip step any from there on theirs\n" + line(3)));
  EXPECT_FALSE(told(board + anywhere + line(3) + "forbid \"edge\" when edge within mine\n"));
  EXPECT_FALSE(told(board + anywhere +
                    "ends\n  draw \"full\" when no empty\n  mover wins \"line\" when any line of 3 "
                    "in mine\n"));
  EXPECT_FALSE(
      told(board + anywhere + "ends\n  mover loses \"line\" when any line of 3 in mine\n"));
  EXPECT_FALSE(
      told(board + anywhere + "ends\n  mover wins \"line\" when any line of exactly 3 in mine\n"));
  EXPECT_FALSE(
      told(board + anywhere + "ends\n  mover wins \"line\" when any line of 3 in theirs\n"));
  EXPECT_FALSE(told(board + anywhere +
                    "ends\n  mover wins \"line\" when any line of 3 in mine and plies > 6\n"));
  EXPECT_FALSE(told(board + anywhere + line(3) + "after go\n  take corner on theirs\n"));
  EXPECT_FALSE(told(board + anywhere + line(3) + "turn go else pass\n"));
}

// A set of cells, drawn: of which cells are empty, and of where they lie.
std::string drawnSet(Stream& stream, int deep) {
  static const std::vector<std::string> plain = {"empty", "occupied", "edge", "row 1", "corner",
                                                 "b2",    "empty",    "all",  "mine"};
  static const std::vector<std::string> way = {"north", "south", "east", "any", "diagonal"};
  auto one = [&](const std::vector<std::string>& list) {
    return list[stream.below(static_cast<std::uint32_t>(list.size()))];
  };
  if (deep == 0 || stream.below(3) == 0) return one(plain);
  std::string left = "(" + drawnSet(stream, deep - 1) + ")";
  switch (stream.below(4)) {
    case 0:
      return left + " or (" + drawnSet(stream, deep - 1) + ")";
    case 1:
      return left + " except (" + drawnSet(stream, deep - 1) + ")";
    case 2:
      return left + " on (" + drawnSet(stream, deep - 1) + ")";
    default: {
      std::string direction = one(way);
      return stream.below(2) == 0 ? "step " + direction + " from " + left : "north of " + left;
    }
  }
}

TEST(LineGame, HoldsForDrawnSets) {
  int followed = 0, needing = 0;
  for (std::uint64_t number = 0; number < test::many(1200u, 4000u); ++number) {
    Stream stream(29, number);
    std::string board =
        std::vector<std::string>{"square 4 x 3", "square 3 x 4, rows from top", "square 5 x 3",
                                 "square 4 x 4, without b1, c3"}[stream.below(4)];
    std::string set = drawnSet(stream, 3);
    if (stream.below(2) == 0) set = "empty except (" + set + ")";
    std::string text =
        head + "board " + board + "\n" + filling(set) + line(2 + static_cast<int>(stream.below(2)));
    std::shared_ptr<const SheetGame> game;
    try {
      game = sheet(text);
    } catch (const BadInput&) {
      continue;
    }
    std::optional<rules::LineGame> lines = rules::lineGameOf(game->rules());
    if (!lines || game->ended(game->start())) continue;
    ++followed;
    for (const CellSet& needs : lines->needs) needing += needs.any() && needs.count() > 1;
    ASSERT_NO_FATAL_FAILURE(follow(*game, game->start(), 2)) << text;
  }
  EXPECT_GT(followed, test::many(240, 800));
  EXPECT_GT(needing, test::many(30, 100));
}

}  // namespace line_game_test
}  // namespace ninepegs
