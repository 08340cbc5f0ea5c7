// Positions in Forsyth-Edwards notation, for sheets that map its fields to their memory in a
// `notation` section. After the section on FEN of the PGN standard (S. J. Edwards, 1994).
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/game/values.hpp"
#include "ninepegs/sheet/program/program.hpp"
#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs {

// Is the text meant as FEN? It is told by its second field, w or b.
bool looksLikeFen(std::string_view text);

// Throws BadInput. Two last fields, the clock and the number of the move, may be left out.
Position readFen(const rules::Rules& rules, const sheet::Layout& layout, std::string_view text,
                 const std::string& source);

// What the position holds that none of the fields can say, by name; empty if the text says it all.
// Earlier positions are left aside.
std::vector<std::string> besideFen(const rules::Rules& rules, const sheet::Layout& layout,
                                   const Position& position);

std::string fenText(const rules::Rules& rules, const sheet::Layout& layout,
                    const Position& position);

}  // namespace ninepegs
