// A game held against another game or program that says it plays the same: both play the same
// moves, and whatever each tells is compared. Driven by moves, so that each keeps its own position.
//
//   compare::MakeCounterpart make;
//   compare::Report report = compare::compare(*game, compare::Bridge(*game), make, {});
//   if (report.difference) texts = report.difference->moves;
#pragma once

#include <cstdint>
#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/compare/bridge.hpp"
#include "ninepegs/compare/counterpart.hpp"

namespace ninepegs::compare {

struct Options {
  std::uint64_t playouts = 2000;  // a quarter of each steer
  std::uint64_t seed = 1;
  int threads = 1;      // changes no result, if the counterpart answers the same each time
  int plyLimit = 2000;  // playouts are cut off there
  bool probes = true;   // also try inputs that are no legal moves
  std::uint64_t shortenBudget = 20'000;  // moves that may be played to find the shortest game
  const StopFlag* stop = nullptr;
  std::function<void(std::uint64_t done)> progress;  // called now and then, from any thread
};

struct Difference {
  enum class Kind {
    moves,     // one has legal moves that the other has not
    turn,      // not the same side is to move
    result,    // over for one, or another result
    board,     // something else stands on a cell
    refused,   // the counterpart does not take a legal move
    accepted,  // it takes what is no legal move
    failed,    // it gave no answer that can be understood
  };
  Kind kind = Kind::moves;
  std::string message;
  std::vector<std::string> moves;  // from the start, as the sheet writes them
  std::string input;               // that was refused or accepted, as the program writes it
  std::vector<std::string> onlyOurs, onlyTheirs;                 // moves, or "d3 x" on the board
  Position position;                                             // as the game has it
  std::optional<std::map<std::string, std::string>> theirBoard;  // by cell, if it tells
  bool shortest = false;  // no shorter game shows a difference: all were tried
  std::uint64_t playout = 0;
  int programExit = 0;  // of failed: the exit code, where a program ended with an error
};
std::string kindName(Difference::Kind kind);  // "moves", "accepted" ...

struct Report {
  std::uint64_t playouts = 0, positions = 0;
  std::uint64_t probes = 0;  // inputs that were refused by both
  // What the counterpart told, at least once.
  bool toldMoves = false, toldTurn = false, toldResult = false, toldBoard = false;
  std::vector<std::string> unmet;  // moves of the map that were never legal
  std::optional<Difference> difference;
  bool stopped = false;
};

using MakeCounterpart = std::function<std::unique_ptr<Counterpart>()>;

// A counterpart is made for each thread, and a new one after one that failed. Throws what making
// and starting one throws. Requires options.threads >= 1.
Report compare(const Game& game, const Bridge& bridge, const MakeCounterpart& make,
               const Options& options);

}  // namespace ninepegs::compare
