#include "ninepegs/sheet/words/explain.hpp"

#include <fmt/format.h>

#include "ninepegs/base/text.hpp"

namespace ninepegs::sheet {
namespace {

using Kind = StatementKind;

std::string withArticle(const std::string& word) {
  bool vowel = std::string_view("aeiouAEIOU").find(word[0]) != std::string_view::npos;
  return (vowel ? "an " : "a ") + word;
}

class Explainer {
 public:
  explicit Explainer(const Checked& sheet) : sheet_(sheet), tree_(sheet.tree) {}

  std::vector<Explanation> run() {
    board();
    pieces();
    memory();
    names();
    for (const MoveDecl& move : tree_.moves) {
      begin(fmt::format("Move \"{}\"", move.name.text));
      statements(move.body, 0);
    }
    for (const AfterDecl& after : tree_.afters) {
      std::vector<std::string> names;
      for (const Name& name : after.moves) names.push_back(name.text);
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
  std::string words(const Expr& expr) const { return inWords(sheet_, expr); }

  void board() {
    const BoardDecl& board = tree_.board;
    begin("Sides and board");
    say(0, tree_.sides[0].span,
        fmt::format("{} moves first, then {}, in turn.", tree_.sides[0].text, tree_.sides[1].text));
    std::string cells = plural(static_cast<long long>(sheet_.board.all().count()), "cell");
    std::string shape;
    switch (board.shape) {
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
    if (board.without)
      say(0, board.span, fmt::format("Left out of it: {}.", words(*board.without)));
    if (board.joinLeftRight) say(0, board.span, "Its left and right edges are joined.");
    if (board.joinTopBottom) say(0, board.span, "Its top and bottom edges are joined.");
    if (board.oneEach) say(0, board.span, "Each side has a board of its own.");
  }

  void pieces() {
    begin("Pieces");
    for (const PieceDecl& piece : tree_.pieces) {
      std::string text = withArticle(piece.name.text);
      text[0] = 'A';
      if (piece.neutral)
        text += fmt::format(", written {}, belongs to nobody", piece.letters[0]);
      else if (!piece.only.text.empty())
        text += fmt::format(" is of {} only", piece.only.text);
      else
        text += fmt::format(" is written {} for {} and {} for {}", piece.letters[0],
                            tree_.sides[0].text, piece.letters[1], tree_.sides[1].text);
      for (const auto& [name, value] : piece.values)
        text += fmt::format("; {} {}", name.text, value);
      if (!piece.edges.empty()) text += "; on its sides, " + edges(piece);
      if (piece.secret) text += "; only its owner sees it";
      if (piece.reach) text += fmt::format("; it attacks {}", words(*piece.reach));
      say(0, piece.name.span, text + ".");
    }
    if (tree_.pieces.empty()) out_.pop_back();
  }

  std::string edges(const PieceDecl& piece) const {
    std::vector<std::string> out;
    for (std::size_t i = 0; i < piece.edges.size(); ++i)
      out.push_back(fmt::format("{} {}", sheet_.board.directions()[i].name, piece.edges[i]));
    return joined(out, ", ");
  }

  void memory() {
    begin("What is remembered");
    auto whose = [](bool each) { return each ? ", one for each side" : ""; };
    for (const StateDecl& mark : tree_.marks)
      say(0, mark.name.span,
          fmt::format("A set of cells, {}{}.", mark.name.text, whose(mark.each)));
    for (const StateDecl& number : tree_.numbers)
      say(0, number.name.span,
          fmt::format("A number, {}{}.", number.name.text,
                      number.onCells ? ", on every cell" : whose(number.each)));
    for (const StateDecl& cell : tree_.cells)
      say(0, cell.name.span,
          fmt::format("A cell, {}{}{}.", cell.name.text, whose(cell.each),
                      cell.lastsOneMove ? ", forgotten after one move" : ""));
    if (out_.back().sentences.empty()) out_.pop_back();
  }

  // What the sheet's own words stand for.
  void names() {
    begin("Words of the sheet");
    for (const SetDecl& group : tree_.groups) {
      std::vector<std::string> kinds;
      for (const Name& kind : group.members) kinds.push_back(kind.text);
      say(0, group.name.span, fmt::format("\"{}\": {}.", group.name.text, joined(kinds, " or ")));
    }
    for (const SetDecl& zone : tree_.zones)
      say(0, zone.name.span,
          fmt::format("\"{}\": {}.", zone.name.text,
                      forSides(zone.sets, [&](const Expr& set) { return words(set); })));
    for (const TrackDecl& track : tree_.tracks)
      say(0, track.name.span,
          fmt::format("\"{}\", cells in order: {}.", track.name.text,
                      forSides(track.cells, [](const std::vector<Name>& cells) {
                        std::string out;
                        for (const Name& cell : cells) out += (out.empty() ? "" : " ") + cell.text;
                        return out;
                      })));
    for (const DefineDecl& define : tree_.defines) {
      std::string of;
      for (const Name& parameter : define.parameters)
        of += fmt::format("{}`{}`", of.empty() ? " of " : ", ", parameter.text);
      say(0, define.name.span,
          fmt::format("\"{}\"{}: {}.", define.name.text, of, words(define.body)));
    }
    if (out_.back().sentences.empty()) out_.pop_back();
  }

  template <class Entries, class Text>
  std::string forSides(const Entries& entries, Text text) const {
    std::vector<std::string> out;
    for (const auto& [side, what] : entries)
      out.push_back(text(what) + (side ? " for " + side->text : ""));
    return joined(out, "; ");
  }

  void statements(const std::vector<Statement>& list, int depth) {
    for (const Statement& one : list) {
      say(depth, one.span, statement(one));
      statements(one.body, depth + 1);
      if (one.otherwise.empty()) continue;
      say(depth, one.otherwise.front().span, "Otherwise:");
      statements(one.otherwise, depth + 1);
    }
  }

  // A piece of a kind, or of the kind that was chosen under a name.
  std::string ofKind(const std::string& name) const {
    return sheet_.kind(name) >= 0 ? withArticle(name)
                                  : fmt::format("a piece of the kind `{}`", name);
  }

  std::string text(const Statement& one) const {
    std::vector<std::string> parts;
    for (const Expr& part : one.args)
      parts.push_back(part.kind == ExprKind::name && part.plural ? fmt::format("\"{}\"", part.word)
                                                                 : words(part));
    return joined(parts, ", ");
  }

  std::string statement(const Statement& one) const {
    auto arg = [&](std::size_t i) { return words(one.args[i]); };
    std::string owner = one.names.empty()              ? ""
                        : one.names[0].text == "their" ? "the other side's "
                                                       : "the side's own ";
    switch (one.kind) {
      case Kind::pick:
        return fmt::format("Pick `{}` from {}{}.", one.name.text, arg(0),
                           one.ifAny ? ", if there is any" : "");
      case Kind::choose: {
        if (one.choose == ChooseKind::hand)
          return fmt::format("Choose `{}` from the side's hand.", one.name.text);
        if (one.choose == ChooseKind::range)
          return fmt::format("Choose the number `{}` from {} to {}.", one.name.text, arg(0),
                             arg(1));
        std::vector<std::string> kinds;
        for (const Name& kind : one.names) kinds.push_back(kind.text);
        return fmt::format("Choose `{}`: {}.", one.name.text, joined(kinds, ", "));
      }
      case Kind::let:
        return fmt::format("Let `{}` be {}.", one.name.text, arg(0));
      case Kind::set:
        return fmt::format("Set {}{}{} to {}.", owner, one.name.text,
                           one.ifAny ? " of " + arg(1) : "", arg(0));
      case Kind::need:
        return fmt::format("This is allowed only if {}.", arg(0));
      case Kind::put:
        return fmt::format("Put {} on {}{}.", ofKind(one.name.text), arg(0),
                           one.fromHand ? ", from the hand" : "");
      case Kind::shift:
        if (!one.way.empty()) return fmt::format("Move {} one step {}.", arg(0), one.way);
        return fmt::format("Move the piece from {} to {}.", arg(0), arg(1));
      case Kind::take:
        return fmt::format("Take what stands on {}.", arg(0));
      case Kind::flip:
        return fmt::format("What stands on {} changes its side.", arg(0));
      case Kind::change:
        return fmt::format("What stands on {} becomes {}.", arg(0), ofKind(one.name.text));
      case Kind::addTo:
        return fmt::format("Add {} to {}{}.", arg(0), owner, one.name.text);
      case Kind::removeFrom:
        return fmt::format("Remove {} from {}{}.", arg(0), owner, one.name.text);
      case Kind::when:
        return fmt::format("When {}:", arg(0));
      case Kind::again:
        return "The same side moves again.";
      case Kind::repeat:
        switch (one.repeat) {
          case RepeatKind::whilePossible:
            return "Once or more, and as long as it is possible:";
          case RepeatKind::anyTimes:
            return "Once or more, as often as wanted:";
          case RepeatKind::upTo:
            return fmt::format("Up to {} times:", arg(0));
          case RepeatKind::times:
            return fmt::format("{} times:", arg(0));
        }
        return "";
      case Kind::maximise:
        return fmt::format("Of these moves only those are legal with the greatest value of {}.",
                           arg(0));
      case Kind::tell:
        return fmt::format("Both sides are told: {}.", text(one));
      case Kind::writtenAs:
        return fmt::format("The move is written: {}.", text(one));
      case Kind::write:
        return fmt::format("To the text of the move add: {}.", text(one));
      case Kind::seenAs:
        return fmt::format("The other side sees only: {}.", text(one));
    }
    return "";
  }

  void turn() {
    begin("Turns");
    if (!tree_.turn) {
      out_.back().sentences.push_back(
          {0, 0, "In a turn, any of the moves may be made; nobody may pass."});
      return;
    }
    std::vector<std::string> tiers;
    for (const auto& tier : tree_.turn->tiers) {
      std::vector<std::string> names;
      for (const Name& name : tier) names.push_back(name.text);
      tiers.push_back(joined(names, " or "));
    }
    std::string text = "A turn is " + tiers[0];
    for (std::size_t i = 1; i < tiers.size(); ++i)
      text += fmt::format("; only if that is not possible, {}", tiers[i]);
    say(0, tree_.turn->span, text + ".");
  }

  void ends() {
    for (const ForbidDecl& forbid : tree_.forbids) {
      if (&forbid == &tree_.forbids.front()) begin("Moves that are not allowed");
      say(0, forbid.span,
          fmt::format("A move after which {} ({}).", words(forbid.condition), forbid.reason));
    }
    begin("The end");
    bool first = true;
    for (const EndDecl& end : tree_.ends) {
      std::string result;
      switch (end.kind) {
        case EndKind::moverWins:
          result = "who has just moved wins";
          break;
        case EndKind::moverLoses:
          result = "who has just moved loses";
          break;
        case EndKind::sideWins:
          result = fmt::format("{} {}", end.side.text, end.sideLoses ? "loses" : "wins");
          break;
        case EndKind::draw:
          result = "the game is drawn";
          break;
        case EndKind::leader:
          result = fmt::format("the side with the greater value of {} wins, and level sides draw",
                               words(*end.measure));
          break;
      }
      std::string names = end.name;
      if (end.kind == EndKind::leader) names += "; level: " + end.drawName;
      say(0, end.span,
          fmt::format("{} {}: {} ({}){}", first ? "If" : "Else, if", words(end.condition), result,
                      names, end.claim ? "; the players may play on." : "."));
      first = false;
    }
  }

  void views() {
    if (tree_.sees.empty()) return;
    begin("What each side sees");
    for (const SeesDecl& one : tree_.sees)
      say(0, one.span,
          one.letter.empty() ? fmt::format("In words: {}.", words(one.what))
                             : fmt::format("On {} board, {} for {}.",
                                           one.theirBoard ? "the other side's" : "its own",
                                           one.letter, words(one.what)));
  }

  void rest() {
    if (tree_.repetition) {
      begin("When a position is the same again");
      std::vector<std::string> compared;
      for (const Name& name : tree_.repetition->compares) compared.push_back(name.text);
      say(0, tree_.repetition->span, fmt::format("If these are: {}.", joined(compared, ", ")));
    }
    if (tree_.worth) {
      begin("What a position is worth");
      say(0, tree_.worth->span, fmt::format("For a side: {}.", words(*tree_.worth)));
    }
    if (!tree_.always.empty()) begin("What must always hold, for either side");
    for (const AlwaysDecl& always : tree_.always) {
      std::string change = always.change > 0   ? " never shrinks"
                           : always.change < 0 ? " never grows"
                                               : "";
      std::string text = words(always.expr) + change + ".";
      text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
      say(0, always.span, text);
    }
    if (!tree_.symmetries.empty()) begin("Where the rules look the same");
    for (const SymmetryDecl& symmetry : tree_.symmetries)
      say(0, symmetry.span,
          fmt::format("Under {}{}.", symmetry.name,
                      symmetry.name == "all" ? waysOf(sheet_.board.symmetries("all")) : ""));
  }

  // Which turns and mirrorings a name stands for, and what they do to a corner of the board.
  std::string waysOf(const std::vector<Symmetry>& ways) const {
    std::vector<std::string> out;
    for (const Symmetry& way : ways) {
      Cell from = 0;
      while (from < sheet_.board.size() && !sheet_.board.has(from)) ++from;
      out.push_back(fmt::format("{}, such as {} to {}", way.name, sheet_.board.label(from),
                                sheet_.board.label(way.image[from])));
    }
    return out.empty() ? "" : " (" + joined(out, "; ") + ")";
  }

  const Checked& sheet_;
  const Tree& tree_;
  std::vector<Explanation> out_;
};

}  // namespace

std::vector<Explanation> explain(const Checked& sheet) {
  return Explainer(sheet).run();
}

}  // namespace ninepegs::sheet
