// A `case` block. Internal to the parser.
#pragma once

#include <vector>

#include "ninepegs/sheet/syntax/cursor.hpp"

namespace ninepegs::sheet {

CaseDecl parseCase(const Source& source, const Block& block, Cursor& in,
                   std::vector<Diagnostic>& found);

}  // namespace ninepegs::sheet
