// A check states nothing that it has not looked at, gives up what takes too long, and says which.
#include <algorithm>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/report/check_changes.hpp"
#include "ninepegs/report/check_files_text.hpp"
#include "ninepegs/report/check_page.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/json.hpp"
#include "ninepegs/report/mutants_text.hpp"
#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/lint.hpp"
#include "ninepegs/verify/mutants.hpp"
#include "support/games.hpp"
#include "support/json.hpp"
#include "support/many.hpp"

namespace ninepegs::verify {
namespace only_seen_test {

CheckOptions everything(std::uint64_t playouts) {
  CheckOptions out;
  out.playouts = playouts;
  out.remarks = out.unnamed = out.parts = true;
  return out;
}

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

bool anyRemark(const std::vector<Remark>& remarks, const std::string& part) {
  return std::any_of(remarks.begin(), remarks.end(),
                     [&](const Remark& one) { return has(one.message, part); });
}

const Finding* found(const CheckReport& report, FindingKind kind) {
  for (const Finding& one : report.findings)
    if (one.kind == kind) return &one;
  return nullptr;
}

// A king that may not be attacked, and a case whose position has it attacked with the other side to
// move: random games from there would take it.
const char* const guarded =
    "game guard\nsides Amber and Slate\nboard square 4 x 4\n"
    "piece king k K reach step any\npiece rook r R reach slide orthogonal\n"
    "start\n  K . . R\n  . . . .\n  . . . .\n  k . . r\n"
    "move go\n  pick here in mine\n  pick there in reach of here except mine\n  take there\n"
    "  shift here to there\n"
    "forbid \"the king stands attacked\" when any my king on their reach\n"
    "ends\n  draw \"over\" when stuck or plies >= 30\n"
    "always\n  count king = 2\n";

TEST(OnlySeen, PositionsThatNoGameHoldsAreNotPlayedFrom) {
  std::string with = std::string(guarded) +
                     "case \"the rook sees the king\"\n  position\n    K . . r\n    . . . .\n"
                     "    . . . .\n    k . . R\n    Amber to move\n  expect ongoing\n";
  std::shared_ptr<const SheetGame> game = test::fromText(with);
  CheckReport report = check(*game, everything(200));
  EXPECT_TRUE(report.findings.empty()) << report.findings.front().message;
  ASSERT_EQ(report.examples.size(), 1u);
  ASSERT_EQ(report.examples[0].broken.size(), 1u);
  EXPECT_TRUE(has(report.examples[0].broken[0], "the king stands attacked"));
  for (const WayEvidence& way : report.ways) EXPECT_NE(way.way, Steer::fromCase);
  // One that a game can hold is played from, and what holds at the start says nothing.
  std::string fit = std::string(guarded) +
                    "case \"a rook stands aside\"\n  position\n    K . . .\n    . . . R\n"
                    "    . . . .\n    k . r .\n    Amber to move\n  expect ongoing\n";
  CheckReport other = check(*test::fromText(fit), everything(200));
  EXPECT_TRUE(other.examples[0].broken.empty());
  EXPECT_TRUE(std::any_of(other.ways.begin(), other.ways.end(), [](const WayEvidence& way) {
    return way.way == Steer::fromCase && way.games > 0;
  }));
}

// By the side that is not to move; the second side's, too; not after a pass.
TEST(OnlySeen, WhatIsForbiddenIsAskedOfTheSideThatHasMoved) {
  auto broken = [](const std::string& sheet, const std::string& position) {
    std::shared_ptr<const SheetGame> game = test::fromText(sheet);
    return game->forbiddenThatHold(game->readPosition(position, "test")).size();
  };
  EXPECT_EQ(broken(guarded, "K2r/4/4/k2R; Amber to move"), 1u);
  EXPECT_EQ(broken(guarded, "K2r/4/4/k2R; Slate to move"), 1u);
  EXPECT_EQ(broken(guarded, "3K/3r/4/k3; Slate to move"), 0u);  // Slate is attacked and may answer
  EXPECT_EQ(broken(guarded, "3K/3r/4/k3; Amber to move"), 1u);
  EXPECT_EQ(broken(std::string(guarded) + "turn go else pass\n", "3K/3r/4/k3; Amber to move"), 0u);
}

// Stopped before it begins: nothing is claimed, in no output.
TEST(OnlySeen, AStoppedCheckClaimsNothing) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  StopFlag stop{true};
  CheckOptions options = everything(500);
  options.stop = &stop;
  CheckReport report = check(*game, options);
  EXPECT_TRUE(report.stopped);
  EXPECT_FALSE(report.complete());
  for (CheckPart part : {CheckPart::cases, CheckPart::playouts, CheckPart::otherWays,
                         CheckPart::remarks, CheckPart::symmetries, CheckPart::conditions})
    EXPECT_EQ(report.of(part), Extent::none) << report::partName(part);
  std::string text = report::checkText(*game, options, report, report::Paint());
  EXPECT_FALSE(has(text, "hold ")) << text;
  EXPECT_FALSE(has(text, "never"));
  EXPECT_FALSE(has(text, "No fault found."));
  EXPECT_TRUE(has(text, "0 of 500 playouts"));
  Json json = readJson(report::checkJson(*game, options, report, {}));
  EXPECT_EQ(json["complete"], false);
  EXPECT_TRUE(json["symmetries"].empty());
  EXPECT_TRUE(json["condition_parts"].empty());
  EXPECT_EQ(json["looked_at"]["random playouts"], "nothing");
  std::string xml = report::junitXml(*game, options, report);
  std::size_t tests = test::count(xml, "<testcase ");
  EXPECT_GT(tests, 5u);
  EXPECT_EQ(test::count(xml, "<skipped "), tests - 1) << xml;  // nothing is secret in this game
  Json sarif = readJson(report::sarifJson(*game, options, report, "1"));
  EXPECT_EQ(sarif["runs"][0]["invocations"][0]["executionSuccessful"], false);
  std::string page = report::checkPage(*game, options, report, {}, {});
  EXPECT_FALSE(has(page, "No fault found.<"));
  EXPECT_TRUE(has(page, "not looked at"));
}

TEST(OnlySeen, AWholeCheckIsComplete) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  CheckOptions options = everything(300);
  CheckReport report = check(*game, options);
  EXPECT_TRUE(report.complete());
  EXPECT_TRUE(report::unlookedParts(options, report).empty());
  std::string xml = report::junitXml(*game, options, report);
  EXPECT_EQ(test::count(xml, "<skipped "), 0u);
}

