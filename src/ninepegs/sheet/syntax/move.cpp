// The statements of moves and of `after` blocks.
#include "ninepegs/sheet/syntax/move.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/board/geometry.hpp"

namespace ninepegs::sheet {
namespace {

const std::vector<std::string>& statementWords() {
  static const std::vector<std::string> words = {
      "pick",   "choose", "let",  "set",     "need", "put",       "shift",
      "take",   "flip",   "add",  "change",  "when", "otherwise", "again",
      "remove", "write",  "tell", "written", "seen", "repeat",    "must"};
  return words;
}

// `my` or `their` in front of a name.
void owner(Cursor& in, Statement& out) {
  Span span = in.span();
  if (in.accept("my"))
    out.names.push_back({"my", span});
  else if (in.accept("their"))
    out.names.push_back({"their", span});
}

void pick(Cursor& in, Statement& out) {
  out.kind = StatementKind::pick;
  out.name = in.name("a name for the picked cell");
  in.expect("in", "say: pick there in empty");
  out.args.push_back(expression(in));
  out.ifAny = acceptPhrase(in, ",", {"if", "any"}, "say: pick more in empty, if any");
}

void choose(Cursor& in, Statement& out) {
  out.kind = StatementKind::choose;
  out.name = in.name("a name for the choice");
  in.expect("from", "say: choose man from queen, rook; or: choose n from 1 to 3");
  if (in.sees("my") && in.sees("hand", 1)) {
    in.next();
    in.next();
    out.choose = ChooseKind::hand;
    return;
  }
  bool range = false;
  for (std::size_t i = 0; in.peek(i).kind != TokenKind::symbol || !in.peek(i).text.empty(); ++i)
    range = range || in.sees("to", i);
  if (range) {
    out.choose = ChooseKind::range;
    out.args.push_back(sum(in));
    in.expect("to");
    out.args.push_back(sum(in));
    return;
  }
  do out.names.push_back(in.name("a kind of piece"));
  while (in.accept(","));
}

void give(Cursor& in, Statement& out, bool let) {
  out.kind = let ? StatementKind::let : StatementKind::set;
  if (!let) owner(in, out);
  out.name = in.name("a name");
  if (!let && in.accept("of")) {  // a number on a cell
    out.args.push_back(operand(in));
    out.ifAny = true;
  }
  in.expect(let ? "=" : "to");
  out.args.insert(out.args.begin(), expression(in));
}

void put(Cursor& in, Statement& out) {
  out.kind = StatementKind::put;
  out.name = in.name("a kind of piece");
  in.expect("on", "say: put disc on there");
  out.args.push_back(expression(in));
  out.fromHand = acceptPhrase(in, "from", {"my", "hand"}, "say: put disc on there from my hand");
}

void shift(Cursor& in, Statement& out) {
  out.kind = StatementKind::shift;
  out.args.push_back(expression(in));
  if (in.accept("by")) {
    out.way = in.peek().text;
    Span span = in.span();
    in.next();
    static const std::vector<std::string> more = {"forward", "backward"};
    std::vector<std::string> ways = Geometry::directionGroupNames();
    ways.erase(ways.begin(), ways.begin() + 3);
    ways.insert(ways.end(), more.begin(), more.end());
    if (std::find(ways.begin(), ways.end(), out.way) == ways.end())
      in.refuse(span, fmt::format("\"{}\" is no direction", out.way),
                didYouMean(out.way, ways, "say: shift mine by north"));
    return;
  }
  in.expect("to", "say: shift here to there");
  out.args.push_back(expression(in));
}

void mark(Cursor& in, Statement& out, bool add) {
  out.kind = add ? StatementKind::addTo : StatementKind::removeFrom;
  out.args.push_back(expression(in));
  in.expect(add ? "to" : "from", add ? "say: add there to MARK" : "say: remove there from MARK");
  owner(in, out);
  out.name = in.name("a mark");
}

void repeat(Cursor& in, Statement& out) {
  out.kind = StatementKind::repeat;
  if (in.accept("while")) {
    in.expect("possible", "say: repeat while possible");
  } else if (in.accept("any")) {
    in.expect("times", "say: repeat any times");
    out.repeat = RepeatKind::anyTimes;
  } else {
    bool up = in.accept("up");
    if (up) in.expect("to", "say: repeat up to 3 times");
    out.repeat = up ? RepeatKind::upTo : RepeatKind::times;
    out.args.push_back(sum(in));
    in.expect("times", "say: repeat while possible, any times, up to 3 times, or 3 times");
  }
}

// Quoted texts, `column of X`, `row of X`, and what has a text of its own.
void parts(Cursor& in, Statement& out, const std::string& hint) {
  while (!in.atEnd()) {
    if (in.peek().kind == TokenKind::text) {
      Expr text;
      text.kind = ExprKind::name;
      text.span = in.peek().span;
      text.word = in.next().text;
      text.plural = true;  // a quoted part
      out.args.push_back(std::move(text));
      continue;
    }
    std::string part = in.peek().text;
    if ((part == "column" || part == "row") && in.sees("of", 1)) {
      Expr of;
      of.kind = ExprKind::ofName;
      of.span = in.next().span;
      of.word = part;
      in.next();
      of.args.push_back(operand(in));
      out.args.push_back(std::move(of));
      continue;
    }
    out.args.push_back(operand(in));
  }
  if (out.args.empty()) in.refuse(in.span(), "the parts of a text should follow", hint);
}

Statement statement(Cursor& in) {
  Statement out;
  const Token head = in.next();
  out.span = head.span;
  const std::string& word = head.text;
  if (word == "pick") {
    pick(in, out);
  } else if (word == "choose") {
    choose(in, out);
  } else if (word == "let" || word == "set") {
    give(in, out, word == "let");
  } else if (word == "need" || word == "when") {
    out.kind = word == "need" ? StatementKind::need : StatementKind::when;
    out.args.push_back(condition(in));
  } else if (word == "put") {
    put(in, out);
  } else if (word == "shift") {
    shift(in, out);
  } else if (word == "take" || word == "flip") {
    out.kind = word == "take" ? StatementKind::take : StatementKind::flip;
    out.args.push_back(expression(in));
  } else if (word == "change") {
    out.kind = StatementKind::change;
    out.args.push_back(expression(in));
    in.expect("into", "say: change there into king");
    out.name = in.name("a kind of piece");
  } else if (word == "add" || word == "remove") {
    mark(in, out, word == "add");
  } else if (word == "again") {
    out.kind = StatementKind::again;
  } else if (word == "repeat") {
    repeat(in, out);
  } else if (word == "must") {
    out.kind = StatementKind::maximise;
    in.expect("maximise", "say: must maximise count theirs");
    out.args.push_back(sum(in));
  } else if (word == "tell") {
    out.kind = StatementKind::tell;
    parts(in, out, "say: tell \"hit\"");
  } else if (word == "write") {
    out.kind = StatementKind::write;
    parts(in, out, "say: write \"x\" there");
  } else if (word == "written" || word == "seen") {
    bool written = word == "written";
    out.kind = written ? StatementKind::writtenAs : StatementKind::seenAs;
    in.expect("as", written ? "say: written as there" : "say: seen as boat");
    parts(in, out, "say: written as here \"-\" there");
  } else {
    if (word == "move")
      in.refuse(head.span, "a move has no line that begins with \"move\"",
                "to move a piece, say: shift here to there");
    std::string hint;
    if (word == "if") hint = "say: when COND, and what to do on indented lines below it";
    if (word == "else") hint = "say: otherwise";
    if (word == "while" || word == "for") hint = "say: repeat while possible, or: repeat N times";
    if (in.sees("="))
      hint = fmt::format("say: let {0} = ... for a new name, or: set {0} to ...", word);
    in.refuse(head.span, fmt::format("a move has no line that begins with \"{}\"", word),
              !hint.empty()
                  ? hint
                  : didYouMean(word, statementWords(), "such as: pick, need, put, take, shift"));
  }
  in.end();
  return out;
}

}  // namespace

std::vector<Statement> statements(const Source& source, const std::vector<Block>& blocks,
                                  std::vector<Diagnostic>& found) {
  std::vector<Statement> out;
  for (const Block& block : blocks) {
    Cursor in(source, block.tokens, found);
    try {
      if (block.pictureRow) in.refuse(block.span, "a row of a picture has no place here");
      if (in.sees("otherwise")) {
        in.next();
        in.end();
        if (out.empty() || out.back().kind != StatementKind::when || !out.back().otherwise.empty())
          in.refuse(block.span, "`otherwise` has no `when` block right above it");
        out.back().otherwise = statements(source, block.children, found);
        if (block.children.empty()) in.refuse(block.span, "`otherwise` holds no lines");
        continue;
      }
      Statement one = statement(in);
      if (one.kind == StatementKind::when || one.kind == StatementKind::repeat) {
        one.body = statements(source, block.children, found);
        if (block.children.empty())
          in.refuse(block.span, fmt::format("this `{}` holds no lines", block.word()),
                    "indent what it guards below it");
      } else if (!block.children.empty()) {
        in.note(block.children.front().span,
                "this line is indented, but nothing above opens a block",
                "only `when`, `otherwise` and `repeat` hold further lines here");
      }
      out.push_back(std::move(one));
    } catch (const Refused&) {
    }
  }
  return out;
}

}  // namespace ninepegs::sheet
