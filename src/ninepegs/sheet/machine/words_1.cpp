// The interpreter for sets of 1 word.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_MACHINES(, 1)
