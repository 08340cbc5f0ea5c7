// Positions, moves, records and options that were changed a little, read as a person's would be.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs::soak {

// What went wrong, empty if nothing: a text that was taken and does not read back, a message that
// points nowhere, a legal move that cannot be made, or a second and more for one text.
// Same for the same number. `reads` counts what was taken and refused.
struct Reads {
  std::uint64_t taken = 0, refused = 0;
};
std::string readTexts(const SheetGame& game, Stream& stream, Reads& reads);

// Seconds this thread has computed.
double threadSeconds();

}  // namespace ninepegs::soak
