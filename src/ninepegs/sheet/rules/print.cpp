// The sections of a sheet.
#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/printer.hpp"

namespace ninepegs::rules {
namespace {

class Printer {
 public:
  explicit Printer(const Rules& rules) : rules_(rules) {}

  std::string run() {
    say(0, "game " + rules_.game);
    if (!rules_.title.empty()) say(0, fmt::format("title \"{}\"", rules_.title));
    if (!rules_.about.empty()) say(0, "about");
    for (const std::string& line : rules_.about) say(1, line);
    say(0, fmt::format("sides {} and {}", rules_.sides[0], rules_.sides[1]));
    board();
    for (const PieceKind& piece : rules_.kinds) this->piece(piece);
    names();
    if (rules_.start) {
      say(0, "start");
      blocks(1, rules_.start->lines);
    }
    for (const MoveRule& move : rules_.moves) {
      say(0, "move " + move.name);
      out_ += toText(rules_, move.body, 1);
    }
    for (const AfterRule& after : rules_.afters) {
      say(0, "after " + (after.moves.empty() ? "every move" : moveNames(after.moves, ", ")));
      out_ += toText(rules_, after.body, 1);
    }
    turn();
    for (const ForbidRule& forbid : rules_.forbids)
      say(0, fmt::format("forbid \"{}\" when {}", forbid.reason, of(forbid.condition)));
    repetition();
    notation();
    if (!rules_.ends.empty()) say(0, "ends");
    for (const EndRule& end : rules_.ends) this->end(end);
    if (rules_.mayLast > 0) say(1, fmt::format("may last {} plies", rules_.mayLast));
    if (!rules_.sees.empty()) say(0, "each side sees");
    for (const SeesRule& sees : rules_.sees) this->sees(sees);
    worth();
    always();
    picture();
    for (const CaseRule& one : rules_.cases)
      if (one.variant == rules_.variant) this->one(one);
    return std::move(out_);
  }

 private:
  void say(int depth, const std::string& line) {
    out_ += std::string(static_cast<std::size_t>(depth) * 2, ' ') + line + "\n";
  }
  std::string of(const TermPtr& term) const { return toText(rules_, *term); }
  std::string cell(Cell cell) const { return rules_.labelOf(cell); }
  std::string forSide(int side) const { return " for " + rules_.sides[side]; }

  void blocks(int depth, const std::vector<sheet::Block>& list) {
    for (const sheet::Block& block : list) {
      say(depth, block.raw);
      blocks(depth + 1, block.children);
    }
  }

  void board() {
    const BoardRule& board = rules_.boardRule;
    std::string line = "board ";
    switch (board.kind) {
      case Shape::square:
        line += fmt::format("square {} x {}", board.columns, board.rows);
        if (board.levels > 1) line += fmt::format(" x {}", board.levels);
        break;
      case Shape::hexagon:
        line += fmt::format("hexagon {}", board.columns);
        break;
      case Shape::rhombus:
        line += fmt::format("rhombus {} x {}", board.columns, board.rows);
        break;
      case Shape::points:
        line += "points";
        break;
    }
    if (board.numbered) line += ", labels numbered";
    if (board.rowsFromTop) line += ", rows from top";
    if (board.joinLeftRight) line += ", joined left to right";
    if (board.joinTopBottom) line += ", joined top to bottom";
    if (board.oneEach) line += ", one each";
    if (board.without) {
      Rules whole = rules_;  // labels are counted before cells are left out
      if (board.numbered) whole.board = Geometry::square(board);
      line += ", without " + toText(whole, *board.without);
    }
    say(0, line);
    for (const auto& points : board.lines) say(1, "line " + joined(points, " "));
    if (!rules_.facingGiven) return;
    std::vector<std::string> ways;
    for (int side = 0; side < 2; ++side)
      if (int facing = rules_.facing[side]; facing >= 0)
        ways.push_back(rules_.board.directions()[facing].name + forSide(side));
    say(0, "facing " + joined(ways, ", "));
  }

  void piece(const PieceKind& piece) {
    std::string line = "piece " + piece.name;
    if (piece.only >= 0 || piece.neutral || rules_.layered())
      line += " " + piece.letters[piece.only == 1 ? 1 : 0];
    else
      line += " " + piece.letters[0] + " " + piece.letters[1];
    if (piece.only >= 0) line += forSide(piece.only);
    if (piece.neutral) line += " neutral";
    if (piece.secret) line += " secret";
    for (const PieceKind::Value& value : piece.values)
      line += fmt::format(" {} {}", rules_.properties[value.property], value.value);
    if (!piece.edges.empty()) line += " edges";
    for (long long edge : piece.edges) line += fmt::format(" {}", edge);
    if (piece.reach) line += " reach " + of(piece.reach);
    say(0, line);
  }

