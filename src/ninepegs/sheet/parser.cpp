#include "ninepegs/sheet/parser.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <functional>
#include <map>
#include <set>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/board/geometry.hpp"
#include "ninepegs/sheet/cursor.hpp"
#include "ninepegs/sheet/parse_case.hpp"
#include "ninepegs/sheet/parse_move.hpp"

namespace ninepegs::sheet {

namespace {

class Parser {
 public:
  Parser(const Source& source, std::vector<Diagnostic>& found) : source_(source), found_(found) {}

  Tree sheet(std::vector<Block> blocks, const std::string& variant);

 private:
  using Section = void (Parser::*)(const Block&, Cursor&);
  static const std::map<std::string, Section>& sections();
  static const std::set<std::string>& laterSections();

  void guarded(const Block& block, const std::function<void(Cursor&)>& body);
  void section(const Block& block);
  void once(bool seen, const Block& block, Cursor& in);

  void game(const Block&, Cursor&);
  void title(const Block&, Cursor&);
  void about(const Block&, Cursor&);
  void sides(const Block&, Cursor&);
  void facing(const Block&, Cursor&);
  void board(const Block&, Cursor&);
  void piece(const Block&, Cursor&);
  void group(const Block&, Cursor&);
  void zone(const Block&, Cursor&);
  void mark(const Block&, Cursor&);
  void number(const Block&, Cursor&);
  void start(const Block&, Cursor&);
  void define(const Block&, Cursor&);
  void move(const Block&, Cursor&);
  void after(const Block&, Cursor&);
  void turn(const Block&, Cursor&);
  void ends(const Block&, Cursor&);
  void worth(const Block&, Cursor&);
  void always(const Block&, Cursor&);
  void symmetric(const Block&, Cursor&);
  void caseBlock(const Block&, Cursor&);
  void variant(const Block&, Cursor&);

  void end(const Block&, Cursor&);

