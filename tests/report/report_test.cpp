#include <set>

#include "ninepegs/base/text.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/check_files_text.hpp"
#include "ninepegs/report/check_page.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/json.hpp"
#include "ninepegs/report/markup.hpp"
#include "ninepegs/report/moves_from.hpp"
#include "support/games.hpp"
#include "support/json.hpp"

namespace ninepegs::report {
namespace report_test {

TEST(Markup, WhateverTheBytesAre) {
  EXPECT_EQ(escaped("a<b & \"c\"\n\t\x01"), "a&lt;b &amp; &quot;c&quot;\n??");
  EXPECT_EQ(escaped("K\xc3\xb6nig"), "K\xc3\xb6nig");
  EXPECT_EQ(escaped("a\xff\xc3"), "a\xef\xbf\xbd\xef\xbf\xbd");
  EXPECT_EQ(escaped("\xef\xbf\xbe"), "\xef\xbf\xbd");  // U+FFFE
}

TEST(BoardText, MarksWinningCellsAndTargets) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Position won = test::after(*game, "1, 4, 5, 6, 9");
  Marks marks;
  marks.shown = game->shownCells(won);
  EXPECT_EQ(boardText(*game, won, marks, Paint()), "  [X] 2  3\n   O [X] O\n   7  8 [X]\n");
  EXPECT_EQ(stateText(*game, won, Paint()), "Cross (X) wins: three in a line");
  std::shared_ptr<const Game> pass = test::shipped("hut-pass");
  Marks where;
  where.origin = *pass->board().find("c2");
  where.targets = targetsFrom(*pass, pass->start(), where.origin);
  std::string text = boardText(*pass, pass->start(), where, Paint());
  EXPECT_NE(text.find(" 4 (.) .  .  . (.)\n"), std::string::npos) << text;
  EXPECT_NE(text.find(" 2  .  . <g> .  .\n"), std::string::npos) << text;
  EXPECT_NE(text.find("    a  b  c  d  e\n"), std::string::npos) << text;
}

TEST(BoardText, ColoursOnlyWhenAsked) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  EXPECT_EQ(boardText(*game, game->start(), {}, Paint(false)).find('\x1b'), std::string::npos);
  EXPECT_NE(boardText(*game, game->start(), {}, Paint(true)).find('\x1b'), std::string::npos);
}

TEST(BoardText, WideBoardsKeepTheirColumns) {
  std::shared_ptr<const SheetGame> game = test::fromText(test::sheetWith("", "square 28 x 12"));
  std::string text = boardText(*game, game->start(), {}, Paint());
  // Every cell takes four characters, so the rows are equally long and the labels stand below them.
  std::vector<std::string> lines = splitTrimmed(text, '\n');
  ASSERT_EQ(lines.size(), 14u);                      // twelve rows, the labels, the end
  EXPECT_EQ(lines[0].size(), lines[10].size() + 1);  // "12" is a digit longer than "2"
  EXPECT_NE(text.find("z  aa  ab\n"), std::string::npos) << text;
}

TEST(MovesFrom, SaysWhyThereAreNone) {
  std::shared_ptr<const Game> game = test::shipped("hut-pass");
  auto why = [&](const char* cell) {
    return whyNoneFrom(*game, game->start(), *game->board().find(cell));
  };
  EXPECT_NE(why("c3").find("nothing stands there"), std::string::npos);
  EXPECT_NE(why("a6").find("Slate's"), std::string::npos);
  EXPECT_EQ(textsFrom(*game, game->start(), *game->board().find("c1")),
            (std::vector<std::string>{"c1-b2", "c1-d2", "c1^c3"}));
}

TEST(Json, MovesHasItsKeys) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  Json open = readJson(movesJson(*game, test::after(*game, "5"), -1));
  EXPECT_EQ(open["game"], "tic-tac-toe");
  EXPECT_EQ(open["to_move"], "Nought");
  EXPECT_TRUE(open["result"].is_null());
  EXPECT_EQ(open["moves"], Json({"1", "2", "3", "4", "6", "7", "8", "9"}));
  Json over = readJson(movesJson(*game, test::after(*game, "1, 4, 2, 5, 3"), -1));
  EXPECT_EQ(over["result"],
            Json({{"kind", "win"}, {"winner", "Cross"}, {"name", "three in a line"}}));
  EXPECT_TRUE(over["moves"].empty());
}

TEST(Json, CountHasItsKeys) {
  std::shared_ptr<const Game> game = test::shipped("tic-tac-toe");
  verify::CountOptions options;
  options.depth = 9;
  options.ends = options.positions = true;
  Json json = readJson(
      countJson(*game, game->start(), options, verify::count(*game, game->start(), options), 0.5));
  EXPECT_EQ(json["depth"], 9);
  EXPECT_EQ(json["sequences"], 127872);
  EXPECT_EQ(json["seconds"], 0.5);
  EXPECT_EQ(json["games"], 255168);
  EXPECT_EQ(json["positions_together"], 5478);
  EXPECT_EQ(json["by_first_move"].size(), 9u);
}

TEST(Json, CheckHasItsKeys) {
  std::shared_ptr<const Game> game = test::faulty("draw-before-win");
  verify::CheckOptions options;
  options.playouts = 500;
  options.seed = 4;
  verify::CheckReport report = verify::check(*game, options);
  Json json = readJson(checkJson(*game, options, report));
  EXPECT_EQ(json["seed"], 4);
  EXPECT_EQ(json["playouts"], 500);
  std::uint64_t games = 0;
  for (const Json& result : json["results"]) games += result["times"].get<std::uint64_t>();
  EXPECT_EQ(games, 500u);
  ASSERT_EQ(json["findings"].size(), 1u);
  const Json& finding = json["findings"][0];
  EXPECT_EQ(finding["kind"], "draw over win");
  EXPECT_EQ(finding["line"], 16);
  EXPECT_EQ(finding["moves"].size(), 9u);
  EXPECT_TRUE(finding["shortest"]);
  EXPECT_FALSE(finding["message"].get<std::string>().empty());
}

