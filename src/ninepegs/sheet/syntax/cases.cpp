// Cases: a position, moves, and what is expected of them.
#include "ninepegs/sheet/syntax/cases.hpp"

#include <fmt/format.h>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"

namespace ninepegs::sheet {
namespace {

// What stands behind the words already read, as it is written.
std::string rawBehind(const Block& block, const Cursor& in) {
  if (in.atEnd()) return "";
  // Tokens of the first line have columns; find the text from the next token on.
  const Token& token = in.peek();
  if (token.span.line == block.span.line) {
    std::vector<std::string> symbols = utf8Symbols(block.raw);
    std::string out;
    for (std::size_t i = token.span.column - block.span.column; i < symbols.size(); ++i)
      out += symbols[i];
    return out;
  }
  return "";
}

void expectation(const Block& block, Cursor& in, CaseDecl& one) {
  CaseStep step;
  step.span = block.span;
  if (in.accept("ongoing")) {
    step.kind = ExpectKind::ongoing;
    in.end();
  } else if (in.accept("legal")) {
    step.kind = ExpectKind::legal;
    step.raw = rawBehind(block, in);
  } else if (in.accept("not")) {
    in.expect("legal", "say: expect not legal MOVES");
    step.kind = ExpectKind::notLegal;
    step.raw = rawBehind(block, in);
  } else if (in.accept("moves")) {
    step.kind = ExpectKind::moves;
    if (in.sees("from") || in.sees("to")) {
      step.endName = in.next().text;
      step.subject = Name{in.peek().text, in.span()};
      in.next();
    }
    in.expect("=", "say: expect moves = a, b, c");
    step.raw = rawBehind(block, in);
  } else if (in.peek().kind == TokenKind::number && (in.sees("move", 1) || in.sees("moves", 1))) {
    step.kind = ExpectKind::moveCount;
    step.numbers = {static_cast<unsigned long long>(in.next().number)};
    in.next();
    in.end();
  } else if (in.accept("sequences")) {
    step.kind = ExpectKind::sequences;
    Span at = in.span();
    long long from = in.number("the first depth");
    long long to = from;
    if (in.accept("to")) to = in.number("the last depth");
    in.expect("=", "say: expect sequences 1 to 3 = 7 49 343");
    if (from < 1 || to < from || to > limits::countDepth)
      in.refuse(at, "depths run upwards from 1");
    step.first = static_cast<int>(from);
    Span numbers = in.span();
    while (!in.atEnd())
      step.numbers.push_back(static_cast<unsigned long long>(in.number("a count")));
    if (static_cast<long long>(step.numbers.size()) != to - from + 1)
      in.refuse(numbers, fmt::format("{} should stand here, one for each depth, not {}",
                                     plural(to - from + 1, "number"), step.numbers.size()));
  } else if (in.accept("draw")) {
    step.kind = ExpectKind::end;
    step.subject = {"draw", block.span};
    if (!in.atEnd()) step.endName = in.text("the name of the end");
    in.end();
  } else if (in.accept("told")) {
    step.kind = ExpectKind::told;
    if (!in.accept("nothing")) step.endName = in.text("what was told");
    in.end();
  } else if (in.accept("seen")) {
    step.kind = ExpectKind::seenBy;
    in.expect("by", "say: expect seen by SIDE \"...\" at ply 1");
    step.subject = in.name("a side");
    step.endName = in.text("what was seen");
    if (in.accept("at")) {
      in.expect("ply");
      Span at = in.span();
      long long ply = in.number("the number of a ply");
      if (ply < 1 || ply > limits::plies) in.refuse(at, "plies count from 1");
      step.numbers = {static_cast<unsigned long long>(ply)};
    }
    in.end();
  } else if (in.sees("mover") || in.sees("opponent") || in.sees("leader")) {
    in.refuse(in.span(), fmt::format("a case says which side: \"{}\" is none", in.peek().text),
              "name the side outright: expect Amber wins \"...\"");
  } else if (in.sees("loses", 1)) {
    in.refuse(in.peek(1).span, "a case says who wins", "such as: expect Amber wins \"...\"");
  } else if (in.sees("wins", 1)) {
    step.subject = in.name("a side");
    in.next();
    step.kind = ExpectKind::end;
    if (!in.atEnd()) step.endName = in.text("the name of the end");
    in.end();
  } else if (in.sees("sees", 1)) {
    step.subject = in.name("a side");
    in.next();
    step.kind = ExpectKind::sees;
    step.endName = in.text("what the side sees, as `show --as SIDE --text` prints it");
    in.end();
  } else if (in.sees("edges") && in.sees("of", 1)) {
    in.next();
    in.next();
    step.kind = ExpectKind::edges;
    step.subject = in.name("a piece");
    in.expect("=", "say: expect edges of PIECE = 2 7 2 7 2 1");
    while (!in.atEnd())
      step.numbers.push_back(static_cast<unsigned long long>(in.number("a number for each side")));
  } else if (in.sees("to", 1)) {
    step.subject = in.name("a side");
    in.next();
    in.expect("move");
    step.kind = ExpectKind::turn;
    in.end();
  } else {
    if (in.atEnd() || in.peek().kind == TokenKind::text)
      in.refuse(in.span(), "what is expected should follow",
                "such as: ongoing, legal MOVES, not legal MOVES, SIDE wins \"...\", draw \"...\"");
    const Token first = in.peek();
    step.kind = ExpectKind::condition;
    step.condition = condition(in);
    if (!in.atEnd() && first.kind == TokenKind::word)
      in.refuse(
          first.span, fmt::format("nothing that can be expected begins with \"{}\"", first.text),
          didYouMean(first.text, {"legal", "not", "ongoing", "moves", "draw", "sequences", "told"},
                     "such as: ongoing, legal MOVES, SIDE wins \"...\", draw \"...\", or a "
                     "condition"));
    in.end();
  }
  if ((step.kind == ExpectKind::legal || step.kind == ExpectKind::notLegal) &&
      trimmed(step.raw).empty())
    in.refuse(block.span, "no move is named here");
  refuseChildren(block, in);
  one.steps.push_back(std::move(step));
}

void caseLine(const Block& line, Cursor& cursor, CaseDecl& one) {
  if (cursor.accept("in")) {
    cursor.expect("variant", "say: in variant NAME");
    if (!one.steps.empty() || one.position)
      cursor.refuse(line.span, "the variant is named before anything else of the case");
    one.variant = cursor.word("a variant");
    cursor.end();
  } else if (cursor.accept("position")) {
    if (!one.steps.empty() || one.position)
      cursor.refuse(line.span, "a case has one position, before its moves");
    PositionDecl position{line.children, line.span};
    if (!cursor.atEnd()) {  // on one line
      Block inner = line;
      inner.raw = rawBehind(line, cursor);
      inner.span = cursor.span();
      inner.children.clear();
      position.lines = {inner};
    }
    one.position = std::move(position);
  } else if (cursor.accept("play")) {
    CaseStep step;
    step.kind = ExpectKind::play;
    step.span = line.span;
    step.raw = rawBehind(line, cursor);
    if (trimmed(step.raw).empty()) cursor.refuse(line.span, "`play` names no move");
    one.steps.push_back(std::move(step));
  } else if (cursor.accept("leaves")) {
    CaseStep step;
    step.kind = ExpectKind::leaves;
    step.span = line.span;
    step.lines = line.children;
    if (step.lines.empty()) cursor.refuse(line.span, "`leaves` holds no picture");
    one.steps.push_back(std::move(step));
  } else if (cursor.accept("expect")) {
    expectation(line, cursor, one);
  } else {
    cursor.refuse(line.span, fmt::format("a case has no line that begins with \"{}\"", line.word()),
                  didYouMean(line.word(), {"position", "play", "expect", "leaves"},
                             "there are: in variant, position, play, expect, leaves"));
  }
}

}  // namespace

CaseDecl parseCase(const Source& source, const Block& block, Cursor& in,
                   std::vector<Diagnostic>& found) {
  CaseDecl one;
  one.span = block.span;
  one.name = in.text("the case's name");
  in.end();
  for (const Block& line : block.children) {
    Cursor cursor(source, line.tokens, found);
    try {
      caseLine(line, cursor, one);
    } catch (const Refused&) {
    }
  }
  if (one.steps.empty())
    in.note(block.span, "this case expects nothing", "say what must hold: expect ongoing");
  return one;
}

}  // namespace ninepegs::sheet
