// The interpreter for sets of 1 word, as it plays.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_LISTING_MACHINES(extern, 1)
NINEPEGS_MACHINES(, 1)
