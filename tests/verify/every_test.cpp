// Every position: published figures, and a second, plain way through the interface of a game.
#include "ninepegs/verify/every.hpp"

#include <map>
#include <set>

#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/position_store.hpp"
#include "support/games.hpp"

namespace ninepegs::verify {
namespace every_test {

EveryReport every(const Game& game, int threads = 2, std::uint64_t memory = 1u << 30) {
  EveryOptions options;
  options.threads = threads;
  options.memory = memory;
  return everyPosition(game, options);
}

// The same by maps of positions, and by sweeps over all of them until nothing changes any more:
// the winner, and the plies if the winner hurries and the loser puts it off.
struct Plain {
  struct Node {
    Position position;
    std::vector<std::size_t> followers;
    int mover = 0;
    Result result;
    int winner = -1;
    std::uint64_t plies = 0, longest = 0;
  };
  explicit Plain(const Game& game) {
    add(game, game.start());
    MoveList moves;
    for (std::size_t at = 0; at < nodes.size(); ++at) {
      Position from = nodes[at].position;
      game.listMoves(from, moves);
      for (const Move& move : moves) {
        Position after = from;
        game.apply(after, move);
        std::size_t to = add(game, after);
        nodes[at].followers.push_back(to);
      }
    }
    bool changed = true;
    while (changed) {
      changed = false;
      for (std::size_t at = nodes.size(); at-- > 0;) changed = settle(nodes[at]) || changed;
    }
  }
  std::size_t add(const Game& game, const Position& position) {
    auto [it, fresh] = numbers.insert({game.identity(position), nodes.size()});
    if (!fresh) return it->second;
    Node node;
    node.position = position;
    node.mover = game.toMove(position);
    node.result = game.result(position);
    if (node.result.kind == ResultKind::win) node.winner = node.result.winner;
    nodes.push_back(node);
    return it->second;
  }
  bool settle(Node& node) {
    if (node.result.kind != ResultKind::ongoing || node.followers.empty()) return false;
    int winner = 1 - node.mover;
    std::uint64_t plies = 0;
    for (std::size_t to : node.followers) {
      const Node& next = nodes[to];
      if (next.winner == node.mover) {
        if (winner != node.mover || next.plies + 1 < plies) plies = next.plies + 1;
        winner = node.mover;
      } else if (winner != node.mover) {
        if (next.winner < 0) winner = -1;
        if (winner >= 0) plies = std::max(plies, next.plies + 1);
      }
    }
    if (winner < 0) plies = 0;
    bool changed = node.winner != winner || node.plies != plies;
    node.winner = winner;
    node.plies = plies;
    return changed;
  }
  std::map<std::vector<std::uint64_t>, std::size_t> numbers;
  std::vector<Node> nodes;
};

// A line of moves from the start, each of them legal.
Position along(const Game& game, const std::vector<Move>& line) {
  Position position = game.start();
  MoveList legal;
  for (const Move& move : line) {
    game.listMoves(position, legal);
    EXPECT_NE(std::find(legal.begin(), legal.end(), move), legal.end());
    game.apply(position, move);
  }
  return position;
}

void expectAsPlain(const Game& game) {
  Plain plain(game);
  EveryReport report = every(game);
  ASSERT_TRUE(report.complete());
  ASSERT_TRUE(report.solved);
  EXPECT_EQ(report.positions, plain.nodes.size());
  EXPECT_EQ(report.winner, plain.nodes[0].winner);
  EXPECT_EQ(report.plies, plain.nodes[0].plies);
  std::uint64_t sum = 0, moves = 0;
  for (std::uint64_t level : report.levels) sum += level;
  EXPECT_EQ(sum, report.positions);
  std::map<std::pair<int, int>, std::uint64_t> ends;
  for (const Plain::Node& node : plain.nodes) {
    moves += node.followers.size();
    if (node.result.kind != ResultKind::ongoing) ++ends[{node.result.end, node.result.winner}];
  }
  EXPECT_EQ(report.moves, moves);
  EXPECT_EQ(report.ends.size(), ends.size());
  for (const Reached& one : report.ends) {
    EXPECT_EQ(one.positions, (ends[{one.outcome.end, one.outcome.winner}])) << one.name;
    EXPECT_EQ(game.result(along(game, one.soonest)).outcome(), one.outcome) << one.name;
  }
  Result last = game.result(along(game, report.best));
  if (report.winner >= 0) {
    EXPECT_EQ(report.best.size(), report.plies);
    EXPECT_EQ(last.winner, report.winner);
  }
  if (report.longest) {
    EXPECT_EQ(report.longestGame.size(), *report.longest);
  }
  along(game, report.longestGame);
}

std::shared_ptr<const Game> small(const std::string& name) {
  return test::shippedLibrary().open(std::string(NINEPEGS_SOURCE) + "/examples/small/" + name +
                                     ".pegs");
}

TEST(EveryPosition, PublishedFigures) {
  EveryReport report = every(*test::shipped("tic-tac-toe"));
  EXPECT_EQ(report.positions, 5478u);
  EXPECT_EQ(report.classes, 765u);
  EXPECT_EQ(report.ended, 958u);
  EXPECT_EQ(report.winner, -1);
  EXPECT_EQ(report.longest, 9u);
  EXPECT_TRUE(report.evidence.faults.empty());
  // Connect four on four by four: 161,029 positions, a draw.
  report = every(*test::shipped("connect-four")->variant("four"));
  EXPECT_EQ(report.positions, 161029u);
  EXPECT_EQ(report.winner, -1);
  EXPECT_EQ(report.longest, 16u);
  // Othello on four by four is won by the second side.
  EXPECT_EQ(every(*test::shipped("othello")->variant("four")).winner, 1);
  // Three pawns each on three by three holes: the second side wins.
  EXPECT_EQ(every(*small("gate")).winner, 1);
}

TEST(EveryPosition, NimIsWonByWhoeverLeavesTheRightSums) {
  // 3, 5 and 7 have the sum 1, so the first side wins, whoever takes the last; heaps of 21 are
  // lost for who begins if the last loses (21 = 5 * 4 + 1), and won if it wins.
  for (const auto& [variant, winner] :
       std::map<std::string, int>{{"", 0}, {"normal", 0}, {"single", 1}, {"single-normal", 0}}) {
    std::shared_ptr<const Game> game = test::shipped("nim");
    if (!variant.empty()) game = game->variant(variant);
    EXPECT_EQ(every(*game).winner, winner) << variant;
  }
}

TEST(EveryPosition, IsWhatThePlainWayFinds) {
  expectAsPlain(*test::shipped("tic-tac-toe"));
  expectAsPlain(*test::shipped("nim"));
  expectAsPlain(*test::shipped("nim")->variant("single"));
  expectAsPlain(*test::shipped("othello")->variant("four"));
  expectAsPlain(*small("gate"));
  expectAsPlain(*small("three-pegs"));
}

// One side moves twice; an end that is only claimed; a counter that ends it; a way back.
TEST(EveryPosition, OddGamesAreWhatThePlainWayFinds) {
  const std::string twice = R"(game twice
sides Amber and Slate
board square 3 x 2
piece peg o x
move place
  pick there in empty
  put peg on there
  when there in row 1
    again
ends
  mover wins "row" when any line of 3 in mine
  draw "full" when no empty
)";
  expectAsPlain(*test::fromText(twice));
  const std::string walk = R"(game walk
sides Amber and Slate
board square 4 x 2
piece peg o x
number steps
start
  o . . .
  . . . x
move go
  pick here in mine
  pick there in empty on step orthogonal from here
  shift here to there
  set steps to (steps + 1)
  written as here "-" there
ends
  mover wins "across" when any (mine on if mover is Amber then column 4 else column 1)
  claim draw "tired" when steps = 3
  draw "asleep" when steps = 6
  mover wins "stuck" when stuck
)";
  expectAsPlain(*test::fromText(walk));
}