TEST(JunitXml, CountsAndEscapes) {
  std::string sheet = readFile(test::shippedSheet("tic-tac-toe"), 10'000);
  sheet += "case \"less < more & 'quotes'\"\n  expect 8 moves\n";
  std::shared_ptr<const SheetGame> game = test::fromText(sheet);
  verify::CheckOptions options;
  options.playouts = 10;
  std::string xml = junitXml(*game, options, verify::check(*game, options));
  // Six cases, the invariants, and nine sorts of faults.
  std::size_t tests = 6 + game->checks()->invariants().size() + 9;
  EXPECT_NE(xml.find("tests=\"" + std::to_string(tests) + "\" failures=\"1\""), std::string::npos)
      << xml;
  EXPECT_EQ(test::count(xml, "<testcase "), tests);
  EXPECT_NE(xml.find("less &lt; more &amp; 'quotes'"), std::string::npos);
  EXPECT_NE(xml.find("<failure type=\"case\""), std::string::npos);
}

// Every part that SARIF 2.1.0 requires, and nothing that points nowhere.
TEST(Sarif, HasWhatTheStandardRequires) {
  std::shared_ptr<const Game> game = test::faulty("draw-before-win");
  verify::CheckOptions options;
  options.playouts = 200;
  options.remarks = true;
  verify::CheckReport report = verify::check(*game, options);
  Json sarif = readJson(sarifJson(*game, options, report, "1.2.3"));
  EXPECT_EQ(sarif["version"], "2.1.0");
  ASSERT_EQ(sarif["runs"].size(), 1u);
  const Json& run = sarif["runs"][0];
  EXPECT_EQ(run["tool"]["driver"]["name"], "Nine Pegs");
  std::set<std::string> rules;
  for (const Json& rule : run["tool"]["driver"]["rules"]) {
    EXPECT_TRUE(rules.insert(rule["id"].get<std::string>()).second);
    EXPECT_FALSE(rule["shortDescription"]["text"].get<std::string>().empty());
  }
  ASSERT_EQ(run["results"].size(), report.findings.size() + report.remarks.size());
  EXPECT_EQ(run["results"][0]["ruleId"], "draw-over-win");
  EXPECT_EQ(run["results"][0]["level"], "error");
  for (const Json& result : run["results"]) {
    EXPECT_TRUE(rules.count(result["ruleId"]));
    EXPECT_FALSE(result["message"]["text"].get<std::string>().empty());
    const Json& place = result["locations"][0]["physicalLocation"];
    EXPECT_TRUE(
        place["artifactLocation"]["uri"].get<std::string>().ends_with("draw-before-win.pegs"));
    if (!place.contains("region")) continue;
    EXPECT_GE(place["region"]["startLine"], 1);
  }
}

TEST(CheckPage, HoldsAllOfItAndNeedsNothingElse) {
  std::string sheet = readFile(test::faultySheet("draw-before-win"), 10'000);
  std::size_t title = sheet.find("title \"");
  sheet.insert(title + 7, "<b onload='x'> & ");
  sheet += "move never\n  need count mine = 99\n  pick there in empty\n  put mark on there\n";
  std::size_t kind = sheet.find("piece ");
  std::string name = sheet.substr(kind + 6, sheet.find(' ', kind + 6) - kind - 6);
  sheet.replace(sheet.rfind("put mark"), 8, "put " + name);
  std::shared_ptr<const SheetGame> game = test::fromText(sheet);
  verify::CheckOptions options;
  options.playouts = 200;
  verify::CheckReport report = verify::check(*game, options);
  std::string page = checkPage(*game, options, report,
                               [](const verify::Finding&) { return std::string("<svg/>"); });
  for (const char* part :
       {"&lt;b onload='x'&gt; &amp; ", "1 fault found.", "draw over win",
        "shortest game:", "data:image/svg+xml;base64,PHN2Zy8+", "How the games ended",
        "<tr class=\"never\">", "plies of a game", "What was not looked at", "</html>"})
    EXPECT_NE(page.find(part), std::string::npos) << part;
  for (const char* part : {"<b onload", "<script", "http:", "https:", "url("})
    EXPECT_EQ(page.find(part), std::string::npos) << part;
  for (const char* tag : {"table", "tr", "td", "th", "div", "figure", "svg", "h2", "p"})
    EXPECT_EQ(test::count(page, std::string("<") + tag + ">") +
                  test::count(page, std::string("<") + tag + " "),
              test::count(page, std::string("</") + tag + ">"))
        << tag;
}

TEST(Base64, PublishedExamples) {  // RFC 4648
  EXPECT_EQ(base64(""), "");
  EXPECT_EQ(base64("f"), "Zg==");
  EXPECT_EQ(base64("fo"), "Zm8=");
  EXPECT_EQ(base64("foobar"), "Zm9vYmFy");
}

TEST(CheckText, SaysWhatWasSeen) {
  std::shared_ptr<const Game> game = test::faulty("no-end");
  verify::CheckOptions options;
  options.playouts = 200;
  verify::CheckReport report = verify::check(*game, options);
  std::string text = checkText(*game, options, report, Paint());
  for (const char* part : {"200 random playouts, seed 1", "without an end", "Fault 1: no end",
                           "shortest", "leads to", "1 fault found."})
    EXPECT_NE(text.find(part), std::string::npos) << part << "\n" << text;
}

}  // namespace report_test
}  // namespace ninepegs::report