TEST(OnlySeen, MutantsThatWereNotAskedAreNotCounted) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  StopFlag stop{true};
  MutantOptions options;
  options.stop = &stop;
  Mutants mutants(dynamic_cast<const SheetGame&>(*game), options);
  mutants.run();
  report::MutantTotals totals = report::totalsOf(mutants);
  EXPECT_EQ(totals.notLookedAt, totals.all);
  EXPECT_EQ(totals.refused + totals.same + totals.missed + totals.byCase, 0u);
  report::MutantsSaid said;
  said.stopped = true;
  Json json = readJson(report::mutantsJson(mutants, said));
  EXPECT_TRUE(json["noticedPercent"].is_null());
  EXPECT_EQ(json["mutants"][0]["standing"], "not looked at");
}

const char* const walkers =
    "game walk\nsides Amber and Slate\nboard square 3 x 3\npiece man o x\nstart\n"
    "  . . x\n  . . .\n  o . .\nmove go\n  pick here in mine\n"
    "  pick there in empty on step any from here\n  shift here to there\nends\n";

// What comes again, what runs away and what is only long are three things.
TEST(OnlySeen, LongGamesAreNoFault) {
  CheckReport again =
      check(*test::fromText(std::string(walkers) + "  draw \"x\" when no mine\n"), everything(3));
  ASSERT_NE(found(again, FindingKind::endless), nullptr);
  EXPECT_TRUE(has(found(again, FindingKind::endless)->expects, "draw"));
  // Each position has its number of plies, so none comes again, and it ends.
  std::string longer = std::string(walkers) + "  draw \"late\" when plies >= 2600\n";
  CheckReport only = check(*test::fromText(longer), everything(3));
  EXPECT_TRUE(only.findings.empty()) << only.findings.front().message;
  EXPECT_EQ(only.evidence.tooLong, 3u);
  EXPECT_TRUE(anyRemark(only.remarks, "went on for 2,000 plies"));
  // The sheet says so, or the options.
  std::shared_ptr<const SheetGame> meant = test::fromText(longer + "  may last 3000 plies\n");
  EXPECT_EQ(meant->info().mayLast, 3000);
  CheckReport said = check(*meant, everything(3));
  EXPECT_EQ(said.evidence.tooLong, 0u);
  EXPECT_FALSE(anyRemark(said.remarks, "went on for"));
  CheckOptions options = everything(3);
  options.plyLimit = 2700;
  EXPECT_EQ(check(*test::fromText(longer), options).evidence.tooLong, 0u);
  // A counter that only goes up to an end of its own runs away from nothing.
  std::string counted =
      "game count\nsides Amber and Slate\nboard square 2 x 1\npiece peg o x\nnumber turns\n"
      "move tick\n  choose some from 1 to 2\n  set turns to turns + 1\n"
      "ends\n  draw \"enough\" when turns >= 5000\n";
  CheckReport counting = check(*test::fromText(counted), everything(3));
  EXPECT_TRUE(counting.findings.empty()) << counting.findings.front().message;
  // A packed number jumps about: it is no number that grows.
  std::string packed =
      "game pack\nsides Amber and Slate\nboard square 2 x 1\npiece peg o x\nnumber code\n"
      "number turns\nmove set\n  choose some from 1 to 200\n  set code to some * 1000 + 1\n"
      "  set turns to turns + 1\nends\n  draw \"enough\" when turns >= 5000\n";
  CheckReport packing = check(*test::fromText(packed), everything(3));
  EXPECT_TRUE(packing.findings.empty()) << packing.findings.front().message;
}

