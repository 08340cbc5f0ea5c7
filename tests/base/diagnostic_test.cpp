#include "ninepegs/base/diagnostic.hpp"

#include <gtest/gtest.h>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/base/random.hpp"
#include "ninepegs/board/bits.hpp"

namespace ninepegs {
namespace diagnostic_test {

TEST(Diagnostic, ShowsPlaceLineCaretAndHint) {
  Diagnostic one{{"ridge.pegs", 8, 17, 4, "  pick there in emty"},
                 "nothing is called \"emty\"",
                 "did you mean \"empty\"?"};
  EXPECT_EQ(toText(one),
            "ridge.pegs:8:17: nothing is called \"emty\"\n"
            "  8 |   pick there in emty\n"
            "    |                 ^^^^\n"
            "  hint: did you mean \"empty\"?");
}

TEST(Diagnostic, CaretsStandUnderWideCharacters) {
  Diagnostic one{{"hut.pegs", 2, 6, 2, "\xe6\x9c\xa8\xe9\x92\x89 x \xe6\x9c\xa8y"}, "here", ""};
  EXPECT_EQ(toText(one),
            "hut.pegs:2:6: here\n"
            "  2 | \xe6\x9c\xa8\xe9\x92\x89 x \xe6\x9c\xa8y\n"
            "    |        ^^^");
}

TEST(Diagnostic, LeavesOutWhatIsNotKnown) {
  EXPECT_EQ(toText(Diagnostic{{"x.pegs", 0, 0, 1, {}}, "the sheet is empty", ""}),
            "x.pegs: the sheet is empty");
  EXPECT_EQ(toText(Diagnostic{{"", 0, 0, 1, {}}, "there is no game", ""}), "there is no game");
}

TEST(Diagnostic, CutsLongLinesAroundTheCaret) {
  std::string line(3000, 'a');
  line[2000] = 'Q';
  std::string text = toText(Diagnostic{{"x", 1, 2001, 1, line}, "here", ""});
  EXPECT_LT(text.size(), 400u);
  std::size_t shown = text.find('Q'), caret = text.find('^');
  ASSERT_NE(shown, std::string::npos);
  ASSERT_NE(caret, std::string::npos);
  auto column = [&](std::size_t at) { return at - text.rfind('\n', at); };
  EXPECT_EQ(column(shown), column(caret));
}

TEST(Diagnostic, ControlCharactersDoNotReachTheTerminal) {
  std::string text = toText(Diagnostic{{"x", 1, 1, 1, "a\x1b[31mb"}, "here", ""});
  EXPECT_EQ(text.find('\x1b'), std::string::npos);
}

TEST(Diagnostic, PrintsAtMostTwenty) {
  std::vector<Diagnostic> many(30, Diagnostic{{"x", 0, 0, 1, {}}, "wrong", ""});
  std::string text = toText(many);
  EXPECT_NE(text.find("... and 10 more"), std::string::npos);
  std::size_t count = 0;
  for (std::size_t at = text.find("wrong"); at != std::string::npos;
       at = text.find("wrong", at + 1))
    ++count;
  EXPECT_EQ(count, 20u);
}

TEST(Parallel, DoesEveryPieceOnce) {
  for (int threads : {1, 2, 5}) {
    std::vector<std::atomic<int>> times(1000);
    inParallel(times.size(), threads, [&](std::uint64_t piece, int thread) {
      EXPECT_LT(thread, threads);
      ++times[piece];
    });
    for (const std::atomic<int>& n : times) EXPECT_EQ(n, 1);
  }
}

TEST(Parallel, HandsOnTheFirstException) {
  for (int threads : {1, 3}) {
    try {
      inParallel(100, threads, [](std::uint64_t piece, int) {
        if (piece >= 7) throw BadInput(Place{}, std::to_string(piece));
      });
      FAIL() << "nothing was thrown";
    } catch (const BadInput& error) {
      EXPECT_EQ(std::string(error.what()), "7");
    }
  }
}

#ifdef NINEPEGS_ASSERTIONS
TEST(Require, EndsTheProgramWithTheCondition) {
  Stream stream(1, 1);
  EXPECT_DEATH(stream.below(0), "bound > 0");
  EXPECT_DEATH(Bits<1>::of(64), "cell < W");
}
#endif

}  // namespace diagnostic_test
}  // namespace ninepegs
