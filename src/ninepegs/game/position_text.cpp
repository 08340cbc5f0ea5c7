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

  void picture(const std::vector<Part>& rows);
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
    for (const std::string& letter : piece.letters) letters.push_back(letter);
  return fmt::format("the pieces are {}; empty cells are dots or a number", joined(letters, " "));
}

void Reader::put(Cell cell, int kind, int side, sheet::Span span) {
  std::uint64_t bit = std::uint64_t{1} << (cell % 64);
  int word = cell / 64;
  if ((position_.words[layout_.empty + word] & bit) == 0) {
    note(span, fmt::format("two pieces stand on {}", sheet_.board.label(cell)));
    return;
  }
  position_.words[layout_.sides[side] + word] |= bit;
  position_.words[layout_.empty + word] &= ~bit;
  if (!layout_.kinds.empty()) position_.words[layout_.kinds[kind] + word] |= bit;
}

void Reader::picture(const std::vector<Part>& rows) {
  const Geometry& board = sheet_.board;
  if (static_cast<int>(rows.size()) != board.rows()) {
    sheet::Span span = rows.back().span;
    note(span,
         fmt::format("the picture has {}, but the board has {}",
                     plural(static_cast<long long>(rows.size()), "row"), board.rows()),
         "rows are written from the top, divided by / on one line");
    return;
  }
  for (int y = 0; y < board.rows(); ++y) {
    const Part& row = rows[y];
    std::vector<std::string> symbols = utf8Symbols(row.text);
    int x = 0;
    for (std::size_t i = 0; i < symbols.size(); ++i) {
      const std::string& symbol = symbols[i];
      if (symbol == " ") continue;
      sheet::Span span{row.span.line, row.span.column + static_cast<int>(i), 1};
      int run = 1;
      bool empty = symbol == ".", hole = symbol == "_";
      int kind = -1, side = -1;
      if (symbol[0] >= '0' && symbol[0] <= '9') {
        std::string digits;
        while (i < symbols.size() && symbols[i][0] >= '0' && symbols[i][0] <= '9')
          digits += symbols[i++];
        --i;
        run = static_cast<int>(wholeNumber(digits, limits::cells).value_or(limits::cells + 1));
        span.length = static_cast<int>(digits.size());
        empty = true;
        if (run == 0 || run > board.columns()) {
          note(span,
               fmt::format("{} empty cells do not fit in a row of {}", digits, board.columns()));
          return;
        }
      }
      for (std::size_t k = 0; k < sheet_.tree.pieces.size(); ++k)
        for (int s = 0; s < 2; ++s)
          if (sheet_.tree.pieces[k].letters[s] == symbol) kind = static_cast<int>(k), side = s;
      if (!empty && !hole && kind < 0) {
        note(span, fmt::format("\"{}\" is no piece of this game", symbol), lettersHint());
        return;
      }
      for (; run > 0; --run, ++x) {
        if (x >= board.columns()) {
          note(span,
               fmt::format("this row is longer than the board's {} columns", board.columns()));
          return;
        }
        Cell cell = board.cellAt(x, y);
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
    if (x != board.columns()) {
      sheet::Span end{row.span.line, row.span.column, static_cast<int>(symbols.size())};
      note(end, fmt::format("this row has {}, but the board has {} columns", plural(x, "cell"),
                            board.columns()));
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
        symbol.kind == sheet::SymbolKind::number)
      out.push_back(name);
  return out;
}

void Reader::line(const Part& part) {
  std::vector<Word> list = words(part);
  if (list.empty()) return;
  const std::string sidesHint =
      fmt::format("the sides are {} and {}", sheet_.tree.sides[0].text, sheet_.tree.sides[1].text);
  if (list.size() == 3 && list[1].text == "to" && list[2].text == "move") {
    int side = sheet_.side(list[0].text);
    if (side < 0) {
      note(list[0].span, fmt::format("\"{}\" is no side", list[0].text),
           didYouMean(list[0].text, {sheet_.tree.sides[0].text, sheet_.tree.sides[1].text},
                      sidesHint));
      return;
    }
    if (turnSaid_) note(part.span, "whose turn it is stands here a second time");
    turnSaid_ = true;
    position_.words[Layout::turn] = static_cast<std::uint64_t>(side);
    return;
  }
  const sheet::Symbol* symbol = sheet_.find(list[0].text);
  using sheet::SymbolKind;
  bool known =
      symbol != nullptr && (symbol->kind == SymbolKind::kind || symbol->kind == SymbolKind::mark ||
                            symbol->kind == SymbolKind::number);
  if (!known) {
    note(list[0].span, fmt::format("a position has no line that begins with \"{}\"", list[0].text),
         didYouMean(list[0].text, names(),
                    fmt::format("say whose turn it is: {} to move", sheet_.tree.sides[0].text)));
    return;
  }
  std::size_t at = 1;
  int side = -1;
  if (list.size() > 2 && list[1].text == "of") {
    side = sheet_.side(list[2].text);
    if (side < 0) {
      note(list[2].span, fmt::format("\"{}\" is no side", list[2].text), sidesHint);
      return;
    }
    at = 3;
  }
  bool each = symbol->kind == SymbolKind::kind ||
              (symbol->kind == SymbolKind::mark && sheet_.tree.marks[symbol->index].each) ||
              (symbol->kind == SymbolKind::number && sheet_.tree.numbers[symbol->index].each);
  if (each != (side >= 0)) {
    note(list[0].span,
         each ? fmt::format("whose? \"{}\" belongs to a side", list[0].text)
              : fmt::format("\"{}\" is one for both sides", list[0].text),
         each ? fmt::format("say: {} of {} ...", list[0].text, sheet_.tree.sides[0].text) : "");
    return;
  }
  if (symbol->kind == SymbolKind::number) {
    bool negative = at < list.size() && list[at].text[0] == '-';
    std::optional<unsigned long long> value;
    if (at + 1 == list.size())
      value = wholeNumber(std::string_view(list[at].text).substr(negative ? 1 : 0),
                          1'000'000'000'000ull);
    if (!value) {
      note(list.back().span, fmt::format("one number should follow \"{}\"", list[0].text));
      return;
    }
    std::int64_t number = static_cast<std::int64_t>(*value);
    position_.words[layout_.numbers[symbol->index][std::max(side, 0)]] =
        static_cast<std::uint64_t>(negative ? -number : number);
    return;
  }
  for (; at < list.size(); ++at) {
    std::optional<Cell> cell = sheet_.board.find(list[at].text);
    if (!cell) {
      note(list[at].span, fmt::format("there is no cell \"{}\"", list[at].text),
           didYouMean(list[at].text, sheet_.board.labels(),
                      fmt::format("cells run from {} to {}", sheet_.board.labels().front(),
                                  sheet_.board.labels().back())));
      return;
    }
    if (symbol->kind == SymbolKind::kind)
      put(*cell, symbol->index, side, list[at].span);
    else
      position_.words[layout_.marks[symbol->index][std::max(side, 0)] + *cell / 64] |=
          std::uint64_t{1} << (*cell % 64);
  }
}

bool isPictureText(std::string_view text) {
  return text.find('/') != text.npos || trimmed(text).find(' ') == std::string_view::npos;
}

}  // namespace

Position emptyPosition(const Checked& sheet, const Layout& layout) {
  Position position;
  position.words.assign(layout.words, 0);
  setCells(position, layout.empty, sheet.board.all(), sheet.board.size());
  return position;
}

CellSet cellsAt(const Position& position, Slot slot, int size) {
  CellSet out;
  for (Cell cell = 0; cell < size; ++cell)
    if ((position.words[slot + cell / 64] >> (cell % 64)) & 1) out.set(cell);
  return out;
}

void setCells(Position& position, Slot slot, const CellSet& cells, int size) {
  for (Cell cell = 0; cell < size; ++cell) {
    std::uint64_t bit = std::uint64_t{1} << (cell % 64);
    if (cells[cell])
      position.words[slot + cell / 64] |= bit;
    else
      position.words[slot + cell / 64] &= ~bit;
  }
}

std::optional<Piece> pieceOf(const Layout& layout, const Position& position, Cell cell) {
  auto has = [&](Slot slot) {
    return ((position.words[slot + cell / 64] >> (cell % 64)) & 1) != 0;
  };
  for (int side = 0; side < 2; ++side) {
    if (!has(layout.sides[side])) continue;
    for (std::size_t kind = 0; kind < layout.kinds.size(); ++kind)
      if (has(layout.kinds[kind])) return Piece{static_cast<int>(kind), side};
    return Piece{0, side};
  }
  return std::nullopt;
}

Position readBlock(const Checked& sheet, const Layout& layout, const sheet::Source& source,
                   const std::vector<sheet::Block>& lines, std::vector<Diagnostic>& found) {
  Reader reader(sheet, layout, source, found);
  std::vector<Part> rows, rest;
  for (const sheet::Block& block : lines) {
    // A block's line may hold several parts, as a one-line text does.
    std::size_t from = 0;
    std::vector<std::string> symbols = utf8Symbols(block.raw);
    std::string part;
    int column = block.span.column;
    std::vector<Part> parts;
    for (from = 0; from <= symbols.size(); ++from) {
      if (from < symbols.size() && symbols[from] != ";") {
        part += symbols[from];
        continue;
      }
      parts.push_back(
          {part, {block.span.line, column, static_cast<int>(utf8Symbols(part).size())}});
      column = block.span.column + static_cast<int>(from) + 1;
      part.clear();
    }
    for (std::size_t i = 0; i < parts.size(); ++i) {
      bool first = rows.empty() && rest.empty() && i == 0;
      bool oneLine = first && isPictureText(parts[i].text) && !block.pictureRow;
      if (block.pictureRow && i == 0 && rest.empty()) {
        rows.push_back(parts[i]);
      } else if (oneLine) {
        int at = parts[i].span.column;
        std::string row;
        std::vector<std::string> all = utf8Symbols(parts[i].text);
        int begin = at;
        for (std::size_t k = 0; k <= all.size(); ++k) {
          if (k < all.size() && all[k] != "/") {
            row += all[k];
            continue;
          }
          rows.push_back(
              {row,
               {block.span.line, begin, std::max(1, static_cast<int>(utf8Symbols(row).size()))}});
          begin = at + static_cast<int>(k) + 1;
          row.clear();
        }
      } else {
        rest.push_back(parts[i]);
      }
    }
  }
  if (!rows.empty()) reader.picture(rows);
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

std::string positionLine(const Checked& sheet, const Layout& layout, const Position& position) {
  const Geometry& board = sheet.board;
  std::string out;
  for (int y = 0; y < board.rows(); ++y) {
    if (y > 0) out += "/";
    int run = 0;
    auto flush = [&] {
      if (run > 0) out += std::to_string(run);
      run = 0;
    };
    for (int x = 0; x < board.columns(); ++x) {
      Cell cell = board.cellAt(x, y);
      std::optional<Piece> piece = pieceOf(layout, position, cell);
      if (!board.has(cell)) {
        flush();
        out += "_";
      } else if (!piece) {
        ++run;
      } else {
        flush();
        out += sheet.tree.pieces[piece->kind].letters[piece->side];
      }
    }
    flush();
  }
  auto cells = [&](const CellSet& set) {
    std::string text;
    for (Cell cell = 0; cell < board.size(); ++cell)
      if (set[cell]) text += " " + board.label(cell);
    return text;
  };
  auto state = [&](const std::vector<sheet::StateDecl>& list,
                   const std::vector<std::array<Slot, 2>>& slots, auto&& valueText) {
    for (std::size_t i = 0; i < list.size(); ++i) {
      for (int side = 0; side < (list[i].each ? 2 : 1); ++side) {
        std::string value = valueText(slots[i][side]);
        if (value.empty()) continue;
        out += "; " + list[i].name.text;
        if (list[i].each) out += " of " + sheet.tree.sides[side].text;
        out += value;
      }
    }
  };
  state(sheet.tree.marks, layout.marks,
        [&](Slot slot) { return cells(cellsAt(position, slot, board.size())); });
  state(sheet.tree.numbers, layout.numbers, [&](Slot slot) {
    std::int64_t value = static_cast<std::int64_t>(position.words[slot]);
    return value == 0 ? std::string() : fmt::format(" {}", value);
  });
  return out + "; " + sheet.tree.sides[position.words[Layout::turn]].text + " to move";
}

}  // namespace ninepegs
