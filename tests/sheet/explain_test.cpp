// Rules in sentences: every part of a sheet is said, in words that hold nothing of the spelling.
#include "ninepegs/sheet/words/explain.hpp"

#include <set>

#include "ninepegs/report/explanation.hpp"
#include "support/games.hpp"

namespace ninepegs::sheet {
namespace explain_test {

// All sentences of a part; those of the sheet as a whole if no heading is given.
std::string said(const SheetGame& game, const std::string& heading = "") {
  std::string out;
  for (const Explanation& part : report::explanation(game)) {
    if (!heading.empty() && part.heading != heading) continue;
    for (const auto& one : part.sentences) out += one.text + "\n";
  }
  return out;
}

std::shared_ptr<const SheetGame> around(const std::string& lines) {
  return test::fromText(
      "game trial\nsides Amber and Slate\nboard square 4 x 4\npiece peg o x value 2 reach step "
      "any\n"
      "piece saw s z value 5 reach slide orthogonal\n" +
      lines + "ends\n  draw \"full\" when no empty\n");
}

struct Row {
  const char* lines;
  const char* heading;
  const char* text;
};
void PrintTo(const Row& row, std::ostream* out) {
  *out << row.lines;
}
class Sentences : public testing::TestWithParam<Row> {};

TEST_P(Sentences, SayWhatIsWritten) {
  std::string all = said(*around(GetParam().lines), GetParam().heading);
  EXPECT_NE(all.find(GetParam().text), std::string::npos) << all;
}

const char* const place = "Move \"place\"";

INSTANTIATE_TEST_SUITE_P(
    Lines, Sentences,
    testing::Values(
        Row{"move place\n  pick there in empty\n  put peg on there\n", place,
            "Pick `there` from the empty cells."},
        Row{"move place\n  pick there in empty\n  put peg on there\n", place,
            "Put a peg on `there`."},
        Row{"move place\n  pick there in theirs\n  take there\n", place,
            "Take what stands on `there`."},
        Row{"move place\n  pick there in theirs\n  flip there\n", place,
            "What stands on `there` changes its side."},
        Row{"move place\n  pick there in my peg\n  change there into saw\n", place,
            "What stands on `there` becomes a saw."},
        Row{"move place\n  pick here in mine\n  pick there in reach of here on empty\n"
            "  shift here to there\n",
            place, "Move the piece from `here` to `there`."},
        Row{"move place\n  pick here in mine, if any\n  pick there in empty\n  put peg on there\n",
            place, "Pick `here` from the side's own pieces, if there is any."},
        Row{"move place\n  choose n from 1 to 3\n  pick there in empty\n  put peg on there\n"
            "  written as n there\n",
            place, "Choose the number `n` from 1 to 3."},
        Row{"move place\n  choose one from peg, saw\n  pick there in empty\n  put one on there\n"
            "  written as one there\n",
            place, "Choose `one`: peg, saw."},
        Row{"move place\n  pick there in empty\n  need count mine < 3\n  put peg on there\n", place,
            "This is allowed only if the number of the side's own pieces is less than 3."},
        Row{"move place\n  pick there in empty\n  put peg on there\n  when there in corner\n"
            "    again\n",
            place, "The same side moves again."},
        Row{"number laid each\nmove place\n  pick there in empty\n  put peg on there\n"
            "  set my laid to my laid + 1\n",
            place, "Set the side's own laid to"},
        Row{"mark met\nmove place\n  pick there in empty\n  put peg on there\n  add there to met\n",
            place, "Add `there` to met."},
        Row{"mark met\nmove place\n  pick there in empty\n  put peg on there\n"
            "  remove there from met\n",
            place, "Remove `there` from met."},
        Row{"move place\n  pick here in mine\n  repeat up to 2 times\n    pick there in empty\n"
            "    put peg on there\n",
            place, "Up to 2 times:"},
        Row{"move place\n  pick there in empty\n  put peg on there\n  tell \"laid\" there\n", place,
            "Both sides are told: \"laid\", `there`."},
        Row{"move place\n  pick there in empty\n  put peg on there\n  must maximise count mine\n",
            place, "Of these moves only those are legal with the greatest value, as it is now, of"},
        Row{"mark met each\nnumber laid\ncell last\nmove place\n  pick there in empty\n"
            "  put peg on there\n",
            "What is remembered", "A set of cells, met, one for each side."},
        Row{"group tool = peg, saw\nmove place\n  pick there in empty\n  put peg on there\n",
            "Words of the sheet", "\"tool\": peg or saw."},
        Row{"zone home = row 1 for Amber, row 4 for Slate\nmove place\n  pick there in empty\n"
            "  put peg on there\n",
            "Words of the sheet", "\"home\": row 1 for Amber; row 4 for Slate."},
        Row{"define beside(c) = step any from c\nmove place\n  pick there in empty\n"
            "  put peg on there\n",
            "Words of the sheet", "\"beside\" of `c`: "},
        Row{"move place\n  pick there in empty\n  put peg on there\nturn place else pass\n",
            "Turns", "A turn is place; only if that is not possible, pass."},
        Row{"start\n  o . . .\n  . . . .\n  . . . .\n  . . s z\nmove place\n  pick there in empty\n"
            "  put peg on there\n",
            "The start", "Amber has 2 pieces: peg on a4; saw on c1."},
        Row{"move place\n  pick there in empty\n  put peg on there\n", "The start",
            "Nothing stands on the board."},
        Row{"move place\n  pick there in empty\n  put peg on there\nsymmetric under half turn\n",
            "Where the rules look the same", "Under half turn."},
        Row{"move place\n  pick there in empty\n  put peg on there\nworth count mine\n",
            "What a position is worth", "For a side: the number of the side's own pieces."},
        Row{"move place\n  pick there in empty\n  put peg on there\nalways\n"
            "  count occupied never shrinks\n",
            "What must always hold, for either side",
            "The number of the occupied cells never shrinks."},
        Row{"move place\n  pick there in empty\n  put peg on there\n"
            "forbid \"too many\" when count mine > 5\n",
            "Moves that are not allowed", "is more than 5 (too many)."}));

TEST(ExplainSheets, EverySentenceIsOneAndNamesItsLine) {
  for (const std::string& name : test::shippedLibrary().names()) {
    auto game = std::dynamic_pointer_cast<const SheetGame>(test::shipped(name));
    std::set<std::string> headings;
    for (const Explanation& part : report::explanation(*game)) {
      EXPECT_TRUE(headings.insert(part.heading).second) << name << ": " << part.heading;
      EXPECT_FALSE(part.sentences.empty()) << name << ": " << part.heading;
      for (const auto& one : part.sentences) {
        EXPECT_TRUE(one.text.back() == '.' || one.text.back() == ':') << name << ": " << one.text;
        EXPECT_EQ(one.text.find("  "), std::string::npos) << name << ": " << one.text;
        EXPECT_FALSE(std::islower(static_cast<unsigned char>(one.text[0]))) << one.text;
        for (const char* sign : {"!=", ">=", "<=", "{}", " ,"})
          EXPECT_EQ(one.text.find(sign), std::string::npos) << name << ": " << one.text;
      }
    }
    EXPECT_TRUE(headings.count("The end")) << name;
    EXPECT_TRUE(headings.count("Turns")) << name;
  }
}

TEST(ExplainSheets, EveryMoveEndAndPieceIsNamed) {
  for (const std::string& name : test::shippedLibrary().names()) {
    auto game = std::dynamic_pointer_cast<const SheetGame>(test::shipped(name));
    std::string all;
    for (const Explanation& part : report::explanation(*game)) {
      all += part.heading + "\n";
      for (const auto& one : part.sentences) all += one.text + "\n";
    }
    const rules::Rules& rules = game->rules();
    for (const rules::MoveRule& move : rules.moves)
      EXPECT_NE(all.find("Move \"" + move.name + "\""), std::string::npos) << name;
    for (const rules::EndRule& end : rules.ends)
      EXPECT_NE(all.find(end.name), std::string::npos) << name;
    for (const rules::PieceKind& piece : rules.kinds)
      EXPECT_NE(all.find(" " + piece.name), std::string::npos) << name;
    for (const rules::Definition& define : rules.definitions)
      EXPECT_NE(all.find("\"" + define.name + "\""), std::string::npos) << name;
  }
}

TEST(ExplainSheets, TheJsonHoldsTheSameSentences) {
  auto game = std::dynamic_pointer_cast<const SheetGame>(test::shipped("chess"));
  std::string json = report::explanationJson(*game);
  std::size_t sentences = 0;
  for (const Explanation& part : report::explanation(*game)) sentences += part.sentences.size();
  std::size_t found = 0;
  for (std::size_t at = json.find("\"text\""); at != std::string::npos;
       at = json.find("\"text\"", at + 1))
    ++found;
  EXPECT_EQ(found, sentences);
  EXPECT_NE(said(*game, "The start").find("White has 16 pieces"), std::string::npos);
}

}  // namespace explain_test
}  // namespace ninepegs::sheet
