// The interpreter for sets of 8 words, as it plays.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_LISTING_MACHINES(extern, 8)
NINEPEGS_MACHINES(, 8)
