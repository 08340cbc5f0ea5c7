#include "ninepegs/sheet/text/blocks.hpp"

#include <gtest/gtest.h>

#include "ninepegs/base/limits.hpp"

namespace ninepegs::sheet {
namespace blocks_test {

struct Read {
  std::vector<Block> blocks;
  std::vector<Diagnostic> found;
};

Read read(const std::string& text) {
  Source source("test.pegs", text);
  Read out;
  out.blocks = blocks(source, out.found);
  return out;
}

std::vector<Token> tokensOf(const std::string& line, std::vector<Diagnostic>* messages = nullptr) {
  Source source("test.pegs", line);
  std::vector<Diagnostic> found;
  std::vector<Token> out = tokens(source, line, 1, found);
  if (messages != nullptr) *messages = found;
  return out;
}

std::vector<std::string> texts(const std::vector<Token>& tokens) {
  std::vector<std::string> out;
  for (const Token& token : tokens) out.push_back(token.text);
  return out;
}

TEST(Tokens, KindsAndPlaces) {
  std::vector<Token> line = tokensOf("pick here-2 in a1.2 >= 12 \"two words\" <(");
  EXPECT_EQ(texts(line), (std::vector<std::string>{"pick", "here-2", "in", "a1.2", ">=", "12",
                                                   "two words", "<", "("}));
  EXPECT_EQ(line[0].kind, TokenKind::word);
  EXPECT_EQ(line[4].kind, TokenKind::symbol);
  EXPECT_EQ(line[5].kind, TokenKind::number);
  EXPECT_EQ(line[5].number, 12);
  EXPECT_EQ(line[6].kind, TokenKind::text);
  EXPECT_EQ(line[1].span.column, 6);
  EXPECT_EQ(line[1].span.length, 6);
  EXPECT_EQ(line[6].span.column, 27);
  EXPECT_EQ(line[6].span.length, 11);
}

TEST(Tokens, AHyphenBindsOnlyInsideAWord) {
  EXPECT_EQ(texts(tokensOf("a-b")), (std::vector<std::string>{"a-b"}));
  EXPECT_EQ(texts(tokensOf("a - b")), (std::vector<std::string>{"a", "-", "b"}));
  EXPECT_EQ(texts(tokensOf("a -b")), (std::vector<std::string>{"a", "-", "b"}));
  EXPECT_EQ(texts(tokensOf("3-2")), (std::vector<std::string>{"3", "-", "2"}));
  EXPECT_EQ(texts(tokensOf("a-")), (std::vector<std::string>{"a", "-"}));
}

TEST(Tokens, ColumnsCountCharactersNotBytes) {
  std::vector<Token> line = tokensOf("h\xc3\xbctte in \xc3\xa4");
  ASSERT_EQ(line.size(), 3u);
  EXPECT_EQ(line[0].span.length, 5);
  EXPECT_EQ(line[1].span.column, 7);
  EXPECT_EQ(line[2].kind, TokenKind::word);
}

TEST(Tokens, SayWhatCannotBeRead) {
  std::vector<Diagnostic> found;
  tokensOf("title \"open", &found);
  ASSERT_EQ(found.size(), 1u);
  EXPECT_EQ(found[0].place.column, 7);
  tokensOf("123456789012345678901234567890", &found);
  ASSERT_EQ(found.size(), 1u);
  EXPECT_NE(found[0].message.find("too large"), std::string::npos);
}

TEST(Blocks, FollowTheIndentation) {
  Read sheet = read("one\n  two\n    three\n  four\nfive\n");
  ASSERT_TRUE(sheet.found.empty());
  ASSERT_EQ(sheet.blocks.size(), 2u);
  ASSERT_EQ(sheet.blocks[0].children.size(), 2u);
  EXPECT_EQ(sheet.blocks[0].children[0].word(), "two");
  EXPECT_EQ(sheet.blocks[0].children[0].children[0].word(), "three");
  EXPECT_EQ(sheet.blocks[0].children[1].word(), "four");
  EXPECT_EQ(sheet.blocks[1].span.line, 5);
}

TEST(Blocks, CommentsAndBlankLinesAreNothing) {
  Read sheet = read("# a note\n\none two # more\n   \n  # deeper\ntext \"a # b\"\n");
  ASSERT_EQ(sheet.blocks.size(), 2u);
  EXPECT_EQ(sheet.blocks[0].raw, "one two");
  EXPECT_EQ(sheet.blocks[1].tokens[1].text, "a # b");
}

TEST(Blocks, LinesGoOnBehindCommasOperatorsAndBrackets) {
  for (const char* text :
       {"zone x = row 1,\n  row 2\n", "define x = mine or\n  theirs\n", "define x = (\n  mine)\n",
        "define x = count mine +\n 1\n", "define x = count mine >=\n1\n"}) {
    Read sheet = read(text);
    EXPECT_TRUE(sheet.found.empty()) << text;
    ASSERT_EQ(sheet.blocks.size(), 1u) << text;
    EXPECT_TRUE(sheet.blocks[0].children.empty()) << text;
    EXPECT_EQ(sheet.blocks[0].tokens.back().span.line, 2) << text;
  }
}

TEST(Blocks, LineEndsOfOtherSystemsAreLineEnds) {
  Read sheet = read("one\r\n  two\r\n");
  EXPECT_TRUE(sheet.found.empty());
  ASSERT_EQ(sheet.blocks.size(), 1u);
  EXPECT_EQ(sheet.blocks[0].children[0].raw, "two");
}

TEST(Blocks, PictureRowsKeepNoIndentation) {
  Read sheet = read("start\n      x . .\n   . . .\n  . o .\n  Slate to move\n");
  EXPECT_TRUE(sheet.found.empty());
  ASSERT_EQ(sheet.blocks.size(), 1u);
  const std::vector<Block>& lines = sheet.blocks[0].children;
  ASSERT_EQ(lines.size(), 4u);
  EXPECT_TRUE(lines[0].pictureRow && lines[1].pictureRow && lines[2].pictureRow);
  EXPECT_EQ(lines[0].raw, "x . .");
  EXPECT_FALSE(lines[3].pictureRow);
}

TEST(Blocks, ProseIsTakenAsItStands) {
  Read sheet = read("about\n  Don't \"worry\" #1,\n      deeper (and open\nboard square 3 x 3\n");
  EXPECT_TRUE(sheet.found.empty());
  ASSERT_EQ(sheet.blocks.size(), 2u);
  ASSERT_EQ(sheet.blocks[0].children.size(), 2u);
  EXPECT_EQ(sheet.blocks[0].children[0].raw, "Don't \"worry\" #1,");
  EXPECT_EQ(sheet.blocks[0].children[1].raw, "deeper (and open");
}

TEST(Blocks, WrongIndentationIsTold) {
  EXPECT_FALSE(read("  one\n").found.empty());
  EXPECT_FALSE(read("one\n    two\n  three\n").found.empty());
  EXPECT_FALSE(read("one\n\ttwo\n").found.empty());
  std::string deep;
  for (int i = 0; i < 200; ++i) deep += std::string(i, ' ') + "word\n";
  Read sheet = read(deep);
  ASSERT_FALSE(sheet.found.empty());
  EXPECT_NE(sheet.found[0].message.find("nested deeper"), std::string::npos);
}

TEST(Blocks, OverlongLinesAreTold) {
  Read sheet = read("one\n" + std::string(limits::lineBytes + 1, 'x') + "\n");
  ASSERT_EQ(sheet.found.size(), 1u);
  EXPECT_EQ(sheet.found[0].place.line, 2);
}

}  // namespace blocks_test
}  // namespace ninepegs::sheet