  template <class Text>
  std::string bySide(bool bySide, Text text) const {
    return bySide ? text(0) + forSide(0) + ", " + text(1) + forSide(1) : text(0);
  }

  void names() {
    for (const Group& group : rules_.groups) {
      std::vector<std::string> kinds;
      for (int kind : group.kinds) kinds.push_back(rules_.kinds[kind].name);
      say(0, fmt::format("group {} = {}", group.name, joined(kinds, ", ")));
    }
    for (const ZoneRule& zone : rules_.zones)
      say(0, fmt::format("zone {} = {}", zone.name,
                         bySide(zone.bySide, [&](int side) { return of(zone.says[side]); })));
    for (const MarkRule& mark : rules_.marks)
      say(0, fmt::format("mark {}{}", mark.name, mark.each ? " each" : ""));
    for (const NumberRule& number : rules_.numbers) {
      std::string line = fmt::format("number {}{}", number.name,
                                     number.onCells ? " on cells"
                                     : number.each  ? " each"
                                                    : "");
      if (number.given)
        line += " = " +
                bySide(number.each, [&](int side) { return std::to_string(number.start[side]); });
      say(0, line);
    }
    for (const RememberedRule& cell : rules_.remembered)
      say(0, fmt::format("cell {}{}{}", cell.name, cell.each ? " each" : "",
                         cell.lastsOneMove ? ", lasts one move" : ""));
    for (const TrackRule& track : rules_.tracks)
      say(0, fmt::format("track {} = {}", track.name, bySide(track.bySide, [&](int side) {
                           std::vector<std::string> cells;
                           for (Cell one : track.cells[side]) cells.push_back(cell(one));
                           return joined(cells, " ");
                         })));
    for (const Definition& define : rules_.definitions) {
      if (!define.body) continue;
      std::string parameters = joined(define.parameters, ", ");
      say(0, fmt::format("define {}{} = {}", define.name,
                         parameters.empty() ? "" : "(" + parameters + ")", of(define.body)));
    }
  }

  std::string moveNames(const std::vector<int>& moves, const std::string& joint) const {
    std::vector<std::string> names;
    for (int move : moves) names.push_back(move == passMove ? "pass" : rules_.moves[move].name);
    return joined(names, joint);
  }

  void turn() {
    if (!rules_.turn) return;
    std::vector<std::string> tiers;
    for (const std::vector<int>& tier : rules_.turn->tiers)
      tiers.push_back(moveNames(tier, " or "));
    say(0, "turn " + joined(tiers, " else "));
  }

  void repetition() {
    if (!rules_.repetition) return;
    std::vector<std::string> all;
    for (const Compared& one : rules_.repetition->compares) all.push_back(rules_.nameOf(one));
    say(0, "repetition compares " + joined(all, ", "));
  }

  void notation() {
    if (!rules_.notation) return;
    const NotationRule& notation = *rules_.notation;
    say(0, "notation " + notation.format);
    std::vector<std::string> rights;
    for (const auto& [letter, at] : notation.rights) rights.push_back(letter + " " + cell(at));
    if (!rights.empty())
      say(1,
          fmt::format("castling {} in {}", joined(rights, ", "), rules_.marks[notation.mark].name));
    if (notation.target >= 0) say(1, "target " + rules_.remembered[notation.target].name);
    if (notation.clock >= 0) say(1, "clock " + rules_.numbers[notation.clock].name);
    if (notation.pawn >= 0) say(1, "unnamed " + rules_.kinds[notation.pawn].name);
    if (notation.castle >= 0) say(1, "castles " + rules_.moves[notation.castle].name);
    if (notation.check) say(1, "check " + of(notation.check));
  }

  void end(const EndRule& end) {
    using sheet::EndKind;
    std::string line = end.claim ? "claim " : "";
    switch (end.kind) {
      case EndKind::moverWins:
        line += fmt::format("mover wins \"{}\"", end.name);
        break;
      case EndKind::moverLoses:
        line += fmt::format("mover loses \"{}\"", end.name);
        break;
      case EndKind::sideWins:
        line += fmt::format("{} {} \"{}\"", rules_.sides[end.side],
                            end.sideLoses ? "loses" : "wins", end.name);
        break;
      case EndKind::draw:
        line += fmt::format("draw \"{}\"", end.name);
        break;
      case EndKind::leader:
        line += fmt::format("leader in {} wins \"{}\" or draw \"{}\"", of(end.measure), end.name,
                            end.drawName);
        break;
    }
    line += " when " + of(end.condition);
    if (end.showing) line += " showing " + of(end.showing);
    say(1, line);
  }

