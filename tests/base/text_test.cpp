#include "ninepegs/base/text.hpp"

#include <gtest/gtest.h>

#include <algorithm>

#include "ninepegs/base/random.hpp"

namespace ninepegs {
namespace text_test {

TEST(Text, SplitsAndTrims) {
  EXPECT_EQ(splitTrimmed(" a, b ,c", ','), (std::vector<std::string>{"a", "b", "c"}));
  EXPECT_TRUE(splitTrimmed("   ", ',').empty());
  EXPECT_EQ(splitTrimmed("a,,b", ',').size(), 3u);
  EXPECT_EQ(trimmed(" \t x y \r\n"), "x y");
}

TEST(Text, CountsTheColumnsOfATerminal) {
  EXPECT_EQ(columnsOf("peg"), 3);
  EXPECT_EQ(columnsOf("K\xc3\xb6nig"), 5);
  EXPECT_EQ(columnsOf("\xe6\x9c\xa8\xe9\x92\x89"), 4);  // two ideographs
  EXPECT_EQ(columnsOf("o\xcc\x88x"), 2);                // a combining sign
  EXPECT_EQ(columnsOf("a\xff"), 2);                     // a malformed byte is shown as one
  EXPECT_EQ(wrapped("\xe6\x9c\xa8 \xe6\x9c\xa8 \xe6\x9c\xa8", 5, ""),
            "\xe6\x9c\xa8 \xe6\x9c\xa8\n\xe6\x9c\xa8\n");
}

TEST(Text, IsClippedBehindAWholeCharacter) {
  EXPECT_EQ(clipped("pegs", 3), "peg");
  EXPECT_EQ(clipped("pegs", 40), "pegs");
  EXPECT_EQ(clipped("", 3), "");
  EXPECT_EQ(clipped("K\xc3\xb6nig", 1), "K");
  EXPECT_EQ(clipped("K\xc3\xb6nig", 2), "K\xc3\xb6");
  EXPECT_EQ(clipped("\xe6\x9c\xa8\xe9\x92\x89", 3), "\xe6\x9c\xa8");  // the second takes two
  EXPECT_EQ(clipped("o\xcc\x88x", 1), "o\xcc\x88");
  EXPECT_EQ(clipped("\xff\xff", 1), "\xff");
  std::string combining = "o";
  for (int i = 0; i < 1000; ++i) combining += "\xcc\x88";
  EXPECT_LE(clipped(combining, 1).size(), 8u);
}

TEST(Text, FindsBadUtf8) {
  EXPECT_EQ(firstBadUtf8("plain"), std::string_view::npos);
  EXPECT_EQ(firstBadUtf8("K\xc3\xb6nig \xe2\x82\xac \xf0\x9f\x8e\xb2"), std::string_view::npos);
  EXPECT_EQ(firstBadUtf8("ab\xff"), 2u);
  EXPECT_EQ(firstBadUtf8("\xc0\xaf"), 0u);          // overlong
  EXPECT_EQ(firstBadUtf8("\xed\xa0\x80"), 0u);      // surrogate
  EXPECT_EQ(firstBadUtf8("\xf4\x90\x80\x80"), 0u);  // beyond Unicode
  EXPECT_EQ(firstBadUtf8("x\xe2\x82"), 1u);         // cut short
}

TEST(Text, SymbolsOfAnyBytesJoinBackToThem) {
  Stream stream(3, 0);
  for (int round = 0; round < 500; ++round) {
    std::string bytes;
    for (std::uint32_t i = stream.below(20); i > 0; --i)
      bytes += static_cast<char>(stream.below(256));
    EXPECT_EQ(joined(utf8Symbols(bytes), ""), bytes);
  }
}

TEST(Text, SuggestsOnlyWhatIsNear) {
  std::vector<std::string> words = {"empty", "occupied", "mine", "theirs"};
  EXPECT_EQ(nearest("emty", words), "empty");
  EXPECT_EQ(nearest("mien", words), "mine");
  EXPECT_EQ(nearest("ocupied", words), "occupied");
  EXPECT_FALSE(nearest("glockenspiel", words).has_value());
  EXPECT_FALSE(nearest("", words).has_value());
  EXPECT_EQ(didYouMean("thiers", words), "did you mean \"theirs\"?");
  EXPECT_EQ(didYouMean("qqqq", words, "other"), "other");
}

TEST(Text, NaturalOrderIsAStrictOrder) {
  EXPECT_TRUE(naturalLess("a2", "a10"));
  EXPECT_TRUE(naturalLess("a10", "b1"));
  EXPECT_FALSE(naturalLess("10", "9"));
  EXPECT_TRUE(naturalLess("9", "10"));
  EXPECT_TRUE(naturalLess("a", "a1"));
  // Irreflexive and antisymmetric on all pairs, transitive on all triples of a small alphabet.
  std::vector<std::string> texts = {"",  "a", "a1", "a01", "a1b", "a10", "a2",
                                    "b", "1", "01", "10",  "1a",  "001"};
  for (const std::string& x : texts) {
    EXPECT_FALSE(naturalLess(x, x));
    for (const std::string& y : texts) {
      EXPECT_TRUE(x == y || naturalLess(x, y) != naturalLess(y, x)) << x << " " << y;
      for (const std::string& z : texts)
        EXPECT_TRUE(!naturalLess(x, y) || !naturalLess(y, z) || naturalLess(x, z)) << x << y << z;
    }
  }
}

TEST(Text, WrapsBetweenWords) {
  EXPECT_EQ(wrapped("one two three four", 9, "  "), "  one two\n  three\n  four\n");
  EXPECT_EQ(wrapped("unbreakablelongword x", 5, ""), "unbreakablelongword\nx\n");
  EXPECT_EQ(wrapped("", 5, ""), "\n");
}

TEST(Text, Numbers) {
  EXPECT_EQ(wholeNumber("42"), 42u);
  EXPECT_EQ(wholeNumber("0"), 0u);
  for (const char* bad :
       {"", "-1", "+1", "1.5", "1 ", " 1", "1e3", "0x10", "99999999999999999999999"})
    EXPECT_FALSE(wholeNumber(bad).has_value()) << bad;
  EXPECT_FALSE(wholeNumber("11", 10).has_value());
  EXPECT_EQ(grouped(0), "0");
  EXPECT_EQ(grouped(999), "999");
  EXPECT_EQ(grouped(1000), "1,000");
  EXPECT_EQ(grouped(12345678), "12,345,678");
  EXPECT_EQ(plural(1, "move"), "1 move");
  EXPECT_EQ(plural(0, "move"), "0 moves");
}

}  // namespace text_test
}  // namespace ninepegs
