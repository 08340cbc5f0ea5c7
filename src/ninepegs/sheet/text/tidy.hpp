// A sheet in its standard layout: two blanks a level, one blank between words, comments kept.
#pragma once

#include <string>

#include "ninepegs/sheet/text/blocks.hpp"

namespace ninepegs::sheet {

// The tidied text; ends in a newline. Tidying it again changes nothing, and it says the same as
// before. Throws BadInput if the text cannot be read as blocks.
std::string tidied(const Source& source);

}  // namespace ninepegs::sheet
