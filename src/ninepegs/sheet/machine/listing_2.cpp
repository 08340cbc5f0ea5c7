// The interpreter for sets of 2 words, as it lists moves.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_MACHINES(extern, 2)
NINEPEGS_LISTING_MACHINES(, 2)
