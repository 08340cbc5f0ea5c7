// The book of a game: what is in it, as a page and as PDF.
#include "ninepegs/report/book.hpp"

#include <gtest/gtest.h>

#include <algorithm>

#include "ninepegs/draw/document.hpp"
#include "ninepegs/report/book_page.hpp"
#include "support/games.hpp"

namespace ninepegs::report {
namespace report_book_test {

Book bookOf(const SheetGame& game, std::uint64_t seed = 1) {
  return makeBook(game,
                  {.seed = seed, .playouts = 200, .nodes = 200, .threads = 2, .stop = nullptr});
}
const BookPart& part(const Book& book, const std::string& heading) {
  static const BookPart none;
  for (const BookPart& one : book.parts)
    if (one.heading == heading) return one;
  ADD_FAILURE() << "no part \"" << heading << "\"";
  return none;
}

// Every end has a board with that end, or a word that it never came.
TEST(Book, ShowsEachEnd) {
  for (const char* name : {"tic-tac-toe", "connect-four", "othello", "morris", "hex", "hut-pass"}) {
    auto game = std::dynamic_pointer_cast<const SheetGame>(test::shippedLibrary().open(name));
    Book book = bookOf(*game);
    const BookPart& ends = part(book, "How it ends");
    for (std::size_t end = 0; end < game->info().ends.size(); ++end) {
      bool shown = false;
      for (const BookBoard& board : ends.boards) {
        Result result = game->result(board.position);
        EXPECT_NE(result.kind, ResultKind::ongoing) << name << " " << board.caption;
        shown = shown || result.end == static_cast<int>(end);
      }
      bool said = std::any_of(ends.sentences.begin(), ends.sentences.end(), [&](const auto& one) {
        return one.text.find("\"" + game->info().ends[end].name + "\"") != std::string::npos;
      });
      EXPECT_TRUE(shown != said) << name << " " << game->info().ends[end].name;
    }
  }
}

// The marked places are where moves go, for each kind; seen again by the game itself.
TEST(Book, ShowsWherePiecesMayGo) {
  auto game = std::dynamic_pointer_cast<const SheetGame>(test::shippedLibrary().open("chess"));
  Book book = bookOf(*game);
  const BookPart& pieces = part(book, "Where pieces may go");
  EXPECT_GE(pieces.boards.size(), 6u);
  for (const BookBoard& board : pieces.boards) {
    CellSet targets;
    MoveList moves;
    game->listMoves(board.position, moves);
    for (const Move& move : moves) {
      std::vector<Cell> cells = game->cellsOf(board.position, move);
      if (!cells.empty() && cells.front() == board.origin)
        targets.set(static_cast<std::size_t>(cells.back()));
    }
    EXPECT_EQ(targets, board.targets) << board.caption;
    EXPECT_TRUE(board.targets.any());
  }
}

TEST(Book, ItsGameIsPlayedByTheRulesAndEquals) {
  auto game = test::fromText(test::sheetWith(""));
  Book one = bookOf(*game), two = bookOf(*game), other = bookOf(*game, 2);
  const BookPart& played = part(one, "A game");
  ASSERT_GE(played.prose.size(), 3u);
  EXPECT_EQ(played.prose, part(two, "A game").prose);
  EXPECT_NE(played.prose, part(other, "A game").prose);
  ASSERT_FALSE(played.boards.empty());
  EXPECT_TRUE(game->ended(played.boards.back().position));
  std::size_t cases = 0;
  for (const auto& sentence : part(one, "What was checked").sentences)
    cases +=
        sentence.text.find("200 random games, seed 1: no fault was found") != std::string::npos;
  EXPECT_EQ(cases, 1u);
}

TEST(Book, IsAWholePage) {
  auto game = test::fromText(test::sheetWith("title \"Pegs & <saws>\"\n"));
  Book book = bookOf(*game);
  std::size_t boards = 0, drawn = 0;
  for (const BookPart& one : book.parts) boards += one.boards.size();
  std::string page = bookPage(book, [&](const BookBoard&) {
    ++drawn;
    return std::string("<svg/>");
  });
  EXPECT_EQ(drawn, boards);
  EXPECT_NE(page.find("<h1>Pegs &amp; &lt;saws&gt;</h1>"), std::string::npos);
  EXPECT_EQ(page.find("http"), std::string::npos);
  auto count = [&](const std::string& what) {
    std::size_t times = 0;
    for (std::size_t at = 0; (at = page.find(what, at)) != page.npos; at += what.size()) ++times;
    return times;
  };
  for (const char* tag : {"ul", "li", "figure", "h2", "h3", "div", "p"})
    EXPECT_EQ(count(std::string("<") + tag + ">") + count(std::string("<") + tag + " "),
              count(std::string("</") + tag + ">"))
        << tag;
}

TEST(Book, DocumentsAreTheSameBytes) {
  auto game = test::fromText(test::sheetWith(""));
  auto made = [&](int paragraphs) {
    draw::Document document("Pegs");
    for (int i = 0; i < paragraphs; ++i) document.paragraph("A paragraph that is one of many.");
    document.heading("Boards", 1);
    document.item("an item", 1);
    document.boards(*game, {{game->start(), {}, "the start"}, {game->start(), {}, "again"}}, 3);
    return document.bytes();
  };
  std::string one = made(3), many = made(300);
  EXPECT_EQ(one, made(3));
  EXPECT_EQ(one.substr(0, 5), "%PDF-");
  auto pages = [](const std::string& bytes) {
    std::size_t times = 0;
    for (std::size_t at = 0; (at = bytes.find("/Type /Page %", at)) != bytes.npos; ++at) ++times;
    return times;
  };
  EXPECT_GT(pages(many), 3 * std::max<std::size_t>(pages(one), 1));
}

}  // namespace report_book_test
}  // namespace ninepegs::report
