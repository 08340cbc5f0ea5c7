#include "ninepegs/game/position_text.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"

namespace ninepegs {
namespace {

using sheet::Checked;
using sheet::Layout;
using sheet::Slot;

// One part of a text: a row of the picture or a line behind it, and where it stands.
struct Part {
  std::string text;
  sheet::Span span;
};

class Reader {
 public:
  Reader(const Checked& sheet, const Layout& layout, const sheet::Source& source,
         std::vector<Diagnostic>& found)
      : sheet_(sheet), layout_(layout), source_(source), found_(found) {
    position_ = emptyPosition(sheet, layout);
  }

  Position finish() { return std::move(position_); }

  void picture(const std::vector<Part>& rows, int board);
  void line(const Part& part);

 private:
  struct Word {
    std::string text;
    sheet::Span span;
  };
  bool note(sheet::Span span, const std::string& message, const std::string& hint = {}) {
    found_.push_back({source_.place(span), message, hint});
    return false;
  }
  std::vector<Word> words(const Part& part) const;
  void put(Cell cell, int kind, int side, sheet::Span span);
  bool pieceOfLetter(const std::string& letter, int board, int& kind, int& side) const;
  void hand(const std::vector<Word>& list);
  void turn(const std::vector<Word>& list, const Part& part);
  void numbers(const std::vector<Word>& list, std::size_t at, std::vector<std::int64_t>& out);
  void state(const sheet::Symbol& symbol, const std::vector<Word>& list);
  std::string sidesHint() const {
    return fmt::format("the sides are {} and {}", sheet_.tree.sides[0].text,
                       sheet_.tree.sides[1].text);
  }
  std::string lettersHint() const;
  std::vector<std::string> names() const;