  void sees(const SeesRule& sees) {
    std::string line = of(sees.what);
    if (!sees.letter.empty()) line += " as " + sees.letter;
    if (sees.theirBoard)
      line += " on their board";
    else if (!sees.letter.empty() && rules_.layered())
      line += " on my board";
    say(1, line);
  }

  void worth() {
    if (!rules_.worth) return;
    if (rules_.weights.empty()) return say(0, "worth " + of(rules_.worth));
    say(0, "worth");
    for (const PictureRow& row : rules_.board.picture()) {
      std::vector<std::string> numbers;
      for (Cell cell : row.cells) numbers.push_back(std::to_string(rules_.weights[cell]));
      say(1, joined(numbers, " "));
    }
  }

  void always() {
    if (!rules_.always.empty()) say(0, "always");
    for (const AlwaysRule& always : rules_.always)
      say(1, of(always.term) + (always.change > 0   ? " never shrinks"
                                : always.change < 0 ? " never grows"
                                                    : ""));
    std::vector<std::string> symmetries;
    for (const SymmetryRule& one : rules_.symmetries) symmetries.push_back(writtenName(one));
    if (!symmetries.empty()) say(0, "symmetric under " + joined(symmetries, ", "));
  }

  void picture() {
    const PictureRule& rule = rules_.picture;
    const Looks& looks = rule.looks;
    if (looks.pieces.empty() && looks.marks.empty() && looks.pips.empty() && rule.borders.empty() &&
        rule.edges.empty() && rule.corners.empty())
      return;
    say(0, "picture");
    for (std::size_t kind = 0; kind < looks.pieces.size(); ++kind)
      say(1, rules_.kinds[kind].name + " as " +
                 pieceLooks[static_cast<std::size_t>(looks.pieces[kind])]);
    for (const auto& [mark, look] : looks.marks)
      say(1, mark + " as " + markLooks[static_cast<std::size_t>(look)]);
    for (const std::string& number : looks.pips) say(1, number + " as pips");
    for (const TermPtr& cells : rule.edges) say(1, of(cells) + " as edges");
    for (const TermPtr& cells : rule.corners) say(1, of(cells) + " as corners");
    for (const TermPtr& cells : rule.borders) say(1, "border round " + of(cells));
  }

  void one(const CaseRule& one) {
    say(0, fmt::format("case \"{}\"", one.name));
    if (one.position) {
      say(1, "position");
      blocks(2, one.position->lines);
    }
    for (const CaseStep& step : one.steps) {
      if (step.kind == sheet::ExpectKind::play) {
        say(1, "play " + step.raw);
      } else if (step.kind == sheet::ExpectKind::leaves) {
        say(1, "leaves");
        blocks(2, step.lines);
      } else {
        say(1, "expect " + expected(step));
      }
    }
  }

  std::string expected(const CaseStep& step) const {
    using Kind = sheet::ExpectKind;
    std::string quoted = step.endName.empty() ? "" : fmt::format(" \"{}\"", step.endName);
    switch (step.kind) {
      case Kind::ongoing:
        return "ongoing";
      case Kind::end:
        return step.draw ? "draw" + quoted : step.subject + " wins" + quoted;
      case Kind::legal:
        return "legal " + step.raw;
      case Kind::notLegal:
        return "not legal " + step.raw;
      case Kind::moves:
        return fmt::format("moves{} = {}",
                           step.endName.empty() ? "" : " " + step.endName + " " + step.subject,
                           step.raw);
      case Kind::moveCount:
        return fmt::format("{} moves", step.numbers[0]);
      case Kind::sequences: {
        std::string out =
            fmt::format("sequences {} to {} =", step.first, step.first + step.numbers.size() - 1);
        for (unsigned long long number : step.numbers) out += fmt::format(" {}", number);
        return out;
      }
      case Kind::turn:
        return step.subject + " to move";
      case Kind::condition:
        return of(step.condition);
      case Kind::told:
        return step.endName.empty() ? "told nothing" : "told" + quoted;
      case Kind::seenBy:
        return fmt::format("seen by {}{}{}", step.subject, quoted,
                           step.numbers.empty() ? "" : fmt::format(" at ply {}", step.numbers[0]));
      case Kind::sees:
        return fmt::format("{} sees \"{}\"", step.subject, step.endName);
      case Kind::edges: {
        std::string out = fmt::format("edges of {} =", step.subject);
        for (unsigned long long number : step.numbers) out += fmt::format(" {}", number);
        return out;
      }
      case Kind::play:
      case Kind::leaves:
        break;
    }
    return "";
  }

  const Rules& rules_;
  std::string out_;
};

}  // namespace

std::string toText(const Rules& rules) {
  return Printer(rules).run();
}

}  // namespace ninepegs::rules
