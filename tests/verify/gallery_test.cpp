// The faulty sheets of examples/faulty: each fault is found, and no shorter game shows it. That is
// proved here with the plain programs, which follow every game up to that length.
#include <functional>
#include <set>

#include "ninepegs/verify/check.hpp"
#include "support/games.hpp"
#include "support/plain_games.hpp"

namespace ninepegs::verify {
namespace gallery_test {

CheckReport checked(const Game& game, std::uint64_t playouts = 1000) {
  CheckOptions options;
  options.playouts = playouts;
  options.threads = 2;
  return check(game, options);
}

const Finding* find(const CheckReport& report, FindingKind kind) {
  for (const Finding& finding : report.findings)
    if (finding.kind == kind) return &finding;
  return nullptr;
}

// The least number of plies after which `shows` holds in some game; -1 if none up to `most`.
template <class Plain>
int least(const Plain& from, int most, const std::function<bool(const Plain&)>& shows) {
  std::vector<Plain> level = {from};
  std::set<std::string> seen;
  for (int plies = 0; plies <= most; ++plies) {
    std::vector<Plain> next;
    for (const Plain& game : level) {
      if (shows(game)) return plies;
      for (const std::string& move : game.moves()) {
        Plain after = game;
        after.play(move);
        if (seen.insert(after.key()).second) next.push_back(after);
      }
    }
    level = std::move(next);
  }
  return -1;
}

TEST(Gallery, TheDrawBeforeTheWin) {
  CheckReport report = checked(*test::faulty("draw-before-win"));
  ASSERT_EQ(report.findings.size(), 1u);
  const Finding& finding = report.findings[0];
  EXPECT_EQ(finding.kind, FindingKind::drawOverWin);
  EXPECT_EQ(finding.line, 16);
  EXPECT_TRUE(finding.shortest);
  int expected = least<plain::TicTacToe>(plain::TicTacToe{}, 9,
                                         [](const auto& g) { return g.full() && g.winner != 0; });
  EXPECT_EQ(static_cast<int>(finding.moves.size()), expected);
  plain::TicTacToe replay;
  for (const std::string& move : finding.moves) replay.play(move);
  EXPECT_TRUE(replay.full() && replay.winner != 0);
}

TEST(Gallery, TheJoinedEdge) {
  CheckReport report = checked(*test::faulty("joined-edge"));
  const Finding* finding = find(report, FindingKind::example);
  ASSERT_NE(finding, nullptr);
  EXPECT_EQ(finding->line, 22);
  // The sheet's case is a game that the right rules go on with and the faulty ones end. No shorter
  // game tells the two apart: all games of the faulty sheet up to then end as the right ones do.
  std::shared_ptr<const Game> game = test::faulty("joined-edge");
  std::vector<std::pair<Position, plain::ConnectFour>> level = {{game->start(), {}}};
  std::set<std::string> seen;
  int plies = 0;
  bool differ = false;
  MoveList moves;
  for (; !differ && plies < 10; ++plies) {
    std::vector<std::pair<Position, plain::ConnectFour>> next;
    for (const auto& [position, plain] : level) {
      game->listMoves(position, moves);
      for (const Move& move : moves) {
        Position after = position;
        plain::ConnectFour right = plain;
        right.play(game->moveText(position, move));
        game->apply(after, move);
        if (game->ended(after) != right.over()) differ = true;
        if (seen.insert(right.key()).second) next.emplace_back(after, right);
      }
      if (differ) break;
    }
    level = std::move(next);
  }
  ASSERT_TRUE(differ);
  EXPECT_EQ(static_cast<int>(finding->moves.size()), plies);
}

TEST(Gallery, TheTakenCell) {
  CheckReport report = checked(*test::faulty("taken-cell"));
  const Finding* finding = find(report, FindingKind::overwrite);
  ASSERT_NE(finding, nullptr);
  EXPECT_EQ(finding->line, 12);
  EXPECT_TRUE(finding->shortest);
  // One ply fills one cell of an empty board; two are the least that meet on one.
  ASSERT_EQ(finding->moves.size(), 2u);
  EXPECT_EQ(finding->moves[0], finding->moves[1]);
}

TEST(Gallery, TheGameThatGoesOn) {
  CheckReport report = checked(*test::faulty("no-end"));
  ASSERT_EQ(report.findings.size(), 1u);
  const Finding& finding = report.findings[0];
  EXPECT_EQ(finding.kind, FindingKind::noEnd);
  EXPECT_TRUE(finding.shortest);
  int expected = least<plain::TicTacToe>(plain::TicTacToe{}, 9,
                                         [](const auto& g) { return g.full() && g.winner == 0; });
  EXPECT_EQ(static_cast<int>(finding.moves.size()), expected);
}

// Six by six discs where a side that can lay none passes; equal boards have equal keys.
struct Discs : plain::Othello<6> {
  std::string key() const {
    std::string out = std::to_string(mover);
    for (const auto& row : grid)
      for (int cell : row) out += static_cast<char>('0' + cell);
    return out;
  }
};

TEST(Gallery, TheSideThatMayNotPass) {
  CheckReport report = checked(*test::faulty("no-pass"));
  ASSERT_EQ(report.findings.size(), 1u);
  const Finding& finding = report.findings[0];
  EXPECT_EQ(finding.kind, FindingKind::noEnd);
  EXPECT_TRUE(finding.shortest);
  int expected = least<Discs>(Discs{}, 10, [](const auto& g) {
    return !g.over() && g.moves() == std::vector<std::string>{"pass"};
  });
  EXPECT_EQ(static_cast<int>(finding.moves.size()), expected);
}

// A heap of which one to three are taken, whether there are so many or not.
struct LooseHeap {
  int left = 7;
  std::vector<std::string> moves() const {
    return left == 0 ? std::vector<std::string>{} : std::vector<std::string>{"1", "2", "3"};
  }
  void play(const std::string& move) { left -= std::stoi(move); }
  std::string key() const { return std::to_string(left); }
};

TEST(Gallery, TheHeapBelowZero) {
  CheckReport report = checked(*test::faulty("heap-below-zero"));
  EXPECT_NE(find(report, FindingKind::growing), nullptr);
  const Finding* finding = find(report, FindingKind::invariant);
  ASSERT_NE(finding, nullptr);
  EXPECT_EQ(finding->line, 24);
  EXPECT_TRUE(finding->shortest);
  int expected = least<LooseHeap>(LooseHeap{}, 8, [](const auto& g) { return g.left < 0; });
  EXPECT_EQ(static_cast<int>(finding->moves.size()), expected);
}

TEST(Gallery, TheFullColumn) {
  CheckReport report = checked(*test::faulty("full-column"));
  const Finding* finding = find(report, FindingKind::invariant);
  ASSERT_NE(finding, nullptr);
  EXPECT_EQ(finding->line, 22);
  // Six discs fill a column, the seventh is gone.
  EXPECT_EQ(finding->moves, std::vector<std::string>(7, finding->moves[0]));
}

TEST(Gallery, TheCapturedPegUnderneath) {
  CheckReport report = checked(*test::faulty("left-underneath"));
  const Finding* finding = find(report, FindingKind::overwrite);
  ASSERT_NE(finding, nullptr);
  EXPECT_EQ(finding->line, 19);
  EXPECT_TRUE(finding->shortest);
  // Rows one and four meet after a step of each side; the third may capture.
  EXPECT_EQ(finding->moves.size(), 3u);
}

TEST(Gallery, TheKingThatIsTaken) {
  CheckReport report = checked(*test::faulty("king-left-attacked"));
  const Finding* finding = find(report, FindingKind::invariant);
  ASSERT_NE(finding, nullptr);
  EXPECT_EQ(finding->line, 33);
  EXPECT_TRUE(finding->shortest);
  // At the start no piece reaches a king, so that none falls in the first two plies: White would
  // have to attack and to take, with a move of Black's between.
  EXPECT_EQ(finding->moves.size(), 3u);
  // With the line that was left out, the sheet has no fault.
  std::string text = readFile(test::faultySheet("king-left-attacked"), 100'000);
  std::size_t comment = text.find("# the fault: here should stand: ");
  ASSERT_NE(comment, std::string::npos);
  text.replace(comment, std::string("# the fault: here should stand: ").size(), "");
  EXPECT_TRUE(checked(*test::fromText(text)).findings.empty());
}

TEST(Gallery, TheMistypedRow) {
  CheckReport report = checked(*test::faulty("mistyped-line"));
  const Finding* finding = find(report, FindingKind::symmetry);
  ASSERT_NE(finding, nullptr);
  // Nobody has three pegs before the fifth ply, so up to the fourth all games are alike; what the
  // fifth leads to is compared in the position before it.
  EXPECT_EQ(finding->moves.size(), 4u);
  std::string text = readFile(test::faultySheet("mistyped-line"), 100'000);
  text.replace(text.find("(3 or 5 or 8)"), 13, "(3 or 5 or 7)");
  EXPECT_TRUE(checked(*test::fromText(text)).findings.empty());
}

TEST(Gallery, TheShipOnAShip) {
  CheckReport report = checked(*test::faulty("ships-overlap"), 300);
  const Finding* finding = find(report, FindingKind::overwrite);
  ASSERT_NE(finding, nullptr);
  EXPECT_EQ(finding->line, 18);
  // The first side lays its second ship at the third ply.
  EXPECT_EQ(finding->moves.size(), 3u);
}

TEST(Gallery, TheCellFiredAtTwice) {
  CheckReport report = checked(*test::faulty("fired-twice"), 300);
  const Finding* finding = find(report, FindingKind::invariant);
  ASSERT_NE(finding, nullptr);
  EXPECT_EQ(finding->line, 33);
  // Two ships are laid, then the first side fires its second shot at the fifth ply.
  ASSERT_EQ(finding->moves.size(), 5u);
  EXPECT_EQ(finding->moves[2], finding->moves[4]);
}

}  // namespace gallery_test
}  // namespace ninepegs::verify
