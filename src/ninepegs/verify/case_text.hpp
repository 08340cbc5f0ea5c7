// Positions and answers as `case` blocks of a sheet.
//
//   Position after = playMoves(*game, position, "d3", "--after");
//   std::string block =
//       verify::caseText(*game, {"after d3", position, {"d3"}, after, {"ongoing"}});
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "ninepegs/game/game.hpp"
#include "ninepegs/verify/evidence.hpp"

namespace ninepegs::verify {

struct CaseText {
  std::string name;
  std::optional<Position> position;  // none: from the start
  std::vector<std::string> play;
  std::optional<Position> leaves;   // the whole position
  std::vector<std::string> expect;  // what stands behind `expect`
};

// The block, in the layout that `tidy` keeps; it ends in a newline. Quotes in the name become
// apostrophes.
std::string caseText(const Game& game, const CaseText& says);

// A position as lines of a block: a picture, then what else there is.
std::vector<std::string> positionLines(const Game& game, const Position& position);

// The symbols of a picture that stands on one line, row by row: "2x/3" -> {. . x}, {. . .}.
std::vector<std::vector<std::string>> pictureRows(const std::string& picture);

// A result as `expect` takes it: "ongoing", `Amber wins "four in a line"`, `draw "full"`.
std::string expectedResult(const Game& game, const Result& result);

// A finding as a case to paste: its game, and what should come of it as far as that is known. It
// fails as long as the fault is there, but for faults of which only the game is known. Empty for a
// finding of a case or of another variant, and for one that shows no game.
std::string caseOf(const Game& game, const Finding& finding);

}  // namespace ninepegs::verify
