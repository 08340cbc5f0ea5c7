#include "ninepegs/base/processor.hpp"

namespace ninepegs {

Processor processorAtHand() {
  Processor found;
#if NINEPEGS_X86
  __builtin_cpu_init();
  found.counts = __builtin_cpu_supports("popcnt") != 0;
  // The first two generations of this family have the instructions, and take hundreds of steps.
  bool slow = __builtin_cpu_is("znver1") != 0 || __builtin_cpu_is("znver2") != 0;
  found.gathers = __builtin_cpu_supports("bmi2") != 0 && !slow;
  found.wide = __builtin_cpu_supports("avx2") != 0;
#endif
  return found;
}

Processor processor = processorAtHand();

}  // namespace ninepegs
