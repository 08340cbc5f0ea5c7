// What is heard of moves, as numbers: two are the same just where the texts are.
#include <map>

#include "judge/generate.hpp"
#include "support/games.hpp"

namespace ninepegs {
namespace hearing_test {

// Random games; the numbers of all texts that were met, with the texts.
struct Met {
  std::map<std::uint32_t, std::string> texts;
  std::map<std::string, std::uint32_t> numbers;
  int parted = 0;
  void add(std::uint32_t number, const std::string& text) {
    parted += texts.try_emplace(number, text).first->second != text;
    parted += numbers.try_emplace(text, number).first->second != number;
  }
};

// How many kinds of texts were met; the numbers must part them.
std::size_t agree(const Game& game, std::uint64_t games, int plies) {
  std::unique_ptr<Hearing> hearing = game.hearing(), texts = game.Game::hearing();
  Met met, plain;
  MoveList moves;
  for (std::uint64_t number = 0; number < games; ++number) {
    Stream stream(5, number);
    Position position = game.start();
    for (int ply = 0; ply < plies && !game.ended(position); ++ply) {
      try {
        game.listMoves(position, moves);
        for (const Move& move : moves) {
          MoveTexts said = game.textsOf(position, move);
          std::string told;
          for (const std::string& one : said.told) told += one + "|";
          Hearing::Heard heard = hearing->of(position, move), by = texts->of(position, move);
          met.add(heard.seen, "seen " + said.seen);
          met.add(heard.told + 1'000'000, "told " + told);
          plain.add(by.seen, "seen " + said.seen);
          plain.add(by.told + 1'000'000, "told " + told);
          met.parted += hearing->of(said) != heard;
        }
        if (moves.empty()) break;
        game.apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
      } catch (const RunawayRules&) {
        break;
      }
    }
  }
  EXPECT_EQ(met.parted + plain.parted, 0) << game.info().id << game.info().variant;
  return met.numbers.size();
}

TEST(Hearing, OfTheShippedSheets) {
  for (const std::string& name : test::shippedLibrary().names()) {
    std::shared_ptr<const Game> game = test::shipped(name);
    EXPECT_GT(agree(*game, 2, 30), 3u) << name;
    for (const auto& [variant, says] : game->info().variants) agree(*game->variant(variant), 1, 30);
  }
}

TEST(Hearing, OfDrawnSheets) {
  int played = 0;
  for (std::uint64_t number = 0; number < 250; ++number) {
    judge::Generated drawn = judge::generateSheet(31, number);
    try {
      agree(*test::fromText(drawn.text, drawn.variant), 1, 8);
      ++played;
    } catch (const BadInput&) {  // a sheet that is refused
    }
  }
  EXPECT_GT(played, 100);
}

// Pieces of texts that come to the same are the same: it is the whole that is heard.
TEST(Hearing, IsOfWholeTexts) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      "game halves\nsides Amber and Slate\nboard square 3 x 1\npiece peg P p\n"
      "move place\n  pick there in empty\n  put peg on there\n  when there in column a\n"
      "    tell \"1\" \"1\"\n  otherwise\n    tell count empty \"1\"\n  written as there\n"
      "ends\n  draw \"full\" when no empty\n");
  std::unique_ptr<Hearing> hearing = game->hearing();
  Position position = game->start();
  MoveList moves;
  game->listMoves(position, moves);
  ASSERT_EQ(moves.size(), 3u);
  game->apply(position, moves[2]);
  game->listMoves(position, moves);
  // One cell is left behind either move: "11" both times.
  ASSERT_EQ(game->textsOf(position, moves[0]).told, game->textsOf(position, moves[1]).told);
  EXPECT_EQ(hearing->of(position, moves[0]).told, hearing->of(position, moves[1]).told);
  EXPECT_NE(hearing->of(position, moves[0]).seen, hearing->of(position, moves[1]).seen);
}

}  // namespace hearing_test
}  // namespace ninepegs
