#include "ninepegs/play/margins.hpp"

#include <algorithm>

#include "support/games.hpp"
#include "support/plain_games.hpp"

namespace ninepegs::play {
namespace margins_test {

// What the first side leads by at an end.
using Lead = std::int64_t (*)(const Game&, const Position&);

std::int64_t byWorth(const Game& game, const Position& position) {
  return game.measure()->worth(position, 0);  // less that of the other side
}

// Every line to its end.
std::int64_t best(const Game& game, const Position& position, Lead lead) {
  MoveList moves;
  if (game.result(position).kind == ResultKind::ongoing) game.listMoves(position, moves);
  if (moves.empty()) return lead(game, position);
  bool first = game.toMove(position) == 0;
  std::optional<std::int64_t> most;
  for (const Move& move : moves) {
    Position after = position;
    game.apply(after, move);
    std::int64_t value = best(game, after, lead);
    most = !most ? value : first ? std::max(*most, value) : std::min(*most, value);
  }
  return *most;
}

int best(const plain::Othello<4>& game) {
  int most = 0;
  bool any = false, first = game.mover == 1;
  for (const std::string& move : game.moves()) {
    plain::Othello<4> after = game;
    after.play(move);
    int value = best(after);
    most = !any ? value : first ? std::max(most, value) : std::min(most, value);
    any = true;
  }
  return any ? most : game.lead();
}

Margins asked(const SheetGame& game, const Position& position, int threads = 1) {
  SolveOptions how{.megabytes = 1, .threads = threads};
  return margins(game, position, solve(game, position, how), how);
}

void expectKnown(const Margin& margin, std::int64_t value) {
  ASSERT_TRUE(margin.known());
  EXPECT_EQ(*margin.least, value);
}

// Published: the second side by eight. Behind some random moves, each move's margin is that of the
// position behind it.
TEST(Margins, OfOthelloAgreeWithPlainMinimax) {
  auto game =
      std::dynamic_pointer_cast<const SheetGame>(test::shippedLibrary().open("othello", "four"));
  expectKnown(asked(*game, game->start()).position, -8);
  for (std::uint64_t number = 0; number < 12; ++number) {
    Stream stream(7, number);
    Position position = game->start();
    plain::Othello<4> plain;
    MoveList moves;
    for (std::uint64_t ply = 0; ply < 4 + number % 3; ++ply) {
      game->listMoves(position, moves);
      if (moves.empty()) break;
      const Move& move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
      plain.play(game->moveText(position, move));
      game->apply(position, move);
    }
    if (game->ended(position)) continue;
    SolveOptions how{.megabytes = 1};
    Solved solved = solve(*game, position, how);
    Margins found = margins(*game, position, solved, how);
    expectKnown(found.position, best(plain));
    ASSERT_EQ(found.moves.size(), solved.moves.size());
    for (std::size_t i = 0; i < solved.moves.size(); ++i) {
      plain::Othello<4> after = plain;
      after.play(game->moveText(position, solved.moves[i].move));
      expectKnown(found.moves[i], best(after));
    }
    EXPECT_FALSE(found.brokenOff);
  }
}

// Tiles of three strengths on hexes; seeds that are sown, also after an earlier capture; who lays
// a peg beside an own one goes on, and corners count against a side; a side that has more at the
// start.
TEST(Margins, OfSmallSheetsAgreeWithEveryLine) {
  const std::string pegs =
      "game t\nsides Amber and Slate\nboard square 4 x 2\npiece peg o x\nstart\n  . . . .\n"
      "  . . x .\nmove go\n  pick there in empty\n  put peg on there\n"
      "  when any (step orthogonal from there on mine)\n    again\n  written as there\nends\n"
      "  leader in count mine - 3 * count mine on corner wins \"more\" or draw \"level\" when no "
      "empty\nworth count mine - 3 * count mine on corner\n";
  const std::string sow =
      "game t\nsides Amber and Slate\nboard square 3 x 2\nnumber seeds on cells\n"
      "number taken each\ntrack round = a1 b1 c1 c2 b2 a2\n"
      "zone home = row 1 for Amber, row 2 for Slate\nstart\n  seeds 2 2 2 2 2 2\nmove sow\n"
      "  pick house in cells c in my home where seeds of c > 0\n  let hold = seeds of house\n"
      "  let at = house\n  set seeds of house to 0\n  repeat hold times\n"
      "    set at to next along round from at\n    set seeds of at to seeds of at + 1\n"
      "  when at in their home and seeds of at > 2\n"
      "    set my taken to my taken + seeds of at\n    set seeds of at to 0\n"
      "  written as house\nends\n  leader in my taken * 5 wins \"more\" or draw \"level\" when "
      "stuck or plies >= 9\nworth my taken * 5\n";
  const std::string hexes =
      "game t\nsides Amber and Slate\nboard hexagon 2\npiece twig t T strength 1\n"
      "piece plank p P strength 2\nstart\n  hand of each 2 twig, 1 plank\nmove lay\n"
      "  choose tile from my hand\n  pick there in empty\n  put tile on there from my hand\n"
      "  flip cells n in step any from there on theirs where strength of n < strength of there\n"
      "  written as tile \" \" there\nends\n  leader in count mine wins \"more\" or draw \"level\""
      " when no my hand and no their hand\nworth count mine\n";
  const std::string fewer = "variant fewer\n  start\n    hand of each 1 twig, 1 plank\n";
  struct One {
    std::string text, variant;
    int plies;
  };
  for (const One& one : std::vector<One>{{pegs, "", 0},
                                         {pegs, "", 2},
                                         {sow, "", 0},
                                         {sow, "", 1},
                                         {hexes, "", 2},
                                         {hexes + fewer, "fewer", 0},
                                         {hexes + fewer, "fewer", 1}}) {
    std::shared_ptr<const SheetGame> game = test::fromText(one.text, one.variant);
    ASSERT_TRUE(leadDecides(*game));
    for (std::uint64_t number = 0; number < (one.plies == 0 ? 1 : 3); ++number) {
      SCOPED_TRACE(one.text + std::to_string(number));
      Stream stream(3, number);
      std::unique_ptr<LivePosition> live = game->live();
      while (live->plies() < one.plies && live->playDrawn(stream)) {
      }
      Position position = live->position();
      SolveOptions how{.megabytes = 1, .threads = number == 1 ? 2 : 1};
      Solved solved = solve(*game, position, how);
      Margins found = margins(*game, position, solved, how);
      expectKnown(found.position, best(*game, position, byWorth));
      for (std::size_t i = 0; i < solved.moves.size(); ++i) {
        Position after = position;
        game->apply(after, solved.moves[i].move);
        expectKnown(found.moves[i], best(*game, after, byWorth));
      }
    }
  }
}

// Two ends that count otherwise, the first of which asks what the last move changed.
TEST(Margins, OfSeveralEnds) {
  const std::string text =
      "game t\nsides Amber and Slate\nboard square 3 x 2\npiece peg o x\nmove go\n"
      "  pick there in empty\n  put peg on there\n  written as there\nends\n"
      "  leader in 4 * count mine on column 1 wins \"edge\" or draw \"even\" when no (empty on "
      "column 1) and any (was empty on column 1)\n"
      "  leader in count mine wins \"more\" or draw \"level\" when no empty\n";
  std::shared_ptr<const SheetGame> game = test::fromText(text);
  Lead lead = [](const Game& on, const Position& position) {
    std::string name = on.result(position).name;
    bool edge = name == "edge" || name == "even";
    std::int64_t out = 0;
    for (Cell cell = 0; cell < on.board().size(); ++cell)
      if (std::optional<Piece> piece = on.pieceAt(position, cell, 0))
        if (!edge || on.board().label(cell).front() == 'a')
          out += (edge ? 4 : 1) * (piece->side == 0 ? 1 : -1);
    return out;
  };
  Solved solved = solve(*game, game->start(), {.megabytes = 1});
  Margins found = margins(*game, game->start(), solved, {.megabytes = 1});
  expectKnown(found.position, best(*game, game->start(), lead));
  for (std::size_t i = 0; i < solved.moves.size(); ++i) {
    Position after = game->start();
    game->apply(after, solved.moves[i].move);
    expectKnown(found.moves[i], best(*game, after, lead));
  }
}

// Broken off, the bounds hold; nothing is said of a position that is not solved.
TEST(Margins, HaveBoundsWhenBrokenOff) {
  auto game =
      std::dynamic_pointer_cast<const SheetGame>(test::shippedLibrary().open("othello", "four"));
  Solved solved = solve(*game, game->start(), {.megabytes = 1});
  bool some = false;
  for (std::uint64_t nodes : {1u, 40u, 80u, 120u, 160u, 200u, 300u, 2000u}) {
    Margins found = margins(*game, game->start(), solved, {.nodes = nodes, .megabytes = 1});
    EXPECT_LE(found.position.least.value_or(-8), -8) << nodes;
    EXPECT_GE(found.position.most.value_or(-8), -8) << nodes;
    EXPECT_LE(*found.position.most, -1) << nodes;  // the solver knew that much
    EXPECT_TRUE(found.brokenOff || found.position.known()) << nodes;
    some = some || (found.brokenOff && *found.position.most < -1);
  }
  EXPECT_TRUE(some);
  Margins found = margins(*game, game->start(), Solved{}, {.megabytes = 1});
  EXPECT_TRUE(found.brokenOff);
  EXPECT_FALSE(found.position.least || found.position.most);
}

// Where nobody can move and no end holds, the rules do not say who leads.
TEST(Margins, AreNotToldWhereGamesComeToNoEnd) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game t\nsides Amber and Slate\nboard square 3 x 1\npiece peg o x\nmove go\n"
      "  pick there in empty except (step orthogonal from mine)\n  put peg on there\n"
      "ends\n  leader in 4 * count mine wins \"more\" or draw \"level\" when no empty\n");
  Margins found = asked(*game, game->start());
  EXPECT_TRUE(found.noEnd);
  EXPECT_TRUE(found.brokenOff);
  EXPECT_FALSE(found.position.known());
}

TEST(Margins, AreForGamesThatALeadDecides) {
  EXPECT_TRUE(leadDecides(dynamic_cast<const SheetGame&>(*test::shipped("othello"))));
  EXPECT_FALSE(leadDecides(dynamic_cast<const SheetGame&>(*test::shipped("tic-tac-toe"))));
  EXPECT_FALSE(leadDecides(*test::fromText(
      "game t\nsides Amber and Slate\nboard square 2 x 2\npiece peg o x\nmove go\n"
      "  pick there in empty\n  put peg on there\nends\n  mover wins \"a1\" when any mine on a1\n"
      "  leader in count mine wins \"more\" or draw \"level\" when no empty\n")));
}

}  // namespace margins_test
}  // namespace ninepegs::play
