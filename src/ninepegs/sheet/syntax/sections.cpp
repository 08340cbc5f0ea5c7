// Sections that say how it is played: start, moves, turn, ends, and what must hold.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/board/geometry.hpp"
#include "ninepegs/sheet/syntax/cases.hpp"
#include "ninepegs/sheet/syntax/move.hpp"
#include "ninepegs/sheet/syntax/sections.hpp"

namespace ninepegs::sheet {

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
  auto size = [](auto&& self, const Expr& expr) -> int {
    int total = 1;
    for (const Expr& arg : expr.args) total += self(self, arg);
    return total;
  };
  define.size = size(size, define.body);
  nothingFollows(block, in);
  tree_.defines.push_back(std::move(define));
}

void Parser::move(const Block& block, Cursor& in) {
  MoveDecl move;
  move.name = in.moveName("a name for the move");
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
    do after.moves.push_back(in.moveName("the name of a move"));
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
    return in.accept("pass") ? Name{"pass", span} : in.moveName("the name of a move");
  };
  do {
    std::vector<Name> tier = {one()};
    while (in.accept("or")) tier.push_back(one());
    turn.tiers.push_back(std::move(tier));
  } while (in.accept("else"));
  nothingFollows(block, in);
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

// Long games are meant.
void Parser::mayLast(const Block& block, Cursor& in) {
  in.expect("may");
  in.expect("last");
  Span span = in.span();
  long long plies = in.number("the number of plies that a game may last");
  if (plies < 1 || plies > limits::mayLast)
    in.note(span, fmt::format("a game may last 1 to {} plies", limits::mayLast), "");
  in.expect("plies", "say: may last 4000 plies");
  nothingFollows(block, in);
  if (tree_.mayLast != 0) in.note(block.span, "how long a game may last was said above", "");
  tree_.mayLast = static_cast<int>(std::clamp<long long>(plies, 1, limits::mayLast));
  tree_.mayLastSpan = block.span;
}

void Parser::end(const Block& block, Cursor& in) {
  if (in.sees("may") && in.sees("last", 1)) return mayLast(block, in);
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
  end.condition = condition(in);
  if (in.accept("showing")) end.showing = expression(in);
  nothingFollows(block, in);
  tree_.ends.push_back(std::move(end));
}

// An expression, or a number for each cell as a picture.
void Parser::worth(const Block& block, Cursor& in) {
  once(tree_.worth.has_value() || !tree_.worthPicture.empty(), block, in);
  if (block.children.empty()) {
    tree_.worth = expression(in);
    in.end();
    return;
  }
  in.end();
  for (const Block& line : block.children) {
    Source inner(source_.name(), line.raw);
    std::vector<Token> row = line.pictureRow ? tokens(inner, line.raw, 1, found_) : line.tokens;
    std::vector<long long> weights;
    for (std::size_t i = 0; i < row.size(); ++i) {
      bool negative = row[i].text == "-" && i + 1 < row.size();
      if (negative) ++i;
      if (row[i].kind != TokenKind::number)
        in.refuse(line.span, "a picture of weights has a number for each cell",
                  "such as: 9 1 3 3 1 9");
      weights.push_back(negative ? -row[i].number : row[i].number);
    }
    tree_.worthPicture.push_back(std::move(weights));
  }
  tree_.worth = Expr{};  // the checker puts the total in its place
  tree_.worth->span = block.span;
}

void Parser::forbid(const Block& block, Cursor& in) {
  ForbidDecl forbid;
  forbid.span = block.span;
  forbid.reason = in.text("the reason");
  in.expect("when", "say: forbid \"your king would stand attacked\" when COND");
  forbid.condition = condition(in);
  nothingFollows(block, in);
  tree_.forbids.push_back(std::move(forbid));
}

void Parser::repetition(const Block& block, Cursor& in) {
  once(tree_.repetition.has_value(), block, in);
  RepetitionDecl repetition;
  repetition.span = block.span;
  in.expect("compares", "say: repetition compares pieces, turn");
  do {
    Name name = in.word("what is compared");
    repetition.compares.push_back(std::move(name));
  } while (in.accept(","));
  nothingFollows(block, in);
  tree_.repetition = std::move(repetition);
}

