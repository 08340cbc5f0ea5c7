// What was seen in playouts. Evidence of parts of the work merges into that of the whole, in any
// order and with the same outcome.
#pragma once

#include <cstdint>
#include <map>
#include <optional>
#include <set>
#include <string>
#include <tuple>
#include <utility>
#include <vector>

#include "ninepegs/game/game.hpp"
#include "ninepegs/verify/steering.hpp"

namespace ninepegs::verify {

enum class FindingKind {
  example,      // a case of the sheet fails
  overwrite,    // a piece was put where one stood
  drawOverWin,  // a draw was announced though a side had won
  noEnd,        // nobody can move and no end holds
  runaway,      // a move goes on without end
  endless,      // a playout went on to the limit of plies, and a position came again
  invariant,    // a line of `always` does not hold
  symmetry,     // a symmetry of the sheet does not hold
  leak,         // a side learns what is secret
  ambiguous,    // two moves to different positions have one text
  growing,      // a playout went on to the limit of plies, and a number grew or fell all the time
};
std::string findingName(FindingKind kind);  // as in JSON: "case", "overwrite", "draw over win" ...

struct Finding {
  FindingKind kind = FindingKind::example;
  int line = 0;
  std::string message;
  std::string example, variant;    // the case's name, and the variant it was played in
  std::string from;                // text of the position the moves start from; empty: the start
  std::vector<std::string> moves;  // that lead to the fault
  std::string position;            // text of the position they lead to
  std::string expects;             // of a case: what does not hold there, and should; may be empty
  bool shortest = false;           // no shorter game shows the fault: all were tried
  std::uint64_t playout = 0;       // which playout found it first
  Steer way = Steer::uniform;      // how its moves were drawn
  Position last;                   // the position as a value, for pictures
};

// What is wrong with one step of a game.
struct Fault {
  FindingKind kind = FindingKind::overwrite;
  int line = 0;
  std::string message;
};

struct Spread {  // of a whole number seen many times
  std::map<std::uint64_t, std::uint64_t> times;
  void add(std::uint64_t value) { ++times[value]; }
  void merge(const Spread& other);
  std::uint64_t least() const { return times.empty() ? 0 : times.begin()->first; }
  std::uint64_t greatest() const { return times.empty() ? 0 : times.rbegin()->first; }
  std::uint64_t count() const;
  double mean() const;
};

// What games of one way of drawing moves reached.
struct WayEvidence {
  Steer way = Steer::uniform;
  std::uint64_t games = 0;
  std::vector<std::uint64_t> uses;  // of each line of the rules, also by moves that were weighed
  std::set<int> ends;               // by number
};

struct Evidence {
  using Outcome = std::tuple<int, int, std::string>;  // end's number, winner or -1, name
  std::uint64_t playouts = 0;
  std::map<Outcome, std::uint64_t> outcomes;
  std::uint64_t unfinished = 0;     // playouts without a result
  std::uint64_t tooLong = 0;        // ... of these, that went on to the limit of plies
  std::uint64_t givenUp = 0;        // ... that took too many steps, all positions together
  Spread lengths;                   // plies of a playout
  Spread choices;                   // legal moves of a position
  std::vector<std::uint64_t> uses;  // of each line of the rules
  std::uint64_t symmetryTests = 0;  // positions compared with their images

  struct FirstSeen {
    std::uint64_t playout = 0;
    std::string message;
    std::vector<Move> moves;
    Steer way = Steer::uniform;
    std::optional<Position> from;  // where the moves begin; none: at the start
  };
  std::map<std::pair<FindingKind, int>, FirstSeen> faults;  // by kind and line

  // Of the same kind and line, the one of the lowest playout stays: would this one?
  bool wants(const Fault& fault, std::uint64_t playout) const;
  void see(const Fault& fault, FirstSeen seen);
  void merge(const Evidence& other);
};

}  // namespace ninepegs::verify
