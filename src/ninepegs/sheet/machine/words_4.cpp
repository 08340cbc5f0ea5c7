// The interpreter for sets of 4 words, as it plays.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_LISTING_MACHINES(extern, 4)
NINEPEGS_MACHINES(, 4)
