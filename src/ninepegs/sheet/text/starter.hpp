// The sheet that a new game begins with: small, commented, and playable as it stands.
#pragma once

#include <string>

namespace ninepegs::sheet {

// Throws BadInput if `name` cannot be the name of a game: letters, digits and hyphens, a letter
// first.
std::string starterSheet(const std::string& name);

}  // namespace ninepegs::sheet
