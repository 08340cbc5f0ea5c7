// What the operands of each instruction are.
#pragma once

#include <string_view>

#include "ninepegs/sheet/program/program.hpp"

namespace ninepegs::sheet {

// What an instruction does with a, b, c, d and n, a letter each:
//
//   - nothing   # a plain number
//   s S U  a set: read, written, both        i I V  a number, cell or kind: the same
//   w X    a number of each cell: read, written
//   k  a kind; if n is 1, the place of one
//   behind: j jump   t cell table   g group of directions   d direction   l line set
//           f family of line sets   p property   r track   m move   e statement   x part of a text
std::string_view roles(Op op);

}  // namespace ninepegs::sheet