  const Checked& sheet_;
  const Layout& layout_;
  const sheet::Source& source_;
  std::vector<Diagnostic>& found_;
  Position position_;
  bool turnSaid_ = false;
};

std::string Reader::lettersHint() const {
  std::vector<std::string> letters;
  for (const sheet::PieceDecl& piece : sheet_.tree.pieces)
    for (int side = 0; side < (sheet_.layered() ? 1 : 2); ++side)
      if (!piece.letters[side].empty()) letters.push_back(piece.letters[side]);
  return fmt::format("the pieces are {}; empty cells are dots or a number", joined(letters, " "));
}

bool Reader::pieceOfLetter(const std::string& letter, int board, int& kind, int& side) const {
  for (std::size_t k = 0; k < sheet_.tree.pieces.size(); ++k) {
    const sheet::PieceDecl& piece = sheet_.tree.pieces[k];
    for (int s = 0; s < 2; ++s) {
      if (piece.letters[s] != letter) continue;
      kind = static_cast<int>(k);
      side = piece.neutral ? -1 : sheet_.layered() ? board : s;
      return true;
    }
  }
  return false;
}

// `side` is -1 for a piece of nobody.
void Reader::put(Cell cell, int kind, int side, sheet::Span span) {
  std::uint64_t bit = std::uint64_t{1} << (cell % 64);
  int word = cell / 64, layer = std::max(side, 0);
  if ((position_.words[layout_.empty[layer] + word] & bit) == 0) {
    note(span, fmt::format("two pieces stand on {}", sheet_.board.label(cell)));
    return;
  }
  if (side >= 0) position_.words[layout_.sides[side] + word] |= bit;
  position_.words[layout_.empty[layer] + word] &= ~bit;
  if (!layout_.kinds.empty()) position_.words[layout_.kinds[kind][layer] + word] |= bit;
}

void Reader::picture(const std::vector<Part>& rows, int layer) {
  const Geometry& board = sheet_.board;
  const std::vector<PictureRow>& drawn = board.picture();
  if (rows.size() != drawn.size()) {
    note(rows.back().span,
         fmt::format("the picture has {}, but the board has {}",
                     plural(static_cast<long long>(rows.size()), "row"), drawn.size()),
         "rows are written from the top, divided by / on one line");
    return;
  }
  for (std::size_t y = 0; y < drawn.size(); ++y) {
    const Part& row = rows[y];
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

std::vector<Reader::Word> Reader::words(const Part& part) const {
  std::vector<Word> out;
  std::vector<std::string> symbols = utf8Symbols(part.text);
  for (std::size_t i = 0; i < symbols.size();) {
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
  return out;
}

std::vector<std::string> Reader::names() const {
  std::vector<std::string> out = {sheet_.tree.sides[0].text, sheet_.tree.sides[1].text};
  for (const auto& [name, symbol] : sheet_.symbols)
    if (symbol.kind == sheet::SymbolKind::kind || symbol.kind == sheet::SymbolKind::mark ||
        symbol.kind == sheet::SymbolKind::number || symbol.kind == sheet::SymbolKind::remembered)
      out.push_back(name);
  if (layout_.hands[0] != 0) out.emplace_back("hand");
  if (layout_.passes != 0) out.emplace_back("passes");
  if (layout_.layered) out.emplace_back("picture");
  return out;
}

void Reader::turn(const std::vector<Word>& list, const Part& part) {
  int side = sheet_.side(list[0].text);
  if (side < 0) {
    note(list[0].span, fmt::format("\"{}\" is no side", list[0].text),
         didYouMean(list[0].text, {sheet_.tree.sides[0].text, sheet_.tree.sides[1].text},
                    sidesHint()));
    return;
  }
  if (turnSaid_) note(part.span, "whose turn it is stands here a second time");
  turnSaid_ = true;
  position_.words[Layout::turn] = static_cast<std::uint64_t>(side);
}

// hand of SIDE or of each: kinds, each with how many of it where that is not one.
void Reader::hand(const std::vector<Word>& list) {
  if (layout_.hands[0] == 0) {
    note(list[0].span, "no move of this game uses a hand");
    return;
  }
  int side = list.size() > 2 && list[1].text == "of" ? sheet_.side(list[2].text) : -1;
  bool each = list.size() > 2 && list[2].text == "each";
  if (list.size() < 3 || list[1].text != "of" || (side < 0 && !each)) {
    note(list[std::min<std::size_t>(2, list.size() - 1)].span, "whose hand?",
         fmt::format("say: hand of {} ..., or: hand of each ...", sheet_.tree.sides[0].text));
    return;
  }
  unsigned long long many = 1;
  for (std::size_t at = 3; at < list.size(); ++at) {
    if (std::optional<unsigned long long> value = wholeNumber(list[at].text, 1000000)) {
      many = *value;
      if (at + 1 == list.size()) note(list[at].span, "a kind of piece should follow this number");
      continue;
    }
    int kind = sheet_.kind(list[at].text);
    if (kind < 0) {
      note(list[at].span, fmt::format("there is no kind of piece called \"{}\"", list[at].text),
           didYouMean(list[at].text, names()));
      return;
    }
    for (int s = 0; s < 2; ++s)
      if (each || s == side) position_.words[layout_.hands[s] + kind] += many;
    many = 1;
  }
}

void Reader::numbers(const std::vector<Word>& list, std::size_t at,
                     std::vector<std::int64_t>& out) {
  for (; at < list.size(); ++at) {
    bool negative = list[at].text[0] == '-';
    std::optional<unsigned long long> value =
        wholeNumber(std::string_view(list[at].text).substr(negative ? 1 : 0), 1'000'000'000'000ull);
    if (!value) {
      note(list[at].span, fmt::format("a number should stand here, not \"{}\"", list[at].text));
      out.clear();
      return;
    }
    std::int64_t number = static_cast<std::int64_t>(*value);
    out.push_back(negative ? -number : number);
  }
}

void Reader::line(const Part& part) {
  std::vector<Word> list = words(part);
  if (list.empty()) return;
  if (list.size() == 3 && list[1].text == "to" && list[2].text == "move") return turn(list, part);
  if (list[0].text == "hand") return hand(list);
  if (list[0].text == "passes" && layout_.passes != 0) {
    std::vector<std::int64_t> values;
    numbers(list, 1, values);
    if (values.size() == 1 && values[0] >= 0)
      position_.words[layout_.passes] = static_cast<std::uint64_t>(values[0]);
    else
      note(list[0].span, "one number should follow \"passes\"");
    return;
  }
  const sheet::Symbol* symbol = sheet_.find(list[0].text);
  using sheet::SymbolKind;
  bool known = symbol != nullptr &&
               (symbol->kind == SymbolKind::kind || symbol->kind == SymbolKind::mark ||
                symbol->kind == SymbolKind::number || symbol->kind == SymbolKind::remembered);
  if (!known) {
    note(list[0].span, fmt::format("a position has no line that begins with \"{}\"", list[0].text),
         didYouMean(list[0].text, names(),
                    fmt::format("say whose turn it is: {} to move", sheet_.tree.sides[0].text)));
    return;
  }
  state(*symbol, list);
}

void Reader::state(const sheet::Symbol& symbol, const std::vector<Word>& list) {
  using sheet::SymbolKind;
  const sheet::Tree& tree = sheet_.tree;
  int index = symbol.index;
  bool kind = symbol.kind == SymbolKind::kind, mark = symbol.kind == SymbolKind::mark;
  bool number = symbol.kind == SymbolKind::number, cell = symbol.kind == SymbolKind::remembered;
  std::size_t at = 1;
  int first = -1, last = -1;  // which sides are meant
  if (list.size() > 2 && list[1].text == "of") {
    first = last = sheet_.side(list[2].text);
    if (list[2].text == "each") first = 0, last = 1;
    if (first < 0) {
      note(list[2].span, fmt::format("\"{}\" is no side", list[2].text), sidesHint());
      return;
    }
    at = 3;
  }
  bool each = (kind && !tree.pieces[index].neutral) || (mark && tree.marks[index].each) ||
              (number && tree.numbers[index].each) || (cell && tree.cells[index].each);
  if (each != (first >= 0)) {
    note(list[0].span,
         each ? fmt::format("whose? \"{}\" belongs to a side", list[0].text)
              : fmt::format("\"{}\" is one for both sides", list[0].text),
         each ? fmt::format("say: {} of {} ...", list[0].text, tree.sides[0].text) : "");
    return;
  }
  if (number) {
    std::vector<std::int64_t> values;
    numbers(list, at, values);
    std::vector<std::string> cells = sheet_.board.labels();
    bool onCells = tree.numbers[index].onCells;
    if (values.size() != (onCells ? cells.size() : 1)) {
      note(list.back().span,
           onCells ? fmt::format("{} numbers should follow \"{}\", one for each cell from {} to {}",
                                 cells.size(), list[0].text, cells.front(), cells.back())
                   : fmt::format("one number should follow \"{}\"", list[0].text));
      return;
    }
    for (std::size_t i = 0; onCells && i < cells.size(); ++i)
      position_.words[layout_.cellNumbers[index] + *sheet_.board.find(cells[i])] =
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
    std::optional<Cell> where = sheet_.board.find(list[at].text);
    if (!where) {
      note(list[at].span, fmt::format("there is no cell \"{}\"", list[at].text),
           didYouMean(list[at].text, sheet_.board.labels(),
                      fmt::format("cells run from {} to {}", sheet_.board.labels().front(),
                                  sheet_.board.labels().back())));
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

bool isPictureText(std::string_view text) {
  return text.find('/') != text.npos || trimmed(text).find(' ') == std::string_view::npos;
}

// The parts of a logical line between semicolons, and of a picture on one line between slashes.
std::vector<Part> split(const Part& whole, const char* by) {
  std::vector<Part> out;
  std::vector<std::string> symbols = utf8Symbols(whole.text);
  std::string text;
  int column = whole.span.column;
  for (std::size_t i = 0; i <= symbols.size(); ++i) {
    if (i < symbols.size() && symbols[i] != by) {
      text += symbols[i];
      continue;
    }
    int length = std::max(1, static_cast<int>(utf8Symbols(text).size()));
    out.push_back({text, {whole.span.line, column, length}});
    column = whole.span.column + static_cast<int>(i) + 1;
    text.clear();
  }
  return out;
}

}  // namespace

Position readBlock(const Checked& sheet, const Layout& layout, const sheet::Source& source,
                   const std::vector<sheet::Block>& lines, std::vector<Diagnostic>& found) {
  Reader reader(sheet, layout, source, found);
  std::array<std::vector<Part>, 2> pictures;
  std::vector<Part> rest;
  bool first = true;
  for (const sheet::Block& block : lines) {
    Part whole{block.raw, block.span};
    if (block.pictureRow && rest.empty() && !layout.layered) {
      std::vector<Part> parts = split(whole, ";");
      pictures[0].push_back(parts.front());
      rest.insert(rest.end(), parts.begin() + 1, parts.end());
      first = false;
      continue;
    }
    for (const Part& part : split(whole, ";")) {
      // On a board of one each: picture of SIDE, and rows below it or behind it on one line.
      std::string_view text = part.text;
      std::size_t lead = text.find_first_not_of(' ');
      bool named = lead != text.npos && text.substr(lead).starts_with("picture of ");
      if (named && layout.layered) {
        std::size_t from = lead + 11, to = std::min(text.find(' ', from), text.size());
        int side = sheet.side(std::string(text.substr(from, to - from)));
        if (side < 0) {
          found.push_back({source.place(part.span), "whose picture?",
                           fmt::format("say: picture of {}", sheet.tree.sides[0].text)});
          continue;
        }
        Part behind{std::string(text.substr(to)), part.span};
        behind.span.column += static_cast<int>(utf8Symbols(text.substr(0, to)).size());
        if (!trimmed(behind.text).empty())
          for (const Part& row : split(behind, "/")) pictures[side].push_back(row);
        for (const sheet::Block& row : block.children)
          pictures[side].push_back({row.raw, row.span});
      } else if (first && !layout.layered && !block.pictureRow && isPictureText(part.text)) {
        for (const Part& row : split(part, "/")) pictures[0].push_back(row);
      } else {
        rest.push_back(part);
      }
      first = false;
    }
  }
  for (int board = 0; board < 2; ++board)
    if (!pictures[board].empty()) reader.picture(pictures[board], board);
  for (const Part& part : rest) reader.line(part);
  return reader.finish();
}

Position readLine(const Checked& sheet, const Layout& layout, std::string_view text,
                  const std::string& source) {
  Place whole{source, 0, 0, 1, {}};
  if (text.size() > limits::lineBytes)
    throw BadInput(
        whole, fmt::format("this position is longer than {} bytes, the limit", limits::lineBytes));
  if (text.find('\n') != text.npos || text.find('\0') != text.npos ||
      firstBadUtf8(text) != text.npos)
    throw BadInput(whole, "a position is one line of text");
  if (trimmed(text).empty())
    throw BadInput(whole, "the position is empty",
                   "such as: " + positionLine(sheet, layout, emptyPosition(sheet, layout)));
  sheet::Source lines(source, text);
  sheet::Block block;
  block.raw = std::string(text);
  block.span = {1, 1, 1};
  std::vector<Diagnostic> found;
  Position position = readBlock(sheet, layout, lines, {block}, found);
  if (!found.empty()) throw BadInput(std::move(found));
  return position;
}

}  // namespace ninepegs
