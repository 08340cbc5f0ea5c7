// How the legal moves of a group are found, the cheapest first.
#pragma once

#include <string_view>

namespace ninepegs::sheet {

enum class MoveClass {
  mask,    // one pick and no check behind an effect
  flat,    // all picks before the first effect
  tested,  // played on trial, without further picks
  walked,  // picks behind effects
};

std::string_view name(MoveClass moveClass);

}  // namespace ninepegs::sheet
