// `play` of the built program, driven from a pipe.
#include <gtest/gtest.h>

#include <fstream>

#include "ninepegs/base/files.hpp"
#include "support/folder.hpp"
#include "support/program.hpp"

namespace ninepegs::test {
namespace play_test {

std::string contents(const std::filesystem::path& path) {
  return readFile(path, 1 << 20);
}

Ran play(const std::vector<std::string>& arguments, const std::string& input) {
  std::vector<std::string> all = {"play"};
  all.insert(all.end(), arguments.begin(), arguments.end());
  return ninepegs(all, {.input = input});
}

// Every wrong input gets its sentence, and the game goes on.
TEST(Play, WrongInputOfEveryKind) {
  struct Wrong {
    const char* game;
    const char* moves;  // played before, a line each
    std::string typed;
    const char* answer;
  };
  for (const Wrong& wrong : std::vector<Wrong>{
           {"tic-tac-toe", "5\n", "5", "5 is taken: a peg of Cross stands there"},
           {"tic-tac-toe", "", "0", "there is no cell \"0\"; cells run from 1 to 9"},
           {"tic-tac-toe", "", "10", "there is no cell \"10\""},
           {"tic-tac-toe", "", "-3", "\"-3\" is negative"},
           {"tic-tac-toe", "", "", "type a move, or `help`"},
           {"tic-tac-toe", "", "   ", "type a move, or `help`"},
           {"tic-tac-toe", "", "five", "\"five\" is no legal move here"},
           {"tic-tac-toe", "", "1.5", "is no legal move here"},
           {"tic-tac-toe", "", "undoo", "is no legal move here"},
           {"tic-tac-toe", "", "undo", "there is no move to take back"},
           {"tic-tac-toe", "", "save", "say where to"},
           {"tic-tac-toe", "", "save /no/such/folder/game", "cannot be written"},
           {"tic-tac-toe", "1\n4\n2\n5\n3\n", "6",
            "the game is over (Cross wins: three in a line)"},
           {"tic-tac-toe", "1\n4\n2\n5\n3\n", "hint", "the game is over"},
           {"tic-tac-toe", "", std::string("\x01\xff\xfe"), "is no legal move here"},
           {"tic-tac-toe", "", std::string(100'000, '5'), "no "},
           {"connect-four", "d\nd\nd\nd\nd\nd\n", "d", "column d is full"},
           {"connect-four", "", "h", "there is no column \"h\""},
           {"connect-four", "", "d1", "is no legal move here"},
           {"hut-pass", "", "a6-a5", "a6 holds a walker of Slate, but it is Amber's turn"},
           {"hut-pass", "", "c3-c4", "nothing stands on c3"},
           {"hut-pass", "", "c2-c4", "the guide on c2 cannot do that; it can go: c2-a4"},
           {"hut-pass", "", "f1-f2", "there is no cell \"f1\""}}) {
    Ran ran =
        play({wrong.game, "--second", "human"}, wrong.moves + wrong.typed + "\nboard\nquit\n");
    EXPECT_EQ(ran.exitCode, 0) << wrong.typed.substr(0, 40);
    EXPECT_TRUE(ran.err.empty()) << ran.err;
    EXPECT_NE(ran.out.find(wrong.answer), std::string::npos) << wrong.answer << "\n"
                                                             << ran.out.substr(0, 3000);
    EXPECT_LT(ran.out.size(), 8000u);
  }
}

TEST(Play, ResumeGoesWithNoOtherPosition) {
  Folder folder;
  std::string file = (folder / "game.txt").string();
  EXPECT_EQ(play({"tic-tac-toe", "--resume", file, "--after", "5"}, "").exitCode, 2);
  for (const char* text : {"garbage\n", "[Game \"tic-tac-toe\"]\n\n1. 5 5 *\n", "\xff\xfe"}) {
    std::ofstream(file) << text;
    Ran ran = play({"tic-tac-toe", "--resume", file, "--second", "human"}, "1\nquit\n");
    EXPECT_EQ(ran.exitCode, 2) << text;
    EXPECT_EQ(contents(file), text);  // it is not written over
  }
  std::ofstream(file) << "";
  EXPECT_EQ(play({"tic-tac-toe", "--resume", file, "--second", "human"}, "5\nquit\n").exitCode, 0);
  EXPECT_NE(contents(file).find("1. 5 *"), std::string::npos) << contents(file);
}

TEST(Play, EndsCleanlyAtTheEndOfInput) {
  for (const char* input : {"", "5", "5\n", "5\nfoo"}) {
    Ran ran = play({"tic-tac-toe", "--seed", "1"}, input);
    EXPECT_EQ(ran.exitCode, 0) << input;
    EXPECT_EQ(ran.out.back(), '\n');
  }
}

TEST(Play, UndoTakesBackToTheHumansTurn) {
  Ran ran = play({"tic-tac-toe", "--second", "greedy", "--seed", "4"}, "5\nundo\nmoves\nquit\n");
  EXPECT_NE(ran.out.find("took back 2 moves"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("9 moves: 1, 2, 3, 4, 5, 6, 7, 8, 9"), std::string::npos);
  ran = play({"tic-tac-toe", "--second", "human"}, "5\n1\nundo\nmoves\nquit\n");
  EXPECT_NE(ran.out.find("took back 1 move\n"), std::string::npos);
  EXPECT_NE(ran.out.find("8 moves"), std::string::npos);
}

TEST(Play, HintHelpAndBoard) {
  Ran ran = play({"tic-tac-toe", "--second", "human"}, "1\n4\n2\n5\nhint\nhelp\nboard\nquit\n");
  EXPECT_NE(ran.out.find("3 looks good"), std::string::npos) << ran.out;
  for (const char* word : {"undo", "hint", "board", "moves", "save FILE", "quit"})
    EXPECT_NE(ran.out.find(word), std::string::npos);
}

// The warning comes before the move, once; a move that changes nothing has none.
TEST(Play, WarnsBeforeAMoveThatGivesAWin) {
  Ran ran = play({"tic-tac-toe", "--second", "human", "--coach"}, "1\n2\n2\nmoves\nquit\n");
  std::size_t warned = ran.out.find("careful: after 2 Cross wins in 5 plies");
  ASSERT_NE(warned, std::string::npos) << ran.out;
  EXPECT_EQ(ran.out.find("careful", warned + 1), std::string::npos);
  EXPECT_NE(ran.out.find("7 moves"), std::string::npos) << ran.out;  // it was played
  ran = play({"tic-tac-toe", "--second", "human"}, "coach\n1\n5\ncoach\n2\n1\nquit\n");
  EXPECT_EQ(ran.out.find("careful"), std::string::npos) << ran.out;
  // Where every move loses there is nothing to warn of.
  ran = play({"tic-tac-toe", "--second", "human", "--coach", "--after", "1,2,5"}, "9\nquit\n");
  EXPECT_EQ(ran.out.find("careful"), std::string::npos) << ran.out;
  // A warning holds for the position: taken back and come again, it is said again.
  ran = play({"tic-tac-toe", "--second", "human", "--coach", "--after", "1"},
             "2\n2\nundo\n2\nquit\n");
  std::size_t first = ran.out.find("careful");
  EXPECT_NE(ran.out.find("careful", first + 1), std::string::npos) << ran.out;
  EXPECT_NE(play({"battleship"}, "coach\nquit\n").out.find("no warnings"), std::string::npos);
}

TEST(Play, SaysWhatItThought) {
  Ran ran = play({"connect-four", "--second", "search:depth=4", "--seed", "1"},
                 "thought\nd\nthought\nquit\n");
  EXPECT_NE(ran.out.find("no computer has moved yet"), std::string::npos);
  EXPECT_NE(ran.out.find("  depth     positions  score"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("\n      4  "), std::string::npos) << ran.out;
  // Playouts tell of playouts; a win that they prove is not said to be so many plies off.
  ran = play({"connect-four", "--second", "playouts:playouts=100", "--seed", "1"},
             "d\nthought\nquit\n");
  EXPECT_NE(ran.out.find("100 playouts, won: "), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("\n        100  "), std::string::npos) << ran.out;
  ran = play({"tic-tac-toe", "--second", "playouts:playouts=900", "--seed", "1", "--after",
              "1, 5, 2, 3, 4"},
             "thought\nquit\n");
  EXPECT_NE(ran.out.find("  wins  "), std::string::npos) << ran.out;
  ran = play({"connect-four", "--second", "greedy", "--seed", "1"}, "d\nthought\nquit\n");
  EXPECT_NE(ran.out.find("keeps no account"), std::string::npos) << ran.out;
}

TEST(Play, GoesBackAndTriesAnotherLine) {
  Folder folder;
  std::string path = (folder / "g.txt").string();
  Ran ran = ninepegs({"play", "tic-tac-toe", "--second", "human", "--seed", "1", "--record", path},
                     {.input = "5\n1\n3\n7\nback 3\n9\n1\nlines\ngoto 1\nforward 2\n"
                               "goto 9\nback x\nquit\n"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.out.find("ply 1 of 4"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("this line, at ply 3: 5 9 1\nleft, 1: 5 1 3 7\n"), std::string::npos)
      << ran.out;
  EXPECT_NE(ran.out.find("ply 3 of 3"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("\"9\" is no ply of this game: they are 0 to 3"), std::string::npos);
  EXPECT_NE(ran.out.find("\"x\" is no number of plies"), std::string::npos);
  std::string record = contents(path);
  EXPECT_NE(record.find("1. 5 9 ( 1... 1 2. 3 7 ) 2. 1 *\n"), std::string::npos) << record;
  EXPECT_EQ(ninepegs({"replay", path}).exitCode, 0);
  // Against a computer: back to where the human is to move, and its answer is not made anew.
  ran = ninepegs({"play", "tic-tac-toe", "--second", "greedy", "--seed", "1"},
                 {.input = "5\nback\nforward\nquit\n"});
  EXPECT_NE(ran.out.find("ply 0 of 2"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("ply 2 of 2"), std::string::npos) << ran.out;
}

// A computer that moves twice is passed over: a person is to move there, or the line ends.
TEST(Play, GoesForwardPastAComputerThatMovedTwice) {
  Folder folder;
  std::string once = (folder / "once.pegs").string();
  std::ofstream(once) << "game once\nsides White and Black\nboard square 6 x 1\npiece peg o x\n"
                         "move place\n  pick there in empty\n  put peg on there\n"
                         "  when count occupied = 2\n    again\n"
                         "  written as there\nends\n  draw \"full\" when no empty\n";
  Ran ran = ninepegs({"play", once, "--second", "random", "--seed", "1"},
                     {.input = "a1\nback\nforward\nquit\n"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.out.find("ply 0 of 3"), std::string::npos) << ran.out << ran.err;
  EXPECT_NE(ran.out.find("ply 3 of 3"), std::string::npos) << ran.out;
}

TEST(Play, AComputerPlaysAtAnotherLevel) {
  Folder folder;
  std::string path = (folder / "g.txt").string();
  Ran ran =
      ninepegs({"play", "connect-four", "--second", "greedy", "--seed", "1", "--record", path},
               {.input = "d\nlevel\nlevel 3\nlevel 12\nlevel x\nd\nquit\n"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.out.find("Slate: greedy\n"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("Slate: search:level=3\n"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("\"12\" is no level"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("\"x\" is no level"), std::string::npos) << ran.out;
  EXPECT_NE(contents(path).find("[Black \"search:level=3\"]"), std::string::npos) << contents(path);
  ran = ninepegs({"play", "tic-tac-toe", "--second", "human"}, {.input = "level 3\nquit\n"});
  EXPECT_NE(ran.out.find("no computer plays here"), std::string::npos) << ran.out;
}

// A hint where something is hidden is of what one's own side knows.
TEST(Play, GivesHintsWherePiecesAreSecret) {
  Ran ran = ninepegs({"play", "battleship", "--second", "random", "--seed", "3"},
                     {.input = "random 5\nhint\nquit\n"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  EXPECT_NE(ran.out.find(" looks good (weighed in "), std::string::npos) << ran.out;
}

TEST(Play, ShowsWhereAPieceMayGo) {
  Ran ran = ninepegs({"play", "chess", "--second", "human", "--seed", "1"},
                     {.input = "g1\nf3\ne7\ne5\ne4\nquit\n"});
  EXPECT_NE(ran.out.find("<N>"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("the next word is the place"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("<p>"), std::string::npos) << ran.out;
  // The knight went to f3, though f3 alone is a pawn's move, too.
  EXPECT_NE(ran.out.find(" 3  .  .  .  .  .  N  .  ."), std::string::npos) << ran.out;
  EXPECT_EQ(ran.exitCode, 0);
}

TEST(Play, DrawsMovesAtRandomWhenAsked) {
  // Five ships are laid at random, then a shot is fired by hand.
  std::vector<std::string> call = {"play", "battleship", "--seed", "3", "--second", "random"};
  Ran ran = ninepegs(call, {.input = "random 5\na5\nquit\n"});
  EXPECT_EQ(ran.exitCode, 0) << ran.err;
  for (const char* ship : {"ferry", "barge", "cutter", "trawler", "skiff"})
    EXPECT_NE(ran.out.find(std::string("Amber plays ") + ship), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("Slate: random"), std::string::npos);
  EXPECT_TRUE(ran.out.find("miss") != std::string::npos ||
              ran.out.find("hit") != std::string::npos);
  EXPECT_EQ(ninepegs(call, {.input = "random 5\na5\nquit\n"}).out, ran.out);
  ran = ninepegs(call, {.input = "random 0\nrandom x\nrandom 1001\nquit\n"});
  for (const char* number : {"\"0\" is no number", "\"x\" is no number", "\"1001\" is no number"})
    EXPECT_NE(ran.out.find(number), std::string::npos) << ran.out;
  // To the end of the game, and not beyond.
  ran = ninepegs({"play", "tic-tac-toe", "--second", "human", "--seed", "1"},
                 {.input = "random 50\nrandom\nundo\nquit\n"});
  EXPECT_NE(ran.out.find("the game is over"), std::string::npos) << ran.out;
  EXPECT_NE(ran.out.find("took back"), std::string::npos) << ran.out;
}

TEST(Play, RecordsAndSaves) {
  Folder folder;
  std::string file = (folder / "game.txt").string(), saved = (folder / "saved.txt").string();
  Ran ran = play({"tic-tac-toe", "--second", "human", "--record", file},
                 "1\n4\n2\n5\nsave " + saved + "\n3\nquit\n");
  EXPECT_EQ(ran.exitCode, 0);
  EXPECT_EQ(contents(file),
            "[Event \"Tic-tac-toe\"]\n[Site \"?\"]\n[Date \"????.??.??\"]\n[Round \"?\"]\n"
            "[White \"human\"]\n[Black \"human\"]\n[Result \"1-0\"]\n"
            "[Game \"tic-tac-toe\"]\n[Outcome \"Cross wins: three in a line\"]\n\n"
            "1. 1 4 2. 2 5 3. 3 1-0\n");
  EXPECT_NE(contents(saved).find("[Result \"*\"]"), std::string::npos);
  EXPECT_EQ(std::distance(std::filesystem::directory_iterator(folder.path()), {}), 2);
}

TEST(Play, ComputersPlayTheSameGameFromTheSameSeed) {
  auto game = [](const char* seed) {
    return play({"hut-pass", "--first", "greedy", "--second", "random", "--seed", seed}, "").out;
  };
  EXPECT_EQ(game("7"), game("7"));
  EXPECT_NE(game("7"), game("8"));
  EXPECT_NE(game("7").find("Seed 7"), std::string::npos);
  EXPECT_NE(game("7").find(" wins: "), std::string::npos);
}

TEST(Play, ADrawnSeedIsShown) {
  std::string out = play({"tic-tac-toe", "--first", "random", "--second", "random"}, "").out;
  EXPECT_NE(out.find("Seed "), std::string::npos);
}

TEST(Play, FromAnotherPosition) {
  Ran ran = play({"tic-tac-toe", "--second", "human", "--at", "XX1/OO1/3; Cross to move"}, "3\n");
  EXPECT_NE(ran.out.find("Cross (X) wins: three in a line"), std::string::npos) << ran.out;
}

}  // namespace play_test
}  // namespace ninepegs::test
