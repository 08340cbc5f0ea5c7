// Other programs that are gone while they are written to.
#include <gtest/gtest.h>
#include <poll.h>

#include "ninepegs/base/child.hpp"
#include "ninepegs/base/process.hpp"

namespace ninepegs {
namespace child_test {

// A library that is used by other programs must not end them by SIGPIPE.
TEST(Child, ThatReadsNothingIsNoSignal) {
  Child child("exec <&-; echo deaf; sleep 5", {.seconds = 0.3});
  std::string answer;
  ASSERT_EQ(child.next(answer), Child::Came::line);  // by now its end is closed
  EXPECT_EQ(answer, "deaf");
  EXPECT_EQ(child.ask("hello", answer), Child::Came::nothing);
  Child gone("exit 3", {.seconds = 5});
  poll(nullptr, 0, 200);
  EXPECT_EQ(gone.ask("hello", answer), Child::Came::end);
  EXPECT_EQ(gone.howItEnded(), "ended with exit code 3");
}

TEST(Process, ThatReadsNothingIsNoSignal) {
  std::string much(1 << 20, 'x');
  Finished done = runProcess({"sh", "-c", "exec <&-; sleep 0.2; echo deaf"}, much, {});
  EXPECT_EQ(done.how, Finished::How::exited);
  EXPECT_EQ(done.output, "deaf\n");
}

}  // namespace child_test
}  // namespace ninepegs