TEST(OnlySeen, HowLongAGameMayLastIsPartOfTheSheet) {
  std::string sheet = std::string(walkers) + "  draw \"x\" when no mine\n  may last 4000 plies\n";
  std::shared_ptr<const SheetGame> game = test::fromText(sheet);
  EXPECT_TRUE(has(rules::toText(game->rules()), "may last 4000 plies"));
  for (const char* wrong : {"  may last 0 plies\n", "  may last long\n", "  may last 40\n",
                            "  may last 3 plies\n  may last 4 plies\n"})
    EXPECT_FALSE(
        test::messages(std::string(walkers) + "  draw \"x\" when no mine\n" + wrong).empty())
        << wrong;
  // A side may be called so.
  EXPECT_TRUE(test::messages("game t\nsides may and Slate\nboard square 2 x 1\npiece peg o x\n"
                             "move put\n  pick there in empty\n  put peg on there\n"
                             "ends\n  may wins \"first\" when no empty\n")
                  .empty());
}

// A number that runs away is named with its value, and the other playouts go on.
TEST(OnlySeen, WhatTakesTooLongIsGivenUpWithItsReason) {
  std::string sheet =
      "game flood\nsides Amber and Slate\nboard square 3 x 1\npiece peg o x\nnumber seeds on "
      "cells\n"
      "start\n  seeds 3 3 3\nmove sow\n  pick house in cells c in all where seeds of c > 0\n"
      "  let hold = seeds of house\n  repeat hold times\n"
      "    set seeds of house to seeds of house + 2\n  written as house\n"
      "ends\n  draw \"late\" when plies >= 60\n";
  CheckReport report = check(*test::fromText(sheet), everything(test::many(1, 20)));
  bool named = std::any_of(report.findings.begin(), report.findings.end(), [](const Finding& one) {
    return has(one.message, "seeds of ") && has(one.message, " is ") && one.line > 0;
  });
  EXPECT_TRUE(named) << (report.findings.empty() ? "none" : report.findings[0].message);
  EXPECT_FALSE(report.complete());
}

