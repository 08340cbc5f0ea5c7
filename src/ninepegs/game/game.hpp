// Game: what every part above sees of a game's rules, whether they come from a sheet or from C++.
//
//   std::shared_ptr<const Game> game = openGame("connect-four");
//   Position position = game->start();
//   MoveList moves;
//   game->listMoves(position, moves);
//   game->apply(position, moves.front());
//   Result result = game->result(position);
//
// A Game is immutable and may be used by any number of threads at once. Functions that take a
// position take one of the same game. Errors in what a person wrote throw BadInput; nothing else
// throws, but for running out of memory.
#pragma once

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/base/diagnostic.hpp"
#include "ninepegs/base/random.hpp"
#include "ninepegs/game/live_position.hpp"
#include "ninepegs/game/values.hpp"

namespace ninepegs {

struct GameInfo {
  std::string id, title, variant;
  std::vector<std::string> about;
  std::string sides[2];
  std::string source;  // the sheet's path; empty for a game written in C++
  struct Kind {
    std::string name, letters[2];
    bool neutral = false;             // nobody's; its letter is the first
    std::vector<std::int64_t> edges;  // numbers on its sides, in the board's order of directions
  };
  std::vector<Kind> kinds;
  struct End {
    std::string name;
    int line = 0;
    bool isDraw = false;
  };
  std::vector<End> ends;  // by number; a leader's end counts as one
  std::vector<std::pair<std::string, std::string>> variants;  // name, what it says
};

class Game {
 public:
  virtual ~Game() = default;

  virtual const GameInfo& info() const = 0;
  virtual const Geometry& board() const = 0;

  // The rules.
  virtual Position start() const = 0;
  virtual int toMove(const Position& position) const = 0;  // 0 or 1
  // All legal moves in a stable order; none if the game has ended, but for an end that is only
  // claimed. Replaces what the list held.
  virtual void listMoves(const Position& position, MoveList& moves) const = 0;
  // Plays a legal move: the position becomes the next one, with its result.
  virtual void apply(Position& position, const Move& move) const = 0;
  virtual Result result(const Position& position) const = 0;
  bool ended(const Position& position) const {
    return result(position).kind != ResultKind::ongoing;
  }
  virtual std::uint64_t countMoves(const Position& position) const;

  // Text, both ways.
  virtual std::string moveText(const Position& position, const Move& move) const = 0;
  // The move's text and what else it says. A game without secrets says its text only.
  virtual MoveTexts textsOf(const Position& position, const Move& move) const;
  // Other notations of the move, as people may type it; none: there is only its text.
  virtual std::vector<std::string> otherTexts(const Position& position, const Move& move) const;
  virtual std::string positionText(const Position& position) const = 0;
  // The position in an open notation such as FEN; empty if the game has none.
  virtual std::string notation(const Position& position) const;
  // Throws BadInput; `source` names where the text came from, such as --at.
  virtual Position readPosition(std::string_view text, const std::string& source) const = 0;

  // What stands where, for pictures. A game has one board, or one for each side.
  virtual int boards() const { return 1; }
  virtual std::optional<Piece> pieceAt(const Position& position, Cell cell,
                                       int board = 0) const = 0;
  // The cells that were picked in a move, in order.
  virtual std::vector<Cell> cellsOf(const Position& position, const Move& move) const = 0;
  // Is anything hidden from a side? Then what a side knows is its view.
  virtual bool hasSecrets() const { return false; }
  virtual View viewOf(const Position& position, int side) const;
  // The cells that show the result, such as a winning line.
  CellSet shownCells(const Position& position) const;
  // The cells that would show that this end holds.
  virtual CellSet cellsOfEnd(const Position& position, int end) const;

  // Can what is legal or decided depend on earlier positions?
  virtual bool remembersPositions() const { return false; }

  // For opponents: what the position is worth for a side, in the game's own measure.
  virtual bool hasWorth() const { return false; }
  virtual std::int64_t worth(const Position& position, int side) const;

  // Equal for equal positions.
  virtual std::uint64_t hash(const Position& position) const;
  // Equal for positions that the rules cannot tell apart: what `count` compares.
  virtual std::vector<std::uint64_t> identity(const Position& position) const {
    return position.words;
  }

  // A position to play many moves on, at the start. For each use of rule line i while moves are
  // played it adds one to `uses[i]`, unless `uses` is empty; `uses` must outlive it.
  virtual std::unique_ptr<LivePosition> live(std::span<std::uint64_t> uses = {}) const;

  // For verification. A game may leave all of it out.
  virtual std::vector<RuleLine> ruleLines() const { return {}; }
  // The ends that hold in a position, in the order of the rules; the first of them decided. Rules
  // may ask what a move changed: `before` is the position before it, nullptr if it was set up.
  virtual std::vector<Result> endsThatHold(const Position& position,
                                           const Position* before = nullptr) const;
  virtual std::vector<Invariant> invariants() const { return {}; }
  // A condition as 0 or 1, or the number, of an invariant seen by a side.
  virtual std::int64_t invariantValue(std::size_t index, const Position& position, int side) const;
  virtual std::vector<Symmetry> symmetries() const { return {}; }
  // The position as if it were set up: without what the game remembers of earlier positions.
  virtual Position alone(const Position& position) const { return position; }
  virtual Position mapped(const Position& position, const Symmetry& symmetry) const;
  virtual std::vector<Example> examples() const { return {}; }
  // Does condition number `index` of the examples hold?
  virtual bool conditionHolds(int index, const Position& position) const;
  // What is compared in it, such as ": 4 = 3"; empty if no numbers are.
  virtual std::string conditionValues(int index, const Position& position) const;
  // The variant of that name. Throws BadInput if there is none.
  virtual std::shared_ptr<const Game> variant(const std::string& name) const;
};

// The part of a position's hash that one word makes.
std::uint64_t wordHash(std::size_t index, std::uint64_t word);

// What the position breaks of what must always hold, a sentence each; empty if nothing.
std::vector<std::string> brokenInvariants(const Game& game, const Position& position);

// The rules came to no end within their limits: a `repeat` that goes on without end, or loops over
// too many cells. `moves` that led there are known to whoever played them.
class RunawayRules : public BadInput {
 public:
  using BadInput::BadInput;
};

// How a side to move is told of a result: "Amber wins: four in a line".
std::string resultText(const Game& game, const Result& result);

}  // namespace ninepegs
