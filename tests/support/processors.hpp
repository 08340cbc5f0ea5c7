// As on a processor that has nothing but what all of its kind have, until it goes out of scope.
#pragma once

#include "ninepegs/base/processor.hpp"

namespace ninepegs::test {

class PlainProcessor {
 public:
  PlainProcessor() { processor = {}; }
  ~PlainProcessor() { processor = processorAtHand(); }
  PlainProcessor(const PlainProcessor&) = delete;
  PlainProcessor& operator=(const PlainProcessor&) = delete;
};

}  // namespace ninepegs::test
