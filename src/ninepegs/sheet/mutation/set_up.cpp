// The start, the board's edges, and what pieces are.
#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/mutation/parts.hpp"

namespace ninepegs::rules {
namespace {

// The rows of a picture among the blocks, in order: where each stands.
using Place = std::vector<std::size_t>;
void rowsOf(const std::vector<sheet::Block>& blocks, Place at, std::vector<Place>& out) {
  for (std::size_t i = 0; i < blocks.size(); ++i) {
    Place here = at;
    here.push_back(i);
    if (blocks[i].pictureRow) out.push_back(here);
    rowsOf(blocks[i].children, here, out);
  }
}

template <class Blocks>
auto& blockAt(Blocks& blocks, const Place& place) {
  auto* list = &blocks;
  for (std::size_t i = 0; i + 1 < place.size(); ++i) list = &(*list)[place[i]].children;
  return (*list)[place.back()];
}

class SetUp {
 public:
  SetUp(const Rules& rules, std::vector<Mutation>& out) : rules_(rules), out_(out) {}

  void all() {
    edges();
    for (std::size_t i = 0; i < rules_.kinds.size(); ++i) kind(i);
    if (!rules_.start) {
      turn();
      return;
    }
    rowsOf(rules_.start->lines, {}, rows_);
    for (std::size_t row = 0; row < rows_.size(); ++row) pieces(row);
    for (std::size_t i = 0; i < rules_.start->lines.size(); ++i) numbers(i);
    turn();
  }

 private:
  template <class Make>
  void add(Slip slip, int line, const std::string& was, const std::string& now, Make make) {
    out_.push_back(mutationOf(slip, line, was, now, std::move(make)));
  }

  void edges() {
    if (rules_.boardRule.kind != Shape::square) return;
    auto join = [&](const char* what, bool BoardShape::*which) {
      bool is = rules_.boardRule.*which;
      add(Slip::board, rules_.boardRule.span.line, is ? what : "", is ? "" : what,
          [which](Rules& to) {
            to.boardRule.*which = !(to.boardRule.*which);
            to.board = Geometry::square(to.boardRule);
            if (to.boardRule.without)
              if (std::optional<CellSet> gone = to.constantSet(*to.boardRule.without, 0))
                to.board.leaveOut(*gone);
            workOutZones(to);
          });
    };
    join("joined left to right", &BoardShape::joinLeftRight);
    join("joined top to bottom", &BoardShape::joinTopBottom);
  }

  void kind(std::size_t i) {
    const PieceKind& kind = rules_.kinds[i];
    for (std::size_t k = 0; k < kind.values.size(); ++k)
      add(Slip::number, kind.span.line,
          fmt::format("{} {}", rules_.properties[kind.values[k].property], kind.values[k].value),
          fmt::format("{} {}", rules_.properties[kind.values[k].property],
                      kind.values[k].value + 1),
          [i, k](Rules& to) { ++to.kinds[i].values[k].value; });
    if (!kind.edges.empty()) {  // one of its numbers, another for each kind
      std::size_t which = i % kind.edges.size();
      std::vector<std::string> was, now;
      for (std::size_t k = 0; k < kind.edges.size(); ++k) {
        was.push_back(std::to_string(kind.edges[k]));
        now.push_back(std::to_string(kind.edges[k] + (k == which ? 1 : 0)));
      }
      add(Slip::number, kind.span.line, kind.name + " edges " + joined(was, " "),
          "edges " + joined(now, " "), [i, which](Rules& to) { ++to.kinds[i].edges[which]; });
    }
    if (kind.secret)
      add(Slip::leftOut, kind.span.line, kind.name + " secret", kind.name, [i](Rules& to) {
        to.kinds[i].secret = false;
        to.hasSecrets = false;
        for (const PieceKind& one : to.kinds) to.hasSecrets = to.hasSecrets || one.secret;
      });
  }

