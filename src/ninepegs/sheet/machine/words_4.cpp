// The interpreter for sets of 4 words.
#define NINEPEGS_COMPILES_MACHINE
#include "ninepegs/sheet/machine/machine.hpp"

NINEPEGS_MACHINES(, 4)
