#include "ninepegs/play/worked_out.hpp"

#include <set>

#include "ninepegs/play/match.hpp"
#include "support/games.hpp"

namespace ninepegs::play {
namespace worked_out_test {

// A shipped sheet without its measure.
std::shared_ptr<const Game> unmeasured(const std::string& name) {
  std::string text = readFile(test::shippedSheet(name), 1 << 20), kept;
  for (std::size_t from = 0; from < text.size();) {
    std::size_t to = std::min(text.find('\n', from), text.size());
    if (text.compare(from, 5, "worth") != 0) kept += text.substr(from, to + 1 - from);
    from = to + 1;
  }
  std::shared_ptr<const Game> game = test::fromText(kept);
  EXPECT_EQ(game->measure(), nullptr);
  return game;
}

// Who has more pieces stands better, and the sides' scores sum to 0.
TEST(WorkedOut, PiecesCount) {
  std::shared_ptr<const Game> game = unmeasured("draughts");
  WorkedOut measure;
  Stream stream(1, 1);
  measure.learn(*game, game->start(), {.games = 400}, stream);
  MoveList moves;
  int more = 0, agreed = 0;
  for (std::uint64_t number = 0; number < 60; ++number) {
    Stream play(2, number);
    std::unique_ptr<LivePosition> live = game->live();
    for (int ply = 0; ply < 50 && !live->ended() && live->playDrawn(play); ++ply) {
    }
    Position position = live->position();
    int pieces[2] = {0, 0};
    for (Cell cell = 0; cell < game->board().size(); ++cell)
      if (auto piece = game->pieceAt(position, cell)) ++pieces[piece->side];
    EXPECT_EQ(measure.worth(*live, 0), -measure.worth(*live, 1));
    if (std::abs(pieces[0] - pieces[1]) < 2) continue;
    ++more;
    agreed += (measure.worth(*live, 0) > 0) == (pieces[0] > pieces[1]);
  }
  EXPECT_GT(more, 10);
  EXPECT_GE(agreed * 10, more * 8) << agreed << " of " << more;
}

TEST(WorkedOut, IsTheSameForTheSameSeed) {
  std::shared_ptr<const Game> game = unmeasured("morris");
  auto learned = [&] {
    WorkedOut measure;
    Stream stream(5, 5);
    measure.learn(*game, game->start(), {.games = 60}, stream);
    measure.learn(*game, game->start(), {.games = 60}, stream);
    return measure.worth(*game->live(), 0);
  };
  EXPECT_EQ(learned(), learned());
}

// Games on hexes, with hands, and of pieces that take: the search wins without being told anything.
TEST(WorkedOut, LetsTheSearchWin) {
  for (const char* name : {"hex-tiles", "hut-pass", "draughts"}) {
    std::shared_ptr<const Game> game = unmeasured(name);
    int won = 0;
    for (std::uint64_t number = 0; number < 6; ++number) {
      std::unique_ptr<Opponent> search = makeSearch({.nodes = 3000}), greedy = makeGreedy();
      bool first = number % 2 == 0;
      Opponent* sides[] = {first ? search.get() : greedy.get(),
                           first ? greedy.get() : search.get()};
      Stream stream(4, number);
      won += playGame(*game, game->start(), sides, stream, 300).result.winner == (first ? 0 : 1);
    }
    EXPECT_GE(won, 5) << name;
  }
}

// Nothing is said of lines but that five win. An open three is answered, whoever has it.
TEST(WorkedOut, SeesLinesThatGrow) {
  std::shared_ptr<const Game> game = unmeasured("five-in-a-row");
  auto chosen = [&](const std::string& text) {
    Position position = game->readPosition(text, "position");
    Stream stream(3, 1);
    Choice choice = makeSearch({.nodes = 20'000})->choose(*game, position, stream);
    return game->moveText(position, choice.move);
  };
  for (std::string us : {"Black", "White"}) {
    std::string them = us == "Black" ? "White" : "Black";
    std::string answer =
        chosen("stone of " + them + " g8 h8 i8; stone of " + us + " c3 m12; " + us + " to move");
    EXPECT_TRUE(std::set<std::string>({"e8", "f8", "j8", "k8"}).contains(answer)) << answer;
  }
}

}  // namespace worked_out_test
}  // namespace ninepegs::play
