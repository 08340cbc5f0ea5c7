// The report of a check as text.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/report/paint.hpp"
#include "ninepegs/verify/check.hpp"

namespace ninepegs::report {

std::string checkText(const Game& game, const verify::CheckOptions& options,
                      const verify::CheckReport& report, const Paint& paint);

// The cells to look at in the position of a finding: what shows the result, or, where a win was
// passed over, that win.
CellSet cellsOfFinding(const Game& game, const verify::Finding& finding);

// What games that were drawn other ways reached that no others did, a sentence each.
std::vector<std::string> otherWayLines(const Game& game, const verify::CheckReport& report);

// What each line of a view discloses: the line's number, and what it shows.
std::vector<std::pair<std::string, std::string>> disclosureRows(const verify::CheckReport& report);

// "Amber wins: four in a line", "draw: board full".
std::string endedText(const Game& game, const verify::Evidence::Outcome& outcome);
// "12 of 13 passed".
std::string passedText(const verify::CheckReport& report);
// A case's name, with its variant if it is one's.
std::string caseName(const verify::ExampleRun& run);
// A remark with its hint.
std::string remarkText(const verify::Remark& remark);

// What the playouts say of all games, a sentence each: the first side's share of wins, and how rare
// a fault must be that was not met, both with 95 % confidence.
std::vector<std::string> shareLines(const Game& game, const verify::CheckReport& report);

// What was asked for and not, or not all of it, looked at, a phrase each; empty if the check is
// complete.
std::vector<std::string> unlookedParts(const verify::CheckOptions& options,
                                       const verify::CheckReport& report);
// A part of a check, as people call it.
std::string partName(verify::CheckPart part);
// "all", "part", "nothing" or "not asked for".
std::string extentName(verify::Extent extent);
// The verdict in a sentence, which claims no more than was looked at.
std::string verdictText(const verify::CheckOptions& options, const verify::CheckReport& report);

// What the check did not look at, in words.
std::string notLookedAt(const Game& game, const verify::CheckOptions& options,
                        const verify::CheckReport& report);

// How the symmetries that the sheet does not name stand, and which they are.
std::vector<std::pair<std::string, std::string>> symmetryRows(const verify::SymmetryTrial& trial);

}  // namespace ninepegs::report
