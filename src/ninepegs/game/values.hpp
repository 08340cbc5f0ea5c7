// The values that every game is made of: position, move, result.
#pragma once

#include <array>
#include <compare>
#include <cstdint>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/base/expectation.hpp"
#include "ninepegs/board/geometry.hpp"

namespace ninepegs {

// A position as 64-bit words whose meaning the game knows. Assigning to a position of the same game
// does not allocate. Equal words, equal positions.
struct Position {
  std::vector<std::uint64_t> words;
  friend bool operator==(const Position&, const Position&) = default;
};

// A move as the choices made in it, in order: cells or kinds of piece. `group` is which sort of
// move it is. Meaningful only together with the position it was listed for.
struct Move {
  std::uint8_t group = 0;
  std::uint8_t count = 0;
  std::array<std::uint16_t, limits::choices> choices;

  // A move of one choice.
  static Move of(std::uint16_t choice, std::uint8_t group = 0) {
    Move move;
    move.group = group;
    move.count = 1;
    move.choices[0] = choice;
    return move;
  }

  friend bool operator==(const Move& a, const Move& b) {
    if (a.group != b.group || a.count != b.count) return false;
    for (int i = 0; i < a.count; ++i)
      if (a.choices[i] != b.choices[i]) return false;
    return true;
  }
};
using MoveList = std::vector<Move>;

enum class ResultKind {
  ongoing,
  win,
  draw,
  fault,  // the rules did something impossible; `name` says what
};

// How a game stands, without texts.
struct Outcome {
  ResultKind kind = ResultKind::ongoing;
  bool claim = false;  // an end that is only claimed: the game could go on
  int winner = -1;     // 0 or 1, of a win
  int end = -1;        // which of the game's ends
  friend bool operator==(const Outcome&, const Outcome&) = default;
};

struct Result {
  ResultKind kind = ResultKind::ongoing;
  int winner = -1;     // 0 or 1, of a win
  std::string name;    // the end's name
  int end = -1;        // which of the game's ends
  bool claim = false;  // the game could go on
  int line = 0;        // of the sheet, 0 if there is none
  Outcome outcome() const { return {kind, claim, winner, end}; }
  // Ends of a game written in C++, by their places in GameInfo::ends.
  static Result win(int winner, std::string name, int end = 0) {
    return {ResultKind::win, winner, std::move(name), end, false, 0};
  }
  static Result draw(std::string name, int end = 0) {
    return {ResultKind::draw, -1, std::move(name), end, false, 0};
  }
  friend bool operator==(const Result&, const Result&) = default;
};

// The texts of a move: its own, what the other side sees of it, what it announces to both.
struct MoveTexts {
  std::string text, seen;
  std::vector<std::string> told;
};

// What one side knows of a position in which some things are hidden from it.
struct View {
  Position shown;  // with what is hidden taken away
  struct Mark {
    std::string letter;
    int board = 0;  // whose
    CellSet cells;
    friend bool operator==(const Mark&, const Mark&) = default;
  };
  std::vector<Mark> marks;         // what it was shown besides
  std::vector<std::string> words;  // and told in words
  // Which of GameSecrets::viewLines shows each mark, and says each word.
  std::vector<std::size_t> lineOfMark, lineOfWord;
};

struct Piece {
  int kind = 0;
  int side = 0;  // -1: of nobody
};

// A line of the rules whose use can be counted, and what it is.
struct RuleLine {
  int line = 0;
  std::string text;
};

// A statement of the rules that must hold in every position (change 0), or whose number must never
// shrink (1) or grow (-1).
struct Invariant {
  int line = 0;
  std::string text;
  int change = 0;
};

// An example that the rules must pass.
struct ExampleStep {
  using Kind = ExpectKind;
  Kind kind = Kind::ongoing;
  int line = 0;
  std::vector<std::string> moves;           // play, legal, notLegal, moves
  std::string cell;                         // of moves: only those from or to it; empty: all
  bool to = false;                          // ... to it
  int side = -1;                            // end: who wins, -1 for a draw; turn: who is to move
  std::string name;                         // end: its name, empty for any
  int firstDepth = 0;                       // sequences
  std::vector<unsigned long long> numbers;  // moveCount: one; sequences: one a depth; edges: all
  int condition = -1;
  std::string text;    // of a condition, as written
  Position position;   // leaves: what stands where
  bool whole = false;  // ... and all else: whose turn it is, marks, numbers, hands
};
struct Example {
  std::string name, variant;
  int line = 0;
  bool startsElsewhere = false;  // has a position of its own
  Position position;
  std::vector<ExampleStep> steps;
};

}  // namespace ninepegs
