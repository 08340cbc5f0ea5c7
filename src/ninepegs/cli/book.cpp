#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/draw/document.hpp"
#include "ninepegs/report/book_page.hpp"

namespace ninepegs::cli {
namespace {

struct BookOptions {
  GameOptions game;
  DrawOptions drawing;
  std::string out, playouts = "2000", nodes = "3000";
  TimeOption time;
};

draw::FigureMarks marksOf(const report::BookBoard& board) {
  draw::FigureMarks marks;
  marks.shown = board.shown;
  marks.targets = board.targets;
  marks.origin = board.origin;
  marks.captioned = false;
  return marks;
}

std::string pdfOf(const Game& game, const report::Book& book) {
  draw::Document document(book.title);
  bool first = true;
  for (const report::BookPart& part : book.parts) {
    if (!first) document.heading(part.heading, part.level ? 1 : 2);
    auto plain = [](std::string text) {
      std::erase(text, '`');
      return text;
    };
    for (const std::string& paragraph : part.prose) document.paragraph(plain(paragraph));
    for (const report::BookPart::Sentence& one : part.sentences)
      document.item(plain(one.text), one.depth);
    std::vector<draw::Document::Board> boards;
    for (const report::BookBoard& board : part.boards)
      boards.push_back({board.position, marksOf(board), board.caption});
    document.boards(game, boards, (game.boards() > 1 ? 2 : 3) - (first ? 1 : 0));
    first = false;
  }
  return document.bytes();
}

void runBook(const BookOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  const SheetGame& sheet = sheetOf(*game, "only a game with a sheet has a book");
  report::BookOptions how;
  options.drawing.into(how);
  how.playouts = wholeOption(options.playouts, "--playouts", 1, 1'000'000);
  how.nodes = wholeOption(options.nodes, "--nodes", 1, 100'000'000);
  makeFolder(options.out);  // before the work, not after it
  if (context.errorIsTerminal) printError("plays games, and looks for boards to show ...\n");
  options.time.begin();
  report::Book book = report::makeBook(sheet, how);
  if (endedByInterrupt(context, "no book is written")) return;
  std::filesystem::path folder = options.out;
  std::string page = report::bookPage(book, [&](const report::BookBoard& board) {
    draw::FigureMarks marks = marksOf(board);
    return draw::boardImage(*game, board.position, marks, ".svg");
  });
  std::string pdf = pdfOf(*game, book);
  if (endedByInterrupt(context, "no book is written")) return;  // it may have come while drawing
  writeFile(folder / "book.html", page);
  writeFile(folder / "book.pdf", pdf);
  if (book.stopped) print("time is up: fewer games were played than the book would look at\n");
  print(fmt::format("{}: the book of {} parts\n  {}\n  {}\n", book.title, book.parts.size(),
                    (folder / "book.html").string(), (folder / "book.pdf").string()));
}

}  // namespace

void addBook(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runBook, "book",
      "Write the game's book, a page and a PDF, for the people who will play it",
      "The book holds the rules in sentences, the start, where pieces may go, a board for each "
      "end,\n"
      "a game, and what was checked. The same seed makes the same book.\n"
      "Examples:\n"
      "  ninepegs book morris --out morris-book\n"
      "  ninepegs book ./my-game.pegs --out book --seed 7");
  options.game.addGame(command);
  needed(command, "--out DIR", options.out, "folder for book.html and book.pdf");
  options.drawing.add(command);
  options.time.add(command);
  option(command, "--playouts N", options.playouts,
         "random games that are checked, and looked through for boards (default 2000)");
  option(command, "--nodes N", options.nodes,
         "positions that the example game's players look at a move (default 3000)");
}

}  // namespace ninepegs::cli
