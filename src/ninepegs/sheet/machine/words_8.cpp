// The interpreter for sets of 8 words.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_MACHINES(, 8)
