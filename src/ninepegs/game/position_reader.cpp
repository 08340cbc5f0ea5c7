#include "ninepegs/game/position_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"

namespace ninepegs {

using sheet::Slot;

namespace {

constexpr std::uint64_t mostInHand = 1'000'000;

}  // namespace

// Columns count through a block's joined lines; this is where they stand in the text.
sheet::Span PositionReader::placed(sheet::Span span) const {
  auto it = blocks_.find(span.line);
  if (it == blocks_.end()) return span;
  const sheet::Block& block = *it->second;
  for (auto joint = block.joints.rbegin(); joint != block.joints.rend(); ++joint) {
    int behind = span.column - block.span.column - joint->first;
    if (behind >= 0) return {joint->second.line, joint->second.column + behind, span.length};
  }
  return span;
}

std::string PositionReader::sidesHint() const {
  return fmt::format("the sides are {} and {}", rules_.sides[0], rules_.sides[1]);
}

std::string PositionReader::lettersHint() const {
  std::vector<std::string> letters;
  for (const rules::PieceKind& piece : rules_.kinds)
    for (int side = 0; side < (rules_.layered() ? 1 : 2); ++side)
      if (!piece.letters[side].empty()) letters.push_back(piece.letters[side]);
  return fmt::format("the pieces are {}; empty cells are dots or a number", joined(letters, " "));
}

bool PositionReader::pieceOfLetter(const std::string& letter, int board, int& kind,
                                   int& side) const {
  for (std::size_t k = 0; k < rules_.kinds.size(); ++k) {
    const rules::PieceKind& piece = rules_.kinds[k];
    for (int s = 0; s < 2; ++s) {
      if (piece.letters[s] != letter) continue;
      kind = static_cast<int>(k);
      side = piece.neutral ? -1 : rules_.layered() ? board : s;
      return true;
    }
  }
  return false;
}

// `side` is -1 for a piece of nobody.
void PositionReader::put(Cell cell, int kind, int side, sheet::Span span) {
  std::uint64_t bit = std::uint64_t{1} << (cell % 64);
  int word = cell / 64, layer = std::max(side, 0);
  if ((position_.words[layout_.empty[layer] + word] & bit) == 0) {
    note(span, fmt::format("two pieces stand on {}", rules_.board.label(cell)));
    return;
  }
  if (side >= 0) position_.words[layout_.sides[side] + word] |= bit;
  position_.words[layout_.empty[layer] + word] &= ~bit;
  if (!layout_.kinds.empty()) position_.words[layout_.kinds[kind][layer] + word] |= bit;
}

void PositionReader::picture(const std::vector<PositionPart>& rows, int layer) {
  const Geometry& board = rules_.board;
  const std::vector<PictureRow>& drawn = board.picture();
  if (rows.size() != drawn.size()) {
    note(rows.back().span,
         fmt::format("the picture has {}, but the board has {}",
                     plural(static_cast<long long>(rows.size()), "row"), drawn.size()),
         "rows are written from the top, divided by / on one line");
    return;
  }
  for (std::size_t y = 0; y < drawn.size(); ++y) {
    const PositionPart& row = rows[y];
    const std::vector<Cell>& cells = drawn[y].cells;
    std::vector<std::string> symbols = utf8Symbols(row.text);
    std::size_t x = 0;
    for (std::size_t i = 0; i < symbols.size(); ++i) {
      const std::string& symbol = symbols[i];
      if (symbol == " ") continue;
      sheet::Span span{row.span.line, row.span.column + static_cast<int>(i), 1};
      std::size_t run = 1;
      bool empty = symbol == ".", hole = symbol == "_";
      int kind = -1, side = -1;
      if (symbol[0] >= '0' && symbol[0] <= '9') {
        std::string digits;
        while (i < symbols.size() && symbols[i][0] >= '0' && symbols[i][0] <= '9')
          digits += symbols[i++];
        --i;
        run = wholeNumber(digits, limits::cells).value_or(limits::cells + 1);
        span.length = static_cast<int>(digits.size());
        empty = true;
        if (run == 0 || run > cells.size()) {
          note(span, fmt::format("{} empty cells do not fit in a row of {}", digits, cells.size()));
          return;
        }
      }
      if (!empty && !hole && !pieceOfLetter(symbol, layer, kind, side)) {
        note(span, fmt::format("\"{}\" is no piece of this game", symbol), lettersHint());
        return;
      }
      for (; run > 0; --run, ++x) {
        if (x >= cells.size()) {
          note(span, fmt::format("this row is longer than the board's {} columns", cells.size()));
          return;
        }
        Cell cell = cells[x];
        if (hole == board.has(cell) && !(empty && !board.has(cell))) {
          note(span,
               hole ? fmt::format("the board has a cell {} here", board.label(cell))
                    : "the board has no cell here",
               "`_` stands for a place that the board leaves out");
          return;
        }
        if (kind >= 0) put(cell, kind, side, span);
      }
    }
    if (x != cells.size()) {
      sheet::Span end{row.span.line, row.span.column, static_cast<int>(symbols.size())};
      note(end, fmt::format("this row has {}, but the board has {} columns",
                            plural(static_cast<long long>(x), "cell"), cells.size()));
      return;
    }
  }
}

// The words of a line; between two of them may stand one comma.
std::vector<PositionReader::Word> PositionReader::words(const PositionPart& part) {
  std::vector<Word> out;
  std::vector<std::string> symbols = utf8Symbols(part.text);
  auto stray = [&](std::size_t at) {
    note({part.span.line, part.span.column + static_cast<int>(at), 1},
         "a comma stands between two of a list");
  };
  std::size_t comma = 0;
  for (std::size_t i = 0; i < symbols.size();) {
    if (symbols[i] == ",") {
      comma = i;
      if (out.empty() || out.back().comma)
        stray(i);
      else
        out.back().comma = true;
    }
    if (symbols[i] == " " || symbols[i] == ",") {
      ++i;
      continue;
    }
    std::size_t from = i;
    std::string text;
    while (i < symbols.size() && symbols[i] != " " && symbols[i] != ",") text += symbols[i++];
    out.push_back(
        {text,
         {part.span.line, part.span.column + static_cast<int>(from), static_cast<int>(i - from)}});
  }
  if (!out.empty() && out.back().comma) stray(comma);
  return out;
}

// Behind words that say what a list is of, no comma stands.
bool PositionReader::noCommas(const std::vector<Word>& list, std::size_t before) {
  for (std::size_t i = 0; i < before && i < list.size(); ++i)
    if (list[i].comma)
      return note(list[i].span, fmt::format("no comma stands behind \"{}\" here", list[i].text));
  return true;
}

std::vector<std::string> PositionReader::names() const {
  std::vector<std::string> out = {rules_.sides[0], rules_.sides[1]};
  for (const auto& [name, symbol] : rules_.symbols)
    if (symbol.kind == rules::SymbolKind::kind || symbol.kind == rules::SymbolKind::mark ||
        symbol.kind == rules::SymbolKind::number || symbol.kind == rules::SymbolKind::remembered)
      out.push_back(name);
  if (layout_.hands[0] != 0) out.emplace_back("hand");
  if (layout_.passes != 0) out.emplace_back("passes");
  if (layout_.layered) out.emplace_back("picture");
  return out;
}

void PositionReader::turn(const std::vector<Word>& list, const PositionPart& part) {
  int side = rules_.side(list[0].text);
  if (side < 0) {
    note(list[0].span, fmt::format("\"{}\" is no side", list[0].text),
         didYouMean(list[0].text, {rules_.sides[0], rules_.sides[1]}, sidesHint()));
    return;
  }
  if (turnSaid_) note(part.span, "whose turn it is stands here a second time");
  turnSaid_ = true;
  position_.words[sheet::Layout::turn] = static_cast<std::uint64_t>(side);
}

// hand of SIDE or of each: kinds, each with how many of it where that is not one.
void PositionReader::hand(const std::vector<Word>& list) {
  if (layout_.hands[0] == 0) {
    note(list[0].span, "no move of this game uses a hand");
    return;
  }
  int side = list.size() > 2 && list[1].text == "of" ? rules_.side(list[2].text) : -1;
  bool each = list.size() > 2 && list[2].text == "each";
  if (list.size() < 3 || list[1].text != "of" || (side < 0 && !each)) {
    note(list[std::min<std::size_t>(2, list.size() - 1)].span, "whose hand?",
         fmt::format("say: hand of {} ..., or: hand of each ...", rules_.sides[0]));
    return;
  }
  if (!noCommas(list, 3)) return;
  unsigned long long many = 1;
  for (std::size_t at = 3; at < list.size(); ++at) {
    if (std::optional<unsigned long long> value = wholeNumber(list[at].text, mostInHand)) {
      many = *value;
      if (at + 1 == list.size() || list[at].comma)
        note(list[at].span, "a kind of piece should follow this number");
      continue;
    }
    int kind = rules_.kind(list[at].text);
    if (kind < 0) {
      note(list[at].span, fmt::format("there is no kind of piece called \"{}\"", list[at].text),
           didYouMean(list[at].text, names()));
      return;
    }
    for (int s = 0; s < 2; ++s)
      if (each || s == side) {
        std::uint64_t& held = position_.words[layout_.hands[s] + kind];
        held += many;
        if (held > mostInHand)
          note(list[at].span, fmt::format("a hand holds at most {} of a kind", mostInHand));
      }
    many = 1;
  }
}

bool PositionReader::numbers(const std::vector<Word>& list, std::size_t at,
                             std::vector<std::int64_t>& out) {
  for (; at < list.size(); ++at) {
    bool negative = list[at].text[0] == '-';
    unsigned long long most = std::numeric_limits<std::int64_t>::max();
    std::optional<unsigned long long> value = wholeNumber(
        std::string_view(list[at].text).substr(negative ? 1 : 0), most + (negative ? 1 : 0));
    if (!value) {
      note(list[at].span, fmt::format("a number should stand here, not \"{}\"", list[at].text));
      return false;
    }
    out.push_back(static_cast<std::int64_t>(negative ? 0 - *value : *value));
  }
  return true;
}

void PositionReader::line(const PositionPart& part) {
  std::vector<Word> list = words(part);
  if (list.empty()) return;
  if (list.size() == 3 && list[1].text == "to" && list[2].text == "move") {
    if (noCommas(list, 3)) turn(list, part);
    return;
  }
  if (list.size() == 3 && list[1].text == "moved" && list[2].text == "last" &&
      layout_.lastMover != 0) {
    if (!noCommas(list, 3)) return;
    int side = rules_.side(list[0].text);
    if (side < 0)
      note(list[0].span, fmt::format("\"{}\" is no side", list[0].text), sidesHint());
    else
      position_.words[layout_.lastMover] = static_cast<std::uint64_t>(side) + 1;
    return;
  }
  if (list[0].text == "hand") return hand(list);
  if (list[0].text == "passes" && layout_.passes != 0) {
    std::vector<std::int64_t> values;
    if (!numbers(list, 1, values)) return;
    if (values.size() == 1 && values[0] >= 0)
      position_.words[layout_.passes] = static_cast<std::uint64_t>(values[0]);
    else
      note(list[0].span, "one number should follow \"passes\"");
    return;
  }
  const rules::Symbol* symbol = rules_.find(list[0].text);
  using rules::SymbolKind;
  bool known = symbol != nullptr &&
               (symbol->kind == SymbolKind::kind || symbol->kind == SymbolKind::mark ||
                symbol->kind == SymbolKind::number || symbol->kind == SymbolKind::remembered);
  if (!known) {
    note(list[0].span, fmt::format("a position has no line that begins with \"{}\"", list[0].text),
         didYouMean(list[0].text, names(),
                    fmt::format("say whose turn it is: {} to move", rules_.sides[0])));
    return;
  }
  state(*symbol, list);
}

void PositionReader::state(const rules::Symbol& symbol, const std::vector<Word>& list) {
  using rules::SymbolKind;
  int index = symbol.index;
  bool kind = symbol.kind == SymbolKind::kind, mark = symbol.kind == SymbolKind::mark;
  bool number = symbol.kind == SymbolKind::number, cell = symbol.kind == SymbolKind::remembered;
  std::size_t at = 1;
  int first = -1, last = -1;  // which sides are meant
  if (!noCommas(list, list.size() > 2 && list[1].text == "of" ? 3 : 1)) return;
  if (list.size() > 2 && list[1].text == "of") {
    first = last = rules_.side(list[2].text);
    if (list[2].text == "each") first = 0, last = 1;
    if (first < 0) {
      note(list[2].span, fmt::format("\"{}\" is no side", list[2].text), sidesHint());
      return;
    }
    at = 3;
  }
  bool each = (kind && !rules_.kinds[index].neutral) || (mark && rules_.marks[index].each) ||
              (number && rules_.numbers[index].each) || (cell && rules_.remembered[index].each);
  if (each != (first >= 0)) {
    note(list[0].span,
         each ? fmt::format("whose? \"{}\" belongs to a side", list[0].text)
              : fmt::format("\"{}\" is one for both sides", list[0].text),
         each ? fmt::format("say: {} of {} ...", list[0].text, rules_.sides[0]) : "");
    return;
  }
  for (int side = std::max(first, 0); kind && each && side <= last; ++side) {
    if (!rules_.kinds[index].letters[rules_.layered() ? 0 : side].empty()) continue;
    note(list[2].span, fmt::format("{} has no {}", rules_.sides[side], list[0].text),
         fmt::format("it is declared for {}", rules_.sides[1 - side]));
    return;
  }
  if (number) {
    std::vector<std::int64_t> values;
    if (!numbers(list, at, values)) return;
    std::vector<std::string> cells = rules_.board.labels();
    bool onCells = rules_.numbers[index].onCells;
    if (values.size() != (onCells ? cells.size() : 1)) {
      note(list.back().span,
           onCells ? fmt::format("{} numbers should follow \"{}\", one for each cell from {} to {}",
                                 cells.size(), list[0].text, cells.front(), cells.back())
                   : fmt::format("one number should follow \"{}\"", list[0].text));
      return;
    }
    for (std::size_t i = 0; onCells && i < cells.size(); ++i)
      position_.words[layout_.cellNumbers[index] + *rules_.board.find(cells[i])] =
          static_cast<std::uint64_t>(values[i]);
    for (int side = std::max(first, 0); !onCells && side <= std::max(last, 0); ++side)
      position_.words[layout_.numbers[index][side]] = static_cast<std::uint64_t>(values[0]);
    return;
  }
  if (cell && list.size() != at + 1) {
    note(list.back().span, fmt::format("one cell should follow \"{}\"", list[0].text));
    return;
  }
  for (; at < list.size(); ++at) {
    std::optional<Cell> where = rules_.board.find(list[at].text);
    if (!where) {
      note(list[at].span, fmt::format("there is no cell \"{}\"", list[at].text),
           didYouMean(list[at].text, rules_.board.labels(),
                      fmt::format("cells run from {} to {}", rules_.board.labels().front(),
                                  rules_.board.labels().back())));
      return;
    }
    for (int side = std::max(first, 0); side <= std::max(last, 0); ++side) {
      if (kind && !each)
        put(*where, index, -1, list[at].span);
      else if (kind)
        put(*where, index, side, list[at].span);
      else if (cell)
        position_.words[layout_.cells[index][side]] = static_cast<std::uint64_t>(*where);
      else
        position_.words[layout_.marks[index][side] + *where / 64] |= std::uint64_t{1}
                                                                     << (*where % 64);
    }
  }
}

}  // namespace ninepegs