  // A piece left out, moved one place aside, or given to the other side: once a row, where it first
  // can be.
  void pieces(std::size_t row) {
    const sheet::Block& block = blockAt(rules_.start->lines, rows_[row]);
    std::vector<std::string> symbols = utf8Symbols(block.raw);
    std::vector<std::size_t> cells;
    for (std::size_t i = 0; i < symbols.size(); ++i)
      if (symbols[i] != " ") cells.push_back(i);
    auto isPiece = [&](std::size_t cell) {
      const std::string& symbol = symbols[cells[cell]];
      return symbol != "." && symbol != "_" && (symbol[0] < '0' || symbol[0] > '9');
    };
    auto becomes = [&](std::vector<std::string> now) {
      std::string text;
      for (const std::string& symbol : now) text += symbol;
      add(Slip::place, block.span.line, block.raw, text,
          [place = rows_[row], text](Rules& to) { blockAt(to.start->lines, place).raw = text; });
    };
    // The first cell at which the row can be changed so.
    auto once = [&](auto change) {
      for (std::size_t cell = 0; cell < cells.size(); ++cell) {
        std::vector<std::string> now = symbols;
        if (!change(now, cell)) continue;
        becomes(now);
        return;
      }
    };
    once([&](std::vector<std::string>& now, std::size_t cell) {
      now[cells[cell]] = ".";
      return isPiece(cell);
    });
    once([&](std::vector<std::string>& now, std::size_t cell) {
      if (cell + 1 == cells.size() || (!isPiece(cell) && !isPiece(cell + 1))) return false;
      std::string &one = now[cells[cell]], &next = now[cells[cell + 1]];
      if (one == next || one == "_" || next == "_") return false;
      std::swap(one, next);
      return true;
    });
    once([&](std::vector<std::string>& now, std::size_t cell) {
      std::string& letter = now[cells[cell]];
      letter = otherSides(letter);
      return !letter.empty();
    });
  }
  std::string otherSides(const std::string& letter) const {
    if (rules_.layered()) return "";
    for (const PieceKind& kind : rules_.kinds)
      for (int side = 0; side < 2; ++side)
        if (!kind.neutral && kind.letters[side] == letter) return kind.letters[1 - side];
    return "";
  }

  // A line such as `hand of each 9 man`, `heap 3 5 7`: its first numbers by one, and two of them
  // exchanged.
  void numbers(std::size_t at) {
    constexpr int looked = 4;
    const sheet::Block& block = rules_.start->lines[at];
    if (block.pictureRow) return;
    auto becomes = [&](const std::string& text) {
      add(Slip::number, block.span.line, block.raw, text,
          [at, text](Rules& to) { to.start->lines[at].raw = text; });
    };
    std::size_t from = 0, before = std::string::npos;
    std::string last;
    int many = 0;
    for (const sheet::Token& token : block.tokens) {
      if (token.kind != sheet::TokenKind::number || many++ == looked) continue;
      std::string number = std::to_string(token.number);
      std::size_t place = block.raw.find(number, from);
      if (place == std::string::npos) return;
      from = place + number.size();
      for (int by : {1, -1}) {
        if (token.number + by < 0) continue;
        std::string text = block.raw;
        becomes(text.replace(place, number.size(), std::to_string(token.number + by)));
      }
      if (token.number > 1) {
        std::string text = block.raw;
        becomes(text.replace(place, number.size(), "0"));
      }
      if (before != std::string::npos && last != number) {
        std::string text = block.raw;
        text.replace(place, number.size(), last);
        becomes(text.replace(before, last.size(), number));
      }
      before = place;
      last = number;
    }
  }

  // The other side begins.
  void turn() {
    std::string second = rules_.sides[1] + " to move", first = rules_.sides[0] + " to move";
    if (rules_.start)
      for (std::size_t i = 0; i < rules_.start->lines.size(); ++i) {
        const sheet::Block& block = rules_.start->lines[i];
        if (block.raw != second && block.raw != first) continue;
        std::string text = block.raw == first ? second : first;
        add(Slip::turn, block.span.line, block.raw, text,
            [i, text](Rules& to) { to.start->lines[i].raw = text; });
        return;
      }
    int line = rules_.start ? rules_.start->span.line : rules_.sidesSpan.line;
    add(Slip::turn, line, "", second, [second](Rules& to) {
      sheet::Block block;
      block.raw = second;
      block.span = to.sidesSpan;
      if (!to.start) to.start = sheet::PositionDecl{};
      to.start->lines.push_back(block);
    });
  }

  const Rules& rules_;
  std::vector<Mutation>& out_;
  std::vector<Place> rows_;
};

}  // namespace

void mutationsOfSetUp(const Rules& rules, std::vector<Mutation>& out) {
  SetUp(rules, out).all();
}

}  // namespace ninepegs::rules
