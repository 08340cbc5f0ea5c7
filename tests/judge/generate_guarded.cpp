// Small sheets at random in which most often a king may not be left attacked: what others move,
// take, put from a hand or shift onto a piece.
#include <fmt/format.h>

#include <string>
#include <vector>

#include "judge/generate.hpp"
#include "ninepegs/base/random.hpp"

namespace ninepegs::judge {
namespace {

class Guarded {
 public:
  explicit Guarded(Stream& stream) : stream_(stream) {}

  std::string sheet() {
    int columns = from(3, 5), rows = from(3, 5);
    bool hands = chance(40);
    std::string head = fmt::format(
        "game guarded\nsides Amber and Slate\nboard square {} x {}\n"
        "piece king k z reach step any\npiece rook r s reach {}\npiece peg o x reach {}\n",
        columns, rows, reach(), reach());
    std::string start = "start\n" + picture(columns, rows), rest;
    int moves = from(1, 2);
    for (int i = 0; i < moves; ++i) rest += move(i, hands);
    rest += fmt::format("turn {}{}\n",
                        moves == 1   ? "m0"
                        : chance(50) ? "m0 or m1"
                                     : "m0 else m1",
                        chance(50) ? "" : " else pass");
    if (chance(20)) rest += "after every move\n  " + effect(hands) + "\n";
    if (rest.find(" hand") != std::string::npos)
      start += fmt::format("  hand of each {}\n", chance(50) ? "peg" : "peg, rook");
    if (rest.find("tally") != std::string::npos) head += "number tally\n";
    std::string out = head + start + rest;
    if (chance(80))
      out += fmt::format("forbid \"attacked\" when any {} on their reach\n",
                         chance(85) ? "my king" : "(my king or my rook)");
    out += "ends\n";
    if (chance(50)) out += "  mover wins \"mate\" when stuck and any their king on my reach\n";
    return out + "  draw \"long\" when plies > 40\n";
  }

 private:
  int from(int low, int high) {
    return low + static_cast<int>(stream_.below(static_cast<std::uint32_t>(high - low + 1)));
  }
  bool chance(int percent) { return from(1, 100) <= percent; }
  std::string any(const std::vector<std::string>& of) {
    return of[stream_.below(static_cast<std::uint32_t>(of.size()))];
  }

  std::string reach() {
    return any({"slide orthogonal", "slide diagonal", "slide any", "slide forward", "leap 1 2",
                "step any", "step forward-diagonal", "step orthogonal",
                "slide orthogonal or step diagonal"});
  }

  // Two kings, and some others of each side.
  std::string picture(int columns, int rows) {
    std::vector<std::string> at(static_cast<std::size_t>(columns * rows), ".");
    auto place = [&](const std::string& letter) {
      std::string& one = at[stream_.below(static_cast<std::uint32_t>(at.size()))];
      if (one == ".") one = letter;
    };
    for (const char* king : {"k", "z"}) {
      std::string& one = at[stream_.below(static_cast<std::uint32_t>(at.size()))];
      one = king;
    }
    for (int left = from(1, 3); left > 0; --left) place(any({"r", "o"}));
    for (int left = from(1, 4); left > 0; --left) place(any({"s", "x"}));
    std::string out;
    for (int y = 0; y < rows; ++y) {
      out += " ";
      for (int x = 0; x < columns; ++x) out += " " + at[static_cast<std::size_t>(y * columns + x)];
      out += "\n";
    }
    return out;
  }

  std::string effect(bool hands) {
    std::string cells = any({"corner on empty", "edge on empty", "empty on their reach",
                             "occupied on corner", "theirs on corner", "my rook on edge"});
    if (cells.find("empty") == std::string::npos)
      return chance(60) ? "take " + cells : "change " + cells + " into peg";
    return fmt::format("put peg on {}{}", cells, hands && chance(70) ? " from my hand" : "");
  }

  std::string move(int number, bool hands) {
    std::string out = fmt::format("move m{}\n  pick here in {}\n", number,
                                  any({"mine", "mine", "my king", "my rook or my peg"}));
    bool onto = chance(70);  // a piece of the other side, perhaps
    out += fmt::format("  pick there in {} {}\n", chance(70) ? "reach of here" : "all",
                       onto ? any({"except mine", "on theirs"}) : "on empty");
    if (onto && chance(50)) out += "  take there\n";
    out += "  shift here to there\n";
    if (chance(25)) out += "  change there into " + any({"rook", "peg"}) + "\n";
    if (chance(hands ? 70 : 25)) {
      std::string deeper = effect(hands);
      if (chance(60))
        out += fmt::format("  when {}\n    {}\n",
                           any({"there in edge", "here in corner", "count theirs > 1",
                                "any mine on their reach", "plies > 1"}),
                           deeper);
      else if (chance(30))
        out += fmt::format("  repeat {} times\n    {}\n", from(1, 2), deeper);
      else
        out += "  " + deeper + "\n";
    }
    if (chance(20))  // what is measured is changed afterwards
      out += fmt::format("  set tally to count ({})\n  must maximise tally\n  set tally to {}\n",
                         any({"theirs", "my reach", "theirs on my reach", "edge on mine"}),
                         any({"0", "5 - tally", "count mine"}));
    return out + "  written as here there\n";
  }

  Stream& stream_;
};

}  // namespace

std::string guardedSheet(Stream& stream) {
  return Guarded(stream).sheet();
}

}  // namespace ninepegs::judge
