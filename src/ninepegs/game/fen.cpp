#include "ninepegs/game/fen.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/position_text.hpp"

namespace ninepegs {

using sheet::Layout;

namespace {

struct Field {
  std::string text;
  int column = 0;
};

std::vector<Field> fields(std::string_view text) {
  std::vector<Field> out;
  for (std::size_t i = 0; i < text.size();) {
    if (text[i] == ' ') {
      ++i;
      continue;
    }
    std::size_t from = i;
    while (i < text.size() && text[i] != ' ') ++i;
    int column = static_cast<int>(utf8Symbols(text.substr(0, from)).size()) + 1;
    out.push_back({std::string(text.substr(from, i - from)), column});
  }
  return out;
}

}  // namespace

bool looksLikeFen(std::string_view text) {
  if (text.find(';') != text.npos) return false;
  std::vector<Field> all = fields(text);
  if (all.size() < 2 || (all[1].text != "w" && all[1].text != "b")) return false;
  return all.size() >= 4 || all[0].text.find('/') != std::string::npos;
}

Position readFen(const rules::Rules& rules, const Layout& layout, std::string_view text,
                 const std::string& source) {
  const rules::NotationRule& fen = *rules.notation;
  std::vector<Field> all = fields(text);
  auto refuse = [&](const Field& field, const std::string& message, const std::string& hint = {}) {
    throw BadInput(
        Place{source, 1, field.column, static_cast<int>(field.text.size()), std::string(text)},
        message, hint);
  };
  const std::string order =
      "a FEN has: pieces, w or b, castling, target, clock, number of the move";
  if (all.size() < 4) refuse(all.back(), "this FEN ends too early", order);
  if (all.size() > 6) refuse(all[6], "this FEN has more than six fields", order);
  sheet::Source lines(source, text);
  sheet::Block block;
  block.raw = all[0].text;
  block.span = {1, all[0].column, static_cast<int>(all[0].text.size())};
  std::vector<Diagnostic> found;
  Position position;
  try {
    position = readBlock(rules, layout, lines, {block}, found);
  } catch (const TooManyMessages&) {
  }
  if (!found.empty()) throw BadInput(std::move(found));
  position.words[Layout::turn] = all[1].text == "w" ? 0 : 1;

  if (all[2].text != "-") {
    std::string done, letters;
    for (const auto& [letter, cell] : fen.rights) letters += letter;
    for (std::size_t i = 0; i < all[2].text.size(); ++i) {
      std::string letter(1, all[2].text[i]);
      Field here{letter, all[2].column + static_cast<int>(i)};
      auto it = std::find_if(fen.rights.begin(), fen.rights.end(),
                             [&](const auto& right) { return right.first == letter; });
      if (it == fen.rights.end())
        refuse(here, fmt::format("\"{}\" is no right to castle", letter),
               fmt::format("the third field is - or some of {}", letters));
      if (done.find(letter) != std::string::npos)
        refuse(here, fmt::format("\"{}\" stands here twice", letter));
      done += letter;
      Cell cell = it->second;
      position.words[layout.marks[fen.mark][0] + cell / 64] |= std::uint64_t{1} << (cell % 64);
    }
  }
  if (all[3].text != "-") {
    std::optional<Cell> cell = rules.board.find(all[3].text);
    if (!cell || fen.target < 0)
      refuse(all[3], fmt::format("\"{}\" is no cell that a pawn can have passed", all[3].text),
             "the fourth field is - or a cell such as e3");
    position.words[layout.cells[fen.target][0]] = static_cast<std::uint64_t>(*cell);
  }
  auto number = [&](std::size_t i, unsigned long long least, const char* what) {
    if (all.size() <= i) return least;
    std::optional<unsigned long long> value = wholeNumber(all[i].text, std::uint64_t{1} << 60);
    if (!value || *value < least)
      refuse(all[i], fmt::format("\"{}\" is no {}", all[i].text, what),
             fmt::format("a whole number from {} up", least));
    return *value;
  };
  unsigned long long clock = number(4, 0, "clock"), move = number(5, 1, "number of a move");
  if (fen.clock >= 0) position.words[layout.numbers[fen.clock][0]] = clock;
  position.words[Layout::plies] = 2 * (move - 1) + position.words[Layout::turn];
  return position;
}

std::vector<std::string> besideFen(const rules::Rules& rules, const Layout& layout,
                                   const Position& position) {
  const rules::NotationRule& fen = *rules.notation;
  std::vector<std::string> out;
  auto word = [&](int at) { return static_cast<std::int64_t>(position.words[at]); };
  for (std::size_t i = 0; i < rules.marks.size(); ++i) {
    bool named = static_cast<int>(i) == fen.mark, more = false;
    for (int side = 0; side < (rules.marks[i].each ? 2 : 1); ++side) {
      CellSet held = cellsAt(position, layout.marks[i][side], rules.board.size());
      for (const auto& [letter, cell] : fen.rights)
        if (named && side == 0) held[cell] = false;
      more = more || held.any();
    }
    if (more) out.push_back(rules.marks[i].name);
  }
  for (std::size_t i = 0; i < rules.numbers.size(); ++i) {
    const rules::NumberRule& one = rules.numbers[i];
    bool named = static_cast<int>(i) == fen.clock, more = false;
    for (Cell cell = 0; one.onCells && cell < rules.board.size(); ++cell)
      more = more || word(layout.cellNumbers[i] + cell) != 0;
    for (int side = 0; !one.onCells && side < (one.each ? 2 : 1); ++side)
      // A clock below 0 is a fault of the sheet, told as such.
      more = more || (!(named && side == 0) && word(layout.numbers[i][side]) != one.start[side]);
    if (more) out.push_back(one.name);
  }
  for (std::size_t i = 0; i < rules.remembered.size(); ++i)
    for (int side = 0; side < (rules.remembered[i].each ? 2 : 1); ++side)
      if (!(static_cast<int>(i) == fen.target && side == 0) && word(layout.cells[i][side]) >= 0) {
        out.push_back(rules.remembered[i].name);
        break;
      }
  bool held = false;
  for (int side = 0; layout.hands[0] != 0 && side < 2; ++side)
    for (std::size_t kind = 0; kind < rules.kinds.size(); ++kind)
      held = held || word(layout.hands[side] + static_cast<int>(kind)) != 0;
  if (held) out.emplace_back("hands");
  if (layout.passes != 0 && word(layout.passes) != 0) out.emplace_back("passes");
  if (layout.lastMover != 0 && word(layout.lastMover) == word(Layout::turn) + 1)
    out.emplace_back("who moved last");
  return out;
}

std::string fenText(const rules::Rules& rules, const Layout& layout, const Position& position) {
  const rules::NotationRule& fen = *rules.notation;
  std::string line = positionLine(rules, layout, position);
  std::string out = line.substr(0, line.find(';'));
  out += position.words[Layout::turn] == 0 ? " w " : " b ";
  std::string rights;
  if (fen.mark >= 0) {
    CellSet held = cellsAt(position, layout.marks[fen.mark][0], rules.board.size());
    for (const auto& [letter, cell] : fen.rights)
      if (held[cell]) rights += letter;
  }
  out += rights.empty() ? "-" : rights;
  std::int64_t target = -1;
  if (fen.target >= 0)
    target = static_cast<std::int64_t>(position.words[layout.cells[fen.target][0]]);
  out += " " + (target < 0 ? std::string("-") : rules.board.label(static_cast<Cell>(target)));
  std::uint64_t clock = fen.clock < 0 ? 0 : position.words[layout.numbers[fen.clock][0]];
  if (static_cast<std::int64_t>(clock) < 0) clock = 0;  // a fault of the sheet, told as such
  return out + fmt::format(" {} {}", clock, position.words[Layout::plies] / 2 + 1);
}

}  // namespace ninepegs
