#include "ninepegs/sheet/words/explain.hpp"

#include <fmt/format.h>

#include "ninepegs/base/text.hpp"

namespace ninepegs::sheet {
namespace {

using namespace rules;

class Explainer {
 public:
  explicit Explainer(const Rules& rules) : rules_(rules) {}

  std::vector<Explanation> run() {
    board();
    pieces();
    memory();
    names();
    for (const MoveRule& move : rules_.moves) {
      begin(fmt::format("Move \"{}\"", move.name));
      statements(move.body, 0);
    }
    for (const AfterRule& after : rules_.afters) {
      std::vector<std::string> names;
      for (int move : after.moves) names.push_back(rules_.moves[move].name);
      begin(names.empty() ? "At the end of every move"
                          : "At the end of the moves " + joined(names, ", "));
      statements(after.body, 0);
    }
    turn();
    ends();
    views();
    rest();
    return std::move(out_);
  }

 private:
  void begin(const std::string& heading) { out_.push_back({heading, {}}); }
  void say(int depth, Span span, const std::string& text) {
    out_.back().sentences.push_back({depth, span.line, text});
  }
  std::string words(const TermPtr& term) const { return inWords(rules_, *term); }

  void board() {
    const BoardRule& board = rules_.boardRule;
    begin("Sides and board");
    say(0, rules_.sidesSpan,
        fmt::format("{} moves first, then {}, in turn.", rules_.sides[0], rules_.sides[1]));
    std::string cells = plural(static_cast<long long>(rules_.board.all().count()), "cell");
    std::string shape;
    switch (board.kind) {
      case Shape::square:
        shape = fmt::format("a square grid of {} columns and {} rows", board.columns, board.rows);
        if (board.levels > 1) shape += fmt::format(" on {} levels", board.levels);
        break;
      case Shape::hexagon:
        shape = fmt::format("a hexagon of hexes, {} on a side", board.columns);
        break;
      case Shape::rhombus:
        shape =
            fmt::format("a rhombus of hexes, {} columns and {} rows", board.columns, board.rows);
        break;
      case Shape::points:
        shape = fmt::format("points joined by {}",
                            plural(static_cast<long long>(board.lines.size()), "line"));
        break;
    }
    say(0, board.span, fmt::format("The board is {}: {}.", shape, cells));
    if (board.numbered) say(0, board.span, "Its cells are numbered from 1 on in reading order.");
    if (board.rowsFromTop) say(0, board.span, "Row 1 is drawn at the top.");
    if (board.without) say(0, board.span, fmt::format("Left out of it: {}.", words(board.without)));
    if (board.joinLeftRight) say(0, board.span, "Its left and right edges are joined.");
    if (board.joinTopBottom) say(0, board.span, "Its top and bottom edges are joined.");
    if (board.oneEach) say(0, board.span, "Each side has a board of its own.");
  }

  void pieces() {
    begin("Pieces");
    for (const PieceKind& piece : rules_.kinds) {
      std::string text = withArticle(piece.name);
      text[0] = 'A';
      if (piece.neutral)
        text += fmt::format(", written {}, belongs to nobody", piece.letters[0]);
      else if (piece.only >= 0)
        text += fmt::format(" is of {} only", rules_.sides[piece.only]);
      else
        text += fmt::format(" is written {} for {} and {} for {}", piece.letters[0],
                            rules_.sides[0], piece.letters[1], rules_.sides[1]);
      for (const PieceKind::Value& value : piece.values)
        text += fmt::format("; {} {}", rules_.properties[value.property], value.value);
      if (!piece.edges.empty()) text += "; on its sides, " + edges(piece);
      if (piece.secret) text += "; only its owner sees it";
      if (piece.reach) text += fmt::format("; it attacks {}", words(piece.reach));
      say(0, piece.span, text + ".");
    }
    if (rules_.kinds.empty()) out_.pop_back();
  }