const std::string faulty = R"(game faulty
sides Amber and Slate
board square 3 x 3
piece peg o x
move place
  pick there in empty or (theirs on a1)
  put peg on there
ends
  draw "full" when no empty
  mover wins "row" when any line of 3 in mine
always
  count mine never grows
)";

TEST(EveryPosition, FindsEveryFaultWithAShortestGame) {
  std::shared_ptr<const Game> game = test::fromText(faulty);
  EveryReport report = every(*game);
  std::map<FindingKind, std::size_t> plies;
  for (const auto& [key, seen] : report.evidence.faults) {
    along(*game, seen.moves);
    plies[key.first] = seen.moves.size();
  }
  EXPECT_EQ(plies, (std::map<FindingKind, std::size_t>{{FindingKind::overwrite, 2},
                                                       {FindingKind::drawOverWin, 9},
                                                       {FindingKind::invariant, 1}}));
  CheckOptions options;
  options.playouts = 1;
  CheckReport checked = check(*game, options);
  addEvery(*game, std::move(report), checked);
  EXPECT_EQ(checked.findings.size(), 3u);
  for (const Finding& finding : checked.findings) EXPECT_TRUE(finding.shortest);
}

// The fault lies in the step, to a position that is reached first without it.
TEST(EveryPosition, FaultsOfAStepAreSeenWhereThePositionIsKnown) {
  const std::string sheet = R"(game steps
sides Amber and Slate
board square 2 x 1
piece peg o x
move place
  pick there in empty
  put peg on there
  written as there
move lift
  pick there in theirs
  take there
  written as "off" there
ends
  draw "full" when no empty
always
  count occupied never shrinks
)";
  EveryReport report = every(*test::fromText(sheet));
  ASSERT_EQ(report.evidence.faults.size(), 1u);
  EXPECT_EQ(report.evidence.faults.begin()->first.first, FindingKind::invariant);
}

