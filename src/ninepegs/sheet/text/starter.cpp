#include "ninepegs/sheet/text/starter.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

#include "ninepegs/base/diagnostic.hpp"
#include "ninepegs/sheet/text/tidy.hpp"

namespace ninepegs::sheet {

namespace {

// The title that a name makes: peg-race -> Peg race.
std::string titleOf(const std::string& name) {
  bool good = !name.empty() && name.size() <= 60 &&
              std::isalpha(static_cast<unsigned char>(name[0])) != 0 && name.back() != '-' &&
              std::all_of(name.begin(), name.end(), [](char c) {
                unsigned char u = static_cast<unsigned char>(c);
                return std::islower(u) != 0 || std::isdigit(u) != 0 || c == '-';
              });
  if (!good)
    throw BadInput(
        Place{"NAME", 1, 1, std::max(1, static_cast<int>(name.size())), name},
        "a game's name is made of small letters, digits and hyphens, with a letter first",
        "such as: peg-race");
  std::string title = name;
  std::replace(title.begin(), title.end(), '-', ' ');
  title[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(title[0])));
  return title;
}

}  // namespace

std::string starterSheet(const std::string& name) {
  std::string title = titleOf(name);
  std::string sheet = fmt::format(R"(game {}
title "{}"
about
  Write here in plain words how the game is played. This sheet is a small game that works:
  in turn, put a peg on an empty cell; three of your own in a straight row win.

sides Amber and Slate     # the first named moves first
board square 4 x 4        # columns x rows: a1 is the lower left corner
piece peg o x             # a kind, its letter for the first side, for the second

# start                   # without it, the board is empty; with it, a picture:
#   . . . .
#   . x . .
#   . . o .
#   . . . .

move place
  pick there in empty     # every cell of the set is one legal move
  put peg on there
  # need COND             # a check that must hold
  # take SET              # captures; `shift here to there` moves a piece
  written as there        # how the move is typed and printed

ends                      # read from the top: the first that holds decides
  mover wins "three in a line" when any line of 3 in mine
  draw "board full" when no empty

always                    # what must hold in every position
  count occupied never shrinks

case "three in a row win" # examples that the rules must pass
  play a1, a2, b1, b2, c1
  expect Amber wins "three in a line"
)",
                                  name, title);
  return tidied(Source(name + ".pegs", sheet));
}

std::string sheetLike(const std::string& name, std::string_view sheet) {
  std::string title = titleOf(name), out;
  for (std::size_t from = 0; from < sheet.size();) {
    std::size_t to = std::min(sheet.find('\n', from), sheet.size());
    std::string_view line = sheet.substr(from, to - from);
    if (line.substr(0, 5) == "game ")
      out += "game " + name;
    else if (line.substr(0, 6) == "title ")
      out += "title \"" + title + "\"";
    else
      out += line;
    out += '\n';
    from = to + 1;
  }
  return out;
}

}  // namespace ninepegs::sheet
