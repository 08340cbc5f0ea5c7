// Every kind of wrong sheet: one message, at the right place, with the hint a person needs.
#include "support/games.hpp"
#include "support/live.hpp"

namespace ninepegs {
namespace messages_test {

struct Wrong {
  const char* lines;    // put into a sheet that is right without them; they begin on line 6
  int line, column;     // of the first message
  const char* message;  // a part of it
  const char* hint;     // a part of the hint
};

class Messages : public testing::TestWithParam<Wrong> {};

TEST_P(Messages, PointAtTheFault) {
  const Wrong& wrong = GetParam();
  std::vector<Diagnostic> found = test::messages(test::sheetWith(wrong.lines));
  ASSERT_FALSE(found.empty()) << wrong.lines;
  const Diagnostic& first = found.front();
  EXPECT_EQ(first.place.line, wrong.line) << toText(first);
  EXPECT_EQ(first.place.column, wrong.column) << toText(first);
  EXPECT_NE(first.message.find(wrong.message), std::string::npos) << toText(first);
  EXPECT_NE(first.hint.find(wrong.hint), std::string::npos) << toText(first);
}

INSTANTIATE_TEST_SUITE_P(
    Sheets, Messages,
    testing::Values(
        Wrong{"moove jump", 6, 1, "no section that begins with \"moove\"", "\"move\""},
        Wrong{"zone far = emty", 6, 12, "nothing here is called \"emty\"", "\"empty\""},
        Wrong{"zone far = empty", 6, 12, "depends on the pieces", ""},
        Wrong{"zone far = row 9", 6, 12, "no cells", "5 columns and 4 rows"},
        Wrong{"zone far = row 1 for Ambre, row 2 for Slate", 6, 22, "\"Ambre\" is no side",
              "Amber"},
        Wrong{"zone far = row 1 for Amber", 6, 6, "not given for both sides", ""},
        Wrong{"zone far = row 1 for Amber, row 4 for Slate\ndefine x = far", 7, 12,
              "differs by side", "my far"},
        Wrong{"zone a1 = row 1", 6, 6, "label of a cell", "another name"},
        Wrong{"zone peg = row 1", 6, 6, "declared a second time", ""},
        Wrong{"zone move = row 1", 6, 6, "word of the language", ""},
        Wrong{"piece pin o p", 6, 7, "stands for two pieces", ""},
        Wrong{"piece pin q", 6, 7, "two letters", ""},
        Wrong{"piece pin . p", 6, 11, "meaning of its own", ""},
        Wrong{"piece pin q p value", 6, 20, "value of value", ""},
        Wrong{"piece pin q p reach sideways", 6, 21, "nothing here is called", ""},
        Wrong{"group box = peg, swa", 6, 18, "no kind of piece called \"swa\"", "\"saw\""},
        Wrong{"define x = mine or any theirs", 6, 17, "two sets or two conditions", "any S"},
        Wrong{"define x = mine on edge or theirs", 6, 25, "without brackets", "(A on B) or C"},
        Wrong{"define x = count mine + theirs", 6, 25, "a number should stand here", "count S"},
        Wrong{"define x = y\ndefine y = x", 6, 12, "goes round in a circle", ""},
        Wrong{"define x = any line of 9 in mine", 6, 24, "no straight line of 9", ""},
        Wrong{"define x = any line of 1 in mine", 6, 24, "from 2 to 64", ""},
        Wrong{"define x = value", 6, 12, "of which cell", "value of there"},
        Wrong{"define x = slide any", 6, 12, "from where", "step any from here"},
        Wrong{"always\n  not stuck", 7, 7, "only in `ends`", ""},
        Wrong{"define x = near(mine)", 6, 12, "no definition \"near\"", "define near(x)"},
        Wrong{"define near(s) = step any from s\ndefine x = near(mine, edge)", 7, 12,
              "takes 1 value, not 2", ""},
        Wrong{"define x = leap 0 0 from mine", 6, 12, "not both 0", ""},
        Wrong{"define x = 99999999999999999999", 6, 12, "too large", ""},
        Wrong{"facing up for Amber", 6, 8, "no direction to face", "north"},
        Wrong{"symmetric under half trun", 6, 17, "no symmetry", "half turn"},
        Wrong{"symmetric under quarter turn", 6, 17, "this board has no", "as many columns"},
        Wrong{"turn place else jump", 6, 17, "no move \"jump\"", ""},
        Wrong{"turn place else place", 6, 17, "twice", ""},
        Wrong{"always\n  count mine", 7, 3, "a condition should stand here", ""},
        Wrong{"always\n  any mine never grows", 7, 3, "a number should stand here", ""},
        Wrong{"worth any mine", 6, 7, "a number should stand here", ""},
        Wrong{"start\n  . . . . .\n  . . . . .\n  . . . . .", 9, 3, "the picture has 3 rows", ""},
        Wrong{"start\n  . . . . .\n  . . ? . .\n  . . . . .\n  . . . . .", 8, 7,
              "no piece of this game", "o x s z"},
        Wrong{"start\n  . . . .\n  . . . . .\n  . . . . .\n  . . . . .", 7, 3,
              "this row has 4 cells", ""},
        Wrong{"start\n  . . . . . .\n  . . . . .\n  . . . . .\n  . . . . .", 7, 13, "longer than",
              ""},
        Wrong{"case \"x\"\n  expect lgal 5", 7, 10, "begins with \"lgal\"", "legal"},
        Wrong{"case \"x\"\n  expct ongoing", 7, 3, "no line that begins", "expect"},
        Wrong{"case \"x\"\n  expect Ambre wins", 7, 10, "\"Ambre\" is no side", "Amber"},
        Wrong{"case \"x\"\n  expect draw \"ful\"", 7, 3, "no end is called \"ful\"", "full"},
        Wrong{"case \"x\"\n  expect sequences 1 to 3 = 1 2", 7, 29, "3 numbers should stand here",
              ""},
        Wrong{"case \"x\"\n  in variant ring\n  expect ongoing", 7, 14, "no variant \"ring\"", ""},
        Wrong{"case \"x\"\n  position peg of Amber z9\n  expect ongoing", 7, 25, "no cell \"z9\"",
              "a1"},
        Wrong{"case \"open", 6, 6, "no closing quote", ""},
        Wrong{"title \"a\"\ntitle \"b\"", 7, 1, "a second time", ""},
        Wrong{"  zone far = row 1", 6, 3, "no further lines", ""},
        Wrong{"zone far =\trow 1", 6, 11, "holds a tab", "blanks"},
        Wrong{"track round = a1 z9", 6, 18, "no cell \"z9\"", ""},
        Wrong{"track round = a1 b1 a1", 6, 21, "stands twice", ""},
        Wrong{"track round = a1", 6, 7, "two cells or more", ""},
        Wrong{"repetition compares pegs", 6, 21, "cannot be compared", "pieces, turn"},
        Wrong{"cell ko, lasts two moves", 6, 16, "\"one\" should stand here", "lasts one move"},
        Wrong{"number seeds on cells = 4", 6, 25, "set out in `start`", "seeds 4 4"},
        Wrong{"number komi = 1 for Amber", 6, 8, "not given for both sides", ""},
        Wrong{"piece barge B", 6, 7, "two letters", "neutral"},
        Wrong{"piece barge B b neutral", 6, 17, "has one letter", ""},
        Wrong{"piece barge B for Ambre", 6, 19, "\"Ambre\" is no side", "Amber"},
        Wrong{"piece barge B b edges 1 2 3", 6, 17, "3 numbers, but a cell of this board has 8",
              "north"},
        Wrong{"forbid when any mine", 6, 8, "in double quotes", ""},
        Wrong{"forbid \"no\" when mine", 6, 18, "a condition should stand here", "any S"},
        Wrong{"each side sees\n  mine as XX", 7, 11, "one character", ""},
        Wrong{"each side sees\n  mine as X on their board", 7, 3, "one for both sides", "as X"},
        Wrong{"notation chess", 6, 10, "no notation that is known", "fen"},
        Wrong{"mark spot\nnotation fen\n  castling K z9 in spot", 8, 14, "no cell \"z9\"", ""},
        Wrong{"notation fen\n  colck x", 7, 3, "no field of this notation", "clock"},
        Wrong{"worth\n  1 2 3 4 5", 6, 1, "does not fit the board", "4 rows"},
        Wrong{"worth passes of a1", 6, 7, "nothing here is called \"passes\"", ""},
        Wrong{"worth count my peg of saw", 6, 13, "stands before a name", ""},
        Wrong{"define lone = lines of 1 in mine", 6, 24, "from 2 to 64", ""},
        Wrong{"define far = next along round from a1", 6, 14, "no track \"round\"", "track round"},
        Wrong{"define sharp = edge of a1 towards b1", 6, 16, "no piece has edges", "edges"},
        Wrong{"define kinds-of = kinds k in pge where any k", 6, 19, "no kind of piece", "peg"},
        Wrong{"worth my hand", 6, 7, "a number should stand here", ""}));

struct WrongMove {
  const char* body;
  int line, column;
  const char* message;
};
class MoveMessages : public testing::TestWithParam<WrongMove> {};

TEST_P(MoveMessages, PointAtTheFault) {
  std::vector<Diagnostic> found = test::messages(
      test::sheetWith(std::string("mark spot each\nnumber tally\nmove go\n") + GetParam().body));
  ASSERT_FALSE(found.empty());
  EXPECT_EQ(found[0].place.line, GetParam().line) << toText(found[0]);
  EXPECT_EQ(found[0].place.column, GetParam().column) << toText(found[0]);
  EXPECT_NE(found[0].message.find(GetParam().message), std::string::npos) << toText(found[0]);
}

INSTANTIATE_TEST_SUITE_P(
    Moves, MoveMessages,
    testing::Values(
        WrongMove{"  pcik here in mine", 9, 3, "no line that begins with \"pcik\""},
        WrongMove{"  pick here in mien", 9, 16, "\"mien\""},
        WrongMove{"  pick here in any mine", 9, 16, "a set of cells should stand here"},
        WrongMove{"  pick peg in mine", 9, 8, "already a name of this sheet"},
        WrongMove{"  pick here in mine\n  pick here in empty", 10, 8,
                  "already a name in this move"},
        WrongMove{"  pick here in mine\n  put pge on here", 10, 7, "\"pge\""},
        WrongMove{"  pick here in mine\n  need here", 10, 8, "a condition should stand here"},
        WrongMove{"  pick here in mine\n  add here to spot", 10, 15, "say whose"},
        WrongMove{"  pick here in mine\n  add here to tally", 10, 15, "no mark"},
        WrongMove{"  pick here in mine\n  set my tally to 1", 10, 10, "one for both sides"},
        WrongMove{"  pick here in mine\n  set tally of here to 2", 10, 7, "belongs to no cell"},
        WrongMove{"  pick here in mine\n  set spto to 2", 10, 7, "no number, mark or cell"},
        WrongMove{"  pick here in mine\n  shift here by nroth", 10, 17,
                  "\"nroth\" is no direction"},
        WrongMove{"  pick here in mine, if ayn", 9, 25, "\"any\" should stand here"},
        WrongMove{"  choose n from 1 to mine\n  put peg on a1", 9, 22,
                  "a number should stand here"},
        WrongMove{"  choose k from peg, pge\n  put k on a1", 9, 22, "\"pge\""},
        WrongMove{"  pick here in mine\n  when any theirs\n    written as here", 11, 5,
                  "not inside a block"},
        WrongMove{"  pick here in mine\n  write here\n  written as here", 8, 6,
                  "`written as` and `write`"},
        WrongMove{"  pick here in mine\n  must maximise mine", 10, 17,
                  "a number should stand here"},
        WrongMove{"  pick here in mine\n  tell any mine", 10, 8, "has no text"},
        WrongMove{"  pick here in mine\n  need times seen > 1", 10, 8, "known only in `ends`"},
        WrongMove{"  pick here in mine\n  need stuck", 10, 8, "known only in"},
        WrongMove{"  pick here in mine\n  otherwise\n    take here", 10, 3, "no `when`"},
        WrongMove{"  pick here in mine\n    take here", 10, 5, "nothing above opens a block"},
        WrongMove{"  pick here in mine\n  when any mine\n  take here", 10, 3, "holds no lines"},
        WrongMove{"  pick here in mine\n  written as hree", 10, 14, "no name \"hree\""},
        WrongMove{"  pick here in mine\n  repeat while possible", 10, 3, "holds no lines"},
        WrongMove{"  pick here in mine\n  repeat sometimes\n    take here", 10, 19,
                  "\"times\" should follow"}));

TEST(Messages, ARepeatThatCannotEndNamesItsLine) {
  std::shared_ptr<const SheetGame> game = test::fromText(
      test::sheetWith("number tally\nmove go\n  pick here in mine\n  repeat while possible\n"
                      "    set tally to tally + 1\n"));
  Position position = game->readPosition("o4/5/5/5", "test");
  try {
    MoveList moves;
    game->listMoves(position, moves);
    FAIL() << "it ended with " << moves.size() << " moves";
  } catch (const BadInput& error) {
    EXPECT_EQ(error.diagnostics()[0].place.line, 9);
    EXPECT_NE(error.diagnostics()[0].message.find("more than 40 choices"), std::string::npos);
    EXPECT_NE(error.diagnostics()[0].hint.find("nearer"), std::string::npos);
  }
}

TEST(Messages, SeveralFaultsAreToldAtOnce) {
  std::vector<Diagnostic> found = test::messages(
      test::sheetWith("zone far = rwo 1\nzone near = emty\ngroup box = pge\nwotrh 3"));
  EXPECT_GE(found.size(), 2u);
}

TEST(Messages, WholeSheet) {
  auto first = [](const std::string& text) {
    std::vector<Diagnostic> found = test::messages(text);
    return found.empty() ? std::string("fine") : found.front().message;
  };
  EXPECT_EQ(first(""), "the sheet is empty");
  EXPECT_EQ(first("  \n \n"), "the sheet is empty");
  EXPECT_NE(first("game x").find("does not say who plays"), std::string::npos);
  EXPECT_NE(first(std::string("game x\0y", 8)).find("not UTF-8 text"), std::string::npos);
  EXPECT_NE(first("game \xff\xfe").find("not UTF-8 text"), std::string::npos);
  EXPECT_NE(first(std::string(2'000'000, 'x')).find("larger than"), std::string::npos);
  EXPECT_NE(first("game x\n" + std::string(10'000, 'y')).find("longer than"), std::string::npos);
  std::string sheet = test::sheetWith("");
  auto with = [&](const std::string& from, const std::string& to) {
    std::string text = sheet;
    text.replace(text.find(from), from.size(), to);
    return first(text);
  };
  EXPECT_EQ(first(sheet), "fine");
  EXPECT_NE(with("5 x 4", "40 x 40").find("more than 512 cells"), std::string::npos);
  EXPECT_NE(with("5 x 4", "0 x 4").find("at least one column"), std::string::npos);
  EXPECT_NE(with("5 x 4", "5 x 4 x 30").find("more than 512 cells"), std::string::npos);
  EXPECT_NE(with("square 5 x 4", "rhombus 5 x 4 x 2").find("several levels"), std::string::npos);
  EXPECT_NE(with("square 5 x 4", "hexagon 13").find("does not fit"), std::string::npos);
  EXPECT_NE(with("square 5 x 4", "hexagon 3").find("no direction `orthogonal`"), std::string::npos);
  EXPECT_NE(with("square 5 x 4", "points").find("no points"), std::string::npos);
  EXPECT_NE(with("square 5 x 4", "points\n  line a1 7d").find("no point"), std::string::npos);
  EXPECT_NE(with("5 x 4", "5 x 4, without all").find("without any cell"), std::string::npos);
  EXPECT_NE(with("5 x 4", "5 x 4, without mine").find("must not depend on pieces"),
            std::string::npos);
  EXPECT_NE(with("Amber and Slate", "Amber and Amber").find("a second time"), std::string::npos);
  EXPECT_NE(with("no empty", "any empty").find("over before the first move"), std::string::npos);
  EXPECT_NE(with("no empty", "no emtpy").find("emtpy"), std::string::npos);
  EXPECT_NE(with("draw \"full\" when", "Ambre wins \"full\" when").find("no side"),
            std::string::npos);
}

TEST(Messages, DefinitionsThatMultiplyAreRefused) {
  std::string text = "define d0 = mine\n";
  for (int i = 1; i < 30; ++i)
    text += "define d" + std::to_string(i) + " = d" + std::to_string(i - 1) + " or d" +
            std::to_string(i - 1) + "\n";
  std::vector<Diagnostic> found = test::messages(test::sheetWith(text));
  ASSERT_FALSE(found.empty());
  EXPECT_NE(toText(found).find("more than 20000 times"), std::string::npos) << toText(found);
}

TEST(Messages, LoopsThatTakeTooLongAreRefused) {
  std::string picks = "move wander\n";
  for (char name = 'p'; name < 'z'; ++name) picks += std::string("  pick ") + name + " in all\n";
  picks += "  need no occupied and any occupied\n  take p\n";
  std::shared_ptr<const SheetGame> game = test::fromText(test::sheetWith(picks, "square 8 x 8"));
  MoveList moves;
  try {
    game->listMoves(game->start(), moves);
    FAIL();
  } catch (const BadInput& error) {
    EXPECT_GE(error.diagnostics()[0].place.line, 7);
    EXPECT_NE(std::string(error.what()).find("steps in one position"), std::string::npos);
  }
  std::string sum = "1";
  for (char name = 'p'; name < 'x'; ++name) sum = "(total " + sum + " for " + name + " in all)";
  game = test::fromText(test::sheetWith("worth " + sum + "\n", "square 16 x 16"));
  EXPECT_THROW(game->worth(game->start(), 0), BadInput);
}

TEST(Messages, VariantsAreChecked) {
  std::string text = test::sheetWith("variant ring \"another\"\n  zone far = emty\n");
  EXPECT_TRUE(test::messages(text).empty());
  EXPECT_FALSE(test::messages(text, "ring").empty());
  ASSERT_EQ(test::messages(text, "rign").size(), 1u);
  EXPECT_NE(test::messages(text, "rign")[0].hint.find("ring"), std::string::npos);
}

// Sheets with random damage: a message or a game, never anything else.
TEST(Messages, DamagedSheetsNeverCrash) {
  std::vector<std::string> sheets;
  for (const char* name : {"tic-tac-toe", "connect-four", "hut-pass"})
    sheets.push_back(readFile(test::shippedSheet(name), limits::sheetBytes));
  std::vector<std::string> words = {"of",    "(",      ")",        "in",      "any",  "count",
                                    "on",    "except", "\"",       "#",       ",",    "99999999999",
                                    "-1",    "mine",   "pick",     "\n",      "  ",   "when",
                                    "lines", "step",   "from",     "if",      "then", "else",
                                    "=",     "\xff",   "\xc3\xa4", "variant", "/",    ";"};
  Stream stream(21, 0);
  int games = 0, refused = 0;
  for (int round = 0; round < 3000; ++round) {
    std::string text = sheets[stream.below(static_cast<std::uint32_t>(sheets.size()))];
    for (std::uint32_t edits = 1 + stream.below(3); edits > 0; --edits) {
      if (text.empty()) break;
      std::size_t at = stream.below(static_cast<std::uint32_t>(text.size()));
      std::size_t length = std::min<std::size_t>(stream.below(12), text.size() - at);
      switch (stream.below(4)) {
        case 0:
          text.erase(at, length);
          break;
        case 1:
          text.insert(at, words[stream.below(static_cast<std::uint32_t>(words.size()))]);
          break;
        case 2:
          text.insert(at, text.substr(stream.below(static_cast<std::uint32_t>(text.size())), 20));
          break;
        default:
          text.resize(at + 1);
          break;
      }
    }
    try {
      std::shared_ptr<const SheetGame> game = test::fromText(text);
      Stream playout(1, static_cast<std::uint64_t>(round));
      test::playOut(*game->live(), playout, 60);
      ++games;
    } catch (const BadInput& error) {
      for (const Diagnostic& one : error.diagnostics()) EXPECT_FALSE(one.message.empty());
      ++refused;
    }
  }
  EXPECT_GT(games, 100);
  EXPECT_GT(refused, 100);
}

}  // namespace messages_test
}  // namespace ninepegs
