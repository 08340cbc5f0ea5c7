// Game: what every part above sees of a game, whether it comes from a sheet or from C++.
//
//   std::shared_ptr<const Game> four = Library({"sheets"}).open("connect-four");
//   Position first = four->start();
//   std::string board = four->positionText(first);
//
// It is its rules, its notation and its picture, and may offer more: null where it does not.
// A Game is immutable and may be used by any number of threads at once. Functions that take a
// position take one of the same game. Errors in what a person wrote throw BadInput; within a
// StopScope they may throw Stopped. Nothing else throws, but for running out of memory.
#pragma once

#include <cstdint>
#include <memory>
#include <span>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/base/diagnostic.hpp"
#include "ninepegs/base/random.hpp"
#include "ninepegs/game/game_checks.hpp"
#include "ninepegs/game/game_notation.hpp"
#include "ninepegs/game/game_picture.hpp"
#include "ninepegs/game/game_rules.hpp"
#include "ninepegs/game/game_secrets.hpp"
#include "ninepegs/game/game_worth.hpp"
#include "ninepegs/game/hearing.hpp"
#include "ninepegs/game/live_position.hpp"
#include "ninepegs/game/values.hpp"

namespace ninepegs {

struct GameInfo {
  std::string id, title, variant;
  std::vector<std::string> about;
  std::string sides[2];
  std::string source;  // the sheet's path; empty for a game written in C++
  // The path of its cases file, and the number that the lines of that file are counted on from;
  // empty and 0 if there is none.
  std::string casesSource;
  int casesLine = 0;
  struct Kind {
    std::string name, letters[2];
    bool neutral = false;             // nobody's; its letter is the first
    std::vector<std::int64_t> edges;  // numbers on its sides, in the board's order of directions
  };
  std::vector<Kind> kinds;
  std::vector<std::string> marks, cellNumbers;  // the names of what is remembered on cells
  struct End {
    std::string name;
    int line = 0;
    bool isDraw = false;
  };
  int mayLast = 0;        // plies that a game is said to last at most; 0: nothing is said
  std::vector<End> ends;  // by number; a leader's end counts as one
  std::vector<std::pair<std::string, std::string>> variants;  // name, what it says
};

class Game : public GameRules, public GameNotation, public GamePicture {
 public:
  Game();
  Game(const Game&) = delete;
  Game& operator=(const Game&) = delete;

  // No other game of this process ever has the same, not even one that is made where another was.
  std::uint64_t number() const { return number_; }

  virtual const GameInfo& info() const = 0;

  // More than a game must have; owned by the game.
  virtual const GameChecks* checks() const { return nullptr; }
  virtual const GameSecrets* secrets() const { return nullptr; }
  virtual const GameWorth* measure() const { return nullptr; }

  std::unique_ptr<LivePosition> live(std::span<std::uint64_t> uses = {}) const override;
  virtual std::unique_ptr<Hearing> hearing() const;
  // What a side sees: everything, where nothing is secret.
  View viewFor(const Position& position, int side) const;
  // The cells that show the result, such as a winning line.
  CellSet shownCells(const Position& position) const;
  // The variant of that name. Throws BadInput if there is none.
  virtual std::shared_ptr<const Game> variant(const std::string& name) const;

 private:
  std::uint64_t number_;
};

// The game for which something was worked out and kept. Does not own it.
class KnownGame {
 public:
  bool is(const Game& game) const { return number_ == game.number(); }
  KnownGame& operator=(const Game& game) {
    game_ = &game;
    number_ = game.number();
    return *this;
  }
  const Game& operator*() const { return *game_; }
  const Game* operator->() const { return game_; }
  bool operator==(const KnownGame& other) const { return number_ == other.number_; }

 private:
  const Game* game_ = nullptr;
  std::uint64_t number_ = 0;  // that of no game
};

// The file and the number in it of a line of the sheet or of its cases file.
struct LinePlace {
  std::string file;
  int line = 0;
};
LinePlace placeOfLine(const GameInfo& info, int line);
// As a text: "12", or "3 of nim.cases.pegs".
std::string lineName(const GameInfo& info, int line);

// The lines whose use can be counted; none of a game without checks.
std::vector<RuleLine> ruleLinesOf(const Game& game);

// What a side sees, on one line: the position's text as it is shown, then letters on cells and what
// is known in words.
std::string viewText(const Game& game, const View& view);

// What the position breaks of what must always hold, a sentence each; empty if nothing.
std::vector<std::string> brokenInvariants(const Game& game, const Position& position);

// The rules came to no end within their limits: a `repeat` that goes on without end, or loops over
// too many cells. `moves` that led there are known to whoever played them.
class RunawayRules : public BadInput {
 public:
  using BadInput::BadInput;
};

// All that was run within a WorkScope (base/stop.hpp) took more steps than it may; no single
// position need be at fault. What was being worked out is to be given up. A number that has run
// away is named, with its line.
class TooMuchWork : public BadInput {
 public:
  using BadInput::BadInput;
};

// How a side to move is told of a result: "Amber wins: four in a line".
std::string resultText(const Game& game, const Result& result);

}  // namespace ninepegs
