// The examples in the headers are compiled; this says that they were found.
#include <gtest/gtest.h>

#include "support/example_names.hpp"

namespace ninepegs {
namespace header_examples_test {

TEST(HeaderExamples, AreFoundAndCompiled) {
  EXPECT_GE(examples::count(), 14);
}

}  // namespace header_examples_test
}  // namespace ninepegs
