// Second stage of reading a sheet: blocks -> tree. Knows the grammar, not the meaning of names.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/sheet/syntax/tree.hpp"
#include "ninepegs/sheet/text/blocks.hpp"

namespace ninepegs::sheet {

// Words that the language keeps for itself: nothing in a sheet may be named so.
const std::vector<std::string>& reservedWords();

// The tree of a sheet; for a variant, with the variant's sections in place of those of the same
// word and name. Messages go to `found`; the tree is whole only if none came. An unknown variant is
// such a message.
Tree parse(const Source& source, const std::string& variant, std::vector<Diagnostic>& found);

// The expression that a line of tokens holds, for tests and tools.
Expr parseExpression(const Source& source, const std::vector<Token>& line,
                     std::vector<Diagnostic>& found);

// The expression as fully bracketed text: how it was read.
std::string toText(const Expr& expr);

}  // namespace ninepegs::sheet
