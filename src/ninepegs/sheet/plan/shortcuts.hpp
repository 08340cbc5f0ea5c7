// What the compiler does in a quicker way where it was shown to be the same. Each can be switched
// off, so that tests can hold the two against each other.
#pragma once

namespace ninepegs::sheet {

enum class Shortcut : unsigned {
  foreseen,     // a forbidden attack is settled before a move is tried
  pruned,       // trials leave out what no check reads
  bracketed,    // cells from which a run is bracketed come from the run's other end
  guards,       // no search if a later pick has nothing to pick from
  known,        // whose and which piece a pick stands for is not looked up again
  backwards,    // attacks are followed from the attacked cells
  fused,        // pairs of instructions are one
  slideTables,  // slides are looked up by what stands in their way
  rays,         // slides end at the first piece of a ray
  turns,        // steps are turns of a word
  lineShifts,   // lines are found by shifting
  linesAtOnce,  // lines that are picked last are offered as a set
  distinct,     // ways of a move that must differ are not compared
};
inline constexpr unsigned shortcutCount = 13;

// A bit for each.
using Shortcuts = unsigned;
inline constexpr Shortcuts allShortcuts = (1u << shortcutCount) - 1;
constexpr Shortcuts bit(Shortcut one) {
  return 1u << static_cast<unsigned>(one);
}
constexpr bool takes(Shortcuts without, Shortcut one) {
  return (without & bit(one)) == 0;
}

}  // namespace ninepegs::sheet
