// The interpreter for sets of 2 words, as it plays.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_LISTING_MACHINES(extern, 2)
NINEPEGS_MACHINES(, 2)
