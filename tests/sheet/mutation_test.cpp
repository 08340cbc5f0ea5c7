// Mutations of rules: what is changed, that it can be played, and that it is the same when it is
// written down and read again.
#include "ninepegs/sheet/mutation/mutations.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <set>

#include "ninepegs/base/random.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/program/verify.hpp"
#include "support/games.hpp"
#include "support/many.hpp"

namespace ninepegs {
namespace mutation_test {

using rules::Mutation;

std::vector<std::string> sheetPaths() {
  std::vector<std::string> out;
  for (const std::string& name : test::shippedLibrary().names())
    out.push_back(test::shippedSheet(name));
  for (const char* folder : {"/tests/corpus", "/examples/faulty"})
    for (const auto& entry :
         std::filesystem::directory_iterator(std::string(NINEPEGS_SOURCE) + folder))
      if (entry.path().extension() == ".pegs" && entry.path().stem().extension() != ".cases")
        out.push_back(entry.path().string());
  std::sort(out.begin(), out.end());
  return out;
}

std::shared_ptr<const SheetGame> open(const std::string& path) {
  return SheetGame::fromText(path, readFile(path, limits::sheetBytes));
}

// A position without what is remembered only for cases, which are left out.
std::string shown(const Game& game, const Position& position) {
  std::string out;
  for (const std::string& part : splitTrimmed(game.positionText(position), ';'))
    if (part.rfind("passes ", 0) != 0 && !part.ends_with(" moved last")) out += part + "; ";
  return out;
}

// Plays the two in step; what differs, or nothing.
std::string parted(const Game& one, const Game& other, std::uint64_t seed, int plies) {
  Stream stream(seed, 0);
  Position a = one.start(), b = other.start();
  MoveList moves, others;
  try {
    for (int ply = 0; ply < plies; ++ply) {
      if (shown(one, a) != shown(other, b)) return "position " + one.positionText(a);
      Result is = one.result(a), its = other.result(b);
      if (is.kind != its.kind || is.winner != its.winner) return "result " + one.positionText(a);
      one.listMoves(a, moves);
      other.listMoves(b, others);
      if (moves.size() != others.size()) return "moves in " + one.positionText(a);
      if (moves.empty()) return "";
      std::size_t at = stream.below(static_cast<std::uint32_t>(moves.size()));
      if (one.moveText(a, moves[at]) != other.moveText(b, others[at])) return "texts";
      one.apply(a, moves[at]);
      other.apply(b, others[at]);
    }
  } catch (const BadInput&) {  // it comes to no end; the other is not asked
  }
  return "";
}

// Directions that are one short have no word of their own.
bool canBeWritten(const Mutation& mutation) {
  return mutation.now.find(" but ") == std::string::npos &&
         mutation.now.find(" turned round") == std::string::npos &&
         mutation.slip != rules::Slip::oneSide;
}

TEST(Mutation, EveryMutantOfEverySheetIsSoundOrRefused) {
  std::size_t made = 0, refused = 0;
  for (const std::string& path : sheetPaths()) {
    auto game = open(path);
    std::vector<Mutation> all = rules::mutationsOf(game->rules());
    for (std::size_t i = 0; i < all.size(); i += test::many(4u, 1u)) {
      const Mutation& mutation = all[i];
      SCOPED_TRACE(path + ":" + std::to_string(mutation.line) + " " + rules::toText(mutation));
      std::shared_ptr<const SheetGame> mutant;
      try {
        mutant = SheetGame::fromRules(rules::mutated(game->rules(), mutation));
      } catch (const BadInput& error) {
        ++refused;
        continue;
      }
      ++made;
      std::vector<std::string> wrong = sheet::unsound(mutant->program());
      EXPECT_TRUE(wrong.empty()) << wrong.front();
    }
    // The rules that they were made of are as before.
    EXPECT_EQ(rules::toText(game->rules()), rules::toText(open(path)->rules())) << path;
  }
  EXPECT_GT(made, test::many(500u, 2000u));
  EXPECT_LT(refused, made / 8);
}

// Written down and read again, a mutant is the same game: its parts fit together as those of a
// sheet that a person wrote.
TEST(Mutation, AMutantWrittenDownAndReadAgainIsTheSameGame) {
  std::size_t compared = 0;
  for (const std::string& path : sheetPaths()) {
    auto game = open(path);
    std::vector<Mutation> all = rules::mutationsOf(game->rules());
    std::size_t step = all.size() / test::many(15u, 60u) + 1;
    for (std::size_t i = 0; i < all.size(); i += step) {
      if (!canBeWritten(all[i])) continue;
      SCOPED_TRACE(path + ":" + std::to_string(all[i].line) + " " + rules::toText(all[i]));
      std::shared_ptr<const SheetGame> mutant, again;
      rules::Rules rules = rules::mutated(game->rules(), all[i]);
      rules.cases.clear();
      std::string text = rules::toText(rules);
      try {
        mutant = SheetGame::fromRules(rules);
      } catch (const BadInput&) {
        continue;
      }
      try {
        again = SheetGame::fromText("again.pegs", text);
      } catch (const BadInput&) {
        continue;  // the checker is stricter: a name that is never made, a zone without cells
      }
      ++compared;
      EXPECT_EQ(parted(*mutant, *again, i, 40), "") << text;
    }
  }
  EXPECT_GT(compared, test::many(180u, 700u));
}

std::vector<std::string> textsOf(const std::string& sheet) {
  std::vector<std::string> out;
  for (const Mutation& one : rules::mutationsOf(test::fromText(sheet)->rules()))
    out.push_back(rules::toText(one));
  return out;
}
bool has(const std::vector<std::string>& texts, const std::string& text) {
  return std::find(texts.begin(), texts.end(), text) != texts.end();
}

constexpr const char* small = R"(game small
sides Amber and Slate
board square 4 x 4
piece peg o x
zone goal = row 4 for Amber, row 1 for Slate
define near(s) = step orthogonal from s on empty
number quiet = 3
start
  x . . .
  . . . .
  . . . .
  o . . .
move go
  pick here in my peg
  pick there in near(here)
  need not (there in corner)
  take there
  shift here to there
  when there in my goal
    again
  set quiet to quiet + 1
turn go else pass
forbid "two in a row" when any line of 2 in mine
ends
  mover wins "home" when any (mine on my goal)
  draw "long" when quiet >= 30
)";

TEST(Mutation, HasTheSlipsThatPeopleMake) {
  std::vector<std::string> texts = textsOf(small);
  for (const char* wanted :
       {"`their peg` where it says `my peg`", "without `need (not (there in corner))`",
        "without `take there`",
        "`step orthogonal but south from s` where it says `step orthogonal from s`",
        "`turn go` where it says `turn go else pass`",
        "`turn go or pass` where it says `turn go else pass`", "without `forbid \"two in a row\"`",
        "`quiet > 30` where it says `quiet >= 30`", "`31` where it says `30`",
        "`quiet = 4` where it says `quiet = 3`", "`Slate to move` too many",
        "`mover loses \"home\"` where it says `mover wins \"home\"`",
        "`joined left to right` too many", "without `again`",
        "`quiet - 1` where it says `quiet + 1`",
        "`zone goal of the other side` where it says `zone goal`"}) {
    EXPECT_TRUE(has(texts, wanted)) << wanted << "\n"
                                    << [&] {
                                         std::string all;
                                         for (const std::string& one : texts) all += one + "\n";
                                         return all;
                                       }();
  }
}

// A repetition that may be another one; pieces in lines that should have been left out.
TEST(Mutation, RepeatsOtherwiseAndLeavesLinesOut) {
  std::vector<std::string> texts = textsOf(
      "game g\nsides Amber and Slate\nboard square 5 x 5\npiece peg o x\nmove place\n"
      "  pick there in empty\n  put peg on there\n  repeat 2 times\n    pick more in empty\n"
      "    put peg on more\n  when any line of 3 in mine\n    pick gone in theirs\n"
      "    take gone\n  when count mine > 5\n    pick own in my peg on edge\n    take own\n"
      "ends\n  draw \"full\" when no empty\n");
  for (const char* wanted :
       {"`repeat while possible` where it says `repeat 2 times`",
        "`repeat any times` where it says `repeat 2 times`",
        "`pick gone in (theirs except (lines of 3 in theirs along any))` where it says `pick gone "
        "in theirs`",
        "`pick own in ((my peg on edge) except (lines of 3 in mine along any))` where it says "
        "`pick own in (my peg on edge)`"})
    EXPECT_TRUE(has(texts, wanted)) << wanted;
  // Nothing of that kind where no line is spoken of, or where nothing of a side can be.
  for (const std::string& one : texts)
    EXPECT_EQ(one.find("pick there in empty except lines"), std::string::npos) << one;
  for (const std::string& one : textsOf(small))
    EXPECT_EQ(one.find("pick here in my peg except lines of 3"), std::string::npos) << one;
}

// What is changed inside of a definition is changed in each of its uses.
TEST(Mutation, ADefinitionChangesInAllItsUses) {
  std::string sheet = std::string(small) + "always\n  count near(mine) >= 0\n";
  sheet += "worth count near(mine)\n";
  auto game = test::fromText(sheet);
  for (const Mutation& one : rules::mutationsOf(game->rules())) {
    if (one.now != "step diagonal from s") continue;
    auto mutant = SheetGame::fromRules(rules::mutated(game->rules(), one));
    EXPECT_EQ(moveTexts(*mutant, mutant->start()), (std::vector<std::string>{"a1-b2"}));
    // a1 sees b2 alone, a4 of the other side b3 alone.
    EXPECT_EQ(mutant->worth(mutant->start(), 0), 0);
    EXPECT_EQ(mutant->invariantValue(0, mutant->start(), 0), 1);
    return;
  }
  FAIL() << "no such mutation";
}

// A zone is worked out anew, for each side by itself.
TEST(Mutation, AZoneMoves) {
  auto game = test::fromText(small);
  std::set<std::string> seen;
  for (const Mutation& one : rules::mutationsOf(game->rules())) {
    rules::Rules mutant = rules::mutated(game->rules(), one);
    std::string cells;
    for (int side = 0; side < 2; ++side)
      for (Cell cell = 0; cell < 16; ++cell)
        if (mutant.zones[0].cells[side][cell]) cells += mutant.board.label(cell) + " ";
    seen.insert(cells);
  }
  EXPECT_TRUE(seen.count("a3 b3 c3 d3 a1 b1 c1 d1 "));
  EXPECT_TRUE(seen.count("a4 b4 c4 d4 a2 b2 c2 d2 "));
  EXPECT_TRUE(seen.count("a1 b1 c1 d1 a4 b4 c4 d4 "));
}

}  // namespace mutation_test
}  // namespace ninepegs
