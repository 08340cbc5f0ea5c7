// The lines of a move or an `after` block. Internal to the parser.
#pragma once

#include <vector>

#include "ninepegs/sheet/syntax/cursor.hpp"

namespace ninepegs::sheet {

std::vector<Statement> statements(const Source& source, const std::vector<Block>& blocks,
                                  std::vector<Diagnostic>& found);

}  // namespace ninepegs::sheet