void Parser::each(const Block& block, Cursor& in) {
  in.expect("side", "say: each side sees");
  in.expect("sees", "say: each side sees");
  in.end();
  once(!tree_.sees.empty(), block, in);
  for (const Block& line : block.children) {
    guarded(line, [&](Cursor& cursor) {
      SeesDecl sees;
      sees.span = line.span;
      sees.what = expression(cursor);
      if (cursor.accept("as")) {
        if (cursor.atEnd() || utf8Symbols(cursor.peek().text).size() != 1)
          cursor.refuse(cursor.span(), "one character should follow", "say: as X on their board");
        sees.letter = cursor.next().text;
        if (cursor.accept("on")) {
          sees.theirBoard = cursor.sees("their");
          if (!cursor.accept("my")) cursor.expect("their", "say: on my board, or on their board");
          cursor.expect("board");
        }
      }
      nothingFollows(line, cursor);
      tree_.sees.push_back(std::move(sees));
    });
  }
  if (block.children.empty()) in.refuse(block.span, "`each side sees` holds no lines");
}

void Parser::notation(const Block& block, Cursor& in) {
  once(tree_.notation.has_value(), block, in);
  NotationDecl notation;
  notation.span = block.span;
  Name format = in.word("the name of the notation");
  if (format.text != "fen")
    in.refuse(format.span, fmt::format("\"{}\" is no notation that is known here", format.text),
              "there is: notation fen");
  notation.format = format.text;
  in.end();
  for (const Block& line : block.children) {
    guarded(line, [&](Cursor& cursor) {
      Name field = cursor.word("a field");
      if (field.text == "castling") {
        do {
          Span at = cursor.span();
          std::string letter = cursor.next().text;
          if (letter.size() != 1 || letter == "-")
            cursor.refuse(at, fmt::format("\"{}\" is no letter for a right", letter),
                          "one plain character for each, such as: castling K h1, Q a1 in MARK");
          for (const auto& [other, unused] : notation.rights)
            if (other == letter) cursor.refuse(at, fmt::format("\"{}\" stands here twice", letter));
          Name cell{cursor.peek().text, cursor.span()};
          cursor.next();
          notation.rights.emplace_back(letter, cell);
        } while (cursor.accept(","));
        cursor.expect("in", "say: castling K h1, Q a1 in MARK");
        notation.mark = cursor.name("a mark");
      } else if (field.text == "target") {
        notation.target = cursor.name("a remembered cell");
      } else if (field.text == "clock") {
        notation.clock = cursor.name("a number");
      } else if (field.text == "unnamed") {
        notation.pawn = cursor.name("a kind of piece");
      } else if (field.text == "castles") {
        notation.castle = cursor.moveName("a move");
      } else if (field.text == "check") {
        notation.check = condition(cursor);
      } else {
        cursor.refuse(
            field.span, fmt::format("\"{}\" is no field of this notation", field.text),
            didYouMean(field.text, {"castling", "target", "clock", "unnamed", "castles", "check"},
                       "there are: castling, target, clock, unnamed, castles, check"));
      }
      nothingFollows(line, cursor);
    });
  }
  tree_.notation = std::move(notation);
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
      nothingFollows(line, cursor);
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
    std::string said = joined(words, " ");
    const std::string exchange = "exchange of sides";
    symmetry.exchange = said == exchange || said.rfind(exchange + " and ", 0) == 0;
    if (said != exchange)
      symmetry.name = symmetry.exchange ? said.substr(exchange.size() + 5) : said;
    std::vector<std::string> names = Geometry::symmetryNames();
    if (said != exchange && std::find(names.begin(), names.end(), symmetry.name) == names.end()) {
      names.push_back(exchange);
      in.refuse(symmetry.span, fmt::format("\"{}\" is no symmetry", symmetry.name),
                didYouMean(symmetry.name, names,
                           fmt::format("there are: {}, alone or with one of the others, such as "
                                       "\"{} and half turn\"",
                                       joined(names, ", "), exchange)));
    }
    tree_.symmetries.push_back(std::move(symmetry));
  } while (in.accept(","));
  nothingFollows(block, in);
}

void Parser::caseBlock(const Block& block, Cursor& in) {
  tree_.cases.push_back(parseCase(source_, block, in, found_));
  CaseDecl& one = tree_.cases.back();
  if (!block.ofVariant) return;
  if (!one.variant.text.empty() && one.variant.text != tree_.variant)
    in.note(one.variant.span, fmt::format("this case stands in the variant \"{}\"", tree_.variant),
            "leave out `in variant`");
  one.variant = {tree_.variant, block.span};
}

}  // namespace ninepegs::sheet
