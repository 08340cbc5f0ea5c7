// The book of a game: what the people get who will play it. Its contents, without pictures;
// cli/book draws them.
//
//   auto sheet = SheetGame::fromText("mine.pegs", text);
//   report::Book book = report::makeBook(*sheet, {.seed = 1, .playouts = 500});
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs::report {

// A board, and what is marked on it.
struct BookBoard {
  Position position;
  std::string caption;
  CellSet shown, targets;
  Cell origin = -1;
};

struct BookPart {
  std::string heading;
  std::vector<std::string> prose;  // a paragraph each
  struct Sentence {
    int depth = 0;  // deeper ones belong to the one above
    std::string text;
  };
  std::vector<Sentence> sentences;
  std::vector<BookBoard> boards;
  bool level = true;  // false: a part of the one above
};

struct Book {
  std::string title;
  std::vector<BookPart> parts;
  bool stopped = false;  // not all of it was worked out
};

struct BookOptions {
  std::uint64_t seed = 1;
  std::uint64_t playouts = 2000;  // of the check, and to find boards in
  std::uint64_t nodes = 3000;     // a move of the example game
  int threads = 1;                // changes nothing
  const StopFlag* stop = nullptr;
};

// The same for the same seed.
Book makeBook(const SheetGame& game, const BookOptions& options);

}  // namespace ninepegs::report
