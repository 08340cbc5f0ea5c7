// One game and one counterpart that play the same moves. Internal to the comparison.
#pragma once

#include <set>

#include "ninepegs/compare/compare.hpp"
#include "ninepegs/verify/steering.hpp"

namespace ninepegs::compare {

class Lockstep {
 public:
  Lockstep(const Game& game, const Bridge& bridge, const MakeCounterpart& make);

  // Each gives the difference that it meets; nothing: none. Positions and probes are counted into
  // the report.
  std::optional<Difference> begin(Report& report);
  std::optional<Difference> play(const Move& move, Report& report);
  // So many probes, drawn from all; 0: all of them.
  std::optional<Difference> probe(Stream* stream, std::size_t many, Report& report);
  // A whole game of at most so many plies.
  std::optional<Difference> playOut(std::uint64_t number, const Options& options, int plies,
                                    Report& report);

  LivePosition& live() { return *live_; }
  bool over();
  // Of the moves that the map names, those that were legal in any game.
  const std::set<std::string>& met() const { return met_; }

 private:
  std::optional<Difference> compared(const Standing& theirs, Report& report);
  std::optional<Difference> comparedMoves(const Standing& theirs, Report& report);
  std::optional<Difference> comparedBoard(const Standing& theirs);
  std::optional<Difference> asked(Report& report);
  Difference difference(Difference::Kind kind, std::string message);
  Difference failed(const CounterpartFailed& error);
  void listOurs();

  const Game& game_;
  const Bridge& bridge_;
  const MakeCounterpart& make_;
  std::unique_ptr<Counterpart> counterpart_;
  std::vector<std::uint64_t> uses_;
  std::unique_ptr<LivePosition> live_;
  std::vector<Move> played_;
  std::vector<std::string> texts_;   // of the moves played, as the sheet writes them
  std::vector<std::string> legal_;   // of the position, in the program's notation, in order
  std::vector<std::string> before_;  // legal earlier in this game, in the program's notation
  std::set<std::string> met_;        // of the map's moves, those that were legal
  MoveList moves_;
  std::optional<Standing> theirs_;
};

}  // namespace ninepegs::compare
