// Third stage: tree -> rules. Every name is resolved, every expression has a type, every statement
// a number; what a later stage relies on has been refused here if it does not hold.
#pragma once

#include <memory>
#include <vector>

#include "ninepegs/sheet/rules/rules.hpp"
#include "ninepegs/sheet/syntax/tree.hpp"

namespace ninepegs::sheet {

// Leaves out messages that only follow from earlier ones: a name is missed once, and not where the
// line that would have made it was refused.
void dropFollowOns(std::vector<Diagnostic>& found);

// Of a tree that is not whole, because lines of it were refused: adds what is likely a slip of the
// pen in other lines, a name that is nearly another. Needs a game, sides and a board.
void addLikelySlips(const Tree& tree, const std::shared_ptr<const Source>& source,
                    std::vector<Diagnostic>& found);

// Messages go to `found`; the rules are whole only if none came.
rules::Rules check(const Tree& tree, std::shared_ptr<const Source> source,
                   std::vector<Diagnostic>& found);

}  // namespace ninepegs::sheet