TEST(EveryPosition, NumberOfThreadsChangesNothing) {
  for (std::shared_ptr<const Game> game :
       {small("three-pegs"), test::shipped("othello")->variant("four"),
        std::shared_ptr<const Game>(test::fromText(faulty))}) {
    EveryReport one = every(*game, 1);
    for (int threads : {2, 7}) {
      EveryReport more = every(*game, threads);
      EXPECT_EQ(more.levels, one.levels);
      EXPECT_EQ(more.best, one.best);
      EXPECT_EQ(more.longestGame, one.longestGame);
      EXPECT_EQ(more.evidence.uses, one.evidence.uses);
      ASSERT_EQ(more.evidence.faults.size(), one.evidence.faults.size());
      for (const auto& [key, seen] : one.evidence.faults)
        EXPECT_EQ(more.evidence.faults[key].moves, seen.moves);
    }
  }
}

TEST(EveryPosition, KeepsToItsMemoryAndStops) {
  std::shared_ptr<const Game> game = test::shipped("chess");
  EveryReport report = every(*game, 2, 8u << 20);
  EXPECT_EQ(report.broken, EveryReport::Broken::memory);
  EXPECT_FALSE(report.solved);
  EXPECT_FALSE(report.classes);
  ASSERT_GE(report.levels.size(), 4u);
  EXPECT_EQ(report.levels[1], 20u);
  EXPECT_EQ(report.levels[2], 400u);
  EXPECT_LT(report.goneThrough, report.positions);
  StopFlag stop{true};
  EveryOptions options;
  options.stop = &stop;
  report = everyPosition(*game, options);
  EXPECT_EQ(report.broken, EveryReport::Broken::stopped);
  EXPECT_EQ(report.positions, 1u);
}

TEST(EveryPosition, AMoveWithoutEndIsToldAndNothingIsSolved) {
  const std::string sheet = R"(game round
sides Amber and Slate
board square 3 x 1
piece peg o x
mark met
move place
  pick there in empty
  put peg on there
  when count occupied = 2
    repeat while possible
      add there to met
ends
  draw "full" when no empty
)";
  EveryReport report = every(*test::fromText(sheet));
  EXPECT_TRUE(report.complete());
  EXPECT_FALSE(report.solved);
  ASSERT_FALSE(report.evidence.faults.empty());
  EXPECT_EQ(report.evidence.faults.begin()->first.first, FindingKind::runaway);
}

// A symmetry that does not hold leaves nothing to be counted up to it.
TEST(EveryPosition, ClassesOnlyWhereTheSymmetryHolds) {
  std::string sheet = test::sheetWith("", "square 3 x 2");
  sheet += "symmetric under reflection of columns\n";
  EveryReport good = every(*test::fromText(sheet));
  ASSERT_TRUE(good.classes);
  // Of each class one or two positions: those that are their own images count twice.
  Plain plain(*test::fromText(sheet));
  std::set<std::vector<std::uint64_t>> least;
  std::shared_ptr<const SheetGame> game = test::fromText(sheet);
  for (const Plain::Node& node : plain.nodes)
    least.insert(std::min(game->identity(node.position),
                          game->identity(game->checks()->mapped(
                              node.position, game->checks()->symmetries().front()))));
  EXPECT_EQ(*good.classes, least.size());
  std::string bad = sheet;
  bad.replace(bad.find("  draw"), 0, "  mover wins \"corner\" when any (mine on a1)\n");
  EXPECT_FALSE(every(*test::fromText(bad)).classes);
}

TEST(EveryPosition, GuessesBeforehand) {
  Guess guess = guessedPositions(*test::shipped("tic-tac-toe"), 2000, 1);
  EXPECT_TRUE(guess.sure);
  EXPECT_GT(guess.positions, 3500u);
  EXPECT_LT(guess.positions, 7000u);
  EXPECT_FALSE(guessedPositions(*test::shipped("chess"), 20, 1).sure);
}

TEST(PositionStore, KeepsWhatWasAddedWhileItGrows) {
  std::shared_ptr<const Game> game = test::shipped("othello");
  PositionStore store(*game);
  std::vector<Position> all;
  std::unique_ptr<LivePosition> live = game->live();
  for (std::uint64_t number = 0; number < 100; ++number) {
    Stream stream(5, number);
    live->setUp(game->start());
    while (live->playDrawn(stream)) {
      auto [at, fresh] = store.add(live->position());
      if (fresh) all.push_back(live->position());
      EXPECT_EQ(all[at], live->position());
    }
  }
  ASSERT_EQ(store.size(), all.size());
  Position got;
  for (std::uint32_t at = 0; at < store.size(); ++at) {
    store.get(at, got);
    EXPECT_EQ(got, all[at]);
    std::vector<std::uint64_t> identity = game->identity(got);
    EXPECT_EQ(store.find(identity, PositionStore::keyOf(identity)), at);
  }
}

}  // namespace every_test
}  // namespace ninepegs::verify
