// The interpreter for sets of 8 words, as it lists moves.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_MACHINES(extern, 8)
NINEPEGS_LISTING_MACHINES(, 8)
