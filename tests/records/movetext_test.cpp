#include "ninepegs/records/movetext.hpp"

#include <fmt/format.h>

#include <sstream>

#include "ninepegs/records/sgf.hpp"
#include "support/games.hpp"
#include "support/many.hpp"

namespace ninepegs::records {
namespace movetext_test {

std::vector<Move> randomGame(const Game& game, const Position& from, std::uint64_t number,
                             int plies = 1000) {
  Stream stream(3, number);
  Position position = from;
  std::vector<Move> moves;
  MoveList legal;
  while (game.listMoves(position, legal),
         !legal.empty() && !game.ended(position) && static_cast<int>(moves.size()) < plies) {
    moves.push_back(legal[stream.below(static_cast<std::uint32_t>(legal.size()))]);
    game.apply(position, moves.back());
  }
  return moves;
}

// Comments, glyphs and other lines, put into a game at random.
void decorate(const Game& game, const Position& from, std::vector<RecordedMove>& line,
              Stream& stream, int depth) {
  static const std::vector<std::string> comments = {
      "good",
      "the keeper's move",
      "100 % sure; or (not)",
      "[boxed] $1 \"quoted\" 1. e4",
      "zwei Häuser, 二",
      "a long one " + std::string(90, 'x') + " and on"};
  Position position = from;
  for (RecordedMove& one : line) {
    std::vector<Move> played = matchingMoves(game, position, one.text);
    ASSERT_EQ(played.size(), 1u) << one.text;
    if (stream.below(4) == 0) one.comment = comments[stream.below(6)];
    if (stream.below(5) == 0) one.glyphs = {static_cast<int>(stream.below(140))};
    if (depth < 3 && stream.below(6) == 0) {
      RecordedMove::Line other;
      if (stream.below(2) == 0) other.comment = comments[stream.below(6)];
      other.moves =
          makeRecord(game, position, randomGame(game, position, stream.below(99), 4)).moves;
      decorate(game, position, other.moves, stream, depth + 1);
      one.lines.push_back(std::move(other));
    }
    game.apply(position, played.front());
  }
}

GameRecord again(const Game& game, const std::string& text, bool sgf) {
  std::istringstream in(text);
  std::unique_ptr<GameReader> reader = openRecords(in, "test");
  std::optional<GameRecord> record = reader->next();
  EXPECT_TRUE(record);
  EXPECT_FALSE(reader->next());
  EXPECT_EQ(sgf, text.front() == '(');
  nameCells(game, *record);
  return *record;
}

// Decorated games of every sheet, most of chess: text to record to text, in both notations and
// across.
TEST(Records, RoundTripWithAllThatTheyHold) {
  for (const std::string& name : test::shippedLibrary().names()) {
    std::shared_ptr<const Game> game = test::shipped(name);
    int games = name == "chess" ? test::many(4, 50) : 4;
    for (int number = 0; number < games; ++number) {
      Stream stream(8, static_cast<std::uint64_t>(number));
      Position from = game->start();
      // From a position that can be read back; one in four.
      if (number % 4 == 3 && game->secrets() == nullptr)
        for (const Move& move : randomGame(*game, from, 77, 4)) game->apply(from, move);
      GameRecord record =
          makeRecord(*game, from, randomGame(*game, from, static_cast<std::uint64_t>(number), 24));
      for (const char* tag : {"White", "Black", "Date", "Round", "Annotator", "ECO", "WhiteElo",
                              "TimeControl", "Termination", "Mode", "PlyCount"})
        record.setTag(tag, fmt::format("{} \"{}\" \\ [x]: {}", tag, number, "é"));
      record.comment = number % 3 == 0 ? "before it begins" : "";
      decorate(*game, from, record.moves, stream, 0);
      Replayed played = replay(*game, record, "test");
      ASSERT_TRUE(played.faults.empty()) << name << " " << played.faults.front().message;

      std::string text = toText(record);
      GameRecord read = again(*game, text, false);
      EXPECT_EQ(toText(read), text) << name;
      EXPECT_EQ(read.tags, record.tags);
      Replayed readPlayed = replay(*game, read, "test");
      EXPECT_TRUE(readPlayed.faults.empty());
      EXPECT_EQ(readPlayed.moves, played.moves);

      std::string sgf = toSgf(*game, record);
      GameRecord fromSgf = again(*game, sgf, true);
      EXPECT_EQ(toSgf(*game, fromSgf), sgf) << name;
      Replayed sgfPlayed = replay(*game, fromSgf, "test");
      EXPECT_TRUE(sgfPlayed.faults.empty()) << sgfPlayed.faults.front().message << sgf;
      EXPECT_EQ(sgfPlayed.last, played.last);
    }
  }
}

TEST(Records, LookAsDocumented) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  std::vector<Move> moves;
  Position position = game->start();
  for (const char* text : {"1", "4", "2", "5", "3"}) {
    moves.push_back(matchingMoves(*game, position, text).front());
    game->apply(position, moves.back());
  }
  GameRecord record = makeRecord(*game, game->start(), moves);
  record.moves[1].comment = "too far";
  record.moves[1].lines.push_back(
      {"", makeRecord(*game, test::after(*game, "1"),
                      matchingMoves(*game, test::after(*game, "1"), "5"))
               .moves});
  EXPECT_EQ(toText(record),
            "[Event \"Tic-tac-toe\"]\n[Site \"?\"]\n[Date \"????.??.??\"]\n[Round \"?\"]\n"
            "[White \"?\"]\n[Black \"?\"]\n[Result \"1-0\"]\n[Game \"tic-tac-toe\"]\n"
            "[Outcome \"Cross wins: three in a line\"]\n\n"
            "1. 1 4 {too far} ( 1... 5 ) 2. 2 5 3. 3 1-0\n");
}

// A game of chess as people write it.
TEST(Records, ReadChessAsItIsWritten) {
  std::shared_ptr<const Game> chess = test::shipped("chess");
  const std::string text =
      "% a line for another program\n[Event \"Hut evening\"]\n[Result \"1-0\"]\n\n"
      "1.e4 e5 2.Bc4!? (2.Nf3 Nc6 (2...d6 3.d4) 3.Bb5) 2...Nc6 $14 3.Qh5 Nf6?? {a slip} ; the end\n"
      "4.Qxf7# 1-0\n\n[Event \"Second\"]\n\n1. d4 *\n";
  std::istringstream in(text);
  RecordReader reader(in, "evening.pgn");
  std::optional<GameRecord> record = reader.next();
  ASSERT_TRUE(record);
  Replayed played = replay(*chess, *record, "evening.pgn");
  ASSERT_TRUE(played.faults.empty()) << played.faults.front().message;
  EXPECT_EQ(chess->result(played.last).kind, ResultKind::win);
  EXPECT_EQ(record->moves[2].glyphs, std::vector<int>{5});
  EXPECT_EQ(record->moves[5].glyphs, std::vector<int>{4});
  EXPECT_EQ(record->moves[5].comment, "a slip the end");
  EXPECT_EQ(record->moves[2].lines[0].moves[1].lines[0].moves[0].text, "d6");
  record = reader.next();
  ASSERT_TRUE(record);
  EXPECT_EQ(record->moves.size(), 1u);
  EXPECT_FALSE(reader.next());
}

TEST(Records, NameTheFirstMoveThatIsNotLegal) {
  std::shared_ptr<const Game> game = test::shipped("connect-four");
  auto fault = [&](const std::string& text) {
    Replayed played = replay(*game, readRecord(text, "test"), "test");
    if (played.faults.empty()) return std::string("none");
    const Diagnostic& one = played.faults.front();
    return fmt::format("{}:{} {}", one.place.line, one.place.column, one.message);
  };
  EXPECT_EQ(fault("1. d d 2. d d 3. d d 4. c *"), "none");
  EXPECT_EQ(fault("1. d d 2. d d 3. d d\n4. d *"), "2:4 \"d\" is no legal move here");
  EXPECT_EQ(fault("1. a b 2. a b 3. a b 4. a b 1-0"),
            "1:27 \"b\" is played, though the game is over: " +
                resultText(*game, game->result(test::after(*game, "a, b, a, b, a, b, a"))));
  EXPECT_EQ(fault("1. a b 2. a b 3. a b 4. a 0-1").substr(0, 33),
            "1:0 the record says 0-1, but by t");
  EXPECT_EQ(fault("1. a b 2. a b 3. a b 4. a 1-0"), "none");
  EXPECT_EQ(fault("1. a (1. b b 2. z) b *").substr(0, 7), "1:17 \"z");
  EXPECT_EQ(fault("1. a b 0-1"), "none");  // resigned
}

TEST(Records, RefuseWhatIsNone) {
  struct Bad {
    std::string text, says;
    int line, column;
  };
  std::string deep;
  for (int i = 0; i < 1000; ++i) deep += "1. a ( ";
  for (const Bad& bad : {Bad{"[Game]", "no tag", 1, 1},
                         Bad{"[Game \"x\"", "not closed", 1, 1},
                         Bad{"[\"x\"]", "no tag", 1, 1},
                         Bad{"\n[Game \"x]", "in quotes is not closed", 2, 7},
                         Bad{"1. a {b", "comment that begins here", 1, 6},
                         Bad{"1. a ( b", "variation that begins", 1, 6},
                         Bad{"1. a ) b", "nothing opens", 1, 6},
                         Bad{"( 1. a )", "before any move", 1, 1},
                         Bad{"1. a, b; 2. c", "begins a comment", 1, 8},
                         Bad{"1. \xff", "not UTF-8", 1, 4},
                         Bad{"1. H\xe4user", "iconv", 1, 5},
                         Bad{"1. a $256", "glyph", 1, 6},
                         Bad{"1. a !!!", "no sign", 1, 6},
                         Bad{"", "no game", 0, 0},
                         Bad{"1. a 1-0 1. b 0-1", "more than one game", 0, 0},
                         Bad{deep, "100 deep", 1, 706},
                         Bad{std::string(3 << 20, 'x'), "longer than", 1, 0},
                         Bad{"(;B[aa]", "not closed", 1, 2},
                         Bad{"(;B[aa", "value that begins", 1, 4},
                         Bad{"(;B)", "no value", 1, 4},
                         Bad{"()", "without a node", 1, 3}})
    try {
      std::istringstream in(bad.text);
      std::unique_ptr<GameReader> reader = openRecords(in, "test");
      if (bad.text.starts_with("(;") || bad.text == "()")
        while (reader->next()) {
        }
      else
        readRecord(bad.text, "test");
      ADD_FAILURE() << bad.text.substr(0, 40);
    } catch (const BadInput& error) {
      std::string all = error.what();
      EXPECT_NE(all.find(bad.says), std::string::npos) << all;
      EXPECT_EQ(error.diagnostics()[0].place.line, bad.line) << all;
      EXPECT_EQ(error.diagnostics()[0].place.column, bad.column) << all;
    }
}

// Texts of brackets, quotes and signs: read, or refused, and what was read reads again.
TEST(Records, TakeOrRefuseNoise) {
  Stream stream(1, 1);
  const std::vector<std::string> parts = {
      "[",  "]",  "\"",           "\\",  " ", "(", ")", "{",   "}",       ";",    "1.", "a",
      "$4", "\n", "[Game \"x\"]", "1-0", "*", "!", ",", "...", "(;B[aa]", "C[x]", "%"};
  int taken = 0;
  for (int round = 0; round < 20000; ++round) {
    std::string text;
    for (std::uint32_t i = stream.below(14); i > 0; --i)
      text += parts[stream.below(static_cast<std::uint32_t>(parts.size()))];
    try {
      std::istringstream in(text);
      std::unique_ptr<GameReader> reader = openRecords(in, "test");
      while (std::optional<GameRecord> record = reader->next()) {
        std::string written = toText(*record);
        EXPECT_EQ(toText(readRecord(written, "test")), written) << text;
        ++taken;
      }
    } catch (const BadInput&) {
    }
  }
  EXPECT_GT(taken, 2000);
}

}  // namespace movetext_test
}  // namespace ninepegs::records
