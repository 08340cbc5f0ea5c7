#include "ninepegs/records/game_record.hpp"

#include "support/games.hpp"

namespace ninepegs::records {
namespace {

TEST(GameRecord, RoundTripsAndReplays) {
  for (const std::string& name : test::shippedLibrary().names()) {
    std::shared_ptr<const Game> game = test::shipped(name);
    for (std::uint64_t number = 0; number < 5; ++number) {
      Stream stream(3, number);
      Position position = game->start();
      std::vector<Move> moves;
      MoveList legal;
      while (game->listMoves(position, legal), !legal.empty() && !game->ended(position)) {
        moves.push_back(legal[stream.below(static_cast<std::uint32_t>(legal.size()))]);
        game->apply(position, moves.back());
      }
      GameRecord record = makeRecord(*game, game->start(), moves);
      GameRecord again = readRecord(toText(record), "test");
      EXPECT_EQ(again.moves, record.moves);
      EXPECT_EQ(again.tags, record.tags);
      EXPECT_EQ(again.start, "");
      std::string all;
      for (const std::string& move : again.moves) all += (all.empty() ? "" : ",") + move;
      EXPECT_EQ(playMoves(*game, game->start(), all, "test"), position);
    }
  }
}

TEST(GameRecord, KeepsAnotherStart) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Position from = test::after(*game, "5, 1");
  GameRecord record = makeRecord(*game, from, matchingMoves(*game, from, "9"));
  GameRecord again = readRecord(toText(record), "test");
  EXPECT_EQ(again.start, "O2/1X1/3; Cross to move");
  EXPECT_EQ(again.moves, std::vector<std::string>{"9"});
}

// A move that begins with a bracket never begins a line: it would be a tag.
TEST(GameRecord, KeepsMovesThatBeginWithABracket) {
  GameRecord record;
  record.tags = {{"Game", "t"}};
  for (int i = 0; i < 60; ++i) record.moves.push_back("[" + std::to_string(i));
  GameRecord again = readRecord(toText(record), "test");
  EXPECT_EQ(again.moves, record.moves);
}

TEST(GameRecord, LooksAsDocumented) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  std::vector<Move> moves;
  Position position = game->start();
  for (const char* text : {"1", "4", "2", "5", "3"}) {
    moves.push_back(matchingMoves(*game, position, text).front());
    game->apply(position, moves.back());
  }
  EXPECT_EQ(toText(makeRecord(*game, game->start(), moves)),
            "[Game \"tic-tac-toe\"]\n[Result \"Cross wins: three in a line\"]\n\n1. 1, 4; 2. 2, 5; "
            "3. 3\n");
}

TEST(GameRecord, RefusesWhatIsNone) {
  for (const char* text :
       {"[Game]", "[Game \"x\"", "[\"x\"]", "1. a\n[Game \"x\"]", "1. a,,b", "\xff"})
    EXPECT_THROW(readRecord(text, "game.txt"), BadInput) << text;
  Stream stream(1, 1);
  const std::string symbols = "[]\"\\ ,;.1a\nGame";
  for (int round = 0; round < 5000; ++round) {
    std::string text;
    for (std::uint32_t i = stream.below(40); i > 0; --i)
      text += symbols[stream.below(static_cast<std::uint32_t>(symbols.size()))];
    try {
      readRecord(text, "game.txt");
    } catch (const BadInput&) {
    }
  }
}

}  // namespace
}  // namespace ninepegs::records
