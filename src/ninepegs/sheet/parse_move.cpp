// The statements of moves and of `after` blocks.
#include "ninepegs/sheet/parse_move.hpp"

#include <fmt/format.h>

#include "ninepegs/base/text.hpp"

namespace ninepegs::sheet {
namespace {

const std::vector<std::string>& statementWords() {
  static const std::vector<std::string> words = {
      "pick", "choose", "let", "set",    "need", "put",       "shift", "take",
      "flip", "change", "add", "remove", "when", "otherwise", "again", "written"};
  return words;
}

// Statements that the language has and this version cannot run yet.
const std::vector<std::string>& laterWords() {
  static const std::vector<std::string> words = {"repeat", "must", "tell", "seen", "write"};
  return words;
}

Statement statement(Cursor& in) {
  Statement out;
  const Token head = in.next();
  out.span = head.span;
  const std::string& word = head.text;
  if (word == "pick") {
    out.kind = StatementKind::pick;
    out.name = in.name("a name for the picked cell");
    in.expect("in", "say: pick there in empty");
    out.args.push_back(expression(in));
  } else if (word == "choose") {
    out.kind = StatementKind::choose;
    out.name = in.name("a name for the choice");
    in.expect("from", "say: choose man from queen, rook");
    out.names.push_back(in.name("a kind of piece"));
    while (in.accept(",")) out.names.push_back(in.name("a kind of piece"));
  } else if (word == "let" || word == "set") {
    out.kind = word == "let" ? StatementKind::let : StatementKind::set;
    if (word == "set" && in.accept("my"))
      out.names.push_back({"my", head.span});
    else if (word == "set" && in.accept("their"))
      out.names.push_back({"their", head.span});
    out.name = in.name("a name");
    in.expect(word == "let" ? "=" : "to");
    out.args.push_back(expression(in));
  } else if (word == "need") {
    out.kind = StatementKind::need;
    out.args.push_back(condition(in));
  } else if (word == "put") {
    out.kind = StatementKind::put;
    out.name = in.name("a kind of piece");
    in.expect("on", "say: put disc on there");
    out.args.push_back(expression(in));
  } else if (word == "shift") {
    out.args.push_back(expression(in));
    if (in.accept("by"))
      in.refuse(in.span(),
                "`shift ... by` belongs to the language, but this version cannot run it yet",
                "say: shift here to there");
    in.expect("to", "say: shift here to there");
    out.kind = StatementKind::shift;
    out.args.push_back(expression(in));
  } else if (word == "take" || word == "flip") {
    out.kind = word == "take" ? StatementKind::take : StatementKind::flip;
    out.args.push_back(expression(in));
  } else if (word == "change") {
    out.kind = StatementKind::change;
    out.args.push_back(expression(in));
    in.expect("into", "say: change there into king");
    out.name = in.name("a kind of piece");
  } else if (word == "add" || word == "remove") {
    bool add = word == "add";
    out.kind = add ? StatementKind::addTo : StatementKind::removeFrom;
    out.args.push_back(expression(in));
    in.expect(add ? "to" : "from", add ? "say: add there to MARK" : "say: remove there from MARK");
    if (in.accept("my"))
      out.names.push_back({"my", head.span});
    else if (in.accept("their"))
      out.names.push_back({"their", head.span});
    out.name = in.name("a mark");
  } else if (word == "when") {
    out.kind = StatementKind::when;
    out.args.push_back(condition(in));
  } else if (word == "again") {
    out.kind = StatementKind::again;
  } else if (word == "written") {
    out.kind = StatementKind::writtenAs;
    in.expect("as", "say: written as there");
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
        Name name = in.name("a name of this move");
        Expr cell;
        cell.span = name.span;
        cell.kind = ExprKind::name;
        cell.word = name.text;
        of.args.push_back(std::move(cell));
        out.args.push_back(std::move(of));
        continue;
      }
      Name name = in.name("a name of this move");
      Expr expr;
      expr.kind = ExprKind::name;
      expr.span = name.span;
      expr.word = name.text;
      out.args.push_back(std::move(expr));
    }
    if (out.args.empty())
      in.refuse(in.span(), "the parts of the move's text should follow",
                "say: written as here \"-\" there");
  } else {
    for (const std::string& later : laterWords())
      if (later == word)
        in.refuse(
            head.span,
            fmt::format("`{}` belongs to the language, but this version cannot run it yet", word));
    in.refuse(head.span, fmt::format("a move has no line that begins with \"{}\"", word),
              didYouMean(word, statementWords(), "such as: pick, need, put, take, shift"));
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
      if (one.kind == StatementKind::when) {
        one.body = statements(source, block.children, found);
        if (block.children.empty())
          in.refuse(block.span, "this `when` holds no lines", "indent what it guards below it");
      } else if (!block.children.empty()) {
        in.note(block.children.front().span,
                "this line is indented, but nothing above opens a block",
                "only `when` and `otherwise` hold further lines here");
      }
      out.push_back(std::move(one));
    } catch (const Refused&) {
    }
  }
  return out;
}

}  // namespace ninepegs::sheet
