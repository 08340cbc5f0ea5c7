#include "ninepegs/verify/symmetries.hpp"

#include <algorithm>
#include <set>

#include "ninepegs/base/text.hpp"
#include "ninepegs/verify/check.hpp"
#include "support/games.hpp"

namespace ninepegs::verify {
namespace symmetries_test {

const Tried* found(const SymmetryTrial& trial, const std::string& name) {
  for (const Tried& one : trial.all)
    if (one.symmetry.name == name) return &one;
  return nullptr;
}

// The sides exchanged in a position's text: letters of pieces, and names.
std::multiset<std::string> exchanged(const Game& game, const std::string& text) {
  std::multiset<std::string> out;
  for (std::string part : splitTrimmed(text, ';')) {
    bool board = out.empty() || part.rfind("picture ", 0) == 0;
    if (board) {
      for (char& letter : part) {
        for (const GameInfo::Kind& kind : game.info().kinds) {
          if (kind.neutral || kind.letters[0].size() != 1) continue;
          bool is[] = {kind.letters[0][0] == letter, kind.letters[1][0] == letter};
          if (is[0] || is[1]) {
            letter = kind.letters[is[0] ? 1 : 0][0];
            break;
          }
        }
      }
      out.insert(part);
      continue;
    }
    std::string words;
    for (const std::string& word : splitTrimmed(part, ' ')) {
      std::string now = word;
      for (int side = 0; side < 2; ++side)
        if (word == game.info().sides[side]) now = game.info().sides[1 - side];
      words += (words.empty() ? "" : " ") + now;
    }
    out.insert(words);
  }
  return out;
}

std::multiset<std::string> partsOf(const std::string& text) {
  std::vector<std::string> parts = splitTrimmed(text, ';');
  return {parts.begin(), parts.end()};
}

// Exchanged sides, worked out on the masks and on the text.
TEST(Exchange, IsThatOfTheText) {
  std::vector<std::shared_ptr<const Game>> games;
  for (const char* name : {"tic-tac-toe", "connect-four", "othello", "draughts", "morris", "hex"})
    games.push_back(test::shipped(name));
  for (const std::shared_ptr<const Game>& game : games) {
    Symmetry exchange = game->board().identity();
    exchange.exchange = true;
    int ends = 0;
    for (std::uint64_t number = 0; number < 8; ++number) {
      Stream stream(8, number);
      Position position = game->start();
      MoveList moves;
      for (int ply = 0; ply < 120; ++ply) {
        Position image = game->checks()->mapped(game->checks()->alone(position), exchange);
        EXPECT_EQ(partsOf(game->positionText(image)),
                  exchanged(*game, game->positionText(position)))
            << game->info().id << ": " << game->positionText(position);
        Result is = game->result(position), other = game->result(image);
        EXPECT_EQ(is.kind, other.kind);
        if (is.kind == ResultKind::win) {
          EXPECT_EQ(is.winner, 1 - other.winner);
          ++ends;
        }
        // Twice is once and back.
        EXPECT_EQ(game->identity(game->checks()->mapped(image, exchange)),
                  game->identity(game->checks()->alone(position)));
        if (game->ended(position)) break;
        game->listMoves(position, moves);
        if (moves.empty()) break;
        game->apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
      }
    }
    EXPECT_GT(ends, 0) << game->info().id;
  }
}

// What belongs to sides but stands on no cell; an end that one side alone can win.
TEST(Exchange, TakesNumbersHandsAndMemoryAlong) {
  const std::string sheet =
      "game own\nsides Amber and Slate\nboard square 3 x 2\npiece peg o x\nmark warm each\n"
      "number score each\ncell last each\nstart\n  hand of each peg, peg\n"
      "move place\n  pick there in empty\n  put peg on there from my hand\n"
      "  add there to my warm\n  set my score to my score + MORE\n  set my last to there\n"
      "ends\n  Amber wins \"Amber has four\" when my score >= 4 and mover is Amber\n"
      "  Slate wins \"Slate has four\" when my score >= LIMIT and mover is Slate\n"
      "  draw \"stuck\" when stuck\n";
  auto with = [&](const std::string& more, const std::string& limit) {
    std::string text = sheet;
    text.replace(text.find("MORE"), 4, more);
    text.replace(text.find("LIMIT"), 5, limit);
    return test::fromText(text);
  };
  auto game = with("2", "4");
  SymmetryTrial trial = trySymmetries(*game, {});
  for (const char* name : {"exchange of sides", "exchange of sides and half turn"}) {
    ASSERT_NE(found(trial, name), nullptr);
    EXPECT_EQ(found(trial, name)->stands, Stands::holds) << found(trial, name)->message;
  }
  EXPECT_FALSE(trial.unevenStart);
  // Another limit for one side.
  EXPECT_NE(found(trySymmetries(*with("2", "2"), {}), "exchange of sides")->stands, Stands::holds);
  Position position = test::after(*game, "a1, b2");
  Symmetry exchange = game->board().identity();
  exchange.exchange = true;
  EXPECT_EQ(partsOf(game->positionText(game->checks()->mapped(position, exchange))),
            exchanged(*game, game->positionText(position)));
}

TEST(Symmetries, OfTheShippedGames) {
  struct Row {
    const char *game, *name;
    Stands stands;
  };
  for (const Row& row : {Row{"connect-four", "exchange of sides", Stands::holds},
                         Row{"connect-four", "half turn", Stands::fails},
                         Row{"chess", "exchange of sides and reflection of rows", Stands::holds},
                         Row{"chess", "exchange of sides", Stands::fails},
                         Row{"hex", "exchange of sides and transposition", Stands::holds},
                         Row{"hex", "transposition", Stands::fails},
                         Row{"draughts", "exchange of sides and half turn", Stands::holds},
                         Row{"hut-pass", "exchange of sides and half turn", Stands::holds},
                         Row{"battleship", "exchange of sides", Stands::holds}}) {
    SymmetryTrial trial = trySymmetries(*test::shipped(row.game), {.games = 40});
    const Tried* one = found(trial, row.name);
    ASSERT_NE(one, nullptr) << row.game << " " << row.name;
    EXPECT_EQ(one->stands, row.stands) << row.game << " " << row.name;
    EXPECT_FALSE(trial.unevenStart) << row.game;
    for (const Tried& each : trial.all) EXPECT_NE(each.stands, Stands::nearly) << row.game;
  }
}

// One side has a further way to win: it fails where that is near, and nowhere else.
TEST(Symmetries, NearlyWhereOneSideDiffers) {
  auto with = [&](const std::string& line) {
    return test::fromText(
        "game rows\nsides Amber and Slate\nboard square 5 x 5\npiece peg o x\n"
        "move place\n  pick there in empty\n  put peg on there\n"
        "ends\n  mover wins \"row\" when any line of 4 in mine\n" +
        line + "  draw \"full\" when no empty\n");
  };
  EXPECT_EQ(found(trySymmetries(*with(""), {}), "exchange of sides")->stands, Stands::holds);
  auto game =
      with("  Slate wins \"corners\" when mover is Slate and (a1 or a5 or e1 or e5) within mine\n");
  SymmetryTrial trial = trySymmetries(*game, {});
  const Tried* one = found(trial, "exchange of sides");
  ASSERT_NE(one, nullptr);
  EXPECT_EQ(one->stands, Stands::nearly) << one->failed << " of " << one->positions;
  EXPECT_FALSE(one->message.empty());
  // The moves lead to where it fails.
  EXPECT_EQ(one->position, test::after(*game, joined(one->moves, ", ")));
}

TEST(Symmetries, AStartThatIsNotEven) {
  auto start = [](const std::string& row) {
    return trySymmetries(
               *test::fromText(
                   "game steps\nsides Amber and Slate\nboard square 3 x 3\npiece peg o x "
                   "reach step orthogonal\nstart\n  x x x\n  . . .\n  " +
                   row +
                   "\nmove go\n  pick here in mine\n  pick there in empty on reach "
                   "of here\n  shift here to there\nends\n  opponent wins \"stuck\" when stuck\n"
                   "  draw \"long\" when plies = 12\n"),
               {})
        .unevenStart;
  };
  EXPECT_FALSE(start("o o o"));
  EXPECT_TRUE(start("o o ."));
}

// A symmetry that a sheet names is tested in playouts: with the sides exchanged, too.
TEST(Symmetries, ANamedExchangeIsTested) {
  const std::string rows =
      "game rows\nsides Amber and Slate\nboard square 3 x 3\npiece peg o x\n"
      "move place\n  pick there in empty\n  put peg on there\nends\n";
  const std::string rest =
      "  draw \"full\" when no empty\nsymmetric under exchange of sides, "
      "exchange of sides and quarter turn\n";
  CheckOptions options;
  options.playouts = 300;
  EXPECT_TRUE(
      check(*test::fromText(rows + "  mover wins \"row\" when any line of 3 in mine\n" + rest),
            options)
          .findings.empty());
  CheckReport report = check(
      *test::fromText(rows + "  Amber wins \"row\" when any line of 3 in mine\n" + rest), options);
  ASSERT_EQ(report.findings.size(), 1u);
  EXPECT_EQ(report.findings[0].kind, FindingKind::symmetry);
}

}  // namespace symmetries_test
}  // namespace ninepegs::verify
