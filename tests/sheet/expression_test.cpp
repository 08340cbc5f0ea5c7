// How expressions are read: as fully bracketed text.
#include <gtest/gtest.h>

#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {
namespace expression_test {

std::string read(const std::string& text) {
  Source source("test", text);
  std::vector<Diagnostic> found;
  std::vector<Token> line = tokens(source, text, 1, found);
  Expr expr = parseExpression(source, line, found);
  return found.empty() ? toText(expr) : "! " + found.front().message;
}

TEST(Expression, PrefixWordsTakeTheOneThingBehindThem) {
  EXPECT_EQ(read("empty except north of empty"), "(empty except north of empty)");
  EXPECT_EQ(read("step any from there on theirs"), "(step any from there on theirs)");
  EXPECT_EQ(read("slide diagonal from here through empty on edge"),
            "(slide diagonal from here through empty on edge)");
  EXPECT_EQ(read("leap 1 2 from here"), "leap 1 2 from here");
}

TEST(Expression, AnyNoAndCountTakeAWholeChain) {
  EXPECT_EQ(read("any my king on their reach"), "(any (my king on their reach))");
  EXPECT_EQ(read("count mine on corner * 20 + 1"), "(((count (mine on corner)) * 20) + 1)");
  EXPECT_EQ(read("no occupied on between here and tower"),
            "(no (occupied on between here and tower))");
}

TEST(Expression, ConditionsBindFromLooseToTight) {
  EXPECT_EQ(read("no empty or (any mine and not stuck)"),
            "((no empty) or ((any mine) and (not stuck)))");
  EXPECT_EQ(read("no empty or any mine and not stuck"),
            "! `and` and `or` meet here without brackets");
  EXPECT_EQ(read("no empty and any mine or stuck"), "! `and` and `or` meet here without brackets");
  EXPECT_EQ(read("count mine + 1 < 2 * count theirs"),
            "(((count mine) + 1) < (2 * (count theirs)))");
  EXPECT_EQ(read("any their k and their k within my shot"),
            "((any their k) and (their k within my shot))");
  EXPECT_EQ(read("mover is White"), "(mover is White)");
  EXPECT_EQ(read("a - b - c"), "((a - b) - c)");
  EXPECT_EQ(read("-3 + 2"), "((0 - 3) + 2)");
}

TEST(Expression, LinesSpreadTotalsAndChoices) {
  EXPECT_EQ(read("any line of 4 in mine"), "(any (line of 4 in mine along any))");
  EXPECT_EQ(read("count lines of 3 in (mine or empty) along diagonal"),
            "(count (lines of 3 in (mine or empty) along diagonal))");
  EXPECT_EQ(read("total count L on mine for L in lines of 4 in mine"),
            "(total (count (L on mine)) for L in (lines of 4 in mine along any))");
  EXPECT_EQ(read("if any mine then empty else all"), "(if (any mine) then empty else all)");
  EXPECT_EQ(read("spread from corner through empty along orthogonal"),
            "(spread from corner through empty along orthogonal)");
  EXPECT_EQ(read("cells c in mine where c in edge"), "(cells c in mine where (c in edge))");
  EXPECT_EQ(read("bracketed theirs from there by mine"),
            "(bracketed theirs from there by mine along any)");
  EXPECT_EQ(read("min(1, max(2, 3))"), "min(1, max(2, 3))");
  EXPECT_EQ(read("rows 2 to 4"), "rows 2 to 4");
  EXPECT_EQ(read("column c"), "columns 3 to 3");
  EXPECT_EQ(read("odd rows"), "odd rows");
}

TEST(Expression, MixedChainsNeedBrackets) {
  EXPECT_EQ(read("(mine on edge) except corner"), "((mine on edge) except corner)");
  EXPECT_EQ(read("mine on edge except corner"), "! `on` and `except` meet here without brackets");
}

TEST(Expression, SaysWhatIsMissing) {
  EXPECT_EQ(read("mine on"), "! the line ends where a value should follow");
  EXPECT_EQ(read("(mine"), "! the line ends where \")\" should follow");
  EXPECT_EQ(read("step sideways from here"), "! \"sideways\" is no group of directions");
  EXPECT_EQ(read("mine theirs"), "! nothing more is expected here, but \"theirs\" follows");
  EXPECT_EQ(read("rows 2"), "! the line ends where \"to\" should follow");
}

TEST(Expression, NestingHasALimit) {
  std::string deep(200, '('), notDeep(20, '(');
  EXPECT_EQ(read(deep + "mine" + std::string(200, ')')).substr(0, 23), "! this is nested deeper");
  EXPECT_EQ(read(notDeep + "mine" + std::string(20, ')')), "mine");
  std::string nots;
  for (int i = 0; i < 5000; ++i) nots += "not ";
  EXPECT_EQ(read(nots + "stuck").substr(0, 8), "! this i");
}

}  // namespace expression_test
}  // namespace ninepegs::sheet
