// The same rules written in another way.
#pragma once

#include <string>
#include <vector>

namespace ninepegs::soak {

struct Rewritten {
  std::string how;  // such as "brackets"
  std::string text;
};

// Ways to write a sheet that must be the same game: more brackets, a kind more that is never used,
// sets through definitions, a `need` further down, one more thing that is forbidden and never
// happens, a `need` behind all effects that always holds. What does not fit a sheet is left out.
std::vector<Rewritten> rewritings(const std::string& text);

}  // namespace ninepegs::soak