  std::string edges(const PieceKind& piece) const {
    std::vector<std::string> out;
    for (std::size_t i = 0; i < piece.edges.size(); ++i)
      out.push_back(fmt::format("{} {}", rules_.board.directions()[i].name, piece.edges[i]));
    return joined(out, ", ");
  }

  void memory() {
    begin("What is remembered");
    auto whose = [](bool each) { return each ? ", one for each side" : ""; };
    for (const MarkRule& mark : rules_.marks)
      say(0, mark.span, fmt::format("A set of cells, {}{}.", mark.name, whose(mark.each)));
    for (const NumberRule& number : rules_.numbers)
      say(0, number.span,
          fmt::format("A number, {}{}.", number.name,
                      number.onCells ? ", on every cell" : whose(number.each)));
    for (const RememberedRule& cell : rules_.remembered)
      say(0, cell.span,
          fmt::format("A cell, {}{}{}.", cell.name, whose(cell.each),
                      cell.lastsOneMove ? ", forgotten after one move" : ""));
    if (out_.back().sentences.empty()) out_.pop_back();
  }

  // What the sheet's own words stand for.
  void names() {
    begin("Words of the sheet");
    for (const Group& group : rules_.groups) {
      std::vector<std::string> kinds;
      for (int kind : group.kinds) kinds.push_back(rules_.kinds[kind].name);
      say(0, group.span, fmt::format("\"{}\": {}.", group.name, joined(kinds, " or ")));
    }
    for (const ZoneRule& zone : rules_.zones)
      say(0, zone.span, fmt::format("\"{}\": {}.", zone.name, forSides(zone.bySide, [&](int side) {
                                      return words(zone.says[side]);
                                    })));
    for (const TrackRule& track : rules_.tracks)
      say(0, track.span,
          fmt::format("\"{}\", cells in order: {}.", track.name,
                      forSides(track.bySide, [&](int side) {
                        std::vector<std::string> cells;
                        for (Cell cell : track.cells[side])
                          cells.push_back(rules_.board.label(cell));
                        return joined(cells, " ");
                      })));
    for (const Definition& define : rules_.definitions) {
      std::string of;
      for (const std::string& parameter : define.parameters)
        of += fmt::format("{}`{}`", of.empty() ? " of " : ", ", parameter);
      say(0, define.span,
          fmt::format("\"{}\"{}: {}.", define.name, of,
                      define.body ? words(define.body) : "nothing uses it"));
    }
    if (out_.back().sentences.empty()) out_.pop_back();
  }

  template <class Text>
  std::string forSides(bool bySide, Text text) const {
    if (!bySide) return text(0);
    return fmt::format("{} for {}; {} for {}", text(0), rules_.sides[0], text(1), rules_.sides[1]);
  }

  void statements(const Clauses& list, int depth) {
    for (const Clause& one : list) {
      say(depth, one.span, clauseInWords(rules_, one));
      const When* when = as<When>(one);
      for (const Clauses* deeper : inner(one)) {
        if (deeper->empty()) continue;
        if (when != nullptr && deeper == &when->otherwise)
          say(depth, deeper->front().span, "Otherwise:");
        statements(*deeper, depth + 1);
      }
    }
  }

  void turn() {
    begin("Turns");
    if (!rules_.turn) {
      out_.back().sentences.push_back(
          {0, 0, "In a turn, any of the moves may be made; nobody may pass."});
      return;
    }
    std::vector<std::string> tiers;
    for (const auto& tier : rules_.turn->tiers) {
      std::vector<std::string> names;
      for (int move : tier) names.push_back(move == passMove ? "pass" : rules_.moves[move].name);
      tiers.push_back(joined(names, " or "));
    }
    std::string text = "A turn is " + tiers[0];
    for (std::size_t i = 1; i < tiers.size(); ++i)
      text += fmt::format("; only if that is not possible, {}", tiers[i]);
    say(0, rules_.turn->span, text + ".");
  }