TEST(OnlySeen, WorkIsCountedTheSameInScopes) {
  std::shared_ptr<const Game> game = test::shipped("chess");
  MoveList moves;
  {
    WorkScope none(-1);
    EXPECT_THROW(game->listMoves(game->start(), moves), TooMuchWork);
  }
  game->listMoves(game->start(), moves);  // outside of it nothing is left of that
  EXPECT_EQ(moves.size(), 20u);
  auto spent = [&] {
    std::int64_t before = ambient.left;
    {
      WorkScope outer(1'000'000'000);
      WorkScope inner(500'000'000);
      game->listMoves(game->start(), moves);
    }
    return before - ambient.left;
  };
  EXPECT_EQ(spent(), spent());
  StopFlag stop{true};
  StopScope scope(&stop);
  EXPECT_THROW(
      {
        for (int i = 0; i < 1'000'000; ++i) game->listMoves(game->start(), moves);
      },
      Stopped);
}

// `must maximise` measures where it stands.
TEST(OnlySeen, MeasuresAreTakenWhereTheyStand) {
  const char* sheet =
      "game maximise\nsides Amber and Slate\nboard square 5 x 1\npiece man w b\nmark doomed\n"
      "start\n  w b . b .\nmove jump\n  pick here in mine\n  pick far in empty\n"
      "  add (theirs on (between here and far)) to doomed\n  must maximise count doomed\n"
      "  shift here to far\nafter jump\n  take doomed\n  set doomed to none\n"
      "ends\n  mover wins \"none left\" when no theirs\n  draw \"x\" when plies >= 9\n";
  std::shared_ptr<const SheetGame> game = test::fromText(sheet);
  MoveList moves;
  game->listMoves(game->start(), moves);
  ASSERT_EQ(moves.size(), 1u);  // behind `after` the mark is empty for all of them
  EXPECT_EQ(game->moveText(game->start(), moves[0]), "a1-e1");
  // Before an effect the measure is of the position before it.
  std::string before =
      "game b\nsides Amber and Slate\nboard square 3 x 1\npiece peg o x\n"
      "move place\n  pick there in empty\n  must maximise count mine\n  put peg on there\n"
      "ends\n  draw \"full\" when no empty\n";
  game = test::fromText(before);
  game->listMoves(game->start(), moves);
  EXPECT_EQ(moves.size(), 3u);
  EXPECT_TRUE(anyRemark(lint(*game, {}).remarks, "left out no move"));
  EXPECT_FALSE(anyRemark(lint(*test::fromText(sheet), {}).remarks, "left out no move"));
}

TEST(OnlySeen, TheWinnerThatCannotMoveIsRemarked) {
  auto sheet = [](const char* end) {
    return std::string(
               "game again\nsides Amber and Slate\nboard square 3 x 1\npiece peg o x\n"
               "move place\n  pick there in empty\n  put peg on there\n  when there in corner\n"
               "    again\nends\n") +
           end;
  };
  EXPECT_TRUE(
      anyRemark(lint(*test::fromText(sheet("  mover wins \"none\" when stuck\n")), {}).remarks,
                "was to move again and could not"));
  EXPECT_FALSE(
      anyRemark(lint(*test::fromText(sheet("  opponent wins \"none\" when stuck\n")), {}).remarks,
                "was to move again"));
}

// A FEN that would leave something out is not printed.
TEST(OnlySeen, AFenSaysAllOrNothing) {
  auto sheet = [](const std::string& number) {
    return "game fen\nsides White and Black\nboard square 3 x 3\npiece king k K reach step any\n"
           "number quiet\n" +
           number +
           "start\n  K . .\n  . . .\n  . . k\nmove go\n  pick here in mine\n"
           "  pick there in empty on reach of here\n  shift here to there\n"
           "  set quiet to quiet + 1\n" +
           (number.empty() ? "" : "  set more to more + 1\n") +
           "ends\n  draw \"late\" when plies >= 20\nnotation fen\n  clock quiet\n";
  };
  std::shared_ptr<const SheetGame> all = test::fromText(sheet(""));
  Position one = test::after(*all, "c1-c2");
  EXPECT_FALSE(all->notation(one).empty());
  EXPECT_TRUE(all->besideNotation(one).empty());
  EXPECT_FALSE(anyRemark(lint(*all, {}).remarks, "no field of the FEN"));
  std::shared_ptr<const SheetGame> less = test::fromText(sheet("number more\n"));
  EXPECT_FALSE(less->notation(less->start()).empty());
  one = test::after(*less, "c1-c2");
  EXPECT_TRUE(less->notation(one).empty());
  EXPECT_EQ(less->besideNotation(one), std::vector<std::string>{"more"});
  EXPECT_TRUE(anyRemark(lint(*less, {}).remarks, "no field of the FEN"));
}

TEST(OnlySeen, WhatChangedInASheetIsTold) {
  std::string sheet =
      "game t\nsides Amber and Slate\nboard square 3 x 3\npiece peg o x\nmove place\n"
      "  pick there in empty\n  put peg on there\nends\n"
      "  mover wins \"row\" when any line of 3 in mine\n  draw \"full\" when no empty\n";
  std::string other = sheet;
  other.replace(other.find("in mine"), 7, "in mine along orthogonal");
  auto one = test::fromText(sheet), two = test::fromText(other);
  CheckReport was = check(*one, everything(200)), is = check(*two, everything(200));
  std::string text = report::changesText(*one, was, *two, is, report::Paint());
  EXPECT_TRUE(has(text, "along orthogonal")) << text;
  EXPECT_TRUE(has(text, "plies of a game")) << text;
  EXPECT_FALSE(has(text, "nothing changed")) << text;
  EXPECT_TRUE(has(report::changesText(*one, was, *one, was, report::Paint()), "nothing changed"));
}

}  // namespace only_seen_test
}  // namespace ninepegs::verify
