// What a game offers to verification: lines that are counted, ends, invariants, symmetries, cases.
//
//   if (const GameChecks* checks = game->checks())
//     for (const Invariant& one : checks->invariants()) texts.push_back(one.text);
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "ninepegs/game/values.hpp"

namespace ninepegs {

class GameChecks {
 public:
  virtual ~GameChecks() = default;

  virtual std::vector<RuleLine> ruleLines() const = 0;
  // Parts of conditions that are no `and`, `or` or `not` of others. A live position with room for
  // two numbers a part behind the rule lines counts how often each was asked and did not hold, and
  // how often it held; it is slower than one without.
  virtual std::vector<RuleLine> conditionParts() const { return {}; }
  // The ends that hold in a position, in the order of the rules; the first of them decided. Rules
  // may ask what a move changed: `before` is the position before it, nullptr if it was set up.
  virtual std::vector<Result> endsThatHold(const Position& position,
                                           const Position* before = nullptr) const = 0;

  virtual std::vector<Invariant> invariants() const = 0;
  // A condition as 0 or 1, or the number, of an invariant seen by a side. Requires
  // index < invariants().size().
  virtual std::int64_t invariantValue(std::size_t index, const Position& position,
                                      int side) const = 0;

  // What is forbidden and holds all the same, by line and reason, of the side that has moved last:
  // no game leads to such a position. Only what shows in the position alone.
  virtual std::vector<RuleLine> forbiddenThatHold(const Position&) const { return {}; }

  virtual std::vector<Symmetry> symmetries() const = 0;
  // All that the board could have, alone and with the sides exchanged: the game may have them or
  // not.
  virtual std::vector<Symmetry> possibleSymmetries() const { return {}; }
  virtual Position mapped(const Position& position, const Symmetry& symmetry) const = 0;
  // The position as if it were set up: without what the game remembers of earlier positions.
  virtual Position alone(const Position& position) const = 0;

  virtual std::vector<Example> examples() const = 0;
  // Does condition number `index` of the examples hold?
  virtual bool conditionHolds(int index, const Position& position) const = 0;
  // What is compared in it, such as ": 4 = 3"; empty if no numbers are.
  virtual std::string conditionValues(int index, const Position& position) const = 0;
};

}  // namespace ninepegs
