// The interpreter for sets of 4 words, as it lists moves.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_MACHINES(extern, 4)
NINEPEGS_LISTING_MACHINES(, 4)
