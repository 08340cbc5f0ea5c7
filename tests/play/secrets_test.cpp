// Opponents where something is hidden from them.
#include <algorithm>
#include <map>

#include "ninepegs/play/knowledge.hpp"
#include "ninepegs/play/match.hpp"
#include "ninepegs/play/pasts.hpp"
#include "support/games.hpp"
#include "support/many.hpp"

namespace ninepegs::play {
namespace secrets_test {

// Two pegs are hidden one after the other, then cells are guessed; a peg may be hidden on any cell
// that `where` allows.
std::string hiding(const std::string& board, const std::string& where = "all except mine") {
  return "game hiding\nsides Amber and Slate\nboard " + board +
         ", one each\npiece peg P secret\nmark guessed each\nmove hide\n  need count mine < 2\n"
         "  pick there in " +
         where +
         "\n  put peg on there\n  written as \"hide \" there\n  seen as \"hidden\"\nmove guess\n"
         "  pick there in all except my guessed\n  add there to my guessed\n"
         "  when there in theirs\n    tell \"found\"\n  otherwise\n    tell \"nothing\"\n"
         "  written as there\nturn hide else guess\nends\n  mover wins \"all found\" when any "
         "theirs "
         "and theirs within my guessed\neach side sees\n  my guessed except theirs as o on their "
         "board\n  my guessed on theirs as X on their board\n";
}

// A runner goes a step in secret, then the other side may look at a cell.
const std::string running =
    "game running\nsides Runner and Seeker\nboard square 4 x 4\npiece hare H h secret\n"
    "piece lamp L l\nmark lit\nstart\n  hare of Runner b2\n  lamp of Seeker d4\n"
    "move run\n  pick here in my hare\n  pick there in step orthogonal from here on "
    "empty\n  shift here to there\n  set lit to none\n  written as here there\n  seen as \"runs\"\n"
    "move look\n  need any my lamp\n  pick there in all except mine\n  add there to lit\n"
    "  when any (their hare on lit)\n    tell \"there\"\n  otherwise\n    tell \"not there\"\n"
    "  written as there\nends\n  Seeker wins \"seen\" when any (hare of Runner on lit)\n"
    "  Runner wins \"away\" when plies = 16\n";

// The moves of a text from the start on, each noted before it is played.
template <class Note>
Position playAll(const Game& game, const std::string& text, Note&& note) {
  Position position = game.start();
  std::size_t from = 0;
  while (from < text.size()) {
    std::size_t to = std::min(text.find(", ", from), text.size());
    std::vector<Move> found = matchingMoves(game, position, text.substr(from, to - from));
    EXPECT_EQ(found.size(), 1u) << text.substr(from, to - from);
    if (found.empty()) break;
    note(position, found.front());
    game.apply(position, found.front());
    from = to + 2;
  }
  return position;
}

std::string viewOf(const Game& game, const Position& position, int side) {
  return viewText(game, game.viewFor(position, side));
}

// Plays at random and looks at every past at every turn by the views, which nothing else reads.
void pastsAgree(const Game& game, std::uint64_t seed, int plies) {
  Position position = game.start();
  Knowledge known[2] = {{game, position, 0}, {game, position, 1}};
  Pasts pasts[2] = {{game, 12}, {game, 12}};
  Stream stream(seed, 1), own(seed, 2);
  MoveList moves, there;
  std::size_t seen = 0;
  for (int ply = 0; ply < plies && !game.ended(position); ++ply) {
    game.listMoves(position, moves);
    if (moves.empty()) break;
    int side = game.toMove(position);
    Pasts& mine = pasts[side];
    mine.learn(known[side], own);
    ASSERT_GT(mine.size(), 0u) << "ply " << ply << " " << viewOf(game, position, side);
    for (std::size_t i = 0; i < mine.size(); ++i, ++seen) {
      ASSERT_EQ(viewOf(game, mine.now(i), side), viewOf(game, position, side)) << "ply " << ply;
      game.listMoves(mine.now(i), there);
      ASSERT_EQ(there.size(), moves.size());
    }
    Move move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
    for (Knowledge& one : known) one.note(position, move);
    game.apply(position, move);
  }
  EXPECT_GT(seen, 50u);
}

TEST(Pasts, LookLikeTheGame) {
  for (std::uint64_t seed : {1, 2, 3}) {
    pastsAgree(*test::shipped("battleship"), seed, 60);
    pastsAgree(*test::fromText(hiding("square 4 x 4")), seed, 24);
    pastsAgree(*test::fromText(hiding("hexagon 3")), seed, 30);
    pastsAgree(*test::fromText(hiding("square 15 x 15", "(all except mine) or step any from mine")),
               seed, 40);
  }
  pastsAgree(*test::shipped("battleship")->variant("salvo"), 4, 60);
  pastsAgree(*test::shipped("battleship")->variant("no-touch"), 5, 60);
}

// All pasts are listed; each comes up as often as any other, also after walks.
TEST(Pasts, AreDrawnEvenly) {
  std::shared_ptr<const Game> game = test::fromText(hiding("square 3 x 3"));
  // Slate hid on b1 and c3. Amber guessed a1 and c2: nothing, then b1: found.
  const char* played = "hide a3, hide b1, hide b3, hide c3, a1, a2, c2, b2, b1, c2";
  std::map<std::string, int> times;
  int drawn = 0;
  Stream stream(3, 3);
  for (; drawn < 300; ++drawn) {
    // Ply by ply, as in a game: pasts die and are made from others.
    Knowledge known(*game, game->start(), 0);
    Pasts pasts(*game, 24);
    playAll(*game, played, [&](const Position& before, const Move& move) {
      known.note(before, move);
      pasts.learn(known, stream);
    });
    ASSERT_GT(pasts.size(), 0u);
    ++times[game->positionText(pasts.now(0))];
  }
  // One of the two on b1, first or second; the other on one of six cells: six positions.
  ASSERT_EQ(times.size(), 6u);
  double expected = drawn / 6.0, chi = 0;
  for (const auto& [text, count] : times) chi += (count - expected) * (count - expected) / expected;
  EXPECT_LT(chi, 20.5);  // 0.999 of five degrees of freedom
}

// What is told may ask for two pieces to change places, where no change of one would agree.
TEST(Pasts, ChangeTwoPliesAtOnce) {
  std::shared_ptr<const Game> game = test::shipped("battleship");
  const char* played =
      "ferry a1-e1, ferry a10-e10, barge a2-d2, barge i1-i4, cutter a3-c3, cutter b6-b8, "
      "trawler a4-c4, trawler f9-h9, skiff a5-b5, skiff j9-j10, b6, a1, b7, b1, b8, c1";
  for (std::uint64_t seed = 0; seed < 30; ++seed) {
    Knowledge known(*game, game->start(), 0);
    Pasts pasts(*game, 3);  // so few that often all take the trawler for it
    Stream stream(seed, 4);
    int ply = 0;
    Position position = playAll(*game, played, [&](const Position& before, const Move& move) {
      known.note(before, move);
      pasts.learn(known, stream);
      ASSERT_GT(pasts.size(), 0u) << "seed " << seed << ", ply " << ply;
      ++ply;
    });
    for (std::size_t i = 0; i < pasts.size(); ++i)
      EXPECT_EQ(viewOf(*game, pasts.now(i), 0), viewOf(*game, position, 0));
  }
}

TEST(Pasts, OfPiecesThatMoveInSecret) {
  std::shared_ptr<const Game> game = test::fromText(running);
  for (std::uint64_t seed : {1, 2, 3, 4}) {
    Position position = game->start();
    Knowledge known(*game, position, 1);
    Pasts pasts(*game, 40);
    Stream stream(seed, 1);
    MoveList moves;
    int looked = 0;
    while (!game->ended(position)) {
      game->listMoves(position, moves);
      Move move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
      known.note(position, move);
      game->apply(position, move);
      if (game->ended(position)) break;
      pasts.learn(known, stream);
      ASSERT_GT(pasts.size(), 0u);
      CellSet found;
      for (std::size_t i = 0; i < pasts.size(); ++i)
        for (Cell cell = 0; cell < game->board().size(); ++cell)
          if (auto piece = game->pieceAt(pasts.now(i), cell); piece && piece->side == 0)
            found.set(cell);
      ++looked;
      // Nothing was found where the seeker looked last.
      if (game->toMove(position) == 0) {
        EXPECT_FALSE(found.test(move.choices[0]));
      }
    }
    EXPECT_GT(looked, 1);
  }
}

// The secrets change, what is seen and told does not: nor does the choice.
TEST(Secrets, ThatDifferAreNotRead) {
  std::shared_ptr<const Game> game = test::shipped("battleship");
  const std::string laid[] = {
      "ferry a1-e1, ferry a10-e10, barge a2-d2, barge a9-d9, cutter a3-c3, cutter a8-c8, "
      "trawler a4-c4, trawler a7-c7, skiff a5-b5, skiff a6-b6",
      "ferry a1-e1, ferry f1-j1, barge a2-d2, barge g2-j2, cutter a3-c3, cutter h3-j3, "
      "trawler a4-c4, trawler a5-c5, skiff a5-b5, skiff a6-b6"};
  // Slate's skiff and a miss are found; the rest lies elsewhere.
  const std::string fired = "a6, a1, e5, b1, b6, c1, j10, d1";
  for (const char* who : {"random", "greedy", "search:pasts=12", "search:level=3,pasts=12",
                          "minimax:depth=1", "playouts:playouts=200,pasts=12"})
    for (std::uint64_t seed : {1}) {
      std::string chosen[2];
      for (int k = 0; k < 2; ++k) {
        Sides sides(*game, game->start());
        Position position =
            playAll(*game, laid[k] + ", " + fired,
                    [&](const Position& at, const Move& move) { sides.note(at, move); });
        Stream stream(seed, 1);
        chosen[k] = game->moveText(position,
                                   sides.choose(*makeOpponent(who, "test"), position, stream).move);
      }
      EXPECT_EQ(chosen[0], chosen[1]) << who;
    }
}

// Where only one place is left, it is known.
TEST(Secrets, AreConcluded) {
  std::shared_ptr<const Game> game = test::fromText(hiding("square 2 x 2"));
  for (const char* who : {"greedy", "search", "playouts:playouts=100"}) {
    Sides sides(*game, game->start());
    Position position =
        playAll(*game, "hide a1, hide b1, hide a2, hide b2, a1, b1, a2, b2",
                [&](const Position& at, const Move& move) { sides.note(at, move); });
    // a1 and a2 told "nothing": both lie on b1 and b2; either may be next.
    Stream stream(5, 5);
    Move move = sides.choose(*makeOpponent(who, "test"), position, stream).move;
    std::string text = game->moveText(position, move);
    EXPECT_TRUE(text == "b1" || text == "b2") << who << " " << text;
  }
}

// Two bars in a row or a column are fired at. Each cell's true likelihood is counted over all that
// could lie there: with many pasts likelier cells are fired at than with few, though not every cell
// is held against each of them.
TEST(Secrets, LikelyCellsAreFound) {
  std::shared_ptr<const Game> game = test::fromText(
      "game bars\nsides Amber and Slate\nboard square 5 x 5, one each\npiece bar B size 3 secret\n"
      "mark shot each\nstart\n  hand of each 2 bar\nmove berth\n  choose boat from my hand\n"
      "  pick place in lines of size of boat in (all except mine) along orthogonal\n"
      "  put boat on place from my hand\n  written as place\n  seen as boat\nmove fire\n"
      "  pick there in all except my shot\n  add there to my shot\n  when there in theirs\n"
      "    tell \"hit\"\n  otherwise\n    tell \"miss\"\n  written as there\nturn berth else fire\n"
      "ends\n  mover wins \"all\" when any theirs and theirs within my shot\n"
      "each side sees\n  my shot on theirs as X on their board\n"
      "  my shot except theirs as o on their board\nworth count (my shot on theirs)\n");
  std::vector<std::uint32_t> bars;  // by cells, row by row
  for (int row = 0; row < 5; ++row)
    for (int column = 0; column < 3; ++column) {
      std::uint32_t across = 0, down = 0;
      for (int i = 0; i < 3; ++i) {
        across |= 1u << (row * 5 + column + i);
        down |= 1u << ((column + i) * 5 + row);
      }
      bars.push_back(across);
      bars.push_back(down);
    }
  // Of what is fired at, how likely it was, in all positions; the most that it could have been.
  double few = 0, many = 0, most = 0;
  for (std::uint64_t number = 0; number < 40; ++number) {
    Sides sides(*game, game->start());
    Position position = game->start();
    Stream stream(4, number);
    MoveList moves;
    std::uint32_t hits = 0, shots = 0;
    auto cellOf = [&](const Move& move) {
      std::string text = game->moveText(position, move);
      return 1u << ((text[1] - '1') * 5 + (text[0] - 'a'));
    };
    for (std::uint64_t ply = 0; ply < 4 + 2 * (number % 6) && !game->ended(position); ++ply) {
      game->listMoves(position, moves);
      Move move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
      if (ply >= 4 && ply % 2 == 0) {
        shots |= cellOf(move);
        if (game->textsOf(position, move).told.front() == "hit") hits |= cellOf(move);
      }
      sides.note(position, move);
      game->apply(position, move);
    }
    if (game->ended(position)) continue;
    std::vector<double> hit(25, 0);
    double fleets = 0;
    for (std::uint32_t one : bars)
      for (std::uint32_t other : bars) {
        if ((one & other) != 0 || ((one | other) & shots) != hits) continue;
        ++fleets;
        for (std::size_t cell = 0; cell < 25; ++cell) hit[cell] += (one | other) >> cell & 1;
      }
    for (std::size_t cell = 0; cell < 25; ++cell)
      if ((shots >> cell & 1) != 0) hit[cell] = 0;
    for (const auto& [limits, sum] : {std::pair{"pasts=10", &few}, std::pair{"pasts=400", &many}}) {
      auto who = makeOpponent(std::string("search:nodes=4000,") + limits, "test");
      Stream own(6, number);
      std::uint32_t cell = cellOf(sides.choose(*who, position, own).move);
      for (std::size_t i = 0; i < 25; ++i)
        if (cell >> i == 1) *sum += hit[i] / fleets;
    }
    most += *std::max_element(hit.begin(), hit.end()) / fleets;
  }
  EXPECT_LT(few, 0.93 * most);
  EXPECT_GT(many, 0.97 * most);
  EXPECT_LE(many, most + 1e-9);
}

// Shots that it takes to sink a fleet: far fewer than at random (95 on the average).
TEST(Secrets, AreFoundFasterThanAtRandom) {
  std::shared_ptr<const Game> game = test::shipped("battleship");
  int won = 0;
  int games = test::many(2, 4);
  for (std::uint64_t number = 0; number < static_cast<std::uint64_t>(games); ++number) {
    std::unique_ptr<Opponent> search = makeOpponent("search:pasts=16", "test"),
                              random = makeRandom();
    Opponent* sides[] = {number % 2 == 0 ? search.get() : random.get(),
                         number % 2 == 0 ? random.get() : search.get()};
    Stream stream(9, number);
    Played played = playGame(*game, game->start(), sides, stream, 400);
    won += played.result.winner == static_cast<int>(number % 2);
    EXPECT_LT(played.moves.size(), 170u);
  }
  EXPECT_EQ(won, games);
}

}  // namespace secrets_test
}  // namespace ninepegs::play