  const Source& source_;
  std::vector<Diagnostic>& found_;
  Tree tree_;
};

const std::map<std::string, Parser::Section>& Parser::sections() {
  static const std::map<std::string, Section> table = {
      {"game", &Parser::game},      {"title", &Parser::title},         {"about", &Parser::about},
      {"sides", &Parser::sides},    {"facing", &Parser::facing},       {"board", &Parser::board},
      {"piece", &Parser::piece},    {"group", &Parser::group},         {"zone", &Parser::zone},
      {"mark", &Parser::mark},      {"number", &Parser::number},       {"start", &Parser::start},
      {"define", &Parser::define},  {"move", &Parser::move},           {"after", &Parser::after},
      {"turn", &Parser::turn},      {"ends", &Parser::ends},           {"worth", &Parser::worth},
      {"always", &Parser::always},  {"symmetric", &Parser::symmetric}, {"case", &Parser::caseBlock},
      {"variant", &Parser::variant}};
  return table;
}

// Sections that the language has and this version cannot run yet.
const std::set<std::string>& Parser::laterSections() {
  static const std::set<std::string> words = {"cell",       "track", "forbid",
                                              "repetition", "each",  "notation"};
  return words;
}

void Parser::guarded(const Block& block, const std::function<void(Cursor&)>& body) {
  Cursor in(source_, block.tokens, found_);
  try {
    body(in);
  } catch (const Refused&) {
  }
}

void Parser::section(const Block& block) {
  guarded(block, [&](Cursor& in) {
    const Token head = in.next();
    auto it = sections().find(head.text);
    if (it != sections().end() && head.kind == TokenKind::word) {
      (this->*it->second)(block, in);
      return;
    }
    if (laterSections().count(head.text) > 0)
      in.refuse(head.span, fmt::format("`{}` belongs to the language, but this version cannot run "
                                       "it yet",
                                       head.text));
    std::vector<std::string> words;
    for (const auto& [word, unused] : sections()) words.push_back(word);
    in.refuse(head.span, fmt::format("a sheet has no section that begins with \"{}\"", head.text),
              didYouMean(head.text, words, "such as: game, sides, board, piece, move, ends"));
  });
}

void Parser::once(bool seen, const Block& block, Cursor& in) {
  if (seen)
    in.refuse(block.span, fmt::format("`{}` stands here a second time", block.word()),
              "a sheet has one of it");
}

void Parser::game(const Block& block, Cursor& in) {
  once(!tree_.game.text.empty(), block, in);
  tree_.game = in.word("the game's name");
  in.end();
  refuseChildren(block, in);
}

void Parser::title(const Block& block, Cursor& in) {
  once(!tree_.title.empty(), block, in);
  tree_.title = in.text("the game's title");
  in.end();
  refuseChildren(block, in);
}

void Parser::about(const Block& block, Cursor& in) {
  once(!tree_.about.empty(), block, in);
  in.end();
  for (const Block& line : block.children) tree_.about.push_back(line.raw);
  if (tree_.about.empty())
    in.refuse(block.span, "`about` holds no lines", "say in words how the game is played");
}

void Parser::sides(const Block& block, Cursor& in) {
  once(!tree_.sides[0].text.empty(), block, in);
  tree_.sides[0] = in.name("the side that moves first");
  in.expect("and", "say: sides Amber and Slate");
  tree_.sides[1] = in.name("the other side");
  if (in.sees(",") || in.sees("and"))
    in.refuse(in.span(), "there are two sides; more are out of this language's reach");
  in.end();
  refuseChildren(block, in);
}

void Parser::facing(const Block& block, Cursor& in) {
  once(!tree_.facing.empty(), block, in);
  do {
    const Token way = in.next();
    in.expect("for", "say: facing south for Black, north for White");
    tree_.facing.push_back({Name{way.text, way.span}, in.name("a side")});
  } while (in.accept(","));
  in.end();
  refuseChildren(block, in);
}

void Parser::board(const Block& block, Cursor& in) {
  once(tree_.board.columns > 0, block, in);
  BoardDecl& board = tree_.board;
  board.span = block.span;
  if (in.sees("hexagon") || in.sees("rhombus") || in.sees("points"))
    in.refuse(in.span(),
              fmt::format("a board of the shape `{}` belongs to the language, but this "
                          "version cannot build it yet",
                          in.peek().text),
              "this version knows: board square 7 x 6");
  in.expect("square", "say: board square 7 x 6");
  Span size = in.span();
  long long columns = in.number("the number of columns");
  in.expect("x", "say: board square 7 x 6 (columns x rows)");
  long long rows = in.number("the number of rows");
  if (in.sees("x"))
    in.refuse(in.span(),
              "boards of several levels belong to the language, but this version cannot "
              "build them yet");
  if (columns < 1 || rows < 1) in.refuse(size, "a board has at least one column and one row");
  if (columns > limits::cells || rows > limits::cells || columns * rows > limits::cells)
    in.refuse(size, fmt::format("{} x {} is more than {} cells, the limit", columns, rows,
                                limits::cells));
  board.columns = static_cast<int>(columns);
  board.rows = static_cast<int>(rows);
  while (in.accept(",")) {
    if (in.accept("labels")) {
      in.expect("numbered");
      board.numbered = true;
    } else if (in.accept("rows")) {
      in.expect("from");
      in.expect("top");
      board.rowsFromTop = true;
    } else if (in.accept("joined")) {
      if (in.accept("left")) {
        in.expect("to");
        in.expect("right");
        board.joinLeftRight = true;
      } else {
        in.expect("top", "say: joined left to right, or joined top to bottom");
        in.expect("to");
        in.expect("bottom");
        board.joinTopBottom = true;
      }
    } else if (in.accept("without")) {
      board.without = expression(in);
    } else if (in.sees("one")) {
      in.refuse(in.span(),
                "a board of its own for each side belongs to the language, but this "
                "version cannot build it yet");
    } else {
      in.refuse(in.span(), fmt::format("\"{}\" is no option of a board", in.peek().text),
                didYouMean(in.peek().text, {"labels", "rows", "joined", "without"},
                           "there are: labels numbered, rows from top, joined left to right, "
                           "joined top to bottom, without CELLS"));
    }
  }
  in.end();
  refuseChildren(block, in);
}

void Parser::piece(const Block& block, Cursor& in) {
  PieceDecl piece;
  piece.name = in.name("a name for the piece");
  auto letter = [&]() -> std::string {
    const Token& token = in.peek();
    if (in.atEnd() || utf8Symbols(token.text).size() != 1 || token.kind == TokenKind::number)
      in.refuse(in.span(),
                in.atEnd() ? "the piece's letter should follow"
                           : fmt::format("\"{}\" is no letter for a piece", token.text),
                "one character for each side, such as: piece disc o x");
    if (token.text == "." || token.text == "_" || token.text == "/" || token.text == ";")
      in.refuse(token.span, fmt::format("\"{}\" has a meaning of its own in pictures", token.text));
    return in.next().text;
  };
  piece.letters[0] = letter();
  if (!in.atEnd() && utf8Symbols(in.peek().text).size() == 1) piece.letters[1] = letter();
  if (in.accept("for"))
    in.refuse(in.span(),
              "pieces of one side only belong to the language, but this version cannot "
              "build them yet");
  while (!in.atEnd()) {
    if (in.accept("reach")) {
      piece.reach = expression(in);
      continue;
    }
    if (in.sees("neutral") || in.sees("secret") || in.sees("edges"))
      in.refuse(in.span(), fmt::format("`{}` belongs to the language, but this version cannot run "
                                       "it yet",
                                       in.peek().text));
    Name property = in.name("a word with a number");
    piece.values.push_back({property, in.number("the value of " + property.text)});
  }
  if (piece.letters[1].empty())
    in.refuse(block.span, "a piece has two letters, one for each side", "such as: piece disc o x");
  refuseChildren(block, in);
  tree_.pieces.push_back(std::move(piece));
}

void Parser::group(const Block& block, Cursor& in) {
  SetDecl group;
  group.name = in.name("a name for the group");
  in.expect("=", "say: group officer = knight, bishop");
  do group.members.push_back(in.name("a kind of piece"));
  while (in.accept(","));
  in.end();
  refuseChildren(block, in);
  tree_.groups.push_back(std::move(group));
}

void Parser::zone(const Block& block, Cursor& in) {
  SetDecl zone;
  zone.name = in.name("a name for the zone");
  in.expect("=", "say: zone goal = row 6 for Amber, row 1 for Slate");
  do {
    Expr cells = expression(in);
    std::optional<Name> side;
    if (in.accept("for")) side = in.name("a side");
    zone.sets.push_back({std::move(side), std::move(cells)});
  } while (in.accept(","));
  in.end();
  refuseChildren(block, in);
  tree_.zones.push_back(std::move(zone));
}

void Parser::mark(const Block& block, Cursor& in) {
  StateDecl mark{in.name("a name for the mark"), false};
  mark.each = in.accept("each");
  in.end();
  refuseChildren(block, in);
  tree_.marks.push_back(std::move(mark));
}

void Parser::number(const Block& block, Cursor& in) {
  StateDecl number{in.name("a name for the number"), false};
  number.each = in.accept("each");
  if (in.sees("on") || in.sees("="))
    in.refuse(in.span(),
              "numbers on cells and set-out values belong to the language, but this "
              "version cannot run them yet");
  in.end();
  refuseChildren(block, in);
  tree_.numbers.push_back(std::move(number));
}

void Parser::start(const Block& block, Cursor& in) {
  once(tree_.start.has_value(), block, in);
  in.end();
  tree_.start = PositionDecl{block.children, block.span};
}

void Parser::define(const Block& block, Cursor& in) {
  DefineDecl define;
  define.name = in.name("a name");
  if (in.accept("(")) {
    do define.parameters.push_back(in.name("a parameter"));
    while (in.accept(","));
    in.expect(")");
  }
  in.expect("=", "say: define free = empty except edge");
  define.body = expression(in);
  in.end();
  refuseChildren(block, in);
  tree_.defines.push_back(std::move(define));
}

void Parser::move(const Block& block, Cursor& in) {
  MoveDecl move;
  move.name = in.name("a name for the move");
  in.end();
  if (block.children.empty())
    in.refuse(block.span, "this move holds no lines", "indent its lines below it");
  move.body = statements(source_, block.children, found_);
  tree_.moves.push_back(std::move(move));
}

void Parser::after(const Block& block, Cursor& in) {
  AfterDecl after;
  after.span = block.span;
  // `every move` or a list of moves
  if (in.accept("every")) {
    in.expect("move", "say: after every move");
  } else {
    do after.moves.push_back(in.name("the name of a move"));
    while (in.accept(","));
  }
  in.end();
  after.body = statements(source_, block.children, found_);
  tree_.afters.push_back(std::move(after));
}

void Parser::turn(const Block& block, Cursor& in) {
  once(tree_.turn.has_value(), block, in);
  TurnDecl turn;
  turn.span = block.span;
  auto one = [&]() {
    Span span = in.span();
    return in.accept("pass") ? Name{"pass", span} : in.name("the name of a move");
  };
  do {
    std::vector<Name> tier = {one()};
    while (in.accept("or")) tier.push_back(one());
    turn.tiers.push_back(std::move(tier));
  } while (in.accept("else"));
  in.end();
  refuseChildren(block, in);
  tree_.turn = std::move(turn);
}

void Parser::ends(const Block& block, Cursor& in) {
  once(!tree_.ends.empty(), block, in);
  in.end();
  for (const Block& line : block.children)
    guarded(line, [&](Cursor& cursor) { end(line, cursor); });
  if (block.children.empty())
    in.refuse(block.span, "`ends` holds no lines", "such as: draw \"board full\" when no empty");
}

void Parser::end(const Block& block, Cursor& in) {
  EndDecl end;
  end.span = block.span;
  end.claim = in.accept("claim");
  auto outcome = [&](const std::string& hint) {
    if (in.accept("wins")) return true;
    if (in.accept("loses")) return false;
    in.refuse(in.span(), "`wins` or `loses` should stand here", hint);
  };
  if (in.accept("draw")) {
    end.kind = EndKind::draw;
    end.name = in.text("the name of this end");
  } else if (in.accept("mover")) {
    end.kind =
        outcome("say: mover wins \"four in a line\"") ? EndKind::moverWins : EndKind::moverLoses;
    end.name = in.text("the name of this end");
  } else if (in.accept("opponent")) {
    end.kind = outcome("say: opponent wins \"...\"") ? EndKind::moverLoses : EndKind::moverWins;
    end.name = in.text("the name of this end");
  } else if (in.accept("leader")) {
    end.kind = EndKind::leader;
    in.expect("in", "say: leader in count mine wins \"more discs\" or draw \"as many discs\"");
    end.measure = sum(in);
    in.expect("wins");
    end.name = in.text("the name of this end");
    in.expect("or", "say what happens when both are level: or draw \"...\"");
    in.expect("draw");
    end.drawName = in.text("the name of the draw");
  } else {
    if (in.peek().kind != TokenKind::word || in.sees("when"))
      in.refuse(in.span(), "an end says who wins, or draw",
                "such as: mover wins \"...\" when COND, or draw \"...\" when COND");
    end.side = in.name("mover, opponent, leader, draw or a side");
    end.kind = EndKind::sideWins;
    end.sideLoses = !outcome("say: " + end.side.text + " wins \"...\"");
    end.name = in.text("the name of this end");
  }
  in.expect("when", "an end holds under a condition: when no empty");
  end.when = true;
  end.condition = condition(in);
  if (in.accept("showing")) end.showing = expression(in);
  in.end();
  refuseChildren(block, in);
  tree_.ends.push_back(std::move(end));
}

void Parser::worth(const Block& block, Cursor& in) {
  once(tree_.worth.has_value(), block, in);
  if (!block.children.empty())
    in.refuse(block.children.front().span,
              "a picture of weights belongs to the language, but this "
              "version cannot run it yet");
  tree_.worth = expression(in);
  in.end();
}

void Parser::always(const Block& block, Cursor& in) {
  in.end();
  if (block.children.empty()) in.refuse(block.span, "`always` holds no lines");
  for (const Block& line : block.children) {
    guarded(line, [&](Cursor& cursor) {
      AlwaysDecl always;
      always.span = line.span;
      always.expr = condition(cursor);
      if (cursor.sees("never")) {
        cursor.next();
        if (cursor.accept("grows")) {
          always.change = -1;
        } else {
          cursor.expect("shrinks", "say: never grows, or never shrinks");
          always.change = 1;
        }
      }
      cursor.end();
      refuseChildren(line, cursor);
      tree_.always.push_back(std::move(always));
    });
  }
}

void Parser::symmetric(const Block& block, Cursor& in) {
  in.expect("under", "say: symmetric under reflection of columns");
  do {
    SymmetryDecl symmetry;
    symmetry.span = in.span();
    std::vector<std::string> words;
    while (!in.atEnd() && !in.sees(",")) words.push_back(in.next().text);
    symmetry.name = joined(words, " ");
    std::vector<std::string> names = Geometry::symmetryNames();
    if (std::find(names.begin(), names.end(), symmetry.name) == names.end())
      in.refuse(symmetry.span, fmt::format("\"{}\" is no symmetry", symmetry.name),
                didYouMean(symmetry.name, names, "there are: " + joined(names, ", ")));
    tree_.symmetries.push_back(std::move(symmetry));
  } while (in.accept(","));
  in.end();
  refuseChildren(block, in);
}

void Parser::caseBlock(const Block& block, Cursor& in) {
  tree_.cases.push_back(parseCase(source_, block, in, found_));
}

void Parser::variant(const Block& block, Cursor& in) {
  Name name = in.word("a name for the variant");
  std::string says = in.peek().kind == TokenKind::text && !in.atEnd() ? in.next().text : "";
  in.end();
  if (block.children.empty()) in.refuse(block.span, "this variant changes nothing");
  for (const auto& [other, unused] : tree_.variants)
    if (other.text == name.text)
      in.refuse(name.span, fmt::format("variant \"{}\" stands here a second time", name.text));
  tree_.variants.push_back({name, says});
}

// The word and, where a sheet may have several, the name of a section: what a variant replaces.
std::string sectionKey(const Block& block) {
  static const std::set<std::string> many = {"piece",  "group",  "zone",     "mark",
                                             "number", "define", "move",     "case",
                                             "after",  "always", "symmetric"};
  std::string key = block.word();
  if (many.count(key) > 0 && block.tokens.size() > 1) key += " " + block.tokens[1].text;
  return key;
}

Tree Parser::sheet(std::vector<Block> all, const std::string& wanted) {
  if (!wanted.empty()) {
    std::vector<std::string> names;
    const Block* chosen = nullptr;
    for (const Block& block : all) {
      if (block.word() != "variant" || block.tokens.size() < 2) continue;
      names.push_back(block.tokens[1].text);
      if (block.tokens[1].text == wanted) chosen = &block;
    }
    if (chosen == nullptr) {
      found_.push_back({Place{source_.name(), 0, 0, 1, {}},
                        fmt::format("the sheet has no variant \"{}\"", wanted),
                        names.empty()
                            ? "it has no variants"
                            : didYouMean(wanted, names, "it has: " + joined(names, ", "))});
      return tree_;
    }
    std::vector<Block> changes = chosen->children;
    for (Block& change : changes) {
      auto same = [&](const Block& block) { return sectionKey(block) == sectionKey(change); };
      auto it = std::find_if(all.begin(), all.end(), same);
      if (it != all.end())
        *it = change;
      else
        all.push_back(change);
    }
  }
  for (const Block& block : all) section(block);
  auto missing = [&](bool there, const std::string& what, const std::string& hint) {
    if (!there)
      found_.push_back(
          {Place{source_.name(), 0, 0, 1, {}}, "the sheet does not say " + what, hint});
  };
  auto has = [&](const char* word) {
    return std::any_of(all.begin(), all.end(), [&](const Block& b) { return b.word() == word; });
  };
  missing(has("game"), "its name", "begin it with a line such as: game three-in-a-row");
  missing(has("sides"), "who plays", "add a line such as: sides Amber and Slate");
  missing(has("board"), "its board", "add a line such as: board square 3 x 3");
  missing(has("move"), "any move", "add a block such as: move place");
  missing(has("ends"), "how a game ends", "add a block `ends`");
  return std::move(tree_);
}

}  // namespace

Tree parse(const Source& source, const std::string& variant, std::vector<Diagnostic>& found) {
  std::vector<Block> all = blocks(source, found);
  return Parser(source, found).sheet(std::move(all), variant);
}

}  // namespace ninepegs::sheet