  void ends() {
    for (const ForbidRule& forbid : rules_.forbids) {
      if (&forbid == &rules_.forbids.front()) begin("Moves that are not allowed");
      say(0, forbid.span,
          fmt::format("A move after which {} ({}).", words(forbid.condition), forbid.reason));
    }
    begin("The end");
    bool first = true;
    for (const EndRule& end : rules_.ends) {
      std::string result;
      switch (end.kind) {
        case EndKind::moverWins:
          result = "who has just moved wins";
          break;
        case EndKind::moverLoses:
          result = "who has just moved loses";
          break;
        case EndKind::sideWins:
          result = fmt::format("{} {}", rules_.sides[end.side], end.sideLoses ? "loses" : "wins");
          break;
        case EndKind::draw:
          result = "the game is drawn";
          break;
        case EndKind::leader:
          result = fmt::format("the side with the greater value of {} wins, and level sides draw",
                               words(end.measure));
          break;
      }
      std::string names = end.name;
      if (end.kind == EndKind::leader) names += "; level: " + end.drawName;
      say(0, end.span,
          fmt::format("{} {}: {} ({}){}", first ? "If" : "Else, if", words(end.condition), result,
                      names, end.claim ? "; the players may play on." : "."));
      first = false;
    }
    if (rules_.mayLast > 0)
      say(0, rules_.mayLastSpan, fmt::format("A game may last {} plies.", rules_.mayLast));
  }

  void views() {
    if (rules_.sees.empty()) return;
    begin("What each side sees");
    for (const SeesRule& one : rules_.sees)
      say(0, one.span,
          one.letter.empty() ? fmt::format("In words: {}.", words(one.what))
                             : fmt::format("On {} board, {} for {}.",
                                           one.theirBoard ? "the other side's" : "its own",
                                           one.letter, words(one.what)));
  }

  void rest() {
    if (rules_.repetition) {
      begin("When a position is the same again");
      std::vector<std::string> compared;
      for (const Compared& one : rules_.repetition->compares)
        compared.push_back(rules_.nameOf(one));
      say(0, rules_.repetition->span, fmt::format("If these are: {}.", joined(compared, ", ")));
    }
    if (rules_.worth) {
      begin("What a position is worth");
      say(0, rules_.worthSpan, fmt::format("For a side: {}.", words(rules_.worth)));
    }
    if (!rules_.always.empty()) begin("What must always hold, for either side");
    for (const AlwaysRule& always : rules_.always) {
      std::string change = always.change > 0   ? " never shrinks"
                           : always.change < 0 ? " never grows"
                                               : "";
      std::string text = words(always.term) + change + ".";
      text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
      say(0, always.span, text);
    }
    if (!rules_.symmetries.empty()) begin("Where the rules look the same");
    for (const SymmetryRule& symmetry : rules_.symmetries)
      say(0, symmetry.span,
          fmt::format("Under {}{}.", writtenName(symmetry),
                      symmetry.every ? waysOf(rules_.board.symmetries("all")) : ""));
  }

  // Which turns and mirrorings a name stands for, and what they do to a corner of the board.
  std::string waysOf(const std::vector<Symmetry>& ways) const {
    std::vector<std::string> out;
    for (const Symmetry& way : ways) {
      Cell from = 0;
      while (from < rules_.board.size() && !rules_.board.has(from)) ++from;
      out.push_back(fmt::format("{}, such as {} to {}", way.name, rules_.board.label(from),
                                rules_.board.label(way.image[from])));
    }
    return out.empty() ? "" : " (" + joined(out, "; ") + ")";
  }

  const Rules& rules_;
  std::vector<Explanation> out_;
};

}  // namespace

std::vector<Explanation> explain(const Rules& rules) {
  return Explainer(rules).run();
}

}  // namespace ninepegs::sheet
