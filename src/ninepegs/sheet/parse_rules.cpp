// Sections that say how it is played: start, moves, turn, ends, and what must hold.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/board/geometry.hpp"
#include "ninepegs/sheet/parse_case.hpp"
#include "ninepegs/sheet/parse_move.hpp"
#include "ninepegs/sheet/parser_sections.hpp"

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

}  // namespace ninepegs::sheet
