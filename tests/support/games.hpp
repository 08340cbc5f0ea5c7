// Shorthand for tests: games from texts and files, positions after moves.
#pragma once

#include <gtest/gtest.h>

#include <memory>
#include <string>

#include "ninepegs/base/files.hpp"
#include "ninepegs/game/library.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs::test {

inline std::string shippedSheet(const std::string& name) {
  return std::string(NINEPEGS_SOURCE) + "/sheets/" + name + ".pegs";
}
inline std::string faultySheet(const std::string& name) {
  return std::string(NINEPEGS_SOURCE) + "/examples/faulty/" + name + ".pegs";
}
inline Library shippedLibrary() {
  return Library({std::string(NINEPEGS_SOURCE) + "/sheets"});
}
inline std::shared_ptr<const Game> shipped(const std::string& name) {
  return shippedLibrary().open(name);
}
inline std::shared_ptr<const Game> faulty(const std::string& name) {
  return shippedLibrary().open(faultySheet(name));
}
// One of the examples with a section `picture`.
inline std::shared_ptr<const Game> drawn(const std::string& name) {
  return shippedLibrary().open(std::string(NINEPEGS_SOURCE) + "/examples/pictures/" + name +
                               ".pegs");
}
inline std::shared_ptr<const SheetGame> fromText(const std::string& text,
                                                 const std::string& variant = {}) {
  return SheetGame::fromText("test.pegs", text, variant);
}
inline Position after(const Game& game, const std::string& moves) {
  return playMoves(game, game.start(), moves, "test");
}

// The messages of a text that is no sheet; empty if it is one.
inline std::vector<Diagnostic> messages(const std::string& text, const std::string& variant = {}) {
  try {
    fromText(text, variant);
  } catch (const BadInput& error) {
    return error.diagnostics();
  }
  return {};
}

// How often a part stands in a text.
inline std::size_t count(const std::string& text, const std::string& part) {
  std::size_t many = 0;
  for (std::size_t at = text.find(part); at != std::string::npos; at = text.find(part, at + 1))
    ++many;
  return many;
}

// A small game around the given lines: 5 x 4 cells, two kinds of piece.
inline std::string sheetWith(const std::string& lines, const std::string& board = "square 5 x 4") {
  return "game trial\nsides Amber and Slate\nboard " + board +
         "\npiece peg o x value 2 reach step orthogonal\n"
         "piece saw s z value 5 reach slide diagonal\n" +
         lines +
         "\nmove place\n  pick there in empty\n  put peg on there\n"
         "ends\n  draw \"full\" when no empty\n";
}

}  // namespace ninepegs::test
