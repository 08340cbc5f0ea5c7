// The interpreter for sets of 1 word, as it lists moves.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_MACHINES(extern, 1)
NINEPEGS_LISTING_MACHINES(, 1)
